"""The kinds of job: a name, and a function from a design to a result that JSON can hold."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from datetime import UTC, datetime
from typing import Any

from ..core.catalogue import Catalogue
from ..core.design import Design
from ..core.evaluate import evaluate
from ..core.in_force import in_force
from ..core.kept import as_planned
from ..core.progress import Progress
from ..core.remedies import search_cures
from ..formats.papers import brief_pdf


@dataclass(frozen=True)
class Work:
    """What a job has to go on: a project as it was saved, and what was asked.

    ``keep`` keeps a paper of a kind under a name, and returns its id.
    """

    name: str
    revision: int
    design: Design
    catalogue: Catalogue
    arguments: Mapping[str, Any]
    progress: Progress
    keep: Callable[[str, str, bytes], str]


def _cures(work: Work) -> dict[str, Any]:
    """Look for moves that mend a room; one that is stopped gives the best found by then."""
    finding = str(work.arguments.get("finding", ""))
    found = search_cures(as_planned(work.design), work.catalogue, finding, work.progress)
    return {"cures": [cure.model_dump(mode="json") for cure in found]}


def _brief_pdf(work: Work) -> dict[str, Any]:
    """Print the brief."""
    work.progress(1, 3)
    evaluation = evaluate(work.design, work.catalogue, "figures")
    work.progress(2, 3)
    today = datetime.now(UTC).date()
    ruled = in_force(work.design, work.catalogue)
    data = brief_pdf(work.name, work.design, ruled, evaluation, work.revision, today)
    return {"paper": work.keep("brief", "brief.pdf", data)}


KINDS: dict[str, Callable[[Work], dict[str, Any]]] = {
    "cures": _cures,
    "brief_pdf": _brief_pdf,
}
