"""What was seen on a site, read from its records and compared with its plan."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import date

from ..core.context.effective_rules import in_force
from ..core.context.readings import Reading
from ..core.context.scope import as_planned
from ..core.design import Switch
from ..core.evaluation.evaluate import Evaluation
from ..core.records import (
    Agreed,
    CableTest,
    PortReading,
    SeenPort,
    SnagRecord,
    StepRecord,
    SwitchDraw,
    WalkCounts,
    cables_as_tested,
    ports_as_seen,
    snags_as_left,
    steps_as_done,
    switches_as_seen,
    walks_as_taken,
)
from ..core.views.acceptance import planned_cables, planned_ports
from ..core.views.handover import Observed
from ..core.views.work_list import steps_of
from .measured import Measured
from .records import Records
from .repository import Repository, Saved


def observed(repository: Repository, saved: Saved, evaluation: Evaluation, today: date) -> Observed:
    """Return what is known of a site, beside one evaluation of its plan."""
    records, catalogue = Records(repository.engine), repository.catalogue
    rules = in_force(saved.design, catalogue).rules
    ports, draws = ports_observed(repository, saved, evaluation)
    agreed = last_agreed(records.of(saved.id, Agreed))
    return Observed(
        cables=cables_as_tested(
            rules, planned_cables(evaluation.cable, rules), records.of(saved.id, CableTest)
        ),
        ports=ports,
        draws=draws,
        snags=snags_as_left(records.of(saved.id, SnagRecord), today),
        steps=steps_of(saved.design, catalogue, evaluation),
        stands=steps_as_done(records.of(saved.id, StepRecord)),
        levels=_levels(records, saved.id),
        agreed=repository.at(saved.id, agreed) if agreed is not None else None,
        agreed_revision=agreed,
    )


def _levels(records: Records, project_id: str) -> tuple[Reading, ...]:
    """Return the levels of the measured walks that count."""
    measured = Measured(records)
    walks = measured.all(project_id)
    taken = walks_as_taken(walks, records.of(project_id, WalkCounts)) if walks else []
    return measured.of(project_id, tuple(w.number for w in taken if w.counts))


def ports_observed(
    repository: Repository, saved: Saved, evaluation: Evaluation
) -> tuple[list[SeenPort], list[SwitchDraw]]:
    """Return the ports as they came up, and what each switch gives in all."""
    rules = in_force(saved.design, repository.catalogue).rules
    planned = planned_ports(dict(as_planned(saved.design).of(Switch)), evaluation)
    readings = Records(repository.engine).of(saved.id, PortReading)
    ports = ports_as_seen(rules, planned, readings)
    usable = [(s.switch, s.name, s.usable_w) for s in evaluation.power.switches]
    return ports, switches_as_seen(ports, usable)


def last_agreed(records: Sequence[Agreed]) -> int | None:
    """Return the revision that was agreed to last, or None."""
    return records[-1].revision if records else None
