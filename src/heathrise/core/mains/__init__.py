"""Mains as they bear on the rest: where their cables lie, what is kept clear, which socket is near."""

from .clear import clear_of, clear_space, footprint
from .lines import MainsLine, mains_lines
from .sockets import NearSocket, made_socket, near_socket

__all__ = [
    "MainsLine",
    "NearSocket",
    "clear_of",
    "clear_space",
    "footprint",
    "made_socket",
    "mains_lines",
    "near_socket",
]
