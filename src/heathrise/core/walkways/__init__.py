"""Where one can walk: through doors and gaps, over stairs and the open ground between buildings.

Storeys of about one height are one plane of square cells, a step leads from each to its eight
neighbours. A wall without a door can be stepped through at the price of a long way round, so that
a drawing without doors still has a way, and says what it lacks.
"""

from .ways import Footways, WalkPoint, Way, footways_of, middle_of

__all__ = ["Footways", "WalkPoint", "Way", "footways_of", "middle_of"]
