"""Power hop by hop: a device behind extenders, worked back from it to the port. Watts, volts, metres."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from pydantic import Field

from ..base.frozen import Frozen
from ..catalogue import ExtenderModel, PoeClass, PowerDemand, Rules, poe_rank
from .loop import Loop, feed_over_run


@dataclass(frozen=True)
class CableHop:
    """A piece of a run from the port on: its length with cords, m, and the extender at its far end."""

    length_m: float
    extender: ExtenderModel | None = None


class HopPower(Frozen):
    """What goes through one piece of cable, from the port on."""

    to: str = Field(description="what stands at its far end")
    length_m: float
    poe_class: int = Field(description="class that its near end gives")
    sent_w: float = Field(description="watts into its near end, as rated")
    got_w: float = Field(description="watts out of its far end")
    volts: float = Field(description="volts at its far end, 0 where nothing starts")


@dataclass(frozen=True)
class FedInHops:
    """A device's draw at the port: class, watts, volts at the device; ``wrong`` says what fails where."""

    poe_class: int
    loop: Loop
    hops: tuple[HopPower, ...]
    wrong: str = ""


def feed_in_hops(
    rules: Rules, demand: PowerDemand, device_w: float, hops: Sequence[CableHop], heat_c: float, name: str
) -> FedInHops:
    """Return what a device draws at its port over pieces of cable with extenders between them.

    From the far end back: each piece is a loop of constant power; an extender takes its own watts on top
    of what it sends on, and asks its piece for the least class that has them.

    References:
        IEEE 802.3: each piece is a link of its own with the lowest volts of its class; W, V, m, C.
    """
    kinds = rules.poe_classes
    wanted, w, to = kinds[demand.poe_class], device_w, name
    rows: list[HopPower] = []
    last: Loop | None = None
    wrong = ""
    for number, hop in reversed(list(enumerate(hops))):
        loop = feed_over_run(wanted, w, hop.length_m, heat_c)
        if not loop.starts and not wrong:
            wrong = f"{to} cannot start over {hop.length_m:.0f}\u00a0m"
        sent = loop.port_w if loop.starts else wanted.reserved_w
        rows.append(
            HopPower(
                to=to,
                length_m=round(hop.length_m, 1),
                poe_class=wanted.number,
                sent_w=round(sent, 2),
                got_w=round(w, 2),
                volts=round(loop.device_v, 1),
            )
        )
        last = last or loop
        before = hops[number - 1].extender if number else None
        if before is None:
            continue
        if poe_rank(wanted.number) > poe_rank(before.gives_class) and not wrong:
            wrong = f"{before.label} gives class {before.gives_class}, {to} asks for {wanted.number}"
        w, to = sent + before.own_w, before.label
        wanted, enough = _least_class(rules, w, before.in_class)
        if not enough and not wrong:
            wrong = f"{before.label} wants {w:.1f} W, class {before.in_class} has {wanted.device_w:g}"
    assert last is not None
    rows.reverse()
    at_port = Loop(not wrong, 0.0, rows[0].sent_w, last.device_v)
    return FedInHops(wanted.number, at_port, tuple(rows), wrong)


def _least_class(rules: Rules, watts: float, most: int) -> tuple[PoeClass, bool]:
    """Return the least class whose device has so many watts, and whether any up to ``most`` has."""
    kinds = sorted(rules.poe_classes.values(), key=lambda k: (k.device_w, k.number))
    fitting = [k for k in kinds if poe_rank(k.number) <= poe_rank(most)]
    enough = next((k for k in fitting if k.device_w >= watts), None)
    return (enough, True) if enough is not None else (fitting[-1], False)
