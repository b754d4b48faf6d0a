"""What is laid on a site, joined of what cable has worked out and of spares for later."""

from __future__ import annotations

from collections.abc import Sequence

from ..brief import Reserve
from ..cabling import BesideVerdict, Cut, LinkVerdict, RunVerdict, UplinkVerdict
from ..context.plan import Plan, answered
from ..design import Design
from ..evaluation.evaluate import evaluate
from ..laying import Hole, Link, Stretch, holes_of


@answered
def links_of(plan: Plan) -> list[Link]:
    """Return everything that is cabled: runs, ways between racks, spares for what comes later."""
    evaluation = evaluate(plan)
    links = [_link(k) for k in evaluation.cable.links if k.verdict != "no_way"]
    waste = 1 + plan.rules["cabling.waste_share"]
    return links + [_spare(r, plan.design, waste) for r in evaluation.brief.reserves if r.cable_m]


@answered
def fresh_holes(plan: Plan) -> list[Hole]:
    """Return the holes through masonry that what is laid anew asks for."""
    stretches = [s for k in links_of(plan) if not k.found for s in k.stretches]
    return holes_of(plan.design, plan.catalogue, stretches)


def cuts_of(links: Sequence[Link]) -> list[Cut]:
    """Return what is cut from boxes of copper for links."""
    return [
        Cut(k.id, k.category, k.jacket, k.bought_m, k.cables)
        for k in links
        if k.medium == "copper" and k.bought_m > 0
    ]


def _spare(reserve: Reserve, design: Design, waste: float) -> Link:
    """Return the cables that are kept in a coil for what comes later."""
    each = reserve.cable_m / reserve.cables
    key = f"later-{reserve.zone}"
    way = Stretch(key, reserve.floor, "ceiling_void", each, (), reserve.cables)
    return Link(
        key,
        f"{reserve.name}, spare",
        reserve.zone,
        reserve.floor,
        "copper",
        design.site.minimum_category,
        reserve.cables,
        round(each * waste, 1),
        False,
        False,
        coil=True,
        stretches=(way,),
    )


def _link(link: LinkVerdict) -> Link:
    device = link.device if isinstance(link, RunVerdict) else None
    stretches = tuple(
        Stretch(link.id, leg.floor, leg.kind, leg.length_m, leg.points, link.cables, leg.way)
        for leg in link.legs
    )
    return Link(
        link.id,
        link.name,
        device,
        link.floor,
        link.medium,
        link.category,
        link.cables,
        link.bought_m,
        link.chosen_by == "found",
        link.leaves,
        stretches=stretches,
        rack=link.room or "",
        jacket=link.jacket,
        far_rack=link.to_room if isinstance(link, UplinkVerdict | BesideVerdict) else None,
    )
