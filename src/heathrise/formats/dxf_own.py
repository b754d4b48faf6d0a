"""Gear, risers and ducts of a drawing of our own: read from the blocks that stand for them."""

from __future__ import annotations

import math
from collections import defaultdict
from collections.abc import Callable, Iterator, Mapping, Sequence
from typing import Any, get_args

from ..core.base.mounts import Mount
from ..core.catalogue import Catalogue, Role
from ..core.design import Device, Duct, Dug, Element, EquipmentRoom, Floor, Riser
from .dxf_entities import OUR_DUCT, Entities, Mark, refuse

Place = Callable[[float, float], tuple[float, float]]
_SAME_M = 0.01
_DEEPEST_M = 5.0


def gear_in(
    found: Entities, floors: Mapping[str, tuple[Floor, Place]], scale: float, catalogue: Catalogue
) -> Iterator[Element]:
    """Yield devices, racks, risers and ducts that stand on storeys of a drawing of our own.

    Args:
        floors: by the storey's name in the drawing what it became, and where a spot of it lies now.
        scale: metres to a drawing unit.

    Raises:
        DesignError: a device's model is none of the catalogue's.
    """
    by_kind: dict[str, list[tuple[Mark, Floor, tuple[float, float]]]] = defaultdict(list)
    for mark in found.marks:
        storey = mark.layer.rsplit(maxsplit=2)[0]
        if storey in floors:
            floor, place = floors[storey]
            by_kind[mark.block].append((mark, floor, place(*mark.at[:2])))
    for kind, role in catalogue.roles.items():
        for number, (mark, floor, at) in enumerate(by_kind[kind], 1):
            yield _device(role, f"{role.stem}-{number}", mark, floor, at, scale, catalogue)
    for number, (mark, floor, at) in enumerate(by_kind["rack"], 1):
        frame = mark.says.get("MODEL", "")
        yield EquipmentRoom(
            id=f"rack-{number}",
            floor=floor.id,
            name=mark.says["NAME"],
            at=at,
            rack_height_m=round(min(max(mark.at[2] * scale, 0.0), 3.0), 3),
            frame=frame if frame in catalogue.frames else None,
        )
    yield from _risers(by_kind["riser"])
    yield from _ducts(found, by_kind["duct"], floors)


def _device(
    role: Role,
    key: str,
    mark: Mark,
    floor: Floor,
    at: tuple[float, float],
    scale: float,
    catalogue: Catalogue,
) -> Device:
    label, name = mark.says.get("MODEL", ""), mark.says["NAME"]
    models = {m.label: m for m in catalogue.devices[role.kind].values()}
    if label not in models:
        what = f"its model {label!r} is not in the catalogue; take its sheet in first, or leave its gear out"
        refuse(name[:60], what)
    mount = mark.says.get("MOUNT", "")
    return Device(
        id=key,
        floor=floor.id,
        kind=role.kind,
        model=models[label].id,
        name=name,
        at=at,
        height_m=round(mark.at[2] * scale, 3),
        mount=mount if mount in get_args(Mount) else role.mount,
        azimuth_deg=round(-mark.turn_deg % 360, 2),
    )


def _risers(rows: Sequence[tuple[Mark, Floor, tuple[float, float]]]) -> Iterator[Riser]:
    """Yield each riser once: it is drawn on every storey that it goes through."""
    found: list[tuple[str, tuple[float, float], list[int], str]] = []
    for mark, floor, at in rows:
        name = mark.says["NAME"]
        same = next((r for r in found if r[0] == name and math.dist(r[1], at) < _SAME_M), None)
        if same is None:
            found.append((name, at, [floor.level], floor.building))
        else:
            same[2].append(floor.level)
    for number, (name, at, levels, building) in enumerate(found, 1):
        yield Riser(
            id=f"riser-{number}",
            building=building,
            name=name,
            at=at,
            lowest_level=min(levels),
            highest_level=max(levels),
        )


def _ducts(
    found: Entities,
    rows: Sequence[tuple[Mark, Floor, tuple[float, float]]],
    floors: Mapping[str, tuple[Floor, Place]],
) -> Iterator[Duct]:
    """Yield ducts: a line each, and a block at its beginning that says what it is."""
    for number, (mark, floor, at) in enumerate(rows, 1):
        lines = (
            tuple(floors[storey][1](x, y) for x, y in line)
            for layer, line in found.ways
            if (storey := layer.removesuffix(f" {OUR_DUCT}")) in floors and floors[storey][0] is floor
        )
        path = next((p for p in lines if len(p) > 1 and math.dist(p[0], at) < _SAME_M), None)
        if path is None:
            continue
        to = floors.get(mark.says.get("TO", ""), (floor, None))[0]
        more: dict[str, Any] = {}
        if mark.says.get("DUG") in get_args(Dug):
            more["dug"] = mark.says["DUG"]
        depth = mark.says.get("DEPTH", "")
        if depth.replace(".", "", 1).isdigit():
            more["depth_m"] = min(float(depth), _DEEPEST_M)
        yield Duct(
            id=f"duct-{number}",
            name=mark.says["NAME"],
            from_floor=floor.id,
            to_floor=to.id,
            path=path,
            **more,
        )
