"""Routes for the work on site: its steps, and what was said of each."""

from __future__ import annotations

from collections.abc import Mapping

from apiflask import APIBlueprint
from flask import Response

from ..core.base.wording import some
from ..core.design import DesignError, Problem
from ..core.install import Step
from ..core.records import StepRecord, StepState, steps_as_done
from ..core.views.work_list import finishes_of, steps_of
from .desk import stores
from .models import StepStands, Ticks, WorkList
from .wire import json_of, records_of

_SETTLED = ("done", "skipped")


routes = APIBlueprint("install", __name__, url_prefix="/api/projects/<project_id>/work")


def _stands(project_id: str, ahead_s: float = 0.0) -> StepStands:
    known = steps_as_done(stores().records.of(project_id, StepRecord))
    return StepStands(stands=known, clock_ahead_s=ahead_s)


@routes.get("")
@routes.output(WorkList)
def get_work(project_id: str) -> Response:
    _, plan = stores().plans.load(project_id)
    found = WorkList(
        steps=steps_of(plan),
        finishes=finishes_of(plan),
        stands=_stands(project_id).stands,
        day_minutes=plan.rules["order.day_minutes"],
    )
    return json_of(found)


@routes.post("")
@routes.input(Ticks, arg_name="ticks")
@routes.output(StepStands)
def tick_steps(project_id: str, ticks: Ticks) -> Response:
    """Write what was said; each once, however often it is sent. All of it or nothing."""
    _, plan = stores().plans.load(project_id)
    steps = {s.id: s for s in steps_of(plan)}
    states = {s.step: s.state for s in _stands(project_id).stands}
    problems = []
    for number, tick in enumerate(ticks.ticks):
        problems += _wrong(number, tick, steps, states)
        if tick.state is not None:
            states[tick.step] = tick.state
    if problems:
        raise DesignError(problems)
    said, ahead_s = records_of(StepRecord, ticks.ticks, ticks.clock)
    stores().records.append_all(project_id, said)
    return json_of(_stands(project_id, ahead_s))


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
