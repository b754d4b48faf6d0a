"""A diagram as somebody has seen it on site, and the part of it that hangs on one rack."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

from ..records import SeenPort
from .values import Diagram, Node
from .words import cables_said


def as_it_came(diagram: Diagram, seen: Sequence[SeenPort]) -> Diagram:
    """Return a diagram with the speed at which each port came up, as it was read on site."""
    read = {(p.switch, p.port): p for p in seen if p.last is not None and p.last.mbps is not None}
    nodes = tuple(_came(node, read) for node in diagram.nodes)
    return diagram.model_copy(update={"nodes": nodes})


def _came(node: Node, read: Mapping[tuple[str, int], SeenPort]) -> Node:
    joint = node.joint
    ports = [read[at] for p in (joint.ports if joint else ()) if (at := (node.parent or "", p)) in read]
    if joint is None or not ports:
        return node
    came = min(p.last.mbps for p in ports if p.last is not None and p.last.mbps is not None)
    wrong = next((p for p in ports if p.verdict == "not_met"), None)
    changed = {"came_mbps": float(came)}
    worse = {"verdict": "not_met", "why": wrong.reason} if wrong is not None else {}
    joint = joint.model_copy(update={**changed, **worse})
    says = {**node.says, "cables": cables_said(joint)}
    return node.model_copy(update={"joint": joint, "says": says})


def rack_of(diagram: Diagram, room: str) -> Diagram:
    """Return what of a diagram hangs on a rack: the way there from the line, what stands in it, and what is
    plugged in there, but not what hangs on other racks."""
    by_id = {n.id: n for n in diagram.nodes}
    kept: set[str] = set()
    for node in diagram.nodes:
        above = by_id.get(node.parent or "")
        if node.room == room or (above is not None and above.room == room):
            kept.add(node.id)
            at = above
            while at is not None:
                kept.add(at.id)
                at = by_id.get(at.parent or "")
    nodes = tuple(n for n in diagram.nodes if n.id in kept)
    seconds = tuple(s for s in diagram.seconds if {s.below, s.above} <= kept)
    return diagram.model_copy(update={"nodes": nodes, "seconds": seconds})
