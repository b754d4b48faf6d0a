"""A network from the line to the last device, derived from a plan: nothing in it is placed by hand."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterator, Mapping

from ..context.far_links import far_place
from ..context.plan import Plan, answered
from ..context.storeys import storeys_of
from ..design import Device, EquipmentRoom, Space, Switch
from ..evaluation.far_sites import taken_offers
from ..rack import PortUse
from .joints import LINE, LOOSE, Joints
from .known import Known
from .shape import shape_of
from .values import Diagram, Node, Second
from .words import rack_says, says_of


@answered
def diagram_of(plan: Plan) -> Diagram:
    """Return the diagram of a plan: the line, every switch, every device and recorder exactly once."""
    known = Known(plan)
    nodes = tuple(_in_order(_nodes(known)))
    racks = {r.room: rack_says(r) for r in known.evaluation.racks.racks}
    return Diagram(nodes=nodes, seconds=tuple(_seconds(known)), racks=racks, shape=shape_of(plan, nodes))


def _in_order(nodes: Mapping[str, Node]) -> Iterator[Node]:
    """Yield nodes from the line on, each after what it hangs on; of one parent in the order of its ports."""
    below: dict[str | None, list[Node]] = defaultdict(list)
    for node in nodes.values():
        below[node.parent].append(node)

    def go(parent: str | None) -> Iterator[Node]:
        above = nodes.get(parent or "")
        for node in sorted(below[parent], key=lambda n: order_of(n, above)):
            yield node
            yield from go(node.id)

    yield from go(None)


def order_of(node: Node, above: Node | None) -> tuple[int, int, str, str]:
    """Return what orders things that hang on the same: what stands in its rack, other switches, then all else
    by port and name."""
    first = {"line": 0, "router": 0, "switch": 2, "loose": 9}.get(node.kind, 3)
    if above is not None and above.room and node.room == above.room:
        first = 0 if node.kind == "switch" else 1
    ports = node.joint.ports if node.joint is not None else ()
    return first, ports[0] if ports else 999, node.name, node.id


def _nodes(known: Known) -> dict[str, Node]:
    design, joints = known.plan.design, Joints(known)
    says = says_of(known.plan, "line", None, design.site.line_mbps)
    found = {LINE: Node(id=LINE, kind="line", name="The line", says=says)}
    found |= {s.id: _switch(known, joints, s) for s in design.of(Switch).values()}
    found |= {d.id: _device(known, joints, d) for d in design.of(Device).values()}
    for use in known.evaluation.power.ports:
        if use.link is not None and use.device is None and not use.uplink:
            place = far_place(use.link)
            found[use.link] = (
                _recorder(known, joints, use) if place is None else _far(known, joints, use, place)
            )
    if any(n.parent == LOOSE for n in found.values()):
        found[LOOSE] = Node(id=LOOSE, kind="loose", name="Not connected")
    return found


def _switch(known: Known, joints: Joints, switch: Switch) -> Node:
    model = known.plan.catalogue.switches[switch.model]
    parent, joint = joints.of_switch(switch)
    room = known.plan.design.of(EquipmentRoom)[switch.equipment_room]
    budget = known.budgets.get(switch.id)
    return Node(
        id=switch.id,
        kind="switch",
        name=switch.name,
        model=model.label,
        role="Switch" if model.managed else "Plain switch",
        element=switch.id,
        room=room.id,
        floor=room.floor,
        place=room.name,
        state=switch.state,
        parent=parent,
        joint=joint,
        narrow=switch.id in known.narrow,
        says=says_of(known.plan, "switch", joint, budget=budget, managed=model.managed),
    )


def _device(known: Known, joints: Joints, device: Device) -> Node:
    plan = known.plan
    role, model = plan.catalogue.role_of(device), plan.catalogue.model_of(device)
    parent, joint = joints.of_device(device)
    room = storeys_of(plan.design).room_at(device.floor, device.at)
    place = room.name if isinstance(room, Space) else ""
    is_router = device.id == known.router
    clients = known.clients.get(device.id, 0.0)
    return Node(
        id=device.id,
        kind="router" if is_router else "device",
        name=device.name,
        model=model.label,
        role=role.name,
        mark=role.mark,
        element=device.id,
        floor=device.floor,
        place=place,
        state=device.state,
        parent=parent,
        joint=joint,
        clients=round(clients, 1),
        narrow=device.id in known.narrow and not is_router,
        says=says_of(
            plan,
            "router" if is_router else "device",
            joint,
            device=device,
            powered=known.powered.get(device.id),
            place=place,
            clients=clients,
        ),
    )


def _recorder(known: Known, joints: Joints, use: PortUse) -> Node:
    role = known.plan.catalogue.roles.get(use.role)
    switch = known.plan.design.of(Switch)[use.switch]
    room = known.plan.design.of(EquipmentRoom)[switch.equipment_room]
    joint = joints.of_recorder(use)
    return Node(
        id=use.link or "",
        kind="recorder",
        name=use.name or (role.name if role is not None else "Recorder"),
        role=role.name if role is not None else "",
        mark=role.mark if role is not None else "",
        room=room.id,
        floor=room.floor,
        place=room.name,
        parent=use.switch,
        joint=joint,
        says=says_of(known.plan, "device", joint, place=room.name),
    )


# What a far place hangs on; adapters for power-line on a cord.
_OVER = {"radio_5": "air", "radio_60": "air", "fibre": "fibre"}
_OVER |= dict.fromkeys(("copper", "extender", "extenders", "switch"), "copper")


def _far(known: Known, joints: Joints, use: PortUse, place: str) -> Node:
    """Return a place on the land that hangs on a rack by the way that was taken."""
    joint, offer = joints.of_recorder(use), taken_offers(known.plan).get(place)
    fed = next((row for row in known.evaluation.power.far if row.device == use.link), None)
    facts: dict[str, object] = {"watts": fed.expected_w} if fed is not None else {}
    if offer is not None:
        facts["speed_mbps"] = min(joint.speed_mbps, offer.mbps)
        facts["kind"] = _OVER.get(offer.medium, "cord")
        facts["level_dbm"] = offer.level_dbm
    joint = joint.model_copy(update=facts)
    return Node(
        id=use.link or "",
        kind="far",
        name=use.name or "",
        model=offer.label if offer is not None else "",
        role="Far place",
        place="on the land",
        parent=use.switch,
        joint=joint,
        says=says_of(known.plan, "far", joint, powered=fed, place="on the land"),
    )


def _seconds(known: Known) -> Iterator[Second]:
    for link in known.mesh.values():
        if link.second is not None and link.parent is not None:
            yield Second(
                below=link.device,
                above=link.second,
                mbps=link.second_mbps,
                says=f"if {link.parent_name} is gone: {link.second_mbps:.0f} Mb/s",
            )
