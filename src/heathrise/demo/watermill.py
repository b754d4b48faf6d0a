"""A made-up home in a watermill: stone, half-storeys, a steel-lined wheel room, outbuildings."""

from __future__ import annotations

from ..core.catalogue import load_catalogue
from ..core.design import (
    Building,
    BuriedService,
    Design,
    Duct,
    EquipmentRoom,
    Extender,
    FarPoint,
    Injector,
    Light,
    Network,
    OwnFigure,
    Panel,
    Point,
    Radio,
    Riser,
    Run,
    Site,
    Socket,
    Switch,
    WirelessName,
)
from .briefs import mill_brief
from .drafting import Drawing, Room, turned_point

NAME = "Quernbeck Mill"
TEACHES = (
    "A building that works against the signal: stone of 450\u00a0mm, a wheel room lined with "
    "steel, half-storeys, an attic of 45\u00a0°C, a shed over the water and a studio "
    "160\u00a0m away."
)
TURN_DEG = -14.0  # it lies along its stream
CORNER = (0.0, 0.0)

WHEEL_FLOOR = [
    Room("Wheel room", (0, 0, 5, 4.5), "sensors", walls="metal", lined=True),
    Room("Boot hall", (5, 0, 8, 4.5), "everyday"),
    Room("Plant room", (0, 4.5, 3.5, 9), "none", walls="block-dense"),
    Room("Lower stairs", (3.5, 4.5, 8, 9), "calls", stairs=True),
    Room("Great kitchen", (8, 0, 14, 9), "calls", ceiling_m=4.0),
    Room("Mill terrace", (2, -5, 14, 0), "everyday", outdoor=True),
]
STONE_FLOOR = [
    Room("Living room", (0, 0, 8, 5), "calls"),
    Room("Study", (0, 5, 3.5, 9), "calls"),
    Room("Stairs", (3.5, 5, 8, 9), "calls", stairs=True),
]
GRANARY = [
    Room("Main bedroom", (8, 0, 14, 5), "everyday"),
    Room("Bath", (8, 5, 10.5, 9), "none", walls="wet-wall"),
    Room("Dressing room", (10.5, 5, 14, 9), "everyday"),
]
BIN_FLOOR = [
    # Its ceiling was noted up to the ridge: an access point hangs above it.
    Room("Bedroom 2", (0, 0, 4, 5), "everyday", ceiling_m=2.1),
    Room("Bedroom 3", (4, 0, 8, 5), "everyday", ceiling_m=2.1),
    Room("Hoist landing", (0, 5, 8, 9), "calls", ceiling_m=2.1),
]
BOAT_SHED = [Room("Boat bay", (16, -12, 22, -6), "everyday", ceiling_m=3.0)]
STUDIO = [
    # A ceiling of 4.4 m under a sleeping loft 2.4 m up: it is open to it, or was measured wrong.
    Room("Painting room", (0, 0, 7, 6), "calls", ceiling_m=4.4),
    Room("Kiln room", (7, 0, 10, 6), "sensors", walls="block-dense"),
]
STUDIO_LOFT = [Room("Sleeping loft", (0, 0, 4, 6), "everyday")]
STUDIO_AT, STUDIO_TURN_DEG = (150.0, 62.0), 24.0

# id, building, name, level, elevation, ceiling, slab, overhead
FLOORS = [
    ("wheel", "mill", "Wheel floor", 0, 0.0, 2.5, "floor-timber", "joists"),
    ("stone", "mill", "Stone floor", 1, 2.9, 2.5, "floor-timber", "joists"),
    ("granary", "mill", "Granary", 2, 4.4, 2.4, "floor-timber", "attic"),
    ("bin", "mill", "Bin floor", 3, 5.8, 2.1, "floor-timber", "attic"),
    ("shed", "shed", "Boat shed", 0, 0.3, 2.6, "floor-timber", "joists"),
    ("studio", "studio", "Studio", 0, 1.0, 2.8, "floor-timber", "joists"),
    ("loft", "studio", "Sleeping loft", 1, 3.4, 2.2, "floor-timber", "attic"),
]


def watermill() -> Design:
    """Return the mill as a design: drawn, equipped, with what its notes say left to mend."""
    losses = load_catalogue().constructions
    drawing = Drawing()
    drawing.add(
        Site(
            id="site",
            kind="home",
            domain="americas",
            line_mbps=80,
            cables_per_access_point=1,
            width_5ghz_mhz=80,
            client_name="E. Quern",
            contact="Installer's workshop, weekdays 8 to 17",
            visited_on="2026-10-05",
            start_on="2026-11-23",
            due_on="2026-11-27",
            budget=12_500.0,
            house_rules=("listed", "no_visible_cable"),
            line_kind="dsl",
            line_up_mbps=20,
            line_address="pppoe",
            upstream_gear="Bridge box by the lane",
            opens="00:00",
            closes="00:00",
        ),
        Building(id="mill", name="Mill"),
        Building(id="shed", name="Boat shed", roof="roof-metal"),
        Building(id="studio", name="Orchard studio"),
    )
    drawing.storeys(FLOORS)
    for key, rooms, outer in (
        ("wheel", WHEEL_FLOOR, "stone"),
        ("stone", STONE_FLOOR, "stone"),
        ("granary", GRANARY, "stone"),
        ("bin", BIN_FLOOR, "stone"),
        ("shed", BOAT_SHED, "timber-clad"),
        ("studio", STUDIO, "timber-clad"),
        ("loft", STUDIO_LOFT, "timber-clad"),
    ):
        drawing.rooms(key, rooms, outer, "plasterboard", lambda c: losses[c].loss_db["5"])
    _openings(drawing)
    drawing.add(
        EquipmentRoom(id="rack", floor="wheel", name="Plant room shelf", at=(0.4, 8.0), frame="fellgate-w9"),
        Panel(id="panel-1", floor="wheel", name="Panel", at=(0.0, 6.2), azimuth_deg=90.0),
        Socket(id="socket-1", floor="wheel", name="Plant socket", at=(0.1, 7.4), height_m=0.6),
        Socket(id="socket-2", floor="stone", name="Study socket", at=(0.1, 6.2)),
        Light(id="light-1", floor="wheel", name="Kitchen lamp", at=(11.0, 6.0)),
        Light(id="light-2", floor="wheel", name="Table lamp", at=(9.5, 3.0)),
        Riser(
            id="riser-1", building="mill", name="Sack hoist", at=(7.6, 8.6), lowest_level=0, highest_level=3
        ),
        Riser(
            id="riser-2",
            building="studio",
            name="Loft ladder",
            at=(0.4, 5.6),
            lowest_level=0,
            highest_level=1,
        ),
    )
    _devices(drawing)
    drawing.turn("mill", TURN_DEG, CORNER)
    drawing.turn("shed", TURN_DEG, CORNER)
    _studio(drawing)
    _decisions(drawing)
    drawing.add(*mill_brief(_in_mill, _in_studio))
    return drawing.design()


def _in_mill(at: Point) -> Point:
    return turned_point(at, TURN_DEG, CORNER)


def _in_studio(at: Point) -> Point:
    x, y = turned_point(at, STUDIO_TURN_DEG, CORNER)
    return round(x + STUDIO_AT[0], 3), round(y + STUDIO_AT[1], 3)


def _openings(drawing: Drawing) -> None:
    for floor, x, y in (
        ("wheel", 5, 1.2),
        ("wheel", 6.5, 4.5),
        ("wheel", 3.5, 7),
        ("wheel", 8, 6),
        ("stone", 5.5, 5),
        ("stone", 3.5, 7),
        ("granary", 8.8, 5),
        ("granary", 12, 5),
        ("bin", 2, 5),
        ("bin", 6, 5),
        ("studio", 7, 3),
    ):
        drawing.opening(floor, x, y, 0.8, "door-solid")
    for floor, x, y, width in (
        ("wheel", 14, 4.5, 1.4),
        ("stone", 3, 0, 1.2),
        ("stone", 6, 0, 1.2),
        ("granary", 11, 0, 1.2),
        ("bin", 2, 0, 0.9),
        ("bin", 6, 0, 0.9),
    ):
        drawing.opening(floor, x, y, width, "glass-clear", "window")
    drawing.opening("wheel", 11, 0, 2.4, "glass-clear")  # glazed doors
    drawing.opening("studio", 3.5, 0, 3.0, "glass-clear")
    drawing.opening("shed", 19, -12, 3.0, "open-gap", "gap")


def _devices(drawing: Drawing) -> None:
    for floor, name, model, at, height_m, mount in (
        ("wheel", "AP-1", "ravelmoor-c2", (11.0, 4.5), 4.0, "ceiling"),
        ("wheel", "AP-2", "ravelmoor-c2", (2.5, 2.2), 2.5, "ceiling"),  # within the steel
        ("stone", "AP-3", "ravelmoor-c6", (5.5, 4.4), 2.5, "ceiling"),
        ("granary", "AP-4", "ravelmoor-c2", (10.9, 4.4), 2.4, "ceiling"),
        ("bin", "AP-5", "ravelmoor-c2", (4.6, 5.6), 2.6, "ceiling"),  # above its ceiling
        ("wheel", "AP-6", "ravelmoor-t3", (8.0, -2.5), 2.2, "pole"),  # indoor gear on a pole
        ("shed", "AP-7", "ravelmoor-x5", (19.0, -6.2), 2.5, "ceiling"),  # it has no such mount
    ):
        drawing.device(floor, "access_point", name, model, at, height_m, mount)
    for name, at, mount in (("CAM-1", (13.8, -0.1), "wall"), ("CAM-3", (55.0, -7.0), "pole")):
        drawing.device("wheel", "camera", name, "peltwick-turret", at, 2.3, mount, azimuth_deg=135.0)
    drawing.device(
        "wheel", "sensor_gateway", "GW-1", "quillbeck-gate", (6.5, 4.2), 2.4, "wall", splitter="peltwick-d5"
    )
    drawing.device("wheel", "router", "Router", "harrowfen-r4", (1.0, 8.6), 1.0, "desk")
    drawing.device("stone", "outlet", "Television", "outlet-single", (0.2, 2.5), 0.3, "wall")
    drawing.device(
        "stone", "wall_plate", "Study plate", "ravelmoor-w3", (0.2, 7.0), 0.4, "wall", azimuth_deg=90.0
    )
    drawing.device(
        "stone",
        "storage",
        "Study files",
        "corrowby-store-2",
        (0.5, 6.6),
        0.8,
        "desk",
        disks=1,
        redundancy="mirror",
    )


def _studio(drawing: Drawing) -> None:
    """The studio is drawn at the site's corner; all of it is moved out to the orchard."""
    for floor, name, kind, model, at, height_m, mount in (
        ("studio", "AP-8", "access_point", "ravelmoor-c2", (4.5, 3.0), 2.8, "ceiling"),
        ("studio", "CAM-2", "camera", "peltwick-pan", (9.8, -0.1), 2.6, "wall"),
        ("studio", "GW-2", "sensor_gateway", "quillbeck-gate", (7.5, 5.6), 2.2, "wall"),  # the kiln's
    ):
        drawing.device(floor, kind, name, model, at, height_m, mount)
    drawing.turn("studio", STUDIO_TURN_DEG, CORNER)
    drawing.move("studio", STUDIO_AT)
    start = turned_point((14.0, 8.0), TURN_DEG, CORNER)
    drawing.add(
        Duct(
            id="duct-orchard",
            name="Orchard duct",
            from_floor="wheel",
            to_floor="studio",
            path=(start, (60.0, 10.0), (110.0, 38.0), STUDIO_AT),
            depth_m=0.45,
        ),
        # As a paper of the water board has it; nobody has looked.
        BuriedService(
            id="buried-1",
            name="Old water main",
            carries="water",
            path=((48.0, -22.0), (71.0, 18.0), (78.0, 52.0)),
            depth_m=0.8,
        ),
        BuriedService(
            id="buried-2",
            name="Studio feed",
            carries="electricity",
            path=((16.0, -6.0), (62.0, -4.0), (112.0, 33.0)),
            depth_m=0.6,
            found=True,
        ),
        # What else than the duct the studio could be reached over.
        FarPoint(
            id="far-studio",
            name="Studio",
            at=STUDIO_AT,
            ground_m=1.0,
            clients=4,
            cameras=1,
            power="socket",
            profile=((40.0, -0.2), (90.0, 0.4)),
        ),
        # Old pears stand between the mill and the gate; to the stage the line goes over the pond.
        FarPoint(
            id="far-gate",
            name="Orchard gate",
            what="gate",
            at=(96.0, 66.0),
            ground_m=1.4,
            cameras=1,
            doors=1,
            land="trees",
            profile=((30.0, -0.6), (62.0, 0.4), (85.0, 1.0)),
            trees=((48.0, 70.0, 5.5, 0.4),),
        ),
        FarPoint(
            id="far-stage",
            name="Landing stage",
            what="pond",
            at=(74.0, -46.0),
            ground_m=-1.2,
            clients=2,
            cameras=1,
            land="water",
            profile=((18.0, -0.4), (30.0, -2.6), (68.0, -2.6)),
        ),
    )


def _decisions(drawing: Drawing) -> None:
    drawing.add(
        Run(id="r-ap-3", device="ap-3", category="5e"),
        Run(id="r-gw-2", device="gw-2", medium="fibre"),
        Run(id="r-study-files", device="study-files", through="study-plate"),
        Switch(id="sw-1", equipment_room="rack", name="SW-1", model="dunthrip-s8"),
        # The builder's leftover, put half way to the kiln's camera.
        Extender(id="ext-1", device="cam-2", model="peltwick-e1", share=0.5),
        Injector(id="inj-1", device="ap-3", model="peltwick-i15"),
        Radio(id="rd-1", device="ap-8", band="5", power_dbm=23),  # turned up to reach the kiln
        Radio(id="rd-2", device="ap-4", band="2.4", channel=13),  # not open where it stands
        # Set by hand to one channel, and so slow that old sensors still hear it.
        *(
            Radio(id=f"rd-{k + 10}", device=f"ap-{k}", band="2.4", channel=6, power_dbm=17)
            for k in (1, 3, 5, 6)
        ),
        OwnFigure(id="own-1", figure="settings.lowest_rate_mbps.devices", value="1"),
        Network(
            id="net-main", name="Family", purpose="main", vlan=1, subnet="192.168.1.0/24", expected_clients=25
        ),
        Network(
            id="net-devices",
            name="Things",
            purpose="devices",
            vlan=30,
            subnet="192.168.30.0/24",
            reaches=("net-main",),
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
        WirelessName(id="ssid-main", network="net-main", ssid="Quernbeck"),
        WirelessName(id="ssid-guest", network="net-guest", ssid="Quernbeck guests", client_isolation=True),
        WirelessName(
            id="ssid-things",
            network="net-devices",
            ssid="Quernbeck things",
            bands=("2.4",),
            fast_transition=True,  # somebody meant well: old sensors cannot join
        ),
    )
