"""Kinds of element for guests: the page that they meet first, and vouchers by which they come past it."""

from __future__ import annotations

from typing import Annotated

from pydantic import Field

from ..base.frozen import Strict
from .values import AskedOf, Element, Name, NetworkRef, PortalRef, PortalWay, Short, Words

MOST_TERMS = 4000
Hours = Annotated[int, Field(ge=1, le=8760)]


class LawAnswer(Strict):
    """What was found out about one question of local law, in words."""

    question: Annotated[str, Field(pattern=r"^[a-z_]+$", max_length=40)]
    answer: Words


class Portal(Element):
    """The page that whoever joins a network meets first; ``session_h`` hours after it he meets it again,
    where no voucher says otherwise. ``kept_days`` is how long it is kept who was on, None where nobody
    said; ``told_by`` who answered for local law."""

    LINES = ("terms",)

    network: NetworkRef
    way: PortalWay = "agree"
    session_h: Hours = 24
    asks: Annotated[tuple[AskedOf, ...], Field(max_length=4)] = ()
    terms: Annotated[str, Field(max_length=MOST_TERMS)] = ""
    kept_days: Annotated[int, Field(ge=0, le=3650)] | None = None
    law: Annotated[tuple[LawAnswer, ...], Field(max_length=20)] = ()
    told_by: Short = ""


class VoucherSet(Element):
    """Vouchers that are alike: ``number`` of them, or so many for each guest room where they are for
    ``rooms``; each lets ``devices`` on for ``hours`` from its first use. ``price`` is as it is printed."""

    portal: PortalRef
    name: Name
    number: Annotated[int, Field(ge=1, le=500)] = 20
    rooms: bool = False
    hours: Hours = 24
    devices: Annotated[int, Field(ge=1, le=20)] = 2
    limit_mbps: Annotated[float, Field(gt=0, le=10_000)] | None = None
    price: Annotated[str, Field(max_length=40)] = ""
