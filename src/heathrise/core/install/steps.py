"""The work list: what is done, where, how long, after what, and what can hurt there."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

from ..catalogue import Catalogue
from ..design import Design, Device, EquipmentRoom, Floor, Space
from . import cables, far, gear
from .cables import Penetration, Pull, Trench
from .far import FarWork
from .gear import MountPlace, RackWork, SocketWork
from .step import PHASES, Step, TodoList


@dataclass(frozen=True)
class WorkSite:
    """What the work list needs to know of a site beside its design.

    ``stands`` say of each device where it hangs, ``racks`` what is set up, ``sockets`` what is made, ``far``
    the ways to far places.
    """

    pulls: Sequence[Pull]
    openings: Sequence[Penetration]
    trenches: Sequence[Trench]
    stands: dict[str, MountPlace]
    racks: Sequence[RackWork]
    sockets: Sequence[SocketWork]
    far: Sequence[FarWork] = ()


def work_list(drawn: Design, design: Design, catalogue: Catalogue, site: WorkSite) -> list[Step]:
    """Return the steps of a job in an order in which they can be walked; none where nothing is
    to be done.

    Far ends come before the ends that carry power, tests before power, the controller's update
    before anything is adopted, a reset before a kept device is used again.

    Args:
        drawn: with what is retired.
        design: as planned.
    """
    rules = catalogue.rules
    todo = TodoList(rules)
    first_rack = next(iter(design.of(EquipmentRoom).values()), None)
    rules_of_house = ", ".join(r.replace("_", " ") for r in drawn.site.house_rules)
    permission = "Permission of the owner for holes, and for work outside"
    todo.add(
        "safe",
        "safe",
        "Locate pipes and mains, lay dust sheets, read the heat of attics",
        ("site", "site", first_rack.floor if first_rack else None),
        [("prepare", 1, rules["order.prepare_minutes"])],
        hazards=("drilling", "mains"),
        tools=("detector", "thermometer", "dust sheets"),
        checks=(
            f"{permission}; rules of the house: {rules_of_house}" if rules_of_house else permission,
            "Photograph every place before it is touched",
        ),
    )
    cables.dig(todo, site.trenches)
    gear.racks(todo, design, site.racks)
    cables.open_holes(todo, site.openings)
    cables.pull(todo, site.pulls, site.openings)
    cables.far_ends(todo, site.pulls)
    gear.extenders(todo, design, catalogue, site.pulls)
    gear.mounts(todo, design, catalogue, site.pulls, site.stands)
    cables.near_ends(todo, site.pulls)
    gear.earthing(todo, design, site.racks, site.sockets)
    gear.powering(todo, design, catalogue, site.pulls)
    _settings(todo, design)
    far.reach(todo, site.far)
    gear.take_away(todo, drawn, site.stands)
    if len(todo.steps) == 1:
        return []
    _closing(todo)
    order = {phase: k for k, phase in enumerate(PHASES)}
    storey = {floor: k for k, floor in enumerate(design.of(Floor))}
    return sorted(todo.steps.values(), key=lambda s: (order[s.phase], storey.get(s.floor or "", -1)))


def _settings(todo: TodoList, design: Design) -> None:
    rules, adopted = todo.rules, todo.of("adopt")
    rooms = [s for s in design.of(Space).values() if s.use != "none"]
    place = ("site", "site", None)
    if not adopted:
        return
    todo.add(
        "settings",
        "settings",
        "Set networks, names, ports, radios in their order",
        place,
        [("settings", 1, rules["install.networks_minutes"])],
        ("controller", *adopted),
    )
    if rooms and design.of(Device):
        todo.add(
            "walk",
            "finish",
            f"Walk test and speeds of {len(rooms)} rooms",
            place,
            [("walk", len(rooms), rules["order.walk_minutes"] * len(rooms))],
            ("settings",),
            tools=("meter",),
        )


def _closing(todo: TodoList) -> None:
    rules, place = todo.rules, ("site", "site", None)
    finish = todo.of("finish")
    todo.add(
        "papers",
        "finish",
        "Photographs, papers, hand-over",
        place,
        [("papers", 1, rules["order.papers_minutes"])],
        (*finish, *todo.of("test")),
        checks=("Photograph every place as it is left",),
    )
    days = days_of(
        sum(s.minutes for s in todo.steps.values()), rules["order.day_minutes"], rules["order.clean_minutes"]
    )
    todo.add(
        "clean",
        "finish",
        f"Clear up at the end of {days} day{'s' if days > 1 else ''}",
        place,
        [("clean", days, days * rules["order.clean_minutes"])],
        ("papers",),
    )


def days_of(minutes: float, day_minutes: float, clean_minutes: float) -> int:
    """Return the days on site that so many minutes take, each of which ends with clearing up."""
    return max(1, math.ceil(minutes / max(day_minutes - clean_minutes, 1.0) - 1e-9))
