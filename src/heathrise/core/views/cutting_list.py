"""The cutting list of a plan: which cable comes off which box, and what is left of each."""

from __future__ import annotations

import math
from collections.abc import Iterator
from typing import ClassVar

from pydantic import Field

from ..base.frozen import Frozen
from ..cabling import Cut, cable_bought, cut_from
from ..context.plan import Plan
from .laid_links import cuts_of, links_of


class CutPiece(Frozen):
    """One cable of a link as it is cut, waste included, in whole metres."""

    link: str
    name: str
    cable: int = Field(description="which cable of its link, from 1")
    metres: int


class CutBox(Frozen):
    """One box or reel with what is cut from it, the longest first, m."""

    KEY: ClassVar = ("item", "number")

    item: str
    label: str
    number: int
    holds_m: float
    pieces: tuple[CutPiece, ...]
    rest_m: float


class CuttingList(Frozen):
    """Every box and reel of the order. ``proven`` says that no other way to cut as few leaves a longer
    rest in one piece; ``too_long`` names links of which nothing holds a cable whole."""

    boxes: tuple[CutBox, ...] = ()
    proven: bool = True
    too_long: tuple[str, ...] = ()


def cutting_list(plan: Plan) -> CuttingList:
    """Return the boxes and reels that the order has, each with its cuts."""
    links = links_of(plan)
    names = {k.id: k.name for k in links}
    items = plan.priced.items
    boxes: list[CutBox] = []
    proven = True
    long: list[str] = []
    for row in cable_bought(plan.catalogue, cuts_of(links), plan.priced.each):
        model = plan.catalogue.cables[row.category]
        long += [names[key] for key in row.too_long]
        for reel, held, holds_m, count in (
            (False, row.boxed, model.box_m, row.boxes),
            (True, row.reeled, model.reel_m, row.reels),
        ):
            here = [p for cut in held for p in _pieces(cut, names[cut.name])]
            found, sure = cut_from([p.metres for p in here], int(holds_m), count)
            proven = proven and sure and row.proven
            item = model.item(row.jacket, reel=reel)
            for number, box in enumerate(found, start=1):
                cut_here = tuple(here[i] for i in box)
                boxes.append(
                    CutBox(
                        item=item,
                        label=items[item].label,
                        number=number,
                        holds_m=holds_m,
                        pieces=cut_here,
                        rest_m=holds_m - sum(p.metres for p in cut_here),
                    )
                )
    return CuttingList(boxes=tuple(boxes), proven=proven, too_long=tuple(long))


def _pieces(cut: Cut, name: str) -> Iterator[CutPiece]:
    for number in range(1, cut.cables + 1):
        yield CutPiece(link=cut.name, name=name, cable=number, metres=math.ceil(cut.length_m))
