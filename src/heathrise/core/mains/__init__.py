"""Mains as they bear on the rest: where their cables lie, what is kept clear, which socket is near."""

from .clear import SPACE_FIGURES, clear_of, clear_space, footprint, in_space_said, panels_blocked
from .lines import MainsLine, feeding_panel, mains_lines
from .sockets import NearSocket, made_socket, near_socket

__all__ = [
    "SPACE_FIGURES",
    "MainsLine",
    "NearSocket",
    "clear_of",
    "clear_space",
    "feeding_panel",
    "footprint",
    "in_space_said",
    "made_socket",
    "mains_lines",
    "near_socket",
    "panels_blocked",
]
