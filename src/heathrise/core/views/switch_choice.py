"""Switches for all racks at least cost: for what is planned, and with what comes later."""

from __future__ import annotations

from collections import Counter
from collections.abc import Sequence
from dataclasses import replace

from pydantic import Field

from ..base.frozen import Frozen
from ..base.progress import Progress
from ..base.wording import speed
from ..brief import nearest_rack
from ..catalogue import SwitchModel
from ..context.plan import Plan
from ..design import (
    Change,
    Design,
    EquipmentRoom,
    Membership,
    PortPin,
    Switch,
    WayPin,
    Zone,
    apply,
    free_number,
    put,
    remove,
)
from ..evaluation.evaluate import evaluate, rooms_up_of, wires_of
from ..evaluation.far_ports import far_loads
from ..ports import Chosen, Demand, KeptFree, choose
from ..rack import Rack, rack_loads
from .bill_of_materials import proven_order


class RackSwitches(Frozen):
    """The switches of one rack: what each is, and how many; those kept are told as such."""

    room: str
    name: str
    switches: tuple[str, ...]
    kept: int
    links: int = Field(description="links that ask for a port, those that come later included")
    price: float
    bound: float = Field(description="what no choice can be cheaper than")
    proven: bool
    slower: int = Field(description="links that run slower than asked")


class SwitchChoice(Frozen):
    """Switches for all racks. Money in the site's currency; ``extra`` with tax, the whole job's."""

    name: str
    says: str
    racks: tuple[RackSwitches, ...]
    price: float = Field(description="what its new switches cost, without tax")
    extra: float = Field(description="what the job then costs more, with tax")
    left: int = Field(description="links without a port")
    ports_free: int
    watts_free: float = Field(description="within the headroom of all switches")
    changes: tuple[Change, ...]


class SwitchChoices(Frozen):
    """The plan's own switches first, then the cheapest for today, with what comes later, and as fast as
    every device asks; one that is like another is told once."""

    currency: str
    choices: tuple[SwitchChoice, ...]
    without: tuple[str, ...] = Field((), description="racks that no choice of switches serves")


def switch_choices(plan: Plan, progress: Progress) -> SwitchChoices:
    """Return the switches of all racks as planned, and at least cost. Stopped, it gives what it has."""
    design, catalogue = plan.design, plan.catalogue
    hasty = plan.hastily()
    seen = evaluate(hasty)
    base = proven_order(hasty).sum.total
    wires, up = wires_of(design, seen.runs), rooms_up_of(seen.uplinks)
    loads = rack_loads(design, catalogue, wires, up, far_loads(hasty))
    kept = KeptFree(plan.rules["power.spare_ports_share"], design.site.power_headroom)
    rows = [_choice(hasty, base, "As planned", "what stands in the racks now", _as_planned(hasty, loads), ())]
    without: list[str] = []
    for number, (name, later, own_speed) in enumerate(_OFFERED):
        if not progress(number, len(_OFFERED)):
            break
        racks, changes = [], list[Change]()
        for rack, demands in loads:
            wished = (*demands, *(_later(hasty, rack.room) if later else ()))
            asked = wished if own_speed else tuple(_by_line(hasty, d) for d in wished)
            found = _chosen(hasty, rack, asked, kept)
            if found is None:
                without.append(design.of(EquipmentRoom)[rack.room].name)
                continue
            wanted, chosen, there = found
            racks.append(_said(hasty, rack.room, wanted, chosen, len(there)))
            changes += _changes(apply(plan.drawn, changes), rack.room, chosen, there)
        says = f"{kept.ports_share:.0%} of the ports and {kept.watts_share:.0%} of the watts kept free"
        if not own_speed:
            line = speed(plan.design.site.line_mbps)
            says += f"; no access point's port is faster than the line's {line} asks"
        if not without and not any(r.racks == tuple(racks) for r in rows):
            rows.append(_choice(hasty, base, name, says, racks, changes))
    return SwitchChoices(
        currency=design.site.currency, choices=tuple(rows), without=tuple(dict.fromkeys(without))
    )


# Name, whether what comes later is served too, whether air gets ports as fast as its devices have.
_OFFERED = (
    ("For today", False, False),
    ("With what comes later", True, False),
    ("At every device's own speed", True, True),
)
_LEAST_MBPS = 1000  # nobody buys a slower port


def _by_line(plan: Plan, demand: Demand) -> Demand:
    """Return a link as its user notices it: air that leads to the line needs no faster port than that."""
    role = plan.catalogue.roles.get(demand.role)
    if role is None or not plan.catalogue.gives_air(role.kind):
        return demand
    enough = max(_LEAST_MBPS, plan.design.site.line_mbps)
    steps = sorted({g.speed_mbps for m in plan.catalogue.sold_switches for g in m.groups})
    least = next((mbps for mbps in steps if mbps >= enough), steps[-1])
    return replace(demand, speed_mbps=min(demand.speed_mbps, least))


def _chosen(
    plan: Plan, rack: Rack, demands: tuple[Demand, ...], kept: KeptFree
) -> tuple[int, Chosen, list[Switch]] | None:
    there = [
        s for s in plan.design.of(Switch).values() if s.equipment_room == rack.room and s.state == "keep"
    ]
    models = [plan.catalogue.switches[s.model] for s in there]
    found = choose(demands, plan.catalogue.sold_switches, models, len(rack.below) + 1, kept)
    return (len(demands), found, there) if found is not None else None


def _later(plan: Plan, room: str) -> list[Demand]:
    """Return links of what comes later in the zones that are nearest to a rack."""
    design, rules = plan.design, plan.rules
    classes = rules.table("brief.later_class")
    found: list[Demand] = []
    for zone in design.of(Zone).values():
        near = nearest_rack(design, zone) if zone.kind == "later" else None
        if near is None or near[0] != room:
            continue
        for kind, count in (("access_point", zone.access_points), ("camera", zone.cameras)):
            poe = int(classes[kind])
            watts = rules.poe_classes[poe].reserved_w
            mbps = max((m.speed_mbps for m in plan.catalogue.sold(kind)[:1]), default=1000)
            found += [
                Demand(f"{zone.id}-{kind}-{k}", zone.name, mbps, poe, watts, watts, vlans=True, role=kind)
                for k in range(count)
            ]
        found += [Demand(f"{zone.id}-out-{k}", zone.name, 1000) for k in range(zone.outlets)]
    return found


def _said(plan: Plan, room: str, links: int, chosen: Chosen, kept: int) -> RackSwitches:
    return RackSwitches(
        room=room,
        name=plan.design.of(EquipmentRoom)[room].name,
        switches=_counted(chosen.models),
        kept=kept,
        links=links,
        price=chosen.price,
        bound=chosen.bound,
        proven=chosen.proven,
        slower=chosen.slower,
    )


def _counted(models: Sequence[SwitchModel]) -> tuple[str, ...]:
    return tuple(
        f"{n} × {label}" if n > 1 else label for label, n in Counter(m.label for m in models).items()
    )


def _as_planned(plan: Plan, loads: Sequence[tuple[Rack, tuple[Demand, ...]]]) -> list[RackSwitches]:
    rows = []
    for rack, demands in loads:
        mine = [s for s in plan.design.of(Switch).values() if s.equipment_room == rack.room]
        models = [plan.catalogue.switches[s.model] for s in mine]
        price = sum(m.price for s, m in zip(mine, models, strict=True) if s.state == "new")
        rows.append(
            RackSwitches(
                room=rack.room,
                name=plan.design.of(EquipmentRoom)[rack.room].name,
                switches=_counted(models),
                kept=sum(s.state == "keep" for s in mine),
                links=len(demands),
                price=round(price, 2),
                bound=0.0,
                proven=False,
                slower=0,
            )
        )
    return rows


def _changes(drawn: Design, room: str, chosen: Chosen, there: Sequence[Switch]) -> list[Change]:
    """Return the changes that put the chosen switches into a rack: those that are alike stay what they
    are, pins of those that go are taken away."""
    mine = [s for s in drawn.of(Switch).values() if s.equipment_room == room and s.state == "new"]
    bought = list(chosen.models[len(there) :])
    kept = []
    for switch in mine:
        match = next((m for m in bought if m.id == switch.model), None)
        if match is not None:
            bought.remove(match)
            kept.append(switch.id)
    changes: list[Change] = []
    taken = set(drawn.of(Switch))
    for switch in mine:
        if switch.id in kept:
            continue
        if bought:
            changes.append(put(switch.model_copy(update={"model": bought.pop(0).id})))
            continue
        changes += [remove(p) for p in drawn.of(PortPin).values() if p.switch == switch.id]
        changes += [remove(w) for w in drawn.of(WayPin).values() if switch.id in (w.switch, w.to)]
        changes += [remove(m) for m in drawn.of(Membership).values() if m.switch == switch.id]
        changes.append(remove(switch))
    for model in bought:
        number = free_number(taken, "sw")
        taken.add(f"sw-{number}")
        changes.append(
            put(Switch(id=f"sw-{number}", equipment_room=room, name=f"SW-{number}", model=model.id))
        )
    return changes


def _choice(
    plan: Plan, base: float, name: str, says: str, racks: Sequence[RackSwitches], changes: Sequence[Change]
) -> SwitchChoice:
    after = plan.after(changes)
    power = evaluate(after).power
    return SwitchChoice(
        name=name,
        says=says,
        racks=tuple(racks),
        price=round(sum(r.price for r in racks), 2),
        extra=round(proven_order(after).sum.total - base, 2),
        left=len(power.left),
        ports_free=sum(s.ports - s.ports_used for s in power.switches),
        watts_free=round(sum(max(0.0, s.usable_w - s.counted_w) for s in power.switches), 1),
        changes=tuple(changes),
    )
