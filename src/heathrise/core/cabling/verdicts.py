"""Findings about cable: runs too long, in the wrong place, of the wrong category, or missing."""

from __future__ import annotations

import math
from collections.abc import Iterator, Mapping
from typing import Any

from shapely.geometry import LineString

from ..catalogue import AccessPointModel, Catalogue
from ..design import Category, Change, Design, Device, EquipmentRoom, Run, apply, put
from ..findings import Cure, Finding, Place
from ..wording import metres
from .conduit import duct_findings
from .limits import CATEGORIES, SOURCE, check_run, cords_limit_m, heat_limit_m
from .runs import RECOMMENDED, REQUIRED, RunVerdict, judge_runs

JACKET_CHANGE_M = 15.0
MOST_MOVED_M = 6.0
MOVE_SPARE_M = 0.3
SURGE_OUTDOOR_M = 1.0  # more than this in air outside has left the building
LEAST_CORDS_M = 1.0


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
    yield from duct_findings(design, catalogue, runs)
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
            cures=(
                *_other_category(design, run),
                *_nearer(design, catalogue, run, device),
                *_shorter_cords(design, run),
            ),
        )
    elif run.verdict == "near" and _below(catalogue, run, device, REQUIRED):
        yield _finding(
            run,
            device,
            "category",
            severity="near",
            text=f"{run.name}: {run.reason}.",
            rule="what each generation of access point asks for",
            source="TIA TSB-162",
            cures=(Cure(label="Pull category 6A", changes=(_pulled(design, run, "6A"),)),),
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


def _below(
    catalogue: Catalogue, run: RunVerdict, device: Device, table: Mapping[str, Category]
) -> bool:
    """Whether an access point's run is of a lesser category than a table has for it."""
    model = catalogue.devices_of(run.kind)[device.model]
    wanted = table.get(model.generation) if isinstance(model, AccessPointModel) else None
    return wanted is not None and CATEGORIES.index(run.category) < CATEGORIES.index(wanted)


def _shorter_cords(design: Design, run: RunVerdict) -> tuple[Cure, ...]:
    """Offer shorter cords where they are what makes the channel too long."""
    cords_m = math.floor(2 * cords_limit_m(run.fixed_m)) / 2
    if run.fixed_m > heat_limit_m(run.hottest_c) or not LEAST_CORDS_M <= cords_m < run.cords_m:
        return ()
    site = design.site.model_copy(update={"cords_m": cords_m})
    if check_run(
        run.category, run.speed_mbps, run.fixed_m, cords_m, run.hottest_c, site.tight_bundles
    ).verdict not in ("met", "near"):
        return ()
    label = f"Plan {metres(cords_m)} of cords in all"
    return (Cure(label=label, effect="at both ends together, on every run", changes=(put(site),)),)


def _other_category(design: Design, run: RunVerdict) -> tuple[Cure, ...]:
    """Offer the least category that does carry the speed over this run."""
    site = design.site
    for category in CATEGORIES:
        verdict = check_run(
            category, run.speed_mbps, run.fixed_m, site.cords_m, run.hottest_c, site.tight_bundles
        )
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
    leaves = run.outdoor_m > SURGE_OUTDOOR_M or device.mount == "pole"
    if run.between_buildings or leaves:
        where = "between two buildings" if run.between_buildings else "that leaves the building"
        yield _finding(
            run,
            device,
            "surge",
            severity="near",
            text=(
                f"{run.name}: copper {where} needs surge protection at both ends, "
                "bonded to each building's earth by a licensed electrician. Fibre needs none."
            ),
            figure=round(run.duct_m + run.outdoor_m, 1),
            unit="m outside",
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
        device = design.of(Device)[run.device]
        if run.verdict in ("met", "near") and _below(catalogue, run, device, RECOMMENDED):
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
