"""The labels of a project: joined of its design and what cable has worked out."""

from __future__ import annotations

from ..context.plan import Plan, answered
from ..evaluation.evaluate import evaluate
from ..evaluation.racks import labels_for
from ..install import Label


@answered
def project_labels(plan: Plan) -> list[Label]:
    """Return a label for every cable that has a way, fibre between racks too."""
    return labels_for(plan.design, evaluate(plan).cable.links)
