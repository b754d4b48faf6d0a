"""What was seen on a site, read from its records and compared with its plan."""

from __future__ import annotations

from collections.abc import Sequence

from ..core.context.plan import Plan
from ..core.context.readings import Reading
from ..core.evaluation.evaluate import evaluate
from ..core.records import (
    Agreed,
    CableTest,
    PortReading,
    SeenPort,
    SeenSpeed,
    SnagRecord,
    SpeedReading,
    Staged,
    StepRecord,
    SwitchDraw,
    WalkCounts,
    cables_as_tested,
    on_site_since,
    ports_as_seen,
    snags_as_left,
    speeds_as_seen,
    steps_as_done,
    switches_as_seen,
    walks_as_taken,
)
from ..core.views.acceptance import planned_cables, planned_ports
from ..core.views.handover import Observed
from ..core.views.speeds import planned_speeds
from ..core.views.work_list import steps_of
from .records import Records
from .stores import Stores


def observed(stores: Stores, project_id: str, plan: Plan) -> Observed:
    """Return what is known of a site beside its plan."""
    records = stores.records
    rules = plan.rules
    ports, draws = ports_observed(records, project_id, plan)
    measured = records.of(project_id, SpeedReading)
    agreed = last_agreed(records.of(project_id, Agreed))
    return Observed(
        cables=cables_as_tested(rules, planned_cables(plan), records.of(project_id, CableTest)),
        ports=ports,
        draws=draws,
        # What each room may have is worked out only where somebody measured one.
        speeds=speeds_as_seen(rules, planned_speeds(plan), measured) if measured else (),
        snags=snags_as_left(records.of(project_id, SnagRecord), plan.on),
        steps=steps_of(plan),
        stands=steps_as_done(records.of(project_id, StepRecord)),
        levels=_levels(stores, project_id),
        agreed=stores.repository.at(project_id, agreed) if agreed is not None else None,
        agreed_revision=agreed,
    )


def _levels(stores: Stores, project_id: str) -> tuple[Reading, ...]:
    """Return the levels of the measured walks that count."""
    measured, records = stores.measured, stores.records
    walks = measured.all(project_id)
    taken = walks_as_taken(walks, records.of(project_id, WalkCounts)) if walks else []
    return measured.of(project_id, tuple(w.number for w in taken if w.counts))


def ports_observed(records: Records, project_id: str, plan: Plan) -> tuple[list[SeenPort], list[SwitchDraw]]:
    """Return the ports as they came up, and what each switch gives in all."""
    readings = records.of(project_id, PortReading)
    ports = ports_as_seen(plan.rules, planned_ports(plan), readings)
    usable = [(s.switch, s.name, s.usable_w) for s in evaluate(plan).power.switches]
    return ports, switches_as_seen(ports, usable)


def speeds_observed(records: Records, project_id: str, plan: Plan) -> list[SeenSpeed]:
    """Return the line and the rooms with the speeds that were measured there, since they are not at the
    bench any more."""
    since = on_site_since(records.of(project_id, Staged))
    readings = [r for r in records.of(project_id, SpeedReading) if since is None or r.at >= since]
    return speeds_as_seen(plan.rules, planned_speeds(plan), readings)


def last_agreed(records: Sequence[Agreed]) -> int | None:
    """Return the revision that was agreed to last, or None."""
    return records[-1].revision if records else None
