"""What the chapters of a plan know of its links, each by what it ends in."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Mapping
from dataclasses import dataclass
from functools import cached_property

from ..cabling import RunVerdict, UplinkVerdict
from ..context.plan import Plan
from ..controlled import Tree
from ..design import Device, Injector, Switch
from ..evaluation.chains import Chain
from ..evaluation.evaluate import Evaluation, evaluate
from ..power import PoweredDevice, SwitchBudget
from ..rack import PluggedDevice, PortUse, SwitchUplink
from ..settings import PortSheet
from ..signal import MeshLink, environment_of, mesh_links
from ..views.managed import tree_of


@dataclass(frozen=True)
class Known:
    """A plan, and what is known of it."""

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
    def chains(self) -> Mapping[str, Chain]:
        return {c.device: c for c in self.evaluation.chains.chains}

    @cached_property
    def powered(self) -> Mapping[str, PoweredDevice]:
        return {p.device: p for p in self.evaluation.power.devices}

    @cached_property
    def plugged(self) -> Mapping[str, PluggedDevice]:
        return {p.device: p for p in self.evaluation.power.plugged if not p.wrong}

    @cached_property
    def left(self) -> Mapping[str, str]:
        """Why a device got no port; of several cables what is said of the first."""
        return {u.device: u.reason for u in reversed(self.evaluation.power.left)}

    @cached_property
    def injectors(self) -> Mapping[str, Injector]:
        return {i.device: i for i in reversed(list(self.plan.design.of(Injector).values()))}

    @cached_property
    def budgets(self) -> Mapping[str, SwitchBudget]:
        return {b.switch: b for b in self.evaluation.power.switches}

    @cached_property
    def ways(self) -> Mapping[str, SwitchUplink]:
        return {w.switch: w for w in self.evaluation.power.ways_up}

    @cached_property
    def between(self) -> Mapping[frozenset[str], UplinkVerdict]:
        """Ways between racks, by the two racks."""
        return {frozenset((u.room or "", u.to_room or "")): u for u in self.evaluation.uplinks}

    @cached_property
    def sheets(self) -> Mapping[tuple[str, int], PortSheet]:
        sheet = self.evaluation.settings
        return {(p.switch, p.port): p for p in sheet.ports} if sheet is not None else {}

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
            found[load.device] += load.clients
        return found

    @cached_property
    def router(self) -> str | None:
        """The device that the line comes in at."""
        rows = self.plan.design.of(Device).values()
        return next((d.id for d in rows if self.plan.catalogue.role_of(d).leads_out), None)

    @cached_property
    def first(self) -> str | None:
        """The switch nearest to the line."""
        leads_out = (w.switch for w in self.ways.values() if w.to is None)
        return next(iter([*leads_out, *self.plan.design.of(Switch)]), None)

    @cached_property
    def narrow(self) -> set[str]:
        """Devices and switches at whose joint somebody's way out is narrowest, behind the line."""
        found = set()
        for chain in self.chains.values():
            link = chain.links[chain.inside]
            if link.kind in ("uplink", "cable", "port"):
                found.add(link.element if link.kind == "uplink" else chain.device)
        return found
