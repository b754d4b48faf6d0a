"""Ways to a far place in the ground: copper, with extenders or a switch part-way, and fibre."""

from __future__ import annotations

from ..base.wording import metres
from ..catalogue import on_offer
from .bill import DIGS, Bill
from .media import EARTHS, LASER, LIGHTNING, MAINS, TRENCH, Draft, Draw, port_for
from .ways import FarCheck, FarDemand, FarSite


def copper(site: FarSite, demand: FarDemand, bill: Bill) -> Draft:
    draft = Draft("copper", "Copper in the ground", bill, hops_m=(site.laid_m,))
    draft.mbps, draft.delay_ms = 1000.0, site.rules["far.delay_ms.copper"]
    over = site.laid_m - site.channel_m
    draft.checks.append(
        FarCheck(
            state="met" if over <= 0 else "out",
            words=f"{metres(site.laid_m, 0)} of {metres(site.channel_m, 0)} that a channel may have",
            would="" if over <= 0 else "an extender, or fibre",
        )
    )
    return _buried_copper(site, draft).judged(demand)


def extended(count: int) -> Draw:
    """Return copper with so many extenders, in pieces of one length."""

    def draw(site: FarSite, demand: FarDemand, bill: Bill) -> Draft:
        rules = site.rules
        label = "Copper with an extender" if count == 1 else f"Copper with {count} extenders"
        draft = Draft("extender" if count == 1 else "extenders", label, bill)
        piece = site.laid_m / (count + 1)
        draft.hops_m = (piece,) * (count + 1)
        draft.joints = count
        offered = sorted(on_offer(site.catalogue.extenders), key=lambda e: (site.prices.each(e.id), e.id))
        fast = [e for e in offered if e.speed_mbps >= demand.mbps] or offered
        # The cheapest that passes on the power as well, where one does.
        draft.extender = next((e for e in fast if site.feeds(demand.gear_w, draft.hops_m, e).runs), fast[0])
        draft.mbps = float(draft.extender.speed_mbps)
        draft.delay_ms = rules["far.delay_ms.copper"] + count * rules["far.delay_ms.extender"]
        over = piece > site.channel_m
        most = int(rules["far.most_extenders"])
        state = "out" if over or count > most else "met"
        draft.checks.append(
            FarCheck(
                state=state,
                words=f"pieces of {metres(piece, 0)}, {metres(site.channel_m, 0)} at most, "
                f"{most} extenders at most",
                would="" if state == "met" else "fibre",
                used=rules.used("far.most_extenders"),
            )
        )
        draft.bill.add(draft.extender.id, count)
        draft.bill.add("joint-box", count)
        draft.bill.work(
            "joint",
            "mount",
            "Set extenders in dry joints that can be reached",
            count * rules["far.minutes.joint"],
            count,
        )
        draft.needs.append(
            "a dry joint that can be reached" if count == 1 else "dry joints that can be reached"
        )
        return _buried_copper(site, draft).judged(demand)

    return draw


def switch_between(site: FarSite, demand: FarDemand, bill: Bill) -> Draft:
    rules = site.rules
    draft = Draft("switch", "Copper, a switch part-way", bill)
    piece = site.laid_m / 2
    draft.hops_m = (piece,)  # what is fed out there is fed from the cabinet
    draft.joints = 1
    draft.mbps = 1000.0
    draft.delay_ms = 2 * rules["far.delay_ms.copper"] + rules["far.delay_ms.switch"]
    draft.checks.append(
        FarCheck(
            state="met" if piece <= site.channel_m else "out",
            words=f"two pieces of {metres(piece, 0)}, {metres(site.channel_m, 0)} at most",
            would="" if piece <= site.channel_m else "fibre",
        )
    )
    draft.checks.append(
        FarCheck(
            state="near",
            words=f"mains is wanted in a cabinet {metres(piece, 0)} along",
            would="a supply there by a licensed electrician; it is not priced",
        )
    )
    switches = sorted(on_offer(site.catalogue.switches), key=lambda s: (site.prices.each(s.id), s.id))
    draft.bill.add(next((s.id for s in switches if s.budget_w > demand.gear_w), switches[-1].id))
    draft.bill.add("field-cabinet")
    draft.bill.work(
        "cabinet", "mount", "Set up a cabinet with its switch", rules["far.minutes.cabinet"], 1, ("mains",)
    )
    draft.needs.append("a cabinet with mains part-way")
    draft.licensed.append(MAINS)
    return _buried_copper(site, draft).judged(demand)


def _buried_copper(site: FarSite, draft: Draft) -> Draft:
    rules, bill = site.rules, draft.bill
    draft.port = port_for(draft.mbps)
    if not _ground(site, draft):
        return draft
    pieces = max(1, len(draft.hops_m)) + (draft.medium == "switch")
    bill.add("cut-ground", site.laid_m)
    bill.add("surge", 2)
    bill.add("jack", 2 * pieces)
    pulled = site.laid_m * rules["order.pull_minutes.duct"]
    bill.work("pull", "pull", f"Pull {metres(site.laid_m, 0)} through its duct", pulled, site.laid_m)
    bill.work("end", "ends", "End and label each piece", 2 * pieces * rules["order.end_minutes"], 2 * pieces)
    bill.work("test", "test", "Test and record each piece", pieces * rules["order.test_minutes"], pieces)
    draft.needs.append("a port free at the rack")
    draft.hurts += [LIGHTNING, EARTHS]
    if site.point.power == "own_supply":
        draft.checks.append(
            FarCheck(
                state="near",
                words="copper would join the earths of two supplies",
                would="fibre in the same trench keeps them apart",
            )
        )
    return draft


def fibre(site: FarSite, demand: FarDemand, bill: Bill) -> Draft:
    rules, prices = site.rules, site.prices
    draft = Draft("fibre", "Fibre", bill)
    most = rules["far.fibre_most_m"]
    draft.checks.append(
        FarCheck(
            state="met" if site.laid_m <= most else "out",
            words=f"{metres(site.laid_m, 0)} laid, {most / 1000:g}\u00a0km at most",
            used=rules.used("far.fibre_most_m"),
        )
    )
    ends = sorted(
        (c for c in on_offer(site.catalogue.converters) if c.gives_class is None),
        key=lambda c: (prices.each(c.id), c.id),
    )
    end = next((c for c in ends if c.speed_mbps >= demand.mbps), ends[-1])
    draft.mbps, draft.delay_ms = float(end.speed_mbps), rules["far.delay_ms.fibre"]
    draft.link_w = draft.near_w = end.own_w
    draft.port = port_for(draft.mbps)
    bill.add(end.id, 2)
    kind = "os2"  # single-mode for any length over land
    bill.add(f"optic-{kind}", 2)
    if _ground(site, draft):
        bill.add(site.catalogue.fibres[kind].item("ground"), site.laid_m)
        bill.add("fibre-end-box", 2)
        bill.add("pigtail", 4)
        pulled = site.laid_m * rules["order.pull_minutes.duct"]
        bill.work("pull", "pull", f"Pull {metres(site.laid_m, 0)} through its duct", pulled, site.laid_m)
        spliced = 4 * rules["order.splice_minutes"]
        bill.work("splice", "ends", "Splice two strands at both ends", spliced, 4, ("fibre",))
        tested = 2 * rules["order.test_minutes"]
        bill.work("test", "test", "Test and record two strands", tested, 2, ("fibre",))
    draft.needs += ["a converter at either end", "a port free at the rack"]
    draft.hurts.append(LASER)
    return draft.judged(demand)


def _ground(site: FarSite, draft: Draft) -> bool:
    """Add the trench; say where nothing can be dug."""
    if not DIGS[site.point.land]:
        draft.checks.append(
            FarCheck(
                state="out",
                words="water lies between: nothing is dug across it",
                would="a way round it over land, drawn as a duct",
            )
        )
        return False
    draft.bill.trench(site.trench_m, site.point.land)
    draft.needs.append(f"a trench of {metres(site.trench_m, 0)}")
    draft.hurts.append(TRENCH)
    if not site.point.services_known:
        draft.needs.append("buried services located first")
    return True
