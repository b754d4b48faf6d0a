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
from .portal_findings import portal_findings
from .portals import (
    PortalSheet,
    VoucherSheet,
    addresses_for_each,
    guest_rooms,
    portal_sheets,
    usual_terms,
    voucher_sheets,
)
from .sheet import NameSheet, Plug, PortSheet, SettingsSheet, beacon_share, lowest_rate_mbps
from .subnets import host_number, overlap, parse_subnet
from .vouchers import VOUCHER_ALPHABET, as_printed, make_codes, one_in

__all__ = [
    "INTERNET",
    "VOUCHER_ALPHABET",
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
    "PortalSheet",
    "SettingsChapter",
    "SettingsSheet",
    "VoucherSheet",
    "addresses_for_each",
    "as_printed",
    "beacon_findings",
    "beacon_share",
    "beacons_by_band",
    "fabric_of",
    "guest_rooms",
    "host_number",
    "judge_key",
    "leak_findings",
    "lowest_rate_mbps",
    "make_codes",
    "make_key",
    "network_findings",
    "one_in",
    "overlap",
    "pair_classes",
    "parse_subnet",
    "port_findings",
    "portal_findings",
    "portal_sheets",
    "settings_sheet",
    "usual_terms",
    "verdict",
    "voucher_sheets",
    "walk_packet",
    "with_hosts",
]
