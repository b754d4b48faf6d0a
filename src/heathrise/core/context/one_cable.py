"""Old cable that has to carry more than it has pairs for: the line, the way back and television.

The line comes in at one rack and the router stands elsewhere. What lies there between the two
carries the line to the router, the way back to all that hangs on the rack, and television. With as
many cables as services each has its own; with fewer they share, told apart by two switches.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from ..catalogue import Catalogue, Rules
from ..design import Design, Device, Network, OldCable
from .plugged import said_plugged
from .racks import rack_at, top_room
from .run_decisions import said_over_air
from .scope import kept_between, kept_cables, racks_of

Service = Literal["line", "back_haul", "television"]
SAID: dict[Service, str] = {"line": "the line", "back_haul": "the way back", "television": "television"}
# Links that ask for a port because of it, beside the first switch's way to the line's own box.
LINE_OUT, LAN_IN, TV_IN, TV_OUT = "line-out", "lan-in", "tv-in", "tv-out"
CARRIES: dict[str, Service] = {
    LINE_OUT: "line",
    LAN_IN: "back_haul",
    TV_IN: "television",
    TV_OUT: "television",
}


@dataclass(frozen=True)
class SharedCable:
    """Kept ``cables`` from the rack ``entry``, where the line comes in, to the ``router``, beside
    which the rack ``far`` stands or none yet; ``services`` are all that go between."""

    entry: str
    router: str
    far: str | None
    cables: tuple[str, ...]
    services: tuple[Service, ...]

    @property
    def is_short(self) -> bool:
        """Whether fewer cables lie there than services go between."""
        return len(self.cables) < len(self.services)

    @property
    def ends(self) -> frozenset[str]:
        """Return both racks, or none where one is still missing."""
        return frozenset((self.entry, self.far)) if self.far is not None else frozenset()

    @property
    def links(self) -> dict[str, str]:
        """Return by link that asks for a port the rack that it asks in; none until both racks stand."""
        if self.far is None or not self.is_short:
            return {}
        found = {LINE_OUT: self.far, LAN_IN: self.far}
        if "television" in self.services:
            found |= {TV_IN: self.entry, TV_OUT: self.far}
        return found


def said(services: Sequence[Service]) -> str:
    """Return services in words."""
    *others, last = [SAID[s] for s in services]
    return f"{', '.join(others)} and {last}" if others else last


def shared_cable(design: Design, catalogue: Catalogue) -> SharedCable | None:
    """Return what lies between the line and a router that stands elsewhere, or None where nothing
    that is kept does."""
    if not design.of(OldCable):
        return None
    rules = catalogue.rules
    entry = top_room(design)
    router = next((d for d in design.of(Device).values() if catalogue.role_of(d).leads_out), None)
    if router is None or entry is None:
        return None
    far = rack_at(design, router.floor, router.at)
    if far is not None and far.id == entry:
        return None
    if far is not None:
        there = kept_between(design, rules).get(frozenset((entry, far.id)), [])
    else:
        mine = kept_cables(design, rules).get(router.id, [])
        there = [cable for cable in mine if entry in racks_of(design, rules, cable)]
    if not there:
        return None
    loose = {router.id, *said_over_air(design), *said_plugged(design)}
    services: list[Service] = ["line"]
    if any(d.id not in loose for d in design.of(Device).values()):
        services.append("back_haul")
    if design.site.television:
        services.append("television")
    beside = far.id if far is not None else None
    return SharedCable(entry, router.id, beside, tuple(c.id for c in there), tuple(services))


def service_vlans(design: Design, rules: Rules, shared: SharedCable) -> dict[Service, int]:
    """Return the VLAN of each service that is no network of the plan, clear of those that are."""
    taken = {n.vlan for n in design.of(Network).values()}
    found: dict[Service, int] = {}
    for service in shared.services:
        if service != "back_haul":
            vlan = int(rules[f"settings.service_vlan.{service}"])
            while vlan in taken:
                vlan += 1
            taken.add(vlan)
            found[service] = vlan
    return found
