"""Every run of the design: its route, its length, its category and whether that will do."""

from __future__ import annotations

from typing import Literal

from pydantic import BaseModel, ConfigDict

from ..catalogue import Catalogue, DeviceModel, Rules
from ..design import Category, Design, Device, Run, Site
from ..memo import IdentityMemo
from .limits import CATEGORIES, CableVerdict, check_run, hottest_c
from .routes import Leg, route_to
from .ways import Ways, ways_of

_RANK = {"met": 0, "near": 0, "test_first": 1, "not_met": 2}


class RunVerdict(BaseModel):
    """One device's cable or cables. Lengths in m, of one cable; temperature in C."""

    model_config = ConfigDict(frozen=True)

    id: str
    device: str
    name: str
    floor: str
    kind: str
    category: Category
    chosen_by: Literal["plan", "person"]
    cables: int
    speed_mbps: int
    verdict: Literal["met", "near", "test_first", "not_met", "no_way"]
    reason: str
    figures: tuple[str, ...] = ()
    limit_m: float = 0.0
    fixed_m: float = 0.0
    horizontal_m: float = 0.0
    rise_m: float = 0.0
    drop_m: float = 0.0
    duct_m: float = 0.0
    outdoor_m: float = 0.0
    slack_m: float = 0.0
    bought_m: float = 0.0
    cords_m: float = 0.0
    hottest_space: str = "room"
    hottest_c: float = 22.0
    between_buildings: bool = False
    legs: tuple[Leg, ...] = ()

    @property
    def total_m(self) -> float:
        """Length of all its cables together, as installed."""
        return self.fixed_m * self.cables


# One device moved is one run traced anew.
_verdicts: IdentityMemo[RunVerdict] = IdentityMemo(1024)


def judge_runs(design: Design, catalogue: Catalogue) -> list[RunVerdict]:
    """Return a verdict for the run of every wired device, in order of placing."""
    ways = ways_of(design, catalogue)
    said = {run.device: run for run in design.of(Run).values()}

    def verdict(device: Device) -> RunVerdict:
        held = said.get(device.id)
        return _verdicts.get(
            (design.site, catalogue, ways, device, held),
            None,
            lambda: _judge(design.site, catalogue, ways, device, held),
        )

    return [verdict(device) for device in design.of(Device).values()]


def cables_to(site: Site, catalogue: Catalogue, device: Device, said: Run | None) -> int:
    """Return how many cables go to a device: as said, else by the policy for its kind."""
    if said is not None and said.cables is not None:
        return said.cables
    by = {"policy": site.cables_per_access_point, "sockets": catalogue.model_of(device).sockets}
    return by.get(catalogue.role_of(device).cables, 1)


def _judge(
    site: Site, catalogue: Catalogue, ways: Ways, device: Device, said: Run | None
) -> RunVerdict:
    model = catalogue.model_of(device)
    route = route_to(ways, device)
    pinned = said.category if said is not None else None
    common = {
        "id": f"run-{device.id}",
        "device": device.id,
        "name": device.name,
        "floor": device.floor,
        "kind": device.kind,
        "cables": cables_to(site, catalogue, device, said),
        "speed_mbps": model.speed_mbps,
        "chosen_by": "person" if pinned else "plan",
        "cords_m": site.cords_m,
    }
    if route is None:
        category = pinned or site.minimum_category
        reason = "no equipment room is placed" if ways.room is None else "no way leads there"
        return RunVerdict(category=category, verdict="no_way", reason=reason, **common)
    slack = site.slack_device_m + site.slack_rack_m
    fixed = round(route.route_m + slack, 1)
    rules = catalogue.rules
    space, heat = hottest_c(rules, route.spaces_m)
    wants = asked_category(rules, model)
    category, verdict = choose_category(
        site, rules, model.speed_mbps, fixed, (space, heat), pinned, wants
    )
    return RunVerdict(
        category=category,
        verdict=verdict.verdict,
        reason=verdict.reason,
        figures=verdict.figures,
        limit_m=verdict.limit_m,
        fixed_m=fixed,
        horizontal_m=round(route.horizontal_m, 1),
        rise_m=round(route.rise_m, 1),
        drop_m=round(route.drop_m, 1),
        duct_m=round(route.duct_m, 1),
        outdoor_m=round(route.outdoor_m, 1),
        slack_m=slack,
        bought_m=round(fixed * (1 + rules["cabling.waste_share"]), 1),
        hottest_space=space,
        hottest_c=heat,
        between_buildings=route.between_buildings,
        legs=route.legs,
        **common,
    )


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
            rules, category, speed_mbps, fixed_m, site.cords_m, hottest[1], site.tight_bundles,
            hottest[0],
        )  # fmt: skip
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
