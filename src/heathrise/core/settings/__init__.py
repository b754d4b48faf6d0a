"""Controller-managed settings: networks, wireless names, radios and switch ports."""

from .assess import SettingsChapter, beacon_findings, settings_sheet
from .beacons import beacons_by_band
from .networks import network_findings
from .port_findings import port_findings
from .sheet import Plug, SettingsSheet, beacon_share, lowest_rate_mbps

__all__ = [
    "Plug",
    "SettingsChapter",
    "SettingsSheet",
    "beacon_findings",
    "beacon_share",
    "beacons_by_band",
    "lowest_rate_mbps",
    "network_findings",
    "port_findings",
    "settings_sheet",
]
