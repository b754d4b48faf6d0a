"""What a controller shall hold beside what it holds: differences, the order of a push, whom it cuts off."""

from .difference import Differs, Held, Value, differences, normal, same
from .order import PushStep, push_steps
from .tree import Managed, Tree

__all__ = [
    "Differs",
    "Held",
    "Managed",
    "PushStep",
    "Tree",
    "Value",
    "differences",
    "normal",
    "push_steps",
    "same",
]
