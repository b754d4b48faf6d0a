"""A made-up music school: two storeys round a double-height hall, a pavilion across the garden."""

from __future__ import annotations

from ..core.catalogue import load_catalogue
from ..core.context.plan import Plan
from ..core.design import (
    Building,
    Change,
    Design,
    Device,
    Duct,
    Element,
    EquipmentRoom,
    Floor,
    Light,
    Panel,
    Riser,
    Site,
    Socket,
    Switch,
    apply,
    put,
)
from ..core.evaluation.evaluate import evaluate
from ..core.rack import keep_ports
from .briefs import school_brief
from .drafting import Drawing, Room
from .school_networks import add_networks

NAME = "Larkmere Music School"
TEACHES = (
    "Many rooms and many people: a second access point in reach everywhere, channels shared by "
    "fifteen of them, ports and watts that run out, a pavilion at the far end of its cable."
)

GROUND = [
    Room("Hall", (0, 4, 14, 18), "calls", ceiling_m=6.2, open_above=True, walls="brick-single"),
    Room("Foyer", (0, 0, 14, 4), "everyday"),
    Room("Corridor", (14, 8, 40, 10), "calls"),
    Room("Rehearsal room", (14, 10, 23, 18), "everyday", walls="block-dense"),
    Room("Percussion", (23, 10, 28, 18), "everyday", walls="block-dense"),
    Room("Ensemble room", (28, 10, 34, 18), "everyday", walls="block-dense"),
    Room("Staff room", (34, 10, 40, 18), "calls"),
    Room("Office", (14, 0, 19, 8), "calls"),
    Room("Head's study", (19, 0, 23, 8), "calls"),
    Room("Stairs", (23, 0, 26, 8), "calls", walls="brick-single", stairs=True),
    Room("Washrooms", (26, 0, 30, 8), "none", walls="wet-wall"),
    Room("Cafe", (30, 0, 36, 8), "everyday"),
    Room("Store", (36, 0, 40, 4), "none", walls="block-light"),
    Room("Instruments", (36, 4, 40, 8), "none", walls="block-light"),
    Room("Terrace", (26, -6, 40, 0), "everyday", outdoor=True),
]
UPPER = [
    Room("Hall, upper part", (0, 4, 14, 18), "none", walls="brick-single"),
    Room("Gallery", (0, 0, 14, 4), "everyday"),
    Room("Passage", (14, 12, 40, 14), "calls"),
    *(
        Room(f"Practice {k + 1}", (14 + 3.25 * k, 14, 17.25 + 3.25 * k, 18), "everyday", walls="block-dense")
        for k in range(8)
    ),
    Room("Library", (14, 0, 23, 12), "calls"),
    Room("Landing", (23, 0, 26, 12), "calls", walls="brick-single"),
    Room("Recording", (26, 0, 32, 7), "everyday", walls="block-dense"),
    Room("Control room", (26, 7, 32, 12), "everyday", walls="block-dense"),
    Room("Theory class", (32, 0, 40, 7), "calls"),
    Room("Studio 1", (32, 7, 36, 12), "everyday", walls="block-light"),
    Room("Studio 2", (36, 7, 40, 12), "everyday", walls="block-light"),
]
PAVILION = [
    Room("Garden room", (108, 1, 115, 8), "everyday", overhead="joists"),
    Room("Porch", (115, 1, 117, 8), "none", overhead="joists"),
]

ACCESS_POINTS = [
    # floor, name, model, x, y, height
    ("ground", "AP-1", "ravelmoor-c4", 4.0, 10.0, 6.1),
    ("ground", "AP-2", "ravelmoor-c4", 10.5, 14.0, 6.1),
    ("ground", "AP-3", "ravelmoor-c4", 18.5, 13.0, 3.0),
    ("ground", "AP-4", "ravelmoor-c4", 18.5, 7.0, 3.0),
    ("ground", "AP-5", "ravelmoor-c4", 26.5, 9.0, 3.0),
    ("ground", "AP-6", "ravelmoor-c4", 36.5, 13.0, 3.0),
    ("ground", "AP-7", "ravelmoor-c4", 33.0, 2.0, 3.0),
    ("upper", "AP-8", "ravelmoor-c4", 18.0, 6.0, 2.8),
    ("upper", "AP-9", "ravelmoor-c4", 17.25, 13.0, 2.8),
    ("upper", "AP-10", "ravelmoor-c4", 23.75, 13.0, 2.8),
    ("upper", "AP-11", "ravelmoor-c4", 30.25, 13.0, 2.8),
    ("upper", "AP-12", "ravelmoor-c4", 35.0, 13.0, 2.8),
    ("upper", "AP-13", "ravelmoor-c4", 36.0, 4.5, 2.8),
    ("upper", "AP-14", "ravelmoor-c4", 28.0, 2.5, 2.8),
    ("pavilion", "AP-15", "ravelmoor-c4", 109.75, 3.25, 2.5),
]
CAMERAS = [
    ("ground", "CAM-1", "peltwick-turret", 0.3, -0.05, 2.8, 135.0),
    ("ground", "CAM-2", "peltwick-turret", 39.7, -0.05, 2.8, 225.0),
]
OUTLETS = [
    ("ground", "Office desk", 14.3, 2.0),
    ("ground", "Head's desk", 22.7, 3.0),
    ("ground", "Staff desk", 39.7, 14.0),
    ("ground", "Cafe till", 35.7, 6.0),
    ("upper", "Library desk", 14.3, 3.0),
    ("upper", "Control desk", 26.3, 9.0),
    ("upper", "Theory board", 39.7, 3.5),
]


def music_school() -> Design:
    """Return the school as a design: drawn, equipped, with a few things left to mend."""
    losses = load_catalogue().constructions
    drawing = Drawing()
    drawing.add(
        Site(
            id="site",
            kind="school",
            domain="europe",
            line_mbps=900,
            line_up_mbps=300,
            client_name="Larkmere Music School",
            contact="Installer's workshop, weekdays 8 to 17",
            visited_on="2026-06-03",
            start_on="2026-08-03",
            due_on="2026-08-14",
            budget=26_000.0,
            house_rules=("quiet_hours",),
            quiet_hour="02:00",
            quiet_day="sunday",
            opens="07:00",
            closes="22:00",
        ),
        Building(id="school", name="School"),
        Building(id="pavilion", name="Pavilion"),
        Floor(id="ground", building="school", name="Ground floor", level=0, ceiling_height_m=3.0),
        Floor(
            id="upper", building="school", name="Upper floor", level=1, elevation_m=3.6, ceiling_height_m=2.8
        ),
        Floor(
            id="pavilion",
            building="pavilion",
            name="Pavilion",
            level=0,
            ceiling_height_m=2.5,
            slab="floor-timber",
            overhead="joists",
        ),
    )
    for floor, rooms, outer in (
        ("ground", GROUND, "brick-cavity"),
        ("upper", UPPER, "brick-cavity"),
        ("pavilion", PAVILION, "timber-clad"),
    ):
        drawing.rooms(floor, rooms, outer, "plasterboard", lambda c: losses[c].loss_db["5"])
    drawing.rate("ground", (23, 0, 26, 8))  # the stairs are a way out
    _openings(drawing)
    drawing.add(
        EquipmentRoom(id="rack", floor="ground", name="Store rack", at=(38.5, 0.4), battery="staddle-b15"),
        Panel(id="panel-1", floor="ground", name="Panel", at=(40.0, 2.6), azimuth_deg=270.0),
        Socket(id="socket-1", floor="ground", name="Store socket", at=(39.3, 0.1), height_m=1.0, circuit="7"),
        *(
            Light(id=f"light-{k + 1}", floor="ground", name=f"Corridor light {k + 1}", at=(17.0 + 4 * k, 9.0))
            for k in range(6)
        ),
        Riser(
            id="riser-store",
            building="school",
            name="Store riser",
            at=(37.0, 3.2),
            lowest_level=0,
            highest_level=1,
        ),
        Duct(
            id="duct-garden",
            name="Garden duct",
            from_floor="ground",
            to_floor="pavilion",
            path=((40.0, 1.5), (74.0, 1.5), (108.0, 2.5)),
            depth_m=0.5,
        ),
    )
    _devices(drawing)
    add_networks(drawing)
    drawing.add(*school_brief())
    return drawing.design()


def _openings(drawing: Drawing) -> None:
    solid, hollow = "door-solid", "door-hollow"
    for x, y, width, kind in (
        (7.0, 4, 1.8, solid),
        (14, 9, 1.6, solid),
        (18, 10, 1.2, solid),
        (25, 10, 1.0, solid),
        (31, 10, 1.2, solid),
        (37, 10, 0.9, hollow),
        (16, 8, 0.9, hollow),
        (21, 8, 0.9, hollow),
        (24.5, 8, 1.5, solid),
        (28, 8, 0.9, hollow),
        (33, 8, 1.8, hollow),
        (36, 2, 0.9, solid),
        (38, 8, 0.9, hollow),
        (4, 0, 1.8, solid),
        (40, 9, 1.0, solid),
    ):
        drawing.opening("ground", x, y, width, kind)
    for x in (3.0, 7, 11, 16, 20.5, 30.5, 37):
        drawing.opening("ground", x, 18, 1.8, "glass-coated", "window")
    for x in (10.0, 16.5, 21, 33):
        drawing.opening("ground", x, 0, 1.8, "glass-coated", "window")
    drawing.opening("ground", 31.2, 0, 1.0, "glass-clear")
    drawing.opening("ground", 0, 11, 2.4, "glass-coated", "window")
    drawing.opening("ground", 40, 14, 1.8, "glass-coated", "window")
    for k in range(8):
        middle = 14 + 3.25 * (k + 0.5)
        drawing.opening("upper", middle, 14, 0.9, solid)
        drawing.opening("upper", middle, 18, 1.4, "glass-coated", "window")
    for x, y, kind in (
        (18, 12, hollow),
        (24.5, 12, solid),
        (29, 12, solid),
        (29, 7, solid),
        (34, 12, hollow),
        (38, 12, hollow),
        (34, 7, hollow),
        (14, 2, hollow),
    ):
        drawing.opening("upper", x, y, 0.9, kind)
    for x in (3.0, 9, 17, 20, 29, 34.5, 38):
        drawing.opening("upper", x, 0, 1.8, "glass-coated", "window")
    for window_y in (3.5, 9.5):
        drawing.opening("upper", 40, window_y, 1.8, "glass-coated", "window")
    drawing.opening("pavilion", 115, 4.5, 1.6, "glass-clear")
    drawing.opening("pavilion", 108, 5.5, 2.4, "glass-clear", "window")
    drawing.opening("pavilion", 111.5, 1, 2.4, "glass-clear", "window")
    drawing.opening("pavilion", 117, 4.5, 1.8, "open-gap", "gap")


def _devices(drawing: Drawing) -> None:
    for floor, name, model, x, y, height in ACCESS_POINTS:
        drawing.add(
            Device(
                id=name.lower(),
                floor=floor,
                kind="access_point",
                model=model,
                name=name,
                at=(x, y),
                height_m=height,
                mount="ceiling",
            )
        )
    for floor, name, model, x, y, height, azimuth in CAMERAS:
        drawing.add(
            Device(
                id=name.lower(),
                floor=floor,
                kind="camera",
                model=model,
                name=name,
                at=(x, y),
                height_m=height,
                mount="wall",
                azimuth_deg=azimuth,
            )
        )
    for number, (floor, name, x, y) in enumerate(OUTLETS, start=1):
        drawing.add(
            Device(
                id=f"out-{number}",
                floor=floor,
                kind="outlet",
                model="outlet-double",
                name=name,
                at=(x, y),
                height_m=0.3,
                mount="wall",
            )
        )
    drawing.add(
        Switch(id="sw-1", equipment_room="rack", name="SW-1", model="dunthrip-m24"),
        Switch(id="sw-2", equipment_room="rack", name="SW-2", model="dunthrip-u16"),
    )


def mended_school(design: Design) -> list[Change]:
    """Return what was changed before the work began: what the first plan left short is mended, but
    for two small points that a client can sign."""

    def point(
        number: int,
        floor: str,
        at: tuple[float, float],
        height_m: float,
        model: str = "ravelmoor-c4",
        **more: object,
    ) -> Device:
        return Device.model_validate(
            {
                "id": f"ap-{number}",
                "floor": floor,
                "kind": "access_point",
                "model": model,
                "name": f"AP-{number}",
                "at": at,
                "height_m": height_m,
                "mount": "ceiling",
                **more,
            }
        )

    switch = design.of(Switch)["sw-2"].model_copy(update={"model": "dunthrip-m48"})
    added: list[Element] = [
        point(16, "ground", (24.5, 4.0), 3.0),
        point(17, "ground", (33.0, -0.2), 2.6, "ravelmoor-x5", mount="wall", azimuth_deg=180.0),
        point(18, "upper", (38.4, 15.5), 2.8),
        point(19, "ground", (21.0, 4.0), 3.0),
        point(20, "ground", (31.0, 13.5), 3.0),
        point(21, "ground", (37.0, 9.0), 3.0),
        point(22, "ground", (7.0, 6.0), 6.1),
        point(23, "ground", (4.0, 16.0), 6.1),
        point(24, "upper", (34.0, 2.0), 2.8),
        Device(
            id="bell-1",
            floor="ground",
            kind="doorbell",
            model="tollgate-ring",
            name="Foyer doorbell",
            at=(5.0, -0.2),
            height_m=1.4,
            mount="wall",
            azimuth_deg=180.0,
        ),
        Device(
            id="store-1",
            floor="upper",
            kind="storage",
            model="corrowby-store-2",
            name="Recordings",
            at=(27.0, 8.0),
            height_m=0.8,
            mount="desk",
        ),
        switch,
    ]
    changes: list[Change] = [put(element) for element in added]
    built = apply(design, changes)
    # What is patched and labelled stays where it is, whatever is moved later.
    ports = evaluate(Plan(built, load_catalogue())).power.ports
    return [*changes, *keep_ports(built, ports)]
