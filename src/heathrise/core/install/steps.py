"""The work list: what is done, where, how long, after what, and what can hurt there."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal, get_args

from pydantic import BaseModel, ConfigDict, Field

from ..catalogue import Catalogue, Rules
from ..design import Design, Device, EquipmentRoom, Floor, Space, Switch
from ..over_air import feeds, said_over_air
from .hazards import ALWAYS_TWO, SAID, Hazard, heat_minutes, heat_said

Phase = Literal[
    "safe", "rack", "holes", "pull", "ends", "mount", "panel", "test", "protect", "power", "adopt",
    "settings", "finish",
]  # fmt: skip
PHASES: tuple[Phase, ...] = get_args(Phase)


@dataclass(frozen=True)
class Pull:
    """A link as the work list sees it; minutes for one person.

    ``hottest_c`` is the temperature of the hottest space it lies in, ``poe_class`` what feeds its
    far end, None where nothing does; ``holes`` are the keys of the holes it goes through.
    """

    id: str
    name: str
    device: str | None
    floor: str
    rack: str
    medium: str
    cables: int
    metres: float
    minutes: float
    attic: bool
    duct: bool
    hottest_c: float
    poe_class: int | None
    leaves: bool
    found: bool
    coil: bool
    holes: tuple[str, ...]
    labels: tuple[str, ...]


@dataclass(frozen=True)
class Opening:
    """A hole through masonry, or an opening from storey to storey that is fire-stopped."""

    key: str
    floor: str
    minutes: float
    stop_minutes: float
    links: tuple[str, ...]


class Step(BaseModel):
    """One step; minutes for whoever does it. ``licensed`` is kept for licensed people."""

    model_config = ConfigDict(frozen=True)

    id: str
    phase: Phase
    title: str
    kind: str = Field(description="kind of element that it is about")
    element: str
    floor: str | None
    minutes: float
    people: int = 1
    licensed: bool = False
    waits: tuple[str, ...] = ()
    materials: tuple[str, ...] = ()
    tools: tuple[str, ...] = ()
    cautions: tuple[str, ...] = ()


class _List:
    """Gathers steps; what a step waits for and is not done on this job is left out."""

    def __init__(self) -> None:
        self.steps: dict[str, Step] = {}

    def add(self, key: str, phase: Phase, title: str, place: tuple[str, str, str | None],
            minutes: float, waits: Sequence[str] = (), hazards: Sequence[Hazard] = (),
            said: Sequence[str] = (), **more: object) -> None:  # fmt: skip
        two = bool(ALWAYS_TWO & set(hazards)) or bool(said)
        cautions = (*(SAID[h] for h in hazards if h != "heat"), *said)
        self.steps[key] = Step.model_validate(
            {
                "id": key, "phase": phase, "title": title, "kind": place[0], "element": place[1],
                "floor": place[2], "minutes": round(minutes, 1), "people": 2 if two else 1,
                "waits": tuple(w for w in dict.fromkeys(waits) if w in self.steps),
                "cautions": cautions, **more,
            }
        )  # fmt: skip

    def of(self, phase: Phase) -> list[str]:
        return [k for k, s in self.steps.items() if s.phase == phase]


def work_list(
    design: Design,
    catalogue: Catalogue,
    pulls: Sequence[Pull],
    openings: Sequence[Opening],
) -> list[Step]:
    """Return the steps of a job in an order in which they can be walked.

    Far ends come before the ends that carry power, tests before power, the controller's update
    before anything is adopted, a reset before a kept device is used again.
    """
    rules = catalogue.rules
    todo = _List()
    first_rack = next(iter(design.of(EquipmentRoom).values()), None)
    todo.add(
        "safe", "safe", "Locate pipes and mains, lay dust sheets, read the heat of attics",
        ("site", "site", first_rack.floor if first_rack else None), rules["order.prepare_minutes"],
        hazards=("drilling", "mains"), tools=("detector", "thermometer", "dust sheets"),
    )  # fmt: skip
    _racks(todo, design, rules)
    _holes(todo, openings)
    _runs(todo, rules, pulls, openings)
    _mounts(todo, design, catalogue, pulls)
    _panels(todo, rules, pulls)
    _powering(todo, design, catalogue, pulls)
    _closing(todo, design, rules)
    order = {phase: k for k, phase in enumerate(PHASES)}
    storey = {floor: k for k, floor in enumerate(design.of(Floor))}
    return sorted(
        todo.steps.values(), key=lambda s: (order[s.phase], storey.get(s.floor or "", -1))
    )


def _racks(todo: _List, design: Design, rules: Rules) -> None:
    used = {s.equipment_room for s in design.of(Switch).values() if s.state == "new"}
    heavy: tuple[Hazard, ...] = (
        ("lifting",) if rules["install.rack_kg"] > rules["install.lift_kg"] else ()
    )
    for room in design.of(EquipmentRoom).values():
        if room.id in used:
            todo.add(
                f"rack-{room.id}", "rack", f"Set up {room.name}: backing, frame, panels, strip",
                ("equipment_room", room.id, room.floor), rules["order.rack_minutes"], ("safe",),
                ("drilling", *heavy), tools=("level", "drill", "screwdriver"),
                materials=("rack frame", "patch panels", "power strip", "cage nuts"),
            )  # fmt: skip


def _holes(todo: _List, openings: Sequence[Opening]) -> None:
    for hole in openings:
        storey = hole.stop_minutes > 0
        todo.add(
            hole.key, "holes",
            f"{'Open the floor' if storey else 'Drill and sleeve'} for {_few(hole.links)}",
            ("floor", hole.floor, hole.floor), hole.minutes, ("safe",),
            ("drilling",), tools=("detector", "core drill", "eye protection"),
            materials=("sleeve and seal",),
        )  # fmt: skip


def _few(names: Sequence[str]) -> str:
    shown = list(dict.fromkeys(names))
    return ", ".join(shown[:3]) + (f" and {len(shown) - 3} more" if len(shown) > 3 else "")


def _place(pull: Pull) -> tuple[str, str, str | None]:
    if pull.device is not None:
        return "device", pull.device, pull.floor
    return ("zone" if pull.coil else "equipment_room"), pull.id, pull.floor


def _runs(todo: _List, rules: Rules, pulls: Sequence[Pull], openings: Sequence[Opening]) -> None:
    for pull in pulls:
        if pull.found:
            continue
        allowed = heat_minutes(rules, pull.hottest_c) if pull.attic else None
        told: tuple[tuple[Hazard, bool], ...] = (
            ("attic", pull.attic), ("fibre", pull.medium == "fibre"), ("trench", pull.duct),
            ("lightning", pull.leaves),
        )  # fmt: skip
        hazards = [hazard for hazard, holds in told if holds]
        said = [heat_said(allowed, pull.hottest_c)] if allowed is not None else []
        cables = f"{pull.cables} × " if pull.cables > 1 else ""
        todo.add(
            f"pull-{pull.id}", "pull", f"Pull {cables}{pull.name}, {pull.metres:.0f} m",
            _place(pull), pull.minutes, ("safe", *pull.holes), hazards, said,
            materials=("cable", "ties"), tools=("rods", "draw cord"),
        )  # fmt: skip
    for opening in openings:
        if opening.stop_minutes:
            through = [f"pull-{p.id}" for p in pulls if opening.key in p.holes]
            todo.add(
                f"stop-{opening.key}", "pull", f"Fire-stop the opening of {_few(opening.links)}",
                ("floor", opening.floor, opening.floor), opening.stop_minutes, through, ("fire",),
                materials=("fire-stop",),
            )  # fmt: skip
    for pull in pulls:
        if not pull.found and not pull.coil:
            todo.add(
                f"far-{pull.id}", "ends", f"Far end of {pull.name}: terminate and label",
                _place(pull), pull.cables * rules["order.end_minutes"], (f"pull-{pull.id}",),
                ("fibre",) if pull.medium == "fibre" else (),
                materials=tuple(f"{t}/B" for t in pull.labels),
                tools=("stripper", "punch-down tool"),
            )  # fmt: skip


def _mounts(todo: _List, design: Design, catalogue: Catalogue, pulls: Sequence[Pull]) -> None:
    rules = catalogue.rules
    rates = rules.table("order.mount_minutes")
    by_device = {p.device: p for p in pulls if p.device is not None}
    fed = {device.id: (feed.label,) for device, feed in feeds(design, catalogue)}
    for device in design.of(Device).values():
        if device.state != "new":
            continue
        model, pull = catalogue.model_of(device), by_device.get(device.id)
        outside = model.outdoor and f"{device.kind}_outside" in rates
        minutes = rates.get(f"{device.kind}_outside" if outside else device.kind, rates["other"])
        high = device.height_m > rules["install.ladder_m"]
        hazards: list[Hazard] = ["ladder"] if high else []
        if model.outdoor and device.height_m > rules["install.roof_m"]:
            hazards.append("roof")
        if device.id in fed:
            hazards.append("mains")  # a socket that is missing is no work of the installer's
        waits = (f"far-{pull.id}",) if pull is not None else ("safe",)
        todo.add(
            f"mount-{device.id}", "mount", f"Mount {device.name}: {model.label}",
            ("device", device.id, device.floor), minutes, waits, hazards,
            materials=(model.label, "bracket or box", *fed.get(device.id, ())),
            tools=("level", "drill", "screwdriver"),
        )  # fmt: skip


def _panels(todo: _List, rules: Rules, pulls: Sequence[Pull]) -> None:
    for pull in pulls:
        powered = pull.poe_class is not None and pull.poe_class > rules["install.powered_class"]
        if not pull.found and not pull.coil:
            todo.add(
                f"near-{pull.id}", "panel", f"Panel end of {pull.name}: terminate, label, dress",
                ("equipment_room", pull.rack, None),
                pull.cables * (rules["order.end_minutes"] + rules["order.dress_minutes"]),
                (f"rack-{pull.rack}", f"far-{pull.id}"), ("powered",) if powered else (),
                materials=tuple(f"{t}/A" for t in pull.labels), tools=("punch-down tool",),
            )  # fmt: skip
        if not pull.coil:
            todo.add(
                f"test-{pull.id}", "test", f"Test {pull.name} before any power",
                ("equipment_room", pull.rack, None), pull.cables * rules["order.test_minutes"],
                (f"near-{pull.id}", f"far-{pull.id}"), tools=("cable tester",),
            )  # fmt: skip
        if pull.leaves and pull.medium == "copper":
            todo.add(
                f"surge-{pull.id}", "protect", f"Surge protection and bonding of {pull.name}",
                _place(pull), rules["install.surge_minutes"], (f"test-{pull.id}",),
                ("mains", "lightning"), licensed=True, materials=("surge protection, two",),
            )  # fmt: skip


def _powering(todo: _List, design: Design, catalogue: Catalogue, pulls: Sequence[Pull]) -> None:
    rules = catalogue.rules
    rooms = design.of(EquipmentRoom)
    for switch in design.of(Switch).values():
        if switch.state == "new":
            ups = [f"test-{p.id}" for p in pulls if p.device is None and not p.coil]
            todo.add(
                f"switch-{switch.id}", "power", f"Put {switch.name} on, see its way up alive",
                ("switch", switch.id, rooms[switch.equipment_room].floor),
                rules["install.switch_minutes"], (f"rack-{switch.equipment_room}", *ups),
            )  # fmt: skip
    todo.add(
        "controller", "power", "Bring the controller up to date before anything is adopted",
        ("site", "site", None), rules["install.controller_minutes"], todo.of("power"),
    )  # fmt: skip
    by_device = {p.device: p for p in pulls if p.device is not None}
    loose = said_over_air(design)
    # What hangs on the air is adopted over what has a cable.
    for device in sorted(design.of(Device).values(), key=lambda d: d.id in loose):
        role, pull = catalogue.role_of(device), by_device.get(device.id)
        if role.links == "every_cable":
            continue
        ready = ["controller", f"mount-{device.id}"]
        if pull is not None:
            ready += [f"test-{pull.id}", f"surge-{pull.id}"]
        if device.state == "keep":
            todo.add(
                f"reset-{device.id}", "adopt", f"Reset {device.name}, it was used before",
                ("device", device.id, device.floor), rules["install.reset_minutes"],
            )  # fmt: skip
            ready.append(f"reset-{device.id}")
        said = f"Patch {device.name} last, adopt, name, see it alive"
        if device.id in loose:
            said = f"Plug {device.name} in at its socket, adopt over the air, name, read its link"
            ready += [k for k in todo.of("adopt") if k.removeprefix("adopt-") not in loose]
        todo.add(
            f"adopt-{device.id}", "adopt", said,
            ("device", device.id, device.floor), rules["order.adopt_minutes"], ready,
        )  # fmt: skip


def _closing(todo: _List, design: Design, rules: Rules) -> None:
    rooms = [s for s in design.of(Space).values() if s.use != "none"]
    adopted = todo.of("adopt")
    site = ("site", "site", None)
    if adopted:
        todo.add(
            "settings", "settings", "Set networks, names, ports, radios in their order",
            site, rules["install.networks_minutes"], ("controller", *adopted),
        )  # fmt: skip
        todo.add(
            "walk", "finish", f"Walk test and speeds of {len(rooms)} rooms", site,
            rules["order.walk_minutes"] * len(rooms), ("settings",), tools=("meter",),
        )  # fmt: skip
    todo.add(
        "papers", "finish", "Photographs, clearing up, hand-over", site,
        rules["order.papers_minutes"], ("walk", *todo.of("test")),
    )  # fmt: skip
