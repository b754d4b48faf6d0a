"""The three bands, and the frequency in MHz each is planned at."""

from typing import Literal

Band = Literal["2.4", "5", "6"]
BANDS: tuple[Band, ...] = ("2.4", "5", "6")
FREQUENCY_MHZ: dict[Band, float] = {"2.4": 2437.0, "5": 5500.0, "6": 6500.0}
