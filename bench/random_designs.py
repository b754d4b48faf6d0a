"""Random valid designs: the demo sites with elements taken away, moved and told otherwise at random,
as far as they still hold."""

from __future__ import annotations

import random
from collections.abc import Iterator

from heathrise.core.catalogue import Catalogue
from heathrise.core.context.integrity import REFERENCES, check
from heathrise.core.design import Change, Design, DesignError, Put, Remove, apply
from heathrise.demo import SITES

_STATES = ("new", "keep", "retire", "unknown")


def random_design(chance: random.Random, catalogue: Catalogue) -> Design:
    """Return a made-up site after some edits that a person could have made."""
    design = chance.choice(SITES).make()
    for _ in range(chance.randint(1, 40)):
        design = edited(chance, design, catalogue)
    return design


def edited(chance: random.Random, design: Design, catalogue: Catalogue) -> Design:
    """Return a design after one more edit, or the same one where that would not hold."""
    try:
        after = apply(design, list(_edit(chance, design)))
        check(after, catalogue)
    except DesignError:
        return design
    return after


def _edit(chance: random.Random, design: Design) -> Iterator[Change]:
    kinds = [k for k, rows in design.tables.items() if rows and k != "site"]
    if not kinds:
        return  # all was taken away
    kind = chance.choice(kinds)
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
