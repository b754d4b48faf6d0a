"""The work list of a project: joined of what cable, order and power have worked out."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Mapping, Sequence

from ..catalogue import Rules
from ..context.buried import meetings_of, named
from ..context.plan import Plan, answered
from ..context.storeys import Storeys, storeys_of
from ..design import Building, Device, Duct, Floor, Injector
from ..install import (
    Finish,
    MountPlace,
    Penetration,
    Pull,
    Step,
    Trench,
    WorkSite,
    finish_for,
    on_roof,
    work_list,
)
from ..laying import climbs_of, duct_m, pulling_of, trench_minutes, trench_of
from .far_taken import far_works
from .labels import project_labels
from .laid_links import fresh_holes, links_of
from .rack_parts import rack_parts, rack_works, socket_works

_OVERHEAD = frozenset({"ceiling_void", "joists", "raceway", "stub", "attic", "plenum"})


@answered
def steps_of(plan: Plan) -> list[Step]:
    """Return the steps of a plan's work."""
    stands = _stands(plan)
    openings = _openings(plan)
    site = WorkSite(
        pulls=_pulls(plan, openings, stands),
        openings=[o for o, _ in openings],
        trenches=_trenches(plan),
        stands=stands,
        racks=rack_works(plan),
        sockets=socket_works(plan),
        far=far_works(plan),
    )
    return work_list(plan.drawn, plan.design, plan.catalogue, site)


def _built(plan: Plan) -> dict[str, int | None]:
    """Return the year in which each storey's building was built, where it is known."""
    buildings = plan.drawn.of(Building)
    return {f.id: buildings[f.building].built for f in plan.drawn.of(Floor).values()}


def _trenches(plan: Plan) -> list[Trench]:
    label = plan.catalogue.parts["duct"].label
    near: dict[str, list[str]] = defaultdict(list)
    for meeting in meetings_of(plan.design, plan.rules["plan.service_apart_m"]):
        near[meeting.trench].append(named(plan.design, meeting))
    return [
        Trench(
            d.id,
            d.name,
            d.from_floor,
            trench_of(plan.rules, duct_m(d), d.depth_m, d.dug),
            trench_minutes(plan.rules, d),
            label,
            tuple(near[d.id]),
        )
        for d in plan.design.of(Duct).values()
        if d.dug != "there"
    ]


def _stands(plan: Plan) -> dict[str, MountPlace]:
    """Return where each device hangs."""
    storeys, built = storeys_of(plan.design), _built(plan)
    return {
        d.id: MountPlace(
            storeys.outdoors(d.floor, d.at, plan.catalogue.model_of(d).outdoor),
            storeys.over_ground_m(d.floor, d.height_m),
            built[d.floor],
        )
        for d in plan.drawn.of(Device).values()
    }


def _pulls(
    plan: Plan, openings: Sequence[tuple[Penetration, tuple[str, ...]]], stands: Mapping[str, MountPlace]
) -> list[Pull]:
    design, ruled, rules = plan.design, plan.catalogue, plan.rules
    links, storeys = links_of(plan), storeys_of(plan.design)
    pulling = pulling_of(rules, [k for k in links if not k.found])
    through: dict[str, list[str]] = {}
    for opening, keys in openings:
        for key in keys:
            through.setdefault(key, []).append(opening.key)
    labels: dict[str, list[str]] = {}
    for label in project_labels(plan):
        labels.setdefault(label.link, []).append(label.text)
    injected = {i.device for i in design.of(Injector).values()}
    in_panel = {rack.room: rack.panelled for rack in rack_parts(plan)}
    found = []
    for link in links:
        device = design.of(Device).get(link.device or "")
        power = ruled.model_of(device).power if device is not None else None
        kinds = {s.kind for s in link.stretches}
        took = pulling.get(link.id)
        strong = power is not None and power.poe_class > rules["install.powered_class"]
        stand = stands[device.id] if device is not None else None
        high = {
            s.floor for s in link.stretches if s.kind in _OVERHEAD and _high(plan.rules, storeys, s.floor)
        }
        air = [s.floor for s in link.stretches if s.kind == "outdoor"]
        top_m = max((_cable_over_ground_m(storeys, f) for f in air), default=0.0)
        found.append(
            Pull(
                id=link.id,
                name=link.name,
                device=device.id if device is not None else None,
                floor=link.floor,
                rack=link.rack,
                far_rack=link.far_rack,
                medium=link.medium,
                cables=link.cables,
                metres=sum(s.length_m for s in link.stretches),
                minutes=took.minutes if took is not None else 0.0,
                attic_minutes=took.attic_minutes if took is not None else 0.0,
                attic_c=rules["cabling.space_c.attic"] if "attic" in kinds else None,
                high=bool(high) or top_m > rules["install.ladder_m"],
                far_high=device is not None and device.height_m > rules["install.ladder_m"],
                roof=top_m > rules["install.roof_m"] or (stand is not None and on_roof(rules, stand)),
                powered=strong or link.device in injected,
                leaves=link.leaves,
                found=link.found,
                coil=link.coil,
                holes=tuple(through.get(link.id, ())),
                trenches=tuple(
                    dict.fromkeys(s.way for s in link.stretches if s.kind == "duct" and s.way is not None)
                ),
                labels=tuple(labels.get(link.id, ())),
                near_panel=in_panel.get(link.rack, False),
                far_panel=in_panel.get(link.far_rack or "", False),
            )
        )
    return found


def _high(rules: Rules, storeys: Storeys, floor: str) -> bool:
    """Whether what lies at a storey's ceilings is reached from a ladder."""
    return storeys.floors[floor].ceiling_height_m > rules["install.ladder_m"]


def _cable_over_ground_m(storeys: Storeys, floor: str) -> float:
    """Return how high over the ground cable on the façade of a storey lies: at its ceiling."""
    return storeys.over_ground_m(floor, storeys.floors[floor].ceiling_height_m)


def _openings(plan: Plan) -> list[tuple[Penetration, tuple[str, ...]]]:
    """Return the openings of a job, each with the links that go through it."""
    links = [k for k in links_of(plan) if not k.found]
    names, built, storeys = {k.id: k.name for k in links}, _built(plan), storeys_of(plan.design)
    rows = [(f"hole-{n}", h.floor, False, h.rated, h.links) for n, h in enumerate(fresh_holes(plan), start=1)]
    climbs = enumerate(climbs_of(links), start=1)
    rows += [(f"storey-{n}", floor, True, True, keys) for n, (_, floor, keys) in climbs]
    return [
        (
            Penetration(
                key,
                floor,
                storey,
                tuple(names[k] for k in keys),
                _high(plan.rules, storeys, floor),
                built[floor],
                rated,
            ),
            keys,
        )
        for key, floor, storey, rated, keys in rows
    ]


@answered
def finishes_of(plan: Plan) -> list[Finish]:
    """Return when one and two people are through."""
    times = plan.rules["order.two_people_times"]
    return [finish_for(steps_of(plan), people, times) for people in (1, 2)]
