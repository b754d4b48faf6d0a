"""What each thing of a network hangs on, and what joins it there, as the chapters have it."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from ..cabling import LinkVerdict, RunVerdict
from ..design import Device, Network, Switch
from ..rack import PortUse
from .known import Known
from .values import Joint

LINE, LOOSE = "line", "loose"
_NO_WAY = "no_way"
_DOES = ("met", "near")


@dataclass(frozen=True)
class Joints:
    """The joints of a plan, by what is known of it."""

    known: Known

    def of_switch(self, switch: Switch) -> tuple[str, Joint]:
        """Return what a switch hangs on, and how."""
        known = self.known
        way, router = known.ways.get(switch.id), known.router
        if way is None and switch.id != known.first:
            return LOOSE, Joint(kind="none", verdict="not_met", why="no way up from here")
        if way is None or way.to is None:
            port = way.port if way is not None else None
            if router is None:
                return LINE, Joint(kind="cord", own_port=port, speed_mbps=way.speed_mbps if way else 0.0)
            return router, self._of_router(router, port)
        above = known.plan.design.of(Switch)[way.to]
        link = known.between.get(frozenset((switch.equipment_room, above.equipment_room)))
        if link is not None and link.verdict == _NO_WAY:
            return way.to, Joint(kind="none", own_port=way.port, verdict="not_met", why=link.reason)
        facts = {**self._of_cable(link), **self._carries(way.to, way.to_port)}
        facts |= {"kind": way.medium, "own_port": way.port, "speed_mbps": way.speed_mbps}
        return way.to, Joint(ports=(way.to_port,) if way.to_port is not None else (), **facts)

    def of_device(self, device: Device) -> tuple[str, Joint]:
        """Return what a device hangs on, and how."""
        known = self.known
        if device.id == known.router:
            return LINE, Joint(kind="line", speed_mbps=known.plan.design.site.line_mbps)
        uses, run = known.ports.get(device.id, []), known.runs.get(device.id)
        row = known.tree.rows.get(device.id)
        if row is not None and row.over_air and row.parent is not None:
            return row.parent, self._air(device.id)
        plug = known.plugged.get(device.id)
        if plug is not None:
            facts = self._carries(plug.host, plug.port)
            facts |= {"ports": (plug.port,) if plug.port else (), "speed_mbps": float(plug.speed_mbps)}
            facts |= {"kind": "cord", "length_m": plug.cord_m} if run is None else {}
            return plug.host, self._cabled(run, []).model_copy(update=facts)
        if uses:
            return uses[0].switch, self._cabled(run, uses)
        return self._without_port(device, run)

    def of_recorder(self, use: PortUse) -> Joint:
        """Return the joint of what the plan puts into a rack by itself."""
        facts = self._carries(use.switch, use.port)
        return Joint(
            kind="cord", link=use.link or "", ports=(use.port,), speed_mbps=float(use.speed_mbps), **facts
        )

    def _of_router(self, router: str, port: int | None) -> Joint:
        """Return what joins the first switch to the router: the router's own cable, upside down."""
        known = self.known
        uses, run = known.ports.get(router, []), known.runs.get(router)
        joint = self._cabled(run, uses) if uses or run is not None else Joint(kind="cord")
        leads_out = (float(w.speed_mbps) for w in known.ways.values() if w.to is None)
        speed = joint.speed_mbps or next(leads_out, 0.0)
        own = uses[0].port if uses else port
        return joint.model_copy(update={"ports": (), "own_port": own, "speed_mbps": speed})

    def _without_port(self, device: Device, run: RunVerdict | None) -> tuple[str, Joint]:
        """Return what a device that has no port hangs on: the first switch of the rack that its run ends
        in, where it reaches one."""
        if run is None or run.verdict == _NO_WAY:
            why = run.reason if run is not None else "no cable goes to it, and nothing over the air"
            return LOOSE, Joint(kind="none", verdict="not_met", why=why)
        why = self.known.left.get(device.id, "no port is given to it")
        switches = self.known.plan.design.of(Switch).values()
        there = next((s.id for s in switches if s.equipment_room == run.room), LOOSE)
        return there, self._cabled(run, []).model_copy(
            update={"verdict": "not_met", "why": why, "speed_mbps": 0.0}
        )

    def _cabled(self, run: RunVerdict | None, uses: list[PortUse]) -> Joint:
        known = self.known
        device = (run.device if run is not None else uses[0].device if uses else None) or ""
        powered, chain = known.powered.get(device), known.chains.get(device)
        injector = known.injectors.get(device)
        fed = injector is not None or any(u.feeds for u in uses)
        own = [k.mbps for k in chain.links if k.kind in ("port", "cable", "device")][-3:] if chain else []
        slowest = min((u.speed_mbps for u in uses), default=0)
        facts = {"kind": "cord", "link": uses[0].link or "" if uses else "", **self._of_cable(run)}
        facts |= self._carries(uses[0].switch, uses[0].port) if uses else {}
        return Joint(
            ports=tuple(u.port for u in uses),
            extenders=max(0, len(run.hops) - 1) if run is not None else 0,
            speed_mbps=min(own, default=float(slowest)),
            watts=powered.expected_w if powered is not None and fed else 0.0,
            fed_by=known.plan.catalogue.injectors[injector.model].label if injector is not None else "",
            **facts,
        )

    def _air(self, device: str) -> Joint:
        link = self.known.mesh.get(device)
        if link is None:
            return Joint(kind="air")
        vlans = {n.vlan for n in self.known.plan.design.of(Network).values()} if not link.repeater else ()
        tagged = tuple(sorted(vlans))
        return Joint(kind="air", speed_mbps=link.rate_mbps, level_dbm=link.level_dbm, tagged=tagged)

    def _carries(self, switch: str, port: int | None) -> dict[str, Any]:
        """Return the VLANs of a port as it is set."""
        sheet = self.known.sheets.get((switch, port or 0))
        return {"untagged": sheet.untagged_vlan, "tagged": sheet.tagged_vlans} if sheet is not None else {}

    @staticmethod
    def _of_cable(link: LinkVerdict | None) -> dict[str, Any]:
        """Return what a cable says of itself, and what is wrong with it."""
        if link is None:
            return {}
        does = link.verdict in _DOES
        return {
            "kind": link.medium,
            "link": link.id,
            "category": link.category,
            "length_m": link.fixed_m,
            "verdict": link.verdict if does else "not_met",
            "why": "" if does else link.reason,
        }
