"""What was found: whether gear and cables are kept, with the reason."""

from __future__ import annotations

import math
from typing import ClassVar, Literal

from pydantic import Field

from ..base.bands import Band
from ..base.frozen import Frozen
from ..base.wording import metres
from ..base.wording import speed as speed_said
from ..catalogue import Catalogue, OldGear, Rules, Used
from ..context.scope import kept_between, kept_cables
from ..design import ClientGroup, Design, Device, EquipmentRoom, OldCable, State, Switch
from .stand import SiteStatus

Advice = Literal["keep", "retire", "test_first"]


class Opinion(Frozen):
    """One piece of gear, or a cable, that was found: what was decided and what is advised."""

    KEY: ClassVar = ("kind", "id")

    kind: Literal["device", "switch", "old_cable"]
    id: str
    name: str
    what: str
    floor: str
    state: State
    advice: Advice
    reason: str
    serves: str | None = Field(None, description="device that a kept cable is the run of")
    joins: tuple[str, ...] = Field((), description="racks that a kept cable lies between")
    used: tuple[Used, ...] = ()


def judge_found(drawn: Design, catalogue: Catalogue, today: SiteStatus | None) -> list[Opinion]:
    """Return an opinion of everything that was found.

    Args:
        drawn: the design as it is drawn, with all that goes.
        today: how what was found stands today.
    """
    asked = _asked_mbps(drawn, catalogue)
    replace = catalogue.rules.text("brief.old_gear") == "replace"
    found: list[Opinion] = []
    for device in drawn.of(Device).values():
        model = catalogue.model_of(device)
        if device.state != "new":
            served = today.served.get(device.id, 0) if today is not None else 0
            bands = set(model.air.radios) if model.air is not None else None
            advice, reason = _gear(model.old, model.speed_mbps, asked, served, bands, replace)
            found.append(
                Opinion(
                    kind="device",
                    id=device.id,
                    name=device.name,
                    what=model.label,
                    floor=device.floor,
                    state=device.state,
                    advice=advice,
                    reason=reason,
                )
            )
    rooms = drawn.of(EquipmentRoom)
    for switch in drawn.of(Switch).values():
        if switch.state != "new":
            gear = catalogue.switches[switch.model]
            speed = max(g.speed_mbps for g in gear.groups)
            advice, reason = _gear(gear.old, speed, asked, 0, None, replace)
            found.append(
                Opinion(
                    kind="switch",
                    id=switch.id,
                    name=switch.name,
                    what=gear.label,
                    floor=rooms[switch.equipment_room].floor,
                    state=switch.state,
                    advice=advice,
                    reason=reason,
                )
            )
    return [*found, *_cables(drawn, catalogue.rules)]


def _asked_mbps(design: Design, catalogue: Catalogue) -> tuple[float, str]:
    """Return what the narrowest link is asked for: the line's speed, or that of storage."""
    groups = design.of(ClientGroup).values()
    inside = max(
        (c.down_mbps for g in groups if (c := catalogue.clients[g.kind]) and not c.power_dbm), default=0.0
    )
    line = design.site.line_mbps
    if inside > line:
        return inside, f"{inside:g} Mb/s to storage in the house"
    return line, f"a line of {line:g} Mb/s"


def _gear(
    old: OldGear | None,
    speed_mbps: float,
    asked: tuple[float, str],
    served: int,
    bands: set[Band] | None,
    replace: bool,
) -> tuple[Advice, str]:
    """Return the advice on a piece of gear: of the reasons to retire it the gravest."""
    need, words = asked
    known = old or OldGear(security="none", updates=True)
    rooms = f"{served} room{'s' if served != 1 else ''}"
    repeats = f"halves the air for {rooms}" if served else "serves no room"
    reasons = (
        (known.security == "broken", "its security is broken"),
        (known.repeats, f"repeater: {repeats}"),
        (speed_mbps < need, f"narrowest link: {speed_mbps:g} Mb/s on {words}"),
        (not known.updates, "gets no updates any more"),
        (bands is not None and "5" not in bands, "2.4 GHz only: for sensors, not for calls"),
        (replace, "fit for its purpose; by the firm's practice replaced while one is there"),
    )
    for holds, reason in reasons:
        if holds:
            return "retire", reason
    if known.passive_v:
        return "keep", "only on its own passive injector, marked so that nothing else is plugged in"
    return "keep", f"{speed_mbps:g} Mb/s on {words}"


def _cables(design: Design, rules: Rules) -> list[Opinion]:
    found = []
    serves = {row.id: device for device, rows in kept_cables(design, rules).items() for row in rows}
    joins = {row.id: rooms for rooms, rows in kept_between(design, rules).items() for row in rows}
    for cable in design.of(OldCable).values():
        length_m = math.dist(cable.a, cable.b)
        advice, reason, figures = _cable(cable, rules, length_m)
        found.append(
            Opinion(
                kind="old_cable",
                id=cable.id,
                name=cable.name,
                floor=cable.floor,
                what=f"category {cable.category}" if cable.category else "category unknown",
                state=cable.state,
                advice=advice,
                reason=reason,
                serves=serves.get(cable.id),
                joins=tuple(sorted(design.of(EquipmentRoom)[r].name for r in joins.get(cable.id, ()))),
                used=rules.used(*figures),
            )
        )
    return found


def _cable(cable: OldCable, rules: Rules, length_m: float) -> tuple[Advice, str, tuple[str, ...]]:
    asked, asks = int(rules["cabling.found_mbps"]), "cabling.found_mbps"
    if cable.condition == "damaged":
        return "retire", "damaged", ()
    if cable.tested_mbps is not None:
        tests = f"tests at {speed_said(cable.tested_mbps)}"
        if cable.tested_mbps >= asked:
            return "keep", tests, (asks,)
        return "retire", f"{tests}, asked for {speed_said(asked)}", (asks,)
    if cable.category is None:
        return "test_first", "test first: its print does not say what it is", ()
    path = next(
        f"cabling.channel_m.{cable.category}.{mbps}"
        for mbps in rules.table(f"cabling.channel_m.{cable.category}")
        if int(mbps) >= asked
    )
    reach_m, speed = rules[path], f"{asked / 1000:g} Gb/s"
    category = f"category {cable.category}"
    advice: Advice = "keep"
    reason = f"{category} carries {speed} over {metres(length_m, 0)}"
    if not reach_m:
        advice, reason = "retire", f"{category} does not carry {speed}"
    elif length_m > abs(reach_m):
        advice, reason = "retire", f"{metres(length_m, 0)}, {speed} reaches {metres(abs(reach_m))}"
    elif cable.condition == "untested":
        advice, reason = "test_first", f"test first, not by its print: {metres(length_m, 0)}"
    elif reach_m < 0:
        advice, reason = "test_first", f"{category} carries {speed} after a test only"
    return advice, reason, (path, asks)
