"""The end of the job: as built, what was proven, what is still open, what the client is told."""

from .assess import (
    CheckItem,
    DeviceState,
    Handover,
    Left,
    OpenPoint,
    Promise,
    Proof,
    RoomProof,
    Seen,
    device_states,
    open_points,
    promises_of,
)
from .built import Difference, differences
from .joining import Join, Reach, joins_of, reach_of, wifi_code
from .restart import after_a_power_cut

__all__ = [
    "CheckItem",
    "DeviceState",
    "Difference",
    "Handover",
    "Join",
    "Left",
    "OpenPoint",
    "Promise",
    "Proof",
    "Reach",
    "RoomProof",
    "Seen",
    "after_a_power_cut",
    "device_states",
    "differences",
    "joins_of",
    "open_points",
    "promises_of",
    "reach_of",
    "wifi_code",
]
