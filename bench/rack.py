"""Racks: twenty things arranged, beside a plain search; a demo's racks in an evaluation; places compared."""

from __future__ import annotations

import itertools
import math
import random
import time

from heathrise.core.catalogue import load_catalogue
from heathrise.core.context.plan import Plan
from heathrise.core.elevation import Placed, arrange
from heathrise.core.evaluation.evaluate import evaluate
from heathrise.core.evaluation.racks import rack_chapter
from heathrise.core.placement import rack_places
from heathrise.demo import music_school

from .pace import Marks

SEED = 11
UNITS = 42
SMALL = 5


def things(count: int, seed: int = SEED) -> tuple[Placed, ...]:
    """Return made-up things of one or two units, some hot, some with fans."""
    draw = random.Random(seed)
    return tuple(
        Placed(
            f"t{k}",
            draw.choice([1, 1, 1, 2]),
            draw.randint(1, 20),
            draw.random() < 0.3,
            int(draw.random() < 0.4),
        )
        for k in range(count)
    )


def near(count: int, seed: int = SEED) -> tuple[tuple[str, str, int], ...]:
    draw = random.Random(seed)
    return tuple((f"t{k}", f"t{k + 1}", draw.randint(1, 24)) for k in range(0, count - 1, 2))


def plain(rows: tuple[Placed, ...], units: int) -> float:
    """Try every order of a few things in a small frame, blanks left out; the least weight times unit."""
    best = math.inf
    for order in itertools.permutations(rows):
        at, total = 1, 0
        for thing in order:
            total += thing.kg * at
            at += thing.units
        if at - 1 <= units:
            best = min(best, total)
    return best


def rack() -> None:
    """Print how long racks take."""
    marks = Marks("Racks")
    begun = time.perf_counter()
    found = arrange(things(20), near(20), UNITS)
    took = time.perf_counter() - begun
    proven = "proven" if found.proven else "not proven"
    marks.row("20 things in 42 units", took, "s", 2, f"{len(found.units)} placed, {proven}")
    few = things(SMALL + 3, seed=3)
    begun = time.perf_counter()
    plain(few, UNITS)
    by_hand = time.perf_counter() - begun
    begun = time.perf_counter()
    arrange(few, (), UNITS)
    searched = time.perf_counter() - begun
    marks.row(f"{len(few)} things, the search", searched, "s", None, f"plain orders of them {by_hand:.2f} s")
    plan = Plan(music_school(), load_catalogue())
    evaluation = evaluate(plan, wait=True)
    begun = time.perf_counter()
    rack_chapter(plan.design, plan.catalogue, evaluation.cable.links, evaluation.power)
    marks.row("the school's rack in an edit", 1e3 * (time.perf_counter() - begun), "ms", 20)
    begun = time.perf_counter()
    tried = rack_places(plan, "rack", lambda *_: True)
    marks.row("places for it compared", time.perf_counter() - begun, "s", None, f"{len(tried.places)} rooms")
