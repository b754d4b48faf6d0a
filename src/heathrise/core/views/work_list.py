"""The work list of a project: joined of what cable, order and power have worked out."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

from ..catalogue import Catalogue
from ..context.effective_rules import in_force
from ..context.scope import as_planned
from ..context.storeys import Storeys, storeys_of
from ..design import Building, Design, Device, Duct, EquipmentRoom, Floor, Injector, Switch
from ..evaluation.evaluate import Evaluation
from ..install import MountPlace, Penetration, Pull, Step, Trench, WorkSite, on_roof, work_list
from ..laying import Link, climbs_of, duct_m, holes_of, pulling_of, trench_minutes
from ..order import RACK_PARTS, panelled
from .labels import project_labels
from .laid_links import links_of

_OVERHEAD = frozenset({"ceiling_void", "joists", "raceway", "stub", "attic"})


def steps_of(drawn: Design, catalogue: Catalogue, evaluation: Evaluation) -> list[Step]:
    """Return the steps of a project's work."""
    design, ruled = as_planned(drawn), in_force(drawn, catalogue)
    links = links_of(design, ruled, evaluation)
    plan = storeys_of(design)
    built = {f.id: drawn.of(Building)[f.building].built for f in drawn.of(Floor).values()}
    openings = _openings(design, ruled, plan, [k for k in links if not k.found], built)
    trenches = [
        Trench(
            d.id,
            d.name,
            d.from_floor,
            duct_m(d),
            d.depth_m,
            trench_minutes(ruled.rules, d),
            ruled.parts["duct"].label,
        )
        for d in design.of(Duct).values()
        if d.dug != "there"
    ]
    stands = {
        d.id: MountPlace(
            plan.outdoors(d.floor, d.at, ruled.model_of(d).outdoor),
            plan.over_ground_m(d.floor, d.height_m),
            built[d.floor],
        )
        for d in drawn.of(Device).values()
    }
    site = WorkSite(
        _pulls(drawn, ruled, evaluation, links, plan, openings, stands),
        [o for o, _ in openings],
        trenches,
        stands,
        _weights_kg(design, ruled, links),
    )
    return work_list(drawn, design, ruled, site)


def _pulls(
    drawn: Design,
    ruled: Catalogue,
    evaluation: Evaluation,
    links: Sequence[Link],
    plan: Storeys,
    openings: Sequence[tuple[Penetration, tuple[str, ...]]],
    stands: Mapping[str, MountPlace],
) -> list[Pull]:
    design, rules = as_planned(drawn), ruled.rules
    pulling = pulling_of(rules, [k for k in links if not k.found])
    through: dict[str, list[str]] = {}
    for opening, keys in openings:
        for key in keys:
            through.setdefault(key, []).append(opening.key)
    labels: dict[str, list[str]] = {}
    for label in project_labels(drawn, evaluation):
        labels.setdefault(label.link, []).append(label.text)
    injected = {i.device for i in design.of(Injector).values()}
    in_panel = {rack: panelled(rules, links, rack) > 0 for rack in design.of(EquipmentRoom)}
    found = []
    for link in links:
        device = design.of(Device).get(link.device or "")
        power = ruled.model_of(device).power if device is not None else None
        kinds = {s.kind for s in link.stretches}
        took = pulling.get(link.id)
        strong = power is not None and power.poe_class > rules["install.powered_class"]
        stand = stands[device.id] if device is not None else None
        high = {s.floor for s in link.stretches if s.kind in _OVERHEAD and _high(ruled, plan, s.floor)}
        air = [s.floor for s in link.stretches if s.kind == "outdoor"]
        top_m = max((_cable_over_ground_m(plan, f) for f in air), default=0.0)
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


def _high(ruled: Catalogue, plan: Storeys, floor: str) -> bool:
    """Whether what lies at a storey's ceilings is reached from a ladder."""
    return plan.floors[floor].ceiling_height_m > ruled.rules["install.ladder_m"]


def _cable_over_ground_m(plan: Storeys, floor: str) -> float:
    """Return how high over the ground cable on the façade of a storey lies: at its ceiling."""
    return plan.over_ground_m(floor, plan.floors[floor].ceiling_height_m)


def _weights_kg(design: Design, ruled: Catalogue, links: Sequence[Link]) -> dict[str, float]:
    """Return what is lifted for each rack that is set up: its frame and parts, and its switches."""
    found: dict[str, float] = {}
    for switch in design.of(Switch).values():
        if switch.state == "new":
            key = switch.equipment_room
            if key not in found:
                found[key] = sum(ruled.parts[p].kg for p in RACK_PARTS)
                panels = -(-panelled(ruled.rules, links, key) // 24)
                found[key] += panels * ruled.parts["rack-panel"].kg
            found[key] += ruled.switches[switch.model].kg
    return {k: round(v, 1) for k, v in found.items() if k in design.of(EquipmentRoom)}


def _openings(
    design: Design,
    catalogue: Catalogue,
    plan: Storeys,
    links: Sequence[Link],
    built: Mapping[str, int | None],
) -> list[tuple[Penetration, tuple[str, ...]]]:
    """Return the openings of a job, each with the links that go through it."""
    names = {k.id: k.name for k in links}
    stretches = [s for k in links for s in k.stretches]
    rows = [
        (f"hole-{n}", hole.floor, False, hole.links)
        for n, hole in enumerate(holes_of(design, catalogue, stretches), start=1)
    ] + [(f"storey-{n}", floor, True, keys) for n, (_, floor, keys) in enumerate(climbs_of(links), start=1)]
    return [
        (
            Penetration(
                key, floor, storey, tuple(names[k] for k in keys), _high(catalogue, plan, floor), built[floor]
            ),
            keys,
        )
        for key, floor, storey, keys in rows
    ]
