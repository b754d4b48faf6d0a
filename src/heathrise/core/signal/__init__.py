"""Radio: propagation, antennas, coverage, channels and power."""
