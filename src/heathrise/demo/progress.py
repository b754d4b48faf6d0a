"""How far the made-up jobs are: what was agreed, and what was seen and said on their sites."""

from __future__ import annotations

from collections.abc import Collection, Iterator, Sequence
from datetime import UTC, date, datetime, timedelta
from graphlib import TopologicalSorter

from ..core.catalogue import load_catalogue
from ..core.context.plan import Plan
from ..core.context.scope import as_planned
from ..core.context.storeys import storeys_of
from ..core.design import Design
from ..core.evaluation.evaluate import evaluate
from ..core.install import PHASES, Step
from ..core.records import Agreed, CableTest, MeasuredWalk, PortReading, Record, SnagRecord, StepRecord
from ..core.views.acceptance import planned_ports
from ..core.views.labels import project_labels
from ..core.views.work_list import steps_of
from ..standins.surveyor import Hidden, spots_of, surveyed

_BEGUN = datetime(2026, 11, 23, 8, 0, tzinfo=UTC)
_HALF = frozenset({"safe", "dig", "rack", "holes", "pull", "ends"})
_WORKERS = ("Ann", "Ben")
# Of every so many cables one is not as it should be: what its tester said.
_EVERY = 6
_GOOD = ("pass", 1.0, "wire map 12345678, worst margin 4.1 dB")
_FAULTS = (
    ("fail", 1.0, "wire map 12345x78, worst margin 0 dB"),
    ("marginal", 1.0, "wire map 12345678, worst margin 0.6 dB"),
    ("pass", 1.4, "wire map 12345678, worst margin 2.2 dB"),
)


def half_installed(design: Design) -> list[Record]:
    """Return the records of a job of which the cables lie, some of them with faults."""
    plan = Plan(design, load_catalogue())
    steps = list(_steps(plan, _HALF))
    now = steps[-1].at
    made = {s.step for s in steps if s.state == "done"}
    return [
        Agreed(at=_BEGUN - timedelta(days=12), author="Ann", revision=1),
        *steps,
        *(t for t in _tests(plan, now, faults=True) if f"far-run-{t.device}" in made),
        _snag("s-hatch", "The hatch to the loft jams", "Ben", now, owner="the client"),
    ]


_UNWALKED = frozenset({"ground-percussion", "upper-studio-2"})  # locked on the day of the walk


def all_done(design: Design) -> list[Record]:
    """Return the records of a job that is done but for a snag that waits for its part, and two
    rooms that were locked when levels were measured."""
    plan = Plan(design, load_catalogue())
    steps = list(_steps(plan, frozenset(PHASES)))
    now = steps[-1].at
    due = (now + timedelta(days=21)).date()
    return [
        Agreed(at=_BEGUN - timedelta(days=20), author="Ann", revision=2),
        *steps,
        *_tests(plan, now, faults=False),
        *_readings(plan, now),
        _walk(design, now),
        _snag("s-plate", "Cover plate of the cafe till is cracked", "Ben", now, "Ben", due),
        _snag("s-paint", "Paint scraped beside the store riser", "Ann", now, "Ann"),
        _snag(
            "s-paint",
            "Paint scraped beside the store riser",
            "Ann",
            now + timedelta(hours=3),
            "Ann",
            closed=True,
        ),
    ]


def _steps(plan: Plan, phases: Collection[str]) -> Iterator[StepRecord]:
    now, half = _BEGUN, len(phases) < len(PHASES)
    blocked: set[str] = set()
    for number, step in enumerate(_in_turn(steps_of(plan))):
        if step.phase not in phases or blocked & set(step.waits):
            blocked |= {step.id}
            continue
        now += timedelta(minutes=step.minutes)
        words: dict[str, object] = {
            "state": "done",
            "minutes": round(step.minutes * (0.9 + 0.05 * (number % 6)), 0),
        }
        if half and step.phase == "ends" and number % 17 == 0:
            blocked |= {step.id}
            words = {"state": "blocked", "reason": "the plaster is still wet"}
        if step.licensed:
            words["licensed_by"] = "A. Ohm, licensed electrician"
        if step.id == "walk":
            words["note"] = "by ear and by a call from room to room"
        yield StepRecord.model_validate(
            {
                "key": f"demo-step-{number:04d}",
                "step": step.id,
                "at": now,
                "author": _WORKERS[number % 2],
                **words,
            }
        )


def _in_turn(steps: Sequence[Step]) -> Iterator[Step]:
    """Yield steps as they are listed, each after what it waits for."""
    known = {s.id: s for s in steps}
    turns = TopologicalSorter({s.id: s.waits for s in steps})
    return (known[key] for key in turns.static_order())


def _tests(plan: Plan, now: datetime, faults: bool) -> Iterator[CableTest]:
    runs = {r.id: r for r in evaluate(plan).runs}
    for number, label in enumerate(project_labels(plan)):
        run = runs.get(label.link)
        if run is None:
            continue
        at_fault = faults and number % _EVERY == _EVERY - 1
        result, longer, note = _FAULTS[(number // _EVERY) % len(_FAULTS)] if at_fault else _GOOD
        length_m = round(run.fixed_m * longer * (0.98 + 0.01 * (number % 4)), 1)
        yield CableTest.model_validate(
            {
                "device": run.device,
                "cable": label.cable,
                "result": result,
                "note": note,
                "length_m": length_m,
                "at": now,
                "author": "stand-in tester",
            }
        )


def _readings(plan: Plan, now: datetime) -> Iterator[PortReading]:
    for number, port in enumerate(planned_ports(plan)):
        watts = None
        if port.expected_w is not None:
            watts = round(port.expected_w * (0.92 + 0.03 * (number % 5)), 1)
        yield PortReading(
            switch=port.switch,
            port=port.port,
            device=port.device,
            cable=port.cable,
            mbps=port.mbps,
            watts=watts,
            at=now,
            author="stand-in meter",
        )


def _walk(design: Design, now: datetime) -> MeasuredWalk:
    """Return the levels that a meter read in the rooms, a few metres apart."""
    catalogue, storeys = load_catalogue(), storeys_of(design)
    spots = [
        (floor, at)
        for floor, at in spots_of(design)
        if (room := storeys.room_at(floor, at)) is not None
        and room.id not in _UNWALKED
        and room.use != "none"
    ]
    hidden = Hidden(offset_db=1.0, noise_db=1.5)
    readings = surveyed(as_planned(design), catalogue, hidden, spots, seed=7)
    return MeasuredWalk(
        at=now, author="stand-in meter", name="Walk before hand-over", readings=tuple(readings)
    )


def _snag(
    key: str, what: str, by: str, at: datetime, owner: str, due: date | None = None, closed: bool = False
) -> SnagRecord:
    return SnagRecord(
        key=f"demo-{key}-{'closed' if closed else 'open'}",
        snag=key,
        what=what,
        owner=owner,
        due=due,
        state="closed" if closed else "open",
        at=at,
        author=by,
    )
