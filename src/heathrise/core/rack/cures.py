"""What would mend a rack: injectors that do, switches on which every link finds its port."""

from __future__ import annotations

from collections.abc import Collection, Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from typing import ClassVar

from ..base.frozen import Frozen
from ..catalogue import Catalogue, SwitchModel
from ..context.far_links import far_place
from ..context.findings import Cure
from ..context.racks import leads_up, top_room
from ..design import Design, Device, EquipmentRoom, FarPoint, Injector, Switch, Uplink, free_number, put
from ..ports import NOTHING_CHOSEN, Assignment, Demand, Shelf, UplinkPort, Way, assign, reserved_w, uplinks


@dataclass(frozen=True)
class Rack:
    """The switches of one equipment room, its way up, and the ways to the racks below it; the ``top``
    one is where the line comes in."""

    room: str
    shelves: tuple[Shelf, ...]
    up: Way
    below: tuple[Way, ...] = ()
    top: bool = False

    def kept(
        self,
        shelves: Sequence[Shelf],
        pinned: Collection[tuple[str, int]] = (),
        chosen: Mapping[tuple[str, str | None], int] = NOTHING_CHOSEN,
    ) -> tuple[UplinkPort, ...]:
        """Return the ports kept for its ways if these were its switches: those chosen, none of those
        pinned."""
        return uplinks(shelves, self.up, self.below, pinned, chosen)


class WeakInjector(Frozen):
    """An injector that does not do for its device, and what would. Speeds in Mb/s."""

    KEY: ClassVar = ("device",)

    device: str
    name: str
    label: str
    poe_class: int
    wanted_class: int
    speed_mbps: int
    wanted_mbps: int
    cures: tuple[Cure, ...]


def weak_injectors(design: Design, catalogue: Catalogue) -> Iterator[WeakInjector]:
    for injector in design.of(Injector).values():
        device = design.of(Device)[injector.device]
        wanted = catalogue.model_of(device)
        model = catalogue.injectors[injector.model]
        if wanted.power is None or model.passive_v is not None:
            continue  # a passive feed is told by itself
        if model.does(wanted.power.poe_class, wanted.speed_mbps):
            continue
        better = catalogue.injector_for(wanted.power.poe_class, wanted.speed_mbps)
        cures: tuple[Cure, ...] = ()
        if better is not None:
            changed = put(injector.model_copy(update={"model": better.id}))
            extra = f"{better.price - model.price:+g} {design.site.currency}"
            cures = (Cure(label=f"Take {better.label}", effect=extra, changes=(changed,)),)
        yield WeakInjector(
            device=device.id,
            name=device.name,
            label=model.label,
            poe_class=model.poe_class,
            wanted_class=wanted.power.poe_class,
            speed_mbps=model.speed_mbps,
            wanted_mbps=wanted.speed_mbps,
            cures=cures,
        )


def rack_cures(
    design: Design, catalogue: Catalogue, demands: tuple[Demand, ...], rack: Rack, result: Assignment
) -> tuple[Cure, ...]:
    cures = [*_injector_cure(design, catalogue, demands, rack, result)]
    cures += _switch_cures(design, catalogue, demands, rack)
    return tuple(cures)


def _injector_cure(
    design: Design, catalogue: Catalogue, demands: tuple[Demand, ...], rack: Rack, result: Assignment
) -> Sequence[Cure]:
    """Offer an injector for each device and far place left over that is fed, if all then find a port."""
    left = [d for d in demands if d.id in result.left and d.poe_class is not None]
    if not left or len(left) != len(result.left):
        return []
    bought: list[Injector | FarPoint] = []
    price = 0.0
    for demand in left:
        model = catalogue.injector_for(demand.poe_class or 0, demand.speed_mbps)
        place = design.of(FarPoint).get(far_place(demand.id) or "")
        if model is None or not (demand.device or place):
            return []
        price += model.price
        if place is not None:
            bought.append(place.model_copy(update={"injector": True}))
        else:
            bought.append(Injector(id=f"inj-{demand.device}"[:40], device=demand.device, model=model.id))
    plain = tuple(
        replace(d, poe_class=None, port_w=0.0, class_w=0.0) if d.id in result.left else d for d in demands
    )
    if assign(plain, rack.shelves, (), rack.kept(rack.shelves)).left:
        return []
    what = f"an injector for {left[0].name}" if len(left) == 1 else f"{len(left)} injectors"
    return [
        Cure(
            label=f"Put in {what}",
            effect=f"feeds it from an unpowered port; {price:g} {design.site.currency}",
            changes=tuple(put(i) for i in bought),
        )
    ]


def _switch_cures(
    design: Design, catalogue: Catalogue, demands: tuple[Demand, ...], rack: Rack
) -> Sequence[Cure]:
    """Offer the cheapest switch that fits everything with the headroom kept: in place of the
    last one, and beside those there."""
    shelves = rack.shelves
    models = catalogue.sold_switches
    cures: list[Cure] = []
    owned = design.of(Switch)
    headroom, currency = design.site.power_headroom, design.site.currency
    if shelves:
        last = shelves[-1]
        options = {m.id: (*shelves[:-1], Shelf(last.id, last.name, m)) for m in models if m != last.model}
        model, words = _cheapest(models, options, demands, headroom, rack)
        if model is not None:
            changed = owned[last.id].model_copy(update={"model": model.id})
            effect = f"{words}; {model.price - last.model.price:+g} {currency}"
            label = f"Put {model.label} in place of {last.name}"
            cures.append(Cure(label=label, effect=effect, changes=(put(changed),)))
    new_id = f"sw-{free_number(owned, 'sw')}"
    name = f"SW-{len(owned) + 1}"
    options = {m.id: (*shelves, Shelf(new_id, name, m)) for m in models}
    model, words = _cheapest(models, options, demands, headroom, rack)
    if model is not None:
        new = Switch(id=new_id, equipment_room=rack.room, name=name, model=model.id)
        label = f"Add {model.label}" if shelves else f"Choose {model.label}"
        effect = f"{words}; {model.price:+g} {currency}"
        cures.append(Cure(label=label, effect=effect, changes=(put(new),)))
    return cures


def straight_up(design: Design, switch: str) -> tuple[Cure, ...]:
    """Offer that the rack of a switch leads straight to where the line comes in, where others lie between."""
    rooms, up, top = design.of(EquipmentRoom), leads_up(design), top_room(design)
    room = design.of(Switch)[switch].equipment_room
    if top is None or up.get(room, top) == top:
        return ()
    said = next((u for u in design.of(Uplink).values() if u.room == room), None)
    said = said or Uplink(id=f"up-{free_number(design.of(Uplink), 'up')}", room=room, to=top)
    changed = put(said.model_copy(update={"to": top, "medium": None}))
    return (
        Cure(
            label=f"Lead {rooms[room].name} straight to {rooms[top].name}",
            effect=f"a way of its own in place of that over {rooms[up[room]].name}: Cable says over what",
            changes=(changed,),
        ),
    )


def cage_cures(
    design: Design, catalogue: Catalogue, demands: tuple[Demand, ...], rack: Rack, switch: str
) -> tuple[Cure, ...]:
    """Offer the cheapest switch in place of one whose fibre has no cage, if all still fits."""
    old = next(s for s in rack.shelves if s.id == switch)
    options: dict[str, tuple[Shelf, ...]] = {}
    models = catalogue.sold_switches
    for model in models:
        shelves = tuple(replace(s, model=model) if s is old else s for s in rack.shelves)
        if not any(u.converter and u.slot.switch == switch for u in rack.kept(shelves)):
            options[model.id] = shelves
    found, words = _cheapest(models, options, demands, design.site.power_headroom, rack)
    if found is None:
        return ()
    changed = design.of(Switch)[switch].model_copy(update={"model": found.id})
    effect = f"{words}; {found.price - old.model.price:+g} {design.site.currency}"
    return (Cure(label=f"Put {found.label} in its place", effect=effect, changes=(put(changed),)),)


def _cheapest(
    models: Sequence[SwitchModel],
    options: Mapping[str, tuple[Shelf, ...]],
    demands: tuple[Demand, ...],
    headroom: float,
    rack: Rack,
) -> tuple[SwitchModel | None, str]:
    """Return the first model by price with which every link fits, the headroom kept if any keeps
    it, and what is so of it."""
    tight: SwitchModel | None = None
    for model in models:
        shelves = options.get(model.id)
        if shelves is None:
            continue
        found = assign(demands, shelves, (), rack.kept(shelves), headroom=headroom)
        if found.left:
            continue
        if all(_counted_w(s, found, demands) <= s.model.budget_w * (1 - headroom) for s in shelves):
            return model, _said(tight, headroom)
        tight = tight or model
    return tight, "every link finds its port, watts to spare are not left"


def _said(tight: SwitchModel | None, headroom: float) -> str:
    """Return what is so of a switch that keeps the headroom: whether a cheaper one only fits."""
    words = f"every link finds its port with {headroom:.0%} of the watts kept"
    return f"{words}; {tight.label} fits without" if tight is not None else words


def _counted_w(shelf: Shelf, found: Assignment, demands: Sequence[Demand]) -> float:
    here = (d for d in demands if d.id in found.slots and found.slots[d.id].switch == shelf.id)
    return sum(reserved_w(shelf.model, d) for d in here)
