"""Ways to a far place over wires and masts of others: power-line, cellular, satellite."""

from __future__ import annotations

import math
from collections.abc import Iterator

from ..catalogue import RemoteModel, Rules, on_offer
from ..design import FarPoint
from .bill import Bill
from .media import MAST, Draft, Draw, port_for
from .ways import FarCheck, FarDemand, FarSite, Medium, State, Wiring


def power_line(site: FarSite, demand: FarDemand, bill: Bill) -> Draft:
    rules, wiring = site.rules, site.wiring
    share, figure = _wired_share(rules, wiring)
    model = _remote(site, "power_line", demand.mbps, share)
    draft = Draft("power_line", "Power-line adapters", bill, link_w=model.own_w, near_w=model.own_w)
    draft.mbps, draft.delay_ms = model.label_mbps * share, model.delay_ms
    draft.port = port_for(draft.mbps)
    said = f"{model.label_mbps:.0f} Mb/s on the label, {share:.0%} of it promised"
    draft.checks.append(FarCheck(state="met", words=said, used=rules.used(figure)))
    if site.point.power == "own_supply":
        words = "a supply of its own there: adapters want the same consumer unit at both ends"
        draft.checks.append(
            FarCheck(state="out", words=words, would="a circuit from the house's consumer unit")
        )
    elif site.point.power == "socket":
        draft.checks += _wiring_checks(rules, wiring)
    bill.add(model.id)
    bill.work("remote", "adopt", "Plug in and pair adapters, and measure", rules["far.minutes.remote"])
    draft.needs.append("a wall socket at either end, never a surge strip, the rack's or a battery's")
    return draft.judged(demand)


def _wired_share(rules: Rules, wiring: Wiring) -> tuple[float, str]:
    """Return the share of a label that is promised, and the figure that it is."""
    figures = ["far.power_line_share"]
    if wiring.old(rules):
        figures.append("far.power_line_old_share")
    if wiring.here and wiring.there and not wiring.same:
        figures.append("far.power_line_across_share")
    least = min(figures, key=lambda f: rules[f])
    return rules[least], least


def _wiring_checks(rules: Rules, wiring: Wiring) -> Iterator[FarCheck]:
    """Yield what is known of the wires between both sockets: whose panels they hang on, how old they are."""
    tried = "a pair tried there for a day, never through a surge strip"
    if not wiring.there:
        words, would = "not told: which panel its socket hangs on", f"its panel told, or {tried}"
        yield FarCheck(state="near", words=words, would=would)
    elif not wiring.here:
        words = f"its socket hangs on {wiring.there}; no panel is known for one at the rack"
        yield FarCheck(state="near", words=words, would=f"the rack's socket drawn with its panel, or {tried}")
    elif not wiring.same:
        words = f"its socket hangs on {wiring.there}, the rack's on {wiring.here}: little comes across"
        across = rules.used("far.power_line_across_share")
        would = f"a circuit from {wiring.here}, or {tried}"
        yield FarCheck(state="near", words=words, would=would, used=across)
    else:
        yield FarCheck(state="met", words=f"its socket and the rack's hang on {wiring.here}")
    used = rules.used("far.power_line_old_year", "far.power_line_old_share")
    if wiring.built is None:
        would = f"the year of the building, or {tried}"
        yield FarCheck(state="near", words="not told: how old its wiring is", would=would)
    elif wiring.old(rules):
        words = f"the building is of {wiring.built}: its wiring is taken as old"
        yield FarCheck(state="near", words=words, would=tried, used=used)
    else:
        yield FarCheck(state="met", words=f"the building is of {wiring.built}", used=used)


def over_mast(kind: str) -> Draw:
    """Return the way over somebody else's network, cellular or satellite; it stays a network of its own."""

    def draw(site: FarSite, demand: FarDemand, bill: Bill) -> Draft:
        rules = site.rules
        medium: Medium = "cellular" if kind == "cellular" else "satellite"
        share = rules[f"far.{kind}_share"] if kind == "satellite" else _cell_share(rules, site.point)
        model = _remote(site, kind, demand.mbps, share, demand.delay_ms)
        label = "Cellular router" if kind == "cellular" else "Satellite dish"
        draft = Draft(medium, label, bill, link_w=model.own_w, mbps=model.label_mbps * share)
        draft.delay_ms = model.delay_ms
        bill.add(model.id)
        bill.monthly = rules[f"far.monthly.{kind}"]
        bill.upkeep_minutes += rules["far.upkeep_minutes.plan"]
        if kind == "cellular":
            draft.checks += _cell_checks(rules, site.point, demand, share, model.label_mbps)
            bill.work(
                "remote",
                "adopt",
                "Set up a router with its antenna",
                rules["far.minutes.remote"],
                1,
                ("ladder",),
            )
        else:
            high, most_deg = site.horizon_deg, rules["far.open_sky_deg"]
            open_sky = high <= most_deg
            draft.checks.append(
                FarCheck(
                    state="met" if open_sky else "near",
                    words=f"ground or trees stand {high:.0f}° over the horizon, {most_deg:.0f}° at most"
                    if high
                    else "open sky, as far as it is drawn",
                    would="" if open_sky else "a mast, or a place in the open",
                    used=rules.used("far.open_sky_deg"),
                )
            )
            bill.work(
                "remote",
                "mount",
                "Put up a dish and aim it",
                rules["far.minutes.dish"],
                1,
                ("roof", "ladder"),
            )
            draft.hurts.append(MAST)
        draft.needs += ["a plan every month", "it is a second network: nothing there is seen from the house"]
        return draft.judged(demand)

    return draw


def _remote(
    site: FarSite, kind: str, wanted: float, share: float, most_ms: float | None = None
) -> RemoteModel:
    """Return the cheapest of a kind that gives enough soon enough, else the one that gives most."""
    rows = [m for m in on_offer(site.catalogue.remotes) if m.kind == kind]
    soon = [m for m in rows if most_ms is None or m.delay_ms <= most_ms] or rows
    enough = [m for m in soon if m.label_mbps * share >= wanted]
    if enough:
        return min(enough, key=lambda m: (site.prices.each(m.id), m.id))
    return max(soon, key=lambda m: (m.label_mbps, m.id))


def _cell_share(rules: Rules, point: FarPoint) -> float:
    """Return the share of its label that a router carries: by the quality measured, ``log2(1 + S/N)``
    over that of full quality, else the one that is planned with.

    References:
        Shannon's limit for the shape; what a cell leaves to one is practice.
    """
    if point.cell_db is None:
        return rules["far.cellular_share"]
    here, full = (math.log2(1 + 10 ** (db / 10)) for db in (point.cell_db, rules["far.cell_full_db"]))
    return rules["far.cell_share"] * min(1.0, here / full)


def _cell_checks(
    rules: Rules, point: FarPoint, demand: FarDemand, share: float, label_mbps: float
) -> Iterator[FarCheck]:
    """Yield what was measured there against what a router wants, and the month against its plan."""
    higher = "an antenna outdoors, higher, turned to the mast; then measured again"
    if point.cell_dbm is None:
        words = f"level not measured: {share:.0%} of {label_mbps:.0f} Mb/s are planned"
        would = "level and quality measured there, at the height of its antenna"
        if point.cell_db is not None:
            words = "quality was measured there, its level was not"
            would = "its level measured, at the height of its antenna"
        yield FarCheck(state="near", words=words, would=would, used=rules.used("far.cellular_share"))
    else:
        least, sure = rules["far.cell_dbm.least"], rules["far.cell_dbm.sure"]
        level: State = "met" if point.cell_dbm >= sure else "near" if point.cell_dbm >= least else "out"
        yield FarCheck(
            state=level,
            words=f"{point.cell_dbm:.0f} dBm measured there; from {sure:.0f} on it surely holds",
            would="" if level == "met" else higher,
            used=rules.used("far.cell_dbm.least", "far.cell_dbm.sure"),
        )
        if point.cell_db is None:
            words = f"quality not measured: {share:.0%} of {label_mbps:.0f} Mb/s are planned"
            would = "its quality measured, in the evening when the cell is busy"
            yield FarCheck(state="near", words=words, would=would, used=rules.used("far.cellular_share"))
    if point.cell_db is not None:
        yield FarCheck(
            state="met" if point.cell_db >= 0 else "near",
            words=f"{point.cell_db:.0f} dB of quality measured there: {share:.0%} of {label_mbps:.0f} Mb/s",
            would="" if point.cell_db >= 0 else higher,
            used=rules.used("far.cell_share", "far.cell_full_db"),
        )
    cap_gb = rules["far.cell_cap_gb"]
    if cap_gb:
        month_gb = demand.mbps / 8 * 86.4 * 30
        yield FarCheck(
            state="met" if month_gb <= cap_gb else "near",
            words=f"{month_gb:,.0f} GB a month if it runs all day, the plan carries {cap_gb:,.0f}",
            would="" if month_gb <= cap_gb else "a larger plan, or recording kept out there",
            used=rules.used("far.cell_cap_gb"),
        )
