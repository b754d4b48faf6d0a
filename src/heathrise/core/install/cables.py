"""The steps of cable: trenches, holes, pulls, ends, tests, surge protection."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass
from typing import Any

from ..base.wording import some
from ..laying import Hazard, TrenchSize
from .hazards import heat_minutes, heat_said, old_walls_said, rest_minutes, trench_said
from .step import StepPlace, TodoList


@dataclass(frozen=True)
class Pull:
    """A link as the work list sees it; minutes for one person.

    ``high`` says that it lies over what is reached from the ground, ``far_high`` that its far end
    does, ``roof`` that some of it lies so high outdoors that fall protection is due; ``attic_c``
    is the heat of the attic it lies in, ``powered`` that what feeds it hurts; ``holes`` and
    ``trenches`` are the keys of those it goes through; ``near_dressed`` and ``far_dressed`` say
    which ends lie in a rack, ``panels`` which of them in a patch panel.
    """

    id: str
    name: str
    device: str | None
    floor: str
    rack: str
    far_rack: str | None
    medium: str
    cables: int
    metres: float
    minutes: float
    attic_minutes: float
    attic_c: float | None
    high: bool
    far_high: bool
    roof: bool
    powered: bool
    leaves: bool
    found: bool
    coil: bool
    holes: tuple[str, ...]
    trenches: tuple[str, ...]
    labels: tuple[str, ...]
    near_panel: bool
    far_panel: bool

    @property
    def fibre(self) -> bool:
        return self.medium == "fibre"

    @property
    def place(self) -> StepPlace:
        """The element that its far end is about."""
        if self.device is not None:
            return "device", self.device, self.floor
        if self.coil:
            return "zone", self.id, self.floor
        return "equipment_room", self.far_rack or self.rack, self.floor


@dataclass(frozen=True)
class Penetration:
    """A hole through masonry, or an opening that is fire-stopped: from storey to storey, or through a
    wall that is ``rated``; ``high``
    where it is reached from a ladder, ``built`` the year of its building."""

    key: str
    floor: str
    storey: bool
    links: tuple[str, ...]
    high: bool
    built: int | None
    rated: bool = False


@dataclass(frozen=True)
class Trench:
    """A duct that is dug in; minutes for one person. ``near`` names the buried services beside it."""

    id: str
    name: str
    floor: str
    size: TrenchSize
    minutes: float
    material: str
    near: tuple[str, ...] = ()


def how_dug(material: str, size: TrenchSize, near: Iterable[str] = ()) -> dict[str, Any]:
    """Return what a trench takes and what is seen to; ``near`` are services beside it."""
    return {
        "materials": (material, "warning tape"),
        "tools": ("cable and pipe locator", "spade", "barrier"),
        "checks": (
            f"Its size: {size.said}",
            "The owner's permission and the plans of buried services are at hand",
            *(f"{service} from its start: located, and dug by hand there" for service in near),
            "Photograph the duct before it is covered",
        ),
    }


def dig(todo: TodoList, trenches: Iterable[Trench]) -> None:
    for trench in trenches:
        todo.add(
            f"dig-{trench.id}",
            "dig",
            f"Dig {trench.name}, {trench.size.metres:.0f} m, lay its duct, fill",
            ("duct", trench.id, trench.floor),
            [("trench", trench.size.metres, trench.minutes)],
            ("safe",),
            ("trench", "alone"),
            [trench_said(todo.rules, trench.size.depth_m)],
            **how_dug(trench.material, trench.size, trench.near),
        )


def open_holes(todo: TodoList, openings: Sequence[Penetration]) -> None:
    rules = todo.rules
    for hole in openings:
        kind, word = ("floor", "Open the floor") if hole.storey else ("drill", "Drill and sleeve")
        minutes = rules[f"order.drill_minutes.{'floor' if hole.storey else 'masonry'}"]
        hazards: list[Hazard] = ["drilling", "rated", *(["ladder"] if hole.high else [])]  # type: ignore[list-item]
        todo.add(
            hole.key,
            "holes",
            f"{word} for {some(hole.links)}",
            ("floor", hole.floor, hole.floor),
            [(kind, 1, minutes)],
            ("safe",),
            hazards,
            [old_walls_said(rules, hole.built)],
            tools=("detector", "core drill", "eye protection"),
            materials=("fire-stop",) if hole.storey or hole.rated else ("sleeve and seal",),
        )


def pull(todo: TodoList, pulls: Sequence[Pull], openings: Sequence[Penetration]) -> None:
    for one in pulls:
        if not one.found:
            _pull(todo, one)
    for opening in openings:
        if opening.storey or opening.rated:
            through = [f"pull-{p.id}" for p in pulls if opening.key in p.holes]
            todo.add(
                f"stop-{opening.key}",
                "pull",
                f"Fire-stop the {'opening' if opening.storey else 'hole through a rated wall'} of "
                f"{some(opening.links)}",
                ("floor", opening.floor, opening.floor),
                [("fire-stop", 1, todo.rules["order.fire_stop_minutes"])],
                through,
                ["fire", *(["ladder"] if opening.high else [])],  # type: ignore[list-item]
                materials=("fire-stop",),
            )


def _pull(todo: TodoList, one: Pull) -> None:
    rules = todo.rules
    allowed = heat_minutes(rules, one.attic_c) if one.attic_c is not None else None
    hazards = list(_of_pull(one, allowed is not None))
    heat_c = one.attic_c or 0.0
    cables = f"{one.cables} × " if one.cables > 1 else ""
    checks = ["Fixed along the timber, off the insulation, clear of mains"]
    todo.add(
        f"pull-{one.id}",
        "pull",
        f"Pull {cables}{one.name}, {one.metres:.0f} m",
        one.place,
        [("pull", one.metres * one.cables, one.minutes)],
        ("safe", *(f"dig-{t}" for t in one.trenches), *one.holes),
        hazards,
        [heat_said(allowed, heat_c)] if allowed is not None else [],
        rest=rest_minutes(rules, heat_c, one.attic_minutes) if allowed is not None else 0.0,
        materials=("cable", "ties", *(("blank plate over the coil",) if one.coil else ())),
        tools=("rods", "draw cord"),
        checks=tuple(checks) if one.attic_c is not None else (),
    )


def _of_pull(one: Pull, hot: bool) -> Iterator[Hazard]:
    told: tuple[tuple[Hazard, bool], ...] = (
        ("ladder", one.high),
        ("roof", one.roof),
        ("attic", one.attic_c is not None),
        ("heat", hot),
        ("fibre", one.fibre),
        ("lightning", one.leaves),
        ("alone", one.attic_c is not None or one.roof),
    )
    yield from (hazard for hazard, holds in told if holds)


def far_ends(todo: TodoList, pulls: Sequence[Pull]) -> None:
    for one in pulls:
        if one.found or one.coil:
            continue
        in_rack = one.far_rack is not None
        hazards: list[Hazard] = []
        if one.far_high:
            hazards.append("ladder")
        if one.fibre:
            hazards.append("fibre")
        if one.leaves:
            hazards.append("lightning")
        todo.add(
            f"far-{one.id}",
            "ends",
            f"Far end of {one.name}: terminate and label",
            one.place,
            _ended(todo, one, in_rack),
            (f"pull-{one.id}", f"rack-{one.far_rack}"),
            hazards,
            materials=tuple(f"{t}/B" for t in one.labels),
            tools=("fibre cleaver and cleaner",) if one.fibre else ("stripper", "punch-down tool"),
        )


def _ended(todo: TodoList, one: Pull, in_rack: bool) -> list[tuple[str, float, float]]:
    """Return the work of an end: terminated and labelled, dressed where it lies in a rack."""
    rules = todo.rules
    work = [("end", float(one.cables), one.cables * rules["order.end_minutes"])]
    if one.fibre:
        splices = one.cables * rules["cabling.fibre_spliced"]
        work.append(("splice", splices, splices * rules["order.splice_minutes"]))
    if in_rack:
        work.append(("dress", float(one.cables), one.cables * rules["order.dress_minutes"]))
    return work


def near_ends(todo: TodoList, pulls: Sequence[Pull]) -> None:
    """Add the ends in the rack, the tests before any power, and surge protection."""
    rules = todo.rules
    for one in pulls:
        if one.coil:
            continue
        fibre: list[Hazard] = ["fibre"] if one.fibre else []
        rack: StepPlace = ("equipment_room", one.rack, None) if one.rack else one.place
        if not one.found:
            said = "Panel end" if one.near_panel else "Rack end" if one.rack else "End at the box"
            todo.add(
                f"near-{one.id}",
                "panel",
                f"{said} of {one.name}: terminate, label, dress",
                rack,
                _ended(todo, one, True),
                (f"rack-{one.rack}", f"far-{one.id}"),
                [*fibre, *(["powered"] if one.powered else [])],  # type: ignore[list-item]
                materials=tuple(f"{t}/A" for t in one.labels),
                tools=("punch-down tool",),
            )
        outdoors: list[Hazard] = ["lightning"] if one.leaves and not one.fibre else []
        todo.add(
            f"test-{one.id}",
            "test",
            f"Test {one.name} before any power",
            rack,
            [("test", one.cables, one.cables * rules["order.test_minutes"])],
            (f"near-{one.id}", f"far-{one.id}"),
            [*fibre, *outdoors],
            tools=("light source and power meter",) if one.fibre else ("cable tester",),
        )
        if one.leaves and not one.fibre:
            ends = 2 * one.cables
            todo.add(
                f"surge-{one.id}",
                "protect",
                f"Surge protection and bonding of {one.name}",
                one.place,
                [("surge", ends, ends * rules["install.surge_minutes"])],
                (f"test-{one.id}",),
                ("mains", "lightning"),
                licensed=True,
                materials=(f"surge protection, {ends}",),
                checks=("Each end bonded to its own building's earth",),
            )
