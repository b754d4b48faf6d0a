"""What one ray goes through, piece by piece: panels of walls, slabs and roofs, leaves of trees."""

from __future__ import annotations

import math
from collections.abc import Iterator
from typing import Any, Literal

import numpy as np
from numpy.typing import NDArray
from pydantic import Field
from shapely import contains_xy

from ..base.bands import BANDS, FREQUENCY_MHZ, Band
from ..base.foliage import foliage_db
from ..base.frozen import Frozen
from ..base.memo import IdentityMemo
from ..base.wording import metres
from ..catalogue import Catalogue
from ..context.leaves import stretches
from ..context.storeys import Slab
from ..design import Building, Design, Floor, Opening, Point, Space, Wall
from .overlaps import Panel
from .propagation import MAX_ANGLE_FACTOR, floors_loss_db
from .radio_environment import RadioEnvironment
from .walls import named_panels_of

Array = NDArray[np.float64]
_named: IdentityMemo[tuple[Array, list[Panel]]] = IdentityMemo(64)


class OtherConstruction(Frozen):
    """What a level would be with another construction in one place."""

    construction: str
    label: str
    level_dbm: float = Field(description="of the weaker direction")
    change_db: float


class Crossing(Frozen):
    """One thing that a ray goes through; ``share`` is how far along it, 0 to 1."""

    kind: Literal["wall", "opening", "slab", "roof", "leaves"]
    element: str = Field(description="id of the wall, the opening, the storey or the trees")
    construction: str = Field(description="empty where it is trees")
    label: str
    at: Point
    z_m: float
    share: float
    loss_db: float = Field(description="of its construction, square on")
    factor: float = Field(description="for the angle; of slabs for their number")
    takes_db: float
    instead: tuple[OtherConstruction, ...]


def named_panels(design: Design, catalogue: Catalogue) -> tuple[Array, list[Panel]]:
    """Return the panels of a design, and for each row the piece of a wall that it is; kept."""
    parts = tuple(design.of(cls) for cls in (Wall, Opening, Floor, Space, Building))
    return _named.get((*parts, catalogue), None, lambda: named_panels_of(design, catalogue))


def walls_crossed(
    design: Design,
    catalogue: Catalogue,
    source: tuple[float, float, float],
    spot: tuple[float, float, float],
    band: Band,
) -> Iterator[Crossing]:
    """Yield the panels that a ray crosses, with the stretch of it at the panel's height."""
    panels, pieces = named_panels(design, catalogue)
    column = 9 + BANDS.index(band)
    (sx, sy, sz), (tx, ty, tz) = source, spot
    rx, ry, rz = tx - sx, ty - sy, tz - sz
    length = math.sqrt(rx * rx + ry * ry + rz * rz)
    for row, piece in zip(panels, pieces, strict=True):
        ax, ay, dx, dy, low, high, z_low, z_high, wide = row[:9]
        across = rx * dy - ry * dx
        if across == 0.0:
            continue
        along_ray = ((ax - sx) * dy - (ay - sy) * dx) / across
        along_wall = ((ax - sx) * ry - (ay - sy) * rx) / across
        z = sz + along_ray * rz
        if not (0 < along_ray < 1 and low <= along_wall <= high and z_low <= z < z_high):
            continue
        factor = min(length * wide / abs(across), MAX_ANGLE_FACTOR)
        loss = float(row[column])
        yield Crossing(
            kind="opening" if piece.opening else "wall",
            element=piece.element,
            construction=piece.construction,
            label=catalogue.constructions[piece.construction].label,
            at=(round(sx + along_ray * rx, 2), round(sy + along_ray * ry, 2)),
            z_m=round(z, 2),
            share=round(along_ray, 4),
            loss_db=loss,
            factor=round(factor, 3),
            takes_db=loss * factor,
            instead=(),
        )


def slabs_crossed(
    air: RadioEnvironment, source: tuple[float, float, float], spot: tuple[float, float, float], band: Band
) -> Iterator[Crossing]:
    """Yield the slabs and roofs that a ray crosses; what they take together is shared out among
    them by their own losses (COST 231)."""
    (sx, sy, sz), (tx, ty, tz) = source, spot
    low, high = sorted((sz, tz))
    met: list[tuple[Slab, float, Any]] = []
    for slab in air.terrain.storeys.slabs:
        if low < slab.z_m < high:
            share = (slab.z_m - sz) / (tz - sz)
            at = (sx + (tx - sx) * share, sy + (ty - sy) * share)
            if contains_xy(slab.area, *at):
                met.append((slab, share, at))
    together = float(floors_loss_db(1.0, len(met))) / max(len(met), 1)
    for slab, share, at in met:
        construction = air.catalogue.constructions[slab.construction]
        loss = construction.loss_db[band]
        yield Crossing(
            kind="roof" if slab.roof else "slab",
            element=slab.floor,
            construction=slab.construction,
            label=construction.label,
            at=(round(at[0], 2), round(at[1], 2)),
            z_m=round(slab.z_m, 2),
            share=round(share, 4),
            loss_db=loss,
            factor=round(together, 3),
            takes_db=loss * together,
            instead=(),
        )


def leaves_crossed(
    air: RadioEnvironment,
    from_floor: str,
    floor: str,
    source: tuple[float, float, float],
    spot: tuple[float, float, float],
    band: Band,
) -> Iterator[Crossing]:
    """Yield the trees that a ray goes through; what all their leaves take is shared out by metres."""
    storeys, groves = air.terrain.storeys, air.terrain.groves
    if not groves:
        return
    start = (*source[:2], source[2] - storeys.ground_m(from_floor))
    met = list(stretches(groves, start, (*spot[:2], spot[2] - storeys.ground_m(floor))))
    whole_m = sum(s.leaves_m for s in met)
    whole_db = float(foliage_db(FREQUENCY_MHZ[band], whole_m))
    for piece in met:
        share = (piece.start + piece.end) / 2
        x, y, z = (a + (b - a) * share for a, b in zip(source, spot, strict=True))
        takes = whole_db * piece.leaves_m / whole_m
        yield Crossing(
            kind="leaves",
            element=piece.grove,
            construction="",
            label=f"{groves[piece.grove].name}, {metres(piece.leaves_m, 1)} of leaves",
            at=(round(x, 2), round(y, 2)),
            z_m=round(z, 2),
            share=round(share, 4),
            loss_db=round(takes, 2),
            factor=1.0,
            takes_db=takes,
            instead=(),
        )
