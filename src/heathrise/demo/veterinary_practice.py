"""A made-up veterinary practice: a lead-lined X-ray room, kennels in a yard, a flat above."""

from __future__ import annotations

from ..core.catalogue import load_catalogue
from ..core.design import (
    Building,
    Design,
    Duct,
    EquipmentRoom,
    Injector,
    Light,
    MainsRoute,
    Network,
    OwnFigure,
    Panel,
    PortPin,
    RackPlace,
    Riser,
    Run,
    Site,
    Socket,
    Switch,
    Uplink,
    WayPoint,
    WirelessName,
)
from .briefs import practice_brief
from .drafting import Drawing, Room, turned_point

NAME = "Hollin Lane Veterinary Practice"
TEACHES = (
    "A small business taken over as it grew: five racks one behind the other, switches of every "
    "sort, and networks that somebody numbered in a hurry; round a lead-lined X-ray room."
)
TURN_DEG = 20.0
CORNER = (0.0, 0.0)

GROUND = [
    Room("Reception", (0, 0, 7, 5), "calls"),
    Room("Waiting room", (0, 5, 7, 10), "everyday"),
    Room("Passage", (7, 4, 20, 6), "calls"),
    Room("Consulting 1", (7, 0, 11, 4), "calls"),
    Room("Consulting 2", (11, 0, 15, 4), "calls"),
    Room("Pharmacy", (15, 0, 20, 4), "everyday", walls="block-light"),
    Room("X-ray", (7, 6, 11, 10), "everyday", walls="metal", lined=True),
    Room("Preparation", (11, 6, 15, 10), "calls", walls="wet-wall"),
    Room("Theatre", (15, 6, 20, 10), "calls", walls="wet-wall"),
    Room("Stairs", (20, 4, 23, 10), "calls", walls="brick-single", stairs=True),
    Room("Comms cupboard", (20, 0, 23, 4), "none", walls="block-light"),
    Room("Yard", (0, -14, 23, 0), "everyday", outdoor=True),
]
FLAT = [
    Room("Living room", (0, 0, 8, 5), "calls"),
    Room("Kitchen", (0, 5, 5, 10), "everyday", walls="wet-wall"),
    Room("Hall", (5, 5, 15, 10), "everyday"),
    Room("Bedroom 1", (8, 0, 15, 5), "everyday"),
    Room("Bedroom 2", (15, 0, 20, 10), "everyday"),
    Room("Landing", (20, 4, 23, 10), "everyday", walls="brick-single"),
]
KENNELS = [
    Room("Dog kennels", (2, -22, 14, -16), "everyday", walls="block-dense"),
    Room("Feed store", (14, -22, 18, -16), "none", walls="block-dense"),
]
CABIN = [Room("Isolation ward", (27, -22, 33, -17), "everyday")]
STABLE = [Room("Stable office", (90, -8, 95, -3), "everyday")]
HAYLOFT = [Room("Hay loft", (90, -8, 95, -3), "none")]

# id, building, name, level, elevation, ceiling, slab, overhead
FLOORS = [
    ("ground", "practice", "Practice", 0, 0.0, 2.7, "floor-concrete", "ceiling_void"),
    ("flat", "practice", "Flat above", 1, 3.1, 2.5, "floor-concrete", "attic"),
    ("kennels", "kennels", "Kennels", 0, 0.0, 2.6, "floor-concrete", "raceway"),
    ("cabin", "cabin", "Isolation ward", 0, 0.2, 2.4, "floor-timber", "raceway"),
    ("stable", "stable", "Stable office", 0, 0.0, 2.4, "floor-timber", "joists"),
    # Nobody entered how high it stands.
    ("hayloft", "stable", "Hay loft", 1, 0.0, 2.2, "floor-timber", "attic"),
]
ACCESS_POINTS = [
    ("ground", "AP-1", "ravelmoor-c4", (4.0, 5.0), 2.7),
    ("ground", "AP-2", "ravelmoor-c4", (11.0, 4.6), 2.7),
    ("ground", "AP-3", "ravelmoor-c4", (17.0, 5.4), 2.7),
    ("ground", "AP-4", "ravelmoor-c2", (9.0, 8.0), 2.7),  # behind the lead
    ("flat", "AP-5", "ravelmoor-c6", (6.5, 5.0), 2.5),
    ("flat", "AP-6", "ravelmoor-c6", (16.0, 6.0), 2.5),
    ("kennels", "AP-7", "ravelmoor-c4", (8.0, -19.0), 2.6),
    ("cabin", "AP-8", "ravelmoor-c2", (30.0, -19.5), 2.4),
    ("stable", "AP-9", "ravelmoor-c2", (92.5, -5.5), 2.4),
    ("hayloft", "AP-10", "ravelmoor-t3", (93.0, -4.0), 1.0),  # on the air, from a socket
]


def veterinary_practice() -> Design:
    """Return the practice as a design: drawn, equipped, with what it was taken over with."""
    losses = load_catalogue().constructions
    drawing = Drawing()
    drawing.add(
        Site(
            id="site",
            kind="clinic",
            line_mbps=300,
            upstream_subnet="the provider's box",
            cables_per_access_point=1,
            cords_m=15.0,
            client_name="Hollin Lane Practice",
            contact="Installer's workshop, weekdays 8 to 17",
            visited_on="2026-09-14",
            start_on="2026-11-20",
            due_on="2026-11-16",
            quiet_hour="12:00",
            budget=19_500.0,
            line_kind="coax",
            line_up_mbps=40,
            upstream_gear="The provider's box",
        ),
        Building(id="practice", name="Practice"),
        Building(id="kennels", name="Kennels", roof="roof-metal"),
        Building(id="cabin", name="Isolation ward"),
        Building(id="stable", name="Stable"),
    )
    drawing.storeys(FLOORS)
    for key, rooms, outer in (
        ("ground", GROUND, "brick-cavity"),
        ("flat", FLAT, "brick-cavity"),
        ("kennels", KENNELS, "block-dense"),
        ("cabin", CABIN, "metal"),
        ("stable", STABLE, "timber-clad"),
        ("hayloft", HAYLOFT, "timber-clad"),
    ):
        drawing.rooms(key, rooms, outer, "plasterboard", lambda c: losses[c].loss_db["5"])
    _openings(drawing)
    _gear(drawing)
    _mains(drawing)
    for building in ("practice", "kennels", "cabin", "stable"):
        drawing.turn(building, TURN_DEG, CORNER)
    _networks(drawing)
    drawing.add(*practice_brief(lambda at: turned_point(at, TURN_DEG, CORNER)))
    return drawing.design()


def _openings(drawing: Drawing) -> None:
    for floor, x, y, kind in (
        ("ground", 3, 5, "door-hollow"),
        ("ground", 7, 4.7, "door-hollow"),
        ("ground", 9, 4, "door-hollow"),
        ("ground", 13, 4, "door-hollow"),
        ("ground", 17, 4, "door-solid"),
        ("ground", 13, 6, "door-solid"),
        ("ground", 17, 6, "door-solid"),
        ("ground", 20, 5, "door-solid"),
        ("ground", 21, 4, "door-solid"),
        ("ground", 15, 8, "door-solid"),
        ("flat", 6, 5, "door-hollow"),
        ("flat", 5, 7, "door-hollow"),
        ("flat", 11, 5, "door-hollow"),
        ("flat", 15, 7, "door-hollow"),
        ("flat", 20, 7, "door-solid"),
        ("kennels", 14, -19, "door-solid"),
        ("cabin", 30, -17, "door-solid"),
    ):
        drawing.opening(floor, x, y, 0.9, kind)
    for floor, east, north in (
        ("ground", 3, 0),
        ("ground", 0, 7.5),
        ("ground", 9, 0),
        ("ground", 13, 0),
        ("flat", 4, 0),
        ("flat", 11, 0),
        ("flat", 17.5, 0),
        ("flat", 2.5, 10),
        ("stable", 92.5, -8),
    ):
        drawing.opening(floor, east, north, 1.6, "glass-coated", "window")


def _gear(drawing: Drawing) -> None:
    for floor, name, model, at, height_m in ACCESS_POINTS:
        mount = "desk" if model == "ravelmoor-t3" else "ceiling"
        drawing.device(floor, "access_point", name, model, at, height_m, mount)
    for floor, name, model, at, azimuth in (
        ("ground", "CAM-1", "peltwick-turret", (0.1, -0.1), 225.0),
        ("kennels", "CAM-2", "peltwick-dome", (2.3, -16.3), 135.0),
        ("kennels", "CAM-3", "peltwick-dome", (13.7, -21.7), 315.0),
        ("kennels", "CAM-4", "peltwick-pan", (17.9, -15.9), 45.0),
    ):
        reduced = name == "CAM-4"  # its switch gives no class 4
        drawing.device(floor, "camera", name, model, at, 2.4, "wall", azimuth_deg=azimuth, reduced=reduced)
    # A high valley: nights are colder there than is planned for elsewhere.
    drawing.add(OwnFigure(id="own-coldest", figure="install.coldest_c", value=-35.0))
    for floor, name, at in (("kennels", "GW-1", (9.0, -16.3)), ("stable", "GW-2", (94.7, -5.0))):
        model = "quillbeck-hub" if floor == "kennels" else "quillbeck-gate"  # the hub wants a socket
        drawing.device(floor, "sensor_gateway", name, model, at, 2.3, "wall")
    for floor, name, at in (
        ("ground", "Reception desk", (0.2, 2.0)),
        ("ground", "Till", (6.8, 2.0)),
        ("ground", "Consulting 1 desk", (7.2, 1.0)),
        ("ground", "Consulting 2 desk", (14.8, 1.0)),
        ("ground", "X-ray plate reader", (10.8, 9.0)),
        ("ground", "Theatre monitor", (19.8, 8.0)),
        ("flat", "Flat desk", (8.2, 1.5)),
    ):
        drawing.device(floor, "outlet", name, "outlet-double", at, 0.3, "wall")
    drawing.add(
        EquipmentRoom(
            id="rack",
            floor="ground",
            name="Comms cupboard",
            at=(22.0, 0.4),
            frame="fellgate-w6",
            battery="staddle-b6",
        ),
        # The office's old battery hums in the flat's hall.
        EquipmentRoom(id="rack-flat", floor="flat", name="Flat shelf", at=(14.7, 8.0), battery="staddle-b15"),
        EquipmentRoom(id="rack-kennels", floor="kennels", name="Kennels shelf", at=(17.0, -17.0)),
        EquipmentRoom(id="rack-cabin", floor="cabin", name="Ward shelf", at=(32.5, -17.5)),
        EquipmentRoom(id="rack-stable", floor="stable", name="Stable shelf", at=(90.6, -3.6)),
        Run(id="r-ap-5", device="ap-5", category="6"),
        Run(id="r-ap-9", device="ap-9", equipment_room="rack"),
        Run(id="r-ap-10", device="ap-10", over_air=True),
        Injector(id="inj-1", device="ap-5", model="peltwick-i60"),
        Injector(id="inj-2", device="ap-6", model="peltwick-i60"),
        Uplink(id="u-flat", room="rack-flat", to="rack"),
        Uplink(id="u-kennels", room="rack-kennels", to="rack-flat"),
        Uplink(id="u-stable", room="rack-stable", to="rack", medium="copper"),
        Riser(
            id="riser-1",
            building="practice",
            name="Stair shaft",
            at=(22.6, 4.6),
            lowest_level=0,
            highest_level=1,
        ),
        Switch(id="sw-1", equipment_room="rack", name="SW-1", model="dunthrip-s16"),
        Switch(id="sw-2", equipment_room="rack", name="SW-2", model="dunthrip-u16"),
        Switch(id="sw-3", equipment_room="rack-flat", name="SW-3", model="dunthrip-u16"),
        Switch(id="sw-4", equipment_room="rack-kennels", name="SW-4", model="dunthrip-s8"),
        Switch(id="sw-5", equipment_room="rack-kennels", name="SW-5", model="dunthrip-s8"),
        Switch(id="sw-6", equipment_room="rack-cabin", name="SW-6", model="dunthrip-s8"),
        # Noted on the old switch, which had more ports than the one that replaced it.
        WayPoint(id="point-1", device="ap-2", floor="ground", at=_turned((5.0, -3.0))[0]),
        PortPin(id="pin-1", switch="sw-1", port=22, device="ap-1"),
    )
    drawing.add(
        Duct(
            id="duct-yard",
            name="Yard duct",
            from_floor="ground",
            to_floor="kennels",
            path=_turned((22.0, 0.0), (22.0, -10.0), (17.0, -16.0)),
            depth_m=0.5,
        ),
        Duct(
            id="duct-paddock",
            name="Paddock duct",
            from_floor="ground",
            to_floor="stable",
            path=_turned((23.0, 1.0), (60.0, -2.0), (90.0, -4.0)),
            depth_m=0.6,
        ),
    )


def _mains(drawing: Drawing) -> None:
    """The practice's panel stands behind the till, the flat's where the rack was hung later."""
    drawing.add(
        Panel(id="panel-1", floor="ground", name="Panel", at=(7.0, 2.2), azimuth_deg=270.0),
        Panel(id="panel-2", floor="ground", name="Panel of the flat", at=(22.2, 0.0), azimuth_deg=0.0),
        Socket(id="socket-1", floor="ground", name="Cupboard socket", at=(21.0, 0.1), height_m=1.2),
        Socket(id="socket-2", floor="ground", name="Reception socket", at=(0.1, 1.0), panel="panel-1"),
        Socket(id="socket-3", floor="flat", name="Hall socket", at=(14.9, 8.6), panel="panel-2"),
        Socket(id="socket-4", floor="kennels", name="Feed store socket", at=(14.2, -21.0)),
        Socket(id="socket-5", floor="cabin", name="Ward socket", at=(32.8, -17.3), height_m=0.9),
        Socket(id="socket-6", floor="hayloft", name="Loft socket", at=(90.2, -7.6)),
        Panel(id="panel-3", floor="stable", name="Stable panel", at=(95.0, -7.0), azimuth_deg=270.0),
        Light(id="light-1", floor="ground", name="Passage light", at=(11.15, 4.7)),
        Light(id="light-2", floor="ground", name="Reception light", at=(3.5, 2.5)),
        Light(id="light-3", floor="kennels", name="Kennel light", at=(6.0, -18.5)),
        MainsRoute(id="mains-1", floor="ground", name="Yard light feed", path=((7.0, 2.2), (9.0, 0.0))),
        RackPlace(id="place-1", equipment_room="rack-kennels", thing="panel:9", unit=3),
        RackPlace(id="place-2", equipment_room="rack", thing="switch:sw-1", unit=4),
    )


def _turned(*points: tuple[float, float]) -> tuple[tuple[float, float], ...]:
    return tuple(turned_point(p, TURN_DEG, CORNER) for p in points)


def _networks(drawing: Drawing) -> None:
    for key, name, purpose, vlan, subnet, clients, more in (
        ("net-main", "Practice", "main", 10, "192.168.10.0/26", 45, {}),
        ("net-flat", "Flat", "staff", 12, "192.168.10.0/24", 10, {}),
        ("net-guest", "Waiting room", "guest", 20, "192.169.20.0/24", 30, {"reaches": ("net-main",)}),
        ("net-devices", "X-ray and scales", "devices", 30, "192.168.30.0/33", 12, {}),
        ("net-cameras", "Cameras", "cameras", 30, "192.168.40.0/24", 8, {"reaches": ("net-main",)}),
    ):
        drawing.add(
            Network.model_validate(
                {
                    "id": key,
                    "name": name,
                    "purpose": purpose,
                    "vlan": vlan,
                    "subnet": subnet,
                    "expected_clients": clients,
                    **more,
                }
            )
        )
    for number, (network, ssid) in enumerate(
        (
            ("net-main", "Hollin Lane"),
            ("net-flat", "Hollin flat"),
            ("net-guest", "Hollin guest"),
            ("net-devices", "Hollin things"),
            ("net-guest", "Hollin guest"),
        ),
        start=1,
    ):
        drawing.add(WirelessName.model_validate({"id": f"ssid-{number}", "network": network, "ssid": ssid}))
