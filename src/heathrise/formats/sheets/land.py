"""The whole site on one sheet, to scale: buildings, trees, what lies in the ground, what is dug and how
deep, lines over the land and where both their ends are turned."""

from __future__ import annotations

import itertools
import math
from collections.abc import Callable, Iterator, Sequence

from ...core.design import Carries, Point
from ...core.laying import DUG_SAID
from ...core.views.site import SiteDuct, SiteFarWay, SiteMeeting, SiteView
from .marks import mark
from .paper import EDGE_MM, GRANITE, HEATHER, INK, MOSS, PAPER, RUST, TARN, Box, Paper, PaperPoint, text
from .sheet import Sheet
from .words import SMALL_MM, along, beside

Length = Callable[[float, int], str]
LAND_SCALES = (50, 100, 200, 250, 500, 1000, 2000, 2500, 5000, 10_000, 20_000, 50_000, 100_000)
LETTERS: dict[Carries, str] = {
    "electricity": "E",
    "gas": "G",
    "water": "W",
    "drain": "D",
    "telecom": "T",
    "heating": "H",
    "unknown": "?",
}
_DANGEROUS = frozenset({"gas", "electricity"})
_ROW_MM = 4.2
_LEAST_LEG_MM = 14.0
_LAND_M = 4.0  # drawn about what stands at the edge
_APART_M = 50.0  # buildings farther from each other have no dimension between them
_SMALL_HOUSE_MM = 40.0  # one that is drawn smaller has its words beside it
_FAR = 1e5
_LINE_MM = 1.4  # about a line that no words may stand on
_COLUMNS = (0.0, 46.0, 64.0, 80.0, 96.0, 116.0, 152.0)  # of the list of trenches, mm
_HEADS = ("Trench", "Long", "Deep", "Wide", "Spoil", "How it is dug", "One person")
_NUMBERS = frozenset({"Long", "Deep", "Wide", "Spoil", "One person"})
_NUMBER_MM = 12.0
_TABLE_MM = 176.0
_TABLE_SHARE = 0.4  # of a page that the list takes at most


def has_land(view: SiteView) -> bool:
    """Whether there is more to a site than one building."""
    return len(view.buildings) > 1 or bool(view.ducts or view.services or view.groves or view.places)


def draw_land(view: SiteView, room_mm: tuple[float, float], length: Length) -> Sheet:
    """Return the site at the largest usual scale at which it and the list of its trenches fit.

    Args:
        length: a length in m, with so many digits, in words of the units of the paper.
    """
    west, south, east, north = _bounds(view)
    rows = _that_fit(list(_rows(view, length)), room_mm[1])
    table_mm = (len(rows) + 1) * _ROW_MM + 4 if rows else 0.0
    wide_m, high_m = east - west, north - south
    scale = next(
        (
            s
            for s in LAND_SCALES
            if wide_m * 1000 / s + 2 * EDGE_MM <= room_mm[0]
            and high_m * 1000 / s + 2 * EDGE_MM + table_mm <= room_mm[1]
        ),
        LAND_SCALES[-1],
    )
    paper = Paper(west, north, scale)
    wide, high = (paper.mm(size) + 2 * EDGE_MM for size in (wide_m, high_m))
    # No words run over the edge.
    paper.taken += [(-_FAR, -_FAR, 1, _FAR), (-_FAR, -_FAR, _FAR, 1)]
    paper.taken += [(wide - 1, -_FAR, _FAR, _FAR), (-_FAR, high - 1, _FAR, _FAR)]
    parts = [
        *_ground(view, paper),
        *_ways(view, paper),
        *_standing(view, paper),
        *_words(view, paper, length),
    ]
    if rows:
        parts += _table(rows, high + 2)
        wide, high = max(wide, _TABLE_MM + 2 * EDGE_MM), high + table_mm
    return Sheet("".join(parts), wide, high, scale)


def land_legend(view: SiteView) -> list[str]:
    """Return the legend of what a site's sheet shows, rows of 34 by 3.4 mm."""
    rows = []

    def row(there: object, drawn: str, said: str) -> None:
        if there:
            rows.append(drawn + text(7.4, 1.9, said, 2.1, INK, 400, "start"))

    row(view.ducts, _line("M0 1.2H6", TARN, 0.8), "Duct, dug")
    row([f for f in view.far if f.lies == "ground"], _line("M0 1.2H6", TARN, 0.8), "Trench to a far place")
    row([f for f in view.far if f.lies == "air"], _line("M0 1.2H6", HEATHER, 0.4, "1.6 1"), "Over the air")
    row(
        [p for p in view.places if p.point not in {f.point for f in view.far}],
        _line("M0 1.2H6", GRANITE, 0.2, "0.4 1.2"),
        "No way chosen yet",
    )
    told = [s for s in view.services if not s.found]
    row(told, _line("M0 1.2H6", GRANITE, 0.4, "1.6 1"), "Buried, as told")
    row([s for s in view.services if s.found], _line("M0 1.2H6", GRANITE, 0.4), "Buried, located")
    row(list(_meetings(view)), _cross(3, 1.2), "Dig by hand")
    leaves = (
        f'<rect x="0.4" y="0.2" width="5.2" height="2" fill="{MOSS}" fill-opacity="0.18" stroke="{MOSS}" '
    )
    row(view.groves, f'{leaves}stroke-width="0.2" stroke-dasharray="1.2 0.6"/>', "Trees")
    return rows


def _bounds(view: SiteView) -> Box:
    points: list[Point] = [p for b in view.buildings for ring in b.outline for p in ring]
    points += [p for d in view.ducts for p in d.path]
    points += [p for s in view.services for p in s.path]
    points += [p for g in view.groves for p in g.outline]
    points += [p.at for p in view.places]
    points += [m.at for m in view.marks]
    xs, ys = zip(*(points or [(0.0, 0.0)]), strict=True)
    land = max(_LAND_M, 0.03 * max(max(xs) - min(xs), max(ys) - min(ys)))
    return min(xs) - land, min(ys) - land, max(xs) + land, max(ys) + land


def _line(d: str, tone: str, wide: float, dash: str = "") -> str:
    dashed = f' stroke-dasharray="{dash}"' if dash else ""
    return f'<path d="{d}" fill="none" stroke="{tone}" stroke-width="{wide}"{dashed}/>'


def _cross(x: float, y: float) -> str:
    d = f"M{x - 1.2:.2f} {y - 1.2:.2f}l2.4 2.4m0 -2.4l-2.4 2.4"
    return _line(d, RUST, 0.5)


def _ground(view: SiteView, paper: Paper) -> Iterator[str]:
    for grove in view.groves:
        yield (
            f'<path d="{paper.path(grove.outline)}Z" fill="{MOSS}" fill-opacity="0.15" stroke="{MOSS}" '
            'stroke-width="0.3" stroke-dasharray="1.6 0.8"/>'
        )
    for yard in view.yards:
        yield _line(f"{paper.path(yard.outline)}Z", GRANITE, 0.2, "1.2 0.9")
    for service in view.services:
        tone = RUST if service.carries in _DANGEROUS else GRANITE
        yield _line(paper.path(service.path), tone, 0.4, "" if service.found else "1.6 1")


def _ways(view: SiteView, paper: Paper) -> Iterator[str]:
    drawn = {f.point for f in view.far if f.lies != "none"}
    for place in view.places:
        if place.from_at is not None and place.point not in drawn:
            yield _line(paper.path((place.from_at, place.at)), GRANITE, 0.2, "0.4 1.2")
    for duct in view.ducts:
        yield _line(paper.path(duct.path), TARN, 0.8, "0.6 1" if duct.dug == "there" else "")
        _keep_clear(paper, duct.path)
    for way in view.far:
        if way.lies != "none":
            _keep_clear(paper, way.path)
        if way.lies == "ground":
            yield _line(paper.path(way.path), TARN, 0.8)
        elif way.lies == "air":
            yield _line(paper.path(way.path), HEATHER, 0.4, "1.6 1")
        for joint in way.joints:
            x, y = paper.at(joint)
            yield (
                f'<rect x="{x - 1.1:.2f}" y="{y - 1.1:.2f}" width="2.2" height="2.2" fill="{PAPER}" '
                f'stroke="{TARN}" stroke-width="0.4"/>'
            )


def _keep_clear(paper: Paper, path: Sequence[Point]) -> None:
    """Take the room of a line, piece by piece: words stand beside it."""
    for a, b in itertools.pairwise(path):
        (ax, ay), (bx, by) = paper.at(a), paper.at(b)
        count = max(1, round(math.hypot(bx - ax, by - ay) / _LINE_MM))
        for k in range(count + 1):
            x, y = ax + (bx - ax) * k / count, ay + (by - ay) * k / count
            paper.taken.append((x - _LINE_MM / 2, y - _LINE_MM / 2, x + _LINE_MM / 2, y + _LINE_MM / 2))


def _standing(view: SiteView, paper: Paper) -> Iterator[str]:
    for building in view.buildings:
        rings = "".join(f"{paper.path(ring)}Z" for ring in building.outline)
        yield (
            f'<path d="{rings}" fill="{PAPER}" fill-rule="evenodd" stroke="{INK}" stroke-width="0.5" '
            'fill-opacity="0.85"/>'
        )
        xs, ys = zip(*(paper.at(p) for ring in building.outline for p in ring), strict=True)
        if max(xs) - min(xs) < _SMALL_HOUSE_MM:
            paper.taken.append((min(xs), min(ys), max(xs), max(ys)))
    for m in view.marks:
        if m.kind == "equipment_room":
            yield mark("hut", *paper.at(m.at), None)
    for service in view.services:
        x, y = paper.at(service.path[0])
        tone = RUST if service.carries in _DANGEROUS else GRANITE
        paper.taken.append((x - 2, y - 2, x + 2, y + 2))
        yield f'<circle cx="{x:.2f}" cy="{y:.2f}" r="1.8" fill="{PAPER}" stroke="{tone}" stroke-width="0.3"/>'
        yield text(x, y + 0.8, LETTERS[service.carries], 2.4, tone, 600)
    for meeting in _meetings(view):
        x, y = paper.at(meeting.at)
        paper.taken.append((x - 1.7, y - 1.7, x + 1.7, y + 1.7))
        yield _cross(x, y)
    for place in view.places:
        x, y = paper.at(place.at)
        paper.taken.append((x - 1.5, y - 4.5, x + 1.5, y + 0.5))
        yield _line(f"M{x:.2f} {y:.2f}v-4.2m-1.4 4.2h2.8m-2.6 -4.2h2.4m-1.9 1h1.4", INK, 0.45)


def _words(view: SiteView, paper: Paper, length: Length) -> Iterator[str]:
    """Yield names and sizes where they lie on nothing: of what is dug first, then of what stands there."""
    for duct in view.ducts:
        yield from _duct_words(duct, paper, length)
    for way in view.far:
        yield from _way_words(way, paper, length)
    for meeting in _meetings(view):
        yield from beside(paper, paper.at(meeting.at), ("by hand",), RUST)
    without_line = {f.point: f.label for f in view.far if f.lies == "none"}
    for place in view.places:
        label = without_line.get(place.point)
        said = f"{length(place.length_m, 0)}, {label}" if label else length(place.length_m, 0)
        yield from beside(paper, paper.at(place.at), (place.name, said), INK)
    for building in view.buildings:
        ground = f"ground {length(building.ground_m, 2)}" if building.ground_m else "ground 0"
        words = (building.name, f"{ground}, {length(building.top_m - building.ground_m, 1)} high")
        xs, ys = zip(*(p for ring in building.outline for p in ring), strict=True)
        half = paper.mm(max(xs) - min(xs)) / 2, paper.mm(max(ys) - min(ys)) / 2
        at = paper.at(((min(xs) + max(xs)) / 2, (min(ys) + max(ys)) / 2))
        yield from beside(paper, at, words, INK, half)
    for gap in view.gaps:
        if gap.clear and 0 < gap.gap_m <= _APART_M:
            yield from _apart(paper, (gap.from_at, gap.to_at), length(gap.gap_m, 2))
    for grove in view.groves:
        words = (grove.name, f"{length(grove.height_m, 1)} high now")
        yield from beside(paper, paper.at(grove.at), words, MOSS)


def _duct_words(duct: SiteDuct, paper: Paper, length: Length) -> Iterator[str]:
    """Yield the name and size of a duct, and the length of each leg where there are several."""
    if len(duct.path) > 2:
        for a, b in itertools.pairwise(duct.path):
            long = math.dist(a, b)
            if paper.mm(long) >= _LEAST_LEG_MM:
                yield from beside(paper, _middle(paper, (a, b)), (length(long, 1),), TARN)
    size = "lies there" if duct.dug == "there" else f"{length(duct.depth_m, 2)} deep"
    k = (len(duct.path) - 1) // 2
    leg = duct.path[k], duct.path[k + 1]
    yield from along(paper, leg, duct.name, f"{length(duct.length_m, 1)}, {size}", TARN)


def _way_words(way: SiteFarWay, paper: Paper, length: Length) -> Iterator[str]:
    if way.size is not None:
        said = f"{length(way.size.metres, 0)} of trench, {length(way.size.depth_m, 2)} deep"
    elif way.lies == "air":
        said = f"aim {way.bearing_deg:.0f}° and {way.back_deg:.0f}°, tilt {way.tilt_deg:+.1f}°"
    else:
        return
    tone = TARN if way.size is not None else HEATHER
    yield from along(paper, way.path, way.label, said, tone, f"{way.name}: ")
    for a, b in itertools.pairwise((way.path[0], *way.joints, way.path[1])):
        if way.joints and paper.mm(math.dist(a, b)) >= _LEAST_LEG_MM:
            yield from beside(paper, _middle(paper, (a, b)), (length(math.dist(a, b), 0),), tone)


def _apart(paper: Paper, ends: tuple[Point, Point], apart: str) -> Iterator[str]:
    """Yield how far two buildings stand apart, as a dimension: a line with a tick at either end."""
    (ax, ay), (bx, by) = (paper.at(p) for p in ends)
    long = math.hypot(bx - ax, by - ay)
    if long < _LEAST_LEG_MM / 2:
        return
    nx, ny = -(by - ay) / long, (bx - ax) / long
    ticks = "".join(f"M{x - nx:.2f} {y - ny:.2f}L{x + nx:.2f} {y + ny:.2f}" for x, y in ((ax, ay), (bx, by)))
    yield _line(f"M{ax:.2f} {ay:.2f}L{bx:.2f} {by:.2f}{ticks}", GRANITE, 0.2)
    yield from beside(paper, ((ax + bx) / 2, (ay + by) / 2), (apart,), GRANITE)


def _middle(paper: Paper, ends: Sequence[Point]) -> PaperPoint:
    (ax, ay), (bx, by) = ends
    return paper.at(((ax + bx) / 2, (ay + by) / 2))


def _meetings(view: SiteView) -> Iterator[SiteMeeting]:
    yield from (m for duct in view.ducts for m in duct.meetings)
    yield from (m for way in view.far for m in way.meetings)


def _rows(view: SiteView, length: Length) -> Iterator[tuple[str, ...]]:
    """Yield the list of what is dug: name, size, spoil, how, hours of one person."""
    trenches = [(d.name, d.size, d.dig_minutes) for d in view.ducts if d.dug != "there"]
    trenches += [(f.name, f.size, f.dig_minutes) for f in view.far if f.size is not None]
    for name, size, minutes in trenches:
        yield (
            name if len(name) <= 28 else f"{name[:27]}…",
            length(size.metres, 0),
            length(size.depth_m, 2),
            length(size.width_m, 2) if size.width_m else "slit",
            f"{size.spoil_m3:g}\u00a0m³" if size.spoil_m3 else "none",
            DUG_SAID[size.dug],
            f"{minutes / 60:.1f}\u00a0h",
        )


def _that_fit(rows: list[tuple[str, ...]], high_mm: float) -> list[tuple[str, ...]]:
    """Return rows that leave most of a page to the drawing; the last says how many more there are."""
    most = max(1, int(_TABLE_SHARE * high_mm / _ROW_MM) - 1)
    if len(rows) <= most:
        return rows
    more = f"and {len(rows) - most + 1} more"
    return [*rows[: most - 1], (more, *[""] * 4, "on the work list", "")]


def _table(rows: Sequence[tuple[str, ...]], top: float) -> Iterator[str]:
    y = top + 3
    for x, head in zip(_COLUMNS, _HEADS, strict=True):
        number = head in _NUMBERS
        at = EDGE_MM + x + (_NUMBER_MM if number else 0)
        yield text(at, y, head, SMALL_MM, GRANITE, 600, "end" if number else "start")
    yield _line(f"M{EDGE_MM} {y + 1.2:.2f}h{_TABLE_MM}", GRANITE, 0.2)
    for row in rows:
        y += _ROW_MM
        for k, (x, head, cell) in enumerate(zip(_COLUMNS, _HEADS, row, strict=True)):
            number = head in _NUMBERS
            at = EDGE_MM + x + (_NUMBER_MM if number else 0)
            anchor = "end" if number else "start"
            yield text(at, y, cell, SMALL_MM, INK, 600 if k == 0 else 400, anchor)
