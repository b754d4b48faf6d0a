"""Guests: the page that they meet, vouchers, addresses; each held against a plain account of its own."""

from __future__ import annotations

import random
from fractions import Fraction
from typing import get_args

import pytest
from hypothesis import given
from hypothesis import strategies as st

from heathrise.core.catalogue import load_catalogue
from heathrise.core.context.findings import Finding
from heathrise.core.context.integrity import check
from heathrise.core.context.plan import Plan
from heathrise.core.controlled import Differs
from heathrise.core.design import (
    ClientGroup,
    Design,
    DesignError,
    Device,
    Element,
    Floor,
    LawAnswer,
    Network,
    Portal,
    Site,
    SiteKind,
    Space,
    VoucherSet,
    Weekday,
    WirelessName,
    apply,
    parse_element,
    put,
)
from heathrise.core.evaluation.evaluate import evaluate
from heathrise.core.settings import VOUCHER_ALPHABET, as_printed, guest_rooms, make_codes, one_in, usual_terms
from heathrise.core.settings.portals import (
    addresses_for_each,
    hours_in_words,
    kept_said,
    lease_that_fits,
    limit_of,
    terms_with,
)
from heathrise.core.settings.usual import usual_networks
from heathrise.core.settings.vouchers import MOST_VOUCHERS, code_length
from heathrise.core.views.held import held_settings
from heathrise.core.views.push import taken_over
from heathrise.core.views.vouchers import codes_wanted, slips_of, vouchers_of

from ..thorough import examples
from .plans import design_of, shell

CATALOGUE = load_catalogue()
GUESTS = Network(
    id="guests", name="Guests", purpose="guest", vlan=20, subnet="192.168.20.0/24", client_isolation=True
)
PAGE = Portal(id="page", network="guests", terms=usual_terms("The Inn", 7), kept_days=7)
LET_ON = VoucherSet(id="week", portal="page", name="Week", number=3, hours=168, devices=2)


def _room(key: str, name: str, floor: str = "f", use: str = "calls") -> Space:
    outline = ((0.0, 0.0), (4.0, 0.0), (4.0, 4.0), (0.0, 4.0))
    return Space.model_validate({"id": key, "floor": floor, "name": name, "use": use, "outline": outline})


def _inn(*more: Element, kind: SiteKind = "guest_house", **site: object) -> Design:
    facts = {"id": "site", "kind": kind, "client_name": "The Inn", "line_mbps": 200, **site}
    return design_of(*shell(), Site.model_validate(facts), *more)


def _findings(design: Design) -> dict[str, Finding]:
    rows = evaluate(Plan(design, CATALOGUE)).findings
    return {f.id.removeprefix("settings-portal-"): f for f in rows if f.id.startswith("settings-portal")}


@pytest.mark.parametrize(
    "name, lives",
    [
        ("Bedroom 2", True),
        ("Garden bedrooms", True),
        ("Room 7", True),
        ("Room 12a", True),
        ("room B", False),
        ("Dining room", False),
        ("Boiler room 2", False),
        ("Suite", True),
        ("Annexe", True),
        ("Guest room", True),
        ("Suitecase store", False),
    ],
)
def test_a_room_that_guests_live_in_is_known_by_its_name(name: str, lives: bool) -> None:
    assert [r.name for r in guest_rooms(_inn(_room("r", name)), CATALOGUE)] == ([name] if lives else [])
    assert not guest_rooms(_inn(_room("r", name), kind="office"), CATALOGUE)
    assert not guest_rooms(_inn(_room("r", name, use="none")), CATALOGUE)


def test_rooms_come_by_storey_and_number() -> None:
    upper = Floor.model_validate(
        {
            **next(e for e in shell() if isinstance(e, Floor)).model_dump(),
            "id": "g",
            "name": "Upper",
            "level": 1,
        }
    )
    rooms = [_room("a", "Room 10"), _room("b", "Room 9"), _room("c", "Room 2", "g"), _room("d", "Annexe")]
    found = guest_rooms(_inn(upper, *rooms), CATALOGUE)
    assert [r.name for r in found] == ["Annexe", "Room 9", "Room 10", "Room 2"]


@given(
    st.lists(st.none() | st.floats(0.5, 300), max_size=3),
    st.none() | st.floats(0.5, 300),
    st.none() | st.floats(0.5, 300),
    st.floats(1, 300),
)
def test_the_strictest_limit_binds_and_is_named(
    names: list[float | None], own: float | None, together: float | None, line: float
) -> None:
    rows = [
        WirelessName(id=f"n{k}", network="guests", ssid=f"Inn {k}", limit_mbps=limit)
        for k, limit in enumerate(names)
    ]
    guests = GUESTS.model_copy(update={"limit_all_mbps": together})
    found = limit_of(_inn(guests, *rows, line_mbps=line), "guests", own)
    every = [x for x in [*names, own, together, line] if x is not None]
    if found[1] == "line":
        assert found[0] is None and line == min(every)
    else:
        assert found[0] == min(every) < line
        assert found[0] in {"vouchers": [own], "network": [together], "name": names}[found[1]]


def _simulated(hours: int, lease_h: int) -> int:
    """Guests one after the other, each with an address from coming until a lease after he last asked."""
    taken = []
    for k in range(4 * (lease_h // hours + 2)):
        comes, asks = Fraction(k * hours), Fraction(0)
        while asks + Fraction(lease_h, 2) <= hours:
            asks += Fraction(lease_h, 2)
        taken.append((comes, comes + asks + lease_h))
    return max(sum(a <= comes < b for a, b in taken) for comes, _ in taken)


@given(st.integers(1, 40), st.integers(1, 40))
def test_addresses_that_one_place_takes_are_those_of_guests_one_after_the_other(
    hours: int, lease: int
) -> None:
    assert addresses_for_each(hours, lease) == _simulated(hours, lease)


@given(st.integers(1, 200), st.integers(2, 200), st.floats(1, 20))
def test_the_lease_that_fits_is_the_longest_that_does(hours: int, lease: int, room_for: float) -> None:
    fits = [h for h in range(1, lease) if addresses_for_each(hours, h) <= room_for]
    assert lease_that_fits(hours, lease, room_for) == (max(fits) if fits else None)


@given(st.integers(1, 400), st.integers(0, 60), st.integers())
def test_codes_are_drawn_once_long_enough_and_of_what_can_be_read(count: int, kept: int, seed: int) -> None:
    rules, chance = CATALOGUE.rules, random.Random(seed)
    before = make_codes(kept, (), kept + count, rules, chance)
    codes = make_codes(count, before, kept + count, rules, chance)
    assert len({*before, *codes}) == kept + count
    assert set("".join(codes)) <= set(VOUCHER_ALPHABET) and not set(VOUCHER_ALPHABET) & set("01258IOSZBUGAE6")
    length = next(
        n
        for n in range(int(rules["settings.voucher_characters"]), 40)
        if len(VOUCHER_ALPHABET) ** n >= rules["settings.voucher_one_in"] * (kept + count)
    )
    assert {len(c) for c in codes} == {length} == {code_length(kept + count, rules)}
    assert one_in(kept + count, length) >= rules["settings.voucher_one_in"]


@given(st.text(VOUCHER_ALPHABET, min_size=1, max_size=16))
def test_a_printed_code_is_the_same_in_even_groups_of_four_at_most(code: str) -> None:
    groups = as_printed(code).split("-")
    assert "".join(groups) == code and max(map(len, groups)) <= 4
    assert len({len(g) for g in groups[:-1]}) <= 1 and len(groups[-1]) <= len(groups[0])


@pytest.mark.parametrize(
    "hours, words",
    [(1, "1 hour"), (6, "6 hours"), (24, "1 day"), (36, "36 hours"), (168, "1 week"), (336, "2 weeks")],
)
def test_hours_as_one_says_them(hours: int, words: str) -> None:
    assert hours_in_words(hours) == words


@given(st.none() | st.integers(0, 3650), st.none() | st.integers(0, 3650), st.text(max_size=40))
def test_terms_say_what_is_kept_and_nothing_else_of_it(before: int | None, now: int | None, own: str) -> None:
    for terms in (usual_terms("The Inn", before), own):
        told = terms_with(terms, now)
        assert kept_said(now) in told
        assert before == now or kept_said(before) not in told
    assert usual_terms("The Inn", now) == terms_with(usual_terms("The Inn", before), now)


_OPEN = WirelessName(
    id="air", network="guests", ssid="Inn Guests", security="open_portal", client_isolation=True
)
_ANSWERED = tuple(LawAnswer(question=q, answer="asked") for q in ("who_was_on", "filter", "notice", "liable"))
_TOLD = PAGE.model_copy(update={"law": _ANSWERED})
_BY_CODE = _TOLD.model_copy(update={"way": "voucher"})
_SCENES: dict[str, tuple[list[Element], str]] = {
    "none-air": ([GUESTS, _OPEN], "anybody in reach is on Guests"),
    "terms-page": ([GUESTS, _TOLD.model_copy(update={"terms": " "})], "no terms"),
    "told-page": ([GUESTS, _TOLD.model_copy(update={"kept_days": 30})], "It is kept for 30 days"),
    "asks-page": ([GUESTS, _TOLD.model_copy(update={"way": "register"})], "for nothing by which to tell"),
    "vouchers-page": ([GUESTS, _BY_CODE], "there are none"),
    "spare-page": ([GUESTS, _TOLD, LET_ON], "asks for none"),
    "gear-page": ([GUESTS.model_copy(update={"purpose": "cameras"}), _TOLD, LET_ON], "cannot read a page"),
    "rooms-week": ([GUESTS, _BY_CODE, LET_ON.model_copy(update={"rooms": True})], "no room is called one"),
    "places-week": (
        [
            GUESTS.model_copy(update={"expected_clients": 5}),
            _BY_CODE,
            LET_ON.model_copy(update={"rooms": True}),
            _room("a", "Room 1"),
        ],
        "3 vouchers for 2 devices each let 6 on Guests at once, which is planned for 5",
    ),
    "slow-week": (
        [GUESTS, _BY_CODE, LET_ON.model_copy(update={"limit_mbps": 2})],
        "2 Mb/s for a client by its own",
    ),
    "addresses-page": (
        [GUESTS.model_copy(update={"expected_clients": 60}), _TOLD.model_copy(update={"session_h": 1})],
        # 4 h after 1 h on: 60 places with 4 addresses each.
        "leased for 4 hours: 60 places with one guest after the other take 240 addresses, and 234 are given out",
    ),
}


@pytest.mark.parametrize("key", _SCENES)
def test_what_is_wrong_with_guests_is_said_and_its_cure_mends_it(key: str) -> None:
    elements, words = _SCENES[key]
    design = _inn(*elements)
    check(design, CATALOGUE)
    found = _findings(design)[key]
    assert words in found.text and found.cures
    for cure in found.cures:
        after = apply(design, list(cure.changes))
        check(after, CATALOGUE)
        assert key not in _findings(after)


def test_law_is_asked_by_kind_until_all_is_answered() -> None:
    found = _findings(_inn(GUESTS, PAGE.model_copy(update={"kept_days": None})))["law-page"]
    assert "is not said; of what local law may ask, 3 are open: Must it be kept who was on" in found.text
    school = _findings(_inn(GUESTS, PAGE, kind="school"))["law-page"]
    assert school.text.startswith("Guests: of what local law may ask, 4 are open") and not school.cures
    assert "law-page" not in _findings(_inn(GUESTS, _TOLD))


def test_what_cannot_read_a_page_is_named_where_it_would_meet_one() -> None:
    room = _room("a", "Room 1")
    groups = [
        ClientGroup(id="tv", space="a", kind="television", count=2, wired=0),
        ClientGroup(id="people", space="a", kind="phone", count=2, wired=0),
    ]
    design = _inn(GUESTS, _TOLD, room, *groups, _OPEN)
    assert "television (2 on the air): on Guests it would meet a page" in _findings(design)["blind-page"].text
    things = Network(id="things", name="Things", purpose="devices", vlan=30, subnet="192.168.30.0/24")
    air = WirelessName(id="t", network="things", ssid="Inn Things")
    assert "blind-page" in _findings(apply(design, [put(things)])), "there is no name for it on the air"
    assert "blind-page" not in _findings(apply(design, [put(things), put(air)]))
    outlet = Device.model_validate(
        {
            "id": "o",
            "floor": "f",
            "kind": "outlet",
            "model": "outlet-double",
            "name": "Television",
            "at": [2, 2],
            "height_m": 0.3,
        }
    )
    wired = [g.model_copy(update={"wired": 2}) if g.id == "tv" else g for g in groups]
    # By its name it belongs to the devices; without a network for them it would be on the guests'.
    alone = _findings(_inn(GUESTS, _TOLD, room, *wired, _OPEN, outlet))
    assert "blind-page" not in alone or "Television" in alone["blind-page"].text


@pytest.mark.parametrize("kind", get_args(SiteKind))
def test_kinds_that_let_the_public_on_bring_their_page_along(kind: SiteKind) -> None:
    rooms = [_room("a", "Room 1"), _room("b", "Bedroom")]
    (cure,) = usual_networks(_inn(*rooms, kind=kind), CATALOGUE)
    design = apply(_inn(*rooms, kind=kind), list(cure.changes))
    check(design, CATALOGUE)
    paged = kind in ("guest_house", "school")
    assert bool(design.of(Portal)) == paged
    assert {n.security for n in design.of(WirelessName).values()} == {
        "wpa3_wpa2",
        *(["open_portal"] if paged else []),
    }
    left = set(_findings(design)) - {"law-portal-1"}
    assert not left, left
    if kind == "guest_house":
        (sheet,) = vouchers_of(Plan(design, CATALOGUE)).values()
        assert (sheet.rooms, sheet.lasts, sheet.at_once) == (("Bedroom", "Room 1"), "1 week", 6)


@examples(40)
@given(st.integers(1, 500), st.integers(0, 6), st.booleans())
def test_a_set_has_as_many_codes_as_it_says_and_each_room_its_own(
    number: int, rooms: int, each: bool
) -> None:
    one = LET_ON.model_copy(update={"number": number, "rooms": each})
    spaces = [_room(f"r{k}", f"Room {k + 1}") for k in range(rooms)]
    plan = Plan(_inn(GUESTS, _BY_CODE, one, *spaces, _OPEN), CATALOGUE)
    wanted = min(number * rooms if each else number, MOST_VOUCHERS)
    assert codes_wanted(plan) == {"vouchers/week": wanted}
    codes = make_codes(wanted + 2, (), wanted + 2, CATALOGUE.rules, random.Random(1))
    sheet = slips_of(plan, "Project", "week", codes)
    assert [s.code.replace("-", "") for s in sheet.slips] == list(codes)
    whose = [s.whose for s in sheet.slips]
    owners = [f"Room {k + 1}" for k in range(rooms) for _ in range(number)][:wanted] if each else []
    assert whose[: len(owners)] == owners
    assert whose[len(owners) :] == [f"No. {k}" for k in range(len(owners) + 1, wanted + 3)]
    assert (sheet.place, sheet.ssids, sheet.open) == ("The Inn", ("Inn Guests",), True)


def test_what_a_page_and_vouchers_hold_is_a_setting_and_is_taken_over() -> None:
    plan = Plan(_inn(GUESTS, _BY_CODE, LET_ON, _OPEN), CATALOGUE)
    held = {(s.target, s.key): s for s in held_settings(plan).settings}
    assert held["network/guests", "page.way"].value == "voucher"
    assert held["network/guests", "page.kept_days"].value == 7
    assert held["vouchers/week", "total"].value == 3
    assert held["vouchers/week", "limit_mbps"].reason == "what the line gives"
    others: dict[tuple[str, str], object] = {
        ("network/guests", "page.way"): "agree",
        ("network/guests", "page.hours"): 5,
        ("network/guests", "page.asks"): ("room",),
        ("network/guests", "page.terms"): "Be kind.\nBe quiet.",
        ("network/guests", "page.kept_days"): 0,
        ("vouchers/week", "label"): "Seven days",
        ("vouchers/week", "hours"): 170,
        ("vouchers/week", "devices"): 4,
        ("vouchers/week", "limit_mbps"): 9.5,
    }
    for (target, key), value in others.items():
        own = held[target, key].value
        changes = taken_over(
            plan, Differs.model_validate({"target": target, "key": key, "held": value, "wanted": own})
        )
        assert changes is not None, key
        now = held_settings(plan.after(changes)).settings
        assert next(s.value for s in now if (s.target, s.key) == (target, key)) == value


def test_terms_keep_their_lines_and_nothing_else_that_cannot_be_shown() -> None:
    row = {"id": "page", "network": "guests", "terms": "One\r\nTwo\u2028Three\x00\tfour\n"}
    page = parse_element("portal", row)
    assert isinstance(page, Portal) and page.terms == "One\nTwo\nThree four\n"
    named = parse_element("voucher_set", {"id": "v", "portal": "page", "name": "A\nB"})
    assert isinstance(named, VoucherSet) and named.name == "A B"


def test_a_network_has_one_page() -> None:
    with pytest.raises(DesignError, match="a network has one page, and page is before the same"):
        check(_inn(GUESTS, PAGE, PAGE.model_copy(update={"id": "second"})), CATALOGUE)


def test_updates_wait_for_the_quiet_hour_of_their_day() -> None:
    def said(**site: object) -> tuple[object, list[str]]:
        evaluation = evaluate(Plan(design := _inn(kind="school", **site), CATALOGUE))
        held = {s.key: s.value for s in held_settings(Plan(design, CATALOGUE)).settings if s.target == "site"}
        return held["updates_at"], [f.id for f in evaluation.findings if f.id == "brief-quiet"]

    for day in get_args(Weekday):
        at, findings = said(quiet_hour="11:00", quiet_day=day)
        assert at == f"{day.capitalize()} 11:00"
        assert findings == ([] if day == "sunday" else ["brief-quiet"]), "a school is closed on Sundays"
    assert said(quiet_hour="02:00", quiet_day=None) == ("02:00", [])
