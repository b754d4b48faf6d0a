"""All ways to places on the land: one place that nothing is known of, and twenty of a site."""

from __future__ import annotations

import random
import time

from heathrise.core.catalogue import load_catalogue
from heathrise.core.context.plan import Plan
from heathrise.core.design import Design, FarPoint, apply, put
from heathrise.core.evaluation.evaluate import evaluate
from heathrise.core.views.far_ways import far_ways
from heathrise.demo import watermill

from .pace import Marks

PLACES = 20
RUNS = 5
SEED = 3


def _places(run: int) -> Design:
    """Return the mill with places strewn over its land, each run elsewhere."""
    chance = random.Random(SEED + run)
    points = [
        FarPoint(
            id=f"p-{k}",
            name=f"Place {k}",
            at=(chance.uniform(-400, 400), chance.uniform(-400, 400)),
            cameras=chance.randint(0, 4),
            clients=chance.choice([0, 10]),
            land=chance.choice(["lawn", "drive", "trees"]),
            trees=((10.0, 30.0, chance.uniform(2, 12), None),),
        )
        for k in range(PLACES)
    ]
    return apply(watermill(), [put(p) for p in points])


def far() -> None:
    """Print what all ways to a place take to work out, the plan itself being judged."""
    marks = Marks("Far places: every way to each")
    catalogue = load_catalogue()
    one: list[float] = []
    all_of_them: list[float] = []
    for run in range(RUNS):
        plan = Plan(_places(run), catalogue)
        evaluate(plan)
        began = time.perf_counter()
        far_ways(plan, "p-0")
        one.append(time.perf_counter() - began)
        for k in range(1, PLACES):
            far_ways(plan, f"p-{k}")
        all_of_them.append(time.perf_counter() - began)
    marks.row("one place", 1000 * min(one), "ms", 300)
    marks.row(f"{PLACES} places of a site", min(all_of_them), "s", 3)
