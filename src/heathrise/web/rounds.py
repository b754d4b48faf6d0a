"""Routes for rounds of practice: a copy of a project is brought up against the clock, on a stand-in with
faults, and what was missed is told. Nothing of the project itself is touched."""

from __future__ import annotations

import secrets
from datetime import UTC, datetime

from apiflask import APIBlueprint
from flask import Response

from ..controller.debrief import Debrief, allowed_s, debrief_of
from ..core.design import DesignError, Problem, Remove, Underlay, apply
from ..core.records import (
    BroughtTick,
    PushedStep,
    RoundBegun,
    RoundEnded,
    SerialMatched,
    SpeedReading,
    serials_as_matched,
)
from ..core.views.managed import tree_of
from ..standins import measured_speeds
from ..standins.controller.gear import FAULTS
from ..standins.controller.par import par_seconds
from ..standins.controller.planting import planted, serial_of
from ..store.observed import speeds_observed
from .controller import brought_now
from .desk import desk, stores
from .round_models import RoundAsked, RoundProject, RoundRow, RoundView
from .wire import AUTHOR, json_of

routes = APIBlueprint("rounds", __name__, url_prefix="/api/projects/<project_id>")


@routes.post("/rounds")
@routes.input(RoundAsked, arg_name="said")
@routes.output(RoundProject, status_code=201)
def begin_round(project_id: str, said: RoundAsked) -> Response:
    """Begin a round on a copy of a project."""
    before, _ = _round(project_id)
    if before is not None:
        project_id = before.project  # once more, on what the round was a copy of
    saved, _ = stores().plans.load(project_id)
    place = desk().controllers
    if not place.standin:
        raise DesignError([Problem("controller", "a round wants a stand-in; start the demo for one")])
    seed = said.seed if said.seed is not None else secrets.randbelow(1_000_000)
    bare = [Remove(kind="underlay", id=key) for key in saved.design.of(Underlay)]
    copy = apply(saved.design, bare)
    who = said.trainee.strip()
    name = f"{f'{who} practises' if who else 'Practice'}: {saved.name}"[:120]
    fresh = stores().repository.create(name, copy, AUTHOR, "Round of practice").id
    _, plan = stores().plans.load(fresh)
    rows = planted(plan, fresh)
    place.plug_in(fresh, [row.model_dump() for row in rows], seed, said.faults)
    par_s = par_seconds(rows, seed, said.faults)
    record = RoundBegun(
        at=datetime.now(UTC),
        author=said.trainee.strip() or AUTHOR,
        trainee=said.trainee.strip(),
        project=project_id,
        seed=seed,
        faults=said.faults,
        par_s=par_s,
        allowed_s=allowed_s(plan.rules, brought_now(fresh), par_s, place.story(fresh).pace),
    )
    stores().records.append(fresh, record)
    return json_of(RoundProject(project=fresh), 201)


@routes.get("/round")
@routes.output(RoundView)
def get_round(project_id: str) -> Response:
    """Tell how a round stands; an ordinary project is none."""
    return _answered(project_id)


@routes.post("/round/measure")
@routes.output(RoundView)
def measure_in_round(project_id: str) -> Response:
    """Measure the speed at the line and in each room that is served and has none yet, with a meter that
    stands in for one; its time goes by on the site."""
    begun, ended = _round(project_id)
    if begun is None or ended is not None:
        raise DesignError([Problem("round", "this is no round of practice that goes on; begin one first")])
    _, plan = stores().plans.load(project_id)
    kept = stores().records
    open_rows = [row for row in speeds_observed(kept, project_id, plan) if row.baseline is None]
    seconds = plan.rules["settings.round_measure_s"] * len(open_rows)
    desk().controllers.let_pass(project_id, seconds)
    now = datetime.now(UTC)
    found = measured_speeds(open_rows, begun.seed)
    rows = [
        SpeedReading(at=now, author=begun.author, where=where, occasion="baseline", down_mbps=mbps)
        for where, mbps in found.items()
    ]
    kept.append_all(project_id, [(None, row) for row in rows])
    return _answered(project_id)


@routes.post("/round/end")
@routes.output(RoundView)
def end_round(project_id: str) -> Response:
    """End a round, and tell what was missed and why it mattered. What was told stays."""
    begun, ended = _round(project_id)
    if begun is None:
        raise DesignError([Problem("round", "this project is no round of practice; begin one first")])
    if ended is None:
        told = _debrief(project_id, begun)
        record = RoundEnded(at=datetime.now(UTC), author=begun.author, told=told.model_dump_json())
        stores().records.append(project_id, record, "round-ended")
    return _answered(project_id)


def _round(project_id: str) -> tuple[RoundBegun | None, RoundEnded | None]:
    kept = stores().records
    begun, ended = kept.of(project_id, RoundBegun), kept.of(project_id, RoundEnded)
    return (begun[-1] if begun else None), (ended[0] if ended else None)


def _debrief(project_id: str, begun: RoundBegun) -> Debrief:
    _, plan = stores().plans.load(project_id)
    kept, names = stores().records, {r.id: r.name for r in tree_of(plan).rows.values()}
    matched = serials_as_matched(kept.of(project_id, SerialMatched))
    by_serial = {serial_of(project_id, key): name for key, name in names.items()}
    by_serial |= {serial: names[key] for key, serial in matched.items() if key in names}
    return debrief_of(
        desk().controllers.story(project_id),
        brought_now(project_id),
        by_serial,
        kept.of(project_id, BroughtTick),
        kept.of(project_id, PushedStep),
        begun.allowed_s,
        begun.par_s,
        {str(key): words for key, words in FAULTS.items()},
    )


def _answered(project_id: str) -> Response:
    stores().repository.load(project_id)
    begun, ended = _round(project_id)
    if begun is None:
        return json_of(RoundView(round=None))
    debrief = Debrief.model_validate_json(ended.told) if ended is not None else None
    labels: dict[str, str] = {}
    if debrief is None:
        story = desk().controllers.story(project_id)
        used_s, pace = story.now_s, story.pace
        _, plan = stores().plans.load(project_id)
        labels = {key: serial_of(project_id, key) for key, row in tree_of(plan).rows.items() if row.managed}
    else:
        used_s, pace = debrief.used_s, 0.0
    row = RoundRow(
        trainee=begun.trainee,
        project=begun.project,
        faults=begun.faults,
        begun=begun.at,
        allowed_s=begun.allowed_s,
        par_s=begun.par_s,
        used_s=used_s,
        pace=pace,
        labels=labels,
        debrief=debrief,
    )
    return json_of(RoundView(round=row))
