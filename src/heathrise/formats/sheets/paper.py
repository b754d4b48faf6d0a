"""The paper a sheet is drawn on: where the site lies on it, and what is taken already."""

from __future__ import annotations

import math
from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass, field
from html import escape

from ...core.base.plain_text import plain_line

INK, GRANITE, PAPER = "#2b2622", "#65605c", "#ffffff"
HEATHER, MOSS, GORSE, RUST, TARN = "#6d4a7e", "#4c6a3c", "#7d5c00", "#a8442a", "#2f6f86"
LETTER = 0.52  # width of a letter over its height
EDGE_MM = 6.0
# Of the type; its capitals are 0.7 of that: 1.8 mm, the least that a drawing is read by (ISO 3098).
NAME_MM, LABEL_MM = 2.6, 2.6
MARK_MM = 2.2  # half of a mark's field
_APART_MM = 4.6
_RINGS_MM = (4.6, 7.0, 9.5)
_TURNS = 12

PaperPoint = tuple[float, float]
Box = tuple[float, float, float, float]


@dataclass
class Paper:
    """Where the site lies on the paper, in mm from its upper left corner, and what is taken."""

    west: float
    north: float
    scale: int
    taken: list[Box] = field(default_factory=list)
    marks: list[PaperPoint] = field(default_factory=list)

    def mm(self, metres: float) -> float:
        return metres * 1000 / self.scale

    def at(self, point: Sequence[float]) -> tuple[float, float]:
        x, y = self.mm(point[0] - self.west), self.mm(self.north - point[1])
        return x + EDGE_MM, y + EDGE_MM

    def path(self, points: Iterable[Sequence[float]]) -> str:
        spots = (self.at(p) for p in points)
        return "M" + "L".join(f"{x:.2f} {y:.2f}" for x, y in spots)

    def free(self, x: float, y: float, wide: float, high: float) -> bool:
        """Take the room of a text about ``x``, over ``y``, if nothing lies there."""
        box = (x - wide / 2, y - high, x + wide / 2, y + 0.3)
        if self.meets(box):
            return False
        self.taken.append(box)
        return True

    def meets(self, box: Box) -> bool:
        """Whether something lies in a box already."""
        return any(box[0] < b[2] and box[2] > b[0] and box[1] < b[3] and box[3] > b[1] for b in self.taken)

    def stand(self, at: PaperPoint, beside: PaperPoint | None = None) -> PaperPoint:
        """Return where a mark is drawn: where it stands or, where another is drawn already, on the
        nearest free spot about it, or about what it stands ``beside``."""
        x, y = beside or at
        steps = [2 * math.pi * k / _TURNS for k in range(_TURNS)]
        round_it = ((math.cos(a) * r, math.sin(a) * r) for r in _RINGS_MM for a in steps)
        spots = ((x + dx, y + dy) for dx, dy in ((0.0, 0.0), *round_it))
        apart = _APART_MM - 0.05
        found = next((s for s in spots if all(math.dist(s, m) >= apart for m in self.marks)), at)
        self.marks.append(found)
        x, y = found
        self.taken.append((x - MARK_MM, y - MARK_MM, x + MARK_MM, y + MARK_MM))
        return found

    def name_beside(self, name: str, x: float, y: float, tone: str, label: str = "") -> Iterator[str]:
        """Yield a name where it lies on nothing: below, above, right or left, or nowhere; the
        label under it where there is room for both."""
        options = [(name, label), (name, "")] if label else [(name, "")]
        for first, second in options:
            wide = max(len(first) * NAME_MM * LETTER, len(second) * LABEL_MM * LETTER)
            high = NAME_MM + (LABEL_MM + 0.3 if second else 0.0)
            more = high - NAME_MM
            beside = wide / 2 + 2.6
            below, above = 4.9 + more, -3.0
            for dx, dy in (
                (0.0, below),
                (0.0, above),
                (beside, 0.9),
                (-beside, 0.9),
                (beside, below),
                (-beside, below),
                (beside, above),
                (-beside, above),
            ):
                if self.free(x + dx, y + dy, wide, high):
                    yield cleared(x + dx, y + dy, wide, high)
                    yield text(x + dx, y + dy - more, first, NAME_MM, tone, 600)
                    if second:
                        yield text(x + dx, y + dy, second, LABEL_MM, GRANITE, 400)
                    return


def cleared(x: float, y: float, wide: float, high: float) -> str:
    """Return the ground of a text about ``x``, over ``y``: what lies under it, a path above all,
    would cross it out."""
    return (
        f'<rect x="{x - wide / 2:.2f}" y="{y - high + 0.2:.2f}" width="{wide:.2f}" '
        f'height="{high + 0.3:.2f}" fill="{PAPER}" fill-opacity="0.85"/>'
    )


def text(x: float, y: float, said: str, size: float, tone: str, weight: int, anchor: str = "middle") -> str:
    """Return a line of text; ``y`` is its baseline, sizes in mm."""
    return (
        f'<text x="{x:.2f}" y="{y:.2f}" font-size="{size}" font-weight="{weight}" '
        f'text-anchor="{anchor}" fill="{tone}">{escape(plain_line(said))}</text>'
    )
