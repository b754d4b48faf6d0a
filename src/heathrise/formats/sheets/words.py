"""Words on a sheet where they lie on nothing: along a line, or beside a spot."""

from __future__ import annotations

import math
from collections.abc import Iterable, Iterator

from ...core.design import Point
from .paper import GRANITE, NAME_MM, Box, Paper, PaperPoint, cleared, text

SMALL_MM = 2.3
_LETTER = 0.45  # width of a letter of the condensed type over its height
_OVER_MM = 6.0  # by which words may be longer than the line that they stand along, to either side
_OFF_MM = 2.2  # from a line to the middle of words along it


def along(
    paper: Paper, ends: tuple[Point, Point], name: str, size: str, tone: str, whose: str = ""
) -> Iterator[str]:
    """Yield a name over a line and its size under it, both turned as it runs, where they lie on nothing;
    beside its middle, saying ``whose`` it is, where it is too short for them or others lie there."""
    (ax, ay), (bx, by) = sorted(paper.at(p) for p in ends)
    long, wide = math.hypot(bx - ax, by - ay), max(len(name), len(size)) * NAME_MM * _LETTER
    ux, uy = (bx - ax) / long, (by - ay) / long
    for share in (0.5, 0.35, 0.65, 0.25, 0.75):
        x, y = ax + (bx - ax) * share, ay + (by - ay) * share
        boxes = [box for off in (-_OFF_MM, _OFF_MM) for box in _strip((x, y), (ux, uy), wide, off)]
        within = wide / 2 <= min(share, 1 - share) * long + _OVER_MM
        if within and not any(map(paper.meets, boxes)):
            paper.taken += boxes
            turn = (
                f'<g transform="translate({x:.2f} {y:.2f}) rotate({math.degrees(math.atan2(uy, ux)):.2f})">'
            )
            over, under = -1.2, 1.2 + 0.7 * SMALL_MM
            yield turn + text(0, over, name, NAME_MM, tone, 600)
            yield text(0, under, size, SMALL_MM, GRANITE, 400) + "</g>"
            return
    yield from beside(paper, ((ax + bx) / 2, (ay + by) / 2), (f"{whose}{name}", size), tone)


def _strip(at: PaperPoint, way: PaperPoint, wide: float, off: float) -> Iterator[Box]:
    """Yield boxes along words that stand off a line to one side of it."""
    count = max(1, math.ceil(wide / 2))
    for k in range(count + 1):
        along = (k / count - 0.5) * wide
        x, y = at[0] + way[0] * along - way[1] * off, at[1] + way[1] * along + way[0] * off
        yield x - 0.7, y - 0.7, x + 0.7, y + 0.7


def beside(
    paper: Paper, at: PaperPoint, words: Iterable[str], tone: str, half: PaperPoint = (0.0, 0.0)
) -> Iterator[str]:
    """Yield lines of words near a spot, or about a box of which half the size is given, where they lie on
    nothing; beyond all that is tried, nowhere."""
    lines = [(w, NAME_MM if k == 0 else SMALL_MM) for k, w in enumerate(words)]
    wide = max(len(w) * size * _LETTER for w, size in lines)
    high = sum(size + 0.5 for _, size in lines)
    for more in (0.0, 3.0, 6.0, 10.0):
        aside, above, below = wide / 2 + half[0] + 2.6 + more, half[1] + 2 + more, half[1] + high + 2 + more
        near = ((0.0, below), (0.0, -above), (aside, high / 2), (-aside, high / 2))
        across = tuple((dx, dy) for dx in (aside, -aside) for dy in (below, -above))
        for dx, dy in (*near, *across):
            x, y = at[0] + dx, at[1] + dy
            if paper.free(x, y, wide, high):
                yield cleared(x, y, wide, high)
                base = y - high
                for k, (word, size) in enumerate(lines):
                    base += size + 0.5
                    tint, weight = (tone, 600) if k == 0 else (GRANITE, 400)
                    yield text(x, base - 0.5, word, size, tint, weight)
                return
