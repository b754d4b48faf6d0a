"""A network from the line to the last device, derived from a plan: nothing in it is placed by hand."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from functools import cached_property

from ..cabling import LinkVerdict, RunVerdict, UplinkVerdict
from ..context.plan import Plan, answered
from ..context.storeys import storeys_of
from ..controlled import Tree
from ..design import Device, EquipmentRoom, Injector, Network, Space, Switch
from ..evaluation.evaluate import Evaluation, evaluate
from ..rack import PortUse
from ..settings import PortSheet
from ..signal import MeshLink, environment_of, mesh_links
from ..views.managed import tree_of
from .shape import shape_of
from .values import Diagram, Joint, Node, Second
from .words import rack_says, says_of

LINE, LOOSE = "line", "loose"
_NO_WAY = ("no_way",)


@answered
def diagram_of(plan: Plan) -> Diagram:
    """Return the diagram of a plan: the line, every switch, every device and recorder exactly once."""
    source = _Source(plan)
    nodes = tuple(_in_order(source.nodes()))
    racks = {r.room: rack_says(r) for r in source.evaluation.racks.racks}
    return Diagram(nodes=nodes, seconds=tuple(source.seconds()), racks=racks, shape=shape_of(plan, nodes))


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


@dataclass(frozen=True)
class _Source:
    """What is known of a plan's links, by what they end in."""

    plan: Plan

    @cached_property
    def evaluation(self) -> Evaluation:
        return evaluate(self.plan)

    @cached_property
    def tree(self) -> Tree:
        return tree_of(self.plan)

    @cached_property
    def ports(self) -> Mapping[str, list[PortUse]]:
        """Ports by the device in them."""
        found: dict[str, list[PortUse]] = defaultdict(list)
        for use in self.evaluation.power.ports:
            if use.device is not None:
                found[use.device].append(use)
        return found

    @cached_property
    def runs(self) -> Mapping[str, RunVerdict]:
        return {r.device: r for r in self.evaluation.runs}

    @cached_property
    def sheets(self) -> Mapping[tuple[str, int], PortSheet]:
        sheet = self.evaluation.settings
        rows = sheet.ports if sheet is not None else ()
        return {(p.switch, p.port): p for p in rows}

    @cached_property
    def mesh(self) -> Mapping[str, MeshLink]:
        over_air = {r.id for r in self.tree.rows.values() if r.over_air}
        return {m.device: m for m in mesh_links(environment_of(self.plan)) if m.device in over_air}

    @cached_property
    def clients(self) -> Mapping[str, float]:
        """Clients at the busiest hour by access point."""
        found: dict[str, float] = defaultdict(float)
        busy = self.evaluation.signal.busy
        for load in busy.loads if busy is not None else ():
            found[load.device] += sum(u.clients for u in load.using)
        return found

    @cached_property
    def between(self) -> Mapping[frozenset[str], UplinkVerdict]:
        """Ways between racks, by the two racks."""
        return {frozenset((u.room or "", u.to_room or "")): u for u in self.evaluation.uplinks}

    @cached_property
    def router(self) -> str | None:
        """The device that the line comes in at."""
        rows = self.plan.design.of(Device).values()
        return next((d.id for d in rows if self.plan.catalogue.role_of(d).leads_out), None)

    @cached_property
    def first(self) -> str | None:
        """The switch nearest to the line."""
        ways = self.evaluation.power.ways_up
        return next((w.switch for w in ways if w.to is None), None) or next(
            iter(self.plan.design.of(Switch)), None
        )

    @cached_property
    def narrow(self) -> set[str]:
        """Devices and switches at whose joint somebody's way out is narrowest, behind the line."""
        found = set()
        for chain in self.evaluation.chains.chains:
            link = chain.links[chain.inside]
            if link.kind in ("uplink", "cable", "port"):
                found.add(link.element if link.kind == "uplink" else chain.device)
        return found

    # -- nodes -------------------------------------------------------------------------------------

    def nodes(self) -> dict[str, Node]:
        design, site = self.plan.design, self.plan.design.site
        line = Node(
            id=LINE, kind="line", name="The line", says=says_of(self.plan, "line", None, site.line_mbps)
        )
        found = {LINE: line}
        for switch in design.of(Switch).values():
            found[switch.id] = self._switch(switch)
        for device in design.of(Device).values():
            found[device.id] = self._device(device)
        for use in self.evaluation.power.ports:
            if use.link is not None and use.device is None and not use.uplink:
                found[use.link] = self._recorder(use)
        if any(n.parent == LOOSE for n in found.values()):
            found[LOOSE] = Node(id=LOOSE, kind="loose", name="Not connected")
        return found

    def _switch(self, switch: Switch) -> Node:
        model = self.plan.catalogue.switches[switch.model]
        parent, joint = self._way_up(switch)
        budget = next((b for b in self.evaluation.power.switches if b.switch == switch.id), None)
        room = self.plan.design.of(EquipmentRoom)[switch.equipment_room]
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
            narrow=switch.id in self.narrow,
            says=says_of(self.plan, "switch", joint, budget=budget, managed=model.managed),
        )

    def _way_up(self, switch: Switch) -> tuple[str, Joint]:
        way = next((w for w in self.evaluation.power.ways_up if w.switch == switch.id), None)
        router = self.router
        if way is None and switch.id != self.first:
            return LOOSE, Joint(kind="none", verdict="not_met", why="no way up from here")
        if way is None or way.to is None:
            if router is None:
                speed = way.speed_mbps if way is not None else 0.0
                return LINE, Joint(kind="cord", own_port=way.port if way else None, speed_mbps=speed)
            return router, self._of_router(router, way.port if way is not None else None)
        above = self.plan.design.of(Switch)[way.to]
        pair = frozenset((switch.equipment_room, above.equipment_room))
        verdict = self.between.get(pair)
        if verdict is not None and verdict.verdict in _NO_WAY:
            return way.to, Joint(kind="none", own_port=way.port, verdict="not_met", why=verdict.reason)
        sheet = self.sheets.get((way.to, way.to_port or 0))
        return way.to, Joint(
            kind=way.medium,
            link=verdict.id if verdict is not None else "",
            ports=(way.to_port,) if way.to_port is not None else (),
            own_port=way.port,
            category=verdict.category if verdict is not None else "",
            length_m=verdict.fixed_m if verdict is not None else 0.0,
            asked_mbps=verdict.speed_mbps if verdict is not None else None,
            speed_mbps=way.speed_mbps,
            untagged=sheet.untagged_vlan if sheet is not None else None,
            tagged=sheet.tagged_vlans if sheet is not None else (),
            verdict=_word(verdict.verdict) if verdict is not None else "met",
            why=verdict.reason if verdict is not None and verdict.verdict not in ("met", "near") else "",
        )

    def _of_router(self, router: str, port: int | None) -> Joint:
        """Return what joins the first switch to the router: the router's own cable, upside down."""
        uses = self.ports.get(router, [])
        run = self.runs.get(router)
        joint = self._cabled(run, uses) if uses or run is not None else Joint(kind="cord")
        own = uses[0].port if uses else port
        speed = joint.speed_mbps or next(
            (float(w.speed_mbps) for w in self.evaluation.power.ways_up if w.to is None), 0.0
        )
        return joint.model_copy(update={"ports": (), "own_port": own, "speed_mbps": speed})

    def _device(self, device: Device) -> Node:
        catalogue, design = self.plan.catalogue, self.plan.design
        role, model = catalogue.role_of(device), catalogue.model_of(device)
        parent, joint = self._hangs(device)
        room = storeys_of(design).room_at(device.floor, device.at)
        powered = next((p for p in self.evaluation.power.devices if p.device == device.id), None)
        is_router = device.id == self.router
        return Node(
            id=device.id,
            kind="router" if is_router else "device",
            name=device.name,
            model=model.label,
            role=role.name,
            mark=role.mark,
            element=device.id,
            floor=device.floor,
            place=room.name if isinstance(room, Space) else "",
            state=device.state,
            parent=parent,
            joint=joint,
            clients=round(self.clients.get(device.id, 0.0), 1),
            narrow=device.id in self.narrow and not is_router,
            says=says_of(
                self.plan,
                "router" if is_router else "device",
                joint,
                device=device,
                powered=powered,
                place=room.name if isinstance(room, Space) else "",
                clients=self.clients.get(device.id, 0.0),
            ),
        )

    def _hangs(self, device: Device) -> tuple[str, Joint]:
        if device.id == self.router:
            return LINE, Joint(kind="line", speed_mbps=self.plan.design.site.line_mbps)
        uses, run, row = (
            self.ports.get(device.id, []),
            self.runs.get(device.id),
            self.tree.rows.get(device.id),
        )
        link = self.mesh.get(device.id)
        if row is not None and row.over_air and row.parent is not None:
            return row.parent, self._air(link)
        plug = next((p for p in self.evaluation.power.plugged if p.device == device.id), None)
        if plug is not None and not plug.wrong:
            joint = self._cabled(run, [])
            sheet = self.sheets.get((plug.host, plug.port))
            update: dict[str, object] = {
                "ports": (plug.port,) if plug.port else (),
                "speed_mbps": float(plug.speed_mbps),
                "untagged": sheet.untagged_vlan if sheet is not None else None,
                "tagged": sheet.tagged_vlans if sheet is not None else (),
            }
            if run is None:
                update |= {"kind": "cord", "length_m": plug.cord_m}
            return plug.host, joint.model_copy(update=update)
        if uses:
            return uses[0].switch, self._cabled(run, uses)
        return self._without_port(device, run)

    def _without_port(self, device: Device, run: RunVerdict | None) -> tuple[str, Joint]:
        """Return what a device that has no port hangs on: the first switch of the rack that its run ends
        in, where it reaches one."""
        left = next((u for u in self.evaluation.power.left if u.device == device.id), None)
        if run is None or run.verdict in _NO_WAY:
            why = run.reason if run is not None else "no cable goes to it, and nothing over the air"
            return LOOSE, Joint(kind="none", verdict="not_met", why=why)
        switches = self.plan.design.of(Switch).values()
        there = next((s.id for s in switches if s.equipment_room == run.room), None)
        joint = self._cabled(run, [])
        why = left.reason if left is not None else "no port is given to it"
        return there or LOOSE, joint.model_copy(update={"verdict": "not_met", "why": why, "speed_mbps": 0.0})

    def _cabled(self, run: LinkVerdict | None, uses: list[PortUse]) -> Joint:
        device = run.device if isinstance(run, RunVerdict) else uses[0].device if uses else None
        powered = next((p for p in self.evaluation.power.devices if p.device == device), None)
        fed = any(u.feeds for u in uses)
        injectors = self.plan.design.of(Injector).values()
        injector = next((i for i in injectors if i.device == device), None)
        sheet = self.sheets.get((uses[0].switch, uses[0].port)) if uses else None
        chain = next((c for c in self.evaluation.chains.chains if c.device == device), None)
        passed = [k.mbps for k in chain.links if k.kind in ("port", "cable", "device")] if chain else []
        return Joint(
            kind=run.medium if run is not None else "cord",
            link=run.id if run is not None else uses[0].link or "" if uses else "",
            ports=tuple(u.port for u in uses),
            category=run.category if run is not None else "",
            length_m=run.fixed_m if run is not None else 0.0,
            extenders=max(0, len(run.hops) - 1) if run is not None else 0,
            asked_mbps=run.speed_mbps if run is not None else None,
            speed_mbps=min(passed[-3:]) if passed else float(min((u.speed_mbps for u in uses), default=0)),
            watts=powered.expected_w if powered is not None and (fed or injector is not None) else 0.0,
            fed_by=self.plan.catalogue.injectors[injector.model].label if injector is not None else "",
            untagged=sheet.untagged_vlan if sheet is not None else None,
            tagged=sheet.tagged_vlans if sheet is not None else (),
            verdict=_word(run.verdict) if run is not None else "met",
            why=run.reason if run is not None and run.verdict not in ("met", "near") else "",
        )

    def _air(self, link: MeshLink | None) -> Joint:
        names = self.plan.design.of(Network)
        vlans = tuple(sorted({n.vlan for n in names.values()}))
        return Joint(
            kind="air",
            speed_mbps=link.rate_mbps if link is not None else 0.0,
            level_dbm=link.level_dbm if link is not None else None,
            tagged=vlans if link is not None and not link.repeater else (),
        )

    def _recorder(self, use: PortUse) -> Node:
        role = self.plan.catalogue.roles.get(use.role)
        sheet = self.sheets.get((use.switch, use.port))
        joint = Joint(
            kind="cord",
            link=use.link or "",
            ports=(use.port,),
            speed_mbps=float(use.speed_mbps),
            untagged=sheet.untagged_vlan if sheet is not None else None,
            tagged=sheet.tagged_vlans if sheet is not None else (),
        )
        switch = self.plan.design.of(Switch)[use.switch]
        room = self.plan.design.of(EquipmentRoom)[switch.equipment_room]
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
            says=says_of(self.plan, "device", joint, place=room.name),
        )

    def seconds(self) -> Iterator[Second]:
        for link in self.mesh.values():
            if link.second is not None and link.parent is not None:
                yield Second(
                    below=link.device,
                    above=link.second,
                    mbps=link.second_mbps,
                    says=f"if {link.parent_name} is gone: {link.second_mbps:.0f} Mb/s",
                )


def _word(verdict: str) -> str:
    return verdict if verdict in ("met", "near") else "not_met"
