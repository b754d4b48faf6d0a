"""A made-up house in a terrace: one old cable from the door to where the router has to stand."""

from __future__ import annotations

from ..core.catalogue import load_catalogue
from ..core.design import (
    Building,
    ClientGroup,
    Complaint,
    Design,
    EquipmentRoom,
    LineEntry,
    Network,
    OldCable,
    Panel,
    Riser,
    Site,
    Socket,
    Switch,
    UsualRoute,
    WirelessName,
)
from .drafting import Drawing, Room

NAME = "14 Weavers' Row"
TEACHES = (
    "A small house with one cable: the line comes in at the door, router and television stand at the other "
    "end of the house, and nothing may be opened. Two small switches let it carry all of it."
)

GROUND = [
    Room("Porch", (0, 0, 1.8, 2), "none"),
    Room("Hall", (0, 2, 1.8, 9), "everyday", stairs=True),
    Room("Front room", (1.8, 0, 5.5, 4.5), "everyday"),
    Room("Living room", (1.8, 4.5, 5.5, 9), "calls"),
    Room("Kitchen", (0, 9, 5.5, 12), "everyday"),
    Room("Yard", (0, 12, 5.5, 17), "everyday", outdoor=True),
]
UPPER = [
    Room("Landing", (0, 2, 1.8, 9), "everyday", stairs=True),
    Room("Bath", (0, 0, 1.8, 2), "none", walls="wet-wall"),
    Room("Bedroom", (1.8, 0, 5.5, 4.5), "everyday"),
    Room("Study", (1.8, 4.5, 5.5, 9), "calls"),
    Room("Back bedroom", (0, 9, 5.5, 12), "everyday"),
]
# id, building, name, level, elevation, ceiling, slab, overhead
FLOORS = [
    ("ground", "house", "Ground floor", 0, 0.0, 2.6, "floor-timber", "joists"),
    ("upper", "house", "Upper floor", 1, 2.9, 2.4, "floor-timber", "attic"),
]


def terrace_house() -> Design:
    """Return the house as a design: drawn, equipped, with its one cable kept as it tests."""
    losses = load_catalogue().constructions
    drawing = Drawing()
    drawing.add(
        Site(
            id="site",
            kind="home",
            line_mbps=500,
            line_up_mbps=100,
            line_kind="fibre",
            television=True,
            upstream_gear="Entry box",
            client_name="I. Loom",
            contact="Installer's workshop, weekdays 8 to 17",
            visited_on="2026-11-09",
            start_on="2026-12-07",
            due_on="2026-12-09",
            budget=4_500.0,
            house_rules=("no_visible_cable",),
            cables_per_access_point=1,
            width_5ghz_mhz=80,
        ),
        Building(id="house", name="House", built=1908),
    )
    drawing.storeys(FLOORS)
    for key, rooms, inner in (("ground", GROUND, "brick-single"), ("upper", UPPER, "plasterboard")):
        drawing.rooms(key, rooms, "brick-cavity", inner, lambda c: losses[c].loss_db["5"])
    for floor, x, y in (
        ("ground", 0.9, 2),
        ("ground", 1.8, 3),
        ("ground", 1.8, 6),
        ("ground", 0.9, 9),
        ("upper", 0.9, 2),
        ("upper", 1.8, 3),
        ("upper", 1.8, 6),
        ("upper", 0.9, 9),
    ):
        drawing.opening(floor, x, y, 0.8, "door-hollow")
    for floor, x, y, wide in (
        ("ground", 3.6, 0, 1.6),
        ("ground", 3.6, 12, 1.6),
        ("upper", 3.6, 0, 1.4),
        ("upper", 3.6, 12, 1.4),
    ):
        drawing.opening(floor, x, y, wide, "glass-clear", "window")
    for floor, kind, name, model, at, height_m, mount in (
        ("ground", "access_point", "AP-1", "ravelmoor-c2", (2.6, 6.6), 2.6, "ceiling"),
        ("upper", "access_point", "AP-2", "ravelmoor-c2", (2.4, 4.0), 2.4, "ceiling"),
        ("upper", "access_point", "AP-3", "ravelmoor-c2", (2.8, 10.6), 2.4, "ceiling"),
        ("ground", "router", "Router", "harrowfen-r4", (5.2, 8.4), 0.6, "desk"),
        ("upper", "outlet", "Study desk", "outlet-single", (5.4, 6.5), 0.4, "wall"),
    ):
        drawing.device(floor, kind, name, model, at, height_m, mount)
    drawing.add(
        EquipmentRoom(id="rack", floor="ground", name="Porch shelf", at=(0.3, 1.4)),
        Switch(id="sw-1", equipment_room="rack", name="SW-1", model="dunthrip-s8"),
        Panel(id="panel-1", floor="ground", name="Panel", at=(1.8, 0.6), azimuth_deg=270.0),
        Socket(id="socket-1", floor="ground", name="Porch socket", at=(0.1, 1.2)),
        Socket(id="socket-2", floor="ground", name="Television socket", at=(5.4, 8.0)),
        Riser(
            id="riser-1",
            building="house",
            name="Beside the stairs",
            at=(0.2, 8.6),
            lowest_level=0,
            highest_level=1,
        ),
        *_brief(),
        *_networks(),
    )
    return drawing.design()


def _brief() -> list[Complaint | ClientGroup | OldCable | LineEntry | UsualRoute]:
    return [
        LineEntry(id="line-1", floor="ground", name="Line, from the street", at=(0.2, 0.8)),
        OldCable(
            id="old-1",
            floor="ground",
            name="Grey cable to the television",
            a=(0.4, 1.4),
            b=(5.2, 8.6),
            category="5e",
            condition="good",
            tested_mbps=1000,
            state="keep",
        ),
        Complaint(id="pain-1", floor="upper", kind="drops", at=(3.6, 6.6), words="Calls freeze there."),
        Complaint(id="pain-2", floor="ground", kind="heap", at=(0.4, 1.2), words="The box fills the porch."),
        ClientGroup(id="who-1", space="ground-living-room", kind="phone", count=3),
        ClientGroup(id="who-2", space="upper-study", kind="desk_computer", count=1, wired=1),
        UsualRoute(id="walk-1", from_space="ground-kitchen", to_space="upper-study"),
    ]


def _networks() -> list[Network | WirelessName]:
    return [
        Network(
            id="net-main",
            name="Family",
            purpose="main",
            vlan=10,
            subnet="192.168.10.0/24",
            expected_clients=20,
        ),
        Network(
            id="net-guest",
            name="Guests",
            purpose="guest",
            vlan=20,
            subnet="192.168.20.0/24",
            expected_clients=8,
            client_isolation=True,
        ),
        WirelessName(id="ssid-main", network="net-main", ssid="Weavers"),
        WirelessName(id="ssid-guest", network="net-guest", ssid="Weavers guests", client_isolation=True),
    ]
