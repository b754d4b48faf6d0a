"""Where access points are hung: places, what each reaches and costs, the best choice of them."""

from .costs import place_cents
from .places import Wishes
from .search import Sited, search_sites
from .small import best_places, needless

__all__ = ["Sited", "Wishes", "best_places", "needless", "place_cents", "search_sites"]
