"""What only a person can say of rooms whose walls changed."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import Any

from shapely.geometry import Polygon

from ..base.frozen import Frozen
from ..context.integrity import REFERENCES
from ..design import Change, Design, Space, put, remove
from .names import DEFAULT_NAME
from .net import Point
from .outlines import outline_of


class RoomAnswer(Frozen):
    """One way a question can be answered: where it is on the sheet, and what it changes."""

    label: str
    at: Point | None = None
    changes: tuple[Change, ...] = ()


class RoomQuestion(Frozen):
    """What only a person can say: which part of a divided room keeps what was said of it, or whether two
    that no wall parts any more are one. As long as nobody answers, the first answer holds."""

    id: str
    floor: str
    text: str
    answers: tuple[RoomAnswer, ...]


def which_part(
    design: Design, space: Space, place: Any, parts: Sequence[tuple[Space, Any]]
) -> RoomQuestion | None:
    """Return the question which part of a divided room stays what it was; none where nothing was said of
    it that a part could lose.

    Args:
        place: where the room is as long as nobody answers; ``parts`` are the rooms made of the rest.
    """
    if not parts or not _said(design, space):
        return None
    kept = space.model_copy(update={"outline": outline_of(place) or space.outline})
    answers = [RoomAnswer(label=_size(place), at=_middle(place))]
    for part, its in parts:
        swapped = (
            put(kept.model_copy(update={"outline": part.outline})),
            put(part.model_copy(update={"outline": kept.outline})),
        )
        answers.append(RoomAnswer(label=_size(its), at=_middle(its), changes=swapped))
    text = f"{space.name} is divided: which part keeps its name and what was said of it?"
    return RoomQuestion(id=f"divided-{space.id}", floor=space.floor, text=text, answers=tuple(answers))


def are_one(design: Design, rooms: Sequence[Space], place: Any) -> RoomQuestion | None:
    """Return the question whether rooms that no wall parts any more are one, and whose name it has."""
    outline = outline_of(place)
    if outline is None:
        return None
    answers = [RoomAnswer(label="Stay apart, open to each other")]
    for room in rooms:
        whole = put(room.model_copy(update={"outline": outline}))
        others = [c for other in rooms if other is not room for c in _given_up(design, other, room)]
        middle = _middle(Polygon(room.outline))
        answers.append(RoomAnswer(label=f"One, {room.name}", at=middle, changes=(*others, whole)))
    names = " and ".join(r.name for r in rooms)
    return RoomQuestion(
        id=f"open-{'-'.join(r.id for r in rooms)}",
        floor=rooms[0].floor,
        text=f"No wall parts {names} any more: are they one room?",
        answers=tuple(answers),
    )


def _said(design: Design, space: Space) -> bool:
    """Whether anything was said of a room that a part of it could lose."""
    plain = Space(id=space.id, name=space.name, floor=space.floor, outline=space.outline)
    return not DEFAULT_NAME.fullmatch(space.name) or space != plain or any(_mentions(design, space.id))


def _mentions(design: Design, space: str) -> Iterator[tuple[str, str, Any]]:
    """Yield (kind, field, element) of everything that refers to a room."""
    for kind, fields in REFERENCES.items():
        for name, (target, many) in fields.items():
            if target != "space":
                continue
            for element in design.tables.get(kind, {}).values():
                value = getattr(element, name)
                if space in value if many else value == space:
                    yield kind, name, element


def _given_up(design: Design, room: Space, for_: Space) -> Iterator[Change]:
    """Yield the changes that let one room go, with what was said of it said of another."""
    for _, name, element in _mentions(design, room.id):
        value = getattr(element, name)
        if isinstance(value, tuple):
            others = tuple(dict.fromkeys(for_.id if v == room.id else v for v in value))
        yield put(element.model_copy(update={name: others if isinstance(value, tuple) else for_.id}))
    yield remove(room)


def _size(place: Any) -> str:
    return f"{place.area:.1f} m²"


def _middle(place: Any) -> Point:
    point = place.representative_point()
    return (round(point.x, 3), round(point.y, 3))
