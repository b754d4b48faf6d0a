"""How fast this machine is just now, so that a slow hour can be told from a slow program."""

from __future__ import annotations

import time

REFERENCE_S = 0.6  # in which Python alone adds ten million numbers at the pace that marks are said for
_NUMBERS = 10_000_000


class Failed(Exception):
    """Work that was to be timed did not happen."""


def pace_s() -> float:
    """Return how long Python alone takes to add ten million numbers just now, s."""
    begun, total = time.perf_counter(), 0
    for number in range(_NUMBERS):
        total += number
    return time.perf_counter() - begun if total else 0.0


class Marks:
    """Marks for one part of the bench, scaled by the machine's pace as the part begins."""

    def __init__(self, title: str) -> None:
        now = pace_s()
        self.scale = now / REFERENCE_S
        print(
            f"{title}\n  pace: Python adds ten million numbers in {now:.2f} s; marks are x {self.scale:.2f}"
        )

    def row(self, title: str, took: float, unit: str, wanted: float | None = None, more: str = "") -> None:
        """Print one figure beside its mark, which is said for a machine at the pace of reference."""
        mark = ""
        if wanted is not None:
            scaled = wanted * self.scale
            short = "" if took <= scaled else "  SHORT OF IT"
            mark = f"(wanted {wanted:g}, here {scaled:.3g}){short}"
        digits = 0 if took >= 1000 else 1 if took >= 10 else 2
        print(f"  {title:<44} {took:8.{digits}f} {unit}  {mark}{'   ' + more if more else ''}")
