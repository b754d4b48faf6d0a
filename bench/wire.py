"""Wire: 300 runs over six storeys cold and after a move, ports of 200 devices, remedies of a run."""

from __future__ import annotations

import heapq
import random
import time
from collections import defaultdict

from heathrise.core.cabling import judge_runs
from heathrise.core.cabling.ways import Ways, ways_of
from heathrise.core.catalogue import load_catalogue
from heathrise.core.context.plan import Plan
from heathrise.core.design import (
    Building,
    Design,
    Device,
    Element,
    EquipmentRoom,
    Floor,
    Riser,
    Site,
    Space,
    apply,
    design_of,
    put,
)
from heathrise.core.evaluation.evaluate import evaluate
from heathrise.core.ports import Demand, Shelf, assign
from heathrise.core.views.remedies import remedies_of
from heathrise.demo import veterinary_practice

from .pace import Marks

STOREYS, WIDE_M, DEEP_M, ROOMS, EACH, WAYS = 6, 60, 40, 6, 50, 40
SEED = 5


def tower() -> Design:
    """Return a made-up house of six storeys with 300 devices and 40 risers."""
    draw = random.Random(SEED)
    rows: list[Element] = [Site(id="site", cables_per_access_point=1), Building(id="b", name="Tower")]
    for level in range(STOREYS):
        name = f"f{level}"
        rows.append(
            Floor(id=name, building="b", name=f"Storey {level}", level=level, elevation_m=3.2 * level)
        )
        for k in range(ROOMS):
            x = k * WIDE_M / ROOMS
            outline = ((x, 0.0), (x + 10, 0.0), (x + 10, float(DEEP_M)), (x, float(DEEP_M)))
            rows.append(Space(id=f"{name}-{k}", floor=name, name=f"Room {k}", outline=outline))
        for k in range(EACH):
            at = (round(draw.uniform(1, WIDE_M - 1), 2), round(draw.uniform(1, DEEP_M - 1), 2))
            rows.append(
                Device(
                    id=f"{name}-d{k}",
                    floor=name,
                    kind="outlet",
                    model="outlet-single",
                    name=f"{name} {k}",
                    at=at,
                )
            )
    rows.append(EquipmentRoom(id="rack", floor="f0", name="Rack", at=(30.0, 20.0)))
    for k in range(WAYS):
        at = (round(draw.uniform(2, WIDE_M - 2), 2), round(draw.uniform(2, DEEP_M - 2), 2))
        low = draw.randint(0, STOREYS - 2)
        high = draw.randint(low + 1, STOREYS - 1)
        rows.append(
            Riser(id=f"r{k}", building="b", name=f"Riser {k}", at=at, lowest_level=low, highest_level=high)
        )
    rows.append(Riser(id="main", building="b", name="Main", at=(32, 20), lowest_level=0, highest_level=5))
    return design_of(rows)


def demands(count: int) -> tuple[Demand, ...]:
    """Return links of made-up devices: half of them powered, of four classes."""
    draw = random.Random(SEED)
    found = []
    for k in range(count):
        poe = draw.choice([None, None, None, 2, 3, 4])
        watts = 0.0 if poe is None else draw.choice([4.2, 6.8, 11.3, 17.9])
        speed = draw.choice([100, 1000, 1000, 2500])
        found.append(
            Demand(f"d{k}", f"D{k}", speed, poe, watts, watts, k % 3 == 0, f"d{k}", k % 9 if poe else 0)
        )
    return tuple(found)


def plain(ways: Ways) -> dict[int, float]:
    """Return how far every node of the lattice is from the rack, by a plain search over single steps."""
    near: dict[int, list[tuple[int, float]]] = defaultdict(list)
    for storey in ways.storeys.values():
        for a, b in zip(storey.start.tolist(), storey.end.tolist(), strict=True):
            step = float(abs(storey.uv[a] - storey.uv[b]).sum())
            near[storey.first + a].append((storey.first + b, step))
            near[storey.first + b].append((storey.first + a, step))
    for (a, b), link in ways.links.items():
        near[a].append((b, link.length_m))
    found: dict[int, float] = {}
    waiting = [(0.0, ways.source)]
    while waiting:
        far, node = heapq.heappop(waiting)
        if node not in found:
            found[node] = far
            for other, step in near[node]:
                heapq.heappush(waiting, (far + step, other))
    return found


def wire() -> None:
    """Print how long runs, ports and remedies take."""
    marks = Marks("Wire")
    catalogue = load_catalogue()
    design = tower()
    started = time.perf_counter()
    runs = judge_runs(design, catalogue)
    cold = time.perf_counter() - started
    device = design.of(Device)["f3-d7"]
    moved = apply(design, [put(device.model_copy(update={"at": (device.at[0] * 0.9, device.at[1] * 0.9)}))])
    started = time.perf_counter()
    judge_runs(moved, catalogue)
    again = time.perf_counter() - started
    ways = ways_of(design, catalogue)["rack"]
    started = time.perf_counter()
    plain(ways)
    one = time.perf_counter() - started
    what = f"{ways.nodes} nodes, each in two layers"
    marks.row(f"{len(runs)} runs, {STOREYS} storeys, {WAYS} ways, cold", cold, "s", 2, what)
    marks.row("the same after one device moved", 1e3 * again, "ms", 100)
    marks.row("a plain search for one of them", one, "s", None, f"for all: {one * len(runs):.0f} s")

    switches = ("dunthrip-m48", "dunthrip-s24h", "dunthrip-m24", "dunthrip-s16")
    shelves = tuple(Shelf(f"s{k}", f"S{k}", catalogue.switches[switches[k % 4]]) for k in range(8))
    asked = demands(200)
    started = time.perf_counter()
    found = assign(asked, shelves)
    took = time.perf_counter() - started
    proven = "proven" if found.proven else "not proven"
    marks.row("200 devices over 8 switches", took, "s", 10, f"{len(found.left)} left over, {proven}")

    plan = Plan(veterinary_practice(), catalogue)
    bad = next(r.device for r in evaluate(plan, wait=True).runs if r.verdict == "not_met")
    started = time.perf_counter()
    answer = remedies_of(plan, bad)
    took = 1e3 * (time.perf_counter() - started)
    marks.row("remedies of a run", took, "ms", 300, f"{len(answer.remedies)} of them")
