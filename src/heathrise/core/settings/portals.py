"""The page that guests meet first, vouchers by which they come past it, and what both ask of the network."""

from __future__ import annotations

import math
import re
from collections.abc import Iterator, Mapping, Sequence
from functools import cache
from importlib.resources import files
from itertools import islice
from typing import ClassVar, Literal

import yaml
from pydantic import BaseModel, ConfigDict, Field

from ..base.frozen import Frozen
from ..catalogue import Catalogue
from ..design import AskedOf, Design, Network, Portal, PortalWay, SiteKind, Space, VoucherSet, WirelessName
from .vouchers import MOST_VOUCHERS

Binds = Literal["vouchers", "name", "network", "line"]


class LawQuestion(BaseModel):
    """Something that local law may ask of a network for guests, and why it is asked."""

    model_config = ConfigDict(frozen=True, extra="forbid")

    asks: str
    why: str
    kinds: tuple[SiteKind, ...] = ()


class _GuestsData(BaseModel):
    model_config = ConfigDict(frozen=True, extra="forbid")

    law: dict[str, LawQuestion]
    terms: str
    kept: dict[str, str]


class LawRow(Frozen):
    """A question of local law, and what was found out about it; empty where nothing was."""

    question: str
    asks: str
    why: str
    answer: str


class PortalSheet(Frozen):
    """The page of a network as the controller will hold it; ``limit_mbps`` is what one client gets at
    most without a voucher, and what of it binds."""

    KEY: ClassVar = ("id",)

    id: str
    network: str
    network_name: str
    way: PortalWay
    says: str = Field(description="what a guest does on the page, in words")
    names: tuple[str, ...] = Field((), description="wireless names that lead to it")
    open: bool = Field(description="whether one of them asks for no key")
    session_h: int
    shortest_h: int = Field(description="the least for which somebody is let on, h")
    asks: tuple[AskedOf, ...]
    terms: str
    kept_days: int | None
    kept: str = Field(description="what is kept of a guest, in words")
    limit_mbps: float | None
    limit_by: Binds
    law: tuple[LawRow, ...]
    told_by: str


class VoucherSheet(Frozen):
    """A set of vouchers; ``rooms`` names who gets each, where they are for rooms."""

    KEY: ClassVar = ("id",)

    id: str
    portal: str
    network: str
    name: str
    total: int = Field(description="vouchers in it")
    wanted: int = Field(description="vouchers that it would have without a limit")
    rooms: tuple[str, ...] = ()
    hours: int
    lasts: str = Field(description="how long one lasts, in words")
    devices: int
    at_once: int = Field(description="devices that are on when all are in use")
    limit_mbps: float | None
    limit_by: Binds
    price: str


@cache
def _data() -> _GuestsData:
    return _GuestsData.model_validate(
        yaml.safe_load(files(__package__).joinpath("guests.yaml").read_text("utf-8"))
    )


def law_questions(kind: SiteKind) -> Mapping[str, LawQuestion]:
    """Return what local law may ask of a network for guests on a kind of site."""
    return {key: q for key, q in _data().law.items() if not q.kinds or kind in q.kinds}


def usual_terms(place: str, kept_days: int | None) -> str:
    """Return the terms that are offered where nobody has written any."""
    return _data().terms.format(place=place or "the house", kept=kept_said(kept_days)).strip()


def kept_said(days: int | None) -> str:
    """Return what is kept of a guest, as he is told."""
    if days is None:
        return _data().kept["unknown"]
    return _data().kept["days" if days else "nothing"].format(days=days)


def terms_with(terms: str, days: int | None) -> str:
    """Return terms that say what is kept of a guest: in place of what they said of it, else at their end."""
    said = kept_said(days)
    for one in (kept_said(None), kept_said(0), *re.findall(_KEPT_DAYS, terms)):
        if one in terms:
            return terms.replace(one, said)
    return f"{terms.rstrip()}\n{said}".strip()


def hours_in_words(hours: int) -> str:
    """Return hours as one says them: whole weeks and days as such."""
    for each, word in ((168, "week"), (24, "day")):
        if hours % each == 0 and hours >= each:
            count = hours // each
            return f"{count} {word}{'s' if count > 1 else ''}"
    return f"{hours} hour{'s' if hours > 1 else ''}"


_KEPT_DAYS = r"It is kept for \d+ days who was on and when, and then deleted; ask at the desk [^.]*\."
_SAYS: dict[PortalWay, str] = {
    "agree": "reads the terms and agrees",
    "register": "says who it is and agrees to the terms",
    "voucher": "types the code of a voucher",
}
_ASKED: dict[AskedOf, str] = {
    "name": "name",
    "room": "room",
    "email": "e-mail address",
    "phone": "phone number",
}


def portal_says(portal: Portal) -> str:
    """Return what a guest does on the page."""
    asked = ", ".join(_ASKED[a] for a in portal.asks)
    return f"{_SAYS[portal.way]}{f' ({asked})' if asked else ''}"


def names_on(design: Design, network: str) -> list[WirelessName]:
    return [n for n in design.of(WirelessName).values() if n.network == network]


def sets_of(design: Design, portal: str) -> list[VoucherSet]:
    return [v for v in design.of(VoucherSet).values() if v.portal == portal]


def limit_of(design: Design, network: str, own: float | None) -> tuple[float | None, Binds]:
    """Return what one client on a network gets at most in Mb/s, and what of vouchers, name, network and line
    binds; None where that is the line alone. Of several names the strictest counts: a guest may be on it."""
    limits: list[tuple[float, Binds]] = [
        (name.limit_mbps, "name") for name in names_on(design, network) if name.limit_mbps is not None
    ]
    if own is not None:
        limits.append((own, "vouchers"))
    if (together := design.of(Network)[network].limit_all_mbps) is not None:
        limits.append((together, "network"))
    least = min(limits, key=lambda row: row[0], default=None)
    if least is None or least[0] >= design.site.line_mbps:
        return None, "line"
    return least


def guest_rooms(design: Design, catalogue: Catalogue) -> list[Space]:
    """Return the rooms that guests live in, by storey and name: those called so on this kind of site, and
    rooms that have nothing but a number."""
    words = catalogue.site_kinds[design.site.kind].guest_rooms
    if not words:
        return []
    named = re.compile(rf"\b({'|'.join(map(re.escape, words))})s?\b|^room \w*\d\w*$", re.IGNORECASE)
    found = [s for s in design.of(Space).values() if s.use != "none" and named.search(s.name.strip())]
    order = list(design.tables.get("floor", {}))
    return sorted(found, key=lambda s: (order.index(s.floor), _natural(s.name), s.id))


def _natural(name: str) -> list[tuple[int, int, str]]:
    """Return a name so that Room 10 comes after Room 9."""
    parts = re.findall(r"\d+|\D+", name.casefold())
    return [(0, int(p), "") if p.isascii() and p.isdigit() else (1, 0, p) for p in parts]


def portal_sheets(design: Design) -> tuple[PortalSheet, ...]:
    """Return the pages that guests meet, each with what is let on by it."""
    networks, found = design.of(Network), []
    for portal in design.of(Portal).values():
        names = names_on(design, portal.network)
        limit, by = limit_of(design, portal.network, None)
        found.append(
            PortalSheet(
                id=portal.id,
                network=portal.network,
                network_name=networks[portal.network].name,
                way=portal.way,
                says=portal_says(portal),
                names=tuple(n.ssid for n in names),
                open=any(n.security == "open_portal" for n in names),
                session_h=portal.session_h,
                shortest_h=shortest_h(design, portal),
                asks=portal.asks,
                terms=portal.terms,
                kept_days=portal.kept_days,
                kept=kept_said(portal.kept_days),
                limit_mbps=limit,
                limit_by=by,
                law=tuple(law_rows(design, portal)),
                told_by=portal.told_by,
            )
        )
    return tuple(found)


def law_rows(design: Design, portal: Portal) -> Iterator[LawRow]:
    answers = {a.question: a.answer.strip() for a in portal.law}
    for key, question in law_questions(design.site.kind).items():
        yield LawRow(question=key, asks=question.asks, why=question.why, answer=answers.get(key, ""))


def shortest_h(design: Design, portal: Portal) -> int:
    """Return the least for which a guest is let on: of vouchers the shortest, else the page's own."""
    hours = [v.hours for v in sets_of(design, portal.id)] if portal.way == "voucher" else []
    return min(hours, default=portal.session_h)


def voucher_sheets(design: Design, catalogue: Catalogue) -> tuple[VoucherSheet, ...]:
    """Return the sets of vouchers with how many each has, for whom, and what one of them gives."""
    portals, rooms, found = design.of(Portal), guest_rooms(design, catalogue), []
    for one in design.of(VoucherSet).values():
        network = portals[one.portal].network
        limit, by = limit_of(design, network, one.limit_mbps)
        wanted = one.number * len(rooms) if one.rooms else one.number
        total = min(wanted, MOST_VOUCHERS)
        every = (r.name for r in rooms for _ in range(one.number)) if one.rooms else ()
        owners = tuple(islice(every, total))
        found.append(
            VoucherSheet(
                id=one.id,
                portal=one.portal,
                network=network,
                name=one.name,
                total=total,
                wanted=wanted,
                rooms=owners,
                hours=one.hours,
                lasts=hours_in_words(one.hours),
                devices=one.devices,
                at_once=total * one.devices,
                limit_mbps=limit,
                limit_by=by,
                price=one.price,
            )
        )
    return tuple(found)


def addresses_for_each(hours: int, lease_h: int) -> int:
    """Return how many addresses one place for a guest takes, where each guest is followed by the next at
    once: a client asks anew at half of its lease (RFC 2131), and what it has stays taken for a whole lease
    after it last asked."""
    taken_h = (math.floor(2 * hours / lease_h) / 2 + 1) * lease_h
    return math.ceil(taken_h / hours)


def lease_that_fits(hours: int, lease_h: int, room_for: float) -> int | None:
    """Return the longest lease under one that takes no more than so many addresses for each, or None."""
    fits: Sequence[int] = range(lease_h - 1, 0, -1)
    return next((h for h in fits if addresses_for_each(hours, h) <= room_for), None)
