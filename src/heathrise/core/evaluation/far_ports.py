"""What the ways that were taken to far places ask of the racks: a port each, and what is fed at it."""

from __future__ import annotations

from ..catalogue import PowerDemand
from ..context.far_links import far_link
from ..context.plan import Plan
from ..design import FarPoint
from ..power import over_run
from ..rack import FarLoad
from .far_lines import far_view
from .far_sites import hops_of, taken_offers


def far_loads(plan: Plan) -> tuple[FarLoad, ...]:
    """Return what asks for a port at a rack, in order of placing."""
    points, rooms = plan.drawn.of(FarPoint), {line.point: line.room for line in far_view(plan).lines}
    found = []
    for key, offer in taken_offers(plan).items():
        port, room, link = offer.port, rooms[key], far_link(key)
        if port is None or room is None:
            continue
        fed = None
        if port.poe_class is not None:
            between = plan.catalogue.extenders[port.extender] if port.extender is not None else None
            asked = PowerDemand(poe_class=port.poe_class, rated_w=port.watts, typical_w=port.watts)
            fed = over_run(
                plan.rules,
                link,
                points[key].name,
                offer.label,
                asked,
                sum(port.pieces_m),
                plan.rules["far.feed_c"],
                hops_of(port.pieces_m, between) if between is not None else (),
            )
        found.append(FarLoad(link, points[key].name, room, port.mbps, fed))
    return tuple(found)
