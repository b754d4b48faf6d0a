"""A packet from one host of a plan to another: through which ports and switches, and where it stops."""

from __future__ import annotations

from ..context.plan import Plan, answered
from ..evaluation.evaluate import evaluate
from ..evaluation.plugs import plugs_of
from ..settings import Fabric, PacketWalk, fabric_of, walk_packet


@answered
def fabric_of_plan(plan: Plan) -> Fabric:
    """Return how frames go over a plan's ports as they are set."""
    evaluation = evaluate(plan)
    ports = evaluation.settings.ports if evaluation.settings is not None else ()
    return fabric_of(plan.design, plan.catalogue, plugs_of(evaluation.power), ports)


def packet_of(plan: Plan, start: str, goal: str) -> PacketWalk:
    """Return what becomes of a packet from a host to another, or to the internet.

    Raises:
        KeyError: there is no such host.
    """
    return walk_packet(fabric_of_plan(plan), start, goal)
