"""Ways to a far place over the air: a repeater, a mesh node, a radio from point to point."""

from __future__ import annotations

from collections.abc import Iterator

from ..catalogue import BridgeModel, on_offer
from .bill import Bill
from .media import LIGHTNING, MAST, Draft, Draw, hang_node, node_model, port_for
from .radio_link import Budget, LinkBand, Weather, budget_of
from .ways import FarCheck, FarDemand, FarSite, LineRate, LineWeather, Medium

_YEAR_MINUTES = 525_960
_TAIL_M = 5.0  # of cable from a mast's foot to what feeds it


def repeater(site: FarSite, demand: FarDemand, bill: Bill) -> Draft:
    rules = site.rules
    draft = Draft("repeater", "Repeater in the house", bill, serves=True)
    least, heard = rules["far.repeater_dbm"], site.node.level_dbm
    draft.delay_ms, draft.air = rules["far.delay_ms.repeater"], 1 - rules["far.repeater_share"]
    draft.mbps = site.node.mbps * rules["far.repeater_share"] if heard >= least else 0.0
    reached = heard >= least
    draft.checks.append(
        FarCheck(
            state="met" if reached else "out",
            words=f"{heard:.0f} dBm arrive out there, {least:.0f} at least are wanted",
            would="" if reached else "an access point outdoors, on the wall that faces it",
            used=rules.used("far.repeater_dbm", "far.outer_wall_db"),
        )
    )
    draft.bill.add(node_model(site.prices))
    draft.bill.work("node", "mount", "Hang and set up a repeater", rules["far.minutes.node"])
    draft.near_w = rules["far.draw_w.access_point"]
    draft.needs.append("the repeater where it still hears the house well")
    if reached:
        taken = 1 - rules["far.repeater_share"]
        words = f"a last resort: {taken:.0%} of its channel's air is gone for the house, too"
        would = "any way with a back-haul of its own"
        draft.checks.append(
            FarCheck(state="near", words=words, would=would, used=rules.used("far.repeater_share"))
        )
    if demand.gear_w > demand.node_w:
        draft.needs.append("what stands there has to be on the air itself")
    return draft.judged(demand)


def mesh(site: FarSite, demand: FarDemand, bill: Bill) -> Draft:
    rules = site.rules
    draft = Draft("mesh", "Mesh node", bill, serves=True, link_w=rules["far.draw_w.access_point"])
    least, heard = rules["far.repeater_dbm"], site.node.level_dbm
    draft.delay_ms, draft.air = rules["far.delay_ms.mesh"], 0.5
    draft.mbps = site.node.mbps / 2 if heard >= least else 0.0  # a relay sends each bit twice
    draft.checks.append(
        FarCheck(
            state="met" if heard >= least else "out",
            words=f"its node hears the house with {heard:.0f} dBm, {least:.0f} at least are wanted",
            would="" if heard >= least else "a node between, or a radio's line",
            used=rules.used("far.repeater_dbm", "far.outer_wall_db"),
        )
    )
    hang_node(draft.bill)
    draft.needs.append("power there; one hop, on the channel of the house")
    return draft.judged(demand)


def radio(band: LinkBand) -> Draw:
    """Return the way over a radio's line on a band: the cheapest that gives enough, else what gives most."""

    def draw(site: FarSite, demand: FarDemand, bill: Bill) -> Draft:
        rules, point, sight = site.rules, site.point, site.sights[band]
        medium: Medium = "radio_5" if band == "5" else "radio_60"
        draft = Draft(medium, f"Radio from point to point, {band} GHz", bill)
        model, budget = _radio(site, band, demand.mbps)
        level, margin, mbps, capped = budget.level_dbm, budget.margin_db, budget.mbps, budget.capped
        draft.level_dbm = round(level + budget.rain_db, 1)
        draft.weather = tuple(_weathers(site, model))
        margin_db = rules["far.margin_db"]
        draft.rates = tuple(LineRate(from_dbm=least + margin_db, mbps=m) for least, m in sorted(model.rates))
        draft.mbps, draft.delay_ms = mbps, rules[f"far.delay_ms.{medium}"]
        draft.link_w = draft.near_w = model.own_w
        tail = point.room_mast_m + _TAIL_M
        fed = {"poe_class": model.poe_class, "watts": model.own_w, "pieces_m": (tail,)}
        draft.port = port_for(mbps).model_copy(update=fed)
        draft.air = min(1.0, demand.mbps / mbps) if band == "5" and mbps else (1.0 if band == "5" else None)
        masts = sight.masts_m
        draft.checks.append(
            FarCheck(
                state={"clear": "met", "near": "near", "blocked": "near" if masts else "out"}[sight.verdict],
                words=sight.why,
                would=""
                if sight.verdict == "clear"
                else f"masts of {masts[0]:g}\u00a0m at the house and {masts[1]:g}\u00a0m there"
                if masts
                else "no mast up to 30\u00a0m clears it: a place between",
                used=sight.used,
            )
        )
        held = f"{level:.0f} dBm in the worst rain of 0.01 % of a year, {margin:.0f} dB over the slowest rate"
        draft.checks.append(
            FarCheck(
                state="met" if mbps else "out",
                words=held + ("; sent with less, for the EIRP allowed" if capped else ""),
                would="" if mbps else "a larger dish, or a shorter line",
                used=rules.used("far.margin_db", "far.rain_mm_h", f"far.link_eirp_dbm.{site.domain}.{band}"),
            )
        )
        draft.bill.add(model.id, 2)
        for height in (point.room_mast_m, point.mast_m):
            draft.bill.mast(height)
            draft.bill.add("outdoor-kit")
            draft.bill.add("surge")
        draft.bill.add("cut-outdoor", point.room_mast_m + point.mast_m + 2 * _TAIL_M)
        aimed = 2 * rules["far.minutes.align"]
        draft.bill.work(
            "aim",
            "adopt",
            "Aim both ends, each at its bearing, until the level is there",
            aimed,
            1,
            ("roof", "ladder"),
        )
        draft.bill.upkeep_minutes += 2 * rules["far.upkeep_minutes.radio"]
        draft.port_need = f"a port of class {model.poe_class} free at the rack"
        draft.needs += [
            f"masts of {point.room_mast_m:g}\u00a0m and {point.mast_m:g}\u00a0m",
            "a channel out of the plan's air" if band == "5" else "a clear line that stays clear",
        ]
        draft.hurts += [MAST, LIGHTNING]
        return draft.judged(demand)

    return draw


def _weathers(site: FarSite, model: BridgeModel) -> Iterator[LineWeather]:
    """Yield the line in clear weather, then in rain that comes ever more rarely."""
    rules, km = site.rules, site.length_m / 1000
    leaves = site.sights[model.band].leaves_m
    shares = sorted(rules.numbers("far.rain_percents"), reverse=True)
    for percent in (0.0, *shares):
        weather = Weather(rules["far.rain_mm_h"], percent) if percent else Weather(0.0)
        budget = budget_of(rules, site.domain, model, model, km, weather, leaves)
        yield LineWeather(
            percent=percent,
            minutes=round(_YEAR_MINUTES * percent / 100),
            rain_db=round(budget.rain_db, 1),
            level_dbm=round(budget.level_dbm, 1),
            over_db=round(budget.margin_db, 1),
            mbps=budget.mbps,
        )


def _radio(site: FarSite, band: LinkBand, wanted: float) -> tuple[BridgeModel, Budget]:
    """Return the model for a line and its budget in rain: the cheapest fast enough, else the fastest."""
    rules, sight = site.rules, site.sights[band]
    weather = Weather(rules["far.rain_mm_h"])
    rows = []
    for model in on_offer(site.catalogue.bridges):
        if model.band == band:
            km = site.length_m / 1000
            budget = budget_of(rules, site.domain, model, model, km, weather, sight.leaves_m)
            rows.append((model, budget))
    enough = [r for r in rows if r[1].mbps >= wanted]
    if enough:
        return min(enough, key=lambda r: (site.prices.each(r[0].id), r[0].id))
    return max(rows, key=lambda r: (r[1].mbps, r[1].margin_db, r[0].id))
