"""./run as a stranger meets it: its commands, its one-line complaints, a clean ending."""

from __future__ import annotations

import os
import shutil
import signal
import socket
import subprocess
import sys
import time
import urllib.request
from collections.abc import Iterator
from importlib.metadata import distribution
from pathlib import Path

import pytest
from packaging.requirements import Requirement
from packaging.utils import canonicalize_name

from ops import machine
from ops.database import Database
from ops.machine import FRONTEND, ROOT, Stop, end_process, free_port, has_ended, port_is_free, stamp_of
from ops.serve import Server
from ops.setup import front_end_sources, locked_names


def _run(*arguments: str, **more: object) -> subprocess.CompletedProcess[str]:
    return subprocess.run(
        [str(ROOT / "run"), *arguments],
        capture_output=True,
        text=True,
        timeout=60,
        check=False,
        **more,  # type: ignore[call-overload]
    )


def test_alone_it_lists_its_commands() -> None:
    done = _run()
    assert done.returncode == 0
    for command in ("demo", "test", "check", "bench", "screenshots"):
        assert command in done.stdout


def test_it_runs_from_any_folder(tmp_path: Path) -> None:
    assert "demo" in _run(cwd=tmp_path).stdout


@pytest.fixture
def taken_port() -> Iterator[int]:
    with socket.socket() as holder:
        holder.bind(("127.0.0.1", 0))
        holder.listen()
        yield holder.getsockname()[1]


def test_a_busy_port_is_one_clear_line(taken_port: int) -> None:
    done = _run("demo", "--port", str(taken_port))
    assert done.returncode == 1
    (said,) = done.stderr.strip().splitlines()
    assert said.startswith(f"heathrise: port {taken_port} is taken by process {os.getpid()} (")
    assert said.endswith("; stop what listens there, or choose another with --port")
    assert not port_is_free(taken_port)


def test_an_unknown_command_is_refused_without_a_trace() -> None:
    done = _run("dance")
    assert done.returncode == 2
    assert "dance" in done.stderr and "Traceback" not in done.stderr


@pytest.mark.parametrize("tool", ["node", "npm"])
def test_a_missing_tool_is_one_clear_line(
    tool: str, monkeypatch: pytest.MonkeyPatch, capsys: pytest.CaptureFixture[str]
) -> None:
    real = shutil.which
    monkeypatch.setattr(machine.shutil, "which", lambda name: None if name == tool else real(name))
    with pytest.raises(Stop):
        machine.check_basics()
    said = capsys.readouterr().err.strip().splitlines()
    assert len(said) == 1 and "needed and was not found" in said[0]


def test_a_full_disk_is_one_clear_line(
    monkeypatch: pytest.MonkeyPatch, capsys: pytest.CaptureFixture[str]
) -> None:
    full = shutil.disk_usage("/")._replace(free=5_000_000)
    monkeypatch.setattr(machine.shutil, "disk_usage", lambda _: full)
    with pytest.raises(Stop):
        machine.check_basics()
    assert "only 5 MB are free" in capsys.readouterr().err


def test_a_missing_debian_package_without_apt_says_what_to_install(
    monkeypatch: pytest.MonkeyPatch, capsys: pytest.CaptureFixture[str]
) -> None:
    monkeypatch.setattr(machine.shutil, "which", lambda _: None)
    with pytest.raises(Stop):
        machine.need_debian("no-such-server", "some-package")
    assert "install some-package by hand" in capsys.readouterr().err


def test_a_step_that_fails_names_its_log(capsys: pytest.CaptureFixture[str]) -> None:
    with pytest.raises(Stop):
        machine.run([sys.executable, "-c", "print('no luck'); exit(3)"], "trying", "test-step")
    said = capsys.readouterr().err
    assert "trying failed (no luck)" in said and "test-step.log" in said
    with pytest.raises(Stop):
        machine.run(["/no/such/program"], "starting", "test-step")


def test_stamps_follow_contents(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(machine, "ROOT", tmp_path)
    file = tmp_path / "lock"
    file.write_text("one")
    first = stamp_of(file)
    file.write_text("two")
    assert stamp_of(file) != first
    assert FRONTEND / "index.html" in front_end_sources()


def test_locks_carry_no_address() -> None:
    for lock in (ROOT / "requirements.lock", ROOT / "requirements-dev.lock"):
        text = lock.read_text("utf-8")
        assert "--hash=sha256:" in text
        assert "://" not in text and "index-url" not in text.replace("--no-emit-index-url", "")
    packages = (FRONTEND / "package-lock.json").read_text("utf-8")
    assert '"resolved"' not in packages


def _children(pid: int) -> set[int]:
    """Return every living process below one."""
    found: set[int] = set()
    for entry in Path("/proc").iterdir():
        if entry.name.isdigit():
            try:
                parent = int((entry / "stat").read_text().rsplit(")", 1)[1].split()[1])
            except (OSError, IndexError, ValueError):
                continue
            if parent == pid:
                found |= {int(entry.name)} | _children(int(entry.name))
    return found


@pytest.mark.parametrize("how", [signal.SIGINT, signal.SIGTERM])
def test_a_server_and_its_database_end_together(how: int, tmp_path: Path) -> None:
    """The keeper behind ./run demo, ended as Ctrl-C and as a service manager would."""
    script = (
        "import sys, ops.serve as s; from pathlib import Path;"
        f"s.VAR = Path({str(tmp_path)!r}); sys.exit(s.main())"
    )
    port = free_port()
    keeper = subprocess.Popen([sys.executable, "-c", script, str(port), str(FRONTEND / "dist")], cwd=ROOT)
    try:
        deadline = time.monotonic() + 60
        while time.monotonic() < deadline:
            try:
                urllib.request.urlopen(f"http://127.0.0.1:{port}/api/health", timeout=2).close()
                break
            except OSError:
                time.sleep(0.2)
        family = _children(keeper.pid)
        assert len(family) >= 2
        keeper.send_signal(how)
        assert keeper.wait(40) == 0
        assert not [pid for pid in family if Path(f"/proc/{pid}").exists()]
    finally:
        if keeper.poll() is None:
            keeper.kill()


def test_a_database_left_over_by_a_killed_start_is_taken_over(tmp_path: Path) -> None:
    first = Database(tmp_path / "db")
    first.start()
    first.create("kept")
    left_over = first.pid
    second = Database(tmp_path / "db")
    try:
        second.start()
        assert second.create("kept").endswith("/kept?charset=utf8mb4")
        first.stop()
        assert left_over is not None and not Path(f"/proc/{left_over}").exists()
    finally:
        second.stop()
        if left_over and Path(f"/proc/{left_over}").exists():
            os.kill(left_over, signal.SIGKILL)


def test_a_process_that_nobody_waited_for_holds_nothing_up() -> None:
    """One that is done stays in the list until it is waited for; one that will not end is made to."""
    done = subprocess.Popen([sys.executable, "-c", ""])
    until = time.monotonic() + 30
    while not has_ended(done.pid) and time.monotonic() < until:
        time.sleep(0.01)
    assert Path(f"/proc/{done.pid}").exists() and has_ended(done.pid)
    begun = time.monotonic()
    end_process(done.pid, 60)
    assert time.monotonic() - begun < 30
    deaf = "import signal, time; signal.signal(signal.SIGTERM, signal.SIG_IGN); print(flush=True); time.sleep(60)"
    stays = subprocess.Popen([sys.executable, "-c", deaf], stdout=subprocess.PIPE)
    assert stays.stdout is not None and stays.stdout.readline()
    assert not has_ended(stays.pid)
    end_process(stays.pid, 0.2)
    assert stays.wait(30) == -signal.SIGKILL
    assert has_ended(stays.pid)


def test_the_server_listens_on_loopback_only(database: Database) -> None:
    server = Server(database.create("loop", fresh=True), free_port(), FRONTEND / "dist", demo=False)
    server.start()
    try:
        server.wait_ready()
        rows = Path("/proc/net/tcp").read_text().splitlines()[1:]
        for port in (server.port, database.port):
            listening = [
                r.split()[1] for r in rows if r.split()[1].endswith(f":{port:04X}") and r.split()[3] == "0A"
            ]
            assert listening == [f"0100007F:{port:04X}"]
    finally:
        server.stop()


def _locked() -> set[str]:
    names: list[str] = []
    for lock in ("requirements.lock", "requirements-dev.lock"):
        names += locked_names(ROOT / lock)
    return {canonicalize_name(n) for n in names}


def _asked_by(name: str, extras: frozenset[str]) -> Iterator[Requirement]:
    for text in distribution(name).requires or ():
        wanted = Requirement(text)
        marker = wanted.marker
        if marker is None or any(marker.evaluate({"extra": e}) for e in ("", *extras)):
            yield wanted


def test_the_lock_names_every_requirement_of_every_locked_package() -> None:
    """Nothing is resolved at install, so what is missing here would be missing there."""
    locked = _locked()
    todo: list[tuple[str, frozenset[str]]] = [(name, frozenset()) for name in sorted(locked)]
    seen: set[tuple[str, frozenset[str]]] = set()
    while todo:
        name, extras = todo.pop()
        if (name, extras) in seen:
            continue
        seen.add((name, extras))
        for wanted in _asked_by(name, extras):
            key = canonicalize_name(wanted.name)
            assert key in locked, f"{name} asks for {wanted}, which no lock names"
            assert wanted.specifier.contains(distribution(key).version, prereleases=True)
            todo.append((key, frozenset(wanted.extras)))
    assert ("pydantic", frozenset({"email"})) in seen, "the case that pip resolved anew"


def test_a_step_says_how_far_it_is(capsys: pytest.CaptureFixture[str]) -> None:
    watch = machine.counting(r"^Collecting (\S+)", 3)
    lines = "print('Collecting alpha'); print('noise'); print('Collecting beta')"
    machine.run([sys.executable, "-c", lines], "packages", "test-step", watch=watch)
    said = capsys.readouterr().out.splitlines()
    assert said[0] == "  packages: 1 of 3, alpha"
    assert said[-1] == "  packages: 2 of 3, beta"


HEAVY = {"numba", "ortools", "ezdxf", "scipy", "numpy", "shapely", "sqlalchemy", "flask"}


@pytest.mark.parametrize(
    ("arguments", "may_load"),
    [
        (["--help"], set()),
        (["schema"], {"shapely", "numpy"}),
        (["import-dxf", "no-such.dxf"], {"ezdxf", "shapely", "numpy", "scipy"}),
    ],
)
def test_a_command_loads_only_what_it_needs(arguments: list[str], may_load: set[str]) -> None:
    code = (
        "import sys\nfrom heathrise.cli import main\n"
        "try:\n    main()\nexcept SystemExit:\n    pass\n"
        "print('LOADED', *sys.modules)"
    )
    done = subprocess.run(
        [sys.executable, "-c", code, *arguments],
        capture_output=True,
        text=True,
        check=True,
        env={**os.environ, "PYTHONPATH": str(ROOT / "src")},
        timeout=60,
    )
    loaded = set(done.stdout.rsplit("LOADED", 1)[1].split())
    assert loaded & HEAVY <= may_load
