"""What feeds a device that hangs on another one, or on an injector of its own."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence

from ..catalogue import Catalogue, poe_rank
from ..context.findings import Cure
from ..context.plugged import Plugged
from ..context.run_decisions import run_said
from ..design import Design, Device, Injector, put
from ..power import PoweredDevice
from .values import PluggedDevice


def plugged_feeds(
    design: Design, plugs: Sequence[Plugged], fed_by: Mapping[str, str], powered: Mapping[str, PoweredDevice]
) -> dict[str, str]:
    """Return what feeds each device that is plugged into another: that one's port, if it has power itself."""
    devices = design.of(Device)
    return {
        plug.device: f"{devices[plug.host].name} port {plug.port}"
        for plug in plugs
        if not plug.wrong and (plug.host not in powered or fed_by.get(plug.host, "none") != "none")
    }


def plugs_said(design: Design, catalogue: Catalogue, plugs: Sequence[Plugged]) -> Iterable[PluggedDevice]:
    devices = design.of(Device)
    for plug in plugs:
        device, group = devices[plug.device], plug.group
        mbps = min(catalogue.model_of(device).speed_mbps, group.speed_mbps if group is not None else 0)
        alone = run_said(design, device.id).model_copy(update={"through": None})
        label = f"Pull a run of its own to {device.name}"
        yield PluggedDevice(
            device=device.id,
            name=device.name,
            host=plug.host,
            host_name=devices[plug.host].name,
            port=plug.port,
            cord_m=plug.cord_m,
            speed_mbps=mbps,
            wrong=plug.wrong,
            cures=(Cure(label=label, effect="from the rack, to a port there", changes=(put(alone),)),),
        )


def injector_feed(catalogue: Catalogue, injector: Injector, device: PoweredDevice) -> str:
    model = catalogue.injectors[injector.model]
    return model.label if poe_rank(model.poe_class) >= poe_rank(device.poe_class) else "none"
