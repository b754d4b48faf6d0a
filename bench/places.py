"""The search for places: how soon it answers, how well, and beside one in every 100 m2."""

from __future__ import annotations

import time
from datetime import date
from typing import Any

import numpy as np
import shapely
from shapely.geometry import Polygon

from heathrise.core.catalogue import Catalogue, load_catalogue
from heathrise.core.context.plan import Plan
from heathrise.core.context.scope import as_planned
from heathrise.core.context.storeys import storeys_of
from heathrise.core.design import Design, Device, Space, apply, put
from heathrise.core.placement import Wishes, search_sites
from heathrise.core.placement.places import air_role, models_wished, movable
from heathrise.core.signal import RoomVerdict, air_of, judge_rooms
from heathrise.demo import SITES

_CELL_M = 10.0


def by_the_rule_of_thumb(design: Design, catalogue: Catalogue) -> Design:
    """Return a design with one access point in the middle of every 100 m2, whatever the walls."""
    gone = {d.id for d in movable(design, catalogue)}
    left = {k: d for k, d in design.of(Device).items() if k not in gone}
    bare = Design({**design.tables, "device": left})
    storeys = storeys_of(bare)
    indoor = next(m for m in models_wished(design, catalogue, Wishes()) if not m.outdoor)
    floors: dict[str, list[Space]] = {}
    for space in bare.of(Space).values():
        if not space.outdoor:
            floors.setdefault(space.floor, []).append(space)
    placed: list[Device] = []
    for floor, spaces in floors.items():
        region = shapely.union_all([Polygon(s.outline) for s in spaces])
        west, south, east, north = region.bounds
        for x in np.arange(west + _CELL_M / 2, east + _CELL_M / 2, _CELL_M):
            for y in np.arange(south + _CELL_M / 2, north + _CELL_M / 2, _CELL_M):
                cell = shapely.box(x - 5, y - 5, x + 5, y + 5).intersection(region)
                if cell.area < _CELL_M**2 / 2:
                    continue
                middle = cell.representative_point()
                at = (round(middle.x, 2), round(middle.y, 2))
                placed.append(
                    Device(
                        id=f"thumb-{len(placed)}",
                        floor=floor,
                        kind=air_role(catalogue).kind,
                        model=indoor.id,
                        name=f"T-{len(placed)}",
                        at=at,
                        mount="ceiling",
                        height_m=storeys.ceiling_m(storeys.room_at(floor, at), floor),
                    )
                )
    return apply(bare, [put(d) for d in placed])


def _stand(design: Design, catalogue: Catalogue) -> str:
    rooms: list[RoomVerdict] = judge_rooms(air_of(as_planned(design), catalogue))
    needed = [r for r in rooms if r.verdict != "not_needed"]
    points = sum(d.model in catalogue.airs for d in as_planned(design).of(Device).values())
    return f"{points:3d}, {sum(r.verdict == 'met' for r in needed):3d} of {len(needed)} rooms met"


class _Clock:
    """Notes when it was first told anything."""

    def __init__(self) -> None:
        self.begun, self.first_s = time.perf_counter(), 0.0

    def __call__(self, _: Any) -> None:
        self.first_s = self.first_s or time.perf_counter() - self.begun


def places() -> None:
    """Print what a search gives on the demo sites and how long it takes."""
    catalogue = load_catalogue()
    print("Places: access points, rooms met with the margin in hand")
    for site in SITES:
        design = site.make()
        begun, shown = time.perf_counter(), _Clock()
        found = search_sites(Plan(design, catalogue, on=date.today()), Wishes(), show=shown)
        took = time.perf_counter() - begun
        print(f"  {site.key:10} as drawn               {_stand(design, catalogue)}")
        thumb = by_the_rule_of_thumb(as_planned(design), catalogue)
        print(f"  {'':10} one in every 100 m2    {_stand(thumb, catalogue)}")
        for answer in found.answers:
            after = apply(design, answer.changes)
            print(f"  {'':10} {answer.name:22} {_stand(after, catalogue)}; {answer.proof}")
        print(
            f"  {'':10} first answer after {shown.first_s:.1f} s (wanted 3), "
            f"all three after {took:.0f} s; gap of the fewest {found.answers[0].gap:.0%} "
            "(wanted 5%)"
        )
