"""The kinds of job: a name, and a function from a design to a result that JSON can hold."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import Any

from ..core.catalogue import Catalogue
from ..core.design import Design
from ..core.progress import Progress
from ..core.remedies import search_cures


@dataclass(frozen=True)
class Work:
    """What a job has to go on: a project's design as it was saved, and what was asked."""

    design: Design
    catalogue: Catalogue
    arguments: Mapping[str, Any]
    progress: Progress


def _cures(work: Work) -> dict[str, Any]:
    """Look for moves that mend a room; one that is stopped gives the best found by then."""
    finding = str(work.arguments.get("finding", ""))
    found = search_cures(work.design, work.catalogue, finding, work.progress)
    return {"cures": [cure.model_dump(mode="json") for cure in found]}


KINDS: dict[str, Callable[[Work], dict[str, Any]]] = {"cures": _cures}
