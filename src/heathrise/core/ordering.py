"""The order of a project: joined of what cable and power have worked out."""

from __future__ import annotations

from collections.abc import Mapping
from datetime import date

from .brief import Reserve
from .cabling import LinkVerdict, RunVerdict, boxes_for
from .catalogue import Catalogue
from .design import Design
from .evaluate import Evaluation
from .in_force import in_force
from .kept import as_planned
from .order import FirmPrice, Link, Order, Stretch, assess_order


def order_of(
    drawn: Design,
    catalogue: Catalogue,
    evaluation: Evaluation,
    firm: Mapping[str, FirmPrice],
    today: date,
) -> Order:
    """Return what a project takes and costs, from its evaluation."""
    design, ruled = as_planned(drawn), in_force(drawn, catalogue)
    links = links_of(design, ruled, evaluation)
    boxes = {
        category: boxes_for(
            [k.bought_m for k in links if k.category == category and k.medium == "copper"
             for _ in range(k.cables) if k.bought_m > 0],
            cable.box_m,
        ).count
        for category, cable in ruled.cables.items()
    }  # fmt: skip
    return assess_order(design, ruled, links, boxes, firm, today)


def links_of(design: Design, ruled: Catalogue, evaluation: Evaluation) -> list[Link]:
    """Return everything that is cabled: runs, ways between racks, spares for what comes later."""
    links = [_link(k) for k in evaluation.cable.links if k.verdict != "no_way"]
    waste = 1 + ruled.rules["cabling.waste_share"]
    return links + [_spare(r, design, waste) for r in evaluation.brief.reserves if r.cable_m]


def _spare(reserve: Reserve, design: Design, waste: float) -> Link:
    """Return the cables that are kept in a coil for what comes later."""
    each = reserve.cable_m / reserve.cables
    key = f"later-{reserve.zone}@"
    way = Stretch(key, reserve.floor, "ceiling_void", each, (), reserve.cables)
    return Link(
        key, f"{reserve.name}, spare", reserve.zone, reserve.floor, "copper",
        design.site.minimum_category, reserve.cables, round(each * waste, 1), False, False,
        coil=True, stretches=(way,),
    )  # fmt: skip


def _link(link: LinkVerdict) -> Link:
    device = link.device if isinstance(link, RunVerdict) else None
    # A panel is counted where a link begins; ids of devices and racks hold no such sign.
    key = f"{link.id}@{link.room or ''}"
    stretches = tuple(
        Stretch(key, leg.floor, leg.kind, leg.length_m, leg.points, link.cables, leg.way)
        for leg in link.legs
    )
    return Link(
        key, link.name, device, link.floor, link.medium, link.category, link.cables,
        link.bought_m, link.chosen_by == "found", link.leaves, stretches=stretches,
    )  # fmt: skip
