"""A made-up large site: five floors of forty rooms, a hundred access points."""

from __future__ import annotations

from heathrise.core.catalogue import Catalogue
from heathrise.core.design import (
    Building,
    Design,
    Device,
    EquipmentRoom,
    Floor,
    Riser,
    Site,
    Space,
    Switch,
    Wall,
)
from heathrise.demo.drafting import Drawing

FLOORS, COLUMNS, ROWS, ROOM_M = 5, 10, 4, 8.0


def large_site(catalogue: Catalogue) -> Design:
    """Return the site; every other room has an access point."""
    site = Drawing()
    site.add(Site(id="site"), Building(id="b", name="Block"))
    site.add(Riser(id="riser", building="b", name="Riser", at=(4, 2), lowest_level=0, highest_level=4))
    for level in range(FLOORS):
        floor = Floor(
            id=f"f{level}",
            building="b",
            name=f"Floor {level}",
            level=level,
            elevation_m=3.3 * level,
            ceiling_height_m=3,
        )
        site.add(floor)
        for column in range(COLUMNS):
            for row in range(ROWS):
                _room(site, catalogue, floor.id, column, row)
    site.add(EquipmentRoom(id="rack", floor="f0", name="Rack", at=(2, 2)))
    largest = max(catalogue.switches.values(), key=lambda m: m.powered_ports)
    for k in range(5):
        site.add(Switch(id=f"s{k}", equipment_room="rack", name=f"SW-{k + 1}", model=largest.id))
    return site.design()


def _room(site, catalogue: Catalogue, floor: str, column: int, row: int) -> None:  # type: ignore[no-untyped-def]
    x, y, key = ROOM_M * column, ROOM_M * row, f"{floor}-{column}-{row}"
    east, north = (x + ROOM_M, y), (x, y + ROOM_M)
    outline = ((x, y), east, (x + ROOM_M, y + ROOM_M), north)
    site.add(Space(id=key, floor=floor, name=key, use="calls", outline=outline))
    for end in (east, north):
        name = f"w-{key}-{'e' if end == east else 'n'}"
        site.add(Wall(id=name, floor=floor, a=(x, y), b=end, construction="plasterboard"))
    if (column + row) % 2 == 0:
        site.add(
            Device(
                id=f"ap-{key}",
                floor=floor,
                kind="access_point",
                name=f"AP {key}",
                height_m=3,
                model=next(iter(catalogue.devices["access_point"])),
                at=(x + ROOM_M / 2, y + ROOM_M / 2),
            )
        )
