"""What is said of racks: ports, what is left over, ways up to the line."""

from __future__ import annotations

from dataclasses import dataclass
from typing import ClassVar, Literal

from pydantic import Field

from ..base.frozen import Frozen
from ..context.findings import Cure, Finding
from ..design import Medium
from ..power import PoweredDevice, SwitchBudget
from .cures import WeakInjector
from .stores import Store


class PortUse(Frozen):
    """One port of the rack and the link in it."""

    KEY: ClassVar = ("switch", "port")

    switch: str
    port: int
    speed_mbps: int
    poe_class: int | None
    cage: bool
    link: str | None = None
    device: str | None = None
    name: str | None = None
    wanted_mbps: int | None = None
    feeds: bool = False
    uplink: bool = False
    uplink_to: str | None = None
    role: str = Field("", description="kind of what is in it")
    pinned: bool = Field(False, description="whether somebody chose it")


@dataclass(frozen=True)
class FarLoad:
    """A way to a far place at the rack that it comes from: the port's speed, and what is fed at it."""

    link: str
    name: str
    room: str
    mbps: int
    fed: PoweredDevice | None


class LostPin(Frozen):
    """A port that somebody chose and that cannot be kept, and why."""

    KEY: ClassVar = ("pin",)

    pin: str
    switch: str
    device: str = Field("", description="none where it is the port of a way")
    text: str
    cures: tuple[Cure, ...] = ()


class WrongSplit(Frozen):
    """A splitter that does not do for its device, and why."""

    KEY: ClassVar = ("device",)

    device: str
    severity: Literal["not_met", "near"]
    text: str
    cures: tuple[Cure, ...] = ()


class PluggedDevice(Frozen):
    """A device at a port of another one: the port, 0 where it has none, its cord in m, Mb/s."""

    KEY: ClassVar = ("device",)

    device: str
    name: str
    host: str
    host_name: str
    port: int
    cord_m: float
    speed_mbps: int
    wrong: str = ""
    cures: tuple[Cure, ...] = ()


class Unassigned(Frozen):
    """A link that got no port, and why."""

    KEY: ClassVar = ("link",)

    link: str
    room: str
    device: str
    name: str
    reason: str
    poe_class: int | None


class SwitchUplink(Frozen):
    """A switch's way up, hop by hop towards the line. ``load_mbps`` is what all behind it ask for
    together, ``speed_mbps`` the narrowest of its two ports and what lies between."""

    KEY: ClassVar = ("switch",)

    switch: str
    name: str
    port: int
    to: str | None = Field(description="switch it leads to, or none for the line")
    to_name: str
    to_port: int | None = Field(description="port at the other end")
    medium: Literal["cord", "copper", "fibre"]
    converter: bool = Field(description="whether fibre ends in a port that is no cage")
    converters: tuple[str, ...] = Field((), description="switches at whose end it wants one")
    speed_mbps: int
    load_mbps: int
    depth: int = Field(description="switches from the line to here, this one counted")


class PassiveFeed(Frozen):
    """A passive feed that does not do, and why; ``device_v`` is what reaches the device."""

    KEY: ClassVar = ("device",)

    device: str
    name: str
    text: str
    severe: bool
    device_v: float = Field(0.0, description="volts at the device, 0 where it is not fed")
    wanted_v: float = Field(0.0, description="volts that its feed has")
    cures: tuple[Cure, ...] = ()


class PowerPlan(Frozen):
    """Budgets, ports and devices of all racks.

    ``cures`` are by the room that they mend, ``cage_cures`` by the switch that lacks a cage,
    ``cascade_cures`` by the switch that has too many before it,
    ``less_cures`` by the device that gets too little and may run on less.
    """

    switches: tuple[SwitchBudget, ...]
    ports: tuple[PortUse, ...]
    devices: tuple[PoweredDevice, ...]
    left: tuple[Unassigned, ...]
    proven: bool
    far: tuple[PoweredDevice, ...] = Field(
        (), description="what is fed at ports for far places, by the link that goes there"
    )
    ways_up: tuple[SwitchUplink, ...] = ()
    cures: dict[str, tuple[Cure, ...]] = Field(default_factory=dict)
    cage_cures: dict[str, tuple[Cure, ...]] = Field(default_factory=dict)
    less_cures: dict[str, tuple[Cure, ...]] = Field(default_factory=dict)
    cascade_cures: dict[str, tuple[Cure, ...]] = Field(default_factory=dict)
    weak_injectors: tuple[WeakInjector, ...] = ()
    passive: tuple[PassiveFeed, ...] = ()
    splits: tuple[WrongSplit, ...] = ()
    plugged: tuple[PluggedDevice, ...] = ()
    lost_pins: tuple[LostPin, ...] = ()
    stores: tuple[Store, ...] = ()
    line_room: str = Field("", description="room that all others lead up to")
    findings: tuple[Finding, ...] = ()


NO_POWER = PowerPlan(switches=(), ports=(), devices=(), left=(), proven=True)


class PowerRun(Frozen):
    """What power needs to know of a run; lengths in m with cords, temperature in C. ``hops`` are its
    pieces, each with the model of the extender at its far end. What hangs on
    ``fibre`` is fed where that ends, over a cord."""

    device: str
    room: str
    loop_m: float
    heat_c: float
    cables: int
    hops: tuple[tuple[float, str | None], ...] = ()
    fibre: bool = False


@dataclass(frozen=True)
class RoomUp:
    """A room's way up to another: over what, and the speed in Mb/s that it carries."""

    to_room: str
    medium: Medium
    speed_mbps: int
