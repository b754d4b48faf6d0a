"""Which network an end belongs to: by hand, by its kind, by who is wired in its room, by the room."""

from __future__ import annotations

import re
from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from functools import cached_property
from typing import Literal

from ..base.memo import IdentityMemo
from ..catalogue import Catalogue, Role
from ..context.plugged import plugged_of
from ..context.storeys import storeys_of
from ..design import ClientGroup, Design, Device, Membership, Network, Purpose, Space

Whose = Literal["person", "kind", "client", "room", "plan"]
# Where no network of a purpose is planned, the next of these has its ends.
_NEXT: Mapping[Purpose, Purpose] = {"pupils": "staff", "administrators": "main"}


@dataclass(frozen=True, eq=False)
class Ends:
    """The networks of a design, and who belongs to which."""

    design: Design
    catalogue: Catalogue

    @cached_property
    def first(self) -> Mapping[str, Network]:
        """The first network of each purpose."""
        return {n.purpose: n for n in reversed(list(self.design.of(Network).values()))}

    @cached_property
    def by_hand(self) -> Mapping[tuple[str, int, str], Membership]:
        """Memberships by device or switch, port, and what kind of port it is."""
        found = {}
        for one in self.design.of(Membership).values():
            key = one.device or one.switch or ""
            kind = "switch" if one.device is None else "given" if one.given else "link"
            found[key, one.port, kind] = one
        return found

    def said(self, key: str, port: int, kind: str) -> Network | None:
        """Return the network that somebody put an end on, or None."""
        one = self.by_hand.get((key, port, kind))
        return self.design.of(Network)[one.network] if one is not None else None

    def of_purpose(self, purpose: Purpose) -> Network | None:
        """Return the network for a purpose, that of another where none is planned, or None."""
        step: Purpose | None = purpose
        while step is not None:
            if step in self.first:
                return self.first[step]
            step = _NEXT.get(step)
        return self.first.get("main")

    def of_link(self, device: Device, cable: int = 1) -> tuple[Network | None, Whose, str]:
        """Return the network of a device's cable, whose choice it is, and why."""
        said = self.said(device.id, cable, "link")
        role = self.catalogue.role_of(device)
        if said is not None:
            return said, "person", f"{said.name}, by hand"
        if role.links == "every_cable":
            return self._of_socket(device, cable)
        return self.of_kind(role)

    def of_given(self, device: Device, port: int) -> tuple[Network | None, Whose, str]:
        """Return the network of a port that a device gives on: of who is plugged in, else of the room."""
        said = self.said(device.id, port, "given")
        if said is not None:
            return said, "person", f"{said.name}, by hand"
        guest = self._guests.get((device.id, port))
        if guest is not None:
            return self.of_link(guest)
        purpose, reason = self._of_room(device)
        network = self.of_purpose(purpose)
        return network, "room" if purpose != "main" else "plan", reason

    def of_kind(self, role: Role) -> tuple[Network | None, Whose, str]:
        purpose: Purpose = role.profile.untagged
        network, kind = self.of_purpose(purpose), role.name.lower()
        if role.profile.alone and purpose not in self.first:
            return network, "kind", f"{kind} on the main network: none is planned for {purpose}"
        return network, "kind", f"{kind}: {role.profile.words}"

    def _of_socket(self, device: Device, cable: int) -> tuple[Network | None, Whose, str]:
        named = self._named(device)
        if named is not None:
            return self.of_purpose(named[1]), "client", f"a {named[0]} by its name"
        client = self.wired_clients.get((device.id, cable))
        if client is not None:
            label = self.catalogue.clients[client].label.lower()
            return self.of_purpose(self.catalogue.clients[client].network), "client", f"{label} in its room"
        purpose, reason = self._of_room(device)
        return self.of_purpose(purpose), "room" if purpose != "main" else "plan", reason

    def _named(self, device: Device) -> tuple[str, Purpose] | None:
        """Return the kind of client that a device is called after."""
        name = device.name.lower()
        return next((c for c in self._clients if re.search(rf"\b{c[0]}s?\b", name)), None)

    @cached_property
    def _clients(self) -> list[tuple[str, Purpose]]:
        """Kinds of client by their name that have a network other than the main one."""
        rows = ((k.replace("_", " "), c.network) for k, c in self.catalogue.clients.items())
        return [(name, network) for name, network in rows if network != "main"]

    def _of_room(self, device: Device) -> tuple[Purpose, str]:
        room = storeys_of(self.design).room_at(device.floor, device.at)
        words = self.catalogue.site_kinds[self.design.site.kind].networks
        name = room.name.lower() if isinstance(room, Space) else ""
        for purpose, said in words.items():
            word = next((w for w in said if w in name), None)
            if word is not None and isinstance(room, Space):
                return purpose, f"{room.name}: {purpose} by the kind of site"
        return "main", "main network, as nothing says otherwise"

    @cached_property
    def wired_clients(self) -> Mapping[tuple[str, int], str]:
        """The kind of client at each socket: those that are wished on a wire in a room, one after the other,
        as they are listed."""
        storeys = storeys_of(self.design)
        waiting: dict[str, list[str]] = {}
        for group in self.design.of(ClientGroup).values():
            waiting.setdefault(group.space, []).extend([group.kind] * min(group.wired, group.count))
        found: dict[tuple[str, int], str] = {}
        for device in sorted(self._outlets(), key=lambda d: (d.name, d.id)):
            room = storeys.room_at(device.floor, device.at)
            mine = waiting.get(room.id, []) if isinstance(room, Space) else []
            for cable in range(1, self.catalogue.model_of(device).sockets + 1):
                if mine:
                    found[device.id, cable] = mine.pop(0)
        return found

    def _outlets(self) -> Iterator[Device]:
        for device in self.design.of(Device).values():
            if self.catalogue.role_of(device).links == "every_cable" and self._named(device) is None:
                yield device

    @cached_property
    def _guests(self) -> Mapping[tuple[str, int], Device]:
        """What is plugged into devices, by host and port."""
        devices = self.design.of(Device)
        rows = plugged_of(self.design, self.catalogue)
        return {(plug.host, plug.port): devices[plug.device] for plug in rows if not plug.wrong}

    def guest_at(self, device: str, port: int) -> Device | None:
        return self._guests.get((device, port))

    def guests_of(self, device: str) -> list[tuple[int, Device]]:
        """Return what is plugged into a device, by port."""
        return sorted(((n, d) for (host, n), d in self._guests.items() if host == device), key=lambda r: r[0])


_kept: IdentityMemo[Ends] = IdentityMemo(16, weigh=lambda _: 40_000)


def ends_of(design: Design, catalogue: Catalogue) -> Ends:
    """Return who belongs where in a design: ports, frames and findings ask for the same."""
    return _kept.get((design, catalogue), None, lambda: Ends(design, catalogue))
