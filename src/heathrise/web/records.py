"""Routes for records: what was observed on the site, beside what was planned."""

from __future__ import annotations

from collections.abc import Callable, Hashable, Sequence
from datetime import UTC, datetime
from typing import TypeVar

from apiflask import APIBlueprint
from flask import Response, request

from ..core.cabling import assess_cable
from ..core.context.effective_rules import in_force
from ..core.context.scope import as_planned
from ..core.design import Design, DesignError, Device, Problem, Switch
from ..core.evaluation.evaluate import evaluate
from ..core.records import (
    CableTest,
    PlannedCable,
    PortReading,
    Record,
    by_the_server,
    cables_as_tested,
    says_the_same,
)
from ..core.views.acceptance import planned_cables, planned_ports
from ..core.views.labels import project_labels
from ..formats.ports_csv import read_ports
from ..formats.tests_csv import read_tests
from ..store import Repository
from ..store.observed import ports_observed
from ..store.records import Records
from .models import CableTestSaid, PortsRead, SeenPorts, TestedCables, TestsRead
from .wire import AUTHOR, json_of, line_faults

R = TypeVar("R", bound=Record)


def make_records(repository: Repository) -> APIBlueprint:
    """Return the blueprint over a repository."""
    routes = APIBlueprint("records", __name__, url_prefix="/api/projects/<project_id>/tests")
    records = Records(repository.engine) if repository is not None else None

    def planned(design: Design) -> list[PlannedCable]:
        design = as_planned(design)
        ruled = in_force(design, repository.catalogue)
        return planned_cables(assess_cable(design, ruled), ruled.rules)

    def answered(project_id: str, design: Design, status: int = 200) -> Response:
        assert records is not None
        tests = records.of(project_id, CableTest)
        rules = in_force(design, repository.catalogue).rules
        cables = cables_as_tested(rules, planned(design), tests)
        return json_of(TestedCables(cables=cables), status)

    @routes.get("")
    @routes.output(TestedCables)
    def seen(project_id: str) -> Response:
        return answered(project_id, repository.load(project_id).design)

    @routes.post("")
    @routes.input(CableTestSaid, arg_name="new")
    @routes.output(TestedCables, status_code=201)
    def told(project_id: str, new: CableTestSaid) -> Response:
        """Note a test; one that is sent twice under its key is written once."""
        assert records is not None
        design = repository.load(project_id).design
        every = planned(design)
        known = new.device in design.of(Device) or any(c.device == new.device for c in every)
        if not known:
            raise DesignError([Problem("device", f"no device {new.device!r} is in this project")])
        cables = [c.cable for c in every if c.device == new.device]
        if new.cable not in cables:
            what = f"the run has {len(cables)} cables, there is no cable {new.cable}"
            raise DesignError([Problem("cable", what)])
        (at,), _ = by_the_server([new.at], new.clock, datetime.now(UTC))
        words = new.model_dump(exclude={"key", "by", "at", "clock"})
        said = CableTest(at=at, author=new.by.strip() or AUTHOR, **words)
        records.append(project_id, said, new.key)
        return answered(project_id, design, 201)

    @routes.post("/list")
    @routes.output(TestsRead)
    def listed(project_id: str) -> Response:
        """Read a tester's file. It is taken when nothing is at fault, or when ``take`` says so."""
        assert records is not None
        design = repository.load(project_id).design
        evaluation = evaluate(design, repository.catalogue, "figures")
        rules = in_force(design, repository.catalogue).rules
        runs = {r.id: r.device for r in evaluation.runs}
        labels = project_labels(design, evaluation)
        read = read_tests(request.get_data(), labels, runs, rules, datetime.now(UTC))
        taken = not read.faults or request.args.get("take") == "1"
        if taken:
            said = [(row.key, row.test) for row in read.tests]
            _write(records, project_id, CableTest, said, lambda t: (t.device, t.cable))
        tests = records.of(project_id, CableTest)
        faults = line_faults(read.faults)
        found = cables_as_tested(rules, planned(design), tests)
        return json_of(TestsRead(read=len(read.tests), taken=taken, faults=faults, cables=found))

    return routes


def make_ports(repository: Repository) -> APIBlueprint:
    """Return the blueprint over a repository: ports as they came up."""
    routes = APIBlueprint("ports", __name__, url_prefix="/api/projects/<project_id>/ports")
    records = Records(repository.engine) if repository is not None else None

    @routes.get("")
    @routes.output(SeenPorts)
    def seen(project_id: str) -> Response:
        saved = repository.load(project_id)
        evaluation = evaluate(saved.design, repository.catalogue, "figures")
        ports, switches = ports_observed(repository, saved, evaluation)
        return json_of(SeenPorts(ports=ports, switches=switches))

    @routes.post("/list")
    @routes.output(PortsRead)
    def listed(project_id: str) -> Response:
        """Read a meter's file. It is taken when nothing is at fault, or when ``take`` says so."""
        assert records is not None
        saved = repository.load(project_id)
        design = saved.design
        evaluation = evaluate(design, repository.catalogue, "figures")
        planned = planned_ports(dict(as_planned(design).of(Switch)), evaluation)
        runs = {r.id: r.device for r in evaluation.runs}
        labels = project_labels(design, evaluation)
        read = read_ports(request.get_data(), planned, labels, runs, datetime.now(UTC))
        taken = not read.faults or request.args.get("take") == "1"
        if taken:
            said = [(row.key, row.reading) for row in read.readings]
            _write(records, project_id, PortReading, said, lambda r: (r.switch, r.port))
        faults = line_faults(read.faults)
        ports, switches = ports_observed(repository, saved, evaluation)
        return json_of(
            PortsRead(read=len(read.readings), taken=taken, faults=faults, ports=ports, switches=switches)
        )

    return routes


def _write(
    records: Records,
    project_id: str,
    cls: type[R],
    rows: Sequence[tuple[str | None, R]],
    place: Callable[[R], Hashable],
) -> None:
    """Write what a file says, each once. What has no key is new where it is not what was said of
    its place last: a cable may pass, fail and pass again, a file be sent twice."""
    last = {place(record): record for record in records.of(project_id, cls)}
    anew = []
    for key, record in rows:
        before = last.get(place(record))
        if key is None and before is not None and says_the_same(before, record):
            continue
        anew.append((key, record))
        last[place(record)] = record
    records.append_all(project_id, anew)
