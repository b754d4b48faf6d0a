"""The ground of a sheet: yards, ducts, walls by their construction, openings, names of rooms."""

from __future__ import annotations

import math
from collections.abc import Iterator

from ...core.catalogue import drawing_style
from ...core.design import Design, Duct, Opening, Space, Wall
from .paper import GRANITE, INK, LETTER, PAPER, RUST, TARN, Paper, cleared, text

TONES = {"masonry": INK, "light": "#6e6a66", "timber": "#8a6a45", "metal": "#44505a", "glass": TARN}
WALL_LEAST_MM = 0.18
_ROOM_MM = 2.6


def ground(design: Design, floor: str, paper: Paper) -> Iterator[str]:
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


def walls(design: Design, floor: str, paper: Paper) -> Iterator[str]:
    style = drawing_style()
    here = {k: w for k, w in design.of(Wall).items() if w.floor == floor}
    for wall in here.values():
        pen = style.pen(wall.construction)
        wide = max(paper.mm(pen.width_m), WALL_LEAST_MM)
        dash = ""
        if pen.dash_m is not None:
            dash = f' stroke-dasharray="{" ".join(f"{paper.mm(d):.2f}" for d in pen.dash_m)}"'
        line = paper.path((wall.a, wall.b))
        cap = "butt" if dash else "square"
        yield (
            f'<path d="{line}" stroke="{TONES[pen.tone]}" stroke-width="{wide:.2f}" '
            f'stroke-linecap="{cap}"{dash}/>'
        )
        if pen.double:
            yield f'<path d="{line}" stroke="{PAPER}" stroke-width="{wide * 0.42:.2f}"/>'
        if wall.rated:
            yield f'<path d="{line}" stroke="{RUST}" stroke-width="0.3" stroke-dasharray="1.4 0.9"/>'
    for opening in design.of(Opening).values():
        host = here.get(opening.wall)
        if host is not None:
            yield from _opening(opening, host, style.pen(host.construction).width_m, paper)


def _opening(opening: Opening, wall: Wall, width_m: float, paper: Paper) -> Iterator[str]:
    ends = opening.ends_in(wall)
    wide = max(paper.mm(width_m), WALL_LEAST_MM)
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


def room_names(design: Design, floor: str, paper: Paper) -> Iterator[str]:
    from shapely.geometry import Polygon

    for space in design.of(Space).values():
        if space.floor != floor:
            continue
        ring = Polygon(space.outline)
        spot = ring.centroid if ring.contains(ring.centroid) else ring.representative_point()
        x, y = paper.at((spot.x, spot.y))
        room_mm = paper.mm(math.sqrt(ring.area)) * 1.3
        wide = len(space.name) * _ROOM_MM * LETTER
        for dy in (0.0, 5.0, -5.0):
            if wide <= room_mm and paper.free(x, y + dy, wide, _ROOM_MM):
                yield cleared(x, y + dy, wide, _ROOM_MM)
                yield text(x, y + dy, space.name, _ROOM_MM, GRANITE, 400)
                break
