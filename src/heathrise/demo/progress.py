"""How far the made-up jobs are: what was said of their steps and of their cables."""

from __future__ import annotations

from datetime import UTC, datetime, timedelta

from ..core.catalogue import load_catalogue
from ..core.design import Design
from ..core.evaluate import evaluate
from ..core.labelling import project_labels
from ..core.records import CableTest, Record, StepRecord
from ..core.working import steps_of

_BEGUN = datetime(2026, 11, 23, 8, 0, tzinfo=UTC)
_DONE_PHASES = ("safe", "rack", "holes", "pull", "ends")
_WORKERS = ("Ann", "Ben")
# Of every so many cables one is not as it should be: what its tester said.
_EVERY = 6
_FAULTS = (
    ("fail", 1.0, "wire map 12345x78, worst margin 0 dB"),
    ("marginal", 1.0, "wire map 12345678, worst margin 0.6 dB"),
    ("pass", 1.4, "wire map 12345678, worst margin 2.2 dB"),
)


def half_installed(design: Design) -> list[Record]:
    """Return the records of a job of which the cables lie, some of them with faults."""
    catalogue = load_catalogue()
    evaluation = evaluate(design, catalogue, "figures")
    found: list[Record] = []
    now = _BEGUN
    for number, step in enumerate(steps_of(design, catalogue, evaluation)):
        if step.phase not in _DONE_PHASES:
            continue
        now += timedelta(minutes=step.minutes)
        blocked = step.phase == "ends" and number % 17 == 0
        words = {"state": "blocked", "reason": "the plaster is still wet"} if blocked else {
            "state": "done", "minutes": round(step.minutes * (0.9 + 0.05 * (number % 6)), 0),
        }  # fmt: skip
        found.append(
            StepRecord.model_validate(
                {"key": f"demo-step-{number:04d}", "step": step.id, "at": now,
                 "author": _WORKERS[number % 2], **words}
            )
        )  # fmt: skip
    runs = {r.id: r for r in evaluation.runs}
    for number, label in enumerate(project_labels(design, evaluation)):
        run = runs.get(label.link)
        if run is None:
            continue
        at_fault = number % _EVERY == _EVERY - 1
        result, longer, note = _FAULTS[(number // _EVERY) % len(_FAULTS)] if at_fault else (
            "pass", 1.0, "wire map 12345678, worst margin 4.1 dB",
        )  # fmt: skip
        length_m = round(run.fixed_m * longer * (0.98 + 0.01 * (number % 4)), 1)
        found.append(
            CableTest.model_validate(
                {"device": run.device, "cable": label.cable, "result": result, "note": note,
                 "length_m": length_m, "at": now, "author": "stand-in tester"}
            )
        )  # fmt: skip
    return found
