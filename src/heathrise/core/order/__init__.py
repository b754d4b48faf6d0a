"""What a plan takes and costs: parts in packs, work by kind of task, the firm's prices."""

from .assess import Order, PartLine, Sum, assess_order
from .packs import Pack, cheapest_cover
from .parts import GROUPS, RACK_PARTS, Bulk, cord_for, disks_for, panelled
from .places import Where, of_link
from .prices import FirmPrice, Item, Prices, items_of, priced_items
from .work import Done, LabourLine, tasks_of

__all__ = [
    "GROUPS",
    "RACK_PARTS",
    "Bulk",
    "Done",
    "FirmPrice",
    "Item",
    "LabourLine",
    "Order",
    "Pack",
    "PartLine",
    "Prices",
    "Sum",
    "Where",
    "assess_order",
    "cheapest_cover",
    "cord_for",
    "disks_for",
    "items_of",
    "of_link",
    "panelled",
    "priced_items",
    "tasks_of",
]
