"""The racks as a whole: ports and watts together, what is left over and what would mend it.

It joins the disciplines ``ports`` and ``power``, which do not know each other. Each equipment
room has a rack of its own; a device's link goes into a switch of the room its run begins in.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping, Sequence
from dataclasses import dataclass, field, replace

from ..base.wording import some
from ..catalogue import Catalogue
from ..context.far_links import far_place
from ..context.fibre_ends import far_ends
from ..context.findings import Cure
from ..context.one_cable import shared_cable
from ..context.plugged import Plugged, plugged_of
from ..design import Design, Device, FarPoint, Injector, Switch, WayPin, apply, put
from ..ports import Assignment, Demand, Shelf, UplinkPort, assign
from ..power import PoweredDevice, SwitchBudget, budget_of, sources
from .cures import Rack, cage_cures, rack_cures, straight_up, weak_injectors
from .feeds import injector_feed, plugged_feeds, plugs_said
from .loads import beside_of, guests_of, loads_of, neighbours_of, powered_of
from .passive import passive_feeds
from .pins import lost_ways, pinned
from .splits import wrong_splits
from .stores import stores_of
from .values import FarLoad, LostPin, PortUse, PowerPlan, PowerRun, RoomUp, SwitchUplink, Unassigned

WithCure = Callable[[Cure], PowerPlan]  # the power plan once a cure is taken
SharedOut = tuple[tuple[SwitchBudget, ...], tuple[Unassigned, ...]]  # watts of the switches, who is left
WithCureShared = Callable[[Cure], SharedOut]
REASONS = {
    "no_ports": "no port is left",
    "no_powered_ports": "no powered port is left",
    "no_watts": "the powered ports left have no watts behind them",
    "no_class": "no port feeds its class",
}


def plan_power(
    design: Design,
    catalogue: Catalogue,
    wires: Mapping[str, PowerRun],
    rooms_up: Mapping[str, RoomUp],
    with_cures: bool = True,
    far: Sequence[FarLoad] = (),
) -> PowerPlan:
    """Return ports and budgets for every wired device and every far place, room by room."""
    plugs = plugged_of(design, catalogue)
    guests, powered, plans = _given(design, catalogue, plugs, wires, rooms_up, far)
    injected = {i.device: i for i in design.of(Injector).values()}
    fed_by: dict[str, str] = {}
    for plan in plans:
        fed_by |= plan.fed_by()
    fed_by |= {i: injector_feed(catalogue, injected[i], powered[i]) for i in injected if i in powered}
    lit = {device.id: end for device, end in far_ends(design, catalogue) if device.id in powered}
    fed_by |= {k: end.label if end.feeds(powered[k].poe_class) else "none" for k, end in lit.items()}
    fed_by |= plugged_feeds(design, plugs, fed_by, powered)
    powered |= guests
    names = {s.id: s.name for s in design.of(Switch).values()}
    ports = [use for plan in plans for use in plan.port_map(names, _line(design, catalogue))]
    weak = tuple(weak_injectors(design, catalogue))

    def with_it(cure: Cure) -> PowerPlan:
        after = apply(design, cure.changes)
        return plan_power(after, catalogue, wires, rooms_up, False, _fed_by_ports(after, far))

    def shared_out(cure: Cure) -> SharedOut:
        after = apply(design, cure.changes)
        loads = _fed_by_ports(after, far)
        feeds = _given(after, catalogue, plugged_of(after, catalogue), wires, rooms_up, loads)[1:]
        return _shared_out(after, catalogue, *feeds, loads)

    short = [*(d.device for d in powered.values() if d.verdict == "not_met"), *(w.device for w in weak)]
    switches, left = _shared_out(design, catalogue, powered, plans, far)
    ways_up = tuple(_ways_up(plans, ports, rooms_up, names))
    return PowerPlan(
        switches=switches,
        ports=tuple(ports),
        devices=tuple(sources(powered, fed_by)),
        far=tuple(_beyond(far, plans)),
        left=left,
        proven=all(plan.result.proven for plan in plans),
        ways_up=ways_up,
        cures={
            plan.rack.room: tuple(
                _as_it_is(shared_out, plan.rack.room, cure)
                for cure in rack_cures(design, catalogue, plan.loose, plan.rack, plan.result)
            )
            + _on_less(design, catalogue, shared_out, plan)
            for plan in plans
            if plan.result.left and with_cures
        },
        cage_cures={
            u.slot.switch: cage_cures(design, catalogue, plan.loose, plan.rack, u.slot.switch)
            for plan in plans
            for u in plan.kept
            if u.converter and with_cures
        },
        cascade_cures={
            w.switch: cures
            for w in ways_up
            if with_cures
            and w.depth > catalogue.rules["power.most_cascade"]
            and (cures := straight_up(design, w.switch))
        },
        weak_injectors=weak,
        less_cures=dict(
            _starved_on_less(design, catalogue, with_it, dict.fromkeys(short)) if with_cures else ()
        ),
        plugged=tuple(plugs_said(design, catalogue, plugs)),
        passive=tuple(passive_feeds(design, catalogue, wires)),
        lost_pins=tuple(pin for plan in plans for pin in plan.lost),
        splits=tuple(wrong_splits(design, catalogue)),
        stores=tuple(stores_of(design, catalogue)),
        line_room=plans[0].rack.room if plans else "",
    )


def _fed_by_ports(design: Design, far: Sequence[FarLoad]) -> tuple[FarLoad, ...]:
    """Return far places' loads; what an injector feeds by now asks its port for nothing."""
    points = design.of(FarPoint)
    return tuple(replace(f, fed=None) if points[far_place(f.link) or ""].injector else f for f in far)


def _beyond(far: Sequence[FarLoad], plans: Sequence[_RoomPlan]) -> Iterable[PoweredDevice]:
    """Yield what is fed for far places with the port that feeds it."""
    names = {s.id: s.name for plan in plans for s in plan.rack.shelves}
    slots = {link: slot for plan in plans for link, slot in plan.result.slots.items()}
    for load in far:
        if load.fed is not None:
            slot = slots.get(load.link)
            source = f"{names[slot.switch]} port {slot.port}" if slot is not None else "none"
            yield load.fed.model_copy(update={"source": source})


def _given(
    design: Design,
    catalogue: Catalogue,
    plugs: Sequence[Plugged],
    wires: Mapping[str, PowerRun],
    rooms_up: Mapping[str, RoomUp],
    far: Sequence[FarLoad],
) -> tuple[dict[str, PoweredDevice], dict[str, PoweredDevice], list[_RoomPlan]]:
    """Return what is fed at others' ports, what is fed over runs, and who gets which port, room by room."""
    guests = guests_of(design, catalogue, plugs, wires)
    powered = powered_of(design, catalogue, wires, guests, plugs)
    pairs, beside = neighbours_of(design, catalogue), beside_of(design, catalogue)
    loads = loads_of(design, catalogue, wires, rooms_up, powered, far)
    return guests, powered, [_plan_room(design, rack, demands, pairs, beside) for rack, demands in loads]


def _shared_out(
    design: Design,
    catalogue: Catalogue,
    powered: Mapping[str, PoweredDevice],
    plans: Sequence[_RoomPlan],
    far: Sequence[FarLoad],
) -> SharedOut:
    fed = {**powered, **{load.link: load.fed for load in far if load.fed is not None}}
    ranks = {d.id: catalogue.role_of(d).sheds for d in design.of(Device).values()}
    headroom = design.site.power_headroom
    switches = tuple(b for plan in plans for b in plan.budgets(fed, headroom, ranks))
    return switches, tuple(row for plan in plans for row in plan.left())


def _as_it_is(shared_out: WithCureShared, room: str, cure: Cure) -> Cure:
    """Return a cure with what is really so once it is taken: neighbours are then kept on switches
    of their own, so that ports may be shared out otherwise than where it was looked for."""
    switches, unassigned = shared_out(cure)
    full = [s.name for s in switches if s.room == room and s.counted_w > s.usable_w + 1e-6]
    left = [row.name for row in unassigned if row.room == room]
    said = cure.effect
    if left:
        said += f"; still without a port: {some(left)}"
    if full and "of the watts kept" in said:
        said += f"; {some(full)} has less than that free as ports are shared out"
    return cure.model_copy(update={"effect": said})


def _on_less(
    design: Design, catalogue: Catalogue, shared_out: WithCureShared, plan: _RoomPlan
) -> tuple[Cure, ...]:
    """Offer what has a reduced mode to run in it: those left over, or all of the rack, if then every link
    finds its port."""
    left = {d.device for d in plan.demands if d.id in plan.result.left}
    own = [design.of(Device)[d.device] for d in plan.demands if d.device and d.poe_class is not None]
    able = [d for d in dict.fromkeys(own) if not d.reduced and catalogue.model_of(d).reduced is not None]
    for chosen in ([d for d in able if d.id in left], able):
        if not chosen:
            continue
        cure = _less_cure(catalogue, chosen)
        _, unassigned = shared_out(cure)
        if not any(row.room == plan.rack.room for row in unassigned):
            return (cure,)
    return ()


def _starved_on_less(
    design: Design, catalogue: Catalogue, with_it: WithCure, starved: Iterable[str]
) -> Iterable[tuple[str, tuple[Cure, ...]]]:
    """Yield for devices that get too little the reduced mode of their sheet, where that is enough."""
    for key in starved:
        device = design.of(Device)[key]
        if device.reduced or catalogue.model_of(device).reduced is None:
            continue
        cure = _less_cure(catalogue, [device])
        after = with_it(cure)
        mine = next((d for d in after.devices if d.device == key), None)
        if (
            mine is not None
            and mine.verdict != "not_met"
            and key not in {w.device for w in after.weak_injectors}
        ):
            yield key, (cure,)


def _less_cure(catalogue: Catalogue, devices: Sequence[Device]) -> Cure:
    changes = tuple(put(d.model_copy(update={"reduced": True})) for d in devices)
    modes = {d.model: catalogue.model_of(d).reduced for d in devices}
    lost = "; ".join(dict.fromkeys(mode.said for mode in modes.values() if mode is not None))
    label = f"Run {some([d.name for d in devices])} on less power"
    return Cure(label=label, effect=f"nothing is bought; {lost}", changes=changes)


@dataclass(frozen=True)
class _RoomPlan:
    """One rack with the links that ask for its ports, and who got which."""

    rack: Rack
    demands: tuple[Demand, ...]
    result: Assignment
    kept: tuple[UplinkPort, ...]
    lost: tuple[LostPin, ...] = ()
    chosen: Mapping[tuple[str, str | None], int] = field(default_factory=dict)

    @property
    def loose(self) -> tuple[Demand, ...]:
        """The links as if nobody had chosen ports for them: another switch may have others."""
        return tuple(replace(d, pin=None) for d in self.demands)

    def here(self, shelf: Shelf) -> list[Demand]:
        slots = self.result.slots
        return [d for d in self.demands if d.id in slots and slots[d.id].switch == shelf.id]

    def fed_by(self) -> dict[str, str]:
        names = {s.id: s.name for s in self.rack.shelves}
        slots = self.result.slots
        return {
            d.device: f"{names[slots[d.id].switch]} port {slots[d.id].port}"
            for d in self.demands
            if d.poe_class is not None and d.device and d.id in slots
        }

    def left(self) -> Iterable[Unassigned]:
        for d in self.demands:
            if d.id in self.result.left:
                yield Unassigned(
                    link=d.id,
                    room=self.rack.room,
                    device=d.device,
                    name=d.name,
                    reason=REASONS[self.result.left[d.id]],
                    poe_class=d.poe_class,
                )

    def budgets(
        self, powered: Mapping[str, PoweredDevice], headroom: float, ranks: Mapping[str, int]
    ) -> Iterable[SwitchBudget]:
        for shelf in self.rack.shelves:
            here, groups = self.here(shelf), shelf.model.groups
            kept = [u.slot for u in self.kept if u.slot.switch == shelf.id]
            slots = self.result.slots
            copper = sum(not groups[s.group].cage for s in (*kept, *(slots[d.id] for d in here)))
            on_power = sum(groups[slots[d.id].group].poe_class is not None for d in here)
            fed = [powered[d.device or d.id] for d in here if d.poe_class is not None]
            yield budget_of(
                shelf.id, shelf.name, shelf.model, fed, copper, on_power, headroom, self.rack.room, ranks
            )

    def port_map(self, names: Mapping[str, str], line: str) -> Iterable[PortUse]:
        held = {(slot.switch, slot.port): link for link, slot in self.result.slots.items()}
        kept = {(u.slot.switch, u.slot.port): u for u in self.kept}
        demands = {d.id: d for d in self.demands}
        for shelf in self.rack.shelves:
            number = 0
            for group in shelf.model.groups:
                for _ in range(group.count):
                    number += 1
                    link = held.get((shelf.id, number))
                    demand = demands[link] if link else None
                    up = kept.get((shelf.id, number))
                    way = f"to {names[up.to] if up.to else line}" if up else None
                    yield PortUse(
                        switch=shelf.id,
                        port=number,
                        speed_mbps=group.speed_mbps,
                        poe_class=group.poe_class,
                        cage=group.cage,
                        link=link,
                        device=demand.device or None if demand else None,
                        name=demand.name if demand else way,
                        wanted_mbps=demand.speed_mbps if demand else None,
                        feeds=demand is not None and demand.poe_class is not None,
                        uplink=up is not None,
                        uplink_to=up.to if up else None,
                        role=demand.role if demand else "",
                        pinned=(demand is not None and demand.pin is not None)
                        or (up is not None and self.chosen.get((shelf.id, up.to)) == number),
                    )


def _plan_room(
    design: Design,
    rack: Rack,
    demands: tuple[Demand, ...],
    pairs: tuple[tuple[str, str], ...],
    beside: tuple[tuple[str, str], ...],
) -> _RoomPlan:
    chosen = {(w.switch, w.leads_to): w.port for w in design.of(WayPin).values()}
    first = rack.kept(rack.shelves, (), chosen)
    held = pinned(design, demands, rack.shelves, first)
    kept = rack.kept(rack.shelves, {d.pin for d in held.demands if d.pin is not None}, chosen)
    result = assign(held.demands, rack.shelves, pairs, kept, beside, design.site.power_headroom)
    lost = (*held.lost, *lost_ways(design, rack.shelves, kept))
    return _RoomPlan(rack, held.demands, result, kept, lost, chosen)


def _ways_up(
    plans: Sequence[_RoomPlan],
    ports: Sequence[PortUse],
    rooms_up: Mapping[str, RoomUp],
    names: Mapping[str, str],
) -> Iterable[SwitchUplink]:
    """Yield the way up of each switch, those nearest the line first."""
    speed = {(p.switch, p.port): p.speed_mbps for p in ports}
    ups = {u.slot.switch: u for plan in plans for u in plan.kept if not u.down}
    downs = {u.to: u for plan in plans for u in plan.kept if u.down}
    room_of = {s.id: plan.rack.room for plan in plans for s in plan.rack.shelves}
    own: dict[str, int] = {}
    for p in ports:
        own[p.switch] = own.get(p.switch, 0) + (p.wanted_mbps or 0)

    def load(switch: str) -> int:
        return own.get(switch, 0) + sum(load(s) for s, u in ups.items() if u.to == switch)

    depth: dict[str, int] = {}
    for switch, up in ups.items():
        depth[switch] = depth.get(up.to or "", 0) + 1
        other = downs.get(switch)
        room = rooms_up.get(room_of[switch])
        outside = up.to is not None and room_of[up.to] != room_of[switch]
        speeds = [speed[up.slot.switch, up.slot.port]]
        if other is not None:
            speeds.append(speed[other.slot.switch, other.slot.port])
        if outside and room is not None:
            speeds.append(room.speed_mbps)
        yield SwitchUplink(
            switch=switch,
            name=names[switch],
            port=up.slot.port,
            to=up.to,
            to_name=names[up.to] if up.to else "the line",
            to_port=other.slot.port if other else None,
            medium=room.medium if outside and room is not None else "cord",
            converter=up.converter or (other is not None and other.converter),
            converters=tuple(u.slot.switch for u in (up, other) if u is not None and u.converter),
            speed_mbps=min(speeds),
            load_mbps=load(switch),
            depth=depth[switch],
        )


def _line(design: Design, catalogue: Catalogue) -> str:
    """Return what the first switch's way up ends in: the router, or the line's own box where the router
    stands at the far end of a cable that the line shares."""
    shared = shared_cable(design, catalogue)
    if shared is not None and shared.links:
        return design.site.upstream_gear[:60] or "the line"
    out = (d.name for d in design.of(Device).values() if catalogue.role_of(d).leads_out)
    return next(out, "the line")
