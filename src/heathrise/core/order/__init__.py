"""What a plan takes and costs: parts in packs, work by kind of task, the firm's prices."""

from .assess import Order, PartLine, Sum, assess_order
from .packs import cheapest_cover
from .parts import GROUPS, RACK_PARTS, Bulk, cord_for, disks_for, panelled
from .places import Where, of_link
from .work import Done, LabourLine, tasks_of

__all__ = [
    "GROUPS",
    "RACK_PARTS",
    "Bulk",
    "Done",
    "LabourLine",
    "Order",
    "PartLine",
    "Sum",
    "Where",
    "assess_order",
    "cheapest_cover",
    "cord_for",
    "disks_for",
    "of_link",
    "panelled",
    "tasks_of",
]
