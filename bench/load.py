"""Many at once on a server that is warm. Loopback only, bounded in count and time."""

from __future__ import annotations

import statistics
import subprocess
import time

from bench.http import call, cut_95, fetch, fresh_server, project_named, side_by_side_ms
from bench.large_site import large_site
from bench.pace import Failed, Marks
from heathrise.core.catalogue import load_catalogue
from heathrise.formats.project_file import Project, dump_project
from ops.machine import ROOT, free_port
from ops.serve import Server
from ops.setup import DIST, PYTHON, environment

READERS, ROUNDS = 20, 3
DRAGGERS, DRAG_SECONDS = 4, 5.0
WALL_STEPS = 15
WARM_SECONDS = 8.0
START_SECONDS = 120.0


def readers(marks: Marks, server: Server, project: str) -> None:
    element = next(d for d in call(server, f"/api/projects/{project}")["elements"]["device"])
    figures = f"/api/projects/{project}/evaluation"
    times: list[float] = []
    for k in range(ROUNDS):
        revision = call(server, f"/api/projects/{project}")["revision"]
        moved = {**element, "at": [element["at"][0] + 0.1 * (k + 1), element["at"][1]]}
        change = {"op": "put", "kind": "device", "element": moved}
        call(
            server,
            f"/api/projects/{project}/changes",
            {"revision": revision, "label": "bench", "changes": [change]},
        )
        times += side_by_side_ms([lambda: fetch(server, figures)] * READERS)
    marks.row(f"{READERS} readers of the school after an edit, 95 %", cut_95(times), "ms", 200)


def draggers(marks: Marks, server: Server, project: str) -> None:
    document = call(server, f"/api/projects/{project}")
    devices = [d for d in document["elements"]["device"] if d["kind"] == "access_point"]

    def drag(k: int) -> int:
        count, until = 0, time.monotonic() + DRAG_SECONDS
        while time.monotonic() < until:
            count += 1
            element = {**devices[k], "at": [devices[k]["at"][0] + 0.05 * count, devices[k]["at"][1]]}
            view = {"floor": element["floor"], "band": "5", "rank": 1, "direction": "weaker"}
            body = {
                "changes": [{"op": "put", "kind": "device", "element": element}],
                "view": view,
                "figures": count % 4 == 0,
            }
            fetch(server, f"/api/projects/{project}/preview", body)
        return count

    counts: list[int] = []
    side_by_side_ms([lambda k=k: counts.append(drag(k)) for k in range(DRAGGERS)])  # type: ignore[misc]
    slowest = min(counts)
    if not slowest:
        raise Failed("one who drags was never answered")
    # Said as the time of one answer, so that less is better here too: 10 a second are 100 ms.
    marks.row(
        f"{DRAGGERS} draggers at once, an answer of the slowest", 1e3 * DRAG_SECONDS / slowest, "ms", 100
    )


def large(marks: Marks, server: Server) -> None:
    catalogue = load_catalogue()
    site = large_site(catalogue)
    text = dump_project(Project("Large", site))
    import json

    project = call(server, "/api/import/project", json.loads(text))["id"]
    start = time.perf_counter()
    document = call(server, f"/api/projects/{project}")
    fetch(server, f"/api/projects/{project}/evaluation")
    first_s = time.perf_counter() - start
    marks.row("100 access points, opened to first figures", 1e3 * first_s, "ms", 1200)
    time.sleep(WARM_SECONDS)
    wall = next(w for w in document["elements"]["wall"] if w["id"] == "w-f0-3-1-e")
    times = []
    for k in range(WALL_STEPS):
        moved = {**wall, "b": [wall["b"][0], wall["b"][1] + 0.05 * (k + 1)]}
        view = {"floor": "f0", "band": "5", "rank": 1, "direction": "weaker"}
        body = {"changes": [{"op": "put", "kind": "wall", "element": moved}], "view": view}
        begun = time.perf_counter()
        fetch(server, f"/api/projects/{project}/preview", body)
        times.append(1e3 * (time.perf_counter() - begun))
    median = statistics.median(times)
    marks.row("one wall dragged, relief and figures, p50", median, "ms", 600)


def memory(marks: Marks, server: Server) -> None:
    pid = server.pid
    if pid is None:
        return
    with open(f"/proc/{pid}/status", encoding="ascii") as status:
        held = next(int(line.split()[1]) for line in status if line.startswith("VmRSS"))
    marks.row("memory settled at", held / 1000, "MB")


def under_load() -> None:
    marks = Marks("Under load, one server on loopback")
    with fresh_server("load") as (server, _):
        project = project_named(server, "School")
        call(server, f"/api/projects/{project}/evaluation")
        time.sleep(WARM_SECONDS)
        readers(marks, server, project)
        draggers(marks, server, project)
        large(marks, server)
        memory(marks, server)


def starts() -> None:
    """Time ``heathrise --help`` and a start over data that are there."""
    marks = Marks("Starts")
    times = []
    for _ in range(5):
        begun = time.perf_counter()
        subprocess.run([str(PYTHON.parent / "heathrise"), "--help"], capture_output=True, check=True)
        times.append(time.perf_counter() - begun)
    marks.row("heathrise --help", statistics.median(times), "s", 0.5)
    _started("first start")
    marks.row("second start to serving", _started("second start"), "s", 5)


def _started(title: str) -> float:
    """Return how long a start takes until it serves, and end it.

    Raises:
        Failed: it ended, or did not serve in time; its log says why.
    """
    port = free_port()
    begun = time.perf_counter()
    keeper = subprocess.Popen(
        [str(PYTHON), "-m", "ops.run", "demo", "--port", str(port)],
        cwd=ROOT,
        env=environment(),
        stdout=subprocess.DEVNULL,
        start_new_session=True,
    )
    probe = Server("", port, DIST)
    try:
        while time.perf_counter() - begun < START_SECONDS:
            if keeper.poll() is not None:
                raise Failed(f"the {title} ended with {keeper.returncode}")
            try:
                call(probe, "/api/health")
                return time.perf_counter() - begun
            except OSError:
                time.sleep(0.02)
        raise Failed(f"the {title} did not serve within {START_SECONDS:.0f} s")
    finally:
        keeper.terminate()
        keeper.wait(30)
