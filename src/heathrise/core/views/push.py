"""A plan beside what its controller holds: what differs, in what order it is sent, what is taken over."""

from __future__ import annotations

from collections.abc import Container, Iterator, Sequence

from pydantic import ValidationError

from ..base.bands import BANDS
from ..context.plan import Plan
from ..controlled import Differs, Held, PushStep, device_of, differences, push_steps
from ..design import (
    Change,
    Device,
    Element,
    Membership,
    Network,
    Portal,
    Radio,
    Switch,
    VoucherSet,
    WirelessName,
    free_number,
    put,
)
from ..settings import host_number
from ..signal import channel_tasks, environment_of
from .managed import tree_of, wanted_of

_NOT_OURS = ("site",)  # what a controller says of itself beside what is planned is left alone


def differing(plan: Plan, held: Held, only: Container[str] | None = None) -> list[Differs]:
    """Return what a controller holds otherwise than the plan has it.

    Args:
        held: by target, devices by their id in the plan.
        only: devices that the controller has; settings of others are not missed yet.
    """
    wanted = wanted_of(plan)
    known = {
        target: values
        for target, values in wanted.items()
        if only is None or (device := device_of(target)) is None or device in only
    }
    rows = list(differences(_ours(held, known), known))
    as_good = _as_good(plan, held, rows)
    return [d for d in rows if (d.target, d.key) not in as_good]


_MORE = 1  # a single channel that is another was changed by somebody
_TINY_DB = 1e-6


def _as_good(plan: Plan, held: Held, differs: Sequence[Differs]) -> frozenset[tuple[str, str]]:
    """Return the channels that are held, are others than planned, and taken together share no more air: of
    plans that are as good one is found today and another tomorrow, and a site is not sent from one to the
    next."""
    wanted = {(d.target, d.key): d.wanted for d in differs if d.key.endswith(".channel")}
    found: set[tuple[str, str]] = set()
    if len(wanted) <= _MORE:
        return frozenset()
    air = environment_of(plan)
    for band, task in channel_tasks(air, begin=False).items():
        points, key = air.access_points(band), f"radio.{band}.channel"
        rows = task.members or tuple((k,) for k in range(len(points)))
        targets = [f"device/{points[members[0]].id}" for members in rows]
        other = {(t, key) for t in targets if (t, key) in wanted}
        now = [held.get(t, {}).get(key) for t in targets]
        if len(other) <= _MORE or not all(c in task.options for c in now):
            continue
        if any(by_hand not in (None, c) for c, by_hand in zip(now, task.fixed, strict=True)):
            continue
        planned = [wanted.get((t, key), c) for t, c in zip(targets, now, strict=True)]
        if task.cost_db(_numbers(now)) <= task.cost_db(_numbers(planned)) + _TINY_DB:
            members = {f"device/{p.id}" for p in points}
            found |= {k for k in wanted if k[1] == key and k[0] in members}
    return frozenset(found)


def _numbers(channels: Sequence[object]) -> list[int]:
    return [c for c in channels if isinstance(c, int)]


def _ours(held: Held, wanted: Held) -> Held:
    """Return what is held without what is none of the plan's business: devices that are not in it, and keys
    of the site that it says nothing of."""
    found = {}
    for target, values in held.items():
        if device_of(target) is not None and target not in wanted:
            continue
        ours = wanted.get(target, {}) if target in _NOT_OURS else values
        found[target] = {k: v for k, v in values.items() if k in ours}
    return found


def push_plan(plan: Plan, held: Held, differs: Sequence[Differs]) -> list[PushStep]:
    """Return the steps by which differences are sent."""
    return push_steps(differs, held, tree_of(plan), names_of(plan, differs, held))


def names_of(plan: Plan, differs: Sequence[Differs], held: Held) -> dict[str, str]:
    """Return what each target is called: as in the plan, else as the controller has it."""
    found = {"site": "The site"}
    for cls, stem in ((Network, "network"), (Switch, "device"), (Device, "device")):
        found |= {f"{stem}/{e.id}": e.name for e in plan.design.of(cls).values()}  # type: ignore[attr-defined]
    for target in {d.target for d in differs} - set(found):
        mine = {d.key: d.wanted for d in differs if d.target == target and d.wanted}
        values = {**held.get(target, {}), **mine}
        found[target] = str(values.get("ssid") or values.get("label") or target)
    return found


_NETWORK = {
    "label": "name",
    "vlan": "vlan",
    "subnet": "subnet",
    "lease_hours": "lease_h",
    "client_isolation": "client_isolation",
    "internet": "internet",
    "limit_all_mbps": "limit_all_mbps",
}
_POOL = ("pool_first", "pool_last")
_NAME = (
    "ssid",
    "network",
    "bands",
    "security",
    "client_isolation",
    "fast_transition",
    "steering",
    "dtim",
    "lowest_rate_mbps",
    "limit_mbps",
)


_PAGE = {
    "page.way": "way",
    "page.hours": "session_h",
    "page.asks": "asks",
    "page.terms": "terms",
    "page.kept_days": "kept_days",
}
_VOUCHERS = {"label": "name", "hours": "hours", "devices": "devices", "limit_mbps": "limit_mbps"}


def taken_over(plan: Plan, differs: Differs) -> tuple[Change, ...] | None:
    """Return the changes by which the plan has what a controller holds; None where it cannot have it."""
    if differs.held is None:
        return None
    try:
        changed = next(_changed(plan, differs), None)
    except ValidationError:
        return None  # a plan has no such value
    return (put(changed),) if changed is not None else None


def _changed(plan: Plan, differs: Differs) -> Iterator[Element]:
    stem, _, key = differs.target.partition("/")
    drawn, value = plan.drawn, differs.held
    if stem == "network" and key in drawn.of(Network) and differs.key in _NETWORK:
        row = drawn.of(Network)[key].model_dump()
        yield Network.model_validate({**row, _NETWORK[differs.key]: value})
    if stem == "network" and key in drawn.of(Network) and differs.key in _POOL:
        network = drawn.of(Network)[key]
        if (number := host_number(network.subnet, value)) is not None:
            yield Network.model_validate({**network.model_dump(), differs.key: number})
    if stem == "name" and key in drawn.of(WirelessName) and differs.key in _NAME:
        row = drawn.of(WirelessName)[key].model_dump()
        yield WirelessName.model_validate({**row, differs.key: value})
    if stem == "network" and differs.key in _PAGE:
        for page in drawn.of(Portal).values():
            if page.network == key:
                yield Portal.model_validate({**page.model_dump(), _PAGE[differs.key]: value})
    if stem == "vouchers" and key in drawn.of(VoucherSet) and differs.key in _VOUCHERS:
        row = drawn.of(VoucherSet)[key].model_dump()
        yield VoucherSet.model_validate({**row, _VOUCHERS[differs.key]: value})
    if stem == "device":
        yield from _of_device(plan, key, differs)


def _of_device(plan: Plan, key: str, differs: Differs) -> Iterator[Element]:
    drawn, value = plan.drawn, differs.held
    head, _, last = differs.key.rpartition(".")
    if head.startswith("radio.") and last in ("on", "channel", "power_dbm"):
        band = head.removeprefix("radio.")
        if band in BANDS:
            said = next((r for r in drawn.of(Radio).values() if (r.device, r.band) == (key, band)), None)
            row = (
                said.model_dump()
                if said is not None
                else {"id": f"radio-{free_number(drawn.of(Radio), 'radio')}"}
            )
            yield Radio.model_validate({**row, "device": key, "band": band, last: value})
    if differs.key == "label":
        for cls in (Switch, Device):
            if key in drawn.of(cls):
                yield cls.model_validate({**drawn.of(cls)[key].model_dump(), "name": value})
    if head.startswith("port.") and last == "untagged" and key in drawn.of(Switch):
        yield from _of_port(plan, key, int(head.removeprefix("port.")), value)


def _of_port(plan: Plan, switch: str, port: int, vlan: object) -> Iterator[Element]:
    """Yield the membership by which a spare port of a switch has a network."""
    network = next((n for n in plan.drawn.of(Network).values() if n.vlan == vlan), None)
    if network is None:
        return
    members = plan.drawn.of(Membership)
    said = next((m for m in members.values() if (m.switch, m.port, m.device) == (switch, port, None)), None)
    key = said.id if said is not None else f"membership-{free_number(members, 'membership')}"
    yield Membership(id=key, network=network.id, switch=switch, port=port)
