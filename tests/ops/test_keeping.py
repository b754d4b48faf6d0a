"""The data folder: one keeper, nobody else let in, whole or not there."""

from __future__ import annotations

import json
import os
import pwd
import shutil
import signal
import stat
import subprocess
import sys
import time
from collections.abc import Callable
from pathlib import Path

import pymysql
import pytest

from ops import machine, setup
from ops import run as run_module
from ops.database import USER, Database
from ops.lock import FolderLock
from ops.machine import ROOT, Stop
from ops.serve import Server, _keep


def _connect(database: Database, user: str, password: str, **more: object) -> pymysql.Connection:
    return pymysql.connect(
        host="127.0.0.1",
        port=database.port,
        user=user,
        password=password,
        **more,  # type: ignore[arg-type]
    )


def test_nobody_gets_in_without_a_password(database: Database) -> None:
    database.create("unit")
    for user in ("root", USER, "mysql", ""):
        with pytest.raises(pymysql.err.OperationalError):
            _connect(database, user, "")
    path = database.folder / "passwords.json"
    assert stat.S_IMODE(path.stat().st_mode) == 0o600
    assert stat.S_IMODE((database.folder / "run").stat().st_mode) == 0o700
    assert not list((database.folder / "run").glob("*.sql"))
    passwords = json.loads(path.read_text())
    assert len(set(passwords.values())) == 2 and min(map(len, passwords.values())) >= 30


def test_its_own_user_has_its_own_schemas_and_no_files(database: Database) -> None:
    database.create("unit")
    password = json.loads((database.folder / "passwords.json").read_text())[USER]
    with _connect(database, USER, password) as line, line.cursor() as cursor:
        cursor.execute("SHOW GRANTS")
        grants = [row[0] for row in cursor.fetchall()]
        assert grants[0].startswith("GRANT USAGE ON *.*")
        assert not any("FILE" in g or "SUPER" in g for g in grants)
        for statement in (
            "SELECT * FROM mysql.global_priv",
            "SELECT LOAD_FILE('/etc/passwd') INTO OUTFILE '/tmp/heathrise-out'",
            "CREATE DATABASE elsewhere",
        ):
            with pytest.raises(pymysql.err.Error):
                cursor.execute(statement)
        cursor.execute("SHOW VARIABLES LIKE 'secure_file_priv'")
        assert cursor.fetchall()[0][1].rstrip("/") == str(database.folder / "run")


def test_the_server_is_not_root_where_the_package_has_a_user(database: Database) -> None:
    assert database.pid
    owner = pwd.getpwuid(Path(f"/proc/{database.pid}").stat().st_uid).pw_name
    assert owner == database.user
    if os.geteuid() == 0 and all(p.stat().st_mode & 1 for p in database.folder.parents):
        assert owner == "mysql"


def test_the_address_of_the_database_is_on_no_command_line(database: Database) -> None:
    url = database.create("unit")
    assert url.split("@")[0] not in " ".join(Server(url, 1, ROOT)._command)


HOLD = (
    "import sys, time; from pathlib import Path; from ops.lock import FolderLock\n"
    "FolderLock(Path(sys.argv[1])).take(); print('held', flush=True); time.sleep(60)"
)


def test_a_second_keeper_is_told_who_holds_the_data(
    tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    folder = tmp_path / "data"
    folder.mkdir()
    (folder / "kept").write_text("here")
    first = subprocess.Popen(
        [sys.executable, "-c", HOLD, str(folder)], cwd=ROOT, stdout=subprocess.PIPE, text=True
    )
    assert first.stdout and first.stdout.readline() == "held\n"
    second = Database(folder)
    with pytest.raises(Stop):
        second.take()
    said = capsys.readouterr().err.strip().splitlines()
    assert len(said) == 1 and f"in use by process {first.pid} (" in said[0]
    assert (folder / "kept").exists()
    first.kill()
    first.wait()
    lock = FolderLock(folder)
    lock.take()
    lock.release()


def test_data_that_an_ended_set_up_left_half_made_are_made_anew(tmp_path: Path) -> None:
    database = Database(tmp_path / "db")
    for left_over in ("data", "new-123"):
        (tmp_path / "db" / left_over / "half").mkdir(parents=True)
    try:
        database.start()
        assert database.create("whole").startswith(f"mysql+pymysql://{USER}:")
        assert not list((tmp_path / "db").glob("new-*"))
    finally:
        database.stop()


@pytest.mark.parametrize("left", ["", "{", '{"root": "x"}'])
def test_passwords_that_a_killed_start_left_half_written_are_made_anew(left: str, tmp_path: Path) -> None:
    database = Database(tmp_path / "db", durable=False)
    try:
        database.start()
        database.stop()
        (tmp_path / "db" / "passwords.json").write_text(left)
        database.start()
        assert database.create("again").startswith(f"mysql+pymysql://{USER}:")
        assert stat.S_IMODE((tmp_path / "db" / "passwords.json").stat().st_mode) == 0o600
        with _connect(database, "root", database._passwords()["root"]) as line:
            cursor = line.cursor()
            cursor.execute("SELECT @@tmpdir")
            assert cursor.fetchone() == (str(tmp_path / "db" / "tmp"),)
    finally:
        database.stop()


KEEP = """
import sys
from pathlib import Path
from ops.serve import Server
server = Server(sys.argv[1], int(sys.argv[2]), Path(sys.argv[3]), demo=False)
server.start()
print(server.pid, flush=True)
server._process.wait()
"""


def _kept_server(database: Database, port: int) -> tuple[subprocess.Popen[str], int]:
    url = database.create("kept", fresh=True)
    keeper = subprocess.Popen(
        [sys.executable, "-c", KEEP, url, str(port), str(ROOT / "frontend" / "dist")],
        cwd=ROOT,
        stdout=subprocess.PIPE,
        text=True,
    )
    assert keeper.stdout
    return keeper, int(keeper.stdout.readline())


def _until(done: Callable[[], bool]) -> None:
    deadline = time.monotonic() + 120  # of a machine that has other work as well
    while not done() and time.monotonic() < deadline:
        time.sleep(0.1)
    assert done()


def test_a_server_ends_when_its_keeper_is_killed(database: Database) -> None:
    port = machine.free_port()
    keeper, pid = _kept_server(database, port)
    _until(lambda: not machine.port_is_free(port))
    keeper.kill()
    keeper.wait()
    _until(lambda: machine.port_is_free(port) and not Path(f"/proc/{pid}").exists())


SERVE = """
import sys
from pathlib import Path
import ops.serve
ops.serve.VAR = Path(sys.argv[3])
sys.exit(ops.serve.main())
"""


def test_a_first_start_and_the_next_serve_from_folders_of_their_own() -> None:
    """From nothing, as on a machine where nothing was ever started; killed, and started again."""
    # Within the checkout, where the database runs as its package's own user.
    folder = machine.VAR / f"first-start-{os.getpid()}"
    port = machine.free_port()
    for _ in range(2):
        keeper = subprocess.Popen(
            [sys.executable, "-c", SERVE, str(port), str(ROOT / "frontend" / "dist"), str(folder)], cwd=ROOT
        )
        try:
            _until(lambda: not machine.port_is_free(port))
            holder = machine.holder_of(port)
            assert holder is not None
            said = Path(f"/proc/{holder[0]}/environ").read_bytes().decode()
            assert f"TMPDIR={folder / 'demo-tmp'}" in said.split("\0")
        finally:
            keeper.kill()
            keeper.wait()
        _until(lambda: machine.port_is_free(port))
    last = Database(folder / "demo")
    last.take()
    last._end_left_over()
    last.stop()
    shutil.rmtree(folder)


def test_the_next_start_ends_a_server_that_was_left_over(
    database: Database, capsys: pytest.CaptureFixture[str]
) -> None:
    """One that is stopped cannot end by itself; one that is still kept is nobody's to end."""
    port = machine.free_port()
    keeper, pid = _kept_server(database, port)
    _until(lambda: not machine.port_is_free(port))
    holder = machine.holder_of(port)
    assert holder is not None and holder[0] == pid and "heathrise.web.server" in holder[1]
    with pytest.raises(Stop):
        run_module._free(port)
    assert f"is taken by process {pid} (" in capsys.readouterr().err
    os.kill(pid, signal.SIGSTOP)
    keeper.kill()
    keeper.wait()
    run_module._free(port)
    assert f"Ending a server that a killed start left on port {port}" in capsys.readouterr().out
    assert machine.port_is_free(port)


def test_a_server_that_dies_is_started_again() -> None:
    class Mortal:
        def __init__(self) -> None:
            self.starts, self.running = 0, False

        def start(self) -> None:
            self.starts += 1
            self.running = self.starts >= 3

    database, server = Mortal(), Mortal()
    database.running = True
    until = time.monotonic() + 2
    _keep(database, server, lambda: server.running or time.monotonic() > until)  # type: ignore[arg-type]
    assert server.starts == 3 and database.starts == 0
    server.starts = -20
    server.running = False
    with pytest.raises(Stop):
        _keep(database, server, lambda: False)  # type: ignore[arg-type]


@pytest.mark.parametrize("port", ["99999", "0", "-1", "http"])
def test_a_port_that_is_none_is_refused_in_words(port: str, capsys: pytest.CaptureFixture[str]) -> None:
    with pytest.raises(SystemExit):
        run_module.main(["demo", f"--port={port}"])
    said = capsys.readouterr().err
    assert f"'{port}' is not a port" in said and "Traceback" not in said


def test_a_folder_that_cannot_be_written_is_one_clear_line(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch, capsys: pytest.CaptureFixture[str]
) -> None:
    (tmp_path / "file").write_text("in the way")
    monkeypatch.setattr(machine, "VAR", tmp_path / "file" / "var")
    with pytest.raises(Stop):
        machine.check_basics()
    assert "cannot be written to" in capsys.readouterr().err


def test_an_environment_that_was_left_half_installed_is_made_anew(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    made: list[str] = []
    monkeypatch.setattr(setup, "VENV", tmp_path / "venv")
    monkeypatch.setattr(setup, "PYTHON", tmp_path / "venv" / "bin" / "python")
    monkeypatch.setattr(setup, "INSTALLING", tmp_path / "installing")
    monkeypatch.setattr(setup, "run", lambda _, what, *__, **___: made.append(what))
    monkeypatch.setattr(setup, "need_venv", lambda: None)
    monkeypatch.setattr(setup, "set_stamp", lambda *_: None)
    monkeypatch.setattr(setup, "is_fresh", lambda *_: True)
    (tmp_path / "venv" / "bin").mkdir(parents=True)
    (tmp_path / "venv" / "bin" / "python").touch()
    setup._python(for_tests=True)
    assert made == []
    (tmp_path / "installing").touch()
    setup._python(for_tests=True)
    assert made.count("Python packages") == 2 and made[0] == "making the Python environment"
    assert not (tmp_path / "installing").exists()
