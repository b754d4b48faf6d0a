"""Made-up sites to open on, and what each teaches."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from ..core.design import Change, Design
from ..core.records import Record
from . import hill_farm as farm
from . import music_school as school
from . import terrace_house as terrace
from . import veterinary_practice as practice
from . import watermill as mill
from .firm import DEMO_FIRM, demo_mark
from .hill_farm import hill_farm
from .music_school import mended_school, music_school
from .progress import all_done, half_installed
from .terrace_house import terrace_house
from .veterinary_practice import veterinary_practice
from .watermill import watermill

__all__ = [
    "DEMO_FIRM",
    "SITES",
    "DemoSite",
    "demo_mark",
    "hill_farm",
    "music_school",
    "terrace_house",
    "veterinary_practice",
    "watermill",
]


@dataclass(frozen=True)
class DemoSite:
    """A made-up site: what it is called, what can be learnt from it, how it is made, how far its
    work is where it has begun, who received it where it was handed over, and what was changed
    once its first plan was agreed."""

    key: str
    name: str
    teaches: str
    make: Callable[[], Design]
    records: Callable[[Design], list[Record]] | None = None
    received_by: str = ""
    mend: Callable[[Design], list[Change]] | None = None


# The one that a first look opens on comes first.
SITES = (
    DemoSite("school", school.NAME, school.TEACHES, music_school, all_done, "M. Cantor, head", mended_school),
    DemoSite("mill", mill.NAME, mill.TEACHES, watermill),
    DemoSite("practice", practice.NAME, practice.TEACHES, veterinary_practice, half_installed),
    DemoSite("terrace", terrace.NAME, terrace.TEACHES, terrace_house),
    DemoSite("farm", farm.NAME, farm.TEACHES, hill_farm),
)
