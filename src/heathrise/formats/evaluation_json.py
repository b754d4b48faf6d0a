"""Everything that was worked out of a project, as JSON."""

from __future__ import annotations

from ..core.design import Design
from ..core.evaluate import Evaluation


def write(_name: str, _design: Design, evaluation: Evaluation) -> str:
    """Return the whole evaluation, a chapter for each discipline."""
    return evaluation.model_dump_json(indent=1)
