"""Every kind of element by its name, each after those that it refers to."""

from __future__ import annotations

from .brief_elements import ClientGroup, Complaint, LineEntry, OldCable, Underlay, UsualRoute, Variant, Zone
from .elements import (
    Building,
    BuriedService,
    Device,
    Duct,
    EquipmentRoom,
    Extender,
    Floor,
    Injector,
    Neighbour,
    Opening,
    OwnFigure,
    PortPin,
    RackPlace,
    Riser,
    Run,
    Site,
    Space,
    Switch,
    Uplink,
    Wall,
    WayPin,
    WayPoint,
)
from .far_elements import FarPoint, Grove
from .guest_elements import Portal, VoucherSet
from .mains_elements import Light, MainsRoute, Panel, Socket
from .network_elements import Membership, Network, Radio, WirelessName
from .practice_elements import Practice
from .values import Element

# In order of dependence: each kind refers only to kinds before it.
KINDS: dict[str, type[Element]] = {
    "site": Site,
    "building": Building,
    "floor": Floor,
    "wall": Wall,
    "opening": Opening,
    "space": Space,
    "riser": Riser,
    "duct": Duct,
    "buried_service": BuriedService,
    "grove": Grove,
    "equipment_room": EquipmentRoom,
    "device": Device,
    "run": Run,
    "way_point": WayPoint,
    "uplink": Uplink,
    "switch": Switch,
    "port_pin": PortPin,
    "way_pin": WayPin,
    "injector": Injector,
    "extender": Extender,
    "network": Network,
    "wireless_name": WirelessName,
    "membership": Membership,
    "radio": Radio,
    "portal": Portal,
    "voucher_set": VoucherSet,
    "neighbour": Neighbour,
    "own_figure": OwnFigure,
    "line_entry": LineEntry,
    "pain": Complaint,
    "client_group": ClientGroup,
    "habit": UsualRoute,
    "zone": Zone,
    "old_cable": OldCable,
    "underlay": Underlay,
    "panel": Panel,
    "far_point": FarPoint,
    "socket": Socket,
    "mains_route": MainsRoute,
    "light": Light,
    "rack_place": RackPlace,
    "practice": Practice,
    "variant": Variant,
}
KIND_OF: dict[type[Element], str] = {cls: kind for kind, cls in KINDS.items()}
MANY_LINES: frozenset[str] = frozenset(field for cls in KINDS.values() for field in cls.LINES)
