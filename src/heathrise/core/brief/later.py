"""What comes later: ports, watts and spare cable that the plan keeps for it."""

from __future__ import annotations

import math
from typing import ClassVar, Literal

from pydantic import Field
from shapely.geometry import Polygon

from ..base.frozen import Frozen
from ..catalogue import Rules, Used
from ..design import Design, EquipmentRoom, Floor, Zone
from .stand import Free, SiteStatus


class Reserve(Frozen):
    """What one zone will want, and whether the plan has it to spare. Watts as reserved by class."""

    KEY: ClassVar = ("zone",)

    zone: str
    name: str
    floor: str
    ports: int = Field(description="ports wanted")
    powered: int = Field(description="of those, ports that power")
    watts: float = Field(description="watts to be reserved")
    cables: int = Field(description="spare cables to a coil or a blank plate")
    cable_m: float = Field(description="their length in all, m")
    verdict: Literal["met", "not_met"]
    lacks: str = Field(description="what the plan does not have to spare")
    used: tuple[Used, ...] = ()


def judge_later(stand: SiteStatus) -> list[Reserve]:
    """Return what each later zone wants; what one takes the next does not find again."""
    free = stand.free
    found: list[Reserve] = []
    for zone in stand.design.of(Zone).values():
        if zone.kind == "later":
            row = _reserve(stand, zone, free)
            free = Free(free.ports - row.ports, free.powered - row.powered, free.watts - row.watts)
            found.append(row)
    return found


def wanted_watts(rules: Rules, zone: Zone) -> float:
    """Return the watts that a zone's devices reserve by their class."""
    counts = {"access_point": zone.access_points, "camera": zone.cameras}
    classes = rules.table("brief.later_class")
    return sum(rules.poe_classes[int(classes[kind])].reserved_w * n for kind, n in counts.items())


def _reserve(stand: SiteStatus, zone: Zone, free: Free) -> Reserve:
    rules = stand.catalogue.rules
    powered = zone.access_points + zone.cameras
    ports = powered + zone.outlets
    watts = round(wanted_watts(rules, zone), 1)
    lacks = [
        f"{want - max(have, 0):g} {what}"
        for want, have, what in (
            (ports, free.ports, "ports"),
            (powered, free.powered, "powered ports"),
            (watts, round(free.watts, 1), "W"),
        )
        if want > max(have, 0)
    ]
    site = stand.design.site
    spare = zone.access_points * site.cables_per_access_point + zone.cameras + zone.outlets
    each = _way_m(stand, zone) * rules["brief.later_detour"] + site.slack_device_m
    each += site.slack_rack_m
    return Reserve(
        zone=zone.id,
        name=zone.name,
        floor=zone.floor,
        ports=ports,
        powered=powered,
        watts=watts,
        cables=spare,
        cable_m=round(spare * each, 1) if stand.design.of(EquipmentRoom) else 0.0,
        verdict="not_met" if lacks else "met",
        lacks=", ".join(lacks),
        used=rules.used("brief.later_class.access_point", "brief.later_class.camera", "brief.later_detour"),
    )


def nearest_rack(design: Design, zone: Zone) -> tuple[str, float] | None:
    """Return the rack nearest to the middle of a zone, and the straight way to it, up and along, m."""
    middle = Polygon(zone.outline).centroid
    floors = design.of(Floor)
    z_m = floors[zone.floor].elevation_m
    ways = [
        (r.id, math.dist(r.at, (middle.x, middle.y)) + abs(floors[r.floor].elevation_m - z_m))
        for r in design.of(EquipmentRoom).values()
    ]
    return min(ways, key=lambda row: row[1], default=None)


def _way_m(stand: SiteStatus, zone: Zone) -> float:
    near = nearest_rack(stand.design, zone)
    return near[1] if near is not None else 0.0
