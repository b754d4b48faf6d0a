"""Beacons of all names together: the share of the air that one radio's own take on each band."""

from __future__ import annotations

from ..base.bands import Band
from ..catalogue import Catalogue
from ..context.on_air import fullest_names
from ..design import Design, Network, WirelessName
from .sheet import beacon_share, lowest_rate_mbps


def beacons_by_band(design: Design, catalogue: Catalogue) -> dict[Band, float]:
    """Return the share of the air that the beacons of one radio take on each band, of the radio with most."""
    networks, rules = design.of(Network), catalogue.rules
    found: dict[Band, float] = {}
    for band in {b for n in design.of(WirelessName).values() for b in n.bands}:
        rates = [
            lowest_rate_mbps(rules, networks[n.network], n) for n in fullest_names(design, catalogue, band)
        ]
        if rates:
            found[band] = sum(beacon_share(rules, 1, 1, rate) for rate in rates)
    return found
