"""Wires that were wished for: a wish is met when an outlet with a run is there."""

from __future__ import annotations

from typing import ClassVar

from pydantic import Field

from ..base.frozen import Frozen
from ..context.plugged import said_plugged
from ..design import ClientGroup, Device, Space
from .stand import SiteStatus


class Wish(Frozen):
    """The wires wished for in one room."""

    KEY: ClassVar = ("space",)

    space: str
    name: str
    floor: str
    who: str = Field(description="the clients that wish a wire")
    wanted: int = Field(description="sockets wished for")
    given: int = Field(description="sockets there with a run, of those wished for")
    always: bool = Field(False, description="whether some of them fail without a wire")
    lacks: dict[str, int] = Field(
        default_factory=dict, description="by kind of device how many are missing that only one of it meets"
    )

    @property
    def missing(self) -> int:
        return self.wanted - self.given

    @property
    def sockets(self) -> int:
        """Sockets that are missing."""
        return self.missing - sum(self.lacks.values())


def judge_wishes(stand: SiteStatus) -> list[Wish]:
    """Return the rooms in which wires are wished for, with how many of them are there.

    What is a kind of device of its own, such as a camera or a doorbell, is met by one of that kind and
    by nothing else; of all others any free socket is the wire.
    """
    by_room: dict[str, list[ClientGroup]] = {}
    for group in stand.design.of(ClientGroup).values():
        if group.wired:
            by_room.setdefault(group.space, []).append(group)
    spaces = stand.design.of(Space)
    return [_judge(stand, space, by_room[s]) for s, space in spaces.items() if s in by_room]


def _judge(stand: SiteStatus, space: Space, groups: list[ClientGroup]) -> Wish:
    catalogue = stand.catalogue
    there = stand.wired_in(space)
    sockets = sum(_sockets(stand, d) for d in there)
    of_kind: dict[str, int] = {}
    for device in there:
        of_kind[device.kind] = of_kind.get(device.kind, 0) + 1
    given = 0
    lacks: dict[str, int] = {}
    for group in groups:
        if group.kind in catalogue.roles:
            own = min(of_kind.get(group.kind, 0), group.wired)
            of_kind[group.kind] = of_kind.get(group.kind, 0) - own
            given += own
            if own < group.wired:
                lacks[group.kind] = lacks.get(group.kind, 0) + group.wired - own
        else:
            plugged = min(sockets, group.wired)
            sockets -= plugged
            given += plugged
    labels = [f"{g.wired} × {catalogue.clients[g.kind].label.lower()}" for g in groups]
    return Wish(
        space=space.id,
        name=space.name,
        floor=space.floor,
        who=", ".join(labels),
        wanted=sum(g.wired for g in groups),
        given=given,
        lacks=lacks,
        always=any(catalogue.clients[g.kind].wire == "always" for g in groups),
    )


def _sockets(stand: SiteStatus, device: Device) -> int:
    """Return how many clients can be plugged in at a device: into sockets of which the cable does
    and ends in a port."""
    role, model = stand.catalogue.role_of(device), stand.catalogue.model_of(device)
    if role.links == "every_cable":
        return min(model.sockets, stand.sockets.get(device.id, 0))
    if role.leads_out:
        return 0
    taken = sum(host == device.id for host in said_plugged(stand.design).values())
    return max(0, sum(group.count for group in model.ports) - taken)
