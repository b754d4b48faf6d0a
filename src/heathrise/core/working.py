"""The work list of a project: joined of what cable, order and power have worked out."""

from __future__ import annotations

from .catalogue import Catalogue
from .design import Design, Device
from .evaluate import Evaluation
from .in_force import in_force
from .install import Opening, Pull, Step, work_list
from .kept import as_planned
from .labelling import project_labels
from .order import Link, climbs_of, holes_of, pull_minutes
from .ordering import links_of


def steps_of(drawn: Design, catalogue: Catalogue, evaluation: Evaluation) -> list[Step]:
    """Return the steps of a project's work."""
    design, ruled = as_planned(drawn), in_force(drawn, catalogue)
    rules, links = ruled.rules, links_of(design, ruled, evaluation)
    fresh = [k for k in links if not k.found]
    minutes = pull_minutes(rules, fresh)
    openings = _openings(design, ruled, fresh)
    through: dict[str, list[str]] = {}
    for opening, keys in openings:
        for key in keys:
            through.setdefault(key, []).append(opening.key)
    labels: dict[str, list[str]] = {}
    for label in project_labels(drawn, evaluation):
        labels.setdefault(label.link, []).append(label.text)
    verdicts = {k.id: k for k in evaluation.cable.links}
    pulls = []
    for link in links:
        plain, _, rack = link.id.partition("@")
        verdict = verdicts.get(plain)
        device = design.of(Device).get(link.device or "")
        power = ruled.model_of(device).power if device is not None else None
        kinds = {s.kind for s in link.stretches}
        pulls.append(
            Pull(
                id=plain, name=link.name, device=device.id if device is not None else None,
                floor=link.floor, rack=rack, medium=link.medium, cables=link.cables,
                metres=sum(s.length_m for s in link.stretches),
                minutes=minutes.get(link.id, 0.0), attic="attic" in kinds, duct="duct" in kinds,
                hottest_c=rules["cabling.space_c.attic"] if "attic" in kinds
                else verdict.hottest_c if verdict is not None else 22.0,
                poe_class=power.poe_class if power is not None else None, leaves=link.leaves,
                found=link.found, coil=link.coil, holes=tuple(through.get(link.id, ())),
                labels=tuple(labels.get(plain, ())),
            )
        )  # fmt: skip
    return work_list(design, ruled, pulls, [o for o, _ in openings])


def _openings(
    design: Design, catalogue: Catalogue, links: list[Link]
) -> list[tuple[Opening, tuple[str, ...]]]:
    """Return the openings of a job, each with the links that go through it."""
    rules = catalogue.rules
    names = {k.id: k.name for k in links}
    found: list[tuple[Opening, tuple[str, ...]]] = []
    stretches = [s for k in links for s in k.stretches]
    for number, hole in enumerate(holes_of(design, catalogue, stretches), start=1):
        used = tuple(names[k] for k in hole.links)
        drill = rules["order.drill_minutes.masonry"]
        found.append((Opening(f"hole-{number}", hole.floor, drill, 0.0, used), hole.links))
    for number, (floor, keys) in enumerate(climbs_of(links), start=1):
        used = tuple(names[k] for k in keys)
        drill, stop = rules["order.drill_minutes.floor"], rules["order.fire_stop_minutes"]
        found.append((Opening(f"storey-{number}", floor, drill, stop, used), keys))
    return found
