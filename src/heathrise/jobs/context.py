"""What a job has to go on, put together from what is kept of a project."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from ..controller.service import Controllers
from ..core.base.progress import Progress, ShowBest
from ..core.records import PushedStep, SerialMatched, serials_as_matched
from ..formats.papers import Head, History
from ..store import Saved, Stores
from ..store.observed import observed
from .kinds import KINDS, ControllerSite, JobContext

_NOWHERE = Controllers()
_HISTORY = 20  # lines of the journal on a technician's paper


def run_kind(
    stores: Stores,
    saved: Saved,
    kind: str,
    arguments: Mapping[str, Any],
    progress: Progress,
    show: ShowBest = lambda _: None,
    controllers: Controllers = _NOWHERE,
) -> dict[str, Any]:
    """Run a kind of job on a project as it was saved, and return its result."""
    plan = stores.plans.of(saved)
    job = JobContext(
        saved.name,
        saved.revision,
        plan,
        progress,
        lambda what, name, data: stores.papers.keep(saved.id, what, name, saved.revision, data),
        lambda: observed(stores, saved.id, plan),
        lambda: _history(stores, saved.id),
        lambda record: stores.records.append(saved.id, record),
        lambda: stores.records.last_number(saved.id),
        show,
        lambda: _head(stores),
        lambda: stores.heads.next_offer(plan.on.year),
        ControllerSite(
            lambda: controllers.of(saved.id),
            lambda: serials_as_matched(stores.records.of(saved.id, SerialMatched)),
            lambda: stores.records.of(saved.id, PushedStep),
        ),
        lambda key: stores.pictures.get(saved.id, key).data,
    )
    return KINDS[kind].run(job, arguments)


def _history(stores: Stores, project_id: str) -> list[History]:
    return [
        History(row["revision"], f"{row['made']:%Y-%m-%d}", row["author"], row["label"])
        for row in stores.repository.history(project_id, _HISTORY)
    ]


def _head(stores: Stores) -> Head:
    """Return the head of papers."""
    found = stores.heads.get()
    if found.mark is None:
        return Head.of(found.firm)
    return Head.of(found.firm, found.mark.media, found.mark.data)
