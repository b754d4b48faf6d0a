"""Findings about power and ports: what is left over, budgets, volts, slow ports."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence

from ..base.wording import some
from ..catalogue import Rules, poe_rank
from ..context.findings import Cure, Finding, Place
from ..design import EquipmentRoom
from .cures import WeakInjector
from .values import PowerPlan


def power_findings(
    rules: Rules, plan: PowerPlan, rooms: Mapping[str, EquipmentRoom], line_mbps: float
) -> Iterator[Finding]:
    """Yield the findings of the power stage."""
    yield from _left_over(rules, plan, rooms)
    yield from _ways_up(rules, plan)
    for switch in plan.switches:
        if switch.verdict != "met":
            kept = 1 - switch.usable_w / switch.budget_w if switch.budget_w else 0
            by = "rated draw over each run" if switch.allocates == "negotiated" else "class"
            tip = f" {switch.tipped_by} tips it." if switch.tipped_by else ""
            if switch.dark_first:
                tip += f" If the watts run out goes dark first: {some(switch.dark_first)}."
            yield _power_finding(
                rules,
                f"budget-{switch.switch}",
                switch.verdict,
                f"{switch.name}: {switch.counted_w:g} W by {by}, of {switch.budget_w:g} W with "
                f"{kept:.0%} to be kept free.{tip}",
                places=(Place(kind="switch", id=switch.switch),),
                figure=switch.counted_w,
                limit=switch.usable_w,
                unit="W",
                rule="the budget by the way this switch allocates, less headroom",
            )
    unplugged = {plug.device for plug in plan.plugged if plug.wrong}
    for device in plan.devices:
        if device.verdict != "met" and device.device not in unplugged:
            if device.wrong:
                yield _power_finding(
                    rules,
                    f"hops-{device.device}",
                    "not_met",
                    f"{device.name}: {device.wrong}.",
                    places=(Place(kind="device", id=device.device),),
                    rule="watts and volts at each piece of its way, with all that it feeds on",
                    cures=plan.less_cures.get(device.device, ()),
                )
                continue
            state = "sees" if device.device_v else "cannot start:"
            yield _power_finding(
                rules,
                f"loop-{device.device}",
                device.verdict,
                f"{device.name} {state} {device.device_v:g} V at rated draw, wants {device.least_v:g}.",
                places=(Place(kind="device", id=device.device),),
                figure=device.device_v,
                limit=device.least_v,
                unit="V",
                rule="volts at the device over its own loop",
                cures=plan.less_cures.get(device.device, ()),
                used=rules.used(f"power.poe.{device.poe_class}.device_v", "power.near_v"),
            )
    for device in plan.devices:
        if device.reduced:
            yield _power_finding(
                rules,
                f"reduced-{device.device}",
                "note",
                f"{device.name} runs on class {device.poe_class}, less than it asks for: {device.reduced}.",
                places=(Place(kind="device", id=device.device),),
                rule="what a device does on less power stands on its sheet",
                source="the maker's sheet, as the catalogue has it",
            )
    for split in plan.splits:
        yield _power_finding(
            rules,
            f"split-{split.device}",
            split.severity,
            split.text,
            places=(Place(kind="device", id=split.device),),
            rule="a splitter gives the volts that its device wants, and watts enough",
            source="the maker's sheet, as the catalogue has it",
            cures=split.cures,
        )
    for weak in plan.weak_injectors:
        yield _weak_injector(rules, weak, plan.less_cures.get(weak.device, ()))
    for feed in plan.passive:
        yield _power_finding(
            rules,
            f"passive-{feed.device}",
            "not_met" if feed.severe else "near",
            feed.text,
            places=(Place(kind="device", id=feed.device),),
            figure=feed.device_v,
            limit=feed.wanted_v,
            unit="V",
            rule="a passive feed goes to what asks for it, and to nothing else",
            used=rules.used("power.passive_least_share"),
            source="the maker's sheet, as the catalogue has it",
            cures=feed.cures,
        )
    for plug in plan.plugged:
        if plug.wrong:
            yield _power_finding(
                rules,
                f"plugged-{plug.device}",
                "not_met",
                f"{plug.name} cannot be plugged into {plug.host_name}: {plug.wrong}.",
                places=(Place(kind="device", id=plug.device),),
                rule="a cord reaches a free port that does for its device",
                used=rules.used("power.plugged_cord_m"),
                cures=plug.cures,
            )
    for store in plan.stores:
        if store.verdict != "met":
            yield _power_finding(
                rules,
                f"store-{store.device or store.name.lower().replace(' ', '-')}",
                store.verdict,
                store.text,
                places=(Place(kind="device", id=store.device),) if store.device is not None else (),
                figure=store.days,
                limit=store.wanted_days or None,
                unit="days" if store.cameras else "",
                rule="disks fit their store, stand in for one another, keep recordings long enough",
                source=rules.source("order.recording_days"),
                used=rules.used("order.recording_days", "order.disk_tb", "order.redundancy"),
                cures=store.cures,
            )
    for pin in plan.lost_pins:
        yield _power_finding(
            rules,
            f"pin-{pin.pin}",
            "near",
            pin.text,
            places=(
                Place(kind="device", id=pin.device) if pin.device else Place(kind="switch", id=pin.switch),
            ),
            rule="a port chosen by hand serves what is put into it",
            source="IEEE 802.3",
            cures=pin.cures,
        )
    yield from _slow_ports(rules, plan, line_mbps)


def _left_over(rules: Rules, plan: PowerPlan, rooms: Mapping[str, EquipmentRoom]) -> Iterator[Finding]:
    """Yield for each rack the links that it has no port for."""
    several = len(rooms) > 1
    for room in dict.fromkeys(row.room for row in plan.left):
        left = [row for row in plan.left if row.room == room]
        where = f" in {rooms[room].name}" if several else ""
        cures = plan.cures.get(room, ())
        if not any(s.room == room for s in plan.switches):
            yield _power_finding(
                rules,
                f"none-{room}",
                "not_met",
                f"No switch is chosen{where}: {_links(len(left))} no port.",
                places=(_at(rooms[room]),),
                rule="every run ends in a port",
                cures=cures,
            )
            continue
        names = ", ".join(row.name for row in left[:6])
        more = f" and {len(left) - 6} more" if len(left) > 6 else ""
        reasons = " and ".join(sorted({row.reason for row in left}))
        proof = "" if plan.proven else " The search was cut short; a better fit may exist."
        yield _power_finding(
            rules,
            f"left-{room}",
            "not_met",
            f"Without a port{where}: {names}{more}; {reasons}.{proof}",
            places=tuple(Place(kind="device", id=row.device) for row in left),
            figure=len(left),
            limit=0,
            unit="links",
            rule="ports, powered ports and watts are three separate limits",
            cures=cures,
        )


def _links(count: int) -> str:
    return "1 link has" if count == 1 else f"{count} links have"


def _at(room: EquipmentRoom) -> Place:
    return Place(kind="equipment_room", id=room.id, floor=room.floor, at=room.at)


def _ways_up(rules: Rules, plan: PowerPlan) -> Iterator[Finding]:
    """Yield ways up that are too narrow, too deep, or of fibre without a cage."""
    widest = rules["power.most_oversubscription"]
    deepest = int(rules["power.most_cascade"])
    for way in plan.ways_up:
        place = (Place(kind="switch", id=way.switch),)
        over = way.load_mbps / way.speed_mbps
        if way.to is not None and over > widest:
            yield _power_finding(
                rules,
                f"narrow-{way.switch}",
                "near",
                f"{way.name}: all behind it ask for {way.load_mbps / 1000:g} Gb/s together, its "
                f"way up to {way.to_name} carries {way.speed_mbps / 1000:g}.",
                places=place,
                figure=round(over, 1),
                limit=widest,
                unit="to 1",
                rule="what all behind a way up ask for, over its speed",
                used=rules.used("power.most_oversubscription"),
                source="practice",
            )
        if way.depth > deepest:
            yield _power_finding(
                rules,
                f"cascade-{way.switch}",
                "near",
                f"{way.name} is the {way.depth}th switch from the line.",
                places=place,
                figure=way.depth,
                limit=deepest,
                unit="switches",
                rule="few switches one behind the other",
                used=rules.used("power.most_cascade"),
                source="practice",
                cures=plan.cascade_cures.get(way.switch, ()),
            )
        if way.converter:
            yield _power_finding(
                rules,
                f"converter-{way.switch}",
                "near",
                f"{way.name} to {way.to_name} is fibre and a switch has no cage left for it: a "
                "media converter is planned there, or take a switch with cages.",
                places=place,
                rule="fibre goes into a cage",
                source="practice",
                cures=plan.cage_cures.get(way.switch, ()),
            )


def _weak_injector(rules: Rules, weak: WeakInjector, on_less: Sequence[Cure] = ()) -> Finding:
    short = poe_rank(weak.poe_class) < poe_rank(weak.wanted_class)
    text = f"{weak.name}: {weak.label} "
    if short:
        text += f"feeds class {weak.poe_class}, the device asks for class {weak.wanted_class}."
    else:
        text += f"passes {weak.speed_mbps} Mb/s, the link asks for {weak.wanted_mbps}."
    return _power_finding(
        rules,
        f"injector-{weak.device}",
        "not_met" if short else "near",
        text,
        places=(Place(kind="device", id=weak.device),),
        figure=weak.poe_class if short else weak.speed_mbps,
        limit=weak.wanted_class if short else weak.wanted_mbps,
        unit="class" if short else "Mb/s",
        rule="an injector matches the class of its device and the speed of its link",
        cures=(*weak.cures, *on_less),
    )


def _slow_ports(rules: Rules, plan: PowerPlan, line_mbps: float) -> Iterator[Finding]:
    slow = [p for p in plan.ports if p.wanted_mbps and p.speed_mbps < p.wanted_mbps]
    if slow:
        names = ", ".join(sorted({p.name or "" for p in slow})[:8])
        least = min(p.speed_mbps for p in slow)
        worth = (
            f"the line's {line_mbps:g} are narrower still, so that only traffic inside notices"
            if least >= line_mbps
            else f"the line has {line_mbps:g}, so that the internet is slower for it too"
        )
        yield _power_finding(
            rules,
            "slow",
            "note",
            f"{len(slow)} links are faster than their ports: {names}. They run at {least} Mb/s; {worth}.",
            places=tuple(Place(kind="device", id=p.device) for p in slow if p.device),
            figure=min(p.speed_mbps for p in slow),
            limit=max(p.wanted_mbps or 0 for p in slow),
            unit="Mb/s",
            rule="the narrowest link binds",
            source="IEEE 802.3",
        )


def _power_finding(rules: Rules, key: str, severity: str, text: str, **fields: object) -> Finding:
    source = rules.source("power.poe.4.reserved_w")
    common = {"stage": "power", "severity": severity, "text": text, "source": source}
    return Finding.model_validate({"id": f"power-{key}", **common, **fields})
