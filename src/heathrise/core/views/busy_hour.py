"""The busiest hour joined: beacons by the settings, and what would relieve it, each tried."""

from __future__ import annotations

from collections.abc import Iterator, Mapping

from ..base.bands import Band
from ..base.frozen import Frozen
from ..context.findings import Cure
from ..context.plan import Plan
from ..context.storeys import spot_within
from ..design import Change, ClientGroup, Device, Space, put
from ..evaluation.cure_search import added_in
from ..evaluation.side_effects import said_spoiled
from ..settings import beacons_by_band
from ..signal import Busy, ChannelPlan, busy_hour, channel_plans, channel_tasks, environment_of, quick_plans

_LEAST_GAIN = 0.01
_OFFERED = 4
WIDTHS = (20, 40, 80)


class BusyView(Frozen):
    """The busiest hour as planned, and what would relieve it, the most first."""

    busy: Busy
    cures: tuple[Cure, ...]


def busy_view(plan: Plan) -> BusyView:
    """Return the busiest hour of a design as planned and, where it is near or over, what helps."""
    design, ruled = plan.design, plan.catalogue
    air = environment_of(plan)
    plans = channel_plans(air, channel_tasks(air, begin=True), wait=False)
    busy = busy_hour(air, plans, beacons_by_band(design, ruled))
    if busy.worst <= busy.near_share and not busy.starved:
        return BusyView(busy=busy, cures=())
    tried = []
    for label, changes, anew in _ideas(plan, busy):
        after = _after(plan.after(changes), None if anew else plans)
        gain = busy.worst - after.worst
        helped = sum(s.clients for s in busy.starved) - sum(s.clients for s in after.starved)
        if gain > _LEAST_GAIN or helped > _LEAST_GAIN:
            effect = f"busiest radio {busy.worst:.0%} to {after.worst:.0%}"
            if helped > _LEAST_GAIN:
                effect += f", {helped:.0f} more clients are served"
            tried.append(((helped, gain), label, effect, changes))
    tried.sort(key=lambda row: row[0], reverse=True)
    cures = []
    for _, label, effect, changes in tried[:_OFFERED]:
        spoils = said_spoiled(plan, plan.after(changes))
        cures.append(Cure(label=label, effect=effect + spoils, changes=tuple(changes)))
    return BusyView(busy=busy, cures=tuple(cures))


def _after(plan: Plan, plans: Mapping[Band, ChannelPlan] | None) -> Busy:
    air = environment_of(plan)
    return busy_hour(air, plans or quick_plans(air), beacons_by_band(plan.design, plan.catalogue))


def _ideas(plan: Plan, busy: Busy) -> Iterator[tuple[str, list[Change], bool]]:
    """Yield what might relieve, and whether channels are planned anew for it."""
    design, catalogue = plan.design, plan.catalogue
    groups, spaces = design.of(ClientGroup), design.of(Space)
    for group in groups.values():
        client = catalogue.clients[group.kind]
        if client.wire in ("wished", "always") and group.count > group.wired:
            wired = group.model_copy(update={"wired": group.count})
            room = spaces[group.space].name
            yield f"A wire for {group.count} × {client.label.lower()}, {room}", [put(wired)], False
    for width in WIDTHS:
        if width != design.site.width_5ghz_mhz:
            site = design.site.model_copy(update={"width_5ghz_mhz": width})
            yield f"Plan {width} MHz channels on 5 GHz", [put(site)], True
    crowded = [u.group for load in busy.loads[:1] for u in load.using[:1]]
    crowded += [s.group for s in busy.starved[:1]]
    points = [d for d in design.of(Device).values() if d.model in catalogue.airs]
    for key in dict.fromkeys(crowded):
        space = spaces[groups[key].space]
        near = [d for d in points if d.floor == space.floor]
        for label, device in added_in(plan, space, spot_within(space), near):
            yield label, [put(device)], True
