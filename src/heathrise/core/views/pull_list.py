"""The pull list of a plan: what goes into the building at once, off which boxes, the farthest first."""

from __future__ import annotations

from typing import ClassVar

from pydantic import Field

from ..base.frozen import Frozen
from ..context.plan import Plan
from ..context.plugged import begun_at
from ..design import Device, EquipmentRoom
from ..laying import Box, draws_of
from .cutting_list import CutBox, cutting_list
from .laid_links import links_of


class PulledCable(Frozen):
    """One cable of a pull: off which box it comes, and how far it goes with the farthest, m.

    ``ahead`` says that it is cut to length before the pull, since another cable of its link comes off
    the same box.
    """

    link: str
    name: str
    cable: int = Field(description="which cable of its link, from 1")
    box: str = Field(
        "", description="the box or reel by what it is called; empty for what is cut by the metre"
    )
    number: int = Field(0, description="of the box, as in the cutting list")
    metres: int = Field(description="as it is cut")
    beside_m: float = Field(description="metres that it lies beside the farthest")
    ahead: bool = False


class PullTogether(Frozen):
    """Cables that are pulled at once from one rack; ``steps`` are those of the work list that it is."""

    KEY: ClassVar = ("number",)

    number: int
    room: str
    room_name: str
    steps: tuple[str, ...]
    cables: tuple[PulledCable, ...]
    metres: float = Field(description="way of the farthest, m")
    boxes: int = Field(description="boxes and reels on the floor at once")


class PullList(Frozen):
    """Every pull in its order. ``most_boxes`` is how many boxes stand on the floor at once at most."""

    pulls: tuple[PullTogether, ...] = ()
    most_boxes: int = 0


def pull_list(plan: Plan) -> PullList:
    """Return the pulls of a plan; each cable comes off the box that the cutting list has it in."""
    links = {k.id: k for k in links_of(plan) if not k.found}
    rooms, devices = plan.design.of(EquipmentRoom), plan.design.of(Device)
    boxes_of = {f"run-{d}": devices[h].name for d, h in begun_at(plan.design, plan.catalogue).items()}
    off: dict[tuple[str, int], tuple[CutBox, int]] = {}
    for box in cutting_list(plan).boxes:
        for piece in box.pieces:
            off[piece.link, piece.cable] = box, piece.metres
    boxes: dict[str, set[Box]] = {}
    for (key, _), (box, _) in off.items():
        boxes.setdefault(key, set()).add((box.item, box.number))
    found = []
    for number, draw in enumerate(draws_of(plan.rules, list(links.values()), boxes), start=1):
        cables = []
        for key, shared_m in zip(draw.links, draw.shared_m, strict=True):
            link = links[key]
            before: set[Box] = set()
            for k in range(1, link.cables + 1):
                cut = off.get((key, k))
                where = (cut[0].item, cut[0].number) if cut is not None else None
                cables.append(
                    PulledCable(
                        link=key,
                        name=link.name,
                        cable=k,
                        box=cut[0].label if cut is not None else "",
                        number=cut[0].number if cut is not None else 0,
                        metres=cut[1] if cut is not None else round(link.bought_m),
                        beside_m=shared_m,
                        ahead=where in before,
                    )
                )
                if where is not None:
                    before.add(where)
        first = links[draw.links[0]]
        found.append(
            PullTogether(
                number=number,
                room=first.rack,
                room_name=rooms[first.rack].name if first.rack in rooms else boxes_of.get(first.id, ""),
                steps=tuple(f"pull-{k}" for k in draw.links),
                cables=tuple(cables),
                metres=round(sum(s.length_m for s in first.stretches), 1),
                boxes=len({b for k in draw.links for b in boxes.get(k, ())}),
            )
        )
    return PullList(pulls=tuple(found), most_boxes=max((p.boxes for p in found), default=0))
