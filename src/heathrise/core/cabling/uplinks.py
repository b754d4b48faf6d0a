"""The ways between racks: which room leads up to which, over what, and whether that will do."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence

from ..base.memo import IdentityMemo
from ..catalogue import Catalogue
from ..context.racks import leads_up
from ..context.scope import kept_between
from ..design import Design, EquipmentRoom, Medium, OldCable, Site, Uplink
from .fibre import choose_fibre
from .limits import hottest_c
from .links import LinkVerdict, as_fibre, measured, slack_m, weight_of
from .routes import RackEnd, route_to
from .runs import by_test, choose_category
from .ways import Ways, ways_of


class UplinkVerdict(LinkVerdict):
    """The way from a room (``room``) up to another (``to_room``)."""

    to_room: str


class BesideVerdict(LinkVerdict):
    """Copper that is pulled beside the fibre from a room (``room``) to another (``to_room``): kept for
    what has no optic, and for the day on which the fibre breaks."""

    to_room: str


def judge_beside(
    design: Design, catalogue: Catalogue, uplinks: Sequence[UplinkVerdict]
) -> Iterator[BesideVerdict]:
    """Yield the copper beside each new fibre that stays in its building and is short enough for it."""
    rules, site = catalogue.rules, design.site
    cables = int(rules["cabling.beside_fibre"])
    for up in uplinks:
        fresh = up.medium == "fibre" and up.verdict != "no_way" and up.chosen_by != "found"
        if not fresh or up.leaves or not cables:
            continue
        speed = int(rules["cabling.found_mbps"])
        hottest = (up.hottest_space, up.hottest_c)
        category, verdict = choose_category(site, rules, speed, up.fixed_m, hottest, None)
        if verdict.verdict not in ("met", "near"):
            continue  # too far for copper
        same = {name: getattr(up, name) for name in LinkVerdict.model_fields}
        yield BesideVerdict.model_validate(
            {
                **same,
                "id": f"beside-{up.room}",
                "name": f"{up.name}, beside the fibre",
                "to_room": up.to_room,
                "medium": "copper",
                "category": category,
                "chosen_by": "plan",
                "cables": cables,
                "speed_mbps": speed,
                "verdict": verdict.verdict,
                "reason": verdict.reason,
                "figures": verdict.figures,
                "limit_m": verdict.limit_m,
                "fibre": None,
            }
        )


_verdicts: IdentityMemo[UplinkVerdict] = IdentityMemo(256, weigh=weight_of)


def judge_uplinks(design: Design, catalogue: Catalogue) -> list[UplinkVerdict]:
    """Return a verdict for the way up of each room but the top one."""
    ways, rooms = ways_of(design, catalogue), design.of(EquipmentRoom)
    said = {u.room: u for u in design.of(Uplink).values()}
    kept = kept_between(design, catalogue.rules)
    found: list[UplinkVerdict] = []
    for lower, upper in leads_up(design).items():
        there = tuple(kept.get(frozenset((lower, upper)), ()))
        parts = (design.site, catalogue, ways[upper], rooms[lower], said.get(lower), *there)

        def work_out(
            lower: str = lower, upper: str = upper, there: tuple[OldCable, ...] = there
        ) -> UplinkVerdict:
            return _judge(design.site, catalogue, ways[upper], rooms[lower], said.get(lower), there)

        found.append(_verdicts.get(parts, None, work_out))
    return found


def _judge(
    site: Site,
    catalogue: Catalogue,
    ways: Ways,
    room: EquipmentRoom,
    said: Uplink | None,
    there: tuple[OldCable, ...] = (),
) -> UplinkVerdict:
    rules = catalogue.rules
    route = route_to(ways, RackEnd.of(room))
    pinned = said.medium if said is not None else None
    common: dict[str, object] = {
        "id": f"up-{room.id}",
        "name": f"{room.name} to {ways.room.name}",
        "room": room.id,
        "to_room": ways.room.id,
        "floor": room.floor,
        "chosen_by": "person" if pinned else "plan",
        "speed_mbps": int(rules["cabling.uplink_mbps"]),
        "cords_m": site.cords_m,
    }
    if route is None:
        no_way = {"category": site.minimum_category, "cables": 0, "verdict": "no_way"}
        reason = f"no way leads there from {ways.room.name}"
        return UplinkVerdict.model_validate({**common, **no_way, "reason": reason})
    space, heat = hottest_c(rules, route.spaces_m)
    kept = slack_m(site, between_racks=True)
    common |= measured(site, route, kept, rules)
    common |= {"hottest_space": space, "hottest_c": heat}
    fixed = round(route.route_m + kept, 1)
    copper = _over_copper(site, catalogue, fixed, (space, heat), common)
    if there and pinned != "fibre":
        return _over_found(site, catalogue, fixed, (space, heat), copper, there)
    medium = pinned or _medium(copper)
    return copper if medium == "copper" else _over_fibre(catalogue, fixed, common)


def _medium(copper: UplinkVerdict) -> Medium:
    """Copper within a building where it will do, fibre between buildings and beyond its reach."""
    return "fibre" if copper.leaves or copper.verdict not in ("met", "near") else "copper"


def _over_copper(
    site: Site, catalogue: Catalogue, fixed_m: float, hottest: tuple[str, float], common: Mapping[str, object]
) -> UplinkVerdict:
    speed = int(catalogue.rules["cabling.uplink_mbps"])
    category, verdict = choose_category(site, catalogue.rules, speed, fixed_m, hottest, None)
    return UplinkVerdict.model_validate(
        {
            **common,
            "category": category,
            "cables": int(catalogue.rules["cabling.uplink_cables"]),
            "verdict": verdict.verdict,
            "reason": verdict.reason,
            "figures": verdict.figures,
            "limit_m": verdict.limit_m,
        }
    )


def _over_found(
    site: Site,
    catalogue: Catalogue,
    fixed_m: float,
    hottest: tuple[str, float],
    copper: UplinkVerdict,
    there: Sequence[OldCable],
) -> UplinkVerdict:
    """Return the verdict over cable that lies there: by its test, else by its print."""
    speed = int(catalogue.rules["cabling.found_mbps"])
    pinned = there[0].category or site.minimum_category
    category, verdict = choose_category(site, catalogue.rules, speed, fixed_m, hottest, pinned)
    tested, verdict = by_test(there, speed, fixed_m, verdict)
    return copper.model_copy(
        update={
            "category": category,
            "speed_mbps": speed,
            "chosen_by": "found",
            "cables": len(there),
            "bought_m": 0.0,
            "verdict": verdict.verdict,
            "reason": verdict.reason,
            "figures": verdict.figures,
            "limit_m": verdict.limit_m,
            "tested_mbps": tested,
        }
    )


def _over_fibre(catalogue: Catalogue, fixed_m: float, common: Mapping[str, object]) -> UplinkVerdict:
    chosen = choose_fibre(catalogue, int(catalogue.rules["cabling.uplink_mbps"]), fixed_m)
    return UplinkVerdict.model_validate({**common, **as_fibre(chosen)})
