"""What a machine must have, with one clear line for whatever is missing."""

from __future__ import annotations

import contextlib
import ctypes.util
import hashlib
import importlib.util
import os
import re
import shutil
import signal
import socket
import subprocess
import sys
import time
from collections.abc import Callable, Mapping, Sequence
from pathlib import Path
from typing import NoReturn

ROOT = Path(__file__).resolve().parent.parent
VAR = ROOT / "var"
VENV = ROOT / ".venv"
FRONTEND = ROOT / "frontend"
LOGS = VAR / "log"
LEAST_FREE_MB = 1500
DATABASE_START_SECONDS = 60.0
SERVER_START_SECONDS = 120.0  # the first on a slow machine compiles the kernels
TERMINAL_LINE_S = 0.1
PLAIN_LINE_S = 4.0


class Stop(SystemExit):
    """Ends the program with one line."""


def stop(line: str) -> NoReturn:
    print(f"heathrise: {line}", file=sys.stderr, flush=True)
    raise Stop(1)


def say(line: str) -> None:
    print(line, flush=True)


class Meter:
    """Shows how far a step is: in place on a terminal, as a line now and then elsewhere."""

    def __init__(self, what: str) -> None:
        self._what = what
        self._shown_s = 0.0
        self._width = 0
        self._last = ""

    def show(self, state: str) -> None:
        terminal = sys.stdout.isatty()
        now_s = time.monotonic()
        if now_s - self._shown_s < (TERMINAL_LINE_S if terminal else PLAIN_LINE_S):
            self._last = state
            return
        self._write(state, terminal)
        self._shown_s = now_s

    def end(self) -> None:
        """Show the last state, so that nobody is left with a count half way."""
        if self._last:
            self._write(self._last, sys.stdout.isatty())
        if self._width:
            print(flush=True)

    def _write(self, state: str, terminal: bool) -> None:
        line, self._last = f"  {self._what}: {state}", ""
        if terminal:
            print(f"\r{line:<{self._width}}", end="", flush=True)
            self._width = len(line)
        else:
            say(line)


def counting(pattern: str, total: int) -> Callable[[str], str | None]:
    """Return a watch that counts the lines matching ``pattern`` and names its first group."""
    seen: set[str] = set()
    matcher = re.compile(pattern)

    def watch(line: str) -> str | None:
        if line.startswith("Installing collected"):
            return f"{len(seen)} fetched, writing them to the disk"
        found = matcher.search(line)
        if found is None or found[1] in seen:
            return None
        seen.add(found[1])
        return f"{len(seen)} of {max(total, len(seen))}, {found[1]}"

    return watch


def check_basics() -> None:
    """Check interpreter, Node and disk before anything is begun."""
    if sys.version_info < (3, 11):  # noqa: UP036 - this is the check itself
        stop("Python 3.11 or newer is needed.")
    for tool, wanted in (("node", "Node 20 or newer"), ("npm", "npm")):
        if shutil.which(tool) is None:
            stop(f"{wanted} is needed and was not found on the path.")
    try:
        VAR.mkdir(exist_ok=True)
        LOGS.mkdir(exist_ok=True)
        (LOGS / "set-up.log").write_text("")
    except OSError as error:
        stop(f"{VAR} cannot be written to ({error.strerror}); data and logs are kept there.")
    free = shutil.disk_usage(ROOT).free // 1_000_000
    if free < LEAST_FREE_MB:
        stop(f"only {free} MB are free on the disk of {ROOT}; {LEAST_FREE_MB} MB are needed.")


def run(
    command: Sequence[str],
    what: str,
    log: str,
    cwd: Path = ROOT,
    watch: Callable[[str], str | None] | None = None,
    env: Mapping[str, str] | None = None,
) -> None:
    """Run a command with its output in a log; on failure say what failed and where to read.

    Args:
        env: the command's whole environment; None keeps this process's own.
        watch: is given each line of output; what it returns is shown as how far the step is.
    """
    path = LOGS / f"{log}.log"
    meter = Meter(what)
    try:
        with (
            path.open("w", encoding="utf-8") as out,
            subprocess.Popen(
                command,
                cwd=cwd,
                env=env,
                stdout=subprocess.PIPE,
                stderr=subprocess.STDOUT,
                stdin=subprocess.DEVNULL,
                text=True,
                errors="replace",
            ) as process,
        ):
            for line in process.stdout or ():
                out.write(line)
                if watch is not None and (state := watch(line)):
                    meter.show(state)
            code = process.wait()
        meter.end()
    except OSError as error:
        stop(f"{what} could not be started: {error.strerror}.")
    if code != 0:
        lines = path.read_text("utf-8", "replace").strip().splitlines()
        last = lines[-1][:160] if lines else "no output"
        stop(f"{what} failed ({last}). All of its output: {path.relative_to(ROOT)}")


def need_debian(program: str, package: str) -> None:
    """Install a Debian package unless its program is there."""
    if not (shutil.which(program) or Path("/usr/sbin", program).exists()):
        install_debian(package)


def need_library(name: str, package: str) -> None:
    """Install a Debian package unless the linker finds its library."""
    if ctypes.util.find_library(name) is None:
        install_debian(package)


def install_debian(package: str) -> None:
    """Install a Debian package, or say in one line who has to."""
    if shutil.which("apt-get") is None:
        stop(f"{package} is missing and there is no apt-get; install {package} by hand.")
    sudo: list[str] = []
    if os.geteuid() != 0:
        if shutil.which("sudo") is None:
            stop(f"{package} is missing; run 'apt-get install {package}' as root, then try again.")
        sudo = ["sudo"]
    say(f"Installing {package} ...")
    install = [*sudo, "env", "DEBIAN_FRONTEND=noninteractive", "apt-get"]
    run([*install, "update"], "apt-get update", "apt-update")
    command = [*install, "install", "-y", "--no-install-recommends", package]
    run(command, package, f"apt-{package}", watch=_apt_watch())


def _apt_watch() -> Callable[[str], str | None]:
    """Return a watch over apt-get: fetched, then set up, of so many packages."""
    state = {"total": 0, "Get": 0, "Setting": 0}
    words = {"Get": "fetched", "Setting": "set up"}

    def watch(line: str) -> str | None:
        if found := re.search(r"(\d+) newly installed", line):
            state["total"] = int(found[1])
        kind = next((k for k in words if line.startswith(k)), None)
        if kind is None:
            return None
        state[kind] += 1
        return f"{state[kind]} of {max(state['total'], state[kind])} packages {words[kind]}"

    return watch


def need_venv() -> None:
    """Install Debian's python3-venv where Python came without it."""
    if importlib.util.find_spec("ensurepip") is None:
        install_debian("python3-venv")


def stamp_of(*files: Path) -> str:
    """Return a digest of the files' contents."""
    digest = hashlib.sha256()
    for file in sorted(files):
        digest.update(str(file.relative_to(ROOT)).encode())
        digest.update(file.read_bytes())
    return digest.hexdigest()


def is_fresh(name: str, stamp: str) -> bool:
    path = VAR / "stamp" / name
    return path.exists() and path.read_text() == stamp


def set_stamp(name: str, stamp: str) -> None:
    path = VAR / "stamp" / name
    path.parent.mkdir(parents=True, exist_ok=True)
    path.write_text(stamp)


def free_port() -> int:
    """Return a port that is free on loopback now."""
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        return int(probe.getsockname()[1])


def holder_of(port: int) -> tuple[int, str] | None:
    """Return the process that listens on a port of loopback and its command line, or None where
    there is none that this user may look at."""
    wanted = f":{port:04X}"
    rows = Path("/proc/net/tcp").read_text("ascii").splitlines()[1:]
    cells = [row.split() for row in rows]
    sockets = {f"socket:[{c[9]}]" for c in cells if c[1].endswith(wanted) and c[3] == "0A"}
    for process in Path("/proc").glob("[0-9]*"):
        with contextlib.suppress(OSError):
            if any(os.readlink(handle) in sockets for handle in (process / "fd").iterdir()):
                return int(process.name), command_of(int(process.name))
    return None


def command_of(pid: int) -> str:
    """Return the command line of a process, nothing where it has ended."""
    try:
        words = Path(f"/proc/{pid}/cmdline").read_bytes().decode("utf-8", "replace")
    except OSError:
        return ""
    return " ".join(words.split("\0")).strip()


def _stat_of(pid: int) -> list[str]:
    """Return what the system says of a process from its state on: the state, its parent, ..."""
    return Path(f"/proc/{pid}/stat").read_text("ascii", "replace").rpartition(")")[2].split()


def keeper_of(pid: int) -> bool:
    """Whether a server's process is still kept by who started it, or was left to the system."""
    with contextlib.suppress(OSError, IndexError, ValueError):
        parent = int(_stat_of(pid)[1])
        return parent > 1 and "ops." in command_of(parent)
    return False


def has_ended(pid: int) -> bool:
    """Whether a process is gone, or done and waited for by nobody yet: none of its threads is left
    that could still hold its files and ports."""
    try:
        return _stat_of(pid)[0] in "ZX" and len(os.listdir(f"/proc/{pid}/task")) <= 1
    except OSError:
        return True


def end_process(pid: int, seconds: float) -> None:
    """End a process, at once where it takes longer than so many seconds."""
    for sign in (signal.SIGTERM, signal.SIGKILL):
        with contextlib.suppress(ProcessLookupError, PermissionError):
            os.kill(pid, sign)
        until = time.monotonic() + seconds
        while not has_ended(pid) and time.monotonic() < until:
            time.sleep(0.05)
        if has_ended(pid):
            return


def port_is_free(port: int) -> bool:
    with socket.socket() as probe:
        probe.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        try:
            probe.bind(("127.0.0.1", port))
        except OSError:
            return False
    return True
