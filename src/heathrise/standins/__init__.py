"""Small stand-ins for what is not here: a cable tester, a meter at the ports, a surveyor."""

from .cable_tester import FAULTS, measured_csv
from .meter import METER_FAULTS, measured_speeds, metered_csv
from .surveyor import Hidden, spots_of, surveyed_csv

__all__ = [
    "FAULTS",
    "METER_FAULTS",
    "Hidden",
    "measured_csv",
    "measured_speeds",
    "metered_csv",
    "spots_of",
    "surveyed_csv",
]
