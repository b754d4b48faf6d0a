"""Everything that was worked out of a project, as JSON."""

from __future__ import annotations

import json

from ..core.design import Design
from ..core.evaluation.evaluate import Evaluation


def write(_name: str, _design: Design, evaluation: Evaluation) -> str:
    """Return the whole evaluation, a chapter for each discipline."""
    head = {"format": "heathrise-evaluation", "version": 1}
    return json.dumps({**head, **evaluation.model_dump(mode="json")}, indent=1, ensure_ascii=False)
