"""A made-up tall site: six storeys of 150 small rooms, 300 walls and ten access points each."""

from __future__ import annotations

from heathrise.core.catalogue import Catalogue
from heathrise.core.design import Building, Design, Device, EquipmentRoom, Floor, Site, Space, Wall
from heathrise.demo.drafting import Drawing

STOREYS, COLUMNS, ROWS, WIDE_M, DEEP_M = 6, 15, 10, 3.6, 4.0
MADE_OF = ("plasterboard", "plasterboard", "block-dense", "brick-single")


def tall_site(catalogue: Catalogue, storeys: int = STOREYS, points: int = 10) -> Design:
    """Return the site; its storeys are 54 by 40 m, its slabs of timber."""
    site = Drawing()
    site.add(Site(id="site"), Building(id="b", name="Tower"))
    model = next(iter(catalogue.devices["access_point"]))
    for level in range(storeys):
        floor = f"f{level}"
        site.add(
            Floor(
                id=floor,
                building="b",
                name=f"Storey {level}",
                level=level,
                slab="floor-timber",
                elevation_m=3.3 * level,
                ceiling_height_m=3,
            )
        )
        for column in range(COLUMNS):
            for row in range(ROWS):
                x, y, key = WIDE_M * column, DEEP_M * row, f"{floor}-{column}-{row}"
                east, north = (x + WIDE_M, y), (x, y + DEEP_M)
                outline = ((x, y), east, (x + WIDE_M, y + DEEP_M), north)
                use = "calls" if row % 2 else "everyday"
                site.add(Space(id=key, floor=floor, name=key, use=use, outline=outline))
                for k, end in enumerate((east, north)):
                    made_of = MADE_OF[(column * (k + 1) + row) % len(MADE_OF)]
                    site.add(Wall(id=f"w-{key}-{k}", floor=floor, a=(x, y), b=end, construction=made_of))
        for k in range(points):
            column, row = k % 5, k // 5
            at = (
                (column + 0.5) * COLUMNS * WIDE_M / 5 + (level % 3),
                (row + 0.5) * ROWS * DEEP_M * 5 / max(points, 5) + 1,
            )
            site.add(
                Device(
                    id=f"ap-{floor}-{k}",
                    floor=floor,
                    kind="access_point",
                    name=f"AP {level}{k}",
                    height_m=3,
                    model=model,
                    at=at,
                )
            )
    site.add(EquipmentRoom(id="rack", floor="f0", name="Rack", at=(2, 2)))
    return site.design()
