"""Keeps a database and a server over it: the demo's, or another for tests and measurements."""

from __future__ import annotations

import contextlib
import shutil
import signal
import subprocess
import sys
import time
import urllib.error
import urllib.request
from collections.abc import Callable, Iterator
from pathlib import Path

from .database import Database
from .machine import LOGS, ROOT, SERVER_START_SECONDS, VAR, free_port, stop
from .setup import environment

STOP_SECONDS = 15.0
KEY_FILE = VAR / "keys" / "sealing.key"  # of all servers of this checkout; in no database
DEMO_PACE = 12.0  # seconds that go by in each for gear that a stand-in plays
DATABASE_VARIABLE = "HEATHRISE_DATABASE"
TRY_AGAIN_SECONDS = 5.0
MOST_DEATHS, DEATHS_SECONDS = 5, 60.0


class Server:
    """One server process on a port of loopback."""

    def __init__(
        self,
        url: str,
        port: int,
        dist: Path,
        demo: bool = True,
        data: Path | None = None,
        controller: str | None = None,
    ) -> None:
        self.port = port
        self._command = [
            sys.executable,
            "-m",
            "heathrise.web.server",
            "--port",
            str(port),
            "--frontend",
            str(dist),
            "--kept",
            "--key-file",
            str(KEY_FILE),
            *(["--demo"] if demo else []),
            *(["--data", str(data)] if data else []),
            *(["--controller", controller, "--standin"] if controller else []),
        ]
        # In the environment, which only the same user can read, not on the command line.
        self.environment = {**environment(), DATABASE_VARIABLE: url}
        self._process: subprocess.Popen[bytes] | None = None

    @property
    def base(self) -> str:
        return f"http://127.0.0.1:{self.port}"

    def start(self) -> None:
        with (LOGS / "server.log").open("ab") as log:
            self._process = subprocess.Popen(
                self._command, cwd=ROOT, env=self.environment, stdout=log, stderr=subprocess.STDOUT
            )

    def wait_ready(self) -> None:
        deadline = time.monotonic() + SERVER_START_SECONDS
        while time.monotonic() < deadline and self.running:
            with contextlib.suppress(urllib.error.URLError, ConnectionError, TimeoutError):
                urllib.request.urlopen(f"{self.base}/api/health", timeout=2).close()
                return
            time.sleep(0.1)
        stop("the server did not start; see var/log/server.log")

    @property
    def running(self) -> bool:
        return self._process is not None and self._process.poll() is None

    @property
    def pid(self) -> int | None:
        return self._process.pid if self._process else None

    def kill(self) -> None:
        """End the process at once, as kill -9 does."""
        if self._process:
            self._process.kill()
            self._process.wait()

    def stop(self) -> None:
        if self._process and self.running:
            self._process.terminate()
            try:
                self._process.wait(STOP_SECONDS)
            except subprocess.TimeoutExpired:
                self.kill()


class Standin:
    """The stand-in for the controllers of all sites, a process of its own on loopback."""

    def __init__(self, folder: Path, pace: float) -> None:
        self.port = free_port()
        parts = ["--port", str(self.port), "--folder", str(folder), "--pace", str(pace)]
        self._command = [sys.executable, "-m", "heathrise.standins.controller", *parts]
        self._process: subprocess.Popen[bytes] | None = None

    @property
    def base(self) -> str:
        return f"http://127.0.0.1:{self.port}"

    def start(self) -> None:
        with (LOGS / "standin.log").open("ab") as log:
            self._process = subprocess.Popen(
                self._command, cwd=ROOT, env=environment(), stdout=log, stderr=subprocess.STDOUT
            )

    @property
    def running(self) -> bool:
        return self._process is not None and self._process.poll() is None

    def stop(self) -> None:
        if self._process and self.running:
            self._process.terminate()
            self._process.wait(STOP_SECONDS)


@contextlib.contextmanager
def serving(
    url: str, port: int, dist: Path, demo: bool = True, controller: str | None = None
) -> Iterator[Server]:
    """Run a server for the length of a with block."""
    server = Server(url, port, dist, demo, controller=controller)
    try:
        server.start()
        server.wait_ready()
        yield server
    finally:
        server.stop()


def main() -> int:
    """Serve the demo until told to stop: ``python -m ops.serve PORT DIST [fresh]``."""
    port, dist, fresh = int(sys.argv[1]), Path(sys.argv[2]), "fresh" in sys.argv[3:]
    stopping = False

    def end(*_: object) -> None:
        nonlocal stopping
        stopping = True

    signal.signal(signal.SIGTERM, end)
    signal.signal(signal.SIGINT, end)
    database = Database(VAR / "demo")
    try:
        database.take()
        if fresh:
            database.clear()
        database.start()
        standin = Standin(database.folder / "controllers", DEMO_PACE)
        url = database.create("heathrise")
        server = Server(url, port, dist, data=database.folder, controller=standin.base)
        # Its own alone: the database runs as another user, and has one of its own.
        server.environment["TMPDIR"] = str(_own_folder_for_now())
        try:
            standin.start()
            server.start()
            _keep(database, server, lambda: stopping, standin)
        finally:
            server.stop()
            standin.stop()
    finally:
        database.stop()
    return 0


def _started(database: Database) -> bool:
    """Start the database again; where that fails the server goes on saying that it is away."""
    try:
        database.start()
    except SystemExit:
        return False
    return True


def _own_folder_for_now() -> Path:
    """Have what is only there for now in a folder of the demo's own, empty at each start: what a
    killed server leaves there does not pile up."""
    folder = VAR / "demo-tmp"
    shutil.rmtree(folder, ignore_errors=True)
    folder.mkdir(parents=True)
    return folder


def _keep(
    database: Database, server: Server, stopping: Callable[[], bool], standin: Standin | None = None
) -> None:
    """Start again whichever of them has died, until told to stop."""
    deaths: list[float] = []
    while not stopping():
        time.sleep(0.2)
        if stopping():
            return
        if not database.running and not _started(database):
            time.sleep(TRY_AGAIN_SECONDS)
            continue
        if standin is not None and not standin.running:
            standin.start()
        if not server.running:
            deaths = [d for d in deaths if time.monotonic() - d < DEATHS_SECONDS]
            if len(deaths) >= MOST_DEATHS:
                stop("the server ended again and again; see var/log/server.log")
            deaths.append(time.monotonic())
            server.start()


if __name__ == "__main__":
    sys.exit(main())
