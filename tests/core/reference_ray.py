"""A ray traced step by step in plain Python: slow, and independent of the code it checks.

It reads the design's own elements and nothing that the core works out from them. It assumes
storeys that do not contradict each other and rays that meet no wall exactly at its end.
"""

from __future__ import annotations

import itertools
import math
from collections.abc import Iterator

from heathrise.core.catalogue import Catalogue
from heathrise.core.design import Building, Design, Device, Floor, Grove, Opening, Space, Wall

MHZ = {"2.4": 2437.0, "5": 5500.0, "6": 6500.0}
Point3 = tuple[float, float, float]
Point2 = tuple[float, float]


def inside(polygon: tuple[Point2, ...], x: float, y: float) -> bool:
    """Whether a ray to the east from the point meets the outline an odd number of times."""
    odd = False
    for (x1, y1), (x2, y2) in zip(polygon, (*polygon[1:], polygon[0]), strict=True):
        if (y1 > y) != (y2 > y) and x < x1 + (x2 - x1) * (y - y1) / (y2 - y1):
            odd = not odd
    return odd


def grid(room: Space, step_m: float = 0.37) -> Iterator[Point2]:
    """Spots inside a room, row by row."""
    xs, ys = zip(*room.outline, strict=True)
    for row in range(int((max(ys) - min(ys)) / step_m) + 1):
        for column in range(int((max(xs) - min(xs)) / step_m) + 1):
            x, y = min(xs) + (column + 0.5) * step_m, min(ys) + (row + 0.5) * step_m
            if inside(room.outline, x, y):
                yield x, y


class Site:
    """One design, looked at element by element."""

    def __init__(self, design: Design, catalogue: Catalogue) -> None:
        self.design, self.catalogue = design, catalogue
        self.floors = design.of(Floor)
        self.spaces = list(design.of(Space).values())
        self.over: dict[tuple[str, str], bool] = {}

    def next_floor(self, floor: Floor) -> Floor | None:
        above = [
            f
            for f in self.floors.values()
            if f.building == floor.building
            and f.elevation_m > floor.elevation_m
            and self.lies_over(f.id, floor.id)
        ]
        return min(above, key=lambda f: f.elevation_m, default=None)

    def lies_over(self, upper: str, lower: str) -> bool:
        """Whether a room of one storey stands over a room of another, spot by spot."""
        if (upper, lower) not in self.over:
            spots = (s for r in self.spaces if r.floor == lower and not r.outdoor for s in grid(r))
            self.over[upper, lower] = any(self.rooms_at(upper, *spot) for spot in spots)
        return self.over[upper, lower]

    def usual_top(self, floor: Floor) -> float:
        above = self.next_floor(floor)
        return above.elevation_m if above else floor.elevation_m + floor.ceiling_height_m + 0.3

    def rooms_at(self, floor: str, x: float, y: float) -> list[Space]:
        return [s for s in self.spaces if s.floor == floor and not s.outdoor and inside(s.outline, x, y)]

    def covered(self, floor: Floor, x: float, y: float) -> bool:
        """Whether a higher storey of the building has a room over the spot."""
        return any(
            f.building == floor.building and f.elevation_m > floor.elevation_m and self.rooms_at(f.id, x, y)
            for f in self.floors.values()
        )

    def wall_top(self, wall: Wall, x: float, y: float) -> float:
        """The higher of what closes the rooms on both sides of a wall at one spot of it."""
        floor = self.floors[wall.floor]
        tops = [self.usual_top(floor)]
        ux, uy = (wall.b[0] - wall.a[0]) / wall.length_m, (wall.b[1] - wall.a[1]) / wall.length_m
        for side in (0.05, -0.05):
            for room in self.rooms_at(floor.id, x - uy * side, y + ux * side):
                if room.ceiling_height_m is not None:
                    tops.append(floor.elevation_m + room.ceiling_height_m + 0.3)
        return max(tops)

    def slabs(self, x: float, y: float) -> Iterator[tuple[float, dict[str, float]]]:
        """Every slab and roof over and under one spot: height and losses."""
        losses = self.catalogue.constructions
        for floor in self.floors.values():
            below = [
                f
                for f in self.floors.values()
                if f.building == floor.building
                and f.elevation_m < floor.elevation_m
                and self.rooms_at(f.id, x, y)
            ]
            under = max(below, key=lambda f: f.elevation_m, default=None)
            hole = under and any(r.open_above for r in self.rooms_at(under.id, x, y))
            if self.rooms_at(floor.id, x, y) and not hole:
                yield floor.elevation_m, losses[floor.slab].loss_db
            for room in self.rooms_at(floor.id, x, y)[:1]:
                if not self.covered(floor, x, y):
                    own = room.ceiling_height_m or floor.ceiling_height_m
                    top = max(self.usual_top(floor), floor.elevation_m + own + 0.3)
                    roof = self.design.of(Building)[floor.building].roof
                    yield top, losses[roof].loss_db


def side_of(wall: Wall, x: float, y: float) -> float:
    (ax, ay), (bx, by) = wall.a, wall.b
    return ((bx - ax) * (y - ay) - (by - ay) * (x - ax)) / wall.length_m


def stand(site: Site, device: Device) -> Point2:
    """Where a wall mount's rays begin: 11 mm off the face of the wall that it looks away from."""
    x, y = device.at
    for wall in site.design.of(Wall).values() if device.mount == "wall" else ():
        (ax, ay), (bx, by) = wall.a, wall.b
        nx, ny = -(by - ay) / wall.length_m, (bx - ax) / wall.length_m
        azimuth = math.radians(device.azimuth_deg)
        facing = nx * math.sin(azimuth) + ny * math.cos(azimuth)
        z = site.floors[device.floor].elevation_m + device.height_m
        floor = site.floors[wall.floor]
        off = side_of(wall, x, y)
        tall = floor.elevation_m <= z < site.wall_top(wall, x - off * nx, y - off * ny)
        if abs(facing) <= 0.17 or beside(wall, device.at) > 0.15 or not tall:
            continue
        if off * math.copysign(1, facing) < 0.011:
            push = math.copysign(0.011, facing) - off
            x, y = x + push * nx, y + push * ny
    return x, y


def beside(wall: Wall, at: Point2) -> float:
    (ax, ay), (bx, by) = wall.a, wall.b
    along = ((at[0] - ax) * (bx - ax) + (at[1] - ay) * (by - ay)) / wall.length_m**2
    along = min(1.0, max(0.0, along))
    return math.dist(at, (ax + (bx - ax) * along, ay + (by - ay) * along))


def _hits(site: Site, here: Point3, there: Point3) -> Iterator[tuple]:
    """Yield (share of the ray, wall's floor, is an opening, losses, angle factor)."""
    losses = site.catalogue.constructions
    length = math.dist(here, there)
    for wall in site.design.of(Wall).values():
        start, end = side_of(wall, *here[:2]), side_of(wall, *there[:2])
        if (start > 0) == (end > 0):
            continue
        share = start / (start - end)
        x, y, z = (a + (b - a) * share for a, b in zip(here, there, strict=True))
        (ax, ay), (bx, by) = wall.a, wall.b
        along = ((x - ax) * (bx - ax) + (y - ay) * (by - ay)) / wall.length_m
        if not 0 <= along <= wall.length_m:
            continue
        floor = site.floors[wall.floor]
        if not floor.elevation_m <= z < site.wall_top(wall, x, y):
            continue
        openings = [
            o
            for o in site.design.of(Opening).values()
            if o.wall == wall.id and o.offset_m <= along <= o.offset_m + o.width_m
        ]
        factor = min(2.0, length / abs(end - start))
        opened = bool(openings) and z < site.usual_top(floor)
        made_of = openings[0].construction if opened else wall.construction
        yield share, wall.floor, opened, losses[made_of].loss_db, factor


def walls_db(site: Site, here: Point3, there: Point3, band: str) -> float:
    """What walls take; of walls met in one spot the lossiest, or the storey's opening there."""
    groups: list[list[tuple]] = []
    for hit in sorted(_hits(site, here, there), key=lambda h: h[0]):
        if groups and hit[0] - groups[-1][0][0] < 1e-3 / math.dist(here, there):
            groups[-1].append(hit)
        else:
            groups.append([hit])
    total = 0.0
    for group in groups:
        opened = {floor for _, floor, is_open, *_ in group if is_open}
        counted = [h for h in group if h[2] or h[1] not in opened]
        total += max(h[3][band] for h in counted) * group[0][4]
    return total


def slabs_db(site: Site, here: Point3, there: Point3, band: str) -> float:
    crossed: list[float] = []
    for z in sorted(_levels(site)):
        if not min(here[2], there[2]) < z < max(here[2], there[2]):
            continue
        share = (z - here[2]) / (there[2] - here[2])
        x, y = here[0] + (there[0] - here[0]) * share, here[1] + (there[1] - here[1]) * share
        crossed += [loss[band] for top, loss in site.slabs(x, y) if abs(top - z) < 1e-6]
    k = len(crossed)
    return sum(crossed) / k * k ** ((k + 2) / (k + 1) - 0.46) if k else 0.0


def _levels(site: Site) -> set[float]:
    """Every height at which some slab or roof may lie."""
    found: set[float] = set()
    for floor in site.floors.values():
        found |= {floor.elevation_m, site.usual_top(floor)}
        for space in site.spaces:
            if space.floor == floor.id and space.ceiling_height_m:
                found.add(floor.elevation_m + space.ceiling_height_m + 0.3)
    return {round(z, 9) for z in found}


def leaves_m(grove: Grove, here: Point3, there: Point3, grown_m: float = 0.0) -> float:
    """Metres of a way in a grove's leaves: cut wherever it meets the outline, the lowest leaves or the tops;
    of each piece its middle says whether it lies within. Heights over the ground."""
    cuts = [0.0, 1.0]
    for level in (grove.clear_m, grove.height_m + grown_m):
        if here[2] != there[2]:
            cuts.append((level - here[2]) / (there[2] - here[2]))
    ring = grove.outline
    for (ax, ay), (bx, by) in zip(ring, (*ring[1:], ring[0]), strict=True):
        # The edge's line as u x + v y = w.
        u, v = by - ay, ax - bx
        start, end = (u * (p[0] - ax) + v * (p[1] - ay) for p in (here, there))
        if start != end:
            cuts.append(start / (start - end))
    cuts = sorted(c for c in cuts if 0 <= c <= 1)
    found = 0.0
    for a, b in itertools.pairwise(cuts):
        x, y, h = (p + (q - p) * (a + b) / 2 for p, q in zip(here, there, strict=True))
        if inside(ring, x, y) and grove.clear_m <= h <= grove.height_m + grown_m:
            found += (b - a) * math.dist(here, there)
    return found


def takes_db(ghz: float, metres: float) -> float:
    """What so many metres of leaves take."""
    if metres <= 14:
        return 0.45 * ghz**0.284 * metres
    return max(0.45 * ghz**0.284 * 14, 1.33 * ghz**0.284 * metres**0.588)


def trees_db(site: Site, here: Point3, from_floor: str, there: Point3, floor: str, band: str) -> float:
    grounds = []
    for key in (from_floor, floor):
        mine = [f for f in site.floors.values() if f.building == site.floors[key].building and f.level >= 0]
        grounds.append(min(f.elevation_m for f in mine))
    a, b = (*here[:2], here[2] - grounds[0]), (*there[:2], there[2] - grounds[1])
    metres = sum(leaves_m(grove, a, b) for grove in site.design.of(Grove).values())
    return takes_db(MHZ[band] / 1000, metres)


def antenna_db(pattern: str, device: Device, here: Point3, there: Point3) -> float:
    """Attenuation off the boresight, from the angles themselves."""
    dx, dy, dz = (b - a for a, b in zip(here, there, strict=True))
    flat = math.hypot(dx, dy)
    elevation = math.degrees(math.atan2(dz, flat))
    if pattern == "omni":
        return min(12 * (elevation / 60) ** 2, 12.0)
    boresight = device.tilt_deg - 90 if device.mount == "ceiling" else -device.tilt_deg
    if pattern == "panel":
        bearing = (math.degrees(math.atan2(dx, dy)) - device.azimuth_deg + 180) % 360 - 180
        both = min(12 * (bearing / 65) ** 2, 25.0) + min(12 * ((elevation - boresight) / 65) ** 2, 25.0)
        return min(both, 25.0)
    e, a = math.radians(boresight), math.radians(device.azimuth_deg)
    aim = (math.sin(a) * math.cos(e), math.cos(a) * math.cos(e), math.sin(e))
    cosine = (dx * aim[0] + dy * aim[1] + dz * aim[2]) / math.dist(here, there)
    off = math.degrees(math.acos(max(-1.0, min(1.0, cosine))))
    return min(12 * (off / 120) ** 2, 12.0)


def path_loss_db(
    design: Design, catalogue: Catalogue, device: Device, floor: str, at: Point2, band: str
) -> float:
    """Return the loss in dB from an access point to a client 1.2 m over a floor."""
    site = Site(design, catalogue)
    here = (*device.at, site.floors[device.floor].elevation_m + device.height_m)
    there = (*at, site.floors[floor].elevation_m + 1.2)
    free = 20 * math.log10(MHZ[band]) - 27.55 + 20 * math.log10(max(1.0, math.dist(here, there)))
    pattern = catalogue.airs[device.model].pattern
    loss = free + antenna_db(pattern, device, here, there)
    start = (*stand(site, device), here[2])
    loss += trees_db(site, start, device.floor, there, floor, band)
    return loss + walls_db(site, start, there, band) + slabs_db(site, start, there, band)
