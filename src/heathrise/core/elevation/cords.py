"""Cords of a rack: each from port to port, as long as its way asks, in the colour of what it carries."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass

from ..catalogue import Rules
from ..order import FIBRE_CORD, FIBRE_CORD_M, cord_for, cord_length_m
from .values import Cord, Thing

UNIT_MM = 44.45  # IEC 60297
FACE_MM = 440.0
_ONE_ROW = 24  # ports of a face in one row; more stand in two


@dataclass(frozen=True)
class Patch:
    """A cord that is wanted: ports at both ends, 0 where a thing's ports have no numbers."""

    room: str
    from_thing: str
    from_port: int
    to_thing: str
    to_port: int
    name: str
    colour: str
    link: str = ""
    cage: bool = False
    fibre: bool = False


def face_rows(thing: Thing) -> int:
    """Return the rows that a thing's ports stand in."""
    return 1 if thing.ports <= _ONE_ROW else 2


def port_mm(thing: Thing, port: int) -> float:
    """Return how far from the left of the face a port lies, mm; the middle where it has no number."""
    if port <= 0 or thing.ports <= 0:
        return FACE_MM / 2
    rows = face_rows(thing)
    columns, column = -(-thing.ports // rows), (port - 1) // rows
    return FACE_MM * (column + 0.5) / columns


def height_mm(thing: Thing) -> float:
    """Return how high over the foot of the frame the middle of a thing's face lies, mm."""
    return UNIT_MM * (thing.unit - 1 + max(thing.units, 1) / 2)


def cords_of(rules: Rules, things: Sequence[Thing], patches: Sequence[Patch]) -> Iterator[Cord]:
    """Yield the cords; what found no unit is taken to be as far as is usual in a rack."""
    here: Mapping[tuple[str, str], Thing] = {(t.room, t.thing): t for t in things}
    for patch in patches:
        one = here.get((patch.room, patch.from_thing))
        other = here.get((patch.room, patch.to_thing))
        if one is None or other is None:
            continue
        across = abs(port_mm(one, patch.from_port) - port_mm(other, patch.to_port))
        reach_m = (across + abs(height_mm(one) - height_mm(other))) / 1000 + rules["rack.cord_bend_m"]
        if not one.unit or not other.unit:
            reach_m = rules["order.rack_cord_reach_m"]
        item = cord_for(reach_m, rules["order.cord_spare_m"])
        length_m = cord_length_m(item)
        if patch.fibre:
            item, length_m = FIBRE_CORD, FIBRE_CORD_M
        yield Cord(
            room=patch.room,
            from_thing=patch.from_thing,
            from_port=patch.from_port,
            to_thing=patch.to_thing,
            to_port=patch.to_port,
            link=patch.link,
            name=patch.name,
            reach_m=round(reach_m, 2),
            item=f"cage-{item}" if patch.cage else item,
            length_m=length_m,
            colour=patch.colour,
        )
