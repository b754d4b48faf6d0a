"""What a plan takes and costs: parts in packs, work by kind of task, the firm's prices."""

from .assess import Order, PartLine, Sum, assess_order
from .packs import cheapest_cover
from .parts import FIBRE_CORD, FIBRE_CORD_M, GROUPS, Bulk, FarParts, RackParts, cord_for, cord_length_m
from .places import Where, of_link
from .work import Done, LabourLine, tasks_of

__all__ = [
    "FIBRE_CORD",
    "FIBRE_CORD_M",
    "GROUPS",
    "Bulk",
    "Done",
    "FarParts",
    "LabourLine",
    "Order",
    "PartLine",
    "RackParts",
    "Sum",
    "Where",
    "assess_order",
    "cheapest_cover",
    "cord_for",
    "cord_length_m",
    "of_link",
    "tasks_of",
]
