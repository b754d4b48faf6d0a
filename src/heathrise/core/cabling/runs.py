"""Every run of the design: its route, its length, its category and whether that will do."""

from __future__ import annotations

import itertools
from collections.abc import Sequence

from pydantic import Field

from ..base.memo import IdentityMemo
from ..base.wording import speed as speed_said
from ..catalogue import Catalogue, DeviceModel, Rules
from ..context.fibre_ends import FarEnd, far_ends
from ..context.plugged import begun_at, said_plugged
from ..context.racks import stand_in_racks
from ..context.run_decisions import said_over_air
from ..context.scope import kept_cables
from ..design import Category, Design, Device, Extender, OldCable, Point, Run, Site, WayPoint
from .fibre import choose_fibre
from .limits import CATEGORIES, CableVerdict, check_run, check_tested, hottest_c
from .links import Hop, LinkVerdict, as_fibre, measured, slack_m, weight_of
from .routes import route_to
from .ways import Ways, beginning_at, ways_of

_RANK = {"met": 0, "near": 0, "test_first": 1, "not_met": 2, "no_way": 3}


class RunVerdict(LinkVerdict):
    """One device's cable or cables."""

    device: str
    kind: str
    begins: str = Field("", description="box that it begins at, where that is no rack")
    lit_mbps: int | None = Field(None, description="speed of the converter at its device, where it is fibre")


# One device moved is one run traced anew.
_verdicts: IdentityMemo[RunVerdict] = IdentityMemo(4096, weigh=weight_of)


def judge_runs(design: Design, catalogue: Catalogue, only: Device | None = None) -> list[RunVerdict]:
    """Return a verdict for the run of every device, in order of placing, or of one alone.

    A device goes to the room that was chosen for it, else to the one from which its run does
    best, of equals the nearest.
    """
    said = {run.device: run for run in design.of(Run).values()}
    easy = ways_of(design, catalogue)
    short = ways_of(design, catalogue, shortest=True) if any(r.shortest for r in said.values()) else easy
    kept = kept_cables(design, catalogue.rules) if design.of(OldCable) else {}
    parted: dict[str, list[Extender]] = {}
    for extender in design.of(Extender).values():
        parted.setdefault(extender.device, []).append(extender)

    led: dict[str, list[WayPoint]] = {}
    for point in design.of(WayPoint).values():
        led.setdefault(point.device, []).append(point)

    def verdict(device: Device, held: Run | None, over: Ways | None) -> RunVerdict:
        by = sorted(led.get(device.id, ()), key=lambda p: (p.rank, p.id))
        through = tuple((p.floor, p.at) for p in by)
        end = lit.get(device.id)
        there = tuple(kept.get(device.id, ())) if end is None else ()
        between = tuple(sorted(parted.get(device.id, ()), key=lambda e: e.share))
        return _verdicts.get(
            (design.site, catalogue, over, device, held, *there, *between),
            (len(there), through, end.label if end is not None else ""),
            lambda: in_hops(
                design.site,
                catalogue,
                _judge(design.site, catalogue, over, device, held, there, through, end),
                between,
            ),
        )

    begun = begun_at(design, catalogue)

    def best(device: Device) -> RunVerdict:
        held = said.get(device.id)
        if device.id in begun:
            some = next(iter(easy.values()), None)
            box = design.of(Device)[begun[device.id]]
            found = verdict(device, held, beginning_at(some, box) if some is not None else None)
            return found.model_copy(update={"room": None, "begins": box.id})
        ways = short if held is not None and held.shortest else easy
        pinned = ways.get(held.equipment_room or "") if held is not None else None
        options: list[Ways | None] = [pinned] if pinned is not None else list(ways.values())
        verdicts = [verdict(device, held, over) for over in options or [None]]
        return min(verdicts, key=lambda v: (_RANK[v.verdict], v.fixed_m))

    plugged = said_plugged(design).keys() - begun.keys()
    loose = {*said_over_air(design), *plugged, *stand_in_racks(design, catalogue)}
    lit = {device.id: end for device, end in far_ends(design, catalogue)}
    wired = [
        d for d in design.of(Device).values() if not catalogue.model_of(d).over_air and d.id not in loose
    ]
    return [best(device) for device in ([only] if only else wired)]


def cables_to(site: Site, catalogue: Catalogue, device: Device, said: Run | None) -> int:
    """Return how many cables go to a device: as said, else by the policy for its kind."""
    if said is not None and said.cables is not None:
        return said.cables
    by = {"policy": site.cables_per_access_point, "sockets": catalogue.model_of(device).sockets}
    return by.get(catalogue.role_of(device).cables, 1)


def _judge(
    site: Site,
    catalogue: Catalogue,
    ways: Ways | None,
    device: Device,
    said: Run | None,
    there: tuple[OldCable, ...],
    through: tuple[tuple[str, Point], ...],
    end: FarEnd | None = None,
) -> RunVerdict:
    model = catalogue.model_of(device)
    route = route_to(ways, device, through) if ways is not None else None
    pinned = said.category if said is not None else None
    if there and there[0].category is not None:
        pinned = there[0].category  # it lies in the wall already
    common = {
        "id": f"run-{device.id}",
        "device": device.id,
        "name": device.name,
        "room": ways.room.id if ways is not None else None,
        "floor": device.floor,
        "kind": device.kind,
        "cables": len(there) or cables_to(site, catalogue, device, said),
        "speed_mbps": model.speed_mbps,
        "chosen_by": "found" if there else "person" if pinned else "plan",
        "cords_m": site.cords_m,
    }
    if route is None:
        category = pinned or site.minimum_category
        reason = "no equipment room is placed" if ways is None else "no way leads there"
        if ways is not None and through and route_to(ways, device) is not None:
            reason = "no way leads there through the points that it is pinned to"
        return RunVerdict(category=category, verdict="no_way", reason=reason, **common)
    rules = catalogue.rules
    spare_m = slack_m(site) + shift_spare_m(rules, model)
    lengths = measured(site, route, spare_m, rules, device.mount == "pole")
    if there:
        lengths["bought_m"] = 0.0
    fixed = round(route.route_m + spare_m, 1)
    if end is not None:
        return RunVerdict.model_validate({**common, **lengths, **_lit(catalogue, model, fixed, end)})
    space, heat = hottest_c(rules, route.spaces_m)
    wants = asked_category(rules, model)
    category, verdict = choose_category(site, rules, model.speed_mbps, fixed, (space, heat), pinned, wants)
    tested, verdict = by_test(there, model.speed_mbps, fixed, verdict)
    return RunVerdict(
        tested_mbps=tested,
        category=category,
        verdict=verdict.verdict,
        reason=verdict.reason,
        figures=verdict.figures,
        limit_m=verdict.limit_m,
        hottest_space=space,
        hottest_c=heat,
        **lengths,
        **common,
    )


def _lit(catalogue: Catalogue, model: DeviceModel, fixed_m: float, end: FarEnd) -> dict[str, object]:
    """Return what a run of fibre is; light runs at the speed of its converters, whatever is asked."""
    speed = end.converter.speed_mbps
    found = as_fibre(choose_fibre(catalogue, speed, fixed_m))
    if speed < model.speed_mbps and found["verdict"] == "met":
        said = f"it asks for {speed_said(model.speed_mbps)}, its converter passes {speed_said(speed)}"
        found |= {"verdict": "near", "reason": f"{found['reason']}; {said}"}
    return {**found, "lit_mbps": speed, "chosen_by": "person"}


def shift_spare_m(rules: Rules, model: DeviceModel) -> float:
    """Return the cable in m that is left at a device beyond its slack: 6 GHz reaches less far, so an
    access point that has it may have to be shifted, or another set beside it."""
    return rules["cabling.shift_spare_m"] if model.air is not None and "6" in model.air.radios else 0.0


def by_test(
    there: Sequence[OldCable], speed_mbps: int, fixed_m: float, by_print: CableVerdict
) -> tuple[int | None, CableVerdict]:
    """Return the speed in Mb/s that all cables that lie there were tested at, and the verdict by it; None
    and the one by their print where one was not."""
    tests = [cable.tested_mbps for cable in there]
    tested = min((t for t in tests if t is not None), default=None)
    if tested is None or None in tests:
        return None, by_print
    return tested, check_tested(tested, speed_mbps, fixed_m)


def in_hops(site: Site, catalogue: Catalogue, run: RunVerdict, extenders: Sequence[Extender]) -> RunVerdict:
    """Return a run as extenders part it: each piece has the length of a run of its own, and the slowest
    extender's speed is that of all. A run without any, without a way, or of fibre, is returned as it is."""
    if not extenders or run.verdict == "no_way" or run.medium == "fibre":
        return run
    rules = catalogue.rules
    speed = min(run.speed_mbps, *(catalogue.extenders[e.model].speed_mbps for e in extenders))
    shares = [0.0, *(e.share for e in extenders), 1.0]
    hops: list[Hop] = []
    worst: tuple[int, CableVerdict] | None = None
    for number, (start, end) in enumerate(itertools.pairwise(shares)):
        length = round((end - start) * run.fixed_m, 1)
        cords = site.cords_m / 2 * ((number == 0) + (number == len(extenders)))
        found = check_run(
            rules, run.category, speed, length, cords, run.hottest_c, site.tight_bundles, run.hottest_space
        )
        far = extenders[number].id if number < len(extenders) else None
        hops.append(Hop(length_m=length, limit_m=found.limit_m, speed_mbps=speed, extender=far))
        if worst is None or _RANK[found.verdict] > worst[0]:
            worst = _RANK[found.verdict], found
    assert worst is not None
    verdict, most = worst[1], int(rules["power.most_extenders"])
    said = f"{len(hops)} pieces between extenders; the one that binds {verdict.reason}"
    word, figures = verdict.verdict, verdict.figures
    if len(extenders) > most:
        word, figures = "not_met", ("power.most_extenders",)
        said = f"{len(extenders)} extenders one behind the other, {most} at most"
    elif word == "met" and speed < run.speed_mbps:
        word, said = "near", f"{said}; it asks for {speed_said(run.speed_mbps)} and gets {speed_said(speed)}"
    return run.model_copy(
        update={
            "hops": tuple(hops),
            "verdict": word,
            "reason": said,
            "figures": figures,
            "limit_m": round(sum(h.limit_m for h in hops), 1),
        }
    )


def carried_mbps(site: Site, rules: Rules, run: RunVerdict) -> int:
    """Return the fastest speed up to the one asked that a run carries at its length; 0 where it carries
    none. What must be tested first is not counted on."""
    if run.lit_mbps is not None:
        return min(run.lit_mbps, run.speed_mbps) if run.verdict in ("met", "near") else 0
    if run.hops:
        return run.hops[0].speed_mbps if run.verdict in ("met", "near") else 0
    if run.tested_mbps is not None:
        return min(run.tested_mbps, run.speed_mbps)
    for speed in sorted((int(s) for s in rules.table(f"cabling.channel_m.{run.category}")), reverse=True):
        asked = min(speed, run.speed_mbps)
        found = check_run(
            rules, run.category, asked, run.fixed_m, run.cords_m, run.hottest_c, site.tight_bundles
        )
        if found.verdict in ("met", "near"):
            return asked
    return 0


def asked_category(
    rules: Rules, model: DeviceModel, table: str = "cabling.required_category"
) -> Category | None:
    """Return the category that a table has for an access point's generation, whatever its speed."""
    if model.air is None:
        return None
    return rules.words(table).get(model.air.generation)  # type: ignore[return-value]


def choose_category(
    site: Site,
    rules: Rules,
    speed_mbps: int,
    fixed_m: float,
    hottest: tuple[str, float],
    pinned: Category | None,
    wants: Category | None = None,
) -> tuple[Category, CableVerdict]:
    """Return the pinned category, or the least from the site's minimum up that carries the speed.

    Where none does, the one that comes nearest is returned with its verdict.

    Args:
        hottest: the hottest kind of space and its temperature in C.
        wants: the category that the device's generation asks for, whatever the length.
    """

    def judge(category: Category) -> CableVerdict:
        found = check_run(
            rules, category, speed_mbps, fixed_m, site.cords_m, hottest[1], site.tight_bundles, hottest[0]
        )
        short = wants is not None and CATEGORIES.index(category) < CATEGORIES.index(wants)
        if short and found.verdict == "met":
            why = f"{found.reason}, but its generation asks for category {wants}"
            path = "cabling.required_category"
            return CableVerdict("near", found.limit_m, why, (path,))
        return found

    if pinned is not None:
        return pinned, judge(pinned)
    least = max(CATEGORIES.index(c) for c in (site.minimum_category, wants or "5"))
    options = CATEGORIES[least:]
    judged = [(c, judge(c)) for c in options]
    return min(judged, key=lambda row: (_RANK[row[1].verdict], options.index(row[0])))
