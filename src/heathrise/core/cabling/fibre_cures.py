"""Fibre in place of copper: offered for a run or a way that copper does not do for, and what it spoils."""

from __future__ import annotations

from collections.abc import Iterator

from ..catalogue import Catalogue
from ..context.fibre_ends import far_end, takes_fibre
from ..context.findings import Cure
from ..context.run_decisions import run_said
from ..design import Design, Device, Extender, Injector, Uplink, put, remove
from .fibre import choose_fibre
from .runs import RunVerdict
from .uplinks import UplinkVerdict

NO_CURRENT = "it carries no current, whatever happens to the earths"


def uplink_over_fibre(design: Design, uplink: UplinkVerdict) -> tuple[Cure, ...]:
    said = {u.room: u for u in design.of(Uplink).values()}.get(uplink.room or "")
    kept = said or Uplink(id=f"u-{uplink.room}"[:40], room=uplink.room or "", to=uplink.to_room)
    changed = put(kept.model_copy(update={"medium": "fibre"}))
    return (Cure(label="Join the two rooms by fibre", effect=NO_CURRENT, changes=(changed,)),)


def run_over_fibre(
    design: Design, catalogue: Catalogue, run: RunVerdict, device: Device, surge: bool = False
) -> Iterator[Cure]:
    """Offer fibre to a device with a converter at its end, where that reaches and one is to be had."""
    if run.medium == "fibre" or run.verdict == "no_way" or not takes_fibre(design, catalogue, device):
        return
    injector = next((i for i in design.of(Injector).values() if i.device == device.id), None)
    end = far_end(catalogue, device, injector)
    power = catalogue.model_of(device).power
    chosen = choose_fibre(catalogue, end.converter.speed_mbps, run.fixed_m)
    starves = power is not None and not end.feeds(power.poe_class)
    if chosen.verdict not in ("met", "near") or starves:
        return
    said = run_said(design, device.id).model_copy(update={"medium": "fibre"})
    gone = tuple(remove(e) for e in design.of(Extender).values() if e.device == device.id)
    what = f"{NO_CURRENT}; " if surge else ""
    dark = "; it goes dark with the socket there, whatever battery the rack has, and no port restarts it"
    yield Cure(
        label=f"Pull fibre to {device.name}, with a converter at its end",
        effect=f"{what}{chosen.reason}; {end.label} in a socket there{dark}",
        changes=(put(said), *gone),
    )
