"""What must hold of a whole design before it is accepted."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator, Sequence
from typing import get_args, get_origin

from ..base.shapes import shape_of
from ..catalogue import Catalogue, wrong_in
from ..design import (
    KINDS,
    Building,
    Change,
    ClientGroup,
    Design,
    DesignError,
    Device,
    Element,
    EquipmentRoom,
    Floor,
    Grove,
    Membership,
    Opening,
    OwnFigure,
    Portal,
    Practice,
    Problem,
    Radio,
    Reference,
    Riser,
    Run,
    Site,
    Space,
    Switch,
    Underlay,
    Uplink,
    Wall,
    Zone,
)
from .band_plan import band_plan_of
from .effective_rules import in_force
from .fibre_ends import kind_takes_fibre

MAX_ELEMENTS: dict[str, int] = {
    "wall": 6_000,
    "opening": 6_000,
    "space": 1_000,
    "device": 500,
    "equipment_room": 24,
    "variant": 8,
    "practice": 1,
    "neighbour": 1_000,
}
DEFAULT_MAX_ELEMENTS = 500
MIN_WALL_M = 0.05
OFFSET_TOLERANCE_M = 0.01
SHOWN_PROBLEMS = 20


def references(cls: type[Element]) -> dict[str, tuple[str, bool]]:
    """Return ``{field: (kind referred to, holds many)}`` for one class of element."""
    found: dict[str, tuple[str, bool]] = {}
    for name, info in cls.model_fields.items():
        for mark in info.metadata:
            if isinstance(mark, Reference):
                found[name] = (mark.kind, False)
        for inner in get_args(info.annotation):  # of a tuple, or of a field that may be None
            for mark in getattr(inner, "__metadata__", ()):
                if isinstance(mark, Reference):
                    found[name] = (mark.kind, get_origin(info.annotation) is tuple)
    return found


REFERENCES: dict[str, dict[str, tuple[str, bool]]] = {k: references(c) for k, c in KINDS.items()}


def check(design: Design, catalogue: Catalogue) -> None:
    """Raise ``DesignError`` with every problem found, or return in silence."""
    problems: list[Problem] = []
    for problem in _problems(design, catalogue):
        problems.append(problem)
        if len(problems) >= SHOWN_PROBLEMS:
            break
    if problems:
        raise DesignError(problems)


def check_edit(before: Design, after: Design, changes: Sequence[Change], catalogue: Catalogue) -> None:
    """Refuse what an edit may not bring in, though a design that holds it can still be opened.

    Raises:
        DesignError: a radio is set to a channel that its band does not have, or gear that nobody
            sells any more is planned as new.
    """
    plan = band_plan_of(after.site, in_force(after, catalogue))
    for change in changes:
        if change.kind in ("device", "switch"):
            _sold(before, after, change, catalogue)
        radio = after.get(change.kind, change.id)
        if not isinstance(radio, Radio) or radio.channel is None:
            continue
        illegal = radio.channel not in plan.legal[radio.band]
        if illegal and before.get("radio", radio.id) != radio:
            what = plan.refusal(radio.band, radio.channel)
            raise DesignError([Problem(f"radio[{radio.id}].channel", what)])


def _sold(before: Design, after: Design, change: Change, catalogue: Catalogue) -> None:
    gear = after.get(change.kind, change.id)
    if not isinstance(gear, Device | Switch) or gear.state != "new":
        return
    shelf = catalogue.switches if isinstance(gear, Switch) else catalogue.devices[gear.kind]
    model = shelf[gear.model]
    earlier = before.get(change.kind, change.id)
    same = isinstance(earlier, Device | Switch) and (earlier.model, earlier.state) == (gear.model, gear.state)
    if model.old is not None and not same:
        what = (
            f"{model.label} is no longer sold: choose another, or say that it was found and whether it stays"
        )
        raise DesignError([Problem(f"{change.kind}[{change.id}].model", what)])


def _problems(design: Design, catalogue: Catalogue) -> Iterator[Problem]:
    yield from _counts(design)
    yield from _dangling(design)
    yield from _models(design, catalogue)
    yield from _walls(design)
    yield from _spaces(design)
    yield from _storeys(design)
    yield from _uplinks(design)
    yield from _fibres(design, catalogue)
    yield from _members(design)
    yield from _portals(design)
    yield from _figures(design, catalogue)
    yield from _practices(design, catalogue)
    yield from _brief(design)


def _counts(design: Design) -> Iterator[Problem]:
    for kind, rows in design.tables.items():
        limit = MAX_ELEMENTS.get(kind, DEFAULT_MAX_ELEMENTS)
        if len(rows) > limit:
            yield Problem(kind, f"{len(rows)} elements; at most {limit} can be held")
    if len(design.of(Site)) != 1:
        yield Problem("site", f"a design has exactly one site, this one has {len(design.of(Site))}")


def _dangling(design: Design) -> Iterator[Problem]:
    for kind, element in design.elements():
        for field, (target, many) in REFERENCES[kind].items():
            value = getattr(element, field)
            for wanted in value if many else (value,) if value is not None else ():
                if design.get(target, wanted) is None:
                    where = f"{kind}[{element.id}].{field}"
                    yield Problem(where, f"refers to {target} {wanted!r}, which does not exist")


# Where a design names gear that a firm can have of its own: kinds of element and the fields.
GEAR_FIELDS = (
    ("device", "model"),
    ("device", "splitter"),
    ("switch", "model"),
    ("injector", "model"),
    ("extender", "model"),
    ("equipment_room", "frame"),
    ("equipment_room", "battery"),
)


def _models(design: Design, catalogue: Catalogue) -> Iterator[Problem]:
    for wall in design.of(Wall).values():
        if wall.construction not in catalogue.constructions:
            yield _unknown("wall", wall.id, "construction", wall.construction)
    for opening in design.of(Opening).values():
        if opening.construction not in catalogue.constructions:
            yield _unknown("opening", opening.id, "construction", opening.construction)
    for floor in design.of(Floor).values():
        if floor.slab not in catalogue.constructions:
            yield _unknown("floor", floor.id, "slab", floor.slab)
    for building in design.of(Building).values():
        if building.roof not in catalogue.constructions:
            yield _unknown("building", building.id, "roof", building.roof)
    for device in design.of(Device).values():
        if device.kind not in catalogue.roles:
            kinds = ", ".join(catalogue.roles)
            what = f"{device.kind[:40]!r} is not a kind of device; there are {kinds}"
            yield Problem(f"device[{device.id}].kind", what)
        elif device.model not in catalogue.devices[device.kind]:
            yield _unknown("device", device.id, "model", device.model)
        if device.splitter is not None and device.splitter not in catalogue.splitters:
            yield _unknown("device", device.id, "splitter", device.splitter)
    for kind, models in (
        ("switch", catalogue.switches),
        ("injector", catalogue.injectors),
        ("extender", catalogue.extenders),
    ):
        for element in design.tables.get(kind, {}).values():
            model = getattr(element, "model")  # noqa: B009 - two classes share the field
            if model not in models:
                yield _unknown(kind, element.id, "model", model)
    for room in design.of(EquipmentRoom).values():
        if room.frame is not None and room.frame not in catalogue.frames:
            yield _unknown("equipment_room", room.id, "frame", room.frame)
        if room.battery is not None and room.battery not in catalogue.batteries:
            yield _unknown("equipment_room", room.id, "battery", room.battery)
    for group in design.of(ClientGroup).values():
        if group.kind not in catalogue.clients:
            yield _unknown("client_group", group.id, "kind", group.kind)
    client = catalogue.clients.get(design.site.client)
    if client is None:
        yield _unknown("site", "site", "client", design.site.client)
    elif not client.judges:
        what = f"{client.label} cannot all bands; choose a client that does"
        yield Problem("site[site].client", what)


def _unknown(kind: str, element_id: str, field: str, value: str) -> Problem:
    return Problem(f"{kind}[{element_id}].{field}", f"{value!r} is not in the catalogue")


def _walls(design: Design) -> Iterator[Problem]:
    walls = design.of(Wall)
    for wall in walls.values():
        if wall.length_m < MIN_WALL_M:
            yield Problem(f"wall[{wall.id}]", f"is shorter than {MIN_WALL_M} m; remove it")
    for opening in design.of(Opening).values():
        host = walls.get(opening.wall)
        end_m = opening.offset_m + opening.width_m
        if host is not None and end_m > host.length_m + OFFSET_TOLERANCE_M:
            yield Problem(
                f"opening[{opening.id}]",
                f"ends {end_m:.2f} m along wall {host.id!r}, which is {host.length_m:.2f} m long",
            )


def _spaces(design: Design) -> Iterator[Problem]:
    drawn: list[tuple[str, Space | Zone | Grove]] = [("space", s) for s in design.of(Space).values()]
    drawn += [("zone", z) for z in design.of(Zone).values()]
    drawn += [("grove", g) for g in design.of(Grove).values()]
    for kind, area in drawn:
        polygon = shape_of(area.outline)
        if not polygon.is_valid or polygon.area < 0.1:
            yield Problem(
                f"{kind}[{area.id}].outline", "crosses itself or encloses less than 0.1 m2; draw it again"
            )


def _uplinks(design: Design) -> Iterator[Problem]:
    up: dict[str, str] = {}
    for uplink in design.of(Uplink).values():
        where = f"uplink[{uplink.id}]"
        if uplink.room in up:
            yield Problem(where, f"room {uplink.room!r} has two ways up; keep one of them")
            continue
        up[uplink.room] = uplink.to
        passed, room = {uplink.room}, uplink.to
        while room in up and room not in passed:
            passed.add(room)
            room = up[room]
        if room in passed:
            yield Problem(where, "rooms lead up to each other in a ring; let one lead elsewhere")


def _members(design: Design) -> Iterator[Problem]:
    seen: dict[tuple[str, int, bool], str] = {}
    for one in design.of(Membership).values():
        where = f"membership[{one.id}]"
        if (one.device is None) == (one.switch is None):
            yield Problem(where, "names either a device or a switch")
            continue
        key = (one.device or f"switch/{one.switch}", one.port, one.given)
        if key in seen:
            yield Problem(where, f"says the same end as {seen[key]}; keep one")
        seen.setdefault(key, one.id)


def _portals(design: Design) -> Iterator[Problem]:
    seen: dict[str, str] = {}
    for one in design.of(Portal).values():
        if one.network in seen:
            what = f"a network has one page, and {seen[one.network]} is before the same; keep one"
            yield Problem(f"portal[{one.id}].network", what)
        seen.setdefault(one.network, one.id)


def _fibres(design: Design, catalogue: Catalogue) -> Iterator[Problem]:
    """Yield runs of fibre to what has several cables, or is where the line comes in."""
    devices = design.of(Device)
    for run in design.of(Run).values():
        device = devices.get(run.device)
        if run.medium != "fibre" or device is None or device.kind not in catalogue.roles:
            continue
        if not kind_takes_fibre(catalogue.role_of(device)):
            what = f"no fibre goes to {device.name}: it goes to what has one link, to the port of a switch"
            yield Problem(f"run[{run.id}].medium", what)


def _figures(design: Design, catalogue: Catalogue) -> Iterator[Problem]:
    seen: set[str] = set()
    for own in design.of(OwnFigure).values():
        where = f"own_figure[{own.id}]"
        figure = catalogue.rules.figures.get(own.figure)
        if figure is None:
            yield Problem(f"{where}.figure", f"there is no figure {own.figure[:60]!r}")
        elif (wrong := figure.wrong(own.value)) is not None:
            yield Problem(f"{where}.value", f"{figure.label} {wrong}")
        if own.figure in seen:
            yield Problem(where, f"{own.figure} stands twice; keep one of them")
        seen.add(own.figure)


def _practices(design: Design, catalogue: Catalogue) -> Iterator[Problem]:
    for practice in design.of(Practice).values():
        yield from wrong_in(practice, catalogue.matters, f"practice[{practice.id}]")


def _brief(design: Design) -> Iterator[Problem]:
    for group in design.of(ClientGroup).values():
        if group.wired > group.count:
            what = f"{group.wired} of {group.count} wish a wire; at most all of them can"
            yield Problem(f"client_group[{group.id}].wired", what)
    under: set[str] = set()
    for picture in design.of(Underlay).values():
        where = f"underlay[{picture.id}]"
        if picture.floor in under:
            yield Problem(where, "its storey has a plan already; replace that one")
        under.add(picture.floor)
        left, top, right, bottom = picture.crop
        if left + right >= 1 or top + bottom >= 1:
            yield Problem(f"{where}.crop", "leaves nothing of the picture")


def _storeys(design: Design) -> Iterator[Problem]:
    levels = Counter((floor.building, floor.level) for floor in design.of(Floor).values())
    for (building, level), count in levels.items():
        if count > 1:
            yield Problem("floor", f"building {building!r} has {count} floors on level {level}")
    for riser in design.of(Riser).values():
        if riser.lowest_level > riser.highest_level:
            yield Problem(f"riser[{riser.id}]", "its lowest level is above its highest")
