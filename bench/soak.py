"""Ten people in ten projects for twenty minutes: memory, answers in time, no job stuck.

    python -m bench.soak [SECONDS [PEOPLE]]

Each person draws, drags, looks at relief and figures, ticks, orders and prints, with pauses to
think. One server on loopback; bounded in time.
"""

from __future__ import annotations

import random
import sys
import threading
import time
import urllib.error
import uuid
from dataclasses import dataclass, field
from typing import Any

from bench.http import call, cut_95, fetch, fresh_server
from heathrise.demo import SITES
from heathrise.formats.project_file import Project, dump_project
from ops.serve import Server

SECONDS, PEOPLE = 1200.0, 10
LOOKED_AT_SECONDS = 5.0
JOB_SECONDS = 180.0
THINKS_SECONDS = (0.3, 2.0)
PRINTS = ("brief_pdf", "quote_pdf", "sheets_pdf")


@dataclass
class Seen:
    """What the soak has seen so far. Times in ms, memory in MB."""

    edits: list[float] = field(default_factory=list)
    reads: list[float] = field(default_factory=list)
    memory_mb: list[float] = field(default_factory=list)
    over_mb: list[float] = field(default_factory=list)
    jobs: int = 0
    stuck: int = 0
    failed: list[str] = field(default_factory=list)


def _project(server: Server, number: int) -> str:
    import json

    site = SITES[number % len(SITES)]
    text = dump_project(Project(f"{site.name} {number}", site.make()))
    return str(call(server, "/api/import/project", json.loads(text))["id"])


class Person:
    """One who works in a project of his own."""

    def __init__(self, server: Server, number: int, seen: Seen) -> None:
        self.server, self.seen = server, seen
        self.chance = random.Random(number)
        self.path = f"/api/projects/{_project(server, number)}"
        document = call(server, self.path)
        self.revision = document["revision"]
        self.marks = [d for d in document["elements"]["device"] if d["kind"] == "access_point"]
        self.floors = [f["id"] for f in document["elements"]["floor"]]
        self.steps = [s["id"] for s in call(server, f"{self.path}/work")["steps"] if not s["licensed"]]

    def work(self, until: float) -> None:
        does = [self.edit] * 5 + [self.drag] * 4 + [self.read] * 6 + [self.tick] * 3 + [self.print]
        while time.monotonic() < until:
            try:
                self.chance.choice(does)()
            except (urllib.error.HTTPError, OSError, ValueError, KeyError) as error:
                self.seen.failed.append(f"{type(error).__name__}: {error}")
            time.sleep(self.chance.uniform(*THINKS_SECONDS))

    def _timed(self, times: list[float], path: str, body: object = None) -> Any:
        begun = time.perf_counter()
        answer = call(self.server, self.path + path, body)
        times.append(1e3 * (time.perf_counter() - begun))
        return answer

    def _moved(self) -> dict[str, Any]:
        mark = self.chance.choice(self.marks)
        dx, dy = self.chance.uniform(-0.6, 0.6), self.chance.uniform(-0.6, 0.6)
        at = [round(mark["at"][0] + dx, 2), round(mark["at"][1] + dy, 2)]
        return {"op": "put", "kind": "device", "element": {**mark, "at": at}}

    def _view(self) -> dict[str, Any]:
        return {
            "floor": self.chance.choice(self.floors),
            "rank": self.chance.choice([1, 2]),
            "band": self.chance.choice(["2.4", "5"]),
            "direction": "weaker",
        }

    def edit(self) -> None:
        body = {"revision": self.revision, "label": "soak", "changes": [self._moved()], "view": self._view()}
        self._timed(self.seen.edits, "/changes", body)
        self.revision += 1

    def drag(self) -> None:
        for _ in range(8):
            body = {"changes": [self._moved()], "view": self._view(), "figures": False}
            fetch(self.server, self.path + "/preview", body)

    def read(self) -> None:
        view = "&".join(f"{k}={v}" for k, v in self._view().items())
        path = self.chance.choice(["/evaluation", f"/relief?{view}", "/order", "/work", "/progress"])
        self._timed(self.seen.reads, path)

    def tick(self) -> None:
        tick = {
            "key": uuid.uuid4().hex,
            "step": self.chance.choice(self.steps),
            "state": "done",
            "by": "soak",
        }
        call(self.server, self.path + "/work", {"ticks": [tick]})

    def print(self) -> None:
        body = {"kind": self.chance.choice(PRINTS), "arguments": {}}
        job = call(self.server, self.path + "/jobs", body)
        self.seen.jobs += 1
        until = time.monotonic() + JOB_SECONDS
        while job["state"] == "running" and time.monotonic() < until:
            time.sleep(0.5)
            job = call(self.server, f"/api/jobs/{job['id']}")
        self.seen.stuck += job["state"] != "done"


def soak(seconds: float = SECONDS, people: int = PEOPLE) -> Seen:
    seen = Seen()
    with fresh_server("soak") as (server, _):
        workers = [Person(server, k, seen) for k in range(people)]
        until = time.monotonic() + seconds
        threads = [threading.Thread(target=w.work, args=(until,)) for w in workers]
        for thread in threads:
            thread.start()
        told: dict[str, Any] = {}
        while time.monotonic() < until:
            time.sleep(LOOKED_AT_SECONDS)
            told = call(server, "/api/health")["memory"]
            seen.memory_mb.append(told["held_mb"])
            seen.over_mb.append(told["held_mb"] - told["limit_mb"])
        for thread in threads:
            thread.join(JOB_SECONDS)
    tail = seen.memory_mb[len(seen.memory_mb) // 2 :]
    print(f"Soak: {people} people in {people} projects for {seconds:.0f} s")
    most, usual = max(seen.memory_mb), sum(tail) / len(tail)
    print(f"  memory {most:.0f} MB at the most, {usual:.0f} MB on average in the second half;")
    print(
        f"  told: base {told['base_mb']:.0f} MB, budget {told['budget_mb']:.0f} MB, over both by "
        f"{max(seen.over_mb):.0f} MB at the most"
    )
    print(
        f"  {len(seen.edits)} edits, 95 % {cut_95(seen.edits):.0f} ms; {len(seen.reads)} reads, "
        f"95 % {cut_95(seen.reads):.0f} ms"
    )
    print(f"  {seen.jobs} jobs, {seen.stuck} stuck or failed; {len(seen.failed)} requests failed")
    for said in seen.failed[:5]:
        print(f"    {said}")
    return seen


if __name__ == "__main__":
    numbers = [*map(float, sys.argv[1:]), *(SECONDS, PEOPLE)[len(sys.argv) - 1 :]]
    soak(numbers[0], int(numbers[1]))
