"""Routes for the work on site: its steps, and what was said of each."""

from __future__ import annotations

from collections.abc import Mapping

from apiflask import APIBlueprint
from flask import Response

from ..core.base.memo import IdentityMemo
from ..core.base.wording import some
from ..core.context.effective_rules import in_force
from ..core.design import DesignError, Problem
from ..core.evaluation.evaluate import evaluate
from ..core.install import Finish, Step, finish_for
from ..core.records import StepRecord, StepState, steps_as_done
from ..core.views.work_list import steps_of
from ..store import Repository, Saved
from ..store.records import Records
from .models import StepStands, Ticks, WorkList
from .wire import json_of, records_of

_SETTLED = ("done", "skipped")


def make_install(repository: Repository) -> APIBlueprint:
    """Return the blueprint over a repository."""
    routes = APIBlueprint("install", __name__, url_prefix="/api/projects/<project_id>/work")
    records = Records(repository.engine) if repository is not None else None

    kept: IdentityMemo[list[Step]] = IdentityMemo(16)
    ended: IdentityMemo[list[Finish]] = IdentityMemo(16)

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
        rules = in_force(saved.design, repository.catalogue).rules
        times = rules["order.two_people_times"]
        finishes = ended.get((steps,), times, lambda: [finish_for(steps, n, times) for n in (1, 2)])
        found = WorkList(
            steps=steps,
            finishes=finishes,
            stands=stands(project_id).stands,
            day_minutes=rules["order.day_minutes"],
        )
        return json_of(found)

    @routes.post("")
    @routes.input(Ticks, arg_name="ticks")
    @routes.output(StepStands)
    def ticked(project_id: str, ticks: Ticks) -> Response:
        """Write what was said; each once, however often it is sent. All of it or nothing."""
        assert records is not None
        steps = {s.id: s for s in steps_for(repository.load(project_id))}
        states = {s.step: s.state for s in stands(project_id).stands}
        problems = []
        for number, tick in enumerate(ticks.ticks):
            problems += _wrong(number, tick, steps, states)
            if tick.state is not None:
                states[tick.step] = tick.state
        if problems:
            raise DesignError(problems)
        said, ahead_s = records_of(StepRecord, ticks.ticks, ticks.clock)
        records.append_all(project_id, said)
        return json_of(stands(project_id, ahead_s))

    return routes


def _wrong(
    number: int, tick: Ticks.Tick, steps: Mapping[str, Step], states: Mapping[str, StepState]
) -> list[Problem]:
    where = f"ticks[{number}]"
    step = steps.get(tick.step)
    if tick.state is None and tick.photo is None:
        return [Problem(f"{where}.state", "say how the step stands")]
    if tick.state in ("skipped", "blocked") and not tick.reason.strip():
        return [Problem(f"{where}.reason", f"say why it is {tick.state}")]
    waits = [w for w in (step.waits if step is not None else ()) if states.get(w) not in _SETTLED]
    fresh = tick.state == "done" and states.get(tick.step) != "done"
    if fresh and waits and not tick.reason.strip():
        names = some([steps[w].title for w in waits])
        return [Problem(f"{where}.reason", f"it waits for {names}; say why it is done before")]
    licensed = step is not None and step.licensed and tick.state == "done"
    if licensed and not tick.licensed_by.strip():
        what = "is work for licensed people; name who did it"
        return [Problem(f"{where}.licensed_by", what)]
    return []
