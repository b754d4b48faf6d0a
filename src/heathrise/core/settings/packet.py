"""A packet on its way from one host to another: what it goes through, and where it stops."""

from __future__ import annotations

from collections.abc import Hashable, Sequence
from dataclasses import dataclass
from typing import ClassVar

from pydantic import Field

from ..base.frozen import Frozen
from ..design import Network, WirelessName
from .fabric import INTERNET, Ascent, Fabric, Hop, Host
from .reach import has_internet, reaches


class PacketHop(Frozen):
    """A thing that the packet goes through, by the element that it is."""

    kind: str
    element: str
    words: str
    passes: bool = True


class PacketWalk(Frozen):
    """What becomes of a packet; ``links`` are the cables that it goes over, as far as it comes."""

    KEY: ClassVar = ("start", "goal")

    start: str
    goal: str
    passes: bool
    says: str
    hops: tuple[PacketHop, ...]
    links: tuple[str, ...] = Field((), description="ids of the links that it goes over")


def walk_packet(fabric: Fabric, start: str, goal: str) -> PacketWalk:
    """Return what becomes of a packet that opens a connection.

    Args:
        start: id of a host.
        goal: id of another, or ``internet``.

    Raises:
        KeyError: there is no such host.
    """
    one = fabric.by_id[start]
    up = fabric.ascent(one)
    if goal == INTERNET:
        stop = up.stopped or _no_internet(fabric, one)
        line = Hop("line", "", "the internet")
        return _told(start, goal, stop, [*up.hops, *([] if stop else [line])], len(up.hops) - 1)
    other = fabric.by_id[goal]
    down = fabric.ascent(other)
    joined = _joined(up, down)
    stop = verdict(fabric, one, other, joined.met)
    beyond = stop == down.stopped and not up.stopped  # on its way down from where it turns
    return _told(start, goal, stop, joined.hops, joined.turns + (1 if stop and beyond else 0))


def verdict(fabric: Fabric, one: Host, other: Host, turned: bool | None = None) -> str:
    """Return what stops a packet between two hosts, nothing where it passes.

    Args:
        turned: whether both ways up meet before the router; None to find out.
    """
    up, down = fabric.ascent(one), fabric.ascent(other)
    mine, theirs = fabric.lands_on(one), fabric.lands_on(other)
    if one.id == other.id:
        return ""
    if turned is None:
        turned = _meet(up, down) is not None
    if mine is None or theirs is None:
        return up.stopped or down.stopped or "no network is planned there"
    if mine.id == theirs.id:
        # Within a network the frames turn where both ways meet.
        if not turned and (up.stopped or down.stopped):
            return up.stopped or down.stopped
        return _kept_apart(fabric, one, other, mine)
    if up.stopped or down.stopped:
        return up.stopped or down.stopped
    return "" if reaches(mine, theirs) else f"{mine.name} may not open a connection to {theirs.name}"


def pair_classes(fabric: Fabric) -> tuple[list[list[Host]], dict[tuple[int, int], str]]:
    """Return every host in its class, and for each pair of classes what stops a packet from a host of the one
    to another host of the other, nothing where it passes: all pairs at once, each as ``verdict`` has it.

    A host whose way up is stopped is a class of its own, since it may still meet others before that.
    """
    by: dict[Hashable, list[Host]] = {}
    some_stopped = any(fabric.ascent(host).stopped for host in fabric.hosts)
    for host in fabric.hosts:
        up, landed = fabric.ascent(host), fabric.lands_on(host)
        # Who is stopped meets others before that or does not, by the switches on their way.
        chain = tuple(h.element for h in up.hops if h.kind in ("switch", "device")) if some_stopped else ()
        alike = (landed.id if landed is not None else None, up.access, host.air, chain)
        by.setdefault(host.id if up.stopped else alike, []).append(host)
    classes = list(by.values())
    found: dict[tuple[int, int], str] = {}
    for j, one in enumerate(classes):
        for k, other in enumerate(classes):
            if j != k:
                found[j, k] = verdict(fabric, one[0], other[0])
            elif len(one) > 1:
                found[j, k] = verdict(fabric, one[0], one[1])
    return classes, found


def _no_internet(fabric: Fabric, host: Host) -> str:
    network = fabric.lands_on(host)
    if network is None:
        return "no network is planned there"
    return "" if has_internet(network) else f"{network.name} has no way to the internet"


def _kept_apart(fabric: Fabric, one: Host, other: Host, network: Network) -> str:
    """Return what keeps two hosts of a network apart: isolation, where something on the way knows of it."""
    access = fabric.ascent(one).access
    if access and access == fabric.ascent(other).access:
        return ""  # a plain switch keeps nobody apart
    if one.air is not None and one.air == other.air:
        name = fabric.design.of(WirelessName)[one.air]
        if name.client_isolation:
            return f"clients on {name.ssid} are kept from one another"
    return f"hosts of {network.name} are kept from one another" if network.client_isolation else ""


def _meet(up: Ascent, down: Ascent) -> tuple[int, int] | None:
    """Return where two ways up meet before the router: the place in either of the first thing they share."""
    at = {(h.kind, h.element): k for k, h in enumerate(down.hops) if h.kind in ("switch", "device")}
    for k, hop in enumerate(up.hops):
        if hop.kind in ("switch", "device") and (hop.kind, hop.element) in at:
            return k, at[hop.kind, hop.element]
    return None


@dataclass(frozen=True)
class _Joined:
    """The things from one host to another; at which of them the packet ``turns``, a switch or the router;
    whether both ways ``met`` before that."""

    hops: tuple[Hop, ...]
    turns: int
    met: bool


def _joined(up: Ascent, down: Ascent) -> _Joined:
    met = _meet(up, down)
    if met is not None and up.vlan == down.vlan:
        there, back = met
        return _Joined((*up.hops[: there + 1], *reversed(down.hops[:back])), there, True)
    if up.stopped:
        return _Joined(up.hops, len(up.hops) - 1, met is not None)
    # Down again from the router, as far as the frames of the other come up.
    under = down.hops if down.stopped else down.hops[:-1]
    return _Joined((*up.hops, *reversed(under)), len(up.hops) - 1, met is not None)


def _told(start: str, goal: str, stop: str, hops: Sequence[Hop], at: int) -> PacketWalk:
    """Return a walk; what stops it stands ``at`` that place of the things it goes through."""
    rows = [PacketHop(kind=h.kind, element=h.element, words=h.words) for h in hops]
    gone = list(hops)
    if stop and rows:
        at = min(at, len(rows) - 1)
        rows = [*rows[:at], rows[at].model_copy(update={"passes": False})]
        gone = gone[: at + 1]
    return PacketWalk(
        start=start,
        goal=goal,
        passes=not stop,
        says=f"It stops: {stop}." if stop else "It passes.",
        hops=tuple(rows),
        links=tuple(dict.fromkeys(h.link for h in gone if h.link)),
    )
