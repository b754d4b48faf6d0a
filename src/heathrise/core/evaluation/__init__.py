"""From a design to a chapter for each discipline, its totals, and cures that take a search."""
