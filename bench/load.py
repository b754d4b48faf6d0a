"""Many at once on a server that is warm. Loopback only, bounded in count and time."""

from __future__ import annotations

import statistics
import subprocess
import time

from bench.http import call, cut_95, fetch, fresh_server, project_named, side_by_side_ms
from bench.large_site import large_site
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


def show(title: str, figure: float, unit: str, wanted: str) -> None:
    digits = 0 if figure >= 100 else 2
    print(f"  {title:<46} {figure:8.{digits}f} {unit}   ({wanted})")


def readers(server: Server, project: str) -> None:
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
    show(f"{READERS} readers of the school after an edit, 95 %", cut_95(times), "ms", "wanted 300")


def draggers(server: Server, project: str) -> None:
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
    slowest = min(counts) / DRAG_SECONDS
    show(f"{DRAGGERS} draggers at once, the slowest", slowest, "a second", "wanted 8")


def large(server: Server) -> None:
    catalogue = load_catalogue()
    site = large_site(catalogue)
    text = dump_project(Project("Large", site))
    import json

    project = call(server, "/api/import/project", json.loads(text))["id"]
    start = time.perf_counter()
    document = call(server, f"/api/projects/{project}")
    fetch(server, f"/api/projects/{project}/evaluation")
    first_s = time.perf_counter() - start
    show("100 access points, opened to first figures", 1e3 * first_s, "ms", "wanted 1500")
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
    show("one wall dragged, relief and figures, p50", median, "ms", "wanted 600")


def memory(server: Server) -> None:
    pid = server.pid
    if pid is None:
        return
    with open(f"/proc/{pid}/status", encoding="ascii") as status:
        held = next(int(line.split()[1]) for line in status if line.startswith("VmRSS"))
    show("memory settled at", held / 1000, "MB", "1300 before")


def under_load() -> None:
    print("Under load, one server on loopback")
    with fresh_server("load") as (server, _):
        project = project_named(server, "School")
        call(server, f"/api/projects/{project}/evaluation")
        time.sleep(WARM_SECONDS)
        readers(server, project)
        draggers(server, project)
        large(server)
        memory(server)


def starts() -> None:
    """Time ``heathrise --help`` and a start over data that are there."""
    print("Starts")
    times = []
    for _ in range(5):
        begun = time.perf_counter()
        subprocess.run([str(PYTHON.parent / "heathrise"), "--help"], capture_output=True, check=True)
        times.append(time.perf_counter() - begun)
    show("heathrise --help", statistics.median(times), "s", "wanted 0.5")
    port = free_port()
    for title in ("first start", "second start"):
        begun = time.perf_counter()
        keeper = subprocess.Popen(
            [str(PYTHON), "-m", "ops.run", "demo", "--port", str(port)],
            cwd=ROOT,
            env=environment(),
            stdout=subprocess.DEVNULL,
            start_new_session=True,
        )
        probe = Server("", port, DIST)
        while keeper.poll() is None and time.perf_counter() - begun < START_SECONDS:
            try:
                call(probe, "/api/health")
                break
            except OSError:
                time.sleep(0.02)
        took = time.perf_counter() - begun
        if title == "second start":
            show(title + " to serving", took, "s", "wanted 5")
        keeper.terminate()
        keeper.wait(30)
