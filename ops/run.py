"""The commands behind ./run. Runs on plain Python; only the children need the packages."""

from __future__ import annotations

import argparse
import os
import signal
import subprocess
import sys
import tempfile
import time
import urllib.error
import urllib.request
from collections.abc import Callable, Sequence
from concurrent.futures import ThreadPoolExecutor
from typing import IO

from .machine import (
    DATABASE_START_SECONDS,
    FRONTEND,
    LOGS,
    ROOT,
    SERVER_START_SECONDS,
    end_process,
    holder_of,
    keeper_of,
    port_is_free,
    say,
    stop,
)
from .setup import DIST, PYTHON, environment, set_up

DEFAULT_PORT = 8425
LAST_PORT = 65_535
START_SECONDS = DATABASE_START_SECONDS + SERVER_START_SECONDS
END_SECONDS = 4.0
MOST_WORKERS = 4  # each has a database, a server and a browser of its own
SERVER = "heathrise.web.server"


def main(arguments: Sequence[str] | None = None) -> int:
    parser = argparse.ArgumentParser(
        prog="./run", description="Heathrise: plan a multi-access-point installation."
    )
    commands = parser.add_subparsers(title="commands", metavar="")
    demo = _command(commands, "demo", _demo, "set up what is missing and serve the demo")
    demo.add_argument("--fresh", action="store_true", help="start over with the demo as shipped")
    demo.add_argument("--port", type=_port, default=DEFAULT_PORT)
    test = _command(commands, "test", _test, "set up what is missing and run every check and test")
    test.add_argument("rest", nargs="*", help="arguments for pytest; with any, only pytest runs")
    test.add_argument("--thorough", action="store_true", help="with the long numbers of examples and seeds")
    _command(commands, "check", _check, "lint, format, types and the front end's types")
    bench = _command(commands, "bench", _bench, "measure the figures the project promises")
    bench.add_argument("parts", nargs="*", help="soak, kills, fuzz ...; all if none is named")
    _command(commands, "screenshots", _screenshots, "draw docs/screenshots anew")
    options, extra = parser.parse_known_args(arguments)
    if extra and getattr(options, "call", None) is not _test:
        parser.error(f"unrecognised: {' '.join(extra)}")
    if not hasattr(options, "call"):
        parser.print_help()
        return 0
    if options.call is _test:
        options.rest = [*options.rest, *extra]
    signal.signal(signal.SIGTERM, _as_interrupt)
    try:
        return int(options.call(options))
    except KeyboardInterrupt:
        return 130


def _port(text: str) -> int:
    if not text.isdigit() or not 1 <= int(text) <= LAST_PORT:
        raise argparse.ArgumentTypeError(f"{text!r} is not a port; choose one of 1 to {LAST_PORT}")
    return int(text)


def _as_interrupt(*_: object) -> None:
    raise KeyboardInterrupt


def _command(
    commands: argparse._SubParsersAction[argparse.ArgumentParser],
    name: str,
    call: Callable[[argparse.Namespace], int],
    text: str,
) -> argparse.ArgumentParser:
    parser = commands.add_parser(name, help=text, description=text)
    parser.set_defaults(call=call)
    return parser


def _demo(options: argparse.Namespace) -> int:
    _free(options.port)
    set_up()
    # The database driver lives in the environment, so the keeper of the demo runs there too.
    keeper = subprocess.Popen(
        [str(PYTHON), "-m", "ops.serve", str(options.port), str(DIST), *(["fresh"] if options.fresh else [])],
        cwd=ROOT,
        env=environment(),
        start_new_session=True,
    )
    try:
        _announce(keeper, options.port)
        return keeper.wait()
    except KeyboardInterrupt:
        say("\nStopping ...")
        return 0
    finally:
        _end(keeper)


def _free(port: int) -> None:
    """Have the port for this start: a server of this checkout whose keeper was killed is ended."""
    if port_is_free(port):
        return
    pid, command = holder_of(port) or (0, "")
    left_over = command.startswith(str(PYTHON)) and SERVER in command
    if left_over and not keeper_of(pid):
        say(f"Ending a server that a killed start left on port {port} (process {pid}) ...")
        end_process(pid, END_SECONDS)
    if not port_is_free(port):
        whose = f" by process {pid} ({command[:80]})" if pid else ""
        stop(f"port {port} is taken{whose}; stop what listens there, or choose another with --port")


def _announce(keeper: subprocess.Popen[bytes], port: int) -> None:
    deadline = time.monotonic() + START_SECONDS
    address = f"http://127.0.0.1:{port}/"
    while time.monotonic() < deadline and keeper.poll() is None:
        try:
            urllib.request.urlopen(f"{address}api/health", timeout=2).close()
        except (TimeoutError, urllib.error.URLError, ConnectionError):
            time.sleep(0.15)
            continue
        say(f"Heathrise is at {address}   (Ctrl-C stops it; what you change is kept)")
        return
    if keeper.poll() is None:
        stop(f"the server did not answer within {START_SECONDS:.0f} s; see {LOGS.name}/server.log")


def _end(keeper: subprocess.Popen[bytes]) -> None:
    if keeper.poll() is None:
        keeper.send_signal(signal.SIGTERM)
        try:
            keeper.wait(30)
        except subprocess.TimeoutExpired:
            os.killpg(keeper.pid, signal.SIGKILL)


def _run_all(steps: Sequence[tuple[str, Sequence[str], str]], told: IO[str] | None = None) -> int:
    """Run each (title, command, folder); stop at the first that fails.

    Args:
        told: where what they say goes, if not to whoever asked.
    """
    for title, command, folder in steps:
        print(f"== {title}", file=told, flush=True)
        took = time.monotonic()
        done = subprocess.run(
            command,
            cwd=folder,
            env=environment(),
            check=False,
            stdout=told,
            stderr=told and subprocess.STDOUT,
        )
        if done.returncode:
            print(f"heathrise: {title} failed", file=told, flush=True)
            return done.returncode
        print(f"   {time.monotonic() - took:.0f} s", file=told, flush=True)
    return 0


def _checks() -> list[tuple[str, Sequence[str], str]]:
    here, there = str(ROOT), str(FRONTEND)
    python = str(PYTHON)
    code = ["src", "ops", "bench", "tests"]
    return [
        ("lint", [python, "-m", "ruff", "check", *code], here),
        ("format", [python, "-m", "ruff", "format", "--check", *code], here),
        ("types", [python, "-m", "mypy"], here),
        ("front end types", ["npm", "run", "--silent", "types"], there),
        ("front end lint", ["npm", "run", "--silent", "lint"], there),
        ("front end tests", ["npm", "run", "--silent", "test"], there),
    ]


def _check(_: argparse.Namespace) -> int:
    set_up(for_tests=True)
    return _run_all(_checks())


def _test(options: argparse.Namespace) -> int:
    """Run the tests by files on all processors, lint and types beside them."""
    set_up(for_tests=True)
    if options.thorough:
        os.environ["HYPOTHESIS_PROFILE"] = "thorough"
    if options.rest:
        return _run_all([("tests", [str(PYTHON), "-m", "pytest", *options.rest], str(ROOT))])
    workers = str(min(MOST_WORKERS, os.cpu_count() or 1))
    spread = [
        str(PYTHON),
        "-m",
        "pytest",
        "-n",
        workers,
        "--dist",
        "loadfile",
        "--no-loadscope-reorder",
        "--durations=10",
    ]
    with tempfile.TemporaryFile("w+") as said, ThreadPoolExecutor(1) as beside:
        checks = beside.submit(_run_all, _checks(), said)
        code = _run_all([("tests", spread, str(ROOT))])
        checked = checks.result()
        said.seek(0)
        sys.stdout.write(said.read())
    return code or checked


def _bench(options: argparse.Namespace) -> int:
    set_up(for_tests=True)
    return _run_all([("bench", [str(PYTHON), "-m", "bench.main", *options.parts], str(ROOT))])


def _screenshots(_: argparse.Namespace) -> int:
    set_up(for_tests=True)
    return _run_all([("screenshots", [str(PYTHON), "-m", "ops.screenshots"], str(ROOT))])


if __name__ == "__main__":
    sys.exit(main())
