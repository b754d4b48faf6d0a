"""Small designs to try one rule on."""

from __future__ import annotations

from heathrise.core.design import (
    Building,
    Design,
    Device,
    Element,
    EquipmentRoom,
    Floor,
    Network,
    OldCable,
    Opening,
    Site,
    Space,
    Wall,
    apply,
    put,
)
from heathrise.core.design import design_of as gathered

# dBm from which a stream at 20 MHz carries so many Mb/s: MCS 0 to 11 with 0.8 us between symbols.
RATES = [
    (-82, 8.6),
    (-79, 17.2),
    (-77, 25.8),
    (-74, 34.4),
    (-70, 51.6),
    (-66, 68.8),
    (-65, 77.4),
    (-64, 86.0),
    (-59, 103.2),
    (-57, 114.7),
    (-54, 129.0),
    (-52, 143.4),
]


def design_of(*elements: Element) -> Design:
    return gathered(elements)


def shell(width: float = 20, depth: float = 20, overhead: str = "ceiling_void") -> list[Element]:
    """A site with one open floor of one room, 2.7 m high."""
    return [
        Site(id="site", cables_per_access_point=1),
        Building(id="b", name="Hut"),
        Floor.model_validate(
            {"id": "f", "building": "b", "name": "Ground", "level": 0, "overhead": overhead}
        ),
        Space(
            id="room",
            floor="f",
            name="Room",
            use="calls",
            outline=((0, 0), (width, 0), (width, depth), (0, depth)),
        ),
    ]


def wall(number: int, a: tuple[float, float], b: tuple[float, float], of: str) -> Wall:
    return Wall(id=f"w{number}", floor="f", a=a, b=b, construction=of)


def access_point(
    x: float, y: float, key: str = "ap-1", model: str = "ravelmoor-c2", **more: object
) -> Device:
    fields = {"height_m": 2.7, "mount": "ceiling", **more}
    return Device.model_validate(
        {
            "id": key,
            "floor": "f",
            "kind": "access_point",
            "model": model,
            "name": key.upper(),
            "at": (x, y),
            **fields,
        }
    )


def rack(x: float, y: float) -> EquipmentRoom:
    return EquipmentRoom(id="rack", floor="f", name="Rack", at=(x, y))


def one_cable_house(
    *more: Element, cables: int = 1, tested: int | None = 1000, television: bool = True
) -> Design:
    """An entry box with the rack, a router in the living room, and old cable between the two."""
    router = Device.model_validate(
        {"id": "router", "floor": "f", "kind": "router", "name": "Router", "model": "harrowfen-r4"}
        | {"at": (16.0, 12.0), "height_m": 1.2, "mount": "wall", "state": "new"}
    )
    rows = [
        OldCable.model_validate(
            {"id": f"old-{k}", "floor": "f", "name": f"OC-{k}", "a": (2.0, 2.0), "b": (16.0, 12.5)}
            | {"category": "5e", "condition": "good", "tested_mbps": tested, "state": "keep"}
        )
        for k in range(1, cables + 1)
    ]
    site = Site(
        id="site",
        kind="home",
        line_mbps=300.0,
        line_up_mbps=100.0,
        television=television,
        upstream_gear="Entry box",
    )
    networks = [
        Network(id="main", name="Main", purpose="main", vlan=10, subnet="192.168.10.0/24"),
        Network(id="guest", name="Guest", purpose="guest", vlan=901, subnet="192.168.90.0/24"),
    ]
    design = design_of(*shell(), rack(2.0, 2.0), router, access_point(4.0, 8.0), *rows, *networks, *more)
    return apply(design, [put(site)])


def camera(x: float, y: float, azimuth: float, **more: object) -> Device:
    fields = {"id": "cam", "floor": "f", "kind": "camera", "name": "CAM-1", "model": "peltwick-turret"}
    pose = {"at": (x, y), "height_m": 2.5, "mount": "pole", "azimuth_deg": azimuth, "tilt_deg": 20.0}
    return Device.model_validate({**fields, **pose, **more})


def camera_yard(*more: Element, tilt: float = 0.0, at: tuple[float, float] = (10, 0)) -> Design:
    """A house with a door to a yard in the south, and a camera over it."""
    yard = Space(
        id="yard",
        floor="f",
        name="Yard",
        use="none",
        outdoor=True,
        outline=((0, -15), (20, -15), (20, 0), (0, 0)),
    )
    front = wall(1, (0, 0), (20, 0), "brick-single")
    door = Opening(id="door", wall="w1", kind="door", offset_m=9.5, width_m=1.0, construction="door-solid")
    device = camera(at[0], at[1], 180.0, mount="wall", tilt_deg=tilt, height_m=2.8)
    return design_of(*shell(), yard, front, door, device, *more)
