"""Routes for records: what was observed on the site, beside what was planned."""

from __future__ import annotations

from collections.abc import Callable, Hashable, Sequence
from datetime import UTC, datetime
from typing import TypeVar

from apiflask import APIBlueprint
from flask import Response, request

from ..core.context.plan import Plan
from ..core.design import DesignError, Device, Problem
from ..core.evaluation.evaluate import evaluate
from ..core.records import (
    CableTest,
    Occasion,
    PortReading,
    Record,
    SpeedReading,
    TestedCable,
    by_the_server,
    cables_as_tested,
    says_the_same,
)
from ..core.views.acceptance import planned_cables, planned_ports
from ..core.views.labels import project_labels
from ..core.views.speeds import planned_speeds
from ..formats.ports_csv import read_ports
from ..formats.speeds_csv import read_speeds
from ..formats.tests_csv import read_tests
from ..store.observed import ports_observed, speeds_observed
from .desk import stores
from .models import CableTestSaid, PortsRead, SeenPorts, TestedCables, TestsRead
from .speed_models import SeenSpeeds, SpeedSaid, SpeedsRead
from .wire import AUTHOR, json_of, line_faults

R = TypeVar("R", bound=Record)


routes = APIBlueprint("records", __name__, url_prefix="/api/projects/<project_id>/tests")


port_routes = APIBlueprint("ports", __name__, url_prefix="/api/projects/<project_id>/ports")


speed_routes = APIBlueprint("speeds", __name__, url_prefix="/api/projects/<project_id>/speeds")


def _tested(project_id: str, plan: Plan) -> list[TestedCable]:
    tests = stores().records.of(project_id, CableTest)
    return cables_as_tested(plan.rules, planned_cables(plan), tests)


def _runs(plan: Plan) -> dict[str, str]:
    """Return the device of each run, by the run's id."""
    return {r.id: r.device for r in evaluate(plan).runs}


@routes.get("")
@routes.output(TestedCables)
def list_tests(project_id: str) -> Response:
    _, plan = stores().plans.load(project_id)
    return json_of(TestedCables(cables=_tested(project_id, plan)))


@routes.post("")
@routes.input(CableTestSaid, arg_name="new")
@routes.output(TestedCables, status_code=201)
def note_test(project_id: str, new: CableTestSaid) -> Response:
    """Note a test; one that is sent twice under its key is written once."""
    _, plan = stores().plans.load(project_id)
    every = planned_cables(plan)
    known = new.device in plan.drawn.of(Device) or any(c.device == new.device for c in every)
    if not known:
        raise DesignError([Problem("device", f"no device {new.device!r} is in this project")])
    cables = [c.cable for c in every if c.device == new.device]
    if new.cable not in cables:
        what = f"the run has {len(cables)} cables, there is no cable {new.cable}"
        raise DesignError([Problem("cable", what)])
    (at,), _ = by_the_server([new.at], new.clock, datetime.now(UTC))
    words = new.model_dump(exclude={"key", "by", "at", "clock"})
    said = CableTest(at=at, author=new.by.strip() or AUTHOR, **words)
    stores().records.append(project_id, said, new.key)
    return json_of(TestedCables(cables=_tested(project_id, plan)), 201)


@routes.post("/list")
@routes.output(TestsRead)
def read_tests_list(project_id: str) -> Response:
    """Read a tester's file. It is taken when nothing is at fault, or when ``take`` says so."""
    _, plan = stores().plans.load(project_id)
    read = read_tests(request.get_data(), project_labels(plan), _runs(plan), plan.rules, datetime.now(UTC))
    taken = not read.faults or request.args.get("take") == "1"
    if taken:
        said = [(row.key, row.test) for row in read.tests]
        _write(project_id, CableTest, said, lambda t: (t.device, t.cable))
    faults, found = line_faults(read.faults), _tested(project_id, plan)
    return json_of(TestsRead(read=len(read.tests), taken=taken, faults=faults, cables=found))


@port_routes.get("")
@port_routes.output(SeenPorts)
def list_ports(project_id: str) -> Response:
    _, plan = stores().plans.load(project_id)
    ports, switches = ports_observed(stores().records, project_id, plan)
    return json_of(SeenPorts(ports=ports, switches=switches))


@port_routes.post("/list")
@port_routes.output(PortsRead)
def read_ports_list(project_id: str) -> Response:
    """Read a meter's file. It is taken when nothing is at fault, or when ``take`` says so."""
    _, plan = stores().plans.load(project_id)
    planned, labels = planned_ports(plan), project_labels(plan)
    read = read_ports(request.get_data(), planned, labels, _runs(plan), datetime.now(UTC))
    taken = not read.faults or request.args.get("take") == "1"
    if taken:
        said = [(row.key, row.reading) for row in read.readings]
        _write(project_id, PortReading, said, lambda r: (r.switch, r.port))
    faults = line_faults(read.faults)
    ports, switches = ports_observed(stores().records, project_id, plan)
    return json_of(
        PortsRead(read=len(read.readings), taken=taken, faults=faults, ports=ports, switches=switches)
    )


@speed_routes.get("")
@speed_routes.output(SeenSpeeds)
def list_speeds(project_id: str) -> Response:
    """Show the line and each room with what the plan lets through and what was measured."""
    _, plan = stores().plans.load(project_id)
    return json_of(SeenSpeeds(speeds=speeds_observed(stores().records, project_id, plan)))


@speed_routes.post("")
@speed_routes.input(SpeedSaid, arg_name="said")
@speed_routes.output(SeenSpeeds, status_code=201)
def note_speed(project_id: str, said: SpeedSaid) -> Response:
    """Note what a speed test said at one place."""
    _, plan = stores().plans.load(project_id)
    if said.where not in {p.where for p in planned_speeds(plan)}:
        raise DesignError([Problem("where", f"no room that is served is called {said.where[:40]!r}")])
    record = SpeedReading(at=datetime.now(UTC), author=AUTHOR, **said.model_dump())
    stores().records.append(project_id, record)
    return json_of(SeenSpeeds(speeds=speeds_observed(stores().records, project_id, plan)), 201)


@speed_routes.post("/list")
@speed_routes.output(SpeedsRead)
def read_speeds_list(project_id: str) -> Response:
    """Read a file of speeds. It is taken when nothing is at fault, or when ``take`` says so."""
    _, plan = stores().plans.load(project_id)
    occasion: Occasion = "hand_over" if request.args.get("occasion") == "hand_over" else "baseline"
    read = read_speeds(request.get_data(), planned_speeds(plan), occasion, datetime.now(UTC))
    taken = not read.faults or request.args.get("take") == "1"
    if taken:
        _write(project_id, SpeedReading, read.readings, lambda r: (r.where, r.occasion))
    speeds = speeds_observed(stores().records, project_id, plan)
    faults = line_faults(read.faults)
    return json_of(SpeedsRead(read=len(read.readings), taken=taken, faults=faults, speeds=speeds))


def _write(
    project_id: str, cls: type[R], rows: Sequence[tuple[str | None, R]], place: Callable[[R], Hashable]
) -> None:
    """Write what a file says, each once. What has no key is new where it is not what was said of
    its place last: a cable may pass, fail and pass again, a file be sent twice."""
    last = {place(record): record for record in stores().records.of(project_id, cls)}
    anew = []
    for key, record in rows:
        before = last.get(place(record))
        if key is None and before is not None and says_the_same(before, record):
            continue
        anew.append((key, record))
        last[place(record)] = record
    stores().records.append_all(project_id, anew)
