"""Carries random valid designs through every question, export and paper: none may fail.

    python -m bench.fuzz_designs [DESIGNS [SEED]]

Designs are the made-up sites with elements taken away, moved and told otherwise at random, as far
as they still hold. Bounded in count.
"""

from __future__ import annotations

import random
import sys
from collections.abc import Iterator
from typing import Any

from flask.testing import FlaskClient

from heathrise.core.base.progress import always
from heathrise.core.catalogue import load_catalogue
from heathrise.core.design import Design, DesignError, Floor
from heathrise.formats.registry import formats
from heathrise.jobs import KINDS, run_kind
from heathrise.store import Repository, Stores, connect
from heathrise.store.migrate import migrate
from heathrise.web.app import create_app
from ops.database import running
from ops.machine import VAR

from .random_designs import random_design

DESIGNS, SEED = 40, 16
_ASKED = (
    "",
    "/evaluation",
    "/history",
    "/order",
    "/offers",
    "/work",
    "/tests",
    "/ports",
    "/snags",
    "/handover",
    "/progress",
    "/busy",
    "/widths",
    "/mesh",
    "/calibration",
    "/channels?band=2.4",
    "/channels?band=5",
    "/channels?band=6",
)
_QUICK = {"wishes": {"seconds": 1, "goals": ["fewest"]}}


def faults_of(repository: Repository, client: FlaskClient, design: Design) -> Iterator[str]:
    """Ask everything of a design; yield what failed."""
    saved = repository.create("Fuzzed \u2028 site", design, "bench", "made")
    base = f"/api/projects/{saved.id}"
    floors = list(design.of(Floor))
    asked = [base + path for path in _ASKED]
    asked += [f"{base}/export/{what}" for what in formats("out")]
    for floor in floors[:2]:
        asked += [
            f"{base}/relief?floor={floor}&band={b}&show={s}&rank={r}"
            for b in ("2.4", "5")
            for s in ("level", "serves")
            for r in (1, 2)
        ]
        asked += [
            f"{base}/levels?floor={floor}&x=3&y=4",
            f"{base}/rays?floor={floor}&x=3&y=4&band=5",
            f"{base}/sheets/{floor}.svg?scale=100",
        ]
    for path in asked:
        answer = client.get(path)
        said = answer.get_data()
        if answer.status_code >= 500 or b'"failed-' in said:
            yield f"{answer.status_code} {path}: {said[:300]!r}"
    for kind, arguments in _jobs(design):
        try:
            run_kind(Stores.over(repository), saved, kind, arguments, always)
        except DesignError:
            continue  # told in words
        except Exception as error:
            yield f"job {kind}: {type(error).__name__}: {error}"
    repository.remove(saved.id)


def _jobs(design: Design) -> Iterator[tuple[str, dict[str, Any]]]:
    arguments: dict[str, dict[str, Any]] = {
        "cures": {"finding": "signal-none"},
        "labels_pdf": {"sheet": "sleeve-a4"},
        "sheets_pdf": {"paper": "A4", "scale": 100},
        "handover": {"by": "bench"},
        "variant": {"policy": "first_only"},
        "sites": _QUICK,
        "needless": {},
        "best_places": {"device": next(iter(design.tables.get("device", {})), "none"), **_QUICK},
    }
    for kind in KINDS:
        yield kind, arguments.get(kind, {})


def fuzz_designs(count: int = DESIGNS, seed: int = SEED) -> int:
    """Carry so many designs through everything; return how many times something failed."""
    chance, found = random.Random(seed), []
    catalogue = load_catalogue()
    with running(VAR / "bench", durable=False) as database:
        engine = connect(database.create("fuzz_designs", fresh=True))
        migrate(engine)
        repository = Repository(engine, catalogue)
        client = create_app(repository).test_client()
        for _ in range(count):
            found += list(faults_of(repository, client, random_design(chance, catalogue)))
        engine.dispose()
    for said in found[:10]:
        print(f"  {said}")
    print(f"Fuzz: {count} random designs through everything, {len(found)} failures")
    return len(found)


if __name__ == "__main__":
    sys.exit(min(1, fuzz_designs(*(int(a) for a in sys.argv[1:]))))
