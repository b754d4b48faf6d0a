"""Routes for the work on site: its steps, and what was said of each."""

from __future__ import annotations

from apiflask import APIBlueprint
from flask import Response

from ..core.design import DesignError, Problem
from ..core.evaluate import evaluate
from ..core.install import Step, finish_for
from ..core.memo import IdentityMemo
from ..core.records import StepRecord, steps_as_done
from ..core.working import steps_of
from ..store import Repository, Saved
from ..store.records import Records
from .models import StepStands, Ticks, WorkList
from .wire import json_of, records_of


def make_install(repository: Repository) -> APIBlueprint:
    """Return the blueprint over a repository."""
    routes = APIBlueprint("install", __name__, url_prefix="/api/projects/<project_id>/work")
    records = Records(repository.engine) if repository is not None else None

    kept: IdentityMemo[list[Step]] = IdentityMemo(16)

    def steps_for(saved: Saved) -> list[Step]:
        design, catalogue = saved.design, repository.catalogue

        def work_out() -> list[Step]:
            return steps_of(design, catalogue, evaluate(design, catalogue, "figures"))

        # Ticks come by the dozen while the plan stays as it is.
        return kept.get((design, catalogue), None, work_out)

    def stands(project_id: str, ahead_s: float = 0.0) -> StepStands:
        assert records is not None
        known = steps_as_done(records.of(project_id, StepRecord))
        return StepStands(stands=known, clock_ahead_s=ahead_s)

    @routes.get("")
    @routes.output(WorkList)
    def work(project_id: str) -> Response:
        saved = repository.load(project_id)
        steps = steps_for(saved)
        finishes = [finish_for(steps, people) for people in (1, 2)]
        found = WorkList(
            steps=steps, finishes=finishes, stands=stands(project_id).stands,
            day_minutes=repository.catalogue.rules["order.day_minutes"],
        )  # fmt: skip
        return json_of(found)

    @routes.post("")
    @routes.input(Ticks, arg_name="ticks")
    @routes.output(StepStands)
    def ticked(project_id: str, ticks: Ticks) -> Response:
        """Write what was said; each once, however often it is sent. All of it or nothing."""
        assert records is not None
        steps = {s.id: s for s in steps_for(repository.load(project_id))}
        problems = [p for k, tick in enumerate(ticks.ticks) for p in _wrong(k, tick, steps)]
        if problems:
            raise DesignError(problems)
        said, ahead_s = records_of(StepRecord, ticks.ticks, ticks.clock)
        records.append_all(project_id, said)
        return json_of(stands(project_id, ahead_s))

    return routes


def _wrong(number: int, tick: Ticks.Tick, steps: dict[str, Step]) -> list[Problem]:
    where = f"ticks[{number}]"
    step = steps.get(tick.step)
    if tick.state is None and tick.photo is None:
        return [Problem(f"{where}.state", "say how the step stands")]
    if tick.state in ("skipped", "blocked") and not tick.reason.strip():
        return [Problem(f"{where}.reason", f"say why it is {tick.state}")]
    licensed = step is not None and step.licensed and tick.state == "done"
    if licensed and not tick.licensed_by.strip():
        what = "is work for licensed people; name who did it"
        return [Problem(f"{where}.licensed_by", what)]
    return []
