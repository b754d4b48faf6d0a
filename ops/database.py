"""A MariaDB of the project's own on loopback, with its data under a folder of the checkout.

Nobody else on the machine can read it: root and the application's own user have generated
passwords in a file of mode 600, the socket lies in a folder of mode 700, and the application's
user has rights to its own schemas only and none to files. Where the machine has the package's
own user and lets it in, the server runs as that one and not as root.
"""

from __future__ import annotations

import contextlib
import fcntl
import getpass
import json
import os
import pwd
import secrets
import shutil
import subprocess
import time
from collections.abc import Iterator
from pathlib import Path

from .lock import FolderLock
from .machine import (
    DATABASE_START_SECONDS,
    LOGS,
    ROOT,
    command_of,
    end_process,
    free_port,
    need_debian,
    run,
    stop,
)

STOP_SECONDS = 20.0
USER = "heathrise"
_MAX_PACKET = "128M"  # a whole large project is one entry of the journal


class Database:
    """One server process over one data folder, which it alone may use."""

    def __init__(self, folder: Path, durable: bool = True) -> None:
        self.folder = folder
        self.port = 0
        self.user = getpass.getuser()
        self._durable = durable
        self._lock = FolderLock(folder)
        self._process: subprocess.Popen[bytes] | None = None

    def take(self) -> None:
        """Take the folder for this process, or end with a line that says who holds it."""
        self._lock.take()

    def clear(self) -> None:
        """Delete all data. Only for who holds the folder."""
        self._end_left_over()
        shutil.rmtree(self.folder, ignore_errors=True)

    def start(self) -> None:
        """Make the data folder if there is none, start the server, wait until it answers."""
        need_debian("mariadbd", "mariadb-server")
        self._prepare()
        self._end_left_over()
        # Started again it keeps its port, so that those who knew it find it.
        self.port = self.port or free_port()
        passwords = self._passwords()
        script = self._script(passwords)
        # A socket's path may hold about a hundred characters, so it is given from the folder.
        durable = [] if self._durable else ["--debug-no-sync"]  # safe from kills, not from power cuts
        with (LOGS / f"mariadb-{self.folder.name}.log").open("ab") as log:
            self._process = subprocess.Popen(
                [
                    _server(),
                    "--no-defaults",
                    f"--datadir={self.folder / 'data'}",
                    "--bind-address=127.0.0.1",
                    f"--port={self.port}",
                    "--socket=../run/db.sock",
                    f"--pid-file={self.folder / 'run' / 'db.pid'}",
                    f"--init-file={script}",
                    f"--secure-file-priv={self.folder / 'run'}",
                    "--local-infile=0",
                    f"--tmpdir={self.folder / 'tmp'}",
                    "--skip-name-resolve",
                    "--skip-symbolic-links",
                    "--character-set-server=utf8mb4",
                    f"--max-allowed-packet={_MAX_PACKET}",
                    "--innodb-buffer-pool-size=64M",
                    "--skip-log-bin",
                    *durable,
                    *self._as_user(),
                ],
                stdout=log,
                stderr=subprocess.STDOUT,
                cwd=self.folder,
                start_new_session=True,
            )
        self._wait(passwords["root"])
        script.unlink(missing_ok=True)

    def _prepare(self) -> None:
        """Make the folders; the data in one beside them that is renamed when it is whole."""
        self.folder.mkdir(parents=True, exist_ok=True)
        self.user = _server_user(self.folder)
        data = self.folder / "data"
        if not (data / "mysql").exists():
            shutil.rmtree(data, ignore_errors=True)
            for left_over in self.folder.glob("new-*"):
                shutil.rmtree(left_over, ignore_errors=True)
            fresh = self.folder / f"new-{os.getpid()}"
            with _one_at_a_time(self.folder.parent):
                run(
                    [
                        "mariadb-install-db",
                        "--no-defaults",
                        f"--datadir={fresh}",
                        "--auth-root-authentication-method=normal",
                        "--skip-test-db",
                        *self._as_user(),
                    ],
                    "setting up the database",
                    f"mariadb-install-{self.folder.name}",
                )
            fresh.rename(data)
        shutil.rmtree(self.folder / "tmp", ignore_errors=True)  # what a killed server left there
        for name in ("run", "tmp"):
            own = self.folder / name
            own.mkdir(exist_ok=True)
            own.chmod(0o700)
            if os.geteuid() == 0:
                shutil.chown(own, self.user)
        if os.geteuid() == 0:
            _give(self.folder / "data", self.user)

    def _as_user(self) -> list[str]:
        return [f"--user={self.user}"] if os.geteuid() == 0 else []

    def _passwords(self) -> dict[str, str]:
        """Return the passwords of both users. Where there are none that can be read they are made
        anew, since each start sets them."""
        path = self.folder / "passwords.json"
        with contextlib.suppress(OSError, ValueError):
            kept: dict[str, str] = json.loads(path.read_text("utf-8"))
            if {"root", USER} <= set(kept):
                return kept
        made = {"root": secrets.token_urlsafe(24), USER: secrets.token_urlsafe(24)}
        fresh = path.with_suffix(".new")
        fresh.unlink(missing_ok=True)
        with os.fdopen(os.open(fresh, os.O_WRONLY | os.O_CREAT | os.O_EXCL, 0o600), "w") as out:
            json.dump(made, out)
            out.flush()
            os.fsync(out.fileno())
        fresh.rename(path)
        return made

    def _script(self, passwords: dict[str, str]) -> Path:
        """Write what the server runs before it lets anybody in; it is removed afterwards."""
        path = self.folder / "run" / "init.sql"
        path.unlink(missing_ok=True)
        lines = [
            "DELETE FROM mysql.global_priv WHERE User = '' OR (User = 'root' AND Host NOT IN "
            "('localhost', '127.0.0.1'));",
            "FLUSH PRIVILEGES;",
        ]
        for host in ("localhost", "127.0.0.1"):
            who = f"'root'@'{host}'"
            lines += [
                f"CREATE USER IF NOT EXISTS {who};",
                f"ALTER USER {who} IDENTIFIED BY '{passwords['root']}';",
                f"GRANT ALL ON *.* TO {who} WITH GRANT OPTION;",
            ]
        own = f"'{USER}'@'127.0.0.1'"
        lines += [f"CREATE USER IF NOT EXISTS {own};", f"ALTER USER {own} IDENTIFIED BY '{passwords[USER]}';"]
        handle = os.open(path, os.O_WRONLY | os.O_CREAT | os.O_EXCL, 0o600)
        with os.fdopen(handle, "w") as out:
            out.write("\n".join(lines) + "\n")
        if os.geteuid() == 0:
            shutil.chown(path, self.user)
        return path

    def _end_left_over(self) -> None:
        """End a server that an earlier, killed start left over the same data."""
        for path in (self.folder / "run" / "db.pid", self.folder / "db.pid"):
            with contextlib.suppress(ValueError, ProcessLookupError, PermissionError, OSError):
                pid = int(path.read_text())
                if str(self.folder) in command_of(pid):
                    end_process(pid, STOP_SECONDS)

    def _wait(self, password: str) -> None:
        import pymysql

        deadline = time.monotonic() + DATABASE_START_SECONDS
        while time.monotonic() < deadline:
            if self._process is None or self._process.poll() is not None:
                stop(f"MariaDB did not start; see var/log/mariadb-{self.folder.name}.log")
            with contextlib.suppress(pymysql.err.OperationalError):
                pymysql.connect(host="127.0.0.1", port=self.port, user="root", password=password).close()
                return
            time.sleep(0.05)
        stop(f"MariaDB did not answer within {DATABASE_START_SECONDS:.0f} s; see {LOGS.relative_to(ROOT)}")

    def create(self, name: str, fresh: bool = False) -> str:
        """Make the named schema unless it is there; return the URL of its own user."""
        import pymysql

        passwords = self._passwords()
        connection = pymysql.connect(
            host="127.0.0.1", port=self.port, user="root", password=passwords["root"]
        )
        with connection, connection.cursor() as cursor:
            if fresh:
                cursor.execute(f"DROP DATABASE IF EXISTS `{name}`")
            cursor.execute(f"CREATE DATABASE IF NOT EXISTS `{name}` CHARACTER SET utf8mb4")
            escaped = name.replace("_", r"\_")
            cursor.execute(f"GRANT ALL ON `{escaped}`.* TO '{USER}'@'127.0.0.1'")
        who = f"{USER}:{passwords[USER]}@127.0.0.1:{self.port}"
        return f"mysql+pymysql://{who}/{name}?charset=utf8mb4"

    @property
    def running(self) -> bool:
        return self._process is not None and self._process.poll() is None

    @property
    def pid(self) -> int | None:
        return self._process.pid if self._process else None

    def kill(self) -> None:
        """End the server at once, as a power cut would."""
        if self._process:
            self._process.kill()
            self._process.wait()

    def stop(self) -> None:
        if self._process is not None and self._process.poll() is None:
            self._process.terminate()
            try:
                self._process.wait(STOP_SECONDS)
            except subprocess.TimeoutExpired:
                self._process.kill()
                self._process.wait()
        self._lock.release()


def _server() -> str:
    return shutil.which("mariadbd") or "/usr/sbin/mariadbd"


def _server_user(folder: Path) -> str:
    """Return who the server runs as: for root the package's own user, if it can get there."""
    if os.geteuid() != 0:
        return getpass.getuser()
    with contextlib.suppress(KeyError):
        pwd.getpwnam("mysql")
        if all(p.stat().st_mode & 0o001 for p in (folder, *folder.parents)):
            return "mysql"
    return getpass.getuser()


def _give(data: Path, user: str) -> None:
    """Make a user the owner of the data, as an earlier start may have left them to another."""
    if data.stat().st_uid == pwd.getpwnam(user).pw_uid:
        return
    for path in (data, *data.rglob("*")):
        shutil.chown(path, user)


@contextlib.contextmanager
def _one_at_a_time(folder: Path) -> Iterator[None]:
    """Hold what sets a database up: two at once on a small machine have been seen to fail."""
    with (folder / "install.lock").open("w") as held:
        fcntl.flock(held, fcntl.LOCK_EX)
        yield


@contextlib.contextmanager
def running(folder: Path, durable: bool = True) -> Iterator[Database]:
    """Run a database for the length of a with block."""
    database = Database(folder, durable)
    try:
        database.take()
        database.start()
        yield database
    finally:
        database.stop()
