"""Who of a mesh wants the cable: whom and those behind whom it would serve most, and the strongest models."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from ..base.wording import some
from ..context.findings import Cure, Finding, Place
from ..context.run_decisions import run_said
from ..design import Change, Device, put
from .mesh import over_the_air, shared_by_cable
from .radio_environment import RadioEnvironment

GENERATIONS = ("4", "5", "6", "6E", "7")
_RULE = "in a mesh the strongest access points get the cables, and those with most behind them"


@dataclass(frozen=True)
class CableWish:
    """An access point over the air, and what all of them together would get if it had a cable, Mb/s."""

    device: str
    name: str
    together_mbps: float


def cable_wishes(air: RadioEnvironment) -> tuple[float, list[CableWish]]:
    """Return what all access points over the air get together if all ask at once, Mb/s, and what they would
    if one of them had a cable, the one that gives most first."""
    names = {d.id: d.name for d in air.design.of(Device).values()}
    now, after = shared_by_cable(air)
    wishes = [CableWish(key, names[key], round(mbps, 1)) for key, mbps in after.items()]
    return round(now, 1), sorted(wishes, key=lambda w: (-w.together_mbps, w.device))


def mesh_cable_findings(air: RadioEnvironment) -> Iterator[Finding]:
    """Yield who wants the cable most, and strong ones on the air while weaker ones have it."""
    devices = air.design.of(Device)
    now, wishes = cable_wishes(air)
    if wishes and wishes[0].together_mbps > now:
        first, others = wishes[0], wishes[1:]
        device = devices[first.device]
        cabled = put(run_said(air.design, device.id).model_copy(update={"over_air": False}))
        most = f"; {others[0].name} with one would make it {others[0].together_mbps:.0f}" if others else ""
        them = f"the {len(wishes)} access points over the air" if others else f"{first.name} over the air"
        yield Finding(
            id="signal-mesh-wants-cable",
            stage="signal",
            severity="note",
            text=f"If all ask at once, {them} {'get' if others else 'gets'} {now:.0f} Mb/s"
            f"{' together' if others else ''}. A cable to {first.name} makes it "
            f"{first.together_mbps:.0f}{most}.",
            places=(_place(device),),
            figure=now,
            limit=first.together_mbps,
            unit="Mb/s",
            rule=_RULE,
            source="planning practice",
            used=air.rules.used("signal.user_share"),
            cures=(
                Cure(
                    label=f"Give {first.name} a cable",
                    effect="whether one reaches it, and what it costs, Cable says",
                    changes=(cabled,),
                ),
            ),
        )
    yield from _strong(air)


def _strong(air: RadioEnvironment) -> Iterator[Finding]:
    devices, models = air.design.of(Device), air.catalogue.airs
    loose = over_the_air(air.design, air.catalogue)
    # What was there and stays where it is is not carried to another room.
    wired = [d for d in devices.values() if d.model in models and d.id not in loose and d.state == "new"]
    for key in sorted(loose):
        device = devices[key]
        if air.catalogue.model_of(device).over_air:
            continue
        rank = _rank(air, device)
        weaker = [d for d in wired if _rank(air, d) < rank]
        if not weaker:
            continue
        one = len(weaker) == 1
        other = min(weaker, key=lambda d: (_rank(air, d), d.id))
        swap: tuple[Change, ...] = (
            put(device.model_copy(update={"model": other.model})),
            put(other.model_copy(update={"model": device.model})),
        )
        yield Finding(
            id=f"signal-mesh-strong-{key}",
            stage="signal",
            severity="near",
            text=f"{device.name}, of generation {GENERATIONS[rank]}, hangs over the air while "
            f"{some([d.name for d in weaker])}, of an older one, {'has' if one else 'have'} the cable.",
            places=(_place(device), _place(other)),
            rule=_RULE,
            source="planning practice",
            cures=(
                Cure(
                    label=f"Exchange {device.name} and {other.name}",
                    effect=f"spoils: {device.name}'s rooms get the older one",
                    changes=swap,
                ),
            ),
        )


def _rank(air: RadioEnvironment, device: Device) -> int:
    model = air.catalogue.model_of(device).air
    return GENERATIONS.index(model.generation) if model is not None else -1


def _place(device: Device) -> Place:
    return Place(kind="device", id=device.id, floor=device.floor, at=device.at)
