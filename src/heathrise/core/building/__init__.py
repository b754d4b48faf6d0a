"""The drawing itself: storeys that contradict each other, devices where they cannot be."""

from .assess import PlanChapter, plan_findings
from .placing import mount_height_m
from .stacks import Stack, stacks_of

__all__ = ["PlanChapter", "Stack", "mount_height_m", "plan_findings", "stacks_of"]
