"""What is done on the site: labels, the work list with its cautions, when it is finished."""

from .cables import Penetration, Pull, Trench
from .far import FarWork, FarWorkTask
from .gear import MountPlace, RackWork, SocketWork, mount_minutes, on_roof
from .labels import PORTS_OF_PANEL, Cabled, Label, far_end, labels_of
from .schedule import Finish, finish_for
from .step import PHASES, TASKS, Step, Work
from .steps import WorkSite, work_list

__all__ = [
    "PHASES",
    "PORTS_OF_PANEL",
    "TASKS",
    "Cabled",
    "FarWork",
    "FarWorkTask",
    "Finish",
    "Label",
    "MountPlace",
    "Penetration",
    "Pull",
    "RackWork",
    "SocketWork",
    "Step",
    "Trench",
    "Work",
    "WorkSite",
    "far_end",
    "finish_for",
    "labels_of",
    "mount_minutes",
    "on_roof",
    "work_list",
]
