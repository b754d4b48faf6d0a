"""Devices where they cannot be: out of doors, on a mount they lack, above the ceiling."""

from __future__ import annotations

from collections.abc import Iterator

import shapely

from ..base.wording import celsius, metres
from ..catalogue import Catalogue, DeviceModel
from ..context.findings import Cure, Finding, Place
from ..context.storeys import Storeys, storeys_of
from ..design import Design, Device, put

_SOURCE = "the maker's sheet, as the catalogue has it"


def placing_findings(design: Design, catalogue: Catalogue) -> Iterator[Finding]:
    """Yield what is wrong with where devices stand."""
    storeys = storeys_of(design)
    for device in design.of(Device).values():
        model = catalogue.model_of(device)
        indoor = catalogue.role_of(device).stands == "as_made" and not model.outdoor
        if indoor and is_outdoors(catalogue, storeys, device):
            yield _outdoors(catalogue, device, model)
        elif is_outdoors(catalogue, storeys, device):
            yield from _weather(catalogue, device, model)
        if model.mounts and device.mount not in model.mounts:
            yield _mount(catalogue, storeys, device, model)
        yield from _too_high(catalogue, storeys, device)


def is_outdoors(catalogue: Catalogue, storeys: Storeys, device: Device) -> bool:
    """Whether a device stands outside: in an outdoor area, or clear of every room of its storey."""
    room = storeys.room_at(device.floor, device.at)
    if room is not None:
        return room.outdoor
    region = storeys.regions.get(device.floor)
    at_wall_m = catalogue.rules["plan.at_wall_m"]
    return region is not None and bool(region.distance(shapely.Point(device.at)) > at_wall_m)


def mount_height_m(catalogue: Catalogue, mount: str, ceiling_m: float) -> float:
    """Return the height in m that a mount is planned at, never above the ceiling."""
    heights = catalogue.rules.table("plan.mount_height_m")
    return min(heights.get(mount, ceiling_m), ceiling_m)


def _finding(device: Device, key: str, text: str, rule: str, **more: object) -> Finding:
    place = Place(kind="device", id=device.id, floor=device.floor, at=device.at)
    common = {"stage": "plan", "severity": "not_met", "places": (place,), "source": _SOURCE}
    return Finding.model_validate(
        {"id": f"plan-{key}-{device.id}", "text": text, "rule": rule, **common, **more}
    )


def _outdoors(catalogue: Catalogue, device: Device, model: DeviceModel) -> Finding:
    cures = []
    for other in catalogue.sold(device.kind):
        if not other.outdoor:
            continue
        update: dict[str, object] = {"model": other.id}
        if other.mounts and device.mount not in other.mounts:
            update["mount"] = other.mounts[0]
        effect = f"made for outdoors; {other.price - model.price:+g} each"
        changed = device.model_copy(update=update)
        cures.append(Cure(label=f"Take {other.label}", effect=effect, changes=(put(changed),)))
    return _finding(
        device,
        "outdoors",
        f"{device.name}: {model.label} is made for indoors and stands out of doors.",
        "gear out of doors is made for it",
        cures=tuple(cures[:2]),
    )


def _weather(catalogue: Catalogue, device: Device, model: DeviceModel) -> Iterator[Finding]:
    """Yield what is not made for the coldest night or the sun on a wall, with models that are."""
    cold, hot = catalogue.rules["install.coldest_c"], catalogue.rules["cabling.space_c.outdoor"]
    if model.bears(cold, hot):
        return
    cures = []
    for other in catalogue.sold(device.kind):
        if other.outdoor and other.bears(cold, hot) and (not other.mounts or device.mount in other.mounts):
            changed = device.model_copy(update={"model": other.id})
            effect = f"{other.price - model.price:+g} each"
            cures.append(Cure(label=f"Take {other.label}", effect=effect, changes=(put(changed),)))
    colder = model.least_c is not None and model.least_c > cold
    limit, place = (model.least_c, cold) if colder else (model.most_c, hot)
    yield _finding(
        device,
        "weather",
        f"{device.name}: {model.label} is made for {celsius(limit or 0.0)} at the "
        f"{'least' if colder else 'most'}; its place is planned at {celsius(cold)} to {celsius(hot)}.",
        "the temperature of a place is one that the device bears",
        severity="near",
        figure=place,
        limit=limit,
        unit="°C",
        used=catalogue.rules.used("install.coldest_c", "cabling.space_c.outdoor"),
        cures=tuple(cures[:2]),
    )


def _mount(catalogue: Catalogue, storeys: Storeys, device: Device, model: DeviceModel) -> Finding:
    ceiling_m = storeys.ceiling_m(storeys.room_at(device.floor, device.at), device.floor)
    cures = []
    for mount in model.mounts:
        height_m = mount_height_m(catalogue, mount, ceiling_m)
        changed = device.model_copy(update={"mount": mount, "height_m": height_m})
        label = f"Mount it on {'a' if mount != 'ceiling' else 'the'} {mount}"
        cures.append(Cure(label=f"{label} at {metres(height_m)}", changes=(put(changed),)))
    return _finding(
        device,
        "mount",
        f"{device.name}: {model.label} has no {device.mount} mount; it has {' and '.join(model.mounts)}.",
        "a mount that the device has",
        cures=tuple(cures),
    )


def _too_high(catalogue: Catalogue, storeys: Storeys, device: Device) -> Iterator[Finding]:
    room = storeys.room_at(device.floor, device.at)
    if room is None or room.outdoor or device.mount == "pole":
        return
    top_m = storeys.ceiling_m(room, device.floor)
    if room.open_above:
        for floor in storeys.above(device.floor, shapely.Polygon(room.outline))[:1]:
            upper = storeys.floors[floor]
            rise_m = storeys.elevation_m[floor] - storeys.elevation_m[device.floor]
            top_m = max(top_m, rise_m + upper.ceiling_height_m)
    if device.height_m <= top_m + catalogue.rules["plan.above_ceiling_m"]:
        return
    changed = device.model_copy(update={"height_m": top_m})
    yield _finding(
        device,
        "height",
        f"{device.name} at {metres(device.height_m)} is above the ceiling of {room.name}, {metres(top_m)}.",
        "a device hangs within its room",
        figure=device.height_m,
        limit=top_m,
        unit="m",
        source="geometry of the drawing",
        cures=(Cure(label=f"Hang it at {metres(top_m)}", changes=(put(changed),)),),
    )
