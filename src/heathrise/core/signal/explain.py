"""One ray explained: all that it crosses, what each takes, and the sum in both directions.

A second way to the same figures as the kernel's, panel by panel in the open: a test holds the two
together.
"""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from typing import Any

import numpy as np
from numpy.typing import NDArray
from pydantic import Field
from shapely import LineString
from shapely import Point as SpotAt

from ..base.bands import FREQUENCY_MHZ, Band
from ..base.frozen import Frozen
from ..catalogue import Catalogue, ClientModel, Construction, Used
from ..design import Device, Floor, Point
from .antennas import attenuation_db
from .obstacles import source_of
from .propagation import chance_of, distance_loss_db, floors_loss_db
from .radio_environment import Direction, RadioEnvironment
from .rates import user_mbps
from .ray_pieces import Crossing, OtherConstruction, leaves_crossed, slabs_crossed, walls_crossed
from .rooms import Target, target_figures, target_in

Array = NDArray[np.float64]


class StoreySection(Frozen):
    """A storey as a section shows it: from its floor to where it ends, in m, and the parts of the
    way, as shares of it, that lie in its rooms."""

    floor: str
    name: str
    low_m: float
    high_m: float
    spans: tuple[tuple[float, float], ...]


class Ray(Frozen):
    """The ray from one access point to a spot, and its sum. dB, dBm, dBi, m."""

    device: str
    name: str
    model: str
    floor: str
    source: Point
    source_z_m: float
    distance_m: float
    free_db: float = Field(description="of the distance alone")
    antenna_db: float = Field(description="off the antenna's boresight")
    crossings: tuple[Crossing, ...]
    loss_db: float
    power_dbm: float
    gain_dbi: float
    downlink_dbm: float
    uplink_dbm: float
    power_reason: str
    storeys: tuple[StoreySection, ...] = Field(description="that it lies in, for a section")


class SpotView(Frozen):
    """A spot, what its room asks for, and the rays that reach it, the strongest first."""

    floor: str
    at: Point
    z_m: float
    room: str | None
    space: str | None
    use: str
    band: Band
    client: str
    client_power_dbm: float
    client_gain_dbi: float
    wants_dbm: float | None
    wants_second_dbm: float | None
    margin_db: float
    noise_dbm: float
    exponent: float = Field(description="of the distance: the level falls by 10 n log10(d)")
    width_mhz: int
    user_mbps: float = Field(description="what one user gets from the first, before sharing")
    chance: float | None = Field(description="that the first target is met here, 0 to 1")
    chance_second: float | None
    rays: tuple[Ray, ...]
    used: tuple[Used, ...]


MOST_RAYS = 8
SHORT_M = 1e-3
_SWAPS: dict[str, tuple[str, ...]] = {
    "wall": ("wall", "gap"),
    "door": ("door", "gap"),
    "window": ("window", "gap"),
    "gap": ("gap", "door", "window"),
    "slab": ("slab",),
    "roof": ("roof",),
}


def ray_to(air: RadioEnvironment, device: Device, floor: str, at: Point, band: Band) -> Ray:
    """Return one access point's ray to a spot, for the site's own client."""
    return _ray(air, device, floor, at, band, air.client)


def explain_spot(air: RadioEnvironment, floor: str, at: Point, band: Band) -> SpotView:
    """Return what is heard at a spot on one band, ray by ray, and why."""
    design, rules = air.design, air.rules
    room = air.terrain.storeys.room_at(floor, at)
    use = room.use if room is not None else "none"
    target = target_in(air, use)
    if target is not None and target.band != band:
        target = None
    client = air.client_in(room.id, band) if room is not None else air.client
    rays = sorted(
        (_ray(air, device, floor, at, band, client) for device in air.access_points(band)),
        key=lambda r: -min(r.downlink_dbm, r.uplink_dbm),
    )[:MOST_RAYS]
    levels = [min(r.downlink_dbm, r.uplink_dbm) for r in rays]
    first, second = _chances(target, levels, rules["signal.deviation_db"])
    figures = target_figures(rules, use) if target is not None else ()
    return SpotView(
        floor=floor,
        at=at,
        z_m=round(_spot_z_m(air, floor), 2),
        room=room.name if room is not None else None,
        space=room.id if room is not None else None,
        use=use,
        band=band,
        client=client.label,
        client_power_dbm=client.power_dbm[band],
        client_gain_dbi=client.gain_dbi,
        wants_dbm=target.first_dbm if target is not None else None,
        wants_second_dbm=target.second_dbm if target is not None else None,
        margin_db=design.site.margin_db,
        noise_dbm=round(air.noise_dbm(band), 1),
        exponent=air.terrain.exponent,
        user_mbps=round(user_mbps(rules, levels[0], air.width_mhz(band)), 1) if levels else 0.0,
        width_mhz=air.width_mhz(band),
        chance=first,
        chance_second=second,
        rays=tuple(rays),
        used=rules.used(*figures, "signal.client_height_m", "signal.deviation_db"),
    )


def _chances(
    target: Target | None, levels: Sequence[float], deviation_db: float
) -> tuple[float | None, float | None]:
    """Return how likely the first and the second are loud enough."""
    if target is None:
        return None, None
    wants = (target.first_dbm, target.second_dbm)
    found = [
        None
        if want is None
        else 0.0
        if len(levels) <= k
        else round(chance_of(levels[k] - want, deviation_db), 3)
        for k, want in enumerate(wants)
    ]
    return found[0], found[1]


def _spot_z_m(air: RadioEnvironment, floor: str) -> float:
    return air.terrain.storeys.elevation_m[floor] + air.terrain.client_height_m


def _section(air: RadioEnvironment, source: Point, at: Point) -> Iterator[StoreySection]:
    """Yield the storeys that a ray's way lies in, seen from above; of other buildings none."""
    storeys = air.terrain.storeys
    # A ray straight down has no length from above; a hair gives it one.
    end = at if math.dist(source, at) > SHORT_M else (at[0] + SHORT_M, at[1])
    way = LineString([source, end])
    for key, floor in air.design.of(Floor).items():
        if key not in storeys.regions:
            continue
        inside = way.intersection(storeys.regions[key])
        parts = [p for p in getattr(inside, "geoms", [inside]) if p.length > 0]
        spans = [sorted(way.project(SpotAt(c)) / way.length for c in _ends(p)) for p in parts]
        if spans:
            yield StoreySection(
                floor=key,
                name=floor.name,
                low_m=round(storeys.elevation_m[key], 2),
                high_m=round(storeys.top_m[key], 2),
                spans=tuple(sorted((round(a, 4), round(b, 4)) for a, b in spans)),
            )


def _ends(part: Any) -> tuple[Point, Point]:
    return part.coords[0], part.coords[-1]


def _ray(
    air: RadioEnvironment, device: Device, floor: str, at: Point, band: Band, client: ClientModel
) -> Ray:
    terrain, radio = air.terrain, air.radios[device.id, band]
    model = air.catalogue.radios_of(device)
    sx, sy, sz = source_of(terrain, device)
    z_m = _spot_z_m(air, floor)
    # Distance and antenna look from where the device hangs, walls from the side it stands on.
    offset = np.array([[at[0] - device.at[0], at[1] - device.at[1], z_m - sz]])
    distance = float(np.linalg.norm(offset))
    free = float(distance_loss_db(distance, FREQUENCY_MHZ[band], terrain.exponent))
    aside = float(attenuation_db(model.pattern, offset, device.mount, device.azimuth_deg, device.tilt_deg)[0])
    found = [
        *walls_crossed(air.design, air.catalogue, (sx, sy, sz), (*at, z_m), band),
        *slabs_crossed(air, (sx, sy, sz), (*at, z_m), band),
        *leaves_crossed(air, device.floor, floor, (sx, sy, sz), (*at, z_m), band),
    ]
    through = sum(c.takes_db for c in found)
    loss = free + aside + through
    ways: tuple[Direction, Direction] = ("downlink", "uplink")
    down, up = (air.lossless_dbm(device, band, way, client) - loss for way in ways)
    weaker = min(down, up)
    return Ray(
        device=device.id,
        name=device.name,
        model=air.catalogue.model_of(device).label,
        floor=device.floor,
        source=(sx, sy),
        source_z_m=round(sz, 2),
        distance_m=round(distance, 2),
        free_db=round(free, 2),
        antenna_db=round(aside, 2),
        crossings=tuple(
            _with_options(air.catalogue, c, band, weaker, found) for c in sorted(found, key=lambda c: c.share)
        ),
        loss_db=round(loss, 2),
        power_dbm=radio.power_dbm,
        gain_dbi=radio.gain_dbi,
        downlink_dbm=round(down, 2),
        uplink_dbm=round(up, 2),
        power_reason=radio.reason,
        storeys=tuple(_section(air, (sx, sy), at)),
    )


def _with_options(
    catalogue: Catalogue, crossing: Crossing, band: Band, level_dbm: float, rows: Sequence[Crossing]
) -> Crossing:
    """Return a crossing with what the level would be if something else stood there; trees stay."""
    if crossing.kind == "leaves":
        return crossing.model_copy(update={"takes_db": round(crossing.takes_db, 2)})
    kind = catalogue.constructions[crossing.construction].kind
    scale = _scale(crossing, rows)
    options: list[Construction] = [
        c
        for c in catalogue.constructions.values()
        if c.kind in _SWAPS[kind] and c.id != crossing.construction
    ]
    instead = []
    for option in options:
        change = (crossing.loss_db - option.loss_db[band]) * scale
        instead.append(
            OtherConstruction(
                construction=option.id,
                label=option.label,
                level_dbm=round(level_dbm + change, 1),
                change_db=round(change, 1),
            )
        )
    return crossing.model_copy(update={"takes_db": round(crossing.takes_db, 2), "instead": tuple(instead)})


def _scale(crossing: Crossing, rows: Sequence[Crossing]) -> float:
    """Return by how much a dB of the construction counts in this ray."""
    if crossing.kind in ("wall", "opening"):
        return crossing.takes_db / crossing.loss_db if crossing.loss_db else crossing.factor
    together = [c for c in rows if c.kind in ("slab", "roof")]
    return float(floors_loss_db(1.0, len(together))) / len(together)
