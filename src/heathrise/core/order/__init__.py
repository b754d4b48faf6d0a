"""What a plan takes and costs: parts in packs, work by task and place, the firm's prices."""

from .assess import Line, Order, Sum, assess_order
from .holes import Stretch, holes_of
from .labour import Task, climbs_of, pull_minutes
from .links import Link
from .packs import Pack, cheapest_cover
from .parts import GROUPS, Where, cord_for, disks_for
from .prices import FirmPrice, Item, Prices, items_of, priced_items

__all__ = [
    "GROUPS",
    "FirmPrice",
    "Item",
    "Line",
    "Link",
    "Order",
    "Pack",
    "Prices",
    "Stretch",
    "Sum",
    "Task",
    "Where",
    "assess_order",
    "cheapest_cover",
    "climbs_of",
    "cord_for",
    "disks_for",
    "holes_of",
    "items_of",
    "priced_items",
    "pull_minutes",
]
