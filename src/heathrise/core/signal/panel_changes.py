"""What a change of walls takes from rays and gives back: only the stretches that differ.

A wall that moves takes the ends of others along; most of those stands where it stood. What is left of a
change is few and short panels, which few rays meet.
"""

from __future__ import annotations

import math
from collections.abc import Iterable

import numpy as np
from numpy.typing import NDArray

Array = NDArray[np.float64]

_NOTHING_M = 1e-10  # less than the hair by which one panel's end is within it and another's without
_MARGIN_M = 1e-3  # beyond its ends, within which a panel says exactly what it holds

# Along a line, in m from the point of it nearest the origin: from, to.
_Stretch = tuple[float, float]
# Direction (ux, uy), how far left of the origin, low and high of the panel, losses on three bands.
_Line = tuple[float, ...]
_Key = tuple[float, ...]  # the same, of lines that are one within a drawing's precision


def changed_panels(gone: Array, come: Array) -> Array:
    """Return panels to trace in place of taking ``gone`` back and adding ``come``, shape (p, 12).

    Those of what went have their losses negative.
    """
    lines: dict[_Key, tuple[_Line, tuple[list[_Stretch], list[_Stretch]]]] = {}
    for panels, which in ((gone, 0), (come, 1)):
        for row in panels:
            key, line, stretch = _on_line(row)
            lines.setdefault(key, (line, ([], [])))[1][which].append(stretch)
    found: list[list[float]] = []
    for line, stretches in lines.values():
        went, came = map(_joined, stretches)
        found += [_panel(line, s, -1) for s in _without(went, came)]
        found += [_panel(line, s, 1) for s in _without(came, went)]
    return np.array(found, dtype=np.float64).reshape(-1, gone.shape[1])


def _on_line(row: Array) -> tuple[_Key, _Line, _Stretch]:
    """Return a panel's line with its heights and losses, and the stretch that it holds of it."""
    ax, ay, dx, dy, low, high = row[:6].tolist()
    length = math.hypot(dx, dy)
    if (dx, dy) < (0.0, 0.0):
        ax, ay, dx, dy, low, high = ax + dx, ay + dy, -dx, -dy, 1 - high, 1 - low
    ux, uy = dx / length, dy / length
    start, off = ax * ux + ay * uy, ay * ux - ax * uy
    of = (*row[6:8].tolist(), *row[9:].tolist())
    key = (round(ux, 9), round(uy, 9), round(off, 6), *of)
    return key, (ux, uy, off, *of), (start + low * length, start + high * length)


def _joined(stretches: Iterable[_Stretch]) -> list[_Stretch]:
    """Join stretches that go on into each other; where both leave their common end out it stays out."""
    found: list[_Stretch] = []
    for low, high in sorted(stretches):
        if found and low <= found[-1][1] + _NOTHING_M:
            found[-1] = found[-1][0], max(found[-1][1], high)
        else:
            found.append((low, high))
    return found


def _without(stretches: Iterable[_Stretch], others: Iterable[_Stretch]) -> list[_Stretch]:
    """Return what stretches hold and others do not."""
    left = list(stretches)
    for low, high in others:
        left = [
            part for a, b in left for part in ((a, min(b, low)), (max(a, high), b)) if part[1] - part[0] > 0
        ]
    return [(a, b) for a, b in left if b - a > _NOTHING_M]


def _panel(line: tuple[float, ...], stretch: _Stretch, sign: int) -> list[float]:
    ux, uy, off, low_m, high_m, *losses = line
    start, end = stretch[0] - _MARGIN_M, stretch[1] + _MARGIN_M
    length = end - start
    ax, ay = start * ux - off * uy, start * uy + off * ux
    held = (stretch[0] - start) / length, (stretch[1] - start) / length
    return [ax, ay, ux * length, uy * length, *held, low_m, high_m, length, *(sign * loss for loss in losses)]
