"""A stand-in for a surveyor: levels along a walk, made from hidden values, with noise."""

from __future__ import annotations

import random
from collections.abc import Sequence
from dataclasses import dataclass, field

import numpy as np
from shapely.geometry import Polygon

from ..core.base.bands import BANDS, Band
from ..core.catalogue import Catalogue
from ..core.context.readings import Reading
from ..core.design import Design, Device, OwnFigure, Point, Space, apply, put
from ..core.signal import air_of, losses_db, room_points

SURVEY_HEADER = ("storey", "x", "y", "bssid", "band", "dbm")
_APART_M = 3.0


@dataclass(frozen=True)
class Hidden:
    """How a site really is: figures by their path, what the meter adds to each level, and the
    faintest that it hears."""

    figures: dict[str, float] = field(default_factory=dict)
    offset_db: float = 0.0
    noise_db: float = 3.0
    hears_dbm: float = -88.0


def spots_of(design: Design) -> list[tuple[str, Point]]:
    """Return where somebody stands on a walk through all rooms: a few metres apart in each."""
    found: list[tuple[str, Point]] = []
    for space in design.of(Space).values():
        x, y = room_points(Polygon(space.outline), _APART_M)
        found += [(space.floor, (round(float(a), 2), round(float(b), 2))) for a, b in zip(x, y, strict=True)]
    return found


def surveyed(
    design: Design,
    catalogue: Catalogue,
    hidden: Hidden,
    spots: Sequence[tuple[str, Point]],
    seed: int,
    bands: Sequence[Band] = ("5",),
) -> list[Reading]:
    """Return the levels of a walk over spots as a meter hears them, the same for a seed."""
    chance = random.Random(seed)
    own = [
        put(OwnFigure(id=f"hidden-{k}", figure=figure, value=value))
        for k, (figure, value) in enumerate(hidden.figures.items())
    ]
    planned, air = air_of(design, catalogue), air_of(apply(design, own), catalogue)
    found = []
    for floor, at in spots:
        x, y = np.array([at[0]]), np.array([at[1]])
        for device in design.of(Device).values():
            model = catalogue.air_of(device)
            if model is None:
                continue
            loss = losses_db(air.terrain, device, model, floor, x, y)[:, 0]
            for band in bands:
                if (device.id, band) not in planned.radios:
                    continue
                level = planned.lossless_dbm(device, band, "downlink") - loss[BANDS.index(band)]
                level += hidden.offset_db + chance.gauss(0, hidden.noise_db)
                if level >= hidden.hears_dbm:
                    dbm = min(0.0, round(float(level), 1))
                    found.append(Reading(floor=floor, at=at, device=device.id, band=band, dbm=dbm))
    return found


def surveyed_csv(
    design: Design,
    catalogue: Catalogue,
    hidden: Hidden,
    spots: Sequence[tuple[str, Point]],
    seed: int,
    bands: Sequence[Band] = ("5",),
    by_address: bool = False,
) -> str:
    """Return a meter's file of a walk over spots; the same seed gives the same file.

    Args:
        by_address: name radios by an address, not by what they are called.
    """
    devices = design.of(Device)
    numbers = {key: number for number, key in enumerate(devices)}
    rows = [",".join(SURVEY_HEADER)]
    for r in surveyed(design, catalogue, hidden, spots, seed, bands):
        number = numbers[r.device]
        who = f"02:00:5e:00:{number // 256:02x}:{number % 256:02x}"
        said = who if by_address else devices[r.device].name
        rows.append(f"{r.floor},{r.at[0]},{r.at[1]},{said},{r.band},{r.dbm:.1f}")
    return "\n".join(rows) + "\n"
