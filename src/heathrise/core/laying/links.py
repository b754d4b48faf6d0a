"""What is laid on a site: links with the stretches they lie in, as order and work list see them."""

from __future__ import annotations

from dataclasses import dataclass

from ..design import Jacket


@dataclass(frozen=True)
class Stretch:
    """A stretch of a link on one storey: where it lies, in what kind of space, how many cables."""

    link: str
    floor: str
    kind: str
    length_m: float
    points: tuple[tuple[float, float], ...]
    cables: int
    way: str | None = None


@dataclass(frozen=True)
class Link:
    """A run to a device or a way between racks. Lengths in m, of one cable.

    ``rack`` is the room it begins in, ``far_rack`` the one that a way between racks ends in;
    ``device`` is none for such a way; ``found`` says that it lies in the wall already; ``leaves``
    that copper leaves a building; ``coil`` that it is spare and ends in a coil.
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
    rack: str = ""
    far_rack: str | None = None
    jacket: Jacket = "indoor"

    @property
    def terminated(self) -> bool:
        """Whether its ends are work of this job."""
        return not self.found and not self.coil
