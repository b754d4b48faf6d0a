"""Kills the server, and the database, while edits come in; counts what was lost.

    python -m bench.kills [KILLS]

Every edit that was acknowledged must be there afterwards, whole, and none twice. Loopback only;
bounded in count and time.
"""

from __future__ import annotations

import json
import random
import sys
import time
import urllib.error

from bench.http import fetch, project_named
from heathrise.core.catalogue import load_catalogue
from heathrise.store import Repository, connect
from ops.database import running
from ops.machine import FRONTEND, VAR, free_port
from ops.serve import Server

KILLS = 8
EDITS_BETWEEN = 6
SEED = 11
SECONDS = 400.0


def _edit(server: Server, project: str, revision: int, x: float) -> int | None:
    """Send one edit; return the revision it was acknowledged with, or None."""
    network = {
        "id": "net-count", "name": "Count", "purpose": "staff", "vlan": 200,
        "subnet": "10.99.0.0/24", "expected_clients": int(x),
    }  # fmt: skip
    change = {"op": "put", "kind": "network", "element": network}
    body = {"revision": revision, "label": "count", "changes": [change]}
    try:
        answered = fetch(server, f"/api/projects/{project}/changes", body).splitlines()[0]
        return int(json.loads(answered)["answer"]["revision"])
    except (urllib.error.URLError, OSError, ValueError, TypeError):
        return None


def kills(count: int = KILLS) -> None:
    rng = random.Random(SEED)
    acknowledged = lost = unsure = 0
    with running(VAR / "bench") as database:
        url = database.create("kills", fresh=True)
        server = Server(url, free_port(), FRONTEND / "dist")
        server.start()
        server.wait_ready()
        project = project_named(server, "School")
        revision, value, until = 1, 0, time.monotonic() + SECONDS
        for k in range(count):
            if time.monotonic() > until:
                break
            for _ in range(rng.randint(1, EDITS_BETWEEN)):
                answered = _edit(server, project, revision, value + 1)
                if answered is None:
                    unsure += 1
                    break
                revision, value = answered, value + 1
                acknowledged += 1
            if k % 3 == 2:
                database.kill()
                server.kill()
                database.start()
            else:
                server.kill()
            server.start()
            server.wait_ready()
            saved = Repository(connect(url), load_catalogue()).load(project)
            network = saved.design.get("network", "net-count")
            held = getattr(network, "expected_clients", 0)
            if held < value or saved.revision < revision:
                lost += 1
            revision, value = saved.revision, held
        server.stop()
    print(f"Kills: {count} of the server, a third of them with the database")
    print(f"  {acknowledged} edits acknowledged, {lost} lost, {unsure} unanswered when killed")


if __name__ == "__main__":
    kills(int(sys.argv[1]) if len(sys.argv) > 1 else KILLS)
