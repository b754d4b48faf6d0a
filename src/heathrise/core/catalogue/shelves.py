"""The catalogue as a whole: every shelf by id, and what is asked of all of them."""

from __future__ import annotations

from collections.abc import Mapping
from functools import cached_property
from typing import Protocol, TypeVar

from pydantic import BaseModel, ConfigDict, PrivateAttr

from .devices import AirModel, DeviceModel, SplitterModel
from .entries import Entry
from .far_models import BridgeModel, RemoteModel, SunModel
from .models import (
    BatteryModel,
    CableModel,
    ClientModel,
    Construction,
    ConverterModel,
    ExtenderModel,
    FibreModel,
    FrameModel,
    InjectorModel,
    LabelSheet,
    PartModel,
    SiteKindModel,
    SwitchModel,
    UsualNetwork,
    calibrated,
)
from .poe_classes import poe_rank
from .practices import Matter, ShippedPractice
from .roles import Role, by_kind
from .rules import Rules

E = TypeVar("E", bound=Entry)


class HasKind(Protocol):
    """A device of a design."""

    @property
    def kind(self) -> str: ...

    @property
    def model(self) -> str: ...
    @property
    def reduced(self) -> bool: ...
    @property
    def splitter(self) -> str | None: ...


def on_offer(shelf: Mapping[str, E]) -> list[E]:
    """Return what of a shelf is still offered."""
    return [m for m in shelf.values() if not m.withdrawn]


class Catalogue(BaseModel):
    """All entries by id, and the figures of the trade; ``own`` has the shelf of what is the firm's."""

    model_config = ConfigDict(frozen=True, extra="forbid", defer_build=True)

    constructions: dict[str, Construction]
    roles: dict[str, Role]
    devices: dict[str, dict[str, DeviceModel]]
    clients: dict[str, ClientModel]
    switches: dict[str, SwitchModel]
    injectors: dict[str, InjectorModel]
    extenders: dict[str, ExtenderModel]
    converters: dict[str, ConverterModel]
    splitters: dict[str, SplitterModel]
    frames: dict[str, FrameModel]
    batteries: dict[str, BatteryModel]
    cables: dict[str, CableModel]
    fibres: dict[str, FibreModel]
    parts: dict[str, PartModel]
    bridges: dict[str, BridgeModel]
    remotes: dict[str, RemoteModel]
    suns: dict[str, SunModel]
    label_sheets: dict[str, LabelSheet]
    usual_networks: dict[str, tuple[UsualNetwork, ...]]
    site_kinds: dict[str, SiteKindModel]
    matters: dict[str, Matter]
    practices: dict[str, ShippedPractice]
    rules: Rules
    own: dict[str, str] = {}
    # Constructions as they are listed, before measurements moved what they take.
    _listed: dict[str, Construction] | None = PrivateAttr(None)

    def ruled_by(self, rules: Rules) -> Catalogue:
        """Return the same gear under other figures: what constructions take follows them."""
        listed = self._listed or self.constructions
        made = self._with(rules=rules, constructions=calibrated(listed, rules))
        made._listed = listed
        return made

    def with_kind(self, role: Role, models: Mapping[str, DeviceModel]) -> Catalogue:
        """Return a catalogue with one more kind of device and its gear."""
        roles = by_kind([*self.roles.values(), role])
        return self._with(roles=roles, devices={**self.devices, role.kind: dict(models)})

    def grown(
        self,
        devices: Mapping[str, Mapping[str, DeviceModel]],
        shelves: Mapping[str, Mapping[str, object]],
        own: Mapping[str, str],
    ) -> Catalogue:
        """Return a catalogue with other gear on some shelves."""
        return self._with(devices=devices, own=dict(own), **shelves)

    def _with(self, **fields: object) -> Catalogue:
        # A copy would take along what was worked out from the fields that change.
        kept = {name: getattr(self, name) for name in type(self).model_fields}
        made = Catalogue.model_construct(**{**kept, **fields})
        made._listed = self._listed
        return made

    def role_of(self, device: HasKind) -> Role:
        """Return what a device's kind can do."""
        return self.roles[device.kind]

    def model_of(self, device: HasKind) -> DeviceModel:
        """Return what a device is, as it runs: some run on less than they ask for, or behind a splitter."""
        model = self.sheet_of(device)
        if device.splitter is not None and model.takes_splitter and device.splitter in self.splitters:
            return self._split(model, self.splitters[device.splitter])
        return model.on_less if device.reduced else model

    def sheet_of(self, device: HasKind) -> DeviceModel:
        """Return what a device's sheet says, whatever it runs on here."""
        return self.devices[device.kind][device.model]

    def _split(self, model: DeviceModel, splitter: SplitterModel) -> DeviceModel:
        key = (model.id, splitter.id)
        if key not in self._behind:
            self._behind[key] = model.behind(splitter)
        return self._behind[key]

    @cached_property
    def _behind(self) -> dict[tuple[str, str], DeviceModel]:
        """Devices behind a splitter, each the same object whenever it is asked for."""
        return {}

    def air_of(self, device: HasKind) -> AirModel | None:
        """Return the radios of a device as it runs, or None."""
        return self.model_of(device).air

    def radios_of(self, device: HasKind) -> AirModel:
        """Return the radios of a device that is known to give air."""
        air = self.air_of(device)
        assert air is not None, f"{device.model} gives no air"
        return air

    @cached_property
    def airs(self) -> Mapping[str, AirModel]:
        """What gives air, by its model: ids of models stand once, whatever the kind."""
        rows = (m for models in self.devices.values() for m in models.values())
        return {m.id: m.air for m in rows if m.air is not None}

    def sold(self, kind: str) -> list[DeviceModel]:
        """Return what can be bought of a kind."""
        return [m for m in self.devices[kind].values() if m.old is None and not m.withdrawn]

    @cached_property
    def sold_switches(self) -> tuple[SwitchModel, ...]:
        """The switches that can be bought, the cheapest first."""
        fresh = (m for m in self.switches.values() if m.old is None and not m.withdrawn)
        return tuple(sorted(fresh, key=lambda m: m.price))

    def injector_for(self, poe_class: int, speed_mbps: float) -> InjectorModel | None:
        """Return the cheapest injector that feeds a class at a speed, or None."""
        fitting = (m for m in on_offer(self.injectors) if m.does(poe_class, speed_mbps))
        return min(fitting, key=lambda m: m.price, default=None)

    def converter_for(self, speed_mbps: float, gives_class: int | None = None) -> ConverterModel | None:
        """Return the cheapest converter at a speed, the fastest where none is as fast: one that feeds a
        class, where it is to, or None."""
        fitting = [
            c
            for c in on_offer(self.converters)
            if gives_class is None
            or (c.gives_class is not None and poe_rank(c.gives_class) >= poe_rank(gives_class))
        ]
        return min(fitting, key=lambda c: (-min(c.speed_mbps, speed_mbps), c.price), default=None)

    def splitter_for(self, model: DeviceModel) -> SplitterModel | None:
        """Return the cheapest splitter that gives a device its volts and watts, or None."""
        fitting = (
            s
            for s in on_offer(self.splitters)
            if model.takes_splitter and s.gives_v == model.dc_v and s.gives_w >= model.own_w
        )
        return min(fitting, key=lambda s: s.price, default=None)

    def gives_air(self, kind: str) -> bool:
        """Whether a kind of device has radios that clients hear."""
        return any(m.air is not None for m in self.devices[kind].values())

    @cached_property
    def kind_order(self) -> Mapping[str, int]:
        """The rank of each kind where all cannot be served."""
        return {kind: rank for rank, kind in enumerate(self.roles)}
