"""Bringing a site up, in fourteen steps, each for each device: what is done, what can be done now, and what
stands in the way. Most of it is told by the controller itself; the rest is ticked by hand."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from functools import cached_property

from ..core.base.wording import some, speed
from ..core.context.plan import Plan
from ..core.controlled import Differs, Managed
from ..core.design import Network
from ..core.records import SeenSpeed
from ..core.settings import overlap, parse_subnet
from ..core.views.managed import tree_of
from ..core.views.push import differing, push_plan
from .bringing import BringItem, BringStep, BringUp, Does, State, StepData, steps_data, ticks
from .contract import Gear
from .keys import KeyAt
from .work import Seen

__all__ = ["BringItem", "BringStep", "BringUp", "bring_up", "steps_data", "ticks"]


@dataclass(frozen=True)
class _Site:
    plan: Plan
    seen: Seen
    ticked: frozenset[str]
    backed_up: bool
    keys: Sequence[KeyAt]
    speeds: Sequence[SeenSpeed]
    bench: str | None

    @cached_property
    def rows(self) -> list[Managed]:
        tree = tree_of(self.plan)
        rows = [r for r in tree.rows.values() if r.managed]
        rank = {"switch": 0}
        return sorted(rows, key=lambda r: (r.over_air, rank.get(r.kind, 1), tree.depth[r.id], r.name))

    @cached_property
    def differs(self) -> list[Differs]:
        return differing(self.plan, self.seen.held, self.seen.matched)

    @cached_property
    def by_target(self) -> dict[str, list[Differs]]:
        found: dict[str, list[Differs]] = {}
        for row in self.differs:
            found.setdefault(row.target, []).append(row)
        return found

    def of(self, row: Managed, *keys: str) -> list[Differs]:
        """Return what differs of a device, of keys that begin so."""
        return [d for d in self.by_target.get(f"device/{row.id}", ()) if d.key.startswith(keys)]

    @cached_property
    def cuts(self) -> dict[str, str]:
        """By target what a push of it would cut off, in words."""
        rows = {r.id: r.name for r in tree_of(self.plan).rows.values()}
        steps = push_plan(self.plan, self.seen.held, self.differs)
        return {s.target: some([rows[k] for k in s.cuts]) for s in steps if s.cuts}

    def gear(self, row: Managed) -> Gear | None:
        return self.seen.gear.get(self.seen.matched.get(row.id, ""))

    def adopted(self, row: Managed) -> bool:
        gear = self.gear(row)
        return gear is not None and gear.stand not in ("found", "held_elsewhere", "adopting")

    @property
    def current(self) -> bool:
        return self.seen.about.offers is None and not self.seen.about.updating


def bring_up(
    plan: Plan,
    seen: Seen,
    ticked: frozenset[str] = frozenset(),
    backed_up: bool = False,
    keys: Sequence[KeyAt] = (),
    speeds: Sequence[SeenSpeed] = (),
    bench: str | None = None,
) -> BringUp:
    """Return how far a site is.

    Args:
        ticked: ids of what somebody ticked by hand.
        backed_up: whether a backup was kept since the last push.
        keys: how the key of each name stands at the controller.
        speeds: the line and the rooms, with what was measured there.
        bench: subnet of the network that it is set up behind, before it is on site.
    """
    site = _Site(plan, seen, ticked, backed_up, keys, speeds, bench)
    steps = []
    for number, step in enumerate(steps_data(), start=1):
        items = (*_ticked(step, site), *_items(number, site))
        steps.append(
            BringStep(number=number, state=_state(items), items=items, **step.model_dump(exclude={"ticks"}))
        )
    every = [i for s in steps for i in s.items]
    return BringUp(
        steps=tuple(steps),
        done=sum(i.state == "done" for i in every),
        of=len(every),
        blocked=tuple(f"{i.name}: {i.words}" for i in every if i.state == "blocked"),
        bench=bench,
    )


def _state(items: Sequence[BringItem]) -> State:
    states = {i.state for i in items}
    if states <= {"done"}:
        return "done"
    return next(s for s in ("blocked", "ready", "waits") if s in states)


def _ticked(step: StepData, site: _Site) -> Iterator[BringItem]:
    for key, words in step.ticks.items():
        if site.bench is not None and key in _ON_SITE:
            yield BringItem(id=key, name=words, state="waits", words=_ON_SITE[key])
            continue
        state: State = "done" if key in site.ticked else "ready"
        yield BringItem(id=key, name=words, state=state, does="tick")


# What is tried where it will be used, whatever was done at the bench.
_ON_SITE = {
    "line": "on site: at the bench it is another line",
    "leases": "on site, where old ones are held",
    "walk": "on site",
}


def _items(number: int, site: _Site) -> Iterator[BringItem]:
    if number == 1 and site.bench is not None:
        yield _behind(site.plan, site.bench)
    elif number == 3:
        yield _controller(site)
    elif number == 4:
        yield _pushed(site, "quiet", "Updates as planned", site.by_target.get("site", ()), "site")
    elif number == 5:
        yield from _released(site)
    elif number == 6:
        yield from (_adopted(site, row) for row in site.rows)
    elif number == 7:
        yield from (_updated(site, row) for row in site.rows)
    elif number == 8:
        yield from (_named(site, row) for row in site.rows)
    elif number == 9:
        yield from _networks(site)
    elif number == 10:
        yield from _radios(site)
    elif number == 12:
        yield from (_baseline(row, site.bench is not None) for row in site.speeds)
    elif number == 13:
        yield _backup(site)


def _now(item: BringItem, state: State, words: str = "", does: Does = "") -> BringItem:
    """Return an item as it stands now."""
    return item.model_copy(update={"state": state, "words": words, "does": does})


def _controller(site: _Site) -> BringItem:
    about, item = site.seen.about, BringItem(id="controller", name="The controller", state="waits")
    if about.updating:
        return _now(item, "waits", "updates itself")
    if about.offers is not None:
        return _now(item, "ready", f"firmware {about.firmware}, {about.offers} is offered", "update_itself")
    return _now(item, "done", f"firmware {about.firmware}")


def _released(site: _Site) -> Iterator[BringItem]:
    held = [g for g in site.seen.gear.values() if g.stand == "held_elsewhere"]
    names = {r.id: r.name for r in site.rows}
    for gear in held:
        device = site.seen.devices.get(gear.serial)
        by = gear.held_by or "another controller"
        yield BringItem(
            id=f"release-{gear.serial}",
            name=names.get(device or "", f"{gear.model} {gear.serial}"),
            state="blocked",
            words=f"held by {by}: have it released there, then reset it at its button",
            does="release",
            device=device,
            serial=gear.serial,
        )
    if not held:
        words = "in factory state, or adopted"
        yield BringItem(id="release", name="All that is seen", state="done", words=words)


def _adopted(site: _Site, row: Managed) -> BringItem:
    gear, serial = site.gear(row), site.seen.matched.get(row.id, "")
    item = BringItem(id=f"adopt-{row.id}", name=row.name, state="done", device=row.id, serial=serial)
    if site.adopted(row):
        return item
    if gear is not None and gear.stand == "adopting":
        return _now(item, "waits", "is adopted now")
    if gear is not None and gear.stand == "held_elsewhere":
        return _now(item, "blocked", "another controller holds it (step 5)")
    if not site.current:
        return _now(item, "waits", "the controller first (step 3)")
    left = [r.name for r in site.rows if not r.over_air and not site.adopted(r)] if row.over_air else []
    if left:
        return _now(item, "waits", f"wired ones first: {some(left)}")
    return _unseen(site, row, item) if gear is None else _now(item, "ready", "found", "adopt")


def _unseen(site: _Site, row: Managed, item: BringItem) -> BringItem:
    """Return why a device does not show itself: what it hangs on, its cable, power, or unknown serial."""
    parent = next((r for r in site.rows if r.id == row.parent), None)
    if parent is not None and not site.adopted(parent):
        return _now(item, "waits", f"{parent.name} first: it hangs on that")
    if site.seen.strangers:
        words = "not seen where it is planned; if it is one of those that are not known, tell its serial"
        return _now(item, "blocked", words, "match")
    at = f"port {row.port}" if row.port is not None else "its mains and its parent's level"
    words = f"not seen: look at its cable, {at}, whether it has power; then tell its serial"
    return _now(item, "blocked", words, "match")


def _updated(site: _Site, row: Managed) -> BringItem:
    gear, serial = site.gear(row), site.seen.matched.get(row.id, "")
    item = BringItem(id=f"update-{row.id}", name=row.name, state="waits", device=row.id, serial=serial)
    if gear is None or not site.adopted(row):
        return _now(item, "waits", "once it is adopted")
    if gear.stand == "cut_off":
        return _now(item, "blocked", "has power and is not reached: set the port right that it hangs on")
    if gear.stand != "online":
        words = (
            "updates" if gear.stand == "updating" else "restarts, or lost its power: wait, then look there"
        )
        return _now(item, "waits", words)
    if gear.offers is not None:
        return _now(item, "ready", f"firmware {gear.firmware}, {gear.offers} is offered", "update")
    return _now(item, "done", f"firmware {gear.firmware}")


def _named(site: _Site, row: Managed) -> BringItem:
    serial = site.seen.matched.get(row.id, "")
    found = _pushed(site, f"name-{row.id}", row.name, site.of(row, "label"), f"device/{row.id}", row)
    words = f"{serial}; {found.words}".strip("; ") if serial else found.words
    return found.model_copy(update={"words": words, "serial": serial})


def _networks(site: _Site) -> Iterator[BringItem]:
    by = {
        "networks": ("Networks", [d for d in site.differs if d.target.startswith("network/")]),
        "names": ("Wireless names", [d for d in site.differs if d.target.startswith("name/")]),
    }
    for key, (name, rows) in by.items():
        yield _pushed(site, key, name, rows, "")
    yield from (_keyed(site, row) for row in site.keys)
    for row in site.rows:
        mine = site.of(row, "port.")
        if mine or any(k.startswith("port.") for k in site.seen.held.get(f"device/{row.id}", {})):
            yield _pushed(site, f"ports-{row.id}", f"Ports of {row.name}", mine, f"device/{row.id}", row)


def _keyed(site: _Site, row: KeyAt) -> BringItem:
    name = f"Key of {row.name}" if row.security is not None else f"Codes of the vouchers: {row.name}"
    item = BringItem(id=f"key-{row.target.replace('/', '-')}", name=name, state="done")
    if row.stand == "held":
        return item
    if row.stand == "missing":
        return _now(item, "blocked", row.words)
    if row.target not in site.seen.held:
        return _now(item, "waits", "once it is there")
    return _now(item, "ready", row.words, "keys")


def _radios(site: _Site) -> Iterator[BringItem]:
    for row in site.rows:
        if row.kind == "switch":
            continue
        mine = site.of(row, "radio.", "airtime")
        yield _pushed(site, f"radio-{row.id}", row.name, mine, f"device/{row.id}", row)


def _pushed(
    site: _Site, key: str, name: str, differs: Sequence[Differs], target: str, row: Managed | None = None
) -> BringItem:
    """Return what of a step is pushed: done where it holds, ready where its device is online."""
    device = row.id if row is not None else None
    item = BringItem(id=key, name=name, state="waits", device=device, target=target)
    if row is not None and not site.adopted(row):
        return _now(item, "waits", "once it is adopted")
    if not differs:
        return _now(item, "done")
    gear = site.gear(row) if row is not None else None
    if gear is not None and gear.stand != "online":
        return _now(item, "waits", f"it is {gear.stand.replace('_', ' ')}")
    if target in site.cuts:
        cut = site.cuts[target]
        words = f"as it is planned it would cut off {cut}: its port has no way for it. Change the plan"
        return _now(item, "blocked", words)
    words = f"{len(differs)} setting{'s' if len(differs) != 1 else ''} to push"
    refused = [d.key for d in differs if gear is not None and d.key in gear.refuses]
    if gear is not None and refused:
        words = f"{refused[0]}: {gear.refuses[refused[0]]}; send it again, or have the plan without it"
    return _now(item, "ready", words, "push")


def _behind(plan: Plan, bench: str) -> BringItem:
    """Return whether the network of the bench is another than all that the site has."""
    item = BringItem(id="bench", name=f"The bench’s network, {bench or 'not said'}", state="blocked")
    theirs = parse_subnet(bench)
    if theirs is None:
        return _now(item, "blocked", "is no subnet such as 192.168.1.0/24: look at the router of the bench")
    rows = [(n, parse_subnet(n.subnet)) for n in plan.design.of(Network).values()]
    same = [n.name for n, subnet in rows if subnet is not None and overlap(subnet, theirs)]
    if same:
        words = f"is also that of {some(same)}: the router gets no address; set up behind another network"
        return _now(item, "blocked", words)
    return _now(item, "done", "none of the site has its addresses")


def _baseline(row: SeenSpeed, at_bench: bool = False) -> BringItem:
    where = f"{row.floor}: {row.name}" if row.floor else row.name
    item = BringItem(id=f"speed-{row.where}", name=where, state="ready")
    if at_bench:
        return _now(item, "waits", "on site, over the client's own line")
    if row.baseline is not None:
        return _now(item, "done", row.reason)
    passes = speed(row.planned_mbps) if row.planned_mbps > 0 else "nothing"
    return _now(item, "ready", f"the plan lets {passes} through: {row.binds}", "speed")


def _backup(site: _Site) -> BringItem:
    item = BringItem(id="backup", name="Backup", state="waits")
    if site.differs:
        return _now(item, "waits", "once all holds as planned")
    if site.backed_up:
        return _now(item, "done", "kept with the project")
    return _now(item, "ready", "keep one with the project", "backup")
