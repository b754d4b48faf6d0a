"""Made-up sites to open on."""

from .lakeside_home import lakeside_home
from .music_school import music_school

__all__ = ["lakeside_home", "music_school"]
