"""Rooms of a drawing: what its walls close, named by the words written in them."""

from __future__ import annotations

import re
from collections import Counter
from collections.abc import Iterator, Sequence
from typing import Any

import shapely

from ..core.context.integrity import MAX_ELEMENTS
from ..core.design import Space, Wall
from ..core.walling import MAX_CROSSINGS, WallNet, net_of, outline_of
from .dxf_entities import Text, refuse


def untangled(walls: Sequence[Wall]) -> WallNet:
    """Return the net of walls.

    Raises:
        DesignError: they cross each other as hatching does.
    """
    net = net_of(walls)
    if net.tangled:
        refuse(
            "layers",
            f"the walls would cross each other {net.tangled:,} times, as hatching does; at most "
            f"{MAX_CROSSINGS:,} can be read. Choose the layers of walls only.",
        )
    return net


def rooms_of(
    walls: Sequence[Wall], texts: Sequence[Text], floor: str, names: Iterator[tuple[str, str]]
) -> Iterator[Space]:
    """Yield the rooms that walls of a floor close, each by the name that is written in it.

    Args:
        names: ids and names that are free, without end.
    """
    net = untangled(walls)
    used: Counter[str] = Counter()
    for place in net.faces[: MAX_ELEMENTS["space"]]:
        outline = outline_of(place)
        if outline is None:
            continue
        key, plain = next(names)
        name = _written_in(place, texts) or plain
        used[name] += 1
        told = f"{name} {used[name]}" if used[name] > 1 else name
        yield Space(id=key, floor=floor, name=told, outline=outline)


_LETTER = re.compile(r"[^\W\d_]{2}")
_UNIT = r"(m2|m²|qm|sqm|sq\.? ?m|sq\.? ?ft|ft2|ft²|mm|cm|m|ft|in)?\.?$"
_FIGURE = re.compile(r"^[\s\d.,/x×+±=:-]*\d[\s\d.,/x×]*\s*" + _UNIT, re.IGNORECASE)
_LONGEST_NAME = 60


def _written_in(place: Any, texts: Sequence[Text]) -> str | None:
    """Return the room's name: of the words written in it the highest, figures and dimensions left out."""
    shapely.prepare(place)
    inside = [t for t in texts if any(place.contains(shapely.Point(p)) for p in (t.middle, t.start))]
    rows = [
        (round(text.height, 3), -row, line)
        for text in inside
        for row, line in enumerate(text.lines)
        if _LETTER.search(line) and not _FIGURE.match(line)
    ]
    best = max(rows, default=None, key=lambda r: r[:2])
    return " ".join(best[2].split())[:_LONGEST_NAME] if best else None
