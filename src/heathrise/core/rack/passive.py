"""Passive feeds: nobody negotiates them, so each device has its own injector of the same volts, and no
other is plugged into it."""

from __future__ import annotations

from collections.abc import Iterator, Mapping

from ..catalogue import Catalogue, InjectorModel, on_offer
from ..context.findings import Cure
from ..design import Design, Device, Injector, free_number, put
from ..power import feed, loop_resistance_ohm
from .values import PassiveFeed, PowerRun


def passive_feeds(
    design: Design, catalogue: Catalogue, wires: Mapping[str, PowerRun]
) -> Iterator[PassiveFeed]:
    """Yield wired devices whose passive feed is missing, of other volts, or too far away, and passive
    injectors in the runs of what does not ask for them."""
    injectors = {i.device: i for i in design.of(Injector).values()}
    for device in design.of(Device).values():
        old = catalogue.model_of(device).old
        wire, injector = wires.get(device.id), injectors.get(device.id)
        model = catalogue.injectors[injector.model] if injector is not None else None
        if wire is None:
            continue
        if old is None or old.passive_v is None:
            if model is not None and injector is not None and model.passive_v is not None:
                yield _harms(design, catalogue, device, injector, model)
            continue
        wanted = f"{old.passive_v}\u00a0V, passive"
        if model is None or model.passive_v != old.passive_v:
            has = f"has {model.label.lower()}" if model is not None else "a switch's port gives it nothing"
            yield PassiveFeed(
                device=device.id,
                name=device.name,
                text=f"{device.name} is fed with {wanted}: {has}. Keep the injector it came with, marked, or "
                "buy one, and plug nothing else into it.",
                severe=True,
                wanted_v=old.passive_v,
                cures=tuple(_bought(design, catalogue, device, injector, old.passive_v)),
            )
            continue
        ohm = loop_resistance_ohm(wire.loop_m, 2, wire.heat_c)
        loop = feed(old.passive_w, old.passive_v, ohm)
        least = catalogue.rules["power.passive_least_share"] * old.passive_v
        if not loop.starts or loop.device_v < least:
            got = f"{loop.device_v:.1f}" if loop.starts else "too few"
            yield PassiveFeed(
                device=device.id,
                name=device.name,
                text=f"{device.name} sees {got} of {old.passive_v} V over {wire.loop_m:.0f}\u00a0m, wants "
                f"{least:.1f}: put its injector nearer to it, or replace it.",
                severe=not loop.starts,
                device_v=round(loop.device_v, 1),
                wanted_v=round(least, 1),
            )


def _harms(
    design: Design, catalogue: Catalogue, device: Device, injector: Injector, model: InjectorModel
) -> PassiveFeed:
    power = catalogue.model_of(device).power
    better = catalogue.injector_for(power.poe_class, 0) if power is not None else None
    cures = []
    if better is not None:
        changed = put(injector.model_copy(update={"model": better.id}))
        extra = f"{better.price - model.price:+g} {design.site.currency}"
        cures.append(Cure(label=f"Take {better.label}", effect=extra, changes=(changed,)))
    return PassiveFeed(
        device=device.id,
        name=device.name,
        text=f"{model.label} feeds {device.name} without asking: it may be harmed by it.",
        severe=True,
        wanted_v=0.0,
        cures=tuple(cures),
    )


def _bought(
    design: Design, catalogue: Catalogue, device: Device, injector: Injector | None, volts: float
) -> Iterator[Cure]:
    for model in (m for m in on_offer(catalogue.injectors) if m.passive_v == volts):
        key = injector.id if injector is not None else f"inj-{free_number(design.of(Injector), 'inj')}"
        placed = Injector(id=key, device=device.id, model=model.id)
        extra = f"{model.price:+g} {design.site.currency}"
        yield Cure(label=f"Put in {model.label}", effect=extra, changes=(put(placed),))
