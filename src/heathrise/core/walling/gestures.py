"""A gesture is answered by changes of the design; rooms follow afterwards (:mod:`.follow`)."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from ..design import Change, Design
from .dividing import beside, curve, join, split
from .hand import Bend, Beside, Curve, Gesture, Join, Measure, Move, Said, Split
from .moving import bend, measure, move


def drawn(design: Design, gesture: Gesture) -> list[Change]:
    """Return what a gesture changes, rooms left aside.

    Raises:
        DesignError: a wall is not there, or would be too short for itself or for what is in it.
    """
    return _DO[type(gesture)](design, gesture)


_DO: dict[type, Callable[[Design, Any], list[Change]]] = {
    Said: lambda _, gesture: list(gesture.changes),
    Move: move,
    Bend: bend,
    Measure: measure,
    Split: split,
    Join: join,
    Beside: beside,
    Curve: curve,
}
