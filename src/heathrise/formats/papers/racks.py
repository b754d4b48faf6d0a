"""Racks on paper: elevation to scale, what is in which unit, cord by cord, what each comes to."""

from __future__ import annotations

from collections.abc import Iterator

from markupsafe import Markup

from ...core.design import EquipmentRoom, Floor
from ...core.elevation import Elevation, Thing
from ..sheets.rack import rack_svg
from .head import NO_HEAD, Head
from .render import Papers, html_of, pdf_of, style
from .sheets import Drawn


def racks_pdf(drawn: Drawn, head: Head = NO_HEAD) -> bytes:
    """Return every rack on a page of its own, to be hung in its door."""
    papers = Papers(drawn.design.site.units)
    html = html_of(
        "racks.html",
        style=style(),
        size=papers.size,
        head=head,
        name=drawn.name,
        revision=drawn.revision,
        today=drawn.on.isoformat(),
        racks=list(elevations(drawn, papers)),
    )
    return pdf_of(html)


def elevations(drawn: Drawn, papers: Papers) -> Iterator[dict[str, object]]:
    """Yield racks as the templates take them."""
    chapter = drawn.evaluation.racks
    rooms, floors = drawn.design.of(EquipmentRoom), drawn.design.of(Floor)
    for rack in chapter.racks:
        things = chapter.things_of(rack.room)
        cords = [c for c in chapter.cords if c.room == rack.room]
        names = {t.thing: t.name for t in things}
        yield {
            "room": rack.room,
            "name": rack.name,
            "floor": floors[rooms[rack.room].floor].name,
            "svg": Markup(rack_svg(rack, things, cords, drawn.evaluation.power.ports)),
            "facts": _facts(rack, papers),
            "things": [_row(t) for t in sorted(things, key=lambda t: (-t.unit, t.on != "", t.name))],
            "cords": [
                {
                    "from": _end(names[c.from_thing], c.from_port),
                    "to": _end(names[c.to_thing], c.to_port),
                    "cord": papers.words(f"{c.length_m:g}\u00a0m") + f", {c.colour}",
                    "for": c.name,
                }
                for c in sorted(cords, key=lambda c: (c.from_thing, c.from_port))
            ],
        }


def _end(name: str, port: int) -> str:
    return f"{name}, {port}" if port else name


def _row(thing: Thing) -> dict[str, str]:
    last = thing.unit + thing.units - 1
    unit = "no place" if not thing.unit else "on it" if thing.on else str(thing.unit)
    return {
        "unit": f"{thing.unit} to {last}" if thing.unit and thing.units > 1 and not thing.on else unit,
        "name": thing.name,
        "label": thing.label if thing.label != thing.name else "the client's",
        "watts": f"{thing.watts:.0f}" if thing.watts else "",
        "kg": f"{thing.kg:.1f}",
        "hand": "by hand" if thing.by == "person" else "",
    }


def _facts(rack: Elevation, papers: Papers) -> list[tuple[str, str]]:
    closet, battery, fixing = rack.closet, rack.battery, rack.fixing
    now = closet.now_c
    rows = [
        ("Frame", f"{rack.label}; {rack.spare_units} of {rack.units} units free"),
        ("Weight", f"{rack.kg:.0f} kg with its frame, which bears {rack.bears_kg:g}"),
        (
            "From the mains",
            f"{rack.watts:.0f} W as rated, {rack.carried_w:.0f} W of it carried away to devices",
        ),
        (
            "Heat",
            papers.words(
                f"{rack.heat_w:.0f} W stay; {closet.name or 'it'} gets to {now:g}\u00a0°C, "
                f"{closet.limit_of or 'gear'} bears {closet.limit_c:g}\u00a0°C"
            ),
        ),
        ("Sound", f"{rack.noise_db:.0f} dB(A) at a metre" if rack.noise_db else "no fan"),
        (
            "Held by",
            papers.words(f"{fixing.fixings} fixings; {fixing.reason}" if rack.wall else fixing.reason),
        ),
    ]
    if battery is not None:
        rows.append(
            (
                "Battery",
                f"{battery.label}: {battery.minutes:.0f} minutes new, {battery.minutes_old:.0f} after "
                f"{battery.years} years, at {battery.load_share:.0%} of its rating",
            )
        )
        if battery.sheds:
            said = ", then ".join(f"{s.name} ({s.minutes:.0f} min for the rest)" for s in battery.sheds)
            rows.append(("Shed first", said))
    return rows
