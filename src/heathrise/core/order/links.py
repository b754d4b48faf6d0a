"""The links of a plan as an order sees them: handed over by whoever works the plan out."""

from __future__ import annotations

from dataclasses import dataclass

from .holes import Stretch


@dataclass(frozen=True)
class Link:
    """A run to a device or a way between racks. Lengths in m, of one cable.

    ``device`` is none for a way between racks; ``found`` says that it lies in the wall already;
    ``leaves`` that copper leaves a building; ``coil`` that it is spare and ends in a coil.
    """

    id: str
    name: str
    device: str | None
    floor: str
    medium: str
    category: str
    cables: int
    bought_m: float
    found: bool
    leaves: bool
    coil: bool = False
    stretches: tuple[Stretch, ...] = ()
