"""Rooms from walls: a storey of 400 walls and 120 devices, a wall of it moved, and what follows."""

from __future__ import annotations

import time
from collections.abc import Callable

import shapely
from shapely.geometry import LineString

from heathrise.core.catalogue import load_catalogue
from heathrise.core.context.integrity import check
from heathrise.core.context.plan import Plan
from heathrise.core.design import (
    Building,
    Design,
    Device,
    EquipmentRoom,
    Floor,
    Site,
    Space,
    Wall,
    apply,
    design_of,
    put,
)
from heathrise.core.evaluation.evaluate import evaluate
from heathrise.core.signal import environment_of
from heathrise.core.signal.relief import relief
from heathrise.core.views.section import section_view
from heathrise.core.walling import drawn, follow, gaps_of, nets_of
from heathrise.core.walling.hand import Move

from .pace import Marks

COLUMNS, ROWS, ROOM_M = 20, 9, 4.0
DEVICES = 120
_RUNS = 5


def storey() -> Design:
    """A storey of 180 rooms, 389 walls between them, and an access point in two rooms of three."""
    rows: list[Wall | Space | Device] = []
    model = next(
        m for m in load_catalogue().devices["access_point"].values() if "ceiling" in m.mounts and not m.old
    )
    for c in range(COLUMNS + 1):
        for r in range(ROWS + 1):
            x, y = c * ROOM_M, r * ROOM_M
            if c < COLUMNS:
                rows.append(_wall(f"h-{c}-{r}", (x, y), (x + ROOM_M, y)))
            if r < ROWS:
                rows.append(_wall(f"v-{c}-{r}", (x, y), (x, y + ROOM_M)))
            if c < COLUMNS and r < ROWS:
                box = ((x, y), (x + ROOM_M, y), (x + ROOM_M, y + ROOM_M), (x, y + ROOM_M))
                rows.append(Space(id=f"s-{c}-{r}", floor="f", name=f"Room {c}.{r}", outline=box))
    spots = [(c, r) for r in range(ROWS) for c in range(COLUMNS) if (c + r) % 3][:DEVICES]
    for number, (c, r) in enumerate(spots):
        fields = {
            "id": f"ap-{number}",
            "floor": "f",
            "kind": "access_point",
            "model": model.id,
            "name": f"AP-{number}",
            "at": (c * ROOM_M + 2, r * ROOM_M + 2),
        }
        rows.append(Device.model_validate(fields))
    return design_of(
        [
            Site(id="site"),
            Building(id="b", name="Block"),
            Floor(id="f", building="b", name="Ground", level=0),
            EquipmentRoom(id="rack", floor="f", name="Rack", at=(2, 2)),
            *rows,
        ]
    )


def _wall(key: str, a: tuple[float, float], b: tuple[float, float]) -> Wall:
    return Wall(id=key, floor="f", a=a, b=b, construction="plasterboard")


def walls() -> None:
    """Print what rooms from walls cost, and what a wall in the hand does."""
    marks = Marks("Walls")
    catalogue, design = load_catalogue(), storey()
    plain = _best(lambda k: _joined_plainly(_shifted(design, k)))
    net = _best(lambda k: nets_of(_shifted(design, k))["f"].faces)
    marks.row("400 walls joined, their rooms found", 1000 * net, "ms")
    marks.row("  times a plain union of the lines", net / plain, "x")
    marks.row("gaps of the storey", 1000 * _best(lambda k: gaps_of(_shifted(design, k), 1.3)), "ms")
    plan = Plan(design, catalogue)
    evaluate(plan)
    relief(environment_of(plan, "5"), "f", "5", 1, "weaker", quick=True)

    def gesture(k: int) -> Design:
        changes = drawn(design, Move(walls=("v-7-4",), by=(0.05 * (k + 1), 0)))
        after = apply(design, changes)
        after = apply(after, follow(design, after).changes)
        check(after, catalogue)
        return after

    hand = _best(gesture)
    marks.row("a wall moved: neighbours and rooms", 1000 * hand, "ms")
    figures = _best(lambda k: evaluate(plan.redrawn(gesture(k + 10)).hastily()))
    drawn_relief = _best(
        lambda k: relief(
            environment_of(plan.redrawn(gesture(k + 20)).hastily(), "5"), "f", "5", 1, "weaker", quick=True
        )
    )
    marks.row("  and the relief of its storey", 1000 * drawn_relief, "ms", 250)
    marks.row("  and the figures, beside it", 1000 * figures, "ms")
    marks.row(
        "a section through it", 1000 * _best(lambda k: section_view(plan.redrawn(gesture(k + 30)), "f")), "ms"
    )


def _shifted(design: Design, k: int) -> Design:
    """The same storey with one wall a little elsewhere: nothing of it is known yet."""
    wall = design.of(Wall)["h-3-3"]
    return apply(design, [put(wall.model_copy(update={"b": (wall.b[0] - 0.001 * (k + 1), wall.b[1])}))])


def _joined_plainly(design: Design) -> object:
    lines = [LineString([w.a, w.b]) for w in design.of(Wall).values()]
    return shapely.polygonize([shapely.union_all(lines)])


def _best(work: Callable[[int], object]) -> float:
    found = []
    for k in range(_RUNS):
        began = time.perf_counter()
        work(k)
        found.append(time.perf_counter() - began)
    return min(found)
