"""Ways to a far place over wires and masts of others: power-line, cellular, satellite."""

from __future__ import annotations

from ..catalogue import RemoteModel, on_offer
from .bill import Bill
from .media import MAST, Draft, Draw, port_for
from .ways import FarCheck, FarDemand, FarSite, Medium

_OPEN_SKY_DEG = 25.0


def power_line(site: FarSite, demand: FarDemand, bill: Bill) -> Draft:
    rules = site.rules
    model = _remote(site, "power_line", demand.mbps, rules["far.power_line_share"])
    draft = Draft("power_line", "Power-line adapters", bill, link_w=model.own_w, near_w=model.own_w)
    draft.mbps, draft.delay_ms = model.label_mbps * rules["far.power_line_share"], model.delay_ms
    draft.port = port_for(draft.mbps)
    said = f"{model.label_mbps:.0f} Mb/s on the label, {rules['far.power_line_share']:.0%} of it promised"
    draft.checks.append(FarCheck(state="met", words=said, used=rules.used("far.power_line_share")))
    if site.point.power == "own_supply":
        words = "a supply of its own there: adapters want the same consumer unit at both ends"
        draft.checks.append(
            FarCheck(state="out", words=words, would="a circuit from the house's consumer unit")
        )
    elif site.point.power == "socket":
        draft.checks.append(
            FarCheck(
                state="near",
                words="not told: whether its socket hangs on the house's supply, how old its wiring is",
                would="a pair tried there for a day, never through a surge strip",
            )
        )
    bill.add(model.id)
    bill.work("remote", "adopt", "Plug in and pair adapters, and measure", rules["far.minutes.remote"])
    draft.needs.append("one consumer unit, sound wiring, no surge strip")
    return draft.judged(demand)


def over_mast(kind: str) -> Draw:
    """Return the way over somebody else's network, cellular or satellite; it stays a network of its own."""

    def draw(site: FarSite, demand: FarDemand, bill: Bill) -> Draft:
        rules = site.rules
        medium: Medium = "cellular" if kind == "cellular" else "satellite"
        share = rules[f"far.{kind}_share"]
        model = _remote(site, kind, demand.mbps, share, demand.delay_ms)
        label = "Cellular router" if kind == "cellular" else "Satellite dish"
        draft = Draft(medium, label, bill, link_w=model.own_w, mbps=model.label_mbps * share)
        draft.delay_ms = model.delay_ms
        bill.add(model.id)
        bill.monthly = rules[f"far.monthly.{kind}"]
        bill.upkeep_minutes += rules["far.upkeep_minutes.plan"]
        if kind == "cellular":
            words = f"planned, not measured: {share:.0%} of {model.label_mbps:.0f} Mb/s"
            would = "level and quality measured there, at the height of its antenna"
            draft.checks.append(
                FarCheck(state="near", words=words, would=would, used=rules.used("far.cellular_share"))
            )
            bill.work(
                "remote",
                "adopt",
                "Set up a router with its antenna",
                rules["far.minutes.remote"],
                1,
                ("ladder",),
            )
        else:
            high = site.trees_deg
            open_sky = high <= _OPEN_SKY_DEG
            draft.checks.append(
                FarCheck(
                    state="met" if open_sky else "near",
                    words=f"trees stand {high:.0f}° over the horizon, {_OPEN_SKY_DEG:.0f}° at most"
                    if high
                    else "open sky, as far as it is drawn",
                    would="" if open_sky else "a mast, or a place in the open",
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
