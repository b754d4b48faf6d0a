"""What the work takes: minutes by task, place and space."""

from __future__ import annotations

import itertools
import math
from collections.abc import Iterable, Sequence

from pydantic import BaseModel, ConfigDict, Field

from ..catalogue import Catalogue, Rules
from ..design import Design, Device, EquipmentRoom, Space, Switch
from .holes import Hole, Stretch
from .links import Link
from .parts import Where, place_of

_CELL_M = 0.6  # cables this near to one another, the same way, are pulled together


class Task(BaseModel):
    """A kind of work: how much of it, the minutes, and where."""

    model_config = ConfigDict(frozen=True)

    task: str
    label: str
    quantity: float
    unit: str
    minutes: float = Field(description="minutes for one person")
    where: tuple[Where, ...]


def labour_of(
    design: Design,
    catalogue: Catalogue,
    links: Sequence[Link],
    holes: Sequence[Hole],
) -> list[Task]:
    """Return all work of a plan, task by task, in the order in which it is done."""
    rules = catalogue.rules
    fresh = [k for k in links if not k.found]
    floors = _climbs(fresh)
    tasks = [
        _flat("prepare", "Preparation", rules["order.prepare_minutes"]),
        _each("drill", "Drill masonry", "hole", rules["order.drill_minutes.masonry"], [
            Where(kind="wall", id=h.wall, name=", ".join(h.links), floor=h.floor) for h in holes
        ]),
        _each("floor", "Drill a floor", "hole", rules["order.drill_minutes.floor"], floors),
        _each("fire-stop", "Fire-stop", "opening", rules["order.fire_stop_minutes"], floors),
        _pull(rules, fresh),
        _each("end", "Terminate and label", "end", rules["order.end_minutes"], [
            place_of(k, 2 * k.cables) for k in fresh if not k.coil
        ]),
        _each("test", "Test and record", "cable", rules["order.test_minutes"], [
            place_of(k, k.cables) for k in links if not k.coil
        ]),
        *_mounts(design, catalogue),
        *_racks(design, rules, links),
        _each("adopt", "Switch on, adopt, name", "device", rules["order.adopt_minutes"], [
            Where(kind="device", id=d.id, name=d.name, floor=d.floor)
            for d in design.of(Device).values()
            if d.state == "new" and catalogue.role_of(d).links == "one"
        ]),
        _each("walk", "Walk test", "room", rules["order.walk_minutes"], [
            Where(kind="space", id=s.id, name=s.name, floor=s.floor)
            for s in design.of(Space).values()
            if s.use != "none" and design.of(Device)
        ]),
        _flat("papers", "Papers and hand-over", rules["order.papers_minutes"]),
    ]  # fmt: skip
    return [t for t in tasks if t.minutes > 0]


def _flat(task: str, label: str, minutes: float) -> Task:
    where = Where(kind="site", id="site", name="the job")
    return Task(task=task, label=label, quantity=1, unit="job", minutes=minutes, where=(where,))


def _each(task: str, label: str, unit: str, minutes: float, where: Iterable[Where]) -> Task:
    rows = tuple(where)
    count = sum(w.quantity for w in rows)
    return Task(
        task=task, label=label, quantity=round(count, 2), unit=unit,
        minutes=round(count * minutes, 2), where=rows,
    )  # fmt: skip


def climbs_of(links: Iterable[Link]) -> list[tuple[str, tuple[str, ...]]]:
    """Return the openings from storey to storey, each once: where, and the links through it."""
    return [(floor, tuple(keys)) for (_, floor), keys in _climbing(links).items()]


def _climbing(links: Iterable[Link]) -> dict[tuple[str, str], dict[str, str]]:
    """Return by riser and storey the links that go through, with their names."""
    found: dict[tuple[str, str], dict[str, str]] = {}
    for link in links:
        for stretch in link.stretches:
            if stretch.way is not None and stretch.kind != "duct":
                found.setdefault((stretch.way, stretch.floor), {})[link.id] = link.name
    return found


def _climbs(links: Iterable[Link]) -> list[Where]:
    return [
        Where(kind="riser", id=riser, name=", ".join(names.values()), floor=floor)
        for (riser, floor), names in _climbing(links).items()
    ]


def pull_minutes(rules: Rules, links: Iterable[Link]) -> dict[str, float]:
    """Return the minutes of pulling by link.

    A metre costs what its space is to work in. Of cables that lie together the first counts in
    full and each other a quarter; the first is the one that is planned first.
    """
    rates = rules.table("order.pull_minutes")
    beside = rules["order.pulled_beside_share"]
    taken: set[tuple[object, ...]] = set()
    found: dict[str, float] = {}
    for link in links:
        minutes, mine = 0.0, set()
        for stretch in link.stretches:
            rate = rates.get(stretch.kind, rates["ceiling_void"])
            pieces = _cells(stretch)
            each = stretch.length_m / len(pieces)
            for cell in pieces:
                share = beside if cell in taken else 1.0
                minutes += each * rate * (share + beside * (stretch.cables - 1))
                mine.add(cell)
        taken |= mine
        found[link.id] = minutes
    return found


def _cells(stretch: Stretch) -> list[tuple[object, ...]]:
    """Return the cells that a stretch passes, a piece of it in each."""
    points = stretch.points
    if len(points) < 2 or stretch.kind in ("rise", "drop"):
        spot = points[0] if points else (0.0, 0.0)
        return [(stretch.floor, stretch.kind, _cell(spot), stretch.way)]
    found: list[tuple[object, ...]] = []
    for (ax, ay), (bx, by) in itertools.pairwise(points):
        count = max(1, math.ceil(math.dist((ax, ay), (bx, by)) / _CELL_M))
        for k in range(count):
            t = (k + 0.5) / count
            spot = (ax + (bx - ax) * t, ay + (by - ay) * t)
            found.append((stretch.floor, stretch.kind, _cell(spot), stretch.way))
    return found


def _cell(spot: Sequence[float]) -> tuple[int, int]:
    return round(spot[0] / _CELL_M), round(spot[1] / _CELL_M)


def _pull(rules: Rules, links: Sequence[Link]) -> Task:
    by_link = pull_minutes(rules, links)
    metres = sum(s.length_m * s.cables for k in links for s in k.stretches)
    where = tuple(
        place_of(k, round(sum(s.length_m * s.cables for s in k.stretches), 1)) for k in links
    )
    return Task(
        task="pull", label="Pull cable", quantity=round(metres, 1), unit="m",
        minutes=round(sum(by_link.values()), 2), where=where,
    )  # fmt: skip


def _mounts(design: Design, catalogue: Catalogue) -> list[Task]:
    rates = catalogue.rules.table("order.mount_minutes")
    by_kind: dict[str, list[Where]] = {}
    for device in design.of(Device).values():
        if device.state == "new":
            outside = f"{device.kind}_outside"
            out = catalogue.model_of(device).outdoor and outside in rates
            place = Where(kind="device", id=device.id, name=device.name, floor=device.floor)
            by_kind.setdefault(outside if out else device.kind, []).append(place)
    return [
        _each(f"mount-{key}", f"Mount: {_named(catalogue, key)}", "piece",
              rates.get(key, rates["other"]), rows)
        for key, rows in by_kind.items()
    ]  # fmt: skip


def _named(catalogue: Catalogue, key: str) -> str:
    plain = key.removesuffix("_outside")
    name = catalogue.roles[plain].name.lower()
    return f"{name} outside" if key != plain else name


def _racks(design: Design, rules: Rules, links: Sequence[Link]) -> list[Task]:
    used = {s.equipment_room for s in design.of(Switch).values() if s.state == "new"}
    rooms = [
        Where(kind="equipment_room", id=r.id, name=r.name, floor=r.floor)
        for r in design.of(EquipmentRoom).values()
        if r.id in used
    ]
    copper = [place_of(k, k.cables) for k in links if k.medium == "copper"]
    return [
        _each("rack", "Set up a rack", "rack", rules["order.rack_minutes"], rooms),
        _each("dress", "Dress in the rack", "cable", rules["order.dress_minutes"], copper),
    ]
