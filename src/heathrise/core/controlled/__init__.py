"""What a controller shall hold beside what it holds: differences, the order of a push, whom it cuts off."""

from .difference import Differs, Held, Value, device_of, differences, normal, same
from .order import PushStep, push_steps
from .tree import Managed, Tree

__all__ = [
    "Differs",
    "Held",
    "Managed",
    "PushStep",
    "Tree",
    "Value",
    "device_of",
    "differences",
    "normal",
    "push_steps",
    "same",
]
