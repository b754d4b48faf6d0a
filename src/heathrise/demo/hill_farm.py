"""A made-up farm on a hill: a small house, and six places over its land that want a network."""

from __future__ import annotations

from ..core.catalogue import load_catalogue
from ..core.design import (
    Building,
    ClientGroup,
    Complaint,
    Design,
    EquipmentRoom,
    FarPoint,
    Grove,
    LineEntry,
    Network,
    Panel,
    Site,
    Socket,
    Switch,
    UsualRoute,
    WirelessName,
)
from .drafting import Drawing, Room

NAME = "Thistlefold Farm"
TEACHES = (
    "A small house with a lot of land: a gate over the drive, a pond, a lambing shed with a supply of "
    "its own, a weather mast. Every way to each of them stands side by side, as cells or as one mesh."
)

GROUND = [
    Room("Boot room", (0, 0, 4, 3), "none", stairs=False),
    Room("Office", (4, 0, 8, 3), "calls"),
    Room("Kitchen", (0, 3, 8, 8), "calls"),
    Room("Parlour", (8, 0, 13, 8), "everyday"),
    Room("Yard", (0, -10, 13, 0), "everyday", outdoor=True),
]
# id, building, name, level, elevation, ceiling, slab, overhead
FLOORS = [("ground", "house", "Ground floor", 0, 0.0, 2.4, "floor-timber", "attic")]
# id, name, what, at, height, clients, cameras, doors, sensors, power, land
PLACES = [
    ("far-gate", "Drive gate", "gate", (-38.0, -112.0), -3.0, 0, 1, 1, 0, "none", "drive"),
    ("far-shed", "Lambing shed", "outbuilding", (86.0, 24.0), 1.5, 6, 3, 0, 8, "own_supply", "lawn"),
    ("far-barn", "Hay barn", "outbuilding", (44.0, 60.0), 2.0, 2, 1, 0, 4, "socket", "lawn"),
    ("far-pond", "Mill pond", "pond", (-96.0, 34.0), -4.0, 0, 0, 0, 2, "none", "lawn"),
    ("far-mast", "Weather mast", "tower", (38.0, 262.0), 24.0, 0, 1, 0, 3, "none", "lawn"),
    ("far-fold", "High fold", "field", (168.0, 138.0), 14.0, 4, 1, 0, 6, "none", "lawn"),
]


def hill_farm() -> Design:
    """Return the farm as a design: its house drawn and equipped, its land as it was walked."""
    losses = load_catalogue().constructions
    drawing = Drawing()
    drawing.add(
        Site(
            id="site",
            kind="home",
            line_mbps=120,
            line_up_mbps=30,
            line_kind="dsl",
            upstream_gear="Entry box",
            client_name="H. Fold",
            contact="Installer's workshop, weekdays 8 to 17",
            visited_on="2026-11-16",
            start_on="2027-02-01",
            due_on="2027-03-12",
            budget=38_000.0,
            cables_per_access_point=1,
        ),
        Building(id="house", name="Farmhouse", built=1874),
    )
    drawing.storeys(FLOORS)
    drawing.rooms("ground", GROUND, "stone", "brick-single", lambda c: losses[c].loss_db["5"])
    for x, y in ((4.0, 1.5), (2.0, 3), (8.0, 5)):
        drawing.opening("ground", x, y, 0.8, "door-hollow")
    for x, y in ((6.0, 0), (10.5, 0), (4.0, 8)):
        drawing.opening("ground", x, y, 1.2, "glass-clear", "window")
    for kind, name, model, at, height_m, mount in (
        ("access_point", "AP-1", "ravelmoor-c2", (6.0, 4.6), 2.4, "ceiling"),
        ("access_point", "AP-2", "ravelmoor-c2", (10.5, 4.0), 2.4, "ceiling"),
        ("access_point", "AP-3", "ravelmoor-x5", (6.5, -0.15), 2.6, "wall"),
        ("router", "Router", "harrowfen-r4", (4.3, 2.0), 1.0, "desk"),
        ("outlet", "Office desk", "outlet-single", (7.8, 1.4), 0.4, "wall"),
    ):
        drawing.device("ground", kind, name, model, at, height_m, mount)
    drawing.add(
        EquipmentRoom(id="rack", floor="ground", name="Office shelf", at=(4.4, 2.6)),
        Switch(id="sw-1", equipment_room="rack", name="SW-1", model="dunthrip-s8"),
        Panel(id="panel-1", floor="ground", name="Panel", at=(0.1, 1.0), azimuth_deg=90.0),
        Socket(id="socket-1", floor="ground", name="Office socket", at=(4.2, 2.2)),
        LineEntry(id="line-1", floor="ground", name="Line, over the yard", at=(4.1, 0.2)),
        Complaint(
            id="pain-1",
            floor="ground",
            kind="slow",
            at=(10.5, 4.0),
            words="The parlour has one bar at night.",
        ),
        ClientGroup(id="who-1", space="ground-kitchen", kind="phone", count=3),
        ClientGroup(id="who-2", space="ground-office", kind="desk_computer", count=1, wired=1),
        UsualRoute(id="walk-1", from_space="ground-kitchen", to_space="ground-parlour"),
        *_land(),
        *_networks(),
    )
    return drawing.design()


def _land() -> list[FarPoint | Grove]:
    """Return the places, with what was walked off between the house and two of them."""
    walked: dict[str, dict[str, object]] = {
        "far-fold": {"profile": ((40, 3.0), (90, 6.5), (150, 9.0))},
        "far-mast": {"profile": ((60, 5.0), (130, 9.0), (200, 18.0)), "mast_m": 6.0},
        "far-gate": {"trees": ((60, 74, 6.0, 0.3),)},
    }
    places: list[FarPoint | Grove] = [
        FarPoint.model_validate(
            {
                "id": key,
                "name": name,
                "what": what,
                "at": at,
                "ground_m": ground,
                "clients": clients,
                "cameras": cameras,
                "doors": doors,
                "sensors": sensors,
                "power": power,
                "land": land,
                "services_known": False,
                "room": "rack",
                **walked.get(key, {}),
            }
        )
        for key, name, what, at, ground, clients, cameras, doors, sensors, power, land in PLACES
    ]
    # The wood below the fold grows into its line.
    wood = ((72.0, 66.0), (86.0, 54.0), (103.0, 64.0), (112.0, 84.0), (98.0, 97.0), (79.0, 87.0))
    return [*places, Grove(id="grove-wood", name="Fold wood", outline=wood, height_m=7.0, clear_m=1.5)]


def _networks() -> list[Network | WirelessName]:
    return [
        Network(
            id="net-main", name="Farm", purpose="main", vlan=10, subnet="192.168.10.0/24", expected_clients=30
        ),
        Network(
            id="net-guest",
            name="Guests",
            purpose="guest",
            vlan=20,
            subnet="192.168.20.0/24",
            expected_clients=10,
            client_isolation=True,
        ),
        WirelessName(id="ssid-main", network="net-main", ssid="Thistlefold"),
        WirelessName(id="ssid-guest", network="net-guest", ssid="Thistlefold guests", client_isolation=True),
    ]
