"""How a design stands for the brief: joined of what signal, cable and power have worked out."""

from __future__ import annotations

from collections import Counter

from shapely.geometry import Polygon

from .brief import BriefChapter, Free, Level, RunPath, Spot, Stand, assess_brief
from .cabling import CableChapter
from .catalogue import Catalogue
from .design import Design, Pain, Space
from .kept import as_today, has_found_gear
from .memo import IdentityMemo
from .rack import PowerPlan
from .signal import Air, air_of, heard_at

_middles: IdentityMemo[tuple[float, float]] = IdentityMemo(4096, weigh=lambda _: 300)


def planned_stand(
    design: Design, catalogue: Catalogue, air: Air | None, links: CableChapter, power: PowerPlan
) -> Stand:
    """Return how the plan stands once the job is done."""
    wired = frozenset(r.device for r in links.runs if r.verdict != "no_way")
    levels = _levels(air) if air is not None else {}
    return Stand(design, catalogue, levels, {}, wired, _free(design, power))


def brief_chapter(drawn: Design, catalogue: Catalogue, planned: Stand) -> BriefChapter:
    """Return the brief's chapter, with how things stand today where any gear was found."""
    today: Stand | None = None
    if has_found_gear(drawn):
        design = as_today(drawn)
        air = air_of(design, catalogue)
        today = Stand(design, catalogue, _levels(air), _served(air))
    return assess_brief(drawn, catalogue, planned, today)


def paths_of(links: CableChapter) -> list[RunPath]:
    """Return where the run of each device lies, storey by storey."""
    return [(run.device, leg.floor, leg.points) for run in links.runs for leg in run.legs]


def _levels(air: Air) -> dict[Spot, tuple[Level, ...]]:
    return {
        (pain.floor, pain.at): tuple(
            Level(device.id, band, dbm) for device, band, dbm in heard_at(air, pain.floor, pain.at)
        )
        for pain in air.design.of(Pain).values()
    }


def _served(air: Air) -> dict[str, int]:
    """Return how many rooms each access point serves: is heard best in the middle of."""
    found: Counter[str] = Counter()
    for space in air.design.of(Space).values():
        if space.use == "none":
            continue
        heard = heard_at(air, space.floor, _middles.get((space,), None, lambda s=space: _middle(s)))  # type: ignore[misc]
        if heard:
            found[max(heard, key=lambda row: row[2])[0].id] += 1
    return dict(found)


def _middle(space: Space) -> tuple[float, float]:
    spot = Polygon(space.outline).representative_point()
    return round(spot.x, 2), round(spot.y, 2)


def _free(design: Design, power: PowerPlan) -> Free:
    headroom = 1 - design.site.power_headroom
    return Free(
        ports=sum(s.ports - s.ports_used for s in power.switches),
        powered=sum(s.powered_ports - s.powered_used for s in power.switches),
        watts=sum(max(0.0, s.budget_w * headroom - s.counted_w) for s in power.switches),
    )
