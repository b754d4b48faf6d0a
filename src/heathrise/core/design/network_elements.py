"""Kinds of element that a controller holds: networks, who belongs to them, names on the air, radios."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from ..base.bands import Band
from .values import Clock, DeviceRef, Element, Name, NetworkRef, Purpose, Security, SwitchRef

MOST_HOSTS = 65_534
HostNumber = Annotated[int, Field(ge=2, le=MOST_HOSTS)]  # of an address within its subnet, whose own is 0


class Network(Element):
    """Hosts that trust one another. What it ``reaches`` and is ``shut`` out of is beside what its purpose
    reaches by itself; ``internet`` and ``lease_h`` are by purpose where nobody says. Addresses are given out
    from the ``pool_first``th of its subnet to the ``pool_last``th, by the house rules where nobody says;
    ``limit_all_mbps`` is what all of its hosts together get of the line at most."""

    name: Name
    purpose: Purpose
    vlan: Annotated[int, Field(ge=1, le=4094)]
    subnet: Annotated[str, Field(max_length=43)]  # IPv6 in full, with its prefix
    expected_clients: Annotated[int, Field(ge=0, le=5000)] = 20
    client_isolation: bool = False
    reaches: tuple[NetworkRef, ...] = ()
    shut: tuple[NetworkRef, ...] = ()
    internet: bool | None = None
    lease_h: Annotated[int, Field(ge=1, le=8760)] | None = None
    pool_first: HostNumber | None = None
    pool_last: HostNumber | None = None
    limit_all_mbps: Annotated[float, Field(gt=0, le=10_000)] | None = None


class Membership(Element):
    """The network that somebody put an end on: of a device the cable with the number ``port``, or, where it
    is ``given``, the port of that number which it gives on; of a switch the port. One of both is named."""

    NEEDS = ("device", "switch")

    network: NetworkRef
    device: DeviceRef | None = None
    switch: SwitchRef | None = None
    port: Annotated[int, Field(ge=1, le=128)] = 1
    given: bool = False


class WirelessName(Element):
    """A name on the air: on the ``access_points`` that are named, else on all. What is None is by the house
    rules; ``limit_mbps`` is what one client gets at most, ``from_hour`` to ``to_hour`` when it is on."""

    network: NetworkRef
    ssid: Annotated[str, Field(min_length=1, max_length=32)]
    bands: Annotated[tuple[Band, ...], Field(min_length=1, max_length=3)] = ("2.4", "5")
    security: Security = "wpa3_wpa2"
    client_isolation: bool = False
    fast_transition: bool | None = None
    access_points: tuple[DeviceRef, ...] = ()
    steering: bool | None = None
    dtim: Annotated[int, Field(ge=1, le=10)] | None = None
    lowest_rate_mbps: Literal[1, 6, 12] | None = None
    limit_mbps: Annotated[float, Field(gt=0, le=10_000)] | None = None
    from_hour: Clock | None = None
    to_hour: Clock | None = None


class Radio(Element):
    """An override of what the plan would set on one radio of one access point."""

    device: DeviceRef
    band: Band
    on: bool = True
    channel: Annotated[int, Field(ge=1, le=233)] | None = None
    power_dbm: Annotated[float, Field(ge=0, le=36)] | None = None
