"""Everything that was worked out of a project, as JSON."""

from __future__ import annotations

import json

from ..core.context.plan import Plan
from ..core.evaluation.evaluate import evaluate


def write(_name: str, plan: Plan) -> str:
    """Return the whole evaluation, a chapter for each discipline."""
    head = {"format": "heathrise-evaluation", "version": 1}
    return json.dumps(
        {**head, **evaluate(plan, wait=True).model_dump(mode="json")}, indent=1, ensure_ascii=False
    )
