"""Random made-up sites: storeys of rooms in a row, a tall hall beside them, a second building.

Each room draws its own four walls, so that walls lie on one another as they do on real plans.
"""

from __future__ import annotations

import itertools
import math
from collections.abc import Iterator

from hypothesis import strategies as st

from heathrise.core.design import (
    Building,
    Design,
    Device,
    Element,
    EquipmentRoom,
    Floor,
    Grove,
    Opening,
    Riser,
    Site,
    Space,
    Wall,
    design_of,
)

WALLS = ("plasterboard", "brick-single", "block-dense", "concrete", "metal", "wet-wall")
MODELS = ("ravelmoor-c2", "ravelmoor-c4", "ravelmoor-t3", "ravelmoor-x5")
Point = tuple[float, float]


def turned(at: Point, degrees: float) -> Point:
    """Return a point turned anticlockwise round the site's zero."""
    c, s = math.cos(math.radians(degrees)), math.sin(math.radians(degrees))
    return at[0] * c - at[1] * s, at[0] * s + at[1] * c


def room(
    draw: st.DrawFn, key: str, floor: str, box: tuple[float, float, float, float], turn: float, **more: object
) -> Iterator[Element]:
    """Yield a room with its four walls and perhaps a door."""
    west, south, east, north = box
    corners = [turned(p, turn) for p in ((west, south), (east, south), (east, north), (west, north))]
    yield Space.model_validate({"id": key, "floor": floor, "name": key, "outline": tuple(corners), **more})
    if more.get("outdoor"):
        return
    made_of = draw(st.sampled_from(WALLS))
    for k in range(4):
        ends = corners[k], corners[(k + 1) % 4]
        wall = Wall(id=f"{key}-{k}", floor=floor, a=ends[0], b=ends[1], construction=made_of)
        yield wall
        if draw(st.booleans()):
            width = draw(st.sampled_from([0.9, 1.4]))
            offset = draw(st.floats(0.1, max(0.1, wall.length_m - width - 0.1)))
            if offset + width < wall.length_m:
                yield Opening(
                    id=f"{key}-{k}-o",
                    wall=wall.id,
                    kind="door",
                    offset_m=offset,
                    width_m=width,
                    construction=draw(st.sampled_from(["door-hollow", "glass-coated", "open-gap"])),
                )


@st.composite
def sites(draw: st.DrawFn, devices: int = 2) -> Design:
    """A site with storeys that stand well, some access points, a rack and a riser."""
    turn = draw(st.sampled_from([0.0, 0.0, 30.0, 17.3]))
    roof = draw(st.sampled_from(["roof-tiles", "roof-metal"]))
    elements: list[Element] = [
        Site(id="site", cables_per_access_point=1),
        Building(id="b", name="House", roof=roof),
        Building(id="shed", name="Shed"),
    ]
    widths = draw(st.lists(st.sampled_from([3.0, 4.5, 6.0]), min_size=1, max_size=3))
    depth = draw(st.sampled_from([4.0, 7.0]))
    storeys = draw(st.integers(1, 3))
    edges = [0.0]
    for width in widths:
        edges.append(edges[-1] + width)
    for level in range(storeys):
        floor = f"f{level}"
        elements.append(
            Floor(
                id=floor,
                building="b",
                name=floor,
                level=level,
                elevation_m=3.1 * level,
                ceiling_height_m=2.7,
                slab=draw(st.sampled_from(["floor-timber", "floor-concrete"])),
            )
        )
        for k, (west, east) in enumerate(itertools.pairwise(edges)):
            hole = level < storeys - 1 and draw(st.integers(0, 3)) == 0
            box = (west, 0.0, east, depth)
            elements += room(draw, f"r{level}{k}", floor, box, turn, open_above=hole)
    hall = (edges[-1], 0.0, edges[-1] + 8.0, depth)
    split = storeys < 3 and draw(st.booleans())
    elements += room(draw, "hall", "f0", hall, turn, ceiling_height_m=4.2 if split else 6.0)
    if split:  # a half-storey over the hall, at a height of its own
        elements.append(
            Floor(
                id="half",
                building="b",
                name="Half",
                level=storeys,
                elevation_m=4.5,
                ceiling_height_m=2.4,
                slab="floor-timber",
            )
        )
        elements += room(draw, "half-room", "half", hall, turn)
    elements += room(draw, "yard", "f0", (0.0, -9.0, edges[-1], 0.0), turn, outdoor=True)
    elements.append(Floor(id="s0", building="shed", name="Shed", level=0, ceiling_height_m=2.4))
    elements += room(draw, "shed-room", "s0", (2.0, 14.0, 8.0, 18.0), turn)
    for k in range(devices):
        elements.append(draw(access_points(f"ap-{k}", storeys, edges, depth, turn)))
    rack_at = turned((0.8, 0.9), turn)
    elements.append(EquipmentRoom(id="rack", floor="f0", name="Rack", at=rack_at))
    elements.append(
        Riser(
            id="up",
            building="b",
            name="Up",
            at=turned((1.2, 1.6), turn),
            lowest_level=0,
            highest_level=max(0, storeys - 1),
        )
    )
    elements += draw(trees(turn))
    return design_of(elements)


@st.composite
def trees(draw: st.DrawFn, turn: float) -> list[Grove]:
    """None, or a hedge with a bend and a wood about the house: outlines that no line runs along."""
    found = []
    for k in range(draw(st.sampled_from([0, 0, 1, 2]))):
        west, south = draw(st.sampled_from([(-3.17, -7.31), (1.37, 8.23), (6.71, 11.19), (-5.3, 2.9)]))
        wide, deep = draw(st.sampled_from([(9.3, 2.1), (3.7, 5.9), (14.1, 4.3)]))
        notch = (west + 0.45 * wide, south + 0.31 * deep)
        ring = [
            (west, south),
            notch,
            (west + wide, south + 0.1),
            (west + wide - 0.3, south + deep),
            (west + 0.2, south + deep + 0.4),
        ]
        clear = draw(st.sampled_from([0.0, 1.5]))
        top = draw(st.sampled_from([2.3, 6.0]))
        outline = tuple(turned(p, turn) for p in ring)
        found.append(Grove(id=f"g{k}", name=f"Trees {k}", outline=outline, height_m=top, clear_m=clear))
    return found


@st.composite
def access_points(
    draw: st.DrawFn, key: str, storeys: int, edges: list[float], depth: float, turn: float
) -> Device:
    mount = draw(st.sampled_from(["ceiling", "wall", "desk", "pole"]))
    floor = f"f{draw(st.integers(0, storeys - 1))}"
    x = draw(st.floats(-3, edges[-1] + 7)) + 0.0137
    y = draw(st.floats(-6, depth + 5)) + 0.0171
    azimuth = draw(st.sampled_from([0.0, 90.0, 180.0, 217.0, 270.0]))
    if mount == "wall" and draw(st.booleans()):
        # On the line of a wall or within its thickness, looking off it.
        x = draw(st.sampled_from(edges)) + draw(st.sampled_from([0.0, 0.05, -0.05]))
        y, azimuth = depth / 2 + 0.013, draw(st.sampled_from([90.0, 270.0]))
    return Device(
        id=key,
        floor=floor,
        kind="access_point",
        model=draw(st.sampled_from(MODELS)),
        name=key,
        at=turned((x, y), turn),
        height_m=draw(st.sampled_from([0.8, 2.2, 2.69, 4.05])),
        mount=mount,
        azimuth_deg=(azimuth - turn) % 360,
        tilt_deg=draw(st.sampled_from([0.0, 15.0])),
    )
