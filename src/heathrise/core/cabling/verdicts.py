"""Findings about cable: runs too long, in the wrong place, of the wrong category, or missing."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

from shapely.geometry import LineString

from ..catalogue import AccessPointModel, Catalogue
from ..design import Category, Change, Design, Device, EquipmentRoom, Run, apply, put
from ..findings import Cure, Finding, Place
from ..wording import metres
from .limits import CATEGORIES, SOURCE, check_run
from .runs import RunVerdict, judge_runs

JACKET_CHANGE_M = 15.0
MOST_MOVED_M = 6.0
MOVE_SPARE_M = 0.3
_RECOMMENDED: dict[str, Category] = {"5": "6A", "6": "6A", "6E": "6A", "7": "6A"}


def cable_findings(
    design: Design, catalogue: Catalogue, runs: list[RunVerdict]
) -> Iterator[Finding]:
    """Yield the findings of the cable stage."""
    if runs and not design.of(EquipmentRoom):
        yield Finding(
            id="cable-no-room",
            stage="cable",
            severity="not_met",
            text="No run can be drawn: no equipment room is placed. Place it where runs begin.",
            rule="a star from the equipment room",
            source=SOURCE,
        )
        return
    for run in runs:
        device = design.of(Device)[run.device]
        yield from _length(design, catalogue, run, device)
        yield from _ground(run, device)
    yield from _recommended(design, catalogue, runs)


def _finding(run: RunVerdict, device: Device, key: str, **fields: Any) -> Finding:
    place = Place(kind="device", id=device.id, floor=device.floor, at=device.at)
    common = {"stage": "cable", "places": (place,), "source": SOURCE}
    return Finding.model_validate({"id": f"cable-{key}-{run.device}", **common, **fields})


def _length(
    design: Design, catalogue: Catalogue, run: RunVerdict, device: Device
) -> Iterator[Finding]:
    if run.verdict == "no_way":
        text = f"{run.name}: no run reaches it; {run.reason}. Draw a riser or a duct to its floor."
        yield _finding(
            run, device, "way", severity="not_met", text=text, rule="every device has a run"
        )
    elif run.verdict in ("not_met", "test_first"):
        yield _finding(
            run,
            device,
            "length",
            severity="not_met",
            text=f"{run.name}: {run.reason}.",
            figure=run.fixed_m,
            limit=run.limit_m,
            unit="m",
            rule="what each category carries, by speed and length",
            cures=(*_other_category(design, run), *_nearer(design, catalogue, run, device)),
        )
    elif run.verdict == "near":
        yield _finding(
            run,
            device,
            "length",
            severity="near",
            text=f"{run.name}: {run.reason}. Measure it before it is promised.",
            figure=run.fixed_m,
            limit=run.limit_m,
            unit="m",
            rule="fixed run within 5 % of its limit",
        )


def _other_category(design: Design, run: RunVerdict) -> tuple[Cure, ...]:
    """Offer the least category that does carry the speed over this run."""
    site = design.site
    for category in CATEGORIES:
        verdict = check_run(category, run.speed_mbps, run.fixed_m, site.cords_m, run.hottest_c)
        if verdict.verdict in ("met", "near"):
            label = f"Pull category {category}"
            return (
                Cure(label=label, effect=verdict.reason, changes=(_pulled(design, run, category),)),
            )
    return ()


def _pulled(design: Design, run: RunVerdict, category: Category) -> Change:
    """Return the change that pins a run's category, keeping what else was said of it."""
    said = {r.device: r for r in design.of(Run).values()}.get(run.device)
    kept = said or Run(id=f"r-{run.device}"[:40], device=run.device)
    return put(kept.model_copy(update={"category": category}))


def _nearer(
    design: Design, catalogue: Catalogue, run: RunVerdict, device: Device
) -> tuple[Cure, ...]:
    """Offer to move the device back along the last stretch of its run, if that will do."""
    excess_m = run.fixed_m - run.limit_m
    level = [leg for leg in run.legs if leg.floor == device.floor and len(leg.points) > 1]
    if not level or not 0 < excess_m <= MOST_MOVED_M or run.limit_m == 0:
        return ()
    way = LineString([*level[-1].points[:-1], device.at])
    back_m = excess_m + MOVE_SPARE_M
    if way.length < back_m:
        return ()
    spot = way.interpolate(way.length - back_m)
    moved = device.model_copy(update={"at": (round(spot.x, 2), round(spot.y, 2))})
    after = next(
        r for r in judge_runs(apply(design, [put(moved)]), catalogue) if r.device == device.id
    )
    if after.verdict not in ("met", "near"):
        return ()
    effect = f"{metres(run.fixed_m)} becomes {metres(after.fixed_m)}"
    label = f"Move {device.name} {metres(back_m, 1)} back along its run"
    return (Cure(label=label, effect=effect, changes=(put(moved),)),)


def _ground(run: RunVerdict, device: Device) -> Iterator[Finding]:
    if run.between_buildings:
        yield _finding(
            run,
            device,
            "surge",
            severity="near",
            text=(
                f"{run.name}: copper between two buildings needs surge protection at both ends, "
                "bonded to each building's earth by a licensed electrician. Fibre needs none."
            ),
            figure=run.duct_m,
            unit="m in the ground",
            rule="copper that leaves a building is protected at both ends",
            source="local code; IEC 62305",
        )
    outside = run.duct_m + run.outdoor_m
    if outside > 0:
        jacket = "direct-burial or gel-filled" if run.duct_m else "outdoor, UV-proof"
        most = metres(JACKET_CHANGE_M)
        within = f" Indoor cable may enter {most} of change-over at most." if outside > 2 else ""
        yield _finding(
            run,
            device,
            "jacket",
            severity="note",
            text=f"{run.name}: {metres(outside, 1)} lie outside; order {jacket} jacket.{within}",
            figure=round(outside, 1),
            limit=JACKET_CHANGE_M,
            unit="m",
            rule="indoor jacket stays indoors",
            source="local code",
        )


def _recommended(design: Design, catalogue: Catalogue, runs: list[RunVerdict]) -> Iterator[Finding]:
    below: list[RunVerdict] = []
    for run in runs:
        model = catalogue.devices_of(run.kind)[design.of(Device)[run.device].model]
        if isinstance(model, AccessPointModel) and run.verdict in ("met", "near"):
            wanted = _RECOMMENDED.get(model.generation)
            if wanted and CATEGORIES.index(run.category) < CATEGORIES.index(wanted):
                below.append(run)
    if not below:
        return
    changes = tuple(_pulled(design, run, "6A") for run in below)
    bought_m = sum(r.bought_m * r.cables for r in below)
    yield Finding(
        id="cable-recommended",
        stage="cable",
        severity="note",
        text=(
            f"{len(below)} access points on less than category 6A. It carries them now; "
            "6A would carry the next generation too, and the labour is most of the cost."
        ),
        figure=len(below),
        unit="runs",
        rule="6A recommended to access points",
        source="TIA TSB-162",
        cures=(
            Cure(
                label="Pull category 6A to all of them",
                effect=f"{metres(bought_m, 0)} of 6A instead",
                changes=changes,
            ),
        ),
    )
