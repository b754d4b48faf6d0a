"""Many things at once: moved, copied, turned, mirrored, brought into line, drawn on the storey above."""

from __future__ import annotations

from .gestures import drawn
from .hand import Gesture
from .joined import storeys_joined

__all__ = ["Gesture", "drawn", "storeys_joined"]
