"""Splitters at the end of a cable: the volts and watts that their devices want."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Literal

from ..catalogue import Catalogue, SplitterModel
from ..context.findings import Cure
from ..context.racks import stand_in_racks
from ..design import Design, Device, put
from .values import WrongSplit


def wrong_splits(design: Design, catalogue: Catalogue) -> Iterator[WrongSplit]:
    """Yield splitters that would harm their device, starve it, or feed what needs none."""
    standing = stand_in_racks(design, catalogue)
    for device in design.of(Device).values():
        splitter = catalogue.splitters.get(device.splitter or "")
        if splitter is None:
            continue
        model = catalogue.sheet_of(device)
        severity: Literal["not_met", "near"] = "not_met"
        if not model.takes_splitter:
            severity, why = (
                "near",
                "takes none: its power comes over the cable, or from a supply of its own kind",
            )
        elif device.id in standing:
            severity, why = "near", "stands in a rack, where its own supply is plugged in"
        elif splitter.gives_v != model.dc_v:
            why = f"wants {model.dc_v:g} V and would be harmed or stay dark at {splitter.gives_v:g}"
        elif splitter.gives_w < model.own_w:
            why = f"draws {model.own_w:g} W, the splitter gives {splitter.gives_w:g}"
        else:
            continue
        yield WrongSplit(
            device=device.id,
            severity=severity,
            text=f"{splitter.label} at {device.name}: it {why}.",
            cures=tuple(_cures(design, catalogue, device, splitter)),
        )


def _cures(design: Design, catalogue: Catalogue, device: Device, wrong: SplitterModel) -> Iterator[Cure]:
    best = catalogue.splitter_for(catalogue.sheet_of(device))
    if best is not None and best.id != wrong.id:
        changed = put(device.model_copy(update={"splitter": best.id}))
        extra = f"{best.price - wrong.price:+g} {design.site.currency}"
        yield Cure(label=f"Take {best.label}", effect=extra, changes=(changed,))
    bare = put(device.model_copy(update={"splitter": None}))
    yield Cure(label="Take the splitter away", effect="it is plugged into the mains", changes=(bare,))
