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
from heathrise.core.catalogue import Catalogue, load_catalogue
from heathrise.core.context.integrity import REFERENCES, check
from heathrise.core.design import Change, Design, DesignError, Floor, Put, Remove, apply
from heathrise.demo import SITES
from heathrise.formats.registry import formats
from heathrise.jobs import KINDS
from heathrise.store import Repository, connect
from heathrise.store.migrate import migrate
from heathrise.web.app import create_app
from heathrise.web.jobs import run_kind
from ops.database import running
from ops.machine import VAR

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
    "/channels/2.4",
    "/channels/5",
    "/channels/6",
)
_STATES = ("new", "keep", "retire", "unknown")
_QUICK = {"wishes": {"seconds": 1, "goals": ["fewest"]}}


def random_design(chance: random.Random, catalogue: Catalogue) -> Design:
    """Return a made-up site after some edits that a person could have made."""
    design = chance.choice(SITES).make()
    for _ in range(chance.randint(1, 40)):
        try:
            edited = apply(design, list(_edit(chance, design)))
            check(edited, catalogue)
        except DesignError:
            continue
        design = edited
    return design


def _edit(chance: random.Random, design: Design) -> Iterator[Change]:
    kind = chance.choice([k for k, rows in design.tables.items() if rows and k != "site"])
    element = chance.choice(list(design.tables[kind].values()))
    if chance.random() < 0.5:
        yield from _taken_away(design, kind, element.id)
        return
    row = element.model_dump(mode="json")
    if "at" in row:
        row["at"] = [c + chance.uniform(-6, 6) for c in row["at"]]
    if "state" in row:
        row["state"] = chance.choice(_STATES)
    if kind == "building":
        row["name"] += " \u000b<b>&amp;"
    yield Put(kind=kind, element=row)


def _taken_away(design: Design, kind: str, key: str) -> Iterator[Change]:
    """Yield what takes an element away, and first what cannot stand without it."""
    for other, fields in REFERENCES.items():
        for field, (target, many) in fields.items():
            rows = design.tables.get(other, {}).values() if target == kind and not many else ()
            for row in rows:
                if getattr(row, field) == key:
                    yield from _taken_away(design, other, row.id)
    yield Remove(kind=kind, id=key)


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
            f"{base}/levels/{floor}/3/4",
            f"{base}/rays/{floor}/3/4/5",
            f"{base}/sheets/{floor}.svg?scale=100",
        ]
    for path in asked:
        answer = client.get(path)
        said = answer.get_data()
        if answer.status_code >= 500 or b'"failed-' in said:
            yield f"{answer.status_code} {path}: {said[:300]!r}"
    for kind, arguments in _jobs(design):
        try:
            run_kind(repository, saved, kind, arguments, always)
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
