"""A MariaDB of the project's own on loopback, with its data under a folder of the checkout."""

from __future__ import annotations

import contextlib
import getpass
import os
import shutil
import signal
import subprocess
import time
from collections.abc import Iterator
from pathlib import Path

from .machine import LOGS, ROOT, free_port, need_debian, run, stop

START_SECONDS = 60.0
STOP_SECONDS = 20.0


class Database:
    """One server process over one data folder. Root has no password and answers on loopback."""

    def __init__(self, folder: Path, durable: bool = True) -> None:
        self.folder = folder
        self.port = 0
        self._durable = durable
        self._process: subprocess.Popen[bytes] | None = None

    def start(self) -> None:
        """Make the data folder if there is none, start the server, wait until it answers."""
        need_debian("mariadbd", "mariadb-server")
        data = self.folder / "data"
        self.folder.mkdir(parents=True, exist_ok=True)
        user = [f"--user={getpass.getuser()}"] if os.geteuid() == 0 else []
        if not (data / "mysql").exists():
            shutil.rmtree(data, ignore_errors=True)
            run(
                [
                    "mariadb-install-db", "--no-defaults", f"--datadir={data}",
                    "--auth-root-authentication-method=normal", "--skip-test-db", *user,
                ],
                "setting up the database", "mariadb-install",
            )  # fmt: skip
        self._end_left_over()
        # Started again it keeps its port, so that those who knew it find it.
        self.port = self.port or free_port()
        # A socket's path may hold about a hundred characters, so it is given from the folder.
        durable = [] if self._durable else ["--innodb-flush-log-at-trx-commit=0"]
        with (LOGS / f"mariadb-{self.folder.name}.log").open("ab") as log:
            self._process = subprocess.Popen(
                [
                    _server(), "--no-defaults", f"--datadir={data}",
                    "--bind-address=127.0.0.1", f"--port={self.port}", "--socket=../db.sock",
                    f"--pid-file={self.folder / 'db.pid'}", "--character-set-server=utf8mb4",
                    "--innodb-buffer-pool-size=64M", "--skip-log-bin", *durable, *user,
                ],
                stdout=log, stderr=subprocess.STDOUT, cwd=self.folder, start_new_session=True,
            )  # fmt: skip
        self._wait()

    def _end_left_over(self) -> None:
        """End a server that an earlier, killed start left over the same data."""
        path = self.folder / "db.pid"
        if not path.exists():
            return
        with contextlib.suppress(ValueError, ProcessLookupError, PermissionError, OSError):
            pid = int(path.read_text())
            command = Path(f"/proc/{pid}/cmdline").read_bytes().decode("utf-8", "replace")
            if str(self.folder) in command:
                os.kill(pid, signal.SIGTERM)
                deadline = time.monotonic() + STOP_SECONDS
                while Path(f"/proc/{pid}").exists() and time.monotonic() < deadline:
                    time.sleep(0.1)

    def _wait(self) -> None:
        import pymysql

        deadline = time.monotonic() + START_SECONDS
        while time.monotonic() < deadline:
            if self._process is None or self._process.poll() is not None:
                stop(f"MariaDB did not start; see var/log/mariadb-{self.folder.name}.log")
            with contextlib.suppress(pymysql.err.OperationalError):
                pymysql.connect(host="127.0.0.1", port=self.port, user="root").close()
                return
            time.sleep(0.1)
        stop(f"MariaDB did not answer within {START_SECONDS:.0f} s; see {LOGS.relative_to(ROOT)}")

    def create(self, name: str, fresh: bool = False) -> str:
        """Make the named database unless it is there; return its SQLAlchemy URL."""
        import pymysql

        connection = pymysql.connect(host="127.0.0.1", port=self.port, user="root")
        with connection, connection.cursor() as cursor:
            if fresh:
                cursor.execute(f"DROP DATABASE IF EXISTS `{name}`")
            cursor.execute(f"CREATE DATABASE IF NOT EXISTS `{name}` CHARACTER SET utf8mb4")
        return f"mysql+pymysql://root@127.0.0.1:{self.port}/{name}?charset=utf8mb4"

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
        if self._process is None or self._process.poll() is not None:
            return
        self._process.terminate()
        try:
            self._process.wait(STOP_SECONDS)
        except subprocess.TimeoutExpired:
            self._process.kill()
            self._process.wait()


def _server() -> str:
    return shutil.which("mariadbd") or "/usr/sbin/mariadbd"


@contextlib.contextmanager
def running(folder: Path, durable: bool = True) -> Iterator[Database]:
    """Run a database for the length of a with block."""
    database = Database(folder, durable)
    try:
        database.start()
        yield database
    finally:
        database.stop()
