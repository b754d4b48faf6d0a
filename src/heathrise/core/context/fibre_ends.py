"""What stands where the fibre of a device's run ends: converters, and what feeds the device there."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from ..catalogue import Catalogue, ConverterModel, InjectorModel, Role, poe_rank
from ..design import Design, Device, Injector, Run
from .run_decisions import run_said


@dataclass(frozen=True)
class FarEnd:
    """A converter at a device, and the injector that feeds it where the converter does not."""

    converter: ConverterModel
    injector: InjectorModel | None = None

    @property
    def price(self) -> float:
        return self.converter.price + (self.injector.price if self.injector is not None else 0.0)

    @property
    def plugs(self) -> int:
        """How many of the mains it takes beside the device's own."""
        return 1 + (self.injector is not None)

    @property
    def label(self) -> str:
        if self.injector is None:
            return self.converter.label
        return f"{self.converter.label}, and {self.injector.label}"

    def feeds(self, poe_class: int) -> bool:
        """Whether a device of a class is fed."""
        if self.injector is not None:
            return self.injector.does(poe_class, 0)
        given = self.converter.gives_class
        return given is not None and poe_rank(given) >= poe_rank(poe_class)


def takes_fibre(design: Design, catalogue: Catalogue, device: Device) -> bool:
    """Whether a device's run can be fibre: it has one link, to the port of a rack."""
    said = run_said(design, device.id)
    return kind_takes_fibre(catalogue.role_of(device)) and not (said.over_air or said.through)


def kind_takes_fibre(role: Role) -> bool:
    """Whether runs to a kind of device can be fibre."""
    return role.links == "one" and not role.leads_out


def far_end(catalogue: Catalogue, device: Device, injector: Injector | None = None) -> FarEnd:
    """Return what ends a device's fibre: where somebody chose an injector a plain converter before it, else
    the cheapest that feeds the device, else a plain one."""
    model = catalogue.model_of(device)
    plain = catalogue.converter_for(model.speed_mbps)
    assert plain is not None, "a plain converter is always on offer"
    if injector is not None or model.power is None:
        return FarEnd(plain, catalogue.injectors[injector.model] if injector is not None else None)
    ways: list[FarEnd] = []
    poe_class = model.power.poe_class
    feeding = catalogue.converter_for(model.speed_mbps, poe_class)
    if feeding is not None:
        ways.append(FarEnd(feeding))
    source = catalogue.injector_for(poe_class, min(plain.speed_mbps, model.speed_mbps))
    if source is not None:
        ways.append(FarEnd(plain, source))

    def worth(end: FarEnd) -> tuple[int, float]:
        return -min(end.converter.speed_mbps, model.speed_mbps), end.price

    return min(ways, key=worth, default=FarEnd(plain))


def far_ends(design: Design, catalogue: Catalogue) -> Iterator[tuple[Device, FarEnd]]:
    """Yield each device whose run is fibre because somebody said so, with what stands at it."""
    injectors = {i.device: i for i in design.of(Injector).values()}
    devices = design.of(Device)
    for run in design.of(Run).values():
        device = devices[run.device]
        if run.medium == "fibre" and takes_fibre(design, catalogue, device):
            yield device, far_end(catalogue, device, injectors.get(device.id))
