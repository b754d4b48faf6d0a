"""A trench by its size: how long, how deep, how wide, and the spoil beside it."""

from __future__ import annotations

from pydantic import Field

from ..base.frozen import Frozen
from ..base.wording import metres
from ..catalogue import Rules
from ..design import Dug

DUG_SAID: dict[Dug, str] = {
    "loam": "by hand in loam",
    "clay": "by hand in clay",
    "stony": "by hand among stones and roots",
    "machine": "with a small machine",
    "plough": "ploughed in",
    "paving": "across paving",
    "drive": "across a drive",
    "there": "a duct lies there",
}


class TrenchSize(Frozen):
    """A trench; ``spoil_m3`` is loose, as it lies beside it. What lies there already has none."""

    metres: float
    depth_m: float
    width_m: float
    spoil_m3: float
    dug: Dug
    said: str = Field(description="all of it in words")


def trench_of(rules: Rules, length_m: float, depth_m: float, dug: Dug) -> TrenchSize:
    """Return a trench by its length, its depth and how it is dug.

    Ploughed in it is a slit that closes again, and what lies there is not dug: neither has spoil.
    """
    width_m = rules.table("install.trench_width_m").get(dug, 0.0)
    spoil = round(length_m * depth_m * width_m * rules["install.spoil_times"], 1)
    said = f"{metres(length_m, 0)}, {metres(depth_m)} deep"
    if width_m > 0:
        said += f" and {metres(width_m)} wide"
    said += f", {DUG_SAID[dug]}"
    if spoil > 0:
        said += f"; {spoil:g}\u00a0m³ of loose spoil beside it"
    return TrenchSize(
        metres=round(length_m, 1), depth_m=depth_m, width_m=width_m, spoil_m3=spoil, dug=dug, said=said
    )
