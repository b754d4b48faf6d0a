"""Where access points are hung: places, what each reaches and costs, the best choice of them."""

from .answers import Sited
from .costs import place_cents
from .places import Wishes
from .rack_places import RackPlaces, rack_places
from .search import search_sites
from .small import best_places, needless
from .wireless_backhaul import MeshView, mesh_view

__all__ = [
    "MeshView",
    "RackPlaces",
    "Sited",
    "Wishes",
    "best_places",
    "mesh_view",
    "needless",
    "place_cents",
    "rack_places",
    "search_sites",
]
