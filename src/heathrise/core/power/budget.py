"""The three figures of each switch against its budget, and each device's own loop."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import ClassVar, Literal

from pydantic import Field

from ..base.frozen import Frozen
from ..catalogue import SHED_LAST, PowerDemand, Rules, SwitchModel
from .hops import CableHop, HopPower, feed_in_hops
from .loop import feed_over_run


class PoweredDevice(Frozen):
    """A powered device over its own run. Watts, volts; ``port_w`` is its rated draw at the port."""

    KEY: ClassVar = ("device",)

    device: str = Field(description="id of the device")
    name: str
    model: str
    poe_class: int = Field(description="class of Power over Ethernet, 0 to 8")
    reserved_w: float = Field(description="watts that its class reserves")
    rated_w: float = Field(description="watts at most, as the maker says")
    typical_w: float = Field(description="watts usually, as the maker says")
    port_w: float = Field(description="watts at the port at rated draw, over its run")
    expected_w: float = Field(description="watts at the port at typical draw, over its run")
    negotiated_w: float = Field(description="of both, what counts at a switch that negotiates")
    device_v: float = Field(description="volts that reach it at rated draw, 0 where it cannot start")
    least_v: float = Field(description="volts that its class wants there")
    verdict: Literal["met", "near", "not_met"]
    source: str = Field("none", description="name of the switch or injector that feeds it, or none")
    hops: tuple[HopPower, ...] = Field((), description="its pieces of cable, where extenders part them")
    reduced: str = Field("", description="what it does without, where it runs on less than it asks for")
    wrong: str = Field("", description="what fails on the way, or that its class has too few watts")


class SwitchBudget(Frozen):
    """One switch: watts by three ways of counting, and ports used of those it has."""

    KEY: ClassVar = ("switch",)

    switch: str
    room: str
    name: str
    model: str
    label: str
    allocates: Literal["class", "negotiated"] = Field(
        description="whether the switch counts by class or by what was negotiated"
    )
    budget_w: float = Field(description="watts of its supply for all ports together")
    usable_w: float = Field(description="the budget less the headroom")
    reserved_w: float = Field(description="watts reserved by the classes of what it feeds")
    rated_w: float = Field(description="watts at its ports at rated draw, over each run")
    expected_w: float = Field(description="watts at its ports at typical draw, over each run")
    counted_w: float = Field(description="the sum that counts, by the way it allocates")
    powered_ports: int = Field(description="ports that give power")
    powered_used: int = Field(description="of those, ports that power a device")
    powered_devices: int = Field(description="devices it feeds")
    ports: int = Field(description="ports it has")
    ports_used: int = Field(description="ports with a link, those kept for ways up included")
    verdict: Literal["met", "near", "not_met"]
    tipped_by: str | None = Field(None, description="the device that takes it past its headroom")
    dark_first: tuple[str, ...] = Field(
        (), description="the first that lose power if the watts run out, where that is near"
    )


def over_run(
    rules: Rules,
    device: str,
    name: str,
    model: str,
    demand: PowerDemand,
    length_m: float,
    heat_c: float,
    hops: Sequence[CableHop] = (),
) -> PoweredDevice:
    """Return what a device draws over its run, cords included, at the class's lowest volts.

    With ``hops`` its class, watts and what is reserved are those of the port: extenders' own included.

    References:
        IEEE 802.3, classes 0 to 8: lowest volts of port and device, watts at either; W, V, m, C.
    """
    there = rules.poe_classes[demand.poe_class]
    parted: tuple[HopPower, ...] = ()
    wrong = ""
    if hops:
        chain = feed_in_hops(rules, demand, demand.rated_w, hops, heat_c, name)
        kind, parted, wrong = rules.poe_classes[chain.poe_class], chain.hops, chain.wrong
        starts, port_w, volts = not wrong, chain.loop.port_w, chain.loop.device_v
        expected_w = feed_in_hops(rules, demand, demand.typical_w, hops, heat_c, name).loop.port_w
    else:
        kind = there
        rated = feed_over_run(kind, demand.rated_w, length_m, heat_c)
        typical = feed_over_run(kind, demand.typical_w, length_m, heat_c)
        starts, volts = rated.starts, rated.device_v
        port_w, expected_w = (k.port_w if k.starts else kind.reserved_w for k in (rated, typical))
    enough = starts and volts >= there.device_v and demand.rated_w <= there.device_w
    if demand.rated_w > there.device_w and not wrong:
        wrong = f"it wants {demand.rated_w:g} W, class {there.number} has {there.device_w:g}"
    near = enough and volts < there.device_v + rules["power.near_v"]
    return PoweredDevice(
        device=device,
        name=name,
        model=model,
        poe_class=kind.number,
        reserved_w=kind.reserved_w,
        rated_w=demand.rated_w,
        typical_w=demand.typical_w,
        port_w=round(port_w, 2),
        expected_w=round(expected_w, 2),
        negotiated_w=round(port_w if rules.text("power.counts") == "rated" else expected_w, 2),
        device_v=round(volts, 1),
        least_v=there.device_v,
        verdict="near" if near else "met" if enough else "not_met",
        hops=parted,
        wrong=wrong,
    )


def budget_of(
    switch: str,
    name: str,
    model: SwitchModel,
    fed: Sequence[PoweredDevice],
    ports_used: int,
    powered_used: int,
    headroom: float,
    room: str = "",
    ranks: Mapping[str, int] | None = None,
) -> SwitchBudget:
    """Return the three figures of one switch and its verdict by the way it allocates.

    Args:
        fed: the devices its ports power, in the order in which they were given ports.
        headroom: share of the budget that is kept free, 0.2 for 20 %.
        room: the equipment room that the switch stands in.
        ranks: by device how early it is shed; what has none is shed last.

    References:
        IEEE 802.3: a port is reserved its class, or what the device asks for over LLDP; W.
    """
    reserved = sum(d.reserved_w for d in fed)
    rated = sum(d.port_w for d in fed)
    usable = model.budget_w * (1 - headroom)
    counted = reserved if model.allocates == "class" else sum(d.negotiated_w for d in fed)
    verdict: Literal["met", "near", "not_met"] = "met"
    if counted > model.budget_w:
        verdict = "not_met"
    elif counted > usable:
        verdict = "near"
    return SwitchBudget(
        switch=switch,
        room=room,
        name=name,
        model=model.id,
        label=model.label,
        allocates=model.allocates,
        budget_w=model.budget_w,
        usable_w=round(usable, 1),
        reserved_w=round(reserved, 1),
        rated_w=round(rated, 1),
        expected_w=round(sum(d.expected_w for d in fed), 1),
        counted_w=round(counted, 1),
        powered_ports=model.powered_ports,
        powered_used=powered_used,
        powered_devices=len(fed),
        ports=model.copper_ports,
        ports_used=ports_used,
        verdict=verdict,
        tipped_by=_tipping(model, fed, usable) if verdict != "met" else None,
        dark_first=tuple(_dark_first(fed, ranks or {})[:_SAID_FIRST]) if verdict != "met" else (),
    )


def _tipping(model: SwitchModel, fed: Sequence[PoweredDevice], limit_w: float) -> str | None:
    total = 0.0
    for device in fed:
        total += device.reserved_w if model.allocates == "class" else device.negotiated_w
        if total > limit_w:
            return device.name
    return None


def _dark_first(fed: Sequence[PoweredDevice], ranks: Mapping[str, int]) -> list[str]:
    """Return the devices in the order in which they lose power where the watts run out: by rank, of one
    rank the last that was given its port first."""
    order = sorted(range(len(fed)), key=lambda k: (ranks.get(fed[k].device, SHED_LAST), -k))
    return [fed[k].name for k in order]


_SAID_FIRST = 3


def sources(devices: Mapping[str, PoweredDevice], fed_by: Mapping[str, str]) -> list[PoweredDevice]:
    """Return the devices with the name of what powers each: a switch, an injector or none."""
    return [d.model_copy(update={"source": fed_by.get(k, "none")}) for k, d in devices.items()]
