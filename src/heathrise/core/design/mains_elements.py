"""What the building's electricity brings to a drawing: panels, sockets, routes, lights."""

from __future__ import annotations

from typing import Annotated

from pydantic import Field

from .values import Degrees, Element, FloorRef, Height, Name, PanelRef, Point, Polyline, Short, State


class Panel(Element):
    """An electrical panel on a wall. ``azimuth_deg`` is the way it faces: its clear space lies there."""

    floor: FloorRef
    name: Name
    at: Point
    azimuth_deg: Degrees = 0.0


class Socket(Element):
    """A mains socket. A ``new`` one is made for this job by a licensed electrician.

    ``circuit`` is what the panel's label says; without a panel the nearest one feeds it.
    """

    floor: FloorRef
    name: Name
    at: Point
    height_m: Annotated[Height, Field(ge=0, le=30)] = 0.3
    panel: PanelRef | None = None
    circuit: Short = ""
    state: State = "keep"


class MainsRoute(Element):
    """A mains cable whose way is known, as it lies in the wall or the ceiling of a storey."""

    floor: FloorRef
    name: Name
    path: Polyline


class Light(Element):
    """A light fitting in a ceiling, which nothing else hangs close to."""

    floor: FloorRef
    name: Name
    at: Point
