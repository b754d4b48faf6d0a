"""What each camera sees of its storey: zones by how sharply, cut by walls, and the doors in them."""

from __future__ import annotations

import math
from collections.abc import Collection, Iterator, Sequence
from typing import ClassVar, Literal

import numpy as np
import shapely
from numpy.typing import NDArray
from pydantic import Field

from ..base.frozen import Frozen
from ..base.memo import IdentityMemo
from ..catalogue import Catalogue, LensView
from ..context.storeys import storeys_of
from ..design import Design, Device, Floor, Light, Opening, Point, Spot, Wall
from .lens import blind_m, density_px_m, far_m, reach_m, sees_at

Level = Literal["identify", "recognise", "observe", "detect"]
LEVELS: tuple[Level, ...] = ("identify", "recognise", "observe", "detect")
_STEP_DEG = 1.5  # between rays where no wall ends
_BESIDE_RAD = 1e-4  # rays beside the end of a wall
_OFF_WALL_M = 0.25  # a wall as near as this is the one it is mounted on
_STEP_OFF_M = 0.02
_ON_LINE_M = 0.005  # what stands on a line is not hidden by it
_GROUND_M = 1.0  # a storey as near to the ground is entered from it
_OUT_OF_PLAN_M = 200.0
_SIDE_M = 0.4  # to either side of a door is the room it leads to
Segments = NDArray[np.float64]


class SeenZone(Frozen):
    """The ground on which a camera tells so much: rings of corners in m, holes after their outline."""

    level: Level
    reach_m: float = Field(description="distance up to which it does")
    shapes: tuple[tuple[tuple[Spot, ...], ...], ...]


class SeenDoor(Frozen):
    """A door or gate outdoors before which somebody stands in the bearing of a camera."""

    opening: str
    name: str
    at: Spot = Field(description="where somebody stands before it")
    away_m: float = Field(description="from the camera to who stands before it")
    px_m: float
    level: Level | None = Field(description="how sharply its pixels show who stands there")
    ground: bool = Field(description="whether the picture holds the ground before it")
    face: bool = Field(description="whether the picture holds a face there")


class CameraView(Frozen):
    """What one camera sees. ``blind_m`` is the nearest ground it sees, none where its picture has no
    ground; ``far_m`` how far it sees a face, none without end. What dazzles it is named by ids."""

    KEY: ClassVar = ("device",)

    device: str
    name: str
    floor: str
    height_m: float = Field(description="over what it looks at")
    tilt_deg: float = Field(description="under the horizontal")
    across_deg: float
    up_deg: float
    blind_m: float | None
    far_m: float | None
    zones: tuple[SeenZone, ...]
    doors: tuple[SeenDoor, ...] = ()
    dazzled_by: tuple[str, ...] = ()


_views: IdentityMemo[CameraView] = IdentityMemo(256, weigh=lambda _: 4000)


def views_of(design: Design, catalogue: Catalogue) -> tuple[CameraView, ...]:
    """Return what each camera and doorbell sees, in order of placing."""
    tables = (design.of(Wall), design.of(Opening), design.of(Floor), design.of(Light), storeys_of(design))
    found = []
    for device in design.of(Device).values():
        lens = catalogue.model_of(device).view
        if lens is not None and device.state in ("new", "keep"):

            def see(device: Device = device, lens: LensView = lens) -> CameraView:
                return _see(design, catalogue, device, lens)

            found.append(_views.get((*tables, catalogue, device), None, see))
    return tuple(found)


def _see(design: Design, catalogue: Catalogue, device: Device, lens: LensView) -> CameraView:
    rules, storeys = catalogue.rules, storeys_of(design)
    outside = storeys.outdoors(device.floor, device.at, catalogue.model_of(device).outdoor)
    height = storeys.over_ground_m(device.floor, device.height_m) if outside else device.height_m
    blind = blind_m(lens, height, device.tilt_deg)
    px = rules.table("camera.view_px_m")
    floors = _floors(design, device, outside)
    walls = _blocking(design, floors)
    eye = _eye(device, walls)
    walls = walls[_away(walls, eye) > _ON_LINE_M]
    most = reach_m(lens, px["detect"])
    seen = _swept(eye, device.azimuth_deg, lens.across_deg, most, walls)
    edge = far_m(lens, height, device.tilt_deg)
    seen = seen.intersection(_disc(eye, edge)) if math.isfinite(edge) else seen
    seen = seen.difference(_disc(eye, blind)) if math.isfinite(blind) else shapely.Polygon()
    zones = []
    for level in LEVELS:
        far = reach_m(lens, px[level])
        zones.append(SeenZone(level=level, reach_m=round(far, 2), shapes=_shapes(seen, eye, far)))
    face = far_m(lens, height, device.tilt_deg, rules["camera.face_m"])
    return CameraView(
        device=device.id,
        name=device.name,
        floor=device.floor,
        height_m=round(height, 2),
        tilt_deg=device.tilt_deg,
        across_deg=lens.across_deg,
        up_deg=lens.up_deg,
        blind_m=round(blind, 2) if math.isfinite(blind) else None,
        far_m=round(face, 1) if math.isfinite(face) else None,
        zones=tuple(zones),
        doors=tuple(_doors(design, catalogue, device, lens, height, eye, walls, floors)),
        dazzled_by=() if outside else tuple(_dazzling(design, catalogue, device, lens, eye, walls)),
    )


# -- walls ---------------------------------------------------------------------------------------


def _floors(design: Design, device: Device, outside: bool) -> frozenset[str]:
    """Return the storeys that a camera looks at: its own, outdoors those of all buildings at the ground."""
    storeys = storeys_of(design)
    low = {f for f in storeys.floors if abs(storeys.over_ground_m(f, 0.0)) < _GROUND_M} if outside else set()
    return frozenset({device.floor, *low})


def _blocking(design: Design, floors: Collection[str]) -> Segments:
    """Return the pieces of wall that nobody sees through, as rows of ax, ay, bx, by; panes and gaps are
    seen through, doors are taken as shut."""
    open_in: dict[str, list[Opening]] = {}
    for opening in design.of(Opening).values():
        if opening.kind != "door":
            open_in.setdefault(opening.wall, []).append(opening)
    rows: list[tuple[float, float, float, float]] = []
    for wall in design.of(Wall).values():
        if wall.floor in floors and wall.length_m > 0:
            rows += _pieces(wall, open_in.get(wall.id, ()))
    return np.array(rows, dtype=float).reshape(-1, 4)


def _pieces(wall: Wall, openings: Sequence[Opening]) -> Iterator[tuple[float, float, float, float]]:
    """Yield the pieces of a wall beside its openings."""
    long, at = wall.length_m, 0.0
    cuts = sorted((o.offset_m, min(o.offset_m + o.width_m, long)) for o in openings)
    for start, end in [*cuts, (long, long)]:
        if start > at + 1e-6:
            yield (*_along(wall, at), *_along(wall, start))
        at = max(at, end)


def _along(wall: Wall, metres: float) -> Point:
    share = metres / wall.length_m
    return wall.a[0] + share * (wall.b[0] - wall.a[0]), wall.a[1] + share * (wall.b[1] - wall.a[1])


def _away(walls: Segments, at: Point) -> Segments:
    """Return how far each piece of wall is from a spot, m."""
    if not len(walls):
        return np.zeros(0)
    a, step = walls[:, :2], walls[:, 2:] - walls[:, :2]
    share = np.clip(((np.array(at) - a) * step).sum(1) / np.maximum((step**2).sum(1), 1e-12), 0, 1)
    return np.asarray(np.hypot(*(a + share[:, None] * step - np.array(at)).T))


def _eye(device: Device, walls: Segments) -> Point:
    """Return where a camera looks from: before the wall it is mounted on, on the side that it faces."""
    away = _away(walls, device.at)
    if device.mount != "wall" or not len(away) or away.min() > _OFF_WALL_M:
        return device.at
    ax, ay, bx, by = walls[int(away.argmin())]
    nx, ny = by - ay, ax - bx
    long = math.hypot(nx, ny)
    nx, ny = nx / long, ny / long
    turn = math.radians(device.azimuth_deg)
    if nx * math.sin(turn) + ny * math.cos(turn) < 0:
        nx, ny = -nx, -ny
    off = (device.at[0] - ax) * nx + (device.at[1] - ay) * ny
    out = max(0.0, _STEP_OFF_M - off)
    return device.at[0] + out * nx, device.at[1] + out * ny


# -- sweeping ------------------------------------------------------------------------------------


def _swept(
    eye: Point, azimuth_deg: float, across_deg: float, most_m: float, walls: Segments
) -> shapely.Polygon:
    """Return the ground within a bearing that is seen up to a distance, walls in the way."""
    half = math.radians(across_deg) / 2
    turns = [np.linspace(-half, half, max(3, math.ceil(across_deg / _STEP_DEG) + 1))]
    if len(walls):
        ends = walls.reshape(-1, 2) - np.array(eye)
        bearing = np.arctan2(ends[:, 0], ends[:, 1]) - math.radians(azimuth_deg)
        bearing = (bearing + math.pi) % (2 * math.pi) - math.pi
        turns += [bearing - _BESIDE_RAD, bearing + _BESIDE_RAD]
    every = np.concatenate(turns)
    every = np.unique(every[np.abs(every) <= half])
    bearing = every + math.radians(azimuth_deg)
    rays = np.stack([np.sin(bearing), np.cos(bearing)], axis=1)
    far = np.minimum(_hit_m(eye, rays, walls), most_m)
    corners = np.array(eye) + far[:, None] * rays
    return shapely.make_valid(shapely.Polygon([eye, *map(tuple, corners)]))


def _hit_m(eye: Point, rays: Segments, walls: Segments) -> Segments:
    """Return how far each ray goes before it meets a wall, m."""
    if not len(walls):
        return np.full(len(rays), _OUT_OF_PLAN_M)
    a, step = walls[:, :2] - np.array(eye), walls[:, 2:] - walls[:, :2]
    cross = rays[:, None, 0] * step[None, :, 1] - rays[:, None, 1] * step[None, :, 0]
    with np.errstate(divide="ignore", invalid="ignore"):
        away = (a[:, 0] * step[:, 1] - a[:, 1] * step[:, 0])[None, :] / cross
        share = (a[None, :, 0] * rays[:, None, 1] - a[None, :, 1] * rays[:, None, 0]) / cross
    met = (np.abs(cross) > 1e-12) & (away > 1e-6) & (share >= -1e-9) & (share <= 1 + 1e-9)
    return np.asarray(np.where(met, away, _OUT_OF_PLAN_M).min(axis=1))


def _disc(eye: Point, radius_m: float) -> shapely.Polygon:
    return shapely.Point(eye).buffer(max(radius_m, 0.0), quad_segs=24)


def _shapes(seen: shapely.Geometry, eye: Point, far_m: float) -> tuple[tuple[tuple[Spot, ...], ...], ...]:
    """Return what is seen up to a distance as outlines with their holes."""
    near = seen.intersection(_disc(eye, far_m))
    parts = [p for p in shapely.get_parts(near) if isinstance(p, shapely.Polygon) and p.area > 0.01]
    return tuple(
        tuple(
            tuple((round(x, 3), round(y, 3)) for x, y in shapely.get_coordinates(ring)[:-1].tolist())
            for ring in (part.exterior, *part.interiors)
        )
        for part in parts
    )


# -- what stands in view ---------------------------------------------------------------------------


def _in_view(eye: Point, azimuth_deg: float, lens: LensView, spot: Point, walls: Segments) -> float | None:
    """Return how far a spot is that lies in a camera's bearing with no wall between, else None."""
    dx, dy = spot[0] - eye[0], spot[1] - eye[1]
    away = math.hypot(dx, dy)
    off = (math.degrees(math.atan2(dx, dy)) - azimuth_deg + 180) % 360 - 180
    if away < 1e-6 or abs(off) > lens.across_deg / 2:
        return None
    ray = np.array([[dx / away, dy / away]])
    return away if _hit_m(eye, ray, walls)[0] >= away - 1e-6 else None


def _doors(
    design: Design,
    catalogue: Catalogue,
    device: Device,
    lens: LensView,
    height_m: float,
    eye: Point,
    walls: Segments,
    floors: Collection[str],
) -> Iterator[SeenDoor]:
    """Yield the doors and gates outdoors before which a camera's bearing holds who stands there."""
    rules = catalogue.rules
    px = rules.table("camera.view_px_m")
    for opening, name, spot in outer_doors(design, catalogue, floors):
        away = _in_view(eye, device.azimuth_deg, lens, spot, walls)
        if away is None:
            continue
        dense = density_px_m(lens, away)
        if dense < px["detect"]:
            continue
        yield SeenDoor(
            opening=opening.id,
            name=name,
            at=(round(spot[0], 3), round(spot[1], 3)),
            away_m=round(away, 2),
            px_m=round(dense, 1),
            level=next((level for level in LEVELS if dense >= px[level]), None),
            ground=sees_at(lens, height_m, device.tilt_deg, away, 0.0),
            face=sees_at(lens, height_m, device.tilt_deg, away, rules["camera.face_m"]),
        )


def outer_doors(
    design: Design, catalogue: Catalogue, floors: Collection[str]
) -> Iterator[tuple[Opening, str, Point]]:
    """Yield the doors and gates of some storeys that lead outdoors: what they are called, and where somebody
    stands before them."""
    storeys, stand_m = storeys_of(design), catalogue.rules["camera.stand_m"]
    walls = design.of(Wall)
    for opening in design.of(Opening).values():
        wall = walls[opening.wall]
        floor = wall.floor
        if floor not in floors or opening.kind == "window" or wall.length_m <= 0:
            continue
        x, y = _along(wall, min(opening.offset_m + opening.width_m / 2, wall.length_m))
        nx, ny = (wall.b[1] - wall.a[1]) / wall.length_m, (wall.a[0] - wall.b[0]) / wall.length_m
        sides = []
        for side in (1, -1):
            room = storeys.room_at(floor, (x + side * _SIDE_M * nx, y + side * _SIDE_M * ny))
            sides.append((side, room, room is None or room.outdoor))
        out = [side for side, _, outside in sides if outside]
        inside = next((room.name for _, room, outside in sides if room is not None and not outside), "")
        beside = next((room.name for _, room, outside in sides if room is not None and outside), "")
        if not out or (not inside and not beside):
            continue
        name = f"the door of {inside}" if inside else f"the gate of {beside}"
        yield opening, name, (x + out[0] * stand_m * nx, y + out[0] * stand_m * ny)


def _dazzling(
    design: Design, catalogue: Catalogue, device: Device, lens: LensView, eye: Point, walls: Segments
) -> Iterator[str]:
    """Yield windows to outdoors and lamps near enough to dazzle a camera indoors."""
    storeys, near_m = storeys_of(design), catalogue.rules["camera.dazzle_m"]
    spots: list[tuple[str, Point]] = []
    for opening in design.of(Opening).values():
        wall = design.of(Wall)[opening.wall]
        if opening.kind != "window" or wall.floor != device.floor or wall.length_m <= 0:
            continue
        x, y = _along(wall, min(opening.offset_m + opening.width_m / 2, wall.length_m))
        nx, ny = (wall.b[1] - wall.a[1]) / wall.length_m, (wall.a[0] - wall.b[0]) / wall.length_m
        rooms = [storeys.room_at(device.floor, (x + k * _SIDE_M * nx, y + k * _SIDE_M * ny)) for k in (1, -1)]
        if any(room is None or room.outdoor for room in rooms):
            spots.append((opening.id, (x, y)))
    spots += [(k.id, k.at) for k in design.of(Light).values() if k.floor == device.floor]
    for key, spot in spots:
        away = _in_view(eye, device.azimuth_deg, lens, spot, walls)
        if away is not None and away <= near_m:
            yield key
