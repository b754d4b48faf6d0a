"""Points that a run is led by and does not come to: it goes by the nearest spot where cable lies."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

import shapely

from ..base.wording import metres
from ..catalogue import Rules
from ..context.findings import Cure, Finding, Place
from ..design import Design, Device, WayPoint, put, remove
from .runs import RunVerdict


def led_findings(design: Design, runs: Sequence[RunVerdict], rules: Rules) -> Iterator[Finding]:
    """Yield the points that somebody led a run by and that it misses, by how far."""
    by_device = {r.device: r for r in runs if r.verdict != "no_way"}
    most_m = rules["cabling.led_off_m"]
    for point in design.of(WayPoint).values():
        run = by_device.get(point.device)
        if run is None:
            continue
        near = _nearest(point, run)
        if near is None or near[0] <= most_m:
            continue
        away, spot = near
        name = design.of(Device)[point.device].name
        moved = point.model_copy(update={"at": spot})
        yield Finding(
            id=f"cable-led-{point.id}",
            stage="cable",
            severity="near",
            text=f"The run of {name} is led by a point that no cable comes to, as out of doors: it goes by "
            f"{metres(away, 1)} beside it.",
            places=(Place(kind="device", id=point.device, floor=point.floor, at=point.at),),
            figure=round(away, 2),
            limit=most_m,
            unit="m",
            rule="a run goes by the points that it is led by",
            source=rules.source("cabling.led_off_m"),
            used=rules.used("cabling.led_off_m"),
            cures=(
                Cure(label="Put the point where it goes by", changes=(put(moved),)),
                Cure(label="Take the point away", changes=(remove(point),)),
            ),
        )


def _nearest(point: WayPoint, run: RunVerdict) -> tuple[float, tuple[float, float]] | None:
    """Return how near a run comes to a point on its storey, m, and where."""
    at = shapely.Point(point.at)
    lines = [
        shapely.LineString(leg.points) if len(leg.points) > 1 else shapely.Point(leg.points[0])
        for leg in run.legs
        if leg.floor == point.floor and leg.points
    ]
    if not lines:
        return None
    line = min(lines, key=lambda one: one.distance(at))
    spot = shapely.shortest_line(line, at).coords[0]
    return float(line.distance(at)), (round(spot[0], 2), round(spot[1], 2))
