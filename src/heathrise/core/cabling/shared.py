"""Old cable between the line and a router that stands elsewhere: what it carries, and what it wants."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from ..base.wording import some
from ..base.wording import speed as speed_said
from ..catalogue import Catalogue, Rules
from ..context.findings import Cure, Finding, Place
from ..context.one_cable import SharedCable, said, shared_cable
from ..design import Design, Device, EquipmentRoom, OldCable, Site, Switch, apply, put
from .links import LinkVerdict
from .runs import RunVerdict, carried_mbps, judge_runs
from .second_room import GOOD, new_room, switch_for
from .uplinks import UplinkVerdict

_TAKES = "cabling.television_mbps"
_ASKED = "cabling.found_mbps"


@dataclass(frozen=True)
class SharedLoad:
    """Old cable that several things share, Mb/s: what it ``carries``, what goes ``one_way`` at most,
    and what of the line is ``left`` to a download while nothing is sent."""

    cable: SharedCable
    name: str
    carries: int
    one_way: float
    left: float


def shared_load(design: Design, catalogue: Catalogue, links: Sequence[LinkVerdict]) -> SharedLoad | None:
    """Return what goes over old cable that is short for its services, or None where none is.

    To the router goes what the line brings, television, and what is sent from behind the way back;
    the other way what is sent, and what the line brought, on to who hangs on the far rack.
    """
    shared = shared_cable(design, catalogue)
    if shared is None or not shared.is_short:
        return None
    over = next((k for k in links if _is_over(k, shared)), None)
    if over is None:
        return None
    site, rules = design.site, catalogue.rules
    carries = _carries(site, rules, over)
    television = rules[_TAKES] if "television" in shared.services else 0.0
    sent_back = site.line_up_mbps if "back_haul" in shared.services else 0.0
    name = some([design.of(OldCable)[c].name for c in shared.cables])
    one_way = site.line_mbps + television + sent_back
    return SharedLoad(shared, name, carries, one_way, max(0.0, carries - television))


def _carries(site: Site, rules: Rules, over: LinkVerdict) -> int:
    if isinstance(over, RunVerdict):
        return carried_mbps(site, rules, over)
    return over.tested_mbps or (over.speed_mbps if over.verdict in GOOD else 0)


def _is_over(link: LinkVerdict, shared: SharedCable) -> bool:
    if isinstance(link, UplinkVerdict):
        return shared.ends == {link.room, link.to_room}
    return isinstance(link, RunVerdict) and link.device == shared.router and shared.far is None


def shared_findings(design: Design, catalogue: Catalogue, links: Sequence[LinkVerdict]) -> Iterator[Finding]:
    """Yield what is to be said of old cable that is short for its services."""
    load = shared_load(design, catalogue, links)
    if load is None:
        return
    rooms, cable = design.of(EquipmentRoom), load.cable
    router, entry = design.of(Device)[cable.router], rooms[cable.entry]
    count, services = len(cable.cables), said(cable.services)
    lies = f"{load.name} {'lie' if count > 1 else 'lies'} there"
    between = f"{services} go between {entry.name} and {router.name}"
    ends = (r for r in (cable.entry, cable.far) if r is not None)
    plain = [rooms[r].name for r in ends if not _tells_apart(design, catalogue, r)]
    common = {
        "id": f"cable-shared-{router.id}",
        "stage": "cable",
        "places": (Place(kind="device", id=router.id, floor=router.floor, at=router.at),),
        "rule": "what shares a cable is told apart at both its ends",
        "source": catalogue.rules.source(_ASKED),
    }
    if cable.far is None or plain:
        where = some(plain) if cable.far else "each end"
        text = (
            f"{between[0].upper()}{between[1:]}, and only {lies}: it wants a switch that tells networks "
            f"apart at {where}, or {router.name} beside {entry.name}."
        )
        yield Finding.model_validate(
            {
                **common,
                "severity": "not_met",
                "text": text,
                "figure": count,
                "limit": len(cable.services),
                "unit": "cables",
                "cures": (*_switches(design, catalogue, load, links), *_moved(design, cable)),
            }
        )
        return
    fits = load.one_way <= load.carries
    most, carried = speed_said(load.one_way), speed_said(load.carries)
    busiest = f"{most} one way at the busiest of the {carried} that it carries"
    told = (
        f"{load.name} carries {services} between {entry.name} and {router.name}: {busiest}."
        if fits
        else f"{load.name} is shared by {services}: {busiest}. The line gives a download "
        f"{speed_said(min(load.left, design.site.line_mbps))} at most, and less while something is sent."
    )
    yield Finding.model_validate(
        {
            **common,
            "severity": "note" if fits else "near",
            "text": told,
            "figure": load.one_way,
            "limit": load.carries,
            "unit": "Mb/s",
            "used": catalogue.rules.used(_ASKED, *([_TAKES] if "television" in cable.services else [])),
            "cures": () if fits else _moved(design, cable),
        }
    )


def _tells_apart(design: Design, catalogue: Catalogue, room: str) -> bool:
    """Whether a rack has switches, and all of them know VLANs."""
    here = [s for s in design.of(Switch).values() if s.equipment_room == room]
    return bool(here) and all(catalogue.switches[s.model].managed for s in here)


def _switches(
    design: Design, catalogue: Catalogue, load: SharedLoad, links: Sequence[LinkVerdict]
) -> tuple[Cure, ...]:
    """Offer the switches that are missing or plain, and the place for the one beside the router."""
    cable = load.cable
    router = design.of(Device)[cable.router]
    changed = design
    far = cable.far
    added: list[EquipmentRoom | Switch] = []
    if far is None:
        room = new_room(design, router.floor, f"{router.name} shelf"[:120], router.at)
        far = room.id
        added.append(room)
        changed = apply(design, [put(room)])
        links = judge_runs(changed, catalogue)  # some begin at the new one then
    at: list[str] = []
    price = 0.0
    for end, more in ((cable.entry, 1), (far, 2)):
        if _tells_apart(changed, catalogue, end):
            continue
        runs = [k for k in links if isinstance(k, RunVerdict) and k.room == end and k.device != router.id]
        switch = switch_for(changed, catalogue, end, runs, False, more + len(cable.services))
        if switch is None:
            return ()
        plain = [s for s in changed.of(Switch).values() if s.equipment_room == end]
        # What was planned is another model then; what was found goes.
        planned = [s for s in plain if s.state == "new"]
        new = [s.model_copy(update={"model": switch.model}) for s in planned] or [switch]
        price += sum(catalogue.switches[s.model].price for s in new)
        price -= sum(catalogue.switches[s.model].price for s in planned)
        new += [s.model_copy(update={"state": "retire"}) for s in plain if s.state != "new"]
        at.append(changed.of(EquipmentRoom)[end].name)
        added += new
        changed = apply(changed, [put(s) for s in new])
    services = said(cable.services)
    bought = "its switches" if len(at) > 1 else "its switch"
    effect = f"{services} each by itself over {load.name}; {price:+g} {design.site.currency} for {bought}"
    label = f"A switch that tells networks apart at {' and '.join(at)}"
    return (Cure(label=label, effect=effect, changes=tuple(put(e) for e in added)),)


def _moved(design: Design, cable: SharedCable) -> tuple[Cure, ...]:
    """Offer the router's place beside the line."""
    router, entry = design.of(Device)[cable.router], design.of(EquipmentRoom)[cable.entry]
    moved = router.model_copy(update={"floor": entry.floor, "at": entry.at})
    television = "; television alone goes over the cable then" if "television" in cable.services else ""
    return (
        Cure(
            label=f"Put {router.name} at {entry.name}",
            effect=f"the line ends where it comes in, and nothing is shared{television}",
            changes=(put(moved),),
        ),
    )
