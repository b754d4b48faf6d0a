"""Controller-managed settings: networks, wireless names, radios and switch ports."""

from .assess import SettingsChapter, beacon_findings, fabric_of, settings_sheet, with_hosts
from .beacons import beacons_by_band
from .fabric import INTERNET, Fabric, Host
from .keys import KeyShape, judge_key, make_key
from .leaks import leak_findings
from .membership import Ends
from .networks import NetworkSheet, network_findings
from .packet import PacketHop, PacketWalk, pair_classes, verdict, walk_packet
from .port_findings import port_findings
from .sheet import NameSheet, Plug, PortSheet, SettingsSheet, beacon_share, lowest_rate_mbps

__all__ = [
    "INTERNET",
    "Ends",
    "Fabric",
    "Host",
    "KeyShape",
    "NameSheet",
    "NetworkSheet",
    "PacketHop",
    "PacketWalk",
    "Plug",
    "PortSheet",
    "SettingsChapter",
    "SettingsSheet",
    "beacon_findings",
    "beacon_share",
    "beacons_by_band",
    "fabric_of",
    "judge_key",
    "leak_findings",
    "lowest_rate_mbps",
    "make_key",
    "network_findings",
    "pair_classes",
    "port_findings",
    "settings_sheet",
    "verdict",
    "walk_packet",
    "with_hosts",
]
