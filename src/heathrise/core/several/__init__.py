"""Many things at once: moved, copied, turned, mirrored, brought into line, drawn on the storey above."""

from __future__ import annotations

from .gestures import drawn
from .hand import Gesture

__all__ = ["Gesture", "drawn"]
