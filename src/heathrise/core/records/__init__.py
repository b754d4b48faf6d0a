"""What was observed, apart from what was decided: facts with a time and an author.

Records are appended and never changed; what a later one says of the same thing counts. They are
compared with the plan and are no part of it: undo does not touch them.
"""

from .cables import PlannedCable, TestedCable, as_judged, cables_as_tested
from .kinds import RECORD_KINDS, CableResult, CableTest, Record, StepRecord, StepWords
from .steps import StepStand, steps_as_done

__all__ = [
    "RECORD_KINDS",
    "CableResult",
    "CableTest",
    "PlannedCable",
    "Record",
    "StepRecord",
    "StepStand",
    "StepWords",
    "TestedCable",
    "as_judged",
    "cables_as_tested",
    "steps_as_done",
]
