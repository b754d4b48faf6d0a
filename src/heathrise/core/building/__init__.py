"""The drawing itself: storeys that contradict each other, devices where they cannot be."""

from .assess import PlanChapter, plan_findings
from .placing import mount_height_m

__all__ = ["PlanChapter", "mount_height_m", "plan_findings"]
