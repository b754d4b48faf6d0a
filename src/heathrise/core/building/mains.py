"""What mains ask of devices: a panel's space kept clear, nothing close to a light, a socket in reach.

What they ask of racks is told where racks are known as things.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator

import shapely

from ..base.memo import IdentityMemo
from ..base.wording import metres, some
from ..catalogue import Catalogue
from ..context.fibre_ends import far_ends
from ..context.findings import Cure, Finding, Place
from ..context.racks import rack_at
from ..context.run_decisions import said_over_air
from ..context.storeys import storeys_of
from ..design import Design, Device, Light, Panel, Socket, put
from ..mains import SPACE_FIGURES, clear_of, in_space_said, made_socket, near_socket

_SPARE_M = 0.05
_RINGS_M = (0.1, 0.2, 0.3, 0.5, 0.8, 1.2)
_TURNS = 16


def mains_findings(design: Design, catalogue: Catalogue) -> Iterator[Finding]:
    """Yield devices in a panel's space, too close to a light, or without a socket in reach."""
    if any(len(design.of(cls)) for cls in (Panel, Light)):
        for device in design.of(Device).values():
            yield from _in_space(design, catalogue, device)
            yield from _at_light(design, catalogue, device)
    yield from _sockets(design, catalogue)


def _in_space(design: Design, catalogue: Catalogue, device: Device) -> Iterator[Finding]:
    rules = catalogue.rules
    if device.height_m >= rules["plan.panel_space_m.high"]:
        return
    zones = clear_of(design, device.floor, rules)
    inside = next((panel for panel, area in zones if area.contains(shapely.Point(device.at))), None)
    if inside is None:
        return

    def close(p: shapely.Point) -> bool:
        return any(area.distance(p) < _SPARE_M for _, area in zones)

    yield _finding(
        catalogue,
        device,
        "panel",
        "not_met",
        in_space_said(device.name, inside, rules),
        "nothing stands in the space in front of an electrical panel",
        SPACE_FIGURES,
        places=(
            Place(kind="device", id=device.id, floor=device.floor, at=device.at),
            Place(kind="panel", id=inside.id, floor=device.floor, at=inside.at),
        ),
        cures=_moved(device, _clear_spot(design, catalogue, device, "panel", close)),
    )


def _at_light(design: Design, catalogue: Catalogue, device: Device) -> Iterator[Finding]:
    clear_m = catalogue.rules["plan.light_clear_m"]
    lights = [light for light in design.of(Light).values() if light.floor == device.floor]
    near = [light for light in lights if math.dist(light.at, device.at) < clear_m]
    if device.mount != "ceiling" or not near:
        return
    light = min(near, key=lambda one: math.dist(one.at, device.at))
    apart = math.dist(light.at, device.at)

    def close(p: shapely.Point) -> bool:
        return any(math.dist(one.at, (p.x, p.y)) < clear_m for one in lights)

    yield _finding(
        catalogue,
        device,
        "light",
        "near",
        f"{device.name} hangs {metres(apart, 2)} from {light.name}; {metres(clear_m)} keep it out of its "
        "heat and its driver's noise, and leave room to mount it.",
        "what hangs at a ceiling keeps off light fittings",
        ("plan.light_clear_m",),
        figure=round(apart, 2),
        limit=clear_m,
        unit="m",
        cures=_moved(device, _clear_spot(design, catalogue, device, "light", close)),
    )


# Most devices stay where they are while another one is moved.
_spots: IdentityMemo[tuple[float, float] | None] = IdentityMemo(1024, weigh=lambda _: 300)


def _clear_spot(
    design: Design, catalogue: Catalogue, device: Device, off: str, taken: Callable[[shapely.Point], bool]
) -> tuple[float, float] | None:
    """Return the nearest spot of a device's room that is not ``taken`` by what it keeps off, or None."""
    rests_on = device, design.of(Panel), design.of(Light), storeys_of(design), catalogue.rules
    return _spots.get(rests_on, off, lambda: _looked_for(design, device, taken))


def _looked_for(
    design: Design, device: Device, taken: Callable[[shapely.Point], bool]
) -> tuple[float, float] | None:
    room = storeys_of(design).room_at(device.floor, device.at)
    outline = shapely.Polygon(room.outline) if room is not None else None
    for ring in _RINGS_M:
        for k in range(_TURNS):
            angle = 2 * math.pi * k / _TURNS
            x, y = device.at[0] + ring * math.cos(angle), device.at[1] + ring * math.sin(angle)
            spot = shapely.Point(round(x, 2), round(y, 2))
            if (outline is None or outline.covers(spot)) and not taken(spot):
                return spot.x, spot.y
    return None


def _moved(device: Device, spot: tuple[float, float] | None) -> tuple[Cure, ...]:
    if spot is None:
        return ()
    far = math.dist(spot, device.at)
    changed = device.model_copy(update={"at": spot})
    return (Cure(label=f"Move {device.name} {metres(far, 1)} away", changes=(put(changed),)),)


def _sockets(design: Design, catalogue: Catalogue) -> Iterator[Finding]:
    """Yield gear with a supply of its own, and gear on the air, that no cord reaches a socket from."""
    cord_m = catalogue.rules["plan.cord_m"]
    loose = said_over_air(design)
    lit = {device.id for device, _ in far_ends(design, catalogue)}
    unknown: list[Device] = []
    for device in design.of(Device).values():
        model = catalogue.model_of(device)
        if device.state != "new" or not (model.own_w > 0 or device.id in loose or device.id in lit):
            continue
        if rack_at(design, device.floor, device.at) is not None:
            continue
        near = near_socket(design, device.floor, device.at, device.height_m)
        if near is None:
            unknown.append(device)
        elif near.reach_m > cord_m:
            named = f"The converter of {device.name}" if device.id in lit else device.name
            at_m = min(device.height_m, catalogue.rules["plan.mount_height_m.wall"])
            yield _finding(
                catalogue,
                device,
                "socket",
                "near",
                f"{named} is plugged into the mains, its nearest socket, {near.socket.name}, is "
                f"{metres(near.reach_m, 1)} away and its cord {metres(cord_m)} long.",
                "gear that wants a socket has one within its cord",
                ("plan.cord_m",),
                figure=near.reach_m,
                limit=cord_m,
                unit="m",
                cures=(
                    *(_off_its_cable(design, catalogue, device) if device.id not in lit else ()),
                    made_socket(design, device.floor, device.at, at_m, device.name),
                ),
            )
    if unknown and design.of(Socket):
        names = some([f"the converter of {d.name}" if d.id in lit else d.name for d in unknown])
        yield _finding(
            catalogue,
            unknown[0],
            "sockets",
            "note",
            f"No socket is drawn in the room of {names}, plugged into the mains: draw those that are "
            "there, or have one made.",
            "gear that wants a socket has one within its cord",
            ("plan.cord_m",),
            cures=tuple(
                made_socket(design, d.floor, d.at, min(d.height_m, 2.2), d.name) for d in unknown[:1]
            ),
        )


def _off_its_cable(design: Design, catalogue: Catalogue, device: Device) -> Iterator[Cure]:
    """Offer the cheapest splitter that gives a wired device its volts and watts off its cable."""
    if device.id in said_over_air(design):
        return  # it has no cable
    best = catalogue.splitter_for(catalogue.sheet_of(device))
    if best is not None:
        changed = device.model_copy(update={"splitter": best.id})
        effect = f"{best.price:+g} {design.site.currency}; its port gives class {best.poe_class}"
        yield Cure(label=f"Feed it off its cable: {best.label}", effect=effect, changes=(put(changed),))


def _finding(
    catalogue: Catalogue,
    device: Device,
    key: str,
    severity: str,
    text: str,
    rule: str,
    figures: tuple[str, ...],
    **more: object,
) -> Finding:
    place = Place(kind="device", id=device.id, floor=device.floor, at=device.at)
    common = {"stage": "plan", "places": (place,), "source": catalogue.rules.source(figures[0])}
    used = catalogue.rules.used(*figures)
    return Finding.model_validate(
        {
            "id": f"plan-{key}-{device.id}",
            "severity": severity,
            "text": text,
            "rule": rule,
            "used": used,
            **common,
            **more,
        }
    )
