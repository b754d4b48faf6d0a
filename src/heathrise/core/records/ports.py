"""Ports as they came up, against what was planned: link speed and watts."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from typing import Literal

from pydantic import Field

from ..base.frozen import Frozen
from ..base.wording import speed
from ..catalogue import Rules
from .kinds import PortReading, place_in_time

NEAR_SHARE = "install.drawn_share"
_IDLE_W = 0.5  # what a meter shows where nothing is fed


@dataclass(frozen=True)
class PlannedPort:
    """A port with a link, as planned. Mb/s; watts are None where nothing is fed over it."""

    switch: str
    switch_name: str
    port: int
    name: str
    device: str | None
    cable: int
    mbps: int
    expected_w: float | None = None
    reserved_w: float | None = None


class SeenPort(Frozen):
    """One port and what is known of it."""

    switch: str
    switch_name: str
    port: int
    name: str
    device: str | None
    cable: int
    planned_mbps: int
    expected_w: float | None = Field(description="watts at the port at typical draw")
    reserved_w: float | None = Field(description="watts that its class reserves")
    verdict: Literal["unread", "met", "near", "not_met"]
    reason: str
    last: PortReading | None = Field(None, description="the reading that counts")


class SwitchDraw(Frozen):
    """Watts that a switch gives, as read and as planned; ``read`` of ``fed`` ports were read."""

    switch: str
    name: str
    read: int
    fed: int
    drawn_w: float
    expected_w: float = Field(description="expected of the ports that were read")
    usable_w: float = Field(description="budget less the headroom")
    verdict: Literal["unread", "met", "near", "not_met"]


def ports_as_seen(
    rules: Rules, planned: Iterable[PlannedPort], readings: Iterable[PortReading]
) -> list[SeenPort]:
    """Return every planned port with its last reading, in order of planning."""
    by_cable: dict[tuple[object, ...], list[PortReading]] = {}
    for reading in readings:
        by_cable.setdefault(_key(reading), []).append(reading)
    return [_judge(rules, port, by_cable.get(_key(port), [])) for port in planned]


def switches_as_seen(
    seen: Iterable[SeenPort], usable_w: Iterable[tuple[str, str, float]]
) -> list[SwitchDraw]:
    """Return what each switch gives in all.

    Args:
        usable_w: id, name and watts within the headroom of each switch.
    """
    rows = list(seen)
    found = []
    for switch, name, usable in usable_w:
        fed = [r for r in rows if r.switch == switch and r.expected_w is not None]
        read = [r for r in fed if r.last is not None and r.last.watts is not None]
        drawn = sum(r.last.watts or 0.0 for r in read if r.last is not None)
        verdict: Literal["unread", "met", "near", "not_met"] = "unread"
        if read:
            verdict = "not_met" if drawn > usable else "met" if len(read) == len(fed) else "near"
        found.append(
            SwitchDraw(
                switch=switch,
                name=name,
                read=len(read),
                fed=len(fed),
                drawn_w=round(drawn, 1),
                expected_w=round(sum(r.expected_w or 0.0 for r in read), 1),
                usable_w=usable,
                verdict=verdict,
            )
        )
    return found


def _key(row: PlannedPort | PortReading) -> tuple[object, ...]:
    return (row.device, row.cable) if row.device is not None else (row.switch, row.port)


def _judge(rules: Rules, port: PlannedPort, readings: list[PortReading]) -> SeenPort:
    last = max(readings, key=place_in_time, default=None)
    verdict, reason = _verdict(rules, port, last)
    return SeenPort(
        switch=port.switch,
        switch_name=port.switch_name,
        port=port.port,
        name=port.name,
        device=port.device,
        cable=port.cable,
        planned_mbps=port.mbps,
        expected_w=port.expected_w,
        reserved_w=port.reserved_w,
        verdict=verdict,
        reason=reason,
        last=last,
    )


def _verdict(
    rules: Rules, port: PlannedPort, last: PortReading | None
) -> tuple[Literal["unread", "met", "near", "not_met"], str]:
    if last is None or (last.mbps is None and last.watts is None):
        return "unread", "not read yet"
    if last.mbps == 0:
        return "not_met", "no link: look at the plug, then test the cable"
    if last.mbps is not None and last.mbps < port.mbps:
        came = f"came up at {speed(last.mbps)}, planned {speed(port.mbps)}"
        return "not_met", f"{came}: {_slower(last.mbps, port.mbps)}"
    verdict, drawn = _drawn(rules, port, last.watts)
    good = verdict == "met" and last.mbps is not None
    return verdict, ", ".join(w for w in (speed(last.mbps or 0) if good else "", drawn) if w)


def _slower(mbps: int, planned_mbps: int) -> str:
    """Return what a link that came up slower usually lacks."""
    if mbps == 100 and planned_mbps >= 1000:
        # Two pairs carry that much, four are needed for more.
        return "usually a bad pair: 1-2 and 3-6 carry it, so test 4-5 and 7-8"
    if planned_mbps > 1000 and mbps >= 1000:
        return "its category, its length, or a setting of one of the two ports"
    return "look at both ends' ports"


def _drawn(
    rules: Rules, port: PlannedPort, watts: float | None
) -> tuple[Literal["met", "near", "not_met"], str]:
    """Return how the watts at a port stand against its class and what was expected."""
    if watts is None:
        return "met", ""
    drawn, fed = f"draws {watts:g} W", watts > _IDLE_W
    if port.expected_w is None:
        return ("near", f"{drawn} where no power is planned") if fed else ("met", "")
    if not fed:
        return "not_met", f"{drawn}: it is not fed from here, or has no power"
    if port.reserved_w is not None and watts > port.reserved_w:
        return "not_met", f"{drawn}, its class reserves {port.reserved_w:g}"
    if watts > port.expected_w * (1 + rules[NEAR_SHARE]):
        return "near", f"{drawn}, expected {port.expected_w:.1f}"
    return "met", drawn
