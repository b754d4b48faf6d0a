"""A network's diagram for other tools: GraphML and DOT, all of it, with every figure of every joint."""

from __future__ import annotations

from typing import Any
from xml.etree import ElementTree

from ..core.base.plain_text import plain_line
from ..core.context.plan import Plan
from ..core.diagram import Diagram, Joint, Node, diagram_of

_NS = "http://graphml.graphdrawing.org/xmlns"
_OF_NODE = ("name", "kind", "role", "model", "place", "room", "state")
_OF_JOINT: dict[str, str] = {
    "kind": "string",
    "ports": "string",
    "own_port": "int",
    "category": "string",
    "length_m": "double",
    "speed_mbps": "double",
    "watts": "double",
    "untagged": "int",
    "tagged": "string",
    "level_dbm": "double",
    "verdict": "string",
    "why": "string",
}


def write_graphml(name: str, plan: Plan) -> str:
    """Return the diagram as GraphML 1.0: a node for each thing, an edge from what it hangs on."""
    diagram = diagram_of(plan)
    root = ElementTree.Element("graphml", {"xmlns": _NS})
    for key in _OF_NODE:
        _key(root, f"n_{key}", "node", key, "string")
    for key, kind in _OF_JOINT.items():
        _key(root, f"e_{key}", "edge", key, kind)
    graph = ElementTree.SubElement(root, "graph", {"id": plain_line(name), "edgedefault": "directed"})
    for node in diagram.nodes:
        found = ElementTree.SubElement(graph, "node", {"id": node.id})
        _data(found, "n", {k: getattr(node, k) for k in _OF_NODE})
    for number, (above, below, joint) in enumerate(_edges(diagram)):
        edge = {"id": f"e{number}", "source": above, "target": below}
        _data(ElementTree.SubElement(graph, "edge", edge), "e", joint)
    ElementTree.indent(root)
    return ElementTree.tostring(root, "unicode", xml_declaration=True) + "\n"


def write_dot(name: str, plan: Plan) -> str:
    """Return the diagram in the DOT language, from the line on."""
    diagram = diagram_of(plan)
    lines = [f"digraph {_quoted(name)} {{", "  rankdir=LR; node [shape=box];"]
    lines += [f"  {_quoted(n.id)} [label={_quoted(_label(n))}];" for n in diagram.nodes]
    for above, below, joint in _edges(diagram):
        style = {"air": "dashed", "second": "dotted", "none": "dotted"}.get(str(joint["kind"]), "solid")
        label = _quoted(_edge_label(joint))
        lines.append(f"  {_quoted(above)} -> {_quoted(below)} [label={label}, style={style}];")
    return "\n".join([*lines, "}"]) + "\n"


def _edges(diagram: Diagram) -> list[tuple[str, str, dict[str, Any]]]:
    rows: list[tuple[str, str, dict[str, Any]]] = []
    for node in diagram.nodes:
        if node.parent is not None:
            rows.append((node.parent, node.id, _facts(node.joint) if node.joint else {"kind": "none"}))
    seconds = ((s.above, s.below, {"kind": "second", "speed_mbps": s.mbps}) for s in diagram.seconds)
    return [*rows, *seconds]


def _facts(joint: Joint) -> dict[str, Any]:
    found = {k: getattr(joint, k) for k in _OF_JOINT}
    return {k: " ".join(map(str, v)) if isinstance(v, tuple) else v for k, v in found.items()}


def _label(node: Node) -> str:
    return "\n".join(filter(None, (node.name, node.model)))


def _edge_label(joint: dict[str, Any]) -> str:
    ports = f"port {joint['ports']}" if joint.get("ports") else ""
    length = f"{joint['length_m']:g} m {joint['category']}".strip() if joint.get("length_m") else ""
    speed = f"{joint['speed_mbps']:g} Mb/s" if joint.get("speed_mbps") else ""
    return ", ".join(filter(None, (ports, length, speed)))


def _quoted(said: str) -> str:
    """Return a string as DOT has it: quotes and backslashes told apart, a line's end as such."""
    lines = (plain_line(line) for line in said.split("\n"))
    return '"' + "\\n".join(x.replace("\\", "\\\\").replace('"', '\\"') for x in lines) + '"'


def _key(root: ElementTree.Element, key: str, of: str, name: str, kind: str) -> None:
    ElementTree.SubElement(root, "key", {"id": key, "for": of, "attr.name": name, "attr.type": kind})


def _data(at: ElementTree.Element, stem: str, facts: dict[str, Any]) -> None:
    for key, value in facts.items():
        if value not in (None, ""):
            data = ElementTree.SubElement(at, "data", {"key": f"{stem}_{key}"})
            data.text = plain_line(str(value))
