"""What cameras see: how sharply, from where on, cut by walls; doors that lie too near to be seen."""

from .findings import sight_findings
from .lens import blind_m, density_px_m, far_m, reach_m
from .seen import LEVELS, CameraView, Level, SeenDoor, SeenZone, views_of

__all__ = [
    "LEVELS",
    "CameraView",
    "Level",
    "SeenDoor",
    "SeenZone",
    "blind_m",
    "density_px_m",
    "far_m",
    "reach_m",
    "sight_findings",
    "views_of",
]
