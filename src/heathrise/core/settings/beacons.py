"""Beacons of all names together: the share of the air that one radio's own take on each band."""

from __future__ import annotations

from ..base.bands import Band
from ..catalogue import Catalogue
from ..design import Design, Network, WirelessName
from .sheet import beacon_share, lowest_rate_mbps


def beacons_by_band(design: Design, catalogue: Catalogue) -> dict[Band, float]:
    """Return the share of the air that the beacons of one radio take on each band."""
    networks, rules = design.of(Network), catalogue.rules
    found: dict[Band, float] = {}
    for name in design.of(WirelessName).values():
        share = beacon_share(rules, 1, 1, lowest_rate_mbps(rules, networks[name.network]))
        for band in name.bands:
            found[band] = found.get(band, 0.0) + share
    return found
