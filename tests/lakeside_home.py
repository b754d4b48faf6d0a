"""A made-up home by a lake: three storeys of timber and brick, worked from the attic down."""

from __future__ import annotations

from heathrise.core.catalogue import load_catalogue
from heathrise.core.design import (
    Building,
    Design,
    Device,
    EquipmentRoom,
    Floor,
    Network,
    Riser,
    Site,
    Switch,
    WirelessName,
)
from heathrise.demo.drafting import Drawing, Room

NAME = "Alderness, house by the lake"

LOWER = [
    Room("Games room", (0, 0, 8, 6), "everyday"),
    Room("Workshop", (8, 0, 14, 6), "sensors", walls="block-dense"),
    Room("Utility", (0, 6, 4, 10), "none", walls="block-dense"),
    Room("Lower stairs", (4, 6, 7, 10), "calls"),
    Room("Wine store", (7, 6, 10, 10), "none", walls="concrete"),
    Room("Guest room", (10, 6, 14, 10), "everyday"),
    Room("Jetty deck", (2, -5, 12, 0), "everyday", outdoor=True),
]
MIDDLE = [
    Room("Living room", (0, 0, 8, 6), "calls"),
    Room("Kitchen", (8, 0, 14, 6), "calls"),
    Room("Study", (0, 6, 4, 10), "calls"),
    Room("Stairs", (4, 6, 7, 10), "calls"),
    Room("Cloakroom", (7, 6, 9, 10), "none", walls="wet-wall"),
    Room("Dining room", (9, 6, 14, 10), "everyday"),
]
TOP = [
    Room("Main bedroom", (0, 0, 6, 6), "everyday"),
    Room("Bath", (6, 0, 9, 6), "none", walls="wet-wall"),
    Room("Bedroom 2", (9, 0, 14, 6), "everyday"),
    Room("Bedroom 3", (0, 6, 4, 10), "everyday"),
    Room("Upper stairs", (4, 6, 7, 10), "calls"),
    Room("Closet", (7, 6, 9, 10), "none"),
    Room("Loft office", (9, 6, 14, 10), "calls"),
]


def lakeside_home() -> Design:
    """Return the home as a design, sensibly planned but for what its notes say."""
    losses = load_catalogue().constructions
    drawing = Drawing()
    drawing.add(
        Site(id="site", kind="home", domain="americas", line_mbps=300, cables_per_access_point=1),
        Building(id="house", name="House"),
    )
    for level, (key, name, elevation, overhead) in enumerate(
        (
            ("lower", "Lake level", 0.0, "joists"),
            ("middle", "Main floor", 3.0, "joists"),
            ("top", "Top floor", 6.0, "attic"),
        )
    ):
        drawing.add(
            Floor.model_validate(
                {
                    "id": key,
                    "building": "house",
                    "name": name,
                    "level": level,
                    "elevation_m": elevation,
                    "ceiling_height_m": 2.6,
                    "slab": "floor-timber",
                    "overhead": overhead,
                }
            )
        )
    for key, rooms, outer in (
        ("lower", LOWER, "stone"),
        ("middle", MIDDLE, "timber-clad"),
        ("top", TOP, "timber-clad"),
    ):
        drawing.rooms(key, rooms, outer, "plasterboard", lambda c: losses[c].loss_db["5"])
    _openings(drawing)
    drawing.add(
        EquipmentRoom(id="rack", floor="lower", name="Utility shelf", at=(1.0, 9.0)),
        Riser(
            id="riser-1",
            building="house",
            name="Stair closet",
            at=(4.5, 9.5),
            lowest_level=0,
            highest_level=2,
        ),
    )
    for name, floor, model, x, y, height, mount in (
        ("AP-1", "lower", "ravelmoor-c2", 5.5, 4.0, 2.6, "ceiling"),
        ("AP-2", "middle", "ravelmoor-c2", 7.0, 5.0, 2.6, "ceiling"),
        ("AP-3", "top", "ravelmoor-c2", 6.0, 7.5, 2.6, "ceiling"),
        ("AP-4", "middle", "ravelmoor-c2", 3.0, 7.5, 2.6, "ceiling"),
        ("AP-5", "middle", "ravelmoor-c2", 11.5, 4.0, 2.6, "ceiling"),
    ):
        drawing.add(
            Device.model_validate(
                {
                    "id": name.lower(),
                    "floor": floor,
                    "kind": "access_point",
                    "model": model,
                    "name": name,
                    "at": (x, y),
                    "height_m": height,
                    "mount": mount,
                }
            )
        )
    drawing.add(
        Device(
            id="cam-1",
            floor="lower",
            kind="camera",
            model="peltwick-turret",
            name="CAM-1",
            at=(13.7, 0.3),
            height_m=2.5,
            mount="wall",
            azimuth_deg=135,
        ),
        Device(
            id="out-1",
            floor="middle",
            kind="outlet",
            model="outlet-single",
            name="Television",
            at=(0.3, 3.0),
            height_m=0.3,
            mount="wall",
        ),
        Switch(id="sw-1", equipment_room="rack", name="SW-1", model="dunthrip-s8"),
        Network(
            id="net-main", name="Family", purpose="main", vlan=1, subnet="192.168.1.0/24", expected_clients=25
        ),
        Network(
            id="net-guest",
            name="Guests",
            purpose="guest",
            vlan=20,
            subnet="192.168.20.0/24",
            expected_clients=12,
            client_isolation=True,
        ),
        WirelessName(id="ssid-main", network="net-main", ssid="Alderness"),
        WirelessName(id="ssid-guest", network="net-guest", ssid="Alderness guests", client_isolation=True),
    )
    return drawing.design()


def _openings(drawing: Drawing) -> None:
    for floor, x, y in (
        ("lower", 5.5, 6),
        ("lower", 4, 8),
        ("lower", 7, 8),
        ("lower", 8, 3),
        ("lower", 10, 8),
        ("middle", 5.5, 6),
        ("middle", 4, 8),
        ("middle", 8, 2),
        ("middle", 7, 8),
        ("middle", 11, 6),
        ("top", 5.5, 6),
        ("top", 4, 8),
        ("top", 7, 8),
        ("top", 9, 8),
        ("top", 11, 6),
    ):
        drawing.opening(floor, x, y, 0.8, "door-hollow")
    for floor in ("lower", "middle", "top"):
        for x in (3, 11):
            drawing.opening(floor, x, 0, 2.2, "glass-clear", "window")
        drawing.opening(floor, 14, 8, 1.2, "glass-clear", "window")
