"""Kinds of element that a visit notes, and what lies beside the plan."""

from __future__ import annotations

from typing import Annotated, Any, Literal

from pydantic import Field, field_validator

from .values import (
    CableState,
    Category,
    ComplaintKind,
    Degrees,
    Element,
    ElementId,
    FloorRef,
    ModelId,
    Name,
    Outline,
    Point,
    Share,
    SpaceRef,
    State,
    Words,
    ZoneKind,
)


class LineEntry(Element):
    """Where the line comes into the building."""

    floor: FloorRef
    name: Name
    at: Point


class Complaint(Element):
    """What the client complains of, where, and in what words."""

    floor: FloorRef
    kind: ComplaintKind
    at: Point
    words: Words = ""


class ClientGroup(Element):
    """Clients of one kind that are used in a room; ``wired`` of them are wished on a wire.

    ``old`` ones speak an older generation only, need WPA2, or fail with fast transition.
    """

    space: SpaceRef
    kind: ModelId
    count: Annotated[int, Field(ge=1, le=5000)] = 1
    wired: Annotated[int, Field(ge=0, le=5000)] = 0
    old: bool = False


class UsualRoute(Element):
    """A way that is often walked with a call: out of one room and into another."""

    from_space: SpaceRef
    to_space: SpaceRef


class Zone(Element):
    """A part of a storey that is built out later, or in which nothing is drilled.

    For one that comes later the plan keeps ports, watts and cable for what is expected there.
    """

    floor: FloorRef
    kind: ZoneKind
    name: Name
    outline: Outline
    access_points: Annotated[int, Field(ge=0, le=200)] = 0
    outlets: Annotated[int, Field(ge=0, le=500)] = 0
    cameras: Annotated[int, Field(ge=0, le=200)] = 0


class OldCable(Element):
    """A cable that was found in the walls; no category where its print does not say.

    ``tested_mbps`` is the fastest speed that a tester passed it at, which counts before its print.
    """

    floor: FloorRef
    name: Name
    a: Point
    b: Point
    category: Category | None = None
    condition: CableState = "untested"
    tested_mbps: Literal[100, 1000, 2500, 5000, 10000] | None = None
    state: State = "unknown"


class Underlay(Element):
    """The client's plan under the drawing: a kept picture, its scale and its place.

    ``at`` is where its middle lies, ``turn_deg`` how far it is turned clockwise, ``crop`` the
    shares of it that are left away at the left, top, right and bottom.
    """

    floor: FloorRef
    picture: ElementId
    name: Name
    width_px: Annotated[int, Field(ge=1, le=20_000)]
    height_px: Annotated[int, Field(ge=1, le=20_000)]
    metres_per_px: Annotated[float, Field(gt=0, le=100)]
    at: Point
    turn_deg: Degrees = 0.0
    crop: tuple[Share, Share, Share, Share] = (0.0, 0.0, 0.0, 0.0)
    strength: Share = 0.6
    hidden: bool = False


class Variant(Element):
    """Another way of doing the job: changes on the plan, kept with it until they are taken over."""

    name: Name
    changes: Annotated[tuple[dict[str, Any], ...], Field(max_length=2_000)]

    @field_validator("changes")
    @classmethod
    def _flat(cls, changes: tuple[dict[str, Any], ...]) -> tuple[dict[str, Any], ...]:
        if any(c.get("kind") == "variant" for c in changes):
            raise ValueError("another way of doing the job holds no other ways")
        if any(_deeper_than(c, _DEEPEST) for c in changes):
            raise ValueError("a change is nested too deep")
        return changes


_DEEPEST = 8  # an outline in an element in a change has five


def _deeper_than(value: object, most: int) -> bool:
    inner = value.values() if isinstance(value, dict) else value if isinstance(value, list) else ()
    return most == 0 or any(_deeper_than(v, most - 1) for v in inner)
