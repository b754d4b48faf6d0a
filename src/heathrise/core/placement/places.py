"""Where an access point may hang: places on ceilings, on walls, and out of doors."""

from __future__ import annotations

import itertools
import math
from collections.abc import Iterator, Sequence
from typing import Any, Literal

import numpy as np
import shapely
from pydantic import Field
from shapely.geometry import LineString, Point, Polygon
from shapely.ops import unary_union

from ..base.frozen import Frozen, Strict
from ..building import mount_height_m
from ..catalogue import Catalogue, DeviceModel, Role
from ..context.storeys import storeys_of
from ..design import Design, Device, ElementId, Opening, Site, Space, Wall, Zone
from ..design.values import BackHaul, ModelId
from ..signal import share_walled, walls_that

_OFF_WALL_M = 0.1
_AT_WALL_M = 0.25
_LEAST_WALL_M = 1.0
_FEW, _CLOSER = 300, 0.6
_MANY, _FARTHER = 1_500, 1.4


Goal = Literal["fewest", "cheapest", "strongest"]


class Wishes(Strict):
    """What a search for places is free to do, and what it has to bring.

    Without ``models`` those that the plan uses are taken, without ``mounts`` the one that comes
    first on the site; what is in ``keep`` stays where it is; ``back_haul`` and ``margin_db`` are
    the site's where they are not said, ``most`` how many there may be in all.
    """

    models: tuple[ModelId, ...] = Field((), max_length=6)
    mounts: tuple[Literal["ceiling", "wall"], ...] = ()
    second: bool = True
    back_haul: BackHaul | None = None
    margin_db: float | None = Field(None, ge=0, le=20)
    keep: tuple[ElementId, ...] = Field((), max_length=500)
    goals: tuple[Goal, ...] = Field(("fewest", "cheapest", "strongest"), min_length=1, max_length=3)
    most: int | None = Field(None, ge=0, le=500)
    seconds: float = Field(30.0, ge=1, le=300)

    def meshes(self, site: Site) -> bool:
        """Whether links may be over the air: as wished, else as is the site's school."""
        return (self.back_haul or site.back_haul) == "mesh"

    def margin_in_db(self, site: Site) -> float:
        """Return the margin that is kept: as wished, else the site's."""
        return self.margin_db if self.margin_db is not None else site.margin_db


class Excluded(Frozen):
    """A room in which nothing is hung, and why."""

    space: str
    name: str
    why: str


def mounts_wished(design: Design, wishes: Wishes) -> tuple[str, ...]:
    """Return where access points are hung: as wished, else as is the site's school."""
    return wishes.mounts or (design.site.mount_first,)


def air_role(catalogue: Catalogue) -> Role:
    """Return the kind of device that is placed to give air."""
    return next(r for r in catalogue.roles.values() if catalogue.gives_air(r.kind))


def movable(design: Design, catalogue: Catalogue) -> list[Device]:
    """Return the access points that a search may move or take away: new ones, by kind."""
    role = air_role(catalogue)
    return [d for d in design.of(Device).values() if d.kind == role.kind and d.state == "new"]


def models_wished(design: Design, catalogue: Catalogue, wishes: Wishes) -> list[DeviceModel]:
    """Return the models to place: those wished, else those in use, else the cheapest.

    Out of doors the cheapest that is made for it is added where none is.
    """
    sold = {m.id: m for m in catalogue.sold(air_role(catalogue).kind)}
    by_price = sorted(sold.values(), key=lambda m: m.price)
    mounts = mounts_wished(design, wishes)
    ceiling = [m for m in by_price if not m.outdoor and set(m.mounts) & set(mounts)]
    used = [d.model for d in movable(design, catalogue)]
    # Of those in use the most used: a second model only doubles what has to be looked at.
    usual = max(
        (m for m in ceiling if m.id in used),
        key=lambda m: used.count(m.id),
        default=ceiling[0] if ceiling else None,
    )
    chosen = [sold[m] for m in wishes.models if m in sold]
    if not any(not m.outdoor for m in chosen) and usual is not None:
        chosen.append(usual)
    if not any(m.outdoor for m in chosen):
        outdoor = [m for m in by_price if m.outdoor]
        chosen += sorted(outdoor, key=lambda m: m.id not in used)[:1]
    return chosen


def places_of(design: Design, catalogue: Catalogue, wishes: Wishes) -> tuple[list[Device], list[Excluded]]:
    """Return every place with each model that fits it, as devices yet without names, and the rooms
    in which nothing is hung."""
    maker = _Maker(design, catalogue, wishes, 1.0)
    found = list(maker.places())
    if len(found) < _FEW:  # a small site can be looked at more closely
        maker = _Maker(design, catalogue, wishes, _CLOSER)
        found = list(maker.places())
    while len(found) > _MANY:  # a large one from farther off, or it would take minutes
        maker = _Maker(design, catalogue, wishes, maker.closer * _FARTHER)
        farther = list(maker.places())
        if len(farther) >= len(found):
            break  # one in the middle of each room is left
        found = farther
    role = air_role(catalogue)
    devices = [
        Device.model_validate({"id": f"place-{k}", "kind": role.kind, "name": f"Place {k}", **pose})
        for k, pose in enumerate(found)
    ]
    return devices, maker.excluded


class _Maker:
    def __init__(self, design: Design, catalogue: Catalogue, wishes: Wishes, closer: float) -> None:
        self.closer = closer
        self.design, self.catalogue, self.wishes = design, catalogue, wishes
        self.rules = catalogue.rules
        self.storeys = storeys_of(design)
        self.mounts = mounts_wished(design, wishes)
        self.models = models_wished(design, catalogue, wishes)
        self.shields = walls_that(design, catalogue, lambda c: c.shields)
        self.wet = walls_that(design, catalogue, lambda c: c.wet)
        self.walls = walls_that(design, catalogue, lambda _: True)
        self.openings = _openings(design)
        self.excluded: list[Excluded] = []

    def places(self) -> Iterator[dict[str, Any]]:
        for space in self.design.of(Space).values():
            why = self._why_not(space)
            if why:
                self.excluded.append(Excluded(space=space.id, name=space.name, why=why))
                continue
            if space.outdoor:
                yield from self._outdoors(space)
                continue
            if "ceiling" in self.mounts:
                yield from self._ceiling(space)
            if "wall" in self.mounts:
                yield from self._on_walls(space)

    def _why_not(self, space: Space) -> str:
        if space.outdoor:
            return "" if space.use != "none" else "nothing is asked for there"
        if share_walled(space, self.shields) >= self.rules["signal.shielded_share"]:
            return "concrete or metal encloses it"
        if share_walled(space, self.wet) >= self.rules["signal.place_wet_share"]:
            return "its walls are wet"
        if free_part(self.design, space).is_empty:
            return "closed to work"
        return ""

    def _fitting(self, mount: str, outdoor: bool) -> list[DeviceModel]:
        return [m for m in self.models if m.outdoor == outdoor and mount in m.mounts]

    def _height_m(self, space: Space, mount: str) -> float:
        ceiling_m = self.storeys.ceiling_m(space, space.floor)
        return mount_height_m(self.catalogue, mount, ceiling_m)

    def _ceiling(self, space: Space) -> Iterator[dict[str, Any]]:
        models = self._fitting("ceiling", outdoor=False)
        part = free_part(self.design, space)
        free = part.buffer(-self.rules["signal.place_edge_m"])
        step = self.closer * self.rules["signal.place_step_m"]
        spots = [s for s in _grid(free, step) if not self._near_metal(space.floor, s)]
        if not spots:
            middle = part.representative_point()
            spots = [(middle.x, middle.y)]
        for spot in spots:
            for model in models:
                yield _pose(space, model, spot, "ceiling", self._height_m(space, "ceiling"))

    def _near_metal(self, floor: str, spot: tuple[float, float]) -> bool:
        tree = self.shields.get(floor)  # metal, and concrete with the iron in it
        within_m = self.rules["signal.place_metal_m"]
        return tree is not None and bool(len(tree.query(Point(spot), predicate="dwithin", distance=within_m)))

    def _on_walls(self, space: Space) -> Iterator[dict[str, Any]]:
        models = self._fitting("wall", outdoor=False)
        closed = closed_to_work(self.design, space.floor)
        height_m = self._height_m(space, "wall")
        for spot, inward in self._along(space):
            if closed.contains(Point(spot)) or self._near_metal(space.floor, spot):
                continue
            for model in models:
                yield _pose(space, model, spot, "wall", height_m, inward)

    def _along(self, space: Space) -> Iterator[tuple[tuple[float, float], float]]:
        """Yield spots along a room's walls, clear of openings, and where they face in degrees."""
        ring = shapely.geometry.polygon.orient(Polygon(space.outline)).exterior
        corners = list(ring.coords)
        step = max(1.0, self.closer) * self.rules["signal.place_wall_step_m"]
        edge = self.rules["signal.place_edge_m"]
        tree = self.walls.get(space.floor)
        for (ax, ay), (bx, by) in itertools.pairwise(corners):
            length = math.dist((ax, ay), (bx, by))
            if tree is None or length < max(_LEAST_WALL_M, 2 * edge):
                continue
            ux, uy = (bx - ax) / length, (by - ay) / length
            count = max(1, round((length - 2 * edge) / step))
            for k in range(count):
                along = edge + (length - 2 * edge) * (k + 0.5) / count
                # The outline runs anticlockwise: inside lies to its left.
                x = ax + ux * along - uy * _OFF_WALL_M
                y = ay + uy * along + ux * _OFF_WALL_M
                here = Point(x, y)
                on_wall = len(tree.query(here, predicate="dwithin", distance=_AT_WALL_M))
                if on_wall and not self.openings[space.floor].intersects(here.buffer(_AT_WALL_M)):
                    yield (x, y), math.degrees(math.atan2(-uy, ux)) % 360

    def _outdoors(self, space: Space) -> Iterator[dict[str, Any]]:
        """Yield places round an outdoor area: on the house, facing out, and on a pole within."""
        area = Polygon(space.outline)
        for model in self._fitting("wall", outdoor=True):
            for other in self.design.of(Space).values():
                if other.floor != space.floor or other.outdoor:
                    continue
                for (x, y), inward in self._along(other):
                    turn = math.radians(inward)
                    out = (x - 2.5 * _OFF_WALL_M * math.sin(turn), y - 2.5 * _OFF_WALL_M * math.cos(turn))
                    if area.buffer(_AT_WALL_M).contains(Point(out)):
                        height_m = mount_height_m(self.catalogue, "wall", _OUTSIDE_CEILING_M)
                        yield _pose(space, model, out, "wall", height_m, (inward + 180) % 360)
        for model in self._fitting("pole", outdoor=True):
            middle = area.representative_point()
            height_m = mount_height_m(self.catalogue, "pole", _OUTSIDE_CEILING_M)
            yield _pose(space, model, (middle.x, middle.y), "pole", height_m)


_OUTSIDE_CEILING_M = 99.0  # nothing above: a mount has its own height


def closed_to_work(design: Design, floor: str) -> Any:
    """Return the parts of a storey in which nothing is drilled."""
    zones = [
        Polygon(z.outline) for z in design.of(Zone).values() if z.floor == floor and z.kind == "no_drilling"
    ]
    return unary_union(zones) if zones else Polygon()


def free_part(design: Design, space: Space) -> Any:
    """Return the part of a room in which something may be hung."""
    return Polygon(space.outline).difference(closed_to_work(design, space.floor))


def _pose(
    space: Space,
    model: DeviceModel,
    spot: Sequence[float],
    mount: str,
    height_m: float,
    azimuth_deg: float = 0.0,
) -> dict[str, Any]:
    return {
        "floor": space.floor,
        "model": model.id,
        "at": (round(spot[0], 2), round(spot[1], 2)),
        "height_m": height_m,
        "mount": mount,
        "azimuth_deg": round(azimuth_deg, 1) % 360,
    }


def _grid(area: Any, step_m: float) -> list[tuple[float, float]]:
    if area.is_empty:
        return []
    west, south, east, north = area.bounds
    xs, ys = (
        low + (high - low) * (np.arange(n := max(1, round((high - low) / step_m))) + 0.5) / n
        for low, high in ((west, east), (south, north))
    )
    return [(float(x), float(y)) for x in xs for y in ys if area.contains(Point(x, y))]


def _openings(design: Design) -> dict[str, Any]:
    walls = design.of(Wall)
    lines: dict[str, list[LineString]] = {w.floor: [] for w in walls.values()}
    for opening in design.of(Opening).values():
        wall = walls[opening.wall]
        line = LineString([wall.a, wall.b])
        ends = [line.interpolate(opening.offset_m + k * opening.width_m) for k in (0, 1)]
        lines[wall.floor].append(LineString(ends))
    return {floor: unary_union(rows) for floor, rows in lines.items()}
