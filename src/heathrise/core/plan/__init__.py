"""The drawing itself: storeys that contradict each other, devices where they cannot be."""
