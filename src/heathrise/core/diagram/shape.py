"""How a network hangs together: a star, a chain, a tree, or wire and mesh."""

from __future__ import annotations

from collections.abc import Sequence

from ..context.plan import Plan
from ..design import Floor
from .values import Node, Shape, ShapeName


def shape_of(plan: Plan, nodes: Sequence[Node]) -> Shape:
    """Return the shape of a network.

    A star has all on one switch, or on several of one rack; a chain is switch behind switch with none
    beside another; a tree is all else on wires. With access points over the air it is a hybrid.
    """
    switches = {n.id: n for n in nodes if n.kind == "switch"}
    air = [n for n in nodes if n.joint is not None and n.joint.kind == "air"]
    floors = plan.design.of(Floor)
    buildings = len({floors[n.floor].building for n in nodes if n.floor in floors and n.element})
    if not switches:
        return Shape(name="nothing", says="No switch is planned yet.", buildings=max(1, buildings))
    deep: dict[str, int] = {}
    for node in nodes:  # each after what it hangs on
        if node.kind == "switch":
            deep[node.id] = deep.get(node.parent or "", 0) + 1
    deepest = max(deep.values())
    below = [n.parent for n in switches.values() if n.parent in switches]
    racks = len({n.room for n in switches.values()})
    name: ShapeName = "tree"
    says = f"A tree over {racks} racks" if racks > 1 else f"A tree of {len(switches)} switches"
    if len(switches) == 1 or (racks == 1 and deepest <= 2):
        name = "star"
        says = "A star: every cable comes to one rack"
    elif len(below) == len(set(below)) and deepest == len(switches):
        name = "chain"
        says = f"A chain of {len(switches)} switches, one behind the other"
    if name == "tree" and deepest > 1:
        says += f", {deepest} switches deep"
    if air:
        each = "access point" if len(air) == 1 else "access points"
        says += f", and {len(air)} {each} over the air"
        name = "hybrid"
    if buildings > 1:
        says += f"; {buildings} buildings"
    return Shape(
        name=name,
        says=f"{says}.",
        switches=len(switches),
        deepest=deepest,
        over_air=len(air),
        buildings=max(1, buildings),
    )
