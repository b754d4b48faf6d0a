"""How fast this machine is just now, so that a slow hour can be told from a slow program."""

from __future__ import annotations

import time

REFERENCE_S = 0.6  # in which Python alone adds ten million numbers at the pace that marks are said for
_NUMBERS = 10_000_000
_SAMPLE = 3_000_000  # added before and after each figure


class Failed(Exception):
    """Work that was to be timed did not happen."""


def pace_s() -> float:
    """Return how long Python alone takes to add ten million numbers just now, s."""
    begun, total = time.perf_counter(), 0
    for number in range(_SAMPLE):
        total += number
    took = time.perf_counter() - begun if total else 0.0
    return took * _NUMBERS / _SAMPLE


class Marks:
    """Marks for one part of the bench, each scaled by the machine's pace before and after it."""

    def __init__(self, title: str) -> None:
        print(f"{title}\n  marks are for a pace of {REFERENCE_S} s, in which Python adds ten million numbers")
        self._before = pace_s()

    def row(self, title: str, took: float, unit: str, wanted: float | None = None, more: str = "") -> None:
        """Print one figure beside its mark."""
        after = pace_s()
        pace = (self._before + after) / 2
        self._before = after
        mark = ""
        if wanted is not None:
            scaled = wanted * pace / REFERENCE_S
            short = "" if took <= scaled else "  SHORT OF IT"
            mark = f"(pace {pace:.2f}: wanted {wanted:g}, here {scaled:.3g}){short}"
        digits = 0 if took >= 1000 else 1 if took >= 10 else 2
        print(f"  {title:<44} {took:8.{digits}f} {unit}  {mark}{'   ' + more if more else ''}")
