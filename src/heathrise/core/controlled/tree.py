"""The devices of a site as they hang on one another, and whether each is still reached."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from functools import cached_property
from typing import ClassVar

from pydantic import Field

from ..base.frozen import Frozen
from .difference import Held, Value


class Managed(Frozen):
    """A switch or device and what it hangs on; one that is not ``managed`` tells nothing apart."""

    KEY: ClassVar = ("id",)

    id: str
    name: str
    model: str
    kind: str
    managed: bool = True
    parent: str | None = Field(None, description="what it hangs on, None for the first")
    port: int | None = Field(None, description="port of its parent")
    own_port: int | None = Field(None, description="its own port towards its parent")
    fed: bool = Field(False, description="whether that port feeds it")
    over_air: bool = False
    link_mbps: int | None = None


@dataclass(frozen=True)
class Tree:
    """All of a site by id, each with its parent. ``sits_on`` is what the controller is plugged into."""

    rows: Mapping[str, Managed]
    sits_on: str | None = None

    @cached_property
    def depth(self) -> Mapping[str, int]:
        return {key: sum(1 for _ in self.up(key)) for key in self.rows}

    def up(self, key: str) -> Iterator[str]:
        """Yield what a device hangs on, the nearest first."""
        seen = {key}
        at = self.rows[key].parent
        while at is not None and at in self.rows and at not in seen:
            seen.add(at)
            yield at
            at = self.rows[at].parent

    @cached_property
    def branch(self) -> frozenset[str]:
        """The branch that the controller sits on: what it is plugged into, up to the first."""
        if self.sits_on is None or self.sits_on not in self.rows:
            return frozenset(k for k, r in self.rows.items() if r.parent is None)
        return frozenset({self.sits_on, *self.up(self.sits_on)})

    def reached(self, held: Held) -> frozenset[str]:
        """Return which of what is managed has power and a way for its frames up to the first, as ports are
        set. What is not managed need not come up to a controller."""
        return frozenset(key for key, row in self.rows.items() if row.managed and self._comes_up(key, held))

    def _comes_up(self, key: str, held: Held) -> bool:
        tag = UNTAGGED
        at = self.rows[key]
        while at.parent is not None and at.parent in self.rows:
            parent = self.rows[at.parent]
            ports = held.get(f"device/{parent.id}", {})
            if at.fed and at.port is not None and ports.get(f"port.{at.port}.power", True) is False:
                return False
            if not at.over_air:
                inside = _entered(ports, at.port, tag)
                out = _left(ports, parent.own_port, inside) if inside is not None else None
                if out is None:
                    return False
                tag = out
            at = parent
        return True


UNTAGGED = 0
_PLAIN = -1  # untagged within a switch that was told nothing of its ports


def _entered(ports: Mapping[str, Value], number: int | None, tag: int) -> int | None:
    """Return the network that a frame is in once it came in at a port, None where it is dropped."""
    if number is None or f"port.{number}.on" not in ports:
        return tag or _PLAIN
    untagged, tagged = _port(ports, number)
    if tag == UNTAGGED:
        return untagged
    return tag if tag == untagged or tag in tagged else None


def _left(ports: Mapping[str, Value], number: int | None, vlan: int) -> int | None:
    """Return the tag that a frame goes out of a port with, None where it is dropped."""
    if number is None or f"port.{number}.on" not in ports:
        return UNTAGGED if vlan == _PLAIN else vlan
    if ports.get(f"port.{number}.on") is False:
        return None
    untagged, tagged = _port(ports, number)
    if vlan in (untagged, _PLAIN):
        return UNTAGGED
    return vlan if vlan in tagged else None


def _port(ports: Mapping[str, Value], number: int) -> tuple[int | None, tuple[int, ...]]:
    """Return the untagged network of a port and its tagged ones; of one that is off none."""
    if ports.get(f"port.{number}.on") is False:
        return None, ()
    untagged, tagged = ports.get(f"port.{number}.untagged"), ports.get(f"port.{number}.tagged")
    return (
        untagged if isinstance(untagged, int) else None,
        tuple(t for t in tagged if isinstance(t, int)) if isinstance(tagged, tuple) else (),
    )
