"""The labels of a project: joined of its design and what cable has worked out."""

from __future__ import annotations

from ..cabling import RunVerdict
from ..context.plan import Plan, answered
from ..design import EquipmentRoom
from ..evaluation.evaluate import evaluate
from ..install import Cabled, Label, far_end, labels_of


@answered
def project_labels(plan: Plan) -> list[Label]:
    """Return a label for every cable that has a way, fibre between racks too."""
    design = plan.design
    rooms = design.of(EquipmentRoom)
    links = []
    for link in evaluate(plan).cable.links:
        rack = rooms.get(link.room or "")
        if link.verdict == "no_way" or rack is None:
            continue
        if isinstance(link, RunVerdict):
            floor, at = far_end(design, link.device)
        else:
            upper = rooms[link.to_room]  # type: ignore[attr-defined]
            floor, at = upper.floor, upper.at
        links.append(Cabled(link.id, link.name, rack.id, rack.name, floor, at, link.cables))
    return labels_of(design, links)
