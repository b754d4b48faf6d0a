"""Kills the server, and the database, while edits, records, pictures and jobs come in.

    python -m bench.kills [KILLS]

What was acknowledged must be there afterwards, whole, and none of it twice; no job may be left
running. Loopback only; bounded in count and time.
"""

from __future__ import annotations

import io
import json
import random
import sys
import threading
import time
import urllib.error
import urllib.request
import uuid
from collections import Counter
from dataclasses import dataclass, field
from http.client import HTTPException
from pathlib import Path
from typing import Any

from PIL import Image

from bench.http import call, fetch
from heathrise.demo import veterinary_practice
from heathrise.formats.project_file import Project, dump_project
from ops.database import Database, running
from ops.machine import FRONTEND, VAR, free_port
from ops.serve import Server

KILLS = 200
SEED = 11
SECONDS = 2400.0
WRITES_FOR_SECONDS = (0.05, 1.2)  # before the next kill
JOB_SECONDS = 60.0


@dataclass
class Said:
    """What was sent, and of that what was acknowledged."""

    revision: int = 1
    count: int = 0  # of the edits, the value that the last acknowledged one wrote
    ticks: list[str] = field(default_factory=list)
    snags: list[str] = field(default_factory=list)
    tests: int = 0
    sent_tests: int = 0
    pictures: list[str] = field(default_factory=list)
    jobs: list[str] = field(default_factory=list)
    acknowledged: Counter[str] = field(default_factory=Counter)


class Writer:
    """Writes into one project until its server is gone."""

    def __init__(self, server: Server, project: str, said: Said, seed: int) -> None:
        self.server, self.said = server, said
        self.path = f"/api/projects/{project}"
        self.chance = random.Random(seed)

    def write(self) -> None:
        does = [self.edit, self.tick, self.snag, self.test, self.picture, self.job]
        try:
            while True:
                self.chance.choice(does)()
        except (urllib.error.URLError, HTTPException, OSError, ValueError, KeyError):
            return  # killed, or on the way to it

    def edit(self) -> None:
        value = self.said.count + 1
        network = {
            "id": "net-count",
            "name": "Count",
            "purpose": "staff",
            "vlan": 200,
            "subnet": "10.99.0.0/24",
            "expected_clients": value,
        }
        body = {
            "revision": self.said.revision,
            "label": "count",
            "changes": [{"op": "put", "kind": "network", "element": network}],
        }
        first = fetch(self.server, self.path + "/changes", body).splitlines()[0]
        self.said.revision = int(json.loads(first)["answer"]["revision"])
        self.said.count = value
        self.said.acknowledged["edits"] += 1

    def tick(self) -> None:
        key = uuid.uuid4().hex
        tick = {"key": key, "step": f"step-{key}", "state": "done", "by": "bench"}
        for _ in range(self.chance.choice([1, 1, 2])):  # as where an answer was lost
            call(self.server, self.path + "/work", {"ticks": [tick]})
        self.said.ticks.append(tick["step"])
        self.said.acknowledged["ticks"] += 1

    def snag(self) -> None:
        key = uuid.uuid4().hex
        said = {"key": key, "snag": f"s-{key[:30]}", "what": "Plate", "by": "bench"}
        call(self.server, self.path + "/snags", {"said": [said]})
        self.said.snags.append(said["snag"])
        self.said.acknowledged["snags"] += 1

    def test(self) -> None:
        self.said.sent_tests += 1
        call(self.server, self.path + "/tests", {"device": "ap-1", "result": "pass"})
        self.said.tests += 1
        self.said.acknowledged["tests"] += 1

    def picture(self) -> None:
        out = io.BytesIO()
        Image.effect_noise((64, 48), self.chance.uniform(10, 90)).save(out, "PNG")
        edge = b"edge"
        body = b"--" + edge + b'\r\nContent-Disposition: form-data; name="picture"; filename="p"'
        body += b"\r\n\r\n" + out.getvalue() + b"\r\n--" + edge + b"--\r\n"
        asked = urllib.request.Request(self.server.base + self.path + "/pictures", body)
        asked.add_header("Content-Type", f"multipart/form-data; boundary={edge.decode()}")
        with urllib.request.urlopen(asked, timeout=30) as answer:
            self.said.pictures.append(json.loads(answer.read())["id"])
        self.said.acknowledged["pictures"] += 1

    def job(self) -> None:
        body = {"kind": "brief_pdf", "arguments": {}}
        self.said.jobs.append(call(self.server, self.path + "/jobs", body)["id"])
        self.said.acknowledged["jobs"] += 1


def faults_of(server: Server, project: str, said: Said) -> list[str]:
    """Return what is lost, doubled or stuck; take what is there for what the next goes on from."""
    path, found = f"/api/projects/{project}", []
    document = call(server, path)
    rows = {n["id"]: n for n in document["elements"].get("network", [])}
    held = rows.get("net-count", {}).get("expected_clients", 0)
    if held not in (said.count, said.count + 1) or document["revision"] < said.revision:
        found.append(f"edit {said.count} acknowledged, {held} there")
    said.count, said.revision = held, document["revision"]
    stands = {s["step"]: s["said"] for s in call(server, path + "/work")["stands"]}
    found += [f"tick {s}: {stands.get(s, 0)} times" for s in said.ticks if stands.get(s) != 1]
    snags = Counter(s["snag"] for s in call(server, path + "/snags")["snags"])
    found += [f"snag {s}: {snags[s]} times" for s in said.snags if snags[s] != 1]
    tests = next(c for c in call(server, path + "/tests")["cables"] if c["device"] == "ap-1")
    if not said.tests <= tests["tests"] <= said.sent_tests:
        found.append(f"{said.tests} tests acknowledged of {said.sent_tests}, {tests['tests']} there")
    for key in said.pictures[-3:]:
        if not fetch(server, f"{path}/pictures/{key}"):
            found.append(f"picture {key} is empty")
    until = time.monotonic() + JOB_SECONDS
    for key in said.jobs:
        job: dict[str, Any] = {"state": "running"}
        while job["state"] == "running" and time.monotonic() < until:
            job = call(server, f"/api/jobs/{key}")
            time.sleep(0.05 if job["state"] == "running" else 0)
        if job["state"] == "running":
            found.append(f"job {key} is stuck")
        elif job["state"] == "done" and not fetch(server, f"{path}/papers/{job['result']['paper']}"):
            found.append(f"the paper of job {key} is not there")
    said.jobs.clear()
    return found


def _killed(server: Server, database: Database, way: int) -> None:
    """End one or the other, or both, as kill -9 does; let what lives on go on for a moment."""
    if way == 0:
        database.kill()
        time.sleep(0.3)
    elif way == 1:
        database.kill()
        server.kill()
    else:
        server.kill()
    if not database.running:
        database.start()
    if not server.running:
        server.start()
    server.wait_ready()
    until = time.monotonic() + 30
    while not call(server, "/api/health")["database"] and time.monotonic() < until:
        time.sleep(0.2)
        try:
            fetch(server, "/api/projects")
        except urllib.error.HTTPError:
            continue


def kills(count: int = KILLS, folder: Path = VAR / "bench") -> list[str]:
    """Kill so often; return what was lost, doubled or stuck."""
    chance, said, found = random.Random(SEED), Said(), []
    with running(folder) as database:
        url = database.create("kills", fresh=True)
        server = Server(url, free_port(), FRONTEND / "dist", demo=False)
        server.start()
        server.wait_ready()
        site = json.loads(dump_project(Project("Killed", veterinary_practice())))
        project = str(call(server, "/api/import/project", site)["id"])
        made, until = 0, time.monotonic() + SECONDS
        while made < count and time.monotonic() < until:
            writer = Writer(server, project, said, made)
            thread = threading.Thread(target=writer.write)
            thread.start()
            time.sleep(chance.uniform(*WRITES_FOR_SECONDS))
            _killed(server, database, chance.choice([0, 1, 2, 2, 2]))
            # One that outlives a killed database may go on writing until it is stopped.
            thread.join(5)
            if thread.is_alive():
                server.kill()
                thread.join()
                server.start()
                server.wait_ready()
            found += faults_of(server, project, said)
            made += 1
        server.stop()
    print(f"Kills: {made} of the server, the database or both, while somebody writes")
    print("  acknowledged: " + ", ".join(f"{n} {what}" for what, n in said.acknowledged.items()))
    print(f"  {len(found)} lost, doubled or stuck")
    for line in found[:10]:
        print(f"    {line}")
    return found


if __name__ == "__main__":
    sys.exit(bool(kills(int(sys.argv[1]) if len(sys.argv) > 1 else KILLS)))
