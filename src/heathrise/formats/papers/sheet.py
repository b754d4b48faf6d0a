"""A storey's sheet as SVG, to scale: the same ground, walls and marks as on the screen."""

from __future__ import annotations

import math
from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from html import escape
from typing import Literal

from ...core.brief import PainVerdict
from ...core.catalogue import Catalogue, drawing_style
from ...core.design import (
    Design,
    Device,
    Duct,
    EquipmentRoom,
    Floor,
    LineEntry,
    OldCable,
    Opening,
    Pain,
    Point,
    Riser,
    Space,
    Wall,
    Zone,
)

SCALES = (20, 50, 100, 200, 250, 500, 1000, 2000)
INK, GRANITE, PAPER = "#2b2622", "#65605c", "#ffffff"
HEATHER, MOSS, GORSE, RUST, TARN = "#6d4a7e", "#4c6a3c", "#7d5c00", "#a8442a", "#2f6f86"
_TONES = {
    "masonry": INK, "light": "#6e6a66", "timber": "#8a6a45", "metal": "#44505a", "glass": TARN,
}  # fmt: skip
_OUTCOMES = {"mended": MOSS, "better": GORSE, "not_addressed": RUST}
_MARK = 0.24  # mm to a unit of a mark's field
_NAME_MM, _ROOM_MM = 2.0, 2.3
_LETTER = 0.52  # width of a letter over its height
_EDGE_MM = 6.0
_WALL_LEAST_MM = 0.18

Layer = Literal["brief", "gear"]
Box = tuple[float, float, float, float]


@dataclass
class Sheet:
    """A drawing on paper: size in mm, and the scale 1 : ``scale`` that it has."""

    svg: str
    wide_mm: float
    high_mm: float
    scale: int


@dataclass
class _Paper:
    """Where the site lies on the paper, in mm from its upper left corner, and what is taken."""

    west: float
    north: float
    scale: int
    taken: list[Box] = field(default_factory=list)

    def mm(self, metres: float) -> float:
        return metres * 1000 / self.scale

    def at(self, point: Sequence[float]) -> tuple[float, float]:
        x, y = self.mm(point[0] - self.west), self.mm(self.north - point[1])
        return x + _EDGE_MM, y + _EDGE_MM

    def path(self, points: Iterable[Sequence[float]]) -> str:
        spots = (self.at(p) for p in points)
        return "M" + "L".join(f"{x:.2f} {y:.2f}" for x, y in spots)


def draw_sheet(
    design: Design,
    catalogue: Catalogue,
    floor: str,
    room_mm: tuple[float, float],
    layers: Iterable[Layer] = ("gear",),
    pains: Sequence[PainVerdict] = (),
) -> Sheet:
    """Return a storey's sheet at the largest usual scale at which it fits.

    Args:
        room_mm: width and height that it may take.
        layers: what is drawn over the ground: the gear, the marks of the brief.
        pains: the verdicts on complaints, by which their marks are coloured.
    """
    west, south, east, north = _bounds(design, floor)
    for scale in SCALES:
        wide = (east - west) * 1000 / scale + 2 * _EDGE_MM
        high = (north - south) * 1000 / scale + 2 * _EDGE_MM
        if wide <= room_mm[0] and high <= room_mm[1]:
            break
    paper = _Paper(west, north, scale)
    parts = [*_ground(design, floor, paper), *_walls(design, floor, paper)]
    if "brief" in layers:
        parts += _brief(design, floor, paper, {p.pain: p.outcome for p in pains})
    if "gear" in layers:
        parts += _gear(design, catalogue, floor, paper)
    parts += _room_names(design, floor, paper)
    body = "".join(parts)
    svg = (
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{wide:.2f}mm" height="{high:.2f}mm" '
        f'viewBox="0 0 {wide:.2f} {high:.2f}" font-family="IBM Plex Sans Condensed">{body}</svg>'
    )
    return Sheet(svg, wide, high, scale)


def _bounds(design: Design, floor: str) -> Box:
    points: list[Point] = []
    points += [p for s in design.of(Space).values() if s.floor == floor for p in s.outline]
    points += [p for w in design.of(Wall).values() if w.floor == floor for p in (w.a, w.b)]
    if not points:
        points = [d.at for d in design.of(Device).values() if d.floor == floor] or [(0, 0)]
    xs, ys = zip(*points, strict=True)
    west, south = min(xs), min(ys)
    return west, south, max(*xs, west + 1), max(*ys, south + 1)


def _ground(design: Design, floor: str, paper: _Paper) -> Iterator[str]:
    for space in design.of(Space).values():
        if space.floor == floor and space.outdoor:
            yield (
                f'<path d="{paper.path(space.outline)}Z" fill="none" stroke="{GRANITE}" '
                'stroke-width="0.2" stroke-dasharray="1.2 0.9"/>'
            )
    for duct in design.of(Duct).values():
        if floor in (duct.from_floor, duct.to_floor):
            yield (
                f'<path d="{paper.path(duct.path)}" fill="none" stroke="{GRANITE}" '
                'stroke-width="0.9" stroke-dasharray="0.3 1.2"/>'
            )


def _walls(design: Design, floor: str, paper: _Paper) -> Iterator[str]:
    style = drawing_style()
    walls = {k: w for k, w in design.of(Wall).items() if w.floor == floor}
    for wall in walls.values():
        pen = style.pen(wall.construction)
        wide = max(paper.mm(pen.width_m), _WALL_LEAST_MM)
        dash = ""
        if pen.dash_m is not None:
            dash = f' stroke-dasharray="{" ".join(f"{paper.mm(d):.2f}" for d in pen.dash_m)}"'
        line = paper.path((wall.a, wall.b))
        cap = "butt" if dash else "square"
        yield (
            f'<path d="{line}" stroke="{_TONES[pen.tone]}" stroke-width="{wide:.2f}" '
            f'stroke-linecap="{cap}"{dash}/>'
        )
        if pen.double:
            yield f'<path d="{line}" stroke="{PAPER}" stroke-width="{wide * 0.42:.2f}"/>'
    for opening in design.of(Opening).values():
        host = walls.get(opening.wall)
        if host is not None:
            yield from _opening(opening, host, style.pen(host.construction).width_m, paper)


def _opening(opening: Opening, wall: Wall, width_m: float, paper: _Paper) -> Iterator[str]:
    ux, uy = (wall.b[0] - wall.a[0]) / wall.length_m, (wall.b[1] - wall.a[1]) / wall.length_m
    ends = [
        (wall.a[0] + ux * t, wall.a[1] + uy * t)
        for t in (opening.offset_m, opening.offset_m + opening.width_m)
    ]
    wide = max(paper.mm(width_m), _WALL_LEAST_MM)
    line = paper.path(ends)
    yield f'<path d="{line}" stroke="{PAPER}" stroke-width="{wide + 0.15:.2f}"/>'
    if opening.kind == "window":
        yield f'<path d="{line}" stroke="{TARN}" stroke-width="{wide * 0.6:.2f}"/>'
        yield f'<path d="{line}" stroke="{PAPER}" stroke-width="{wide * 0.25:.2f}"/>'
    elif opening.kind == "door":
        (ax, ay), (bx, by) = ends
        tip = paper.at((ax - (by - ay), ay + (bx - ax)))
        size = paper.mm(opening.width_m)
        start, end = paper.at(ends[0]), paper.at(ends[1])
        yield (
            f'<path d="M{start[0]:.2f} {start[1]:.2f}L{tip[0]:.2f} {tip[1]:.2f}'
            f'A{size:.2f} {size:.2f} 0 0 1 {end[0]:.2f} {end[1]:.2f}" fill="none" '
            f'stroke="{GRANITE}" stroke-width="0.15"/>'
        )


def _mark(shape: str, x: float, y: float, turn: float | None, tone: str = INK) -> str:
    mark = drawing_style().marks[shape]
    parts = []
    for stroke in mark.strokes:
        if stroke.drawn == "aim" and turn is None:
            continue
        fill = {"body": PAPER, "clear": PAPER, "dot": tone}.get(stroke.drawn, "none")
        line = tone if stroke.drawn in ("body", "line", "aim") else "none"
        rotate = (
            f' transform="rotate({turn or 0:g})"' if mark.turns or stroke.drawn == "aim" else ""
        )
        parts.append(
            f'<path d="{stroke.d}" fill="{fill}" stroke="{line}" stroke-width="1.8" '
            f'stroke-linejoin="round" stroke-linecap="round"{rotate}/>'
        )
    return f'<g transform="translate({x:.2f} {y:.2f}) scale({_MARK})">{"".join(parts)}</g>'


def _gear(design: Design, catalogue: Catalogue, floor: str, paper: _Paper) -> Iterator[str]:
    level = design.of(Floor)[floor]
    marks: list[tuple[str, str, Point, float | None, str]] = [
        ("hut", r.name, r.at, None, INK)
        for r in design.of(EquipmentRoom).values()
        if r.floor == floor
    ]
    marks += [
        ("well", r.name, r.at, None, INK)
        for r in design.of(Riser).values()
        if r.building == level.building and r.lowest_level <= level.level <= r.highest_level
    ]
    for device in design.of(Device).values():
        if device.floor == floor:
            role = catalogue.role_of(device)
            turn = device.azimuth_deg if role.aimed or device.mount != "ceiling" else None
            tone = INK if device.state in ("new", "keep") else GRANITE
            marks.append((role.mark, device.name, device.at, turn, tone))
    for shape, _, at, turn, tone in marks:
        x, y = paper.at(at)
        paper.taken.append((x - 2.2, y - 2.2, x + 2.2, y + 2.2))
        yield _mark(shape, x, y, turn, tone)
    for _, name, at, _, tone in marks:
        yield from _name_beside(paper, name, *paper.at(at), tone)


def _name_beside(paper: _Paper, name: str, x: float, y: float, tone: str) -> Iterator[str]:
    """Yield a name where it lies on nothing: below, above, to the right or left, or nowhere."""
    wide = len(name) * _NAME_MM * _LETTER
    for dx, dy in ((0.0, 4.4), (0.0, -3.0), (wide / 2 + 2.6, 0.7), (-wide / 2 - 2.6, 0.7)):
        if _free(paper, x + dx, y + dy, wide, _NAME_MM):
            yield _text(x + dx, y + dy, name, _NAME_MM, tone, 600)
            return


def _free(paper: _Paper, x: float, y: float, wide: float, high: float) -> bool:
    box = (x - wide / 2, y - high, x + wide / 2, y + 0.3)
    if any(
        box[0] < b[2] and box[2] > b[0] and box[1] < b[3] and box[3] > b[1] for b in paper.taken
    ):
        return False
    paper.taken.append(box)
    return True


def _text(x: float, y: float, text: str, size: float, tone: str, weight: int) -> str:
    return (
        f'<text x="{x:.2f}" y="{y:.2f}" font-size="{size}" font-weight="{weight}" '
        f'text-anchor="middle" fill="{tone}">{escape(text)}</text>'
    )


def _room_names(design: Design, floor: str, paper: _Paper) -> Iterator[str]:
    from shapely.geometry import Polygon

    for space in design.of(Space).values():
        if space.floor != floor:
            continue
        ring = Polygon(space.outline)
        spot = ring.centroid if ring.contains(ring.centroid) else ring.representative_point()
        x, y = paper.at((spot.x, spot.y))
        room_mm = paper.mm(math.sqrt(ring.area)) * 1.3
        wide = len(space.name) * _ROOM_MM * _LETTER
        for dy in (0.0, 5.0, -5.0):
            if wide <= room_mm and _free(paper, x, y + dy, wide, _ROOM_MM):
                yield _text(x, y + dy, space.name, _ROOM_MM, GRANITE, 400)
                break


def _brief(design: Design, floor: str, paper: _Paper, outcomes: Mapping[str, str]) -> Iterator[str]:
    for zone in design.of(Zone).values():
        if zone.floor == floor:
            tone = TARN if zone.kind == "later" else RUST
            yield (
                f'<path d="{paper.path(zone.outline)}Z" fill="{tone}" fill-opacity="0.08" '
                f'stroke="{tone}" stroke-width="0.3" stroke-dasharray="1.6 1"/>'
            )
    for cable in design.of(OldCable).values():
        if cable.floor == floor:
            yield (
                f'<path d="{paper.path((cable.a, cable.b))}" stroke="{GRANITE}" '
                'stroke-width="0.5" stroke-dasharray="2.4 0.8 0.5 0.8"/>'
            )
    for entry in design.of(LineEntry).values():
        if entry.floor == floor:
            x, y = paper.at(entry.at)
            paper.taken.append((x - 3.5, y - 2, x + 2.2, y + 2))
            yield (
                f'<path transform="translate({x:.2f} {y:.2f}) scale({_MARK})" '
                f'd="M-13 0H3M-2 -5L4 0L-2 5M7 -8V8" fill="none" stroke="{TARN}" '
                'stroke-width="2.4" stroke-linecap="round"/>'
            )
    for number, pain in enumerate(design.of(Pain).values(), start=1):
        if pain.floor == floor:
            x, y = paper.at(pain.at)
            tone = _OUTCOMES[outcomes.get(pain.id, "not_addressed")]
            paper.taken.append((x - 2.6, y - 2.6, x + 2.6, y + 2.6))
            yield (
                f'<path d="M{x:.2f} {y - 2.6:.2f}l2.6 2.6l-2.6 2.6l-2.6 -2.6Z" fill="{PAPER}" '
                f'stroke="{tone}" stroke-width="0.5"/>'
                + _text(x, y + 0.8, str(number), 2.3, tone, 600)
            )
