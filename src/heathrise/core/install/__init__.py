"""What is done on the site: labels, the work list with its cautions, when it is finished."""

from .labels import Cabled, Label, far_end, labels_of
from .schedule import Finish, finish_for
from .steps import PHASES, Opening, Pull, Step, work_list

__all__ = [
    "PHASES",
    "Cabled",
    "Finish",
    "Label",
    "Opening",
    "Pull",
    "Step",
    "far_end",
    "finish_for",
    "labels_of",
    "work_list",
]
