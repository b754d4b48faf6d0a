"""One edit from release to all figures, over HTTP as the browser sends it: bytes and ms."""

from __future__ import annotations

import gzip
import json
import statistics
import time
import urllib.request
from typing import Any

from heathrise.core.catalogue import load_catalogue
from heathrise.formats.project_file import Project, dump_project
from ops.serve import Server

from .http import SECONDS, call, fetch, fresh_server, project_named
from .large_site import large_site

EDITS = 12


def post(server: Server, path: str, body: object) -> tuple[int, float, list[Any]]:
    """Return bytes on the wire, ms until the figures are there, and the lines of the answer."""
    data = json.dumps(body).encode()
    headers = {"Content-Type": "application/json", "Accept-Encoding": "gzip"}
    request = urllib.request.Request(server.base + path, data=data, headers=headers)
    start = time.perf_counter()
    with urllib.request.urlopen(request, timeout=SECONDS) as answer:
        first = answer.read(1)
        took = (time.perf_counter() - start) * 1e3
        packed = first + answer.read()
    return len(packed), took, [json.loads(line) for line in gzip.decompress(packed).splitlines()]


def _measure(server: Server, project: str, key: str, floor: str) -> tuple[float, float]:
    """Return the median bytes and ms of moving one access point, its relief in view."""
    opened = call(server, f"/api/projects/{project}")
    device = next(d for d in opened["elements"]["device"] if d["id"] == key)
    x, y = device["at"]
    first = call(server, f"/api/projects/{project}/evaluation")
    revision, mark = opened["revision"], first["mark"]
    sizes: list[float] = []
    times: list[float] = []
    for k in range(EDITS):
        moved = {**device, "at": [round(x + 0.15 * (k + 1), 2), y]}
        body = {
            "revision": revision,
            "label": "Move",
            "base": mark,
            "view": {"floor": floor},
            "changes": [{"op": "put", "kind": "device", "element": moved}],
        }
        size, took, lines = post(server, f"/api/projects/{project}/changes", body)
        revision, mark = lines[0]["answer"]["revision"], lines[0]["answer"]["mark"]
        sizes.append(size)
        times.append(took)
        time.sleep(0.6)  # the search for channels goes on behind it
    return statistics.median(sizes), statistics.median(times)


def _say(site: str, size: float, took: float, wanted: str) -> None:
    print(f"  {site:30}{size / 1e3:8.1f} kB {took:8.1f} ms   (wanted under {wanted})")


def edits() -> None:
    print("An edit from release to all figures, relief in the same response (gzip)")
    with fresh_server("edits") as (server, _):
        size, took = _measure(server, project_named(server, "School"), "ap-6", "ground")
        _say("the school", size, took, "40 kB, 200 ms")
        text = dump_project(Project("Large", large_site(load_catalogue())))
        large = json.loads(fetch(server, "/api/import/project", json.loads(text)))["id"]
        size, took = _measure(server, large, "ap-f0-2-0", "f0")
        _say("100 access points", size, took, "400 ms")
