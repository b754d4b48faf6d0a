"""A few plain calls for loading a server on loopback."""

from __future__ import annotations

import json
import statistics
import time
import urllib.error
import urllib.request
from collections.abc import Callable, Iterator
from concurrent.futures import ThreadPoolExecutor
from contextlib import contextmanager
from typing import Any

from ops.database import Database, running
from ops.machine import FRONTEND, VAR, free_port
from ops.serve import Server, serving

SECONDS = 30.0


@contextmanager
def fresh_server(name: str, demo: bool = True) -> Iterator[tuple[Server, Database]]:
    """Run a server over a new database for the length of a with block."""
    with running(VAR / "bench") as database:
        url = database.create(name, fresh=True)
        with serving(url, free_port(), FRONTEND / "dist", demo) as server:
            if demo:
                _settle(server)
            yield server, database


def _settle(server: Server) -> None:
    """Wait until the demo's school is handed over: its papers are made once, after the start."""
    until = time.monotonic() + SECONDS
    path = f"/api/projects/{project_named(server, 'School')}/progress"
    while not call(server, path)["signed"] and time.monotonic() < until:
        time.sleep(0.5)


def fetch(server: Server, path: str, body: object = None) -> bytes:
    """Return what a GET, or a POST of ``body``, answers with."""
    data = json.dumps(body).encode() if body is not None else None
    request = urllib.request.Request(server.base + path, data=data)
    request.add_header("Content-Type", "application/json")
    with urllib.request.urlopen(request, timeout=SECONDS) as answer:
        return bytes(answer.read())


def call(server: Server, path: str, body: object = None) -> Any:
    """Return the JSON that ``fetch`` brings, the last line of several."""
    lines = fetch(server, path, body).splitlines()
    return json.loads(lines[-1]) if lines else None


def project_named(server: Server, word: str) -> str:
    rows = call(server, "/api/projects")["projects"]
    return str(next(row["id"] for row in rows if word in row["name"]))


def side_by_side_ms(works: list[Callable[[], object]]) -> list[float]:
    """Run all at once, each in a thread; return how long each took, in ms."""

    def timed(work: Callable[[], object]) -> float:
        start = time.perf_counter()
        work()
        return (time.perf_counter() - start) * 1e3

    with ThreadPoolExecutor(len(works)) as pool:
        return list(pool.map(timed, works))


def cut_95(times: list[float]) -> float:
    return statistics.quantiles(times, n=20)[18]
