"""Small stand-ins for devices that are not here: a cable tester, a meter at the ports."""

from .cable_tester import FAULTS, measured_csv
from .meter import METER_FAULTS, metered_csv

__all__ = ["FAULTS", "METER_FAULTS", "measured_csv", "metered_csv"]
