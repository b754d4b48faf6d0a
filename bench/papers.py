"""Papers as jobs, the order, the work list and its ticks, over HTTP as the browser asks."""

from __future__ import annotations

import statistics
import time
import uuid
from typing import Any

from ops.serve import Server

from .http import call, fetch, fresh_server, project_named

JOBS: dict[str, dict[str, Any]] = {
    "brief_pdf": {},
    "quote_pdf": {},
    "labels_pdf": {"sheet": "sleeve-a4"},
    "sheets_pdf": {"paper": "A3", "scale": 100},
    "handover": {"by": "bench"},
}
TICKS = 12
LOOK_AGAIN_SECONDS = 0.05


def _job_seconds(server: Server, project: str, kind: str, arguments: dict[str, Any]) -> float:
    start = time.perf_counter()
    job = call(server, f"/api/projects/{project}/jobs", {"kind": kind, "arguments": arguments})
    while job["state"] == "running":
        time.sleep(LOOK_AGAIN_SECONDS)
        job = call(server, f"/api/jobs/{job['id']}")
    result = job["result"]
    for paper in result.get("papers", {"": result.get("paper")}).values():
        fetch(server, f"/api/projects/{project}/papers/{paper}")
    return time.perf_counter() - start


def _get_ms(server: Server, path: str) -> float:
    times = []
    for _ in range(5):
        start = time.perf_counter()
        fetch(server, path)
        times.append((time.perf_counter() - start) * 1e3)
    return statistics.median(times)


def _tick_ms(server: Server, project: str) -> float:
    path = f"/api/projects/{project}/work"
    steps = [s["id"] for s in call(server, path)["steps"] if not s["licensed"]][:TICKS]
    times = []
    for step in steps:
        tick = {"key": uuid.uuid4().hex, "step": step, "state": "done", "by": "bench"}
        start = time.perf_counter()
        call(server, path, {"ticks": [tick]})
        times.append((time.perf_counter() - start) * 1e3)
    return statistics.median(times)


def papers() -> None:
    print("The school's papers as jobs, until they are in hand (wanted under 5 s each)")
    with fresh_server("papers") as (server, _):
        project = project_named(server, "School")
        call(server, f"/api/projects/{project}/evaluation")
        for kind, arguments in JOBS.items():
            took = _job_seconds(server, project, kind, arguments)
            print(f"  {kind:30}{took:8.1f} s")
        print("Order and work list of the school")
        for what in ("order", "work", "offers", "tests", "ports", "handover"):
            took = _get_ms(server, f"/api/projects/{project}/{what}")
            print(f"  {what:30}{took:8.1f} ms")
        took = _tick_ms(server, project)
        print(f"  {'a tick, written':30}{took:8.1f} ms   (wanted under 100 ms)")
