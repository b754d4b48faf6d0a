"""The labels of a project: joined of its design and what cable has worked out."""

from __future__ import annotations

from ..cabling import RunVerdict
from ..context.scope import as_planned
from ..design import Design, EquipmentRoom
from ..evaluation.evaluate import Evaluation
from ..install import Cabled, Label, far_end, labels_of


def project_labels(drawn: Design, evaluation: Evaluation) -> list[Label]:
    """Return a label for every cable that has a way, fibre between racks too."""
    design = as_planned(drawn)
    rooms = design.of(EquipmentRoom)
    links = []
    for link in evaluation.cable.links:
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
