"""Small stand-ins for devices that are not here: a cable tester."""

from .cable_tester import FAULTS, measured_csv

__all__ = ["FAULTS", "measured_csv"]
