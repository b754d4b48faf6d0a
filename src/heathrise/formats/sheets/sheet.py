"""A storey's sheet as SVG, to scale: the same ground, walls and marks as on the screen."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from typing import Literal

from ...core.brief import PainVerdict
from ...core.cabling import CableChapter
from ...core.catalogue import Catalogue
from ...core.design import Design, Device, Point, Space, Wall
from . import ground, marks
from .paper import EDGE_MM, Box, Paper

SCALES = (20, 50, 100, 200, 250, 500, 1000, 2000)

NO_CABLE = CableChapter()
Layer = Literal["brief", "gear", "mains", "paths", "sight"]


@dataclass
class Sheet:
    """A drawing on paper: size in mm, and the scale 1 : ``scale`` that it has.

    ``body`` is what is drawn, without the element around it.
    """

    body: str
    wide_mm: float
    high_mm: float
    scale: int

    @property
    def svg(self) -> str:
        """The drawing as a picture of its own."""
        size = f"{self.wide_mm:.2f}", f"{self.high_mm:.2f}"
        return (
            f'<svg xmlns="http://www.w3.org/2000/svg" width="{size[0]}mm" height="{size[1]}mm" '
            f'viewBox="0 0 {size[0]} {size[1]}" font-family="IBM Plex Sans Condensed, sans-serif">'
            f"{self.body}</svg>"
        )


def draw_sheet(
    design: Design,
    catalogue: Catalogue,
    floor: str,
    room_mm: tuple[float, float] | None = None,
    layers: Iterable[Layer] = ("gear",),
    pains: Sequence[PainVerdict] = (),
    cable: CableChapter = NO_CABLE,
    labels: Mapping[str, str] | None = None,
    scale: int | None = None,
) -> Sheet:
    """Return a storey's sheet at a scale, or at the largest usual one at which it fits.

    Args:
        room_mm: width and height that it may take, where no scale is given.
        layers: what is drawn over the ground: the gear, mains, paths of cable, marks of the brief,
            what cameras see.
        pains: the verdicts on complaints, by which their marks are coloured.
        cable: what is cabled, and where it lies together, for the paths.
        labels: by device what is written beside its name.
    """
    west, south, east, north = bounds(design, floor, "gear" in layers)
    if scale is None:
        scale = _fitting(east - west, north - south, room_mm or (190.0, 270.0))
    paper = Paper(west, north, scale)
    parts = [*ground.ground(design, floor, paper), *ground.walls(design, floor, paper)]
    if "paths" in layers:
        parts += marks.paths(design, cable, floor, paper)
    if "brief" in layers:
        parts += marks.brief(design, floor, paper, {p.pain: p.outcome for p in pains})
    if "sight" in layers:
        parts += marks.sight(design, catalogue, floor, paper, (west, south, east, north))
    if "mains" in layers:
        parts += marks.mains_ground(design, floor, catalogue.rules, paper)
    if "gear" in layers:
        parts += marks.gear(design, catalogue, floor, paper, labels or {})
    if "mains" in layers:
        parts += marks.mains_marks(design, floor, paper)
    parts += ground.room_names(design, floor, paper)
    wide, high = (paper.mm(size) + 2 * EDGE_MM for size in (east - west, north - south))
    return Sheet("".join(parts), wide, high, scale)


def _fitting(wide_m: float, high_m: float, room_mm: tuple[float, float]) -> int:
    for scale in SCALES:
        wide, high = (size * 1000 / scale + 2 * EDGE_MM for size in (wide_m, high_m))
        if wide <= room_mm[0] and high <= room_mm[1]:
            return scale
    return SCALES[-1]


def bounds(design: Design, floor: str, with_gear: bool) -> Box:
    """Return west, south, east, north of what a storey's sheet shows, in m."""
    points: list[Point] = []
    points += [p for s in design.of(Space).values() if s.floor == floor for p in s.outline]
    points += [p for w in design.of(Wall).values() if w.floor == floor for p in (w.a, w.b)]
    if with_gear or not points:
        points += [d.at for d in design.of(Device).values() if d.floor == floor]
    xs, ys = zip(*(points or [(0.0, 0.0)]), strict=True)
    west, south = min(xs), min(ys)
    return west, south, max(*xs, west + 1), max(*ys, south + 1)
