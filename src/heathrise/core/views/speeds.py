"""What the plan lets through at the line and into each room, which measured speeds are held against."""

from __future__ import annotations

from ..context.plan import Plan, answered
from ..design import Floor
from ..evaluation.evaluate import evaluate
from ..records import LINE, PlannedSpeed
from .room_chain import room_chain


@answered
def planned_speeds(plan: Plan) -> tuple[PlannedSpeed, ...]:
    """Return the line, then each room that is served, with the narrowest link up to its worst spot."""
    line = plan.design.site.line_mbps
    found = [PlannedSpeed(where=LINE, name="The line, by cable", mbps=line, binds="the line")]
    floors = plan.design.of(Floor)
    for room in evaluate(plan).rooms:
        chain = room_chain(plan, room.space).chain if room.band is not None else None
        if chain is not None:
            link = chain.links[chain.binds]
            found.append(
                PlannedSpeed(
                    where=room.space,
                    name=room.name,
                    floor=floors[room.floor].name,
                    mbps=round(link.mbps, 1),
                    binds=link.name,
                )
            )
    return tuple(found)
