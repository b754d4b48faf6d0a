"""What mends a run of copper that is too long, as far as that takes no search: each by its own cable."""

from __future__ import annotations

import itertools
import math
from collections.abc import Callable, Iterator, Sequence

from shapely.geometry import LineString

from ..base.wording import metres
from ..base.wording import speed as speed_said
from ..catalogue import Catalogue, on_offer
from ..context.findings import Cure
from ..context.run_decisions import run_said
from ..design import Category, Change, Design, Device, Extender, apply, put
from .fibre_cures import run_over_fibre
from .limits import CATEGORIES, check_run, cords_limit_m, heat_limit_m
from .runs import RunVerdict, in_hops, judge_runs

Starves = Callable[[Device, RunVerdict, Sequence[Extender]], bool]


def by_cable(
    design: Design, catalogue: Catalogue, run: RunVerdict, device: Device, starves: Starves
) -> tuple[Cure, ...]:
    if run.medium == "fibre":
        return _nearer(design, catalogue, run, device)
    by_fibre = tuple(run_over_fibre(design, catalogue, run, device))
    first = catalogue.rules.text("cabling.long_run") == "fibre"
    return (
        *(by_fibre if first else ()),
        *_other_category(design, catalogue, run),
        *_extended(design, catalogue, run, device, starves),
        *_nearer(design, catalogue, run, device),
        *_shorter_cords(design, catalogue, run),
        *(() if first else by_fibre),
    )


def _shorter_cords(design: Design, catalogue: Catalogue, run: RunVerdict) -> tuple[Cure, ...]:
    """Offer shorter cords where they are what makes the channel too long."""
    rules = catalogue.rules
    cords_m = math.floor(2 * cords_limit_m(rules, run.fixed_m)) / 2
    if run.fixed_m > heat_limit_m(rules, run.hottest_c):
        return ()
    if not rules["cabling.least_cords_m"] <= cords_m < run.cords_m:
        return ()
    site = design.site.model_copy(update={"cords_m": cords_m})
    if check_run(
        rules, run.category, run.speed_mbps, run.fixed_m, cords_m, run.hottest_c, site.tight_bundles
    ).verdict not in ("met", "near"):
        return ()
    label = f"Plan {metres(cords_m)} of cords in all"
    return (Cure(label=label, effect="at both ends together, on every run", changes=(put(site),)),)


def _other_category(design: Design, catalogue: Catalogue, run: RunVerdict) -> tuple[Cure, ...]:
    """Offer the least category that does carry the speed over this run."""
    site = design.site
    for category in CATEGORIES:
        verdict = check_run(
            catalogue.rules,
            category,
            run.speed_mbps,
            run.fixed_m,
            site.cords_m,
            run.hottest_c,
            site.tight_bundles,
        )
        if verdict.verdict in ("met", "near"):
            label = f"Pull category {category}"
            return (Cure(label=label, effect=verdict.reason, changes=(pulled(design, run, category),)),)
    return ()


def pulled(design: Design, run: RunVerdict, category: Category) -> Change:
    """Return the change that pins a run's category, keeping what else was said of it."""
    return put(run_said(design, run.device).model_copy(update={"category": category}))


def _extended(
    design: Design, catalogue: Catalogue, run: RunVerdict, device: Device, starves: Starves
) -> Iterator[Cure]:
    """Offer the cheapest extenders that mend a run, as few as will do, one for its speed where the
    cheapest is slower."""
    if catalogue.model_of(device).power is None or run.hops:
        return
    offered: set[int] = set()
    for count in range(1, int(catalogue.rules["power.most_extenders"]) + 1):
        for model in sorted(on_offer(catalogue.extenders), key=lambda m: m.price):
            ids = (f"ext-{k}" for k in itertools.count(1) if f"ext-{k}" not in design.of(Extender))
            more = [
                Extender(id=key, device=device.id, model=model.id, share=round((k + 1) / (count + 1), 4))
                for k, key in zip(range(count), ids, strict=False)
            ]
            parted = in_hops(design.site, catalogue, run, more)
            if parted.verdict not in ("met", "near") or model.speed_mbps in offered:
                continue
            if starves(device, parted, more):
                continue
            offered.add(model.speed_mbps)
            speed = min(model.speed_mbps, run.speed_mbps)
            label = f"Put in {model.label}" if count == 1 else f"Put in two of {model.label}"
            pieces = ", ".join(metres(h.length_m) for h in parted.hops)
            effect = (
                f"pieces of {pieces}; {speed_said(speed)} of {speed_said(run.speed_mbps)}, "
                f"{count * model.own_w:g} W for itself; {count * model.price:+g} {design.site.currency}"
            )
            yield Cure(label=label, effect=effect, changes=tuple(put(e) for e in more))
        if offered:
            return


def _nearer(design: Design, catalogue: Catalogue, run: RunVerdict, device: Device) -> tuple[Cure, ...]:
    """Offer to move the device back along the last stretch of its run, if that will do."""
    excess_m = run.fixed_m - run.limit_m
    rules = catalogue.rules
    level = [leg for leg in run.legs if leg.floor == device.floor and len(leg.points) > 1]
    if not level or not 0 < excess_m <= rules["cabling.moved_m"] or run.limit_m == 0:
        return ()
    way = LineString([*level[-1].points[:-1], device.at])
    back_m = excess_m + rules["cabling.move_spare_m"]
    if way.length < back_m:
        return ()
    spot = way.interpolate(way.length - back_m)
    moved = device.model_copy(update={"at": (round(spot.x, 2), round(spot.y, 2))})
    (after,) = judge_runs(apply(design, [put(moved)]), catalogue, moved)
    if after.verdict not in ("met", "near"):
        return ()
    effect = f"{metres(run.fixed_m)} becomes {metres(after.fixed_m)}"
    label = f"Move {device.name} {metres(back_m, 1)} back along its run"
    return (Cure(label=label, effect=effect, changes=(put(moved),)),)
