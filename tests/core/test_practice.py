"""Practice profiles: which school holds, what another would change, and what that does; against plain counts."""

from __future__ import annotations

import itertools
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from heathrise.core.base.progress import always
from heathrise.core.catalogue import Catalogue, Matter, load_catalogue
from heathrise.core.context.integrity import check
from heathrise.core.context.on_air import broadcasts
from heathrise.core.context.plan import Plan
from heathrise.core.design import (
    Design,
    DesignError,
    Device,
    Network,
    OwnFigure,
    Practice,
    Radio,
    SchoolChoice,
    Site,
    Switch,
    WirelessName,
    apply,
    put,
)
from heathrise.core.evaluation.evaluate import evaluate
from heathrise.core.order import Order
from heathrise.core.signal import WalkPoint, air_of, walk
from heathrise.core.views.bill_of_materials import order_of
from heathrise.core.views.held import Setting, held_settings, in_words
from heathrise.core.views.practice import practice_view, profile_changes, school_changes
from heathrise.core.views.practice_change import altered_settings, practice_change
from heathrise.demo import SITES

from ..thorough import examples
from .plans import access_point, design_of, rack, shell

MATTERS = load_catalogue().matters
CHOICES = st.dictionaries(
    st.sampled_from(list(MATTERS)), st.tuples(st.integers(0, 9), st.one_of(st.none(), st.integers(1, 4)))
)


def _practice(said: dict[str, tuple[int, int | None]]) -> Practice:
    rows = []
    for key, (number, value) in said.items():
        schools = list(MATTERS[key].schools.items())
        name, school = schools[number % len(schools)]
        fits = value if school.takes and value and school.takes.least <= value <= school.takes.most else None
        rows.append(SchoolChoice(matter=key, school=name, value=fits))
    return Practice(id="practice", name="Ours", choices=tuple(rows))


def _plain(practice: Practice) -> tuple[dict[str, Any], dict[str, Any]]:
    """What a profile stands for, matter by matter: figures by path, choices for the site by field."""
    figures: dict[str, Any] = {}
    site: dict[str, Any] = {}
    for key, matter in MATTERS.items():
        school, value = next(iter(matter.schools.values())), None
        for choice in practice.choices:
            if choice.matter == key:
                school, value = matter.schools[choice.school], choice.value
        figures.update(school.figures)
        site.update(school.site)
        if school.takes is not None:
            number = school.takes.value if value is None else value
            for path in school.takes.paths:
                figures[path] = float(number)
            if school.takes.site:
                site[school.takes.site] = int(number)
    return figures, site


def _school() -> Plan:
    return Plan(SITES[0].make(), load_catalogue())


def _bare() -> Plan:
    """A site of which nothing was said."""
    return Plan(apply(design_of(*shell()), [put(Site(id="site"))]), load_catalogue())


@examples(40)
@given(
    CHOICES,
    st.dictionaries(st.sampled_from(["settings.dtim.main", "order.panel_from_runs"]), st.integers(1, 9)),
)
def test_what_counts_is_the_project_s_then_the_profile_s_then_the_firm_s(
    said: dict[str, tuple[int, int | None]], own: dict[str, int]
) -> None:
    shipped = load_catalogue()
    firm = shipped.ruled_by(shipped.rules.by_firm({"settings.lease_h.guest": 9.0, "settings.dtim.main": 7.0}))
    practice = _practice(said)
    rows = [OwnFigure(id=f"o{k}", figure=p, value=float(v)) for k, (p, v) in enumerate(own.items())]
    rules = Plan(design_of(*shell(), practice, *rows), firm).rules
    figures, _ = _plain(practice)
    for path, figure in rules.figures.items():
        wanted = figure.shipped
        wanted = {"settings.lease_h.guest": 9.0, "settings.dtim.main": 7.0}.get(path, wanted)  # type: ignore[arg-type]
        wanted = figures.get(path, wanted)
        wanted = float(own[path]) if path in own else wanted
        assert figure.value == wanted, path
        by = "project" if path in own else "profile" if path in figures else None
        assert by is None or figure.whose == by
    bare = Plan(design_of(*shell()), firm).rules.figures["settings.dtim.main"]
    assert (bare.value, bare.whose) == (7.0, "firm")


@examples(30)
@given(CHOICES, CHOICES)
def test_another_profile_takes_over_what_the_one_before_had_and_leaves_the_rest(
    first: dict[str, tuple[int, int | None]], then: dict[str, tuple[int, int | None]]
) -> None:
    plan = _bare()
    one, other = _practice(first), _practice(then)
    plan = plan.after(profile_changes(plan, one))
    assert all(getattr(plan.drawn.site, f) == v for f, v in _plain(one)[1].items())
    assert not [r.matter for r in practice_view(plan).rows if r.own and _told_apart(r.matter)]
    # What a person set otherwise stays, the rest is the new profile's.
    width = next(w for w in (20, 40, 80) if w != plan.drawn.site.width_5ghz_mhz)
    by_hand = plan.after([put(plan.drawn.site.model_copy(update={"width_5ghz_mhz": width}))])
    after = by_hand.after(profile_changes(by_hand, other))
    wanted = {**_plain(other)[1], "width_5ghz_mhz": width}
    assert {f: getattr(after.drawn.site, f) for f in wanted} == wanted
    check(after.drawn, after.shelf)
    back = after.after(profile_changes(after, one))
    if _plain(other)[1]["width_5ghz_mhz"] == width:  # what a profile has too is its own from then on
        width = _plain(one)[1]["width_5ghz_mhz"]
    assert back.drawn.site == by_hand.drawn.site.model_copy(update={"width_5ghz_mhz": width})
    assert back.rules.own("profile") == plan.rules.own("profile")


def _told_apart(key: str) -> bool:
    """Whether the schools of a matter cannot be mistaken for each other by their number."""
    return not all(s.takes and not s.figures and not s.site for s in MATTERS[key].schools.values())


_EVERY = [(k, s) for k, matter in MATTERS.items() for s in matter.schools]


@pytest.mark.parametrize(("key", "school"), _EVERY)
def test_one_project_goes_by_any_school_and_back_again(key: str, school: str) -> None:
    plan = _bare()
    gone = plan.after(school_changes(plan, key, school, None))
    check(gone.drawn, gone.shelf)
    (row,) = [r for r in practice_view(gone).rows if r.matter == key]
    assert row.taken == school and row.own == (school != MATTERS[key].usual)
    others = [r for r in practice_view(gone).rows if r.matter != key]
    assert not any(r.own for r in others)
    back = gone.after(school_changes(gone, key, MATTERS[key].usual, None))
    assert back.drawn.site == plan.drawn.site and not back.drawn.of(OwnFigure)


def test_a_number_out_of_its_bounds_a_school_that_is_not_and_a_matter_twice_are_refused(
    catalogue: Catalogue,
) -> None:
    plan = _school()
    for key, school, value in (("dtim", "none", None), ("tea", "on", None), ("patch_panel", "above", 0.0)):
        with pytest.raises(DesignError) as told:
            school_changes(plan, key, school, value)
        assert "there is no school" in str(told.value) or "from 1 to 100 cables" in str(told.value)
    wrong = [
        ([SchoolChoice(matter="tea", school="on")], "there is no matter 'tea'"),
        ([SchoolChoice(matter="width", school="160")], "has no school '160'; there are 40, 80, 20"),
        ([SchoolChoice(matter="width", school="40", value=2)], "takes no number"),
        ([SchoolChoice(matter="cables", school="two", value=9)], "a whole number from 2 to 4 cables"),
        ([SchoolChoice(matter="width", school="40")] * 2, "width stands twice"),
    ]
    for choices, words in wrong:
        with pytest.raises(DesignError, match=words):
            check(design_of(*shell(), Practice(id="practice", name="X", choices=tuple(choices))), catalogue)
    two = [Practice(id=k, name=k) for k in ("a", "b")]
    with pytest.raises(DesignError, match="at most 1"):
        check(design_of(*shell(), *two), catalogue)


def _names(**more: Any) -> list[Network | WirelessName]:
    return [
        Network(id="n", name="Main", purpose="main", vlan=10, subnet="192.168.10.0/24"),
        WirelessName.model_validate({"id": "w", "network": "n", "ssid": "Main", **more}),
    ]


def _figure(path: str, value: str) -> OwnFigure:
    return OwnFigure(id=path.replace(".", "-").replace("_", "-"), figure=path, value=value)


def test_who_has_a_name_for_each_access_point_stays_until_he_is_lost_and_joins_anew(
    catalogue: Catalogue,
) -> None:
    """The corridor of 130 m: one name changes at 88.6 m with 50 ms. With a name for each access point the
    client stays at AP-1, whose weaker direction, the phone's 15 dBm less 47.26 + 6.6 + 20 log10 d, is never
    below -80 within 120 m of it; so it never changes at all, as fixed devices are meant to."""
    rows = [*shell(130, 4), access_point(10, 2), access_point(120, 2, "ap-2"), *_names(bands=("5",))]
    path = [WalkPoint(floor="f", at=(x, 2)) for x in (0, 130)]
    one = walk(_air(rows, catalogue), path)
    each = walk(_air([*rows, _figure("settings.names_by", "access_point")], catalogue), path)
    assert [e.gap_ms for e in one.events if e.kind == "hand_over"] == [50]
    assert {s.serving for s in each.samples} == {"ap-1"} and each.verdict == "holds"
    # Where the corridor is longer it is lost, and the next is joined with the gap of another name.
    far = [*shell(600, 4), access_point(10, 2), access_point(590, 2, "ap-2"), *_names(bands=("5",))]
    path = [WalkPoint(floor="f", at=(x, 2)) for x in (10, 590)]
    apart = walk(_air([*far, _figure("settings.names_by", "access_point")], catalogue), path)
    together = walk(_air(far, catalogue), path)
    assert together.verdict == apart.verdict == "breaks"
    assert [e.kind for e in apart.events] == [e.kind for e in together.events] == ["lost", "back"]


def test_a_name_for_each_band_does_not_let_a_call_fall_back_by_itself(catalogue: Catalogue) -> None:
    loud = Radio(id="r", device="ap-1", band="2.4", power_dbm=20)
    point = access_point(1, 2, height_m=1.2, mount="wall")
    rows = [*shell(20, 4), point, *_names(bands=("2.4", "5")), loud]
    path = [WalkPoint(floor="f", at=(x, 2)) for x in (1, 400, 1)]
    one = walk(_air(rows, catalogue), path)
    apart = walk(_air([*rows, _figure("settings.bands_by", "apart")], catalogue), path)
    low = [[s.band for s in w.samples if s.serving].count("2.4") for w in (one, apart)]
    assert 0 < low[0] < low[1]  # it stays on 2.4 GHz, which it hears all the way back
    late = [e for e in apart.events if e.kind == "hand_over"]
    assert [e.gap_ms for e in late] == [3000] and late[0].bad and apart.verdict == "breaks"
    assert "3000 ms" in apart.text or "lost" in apart.text
    assert {u.figure for u in apart.used} >= {"signal.gap_ms.other_name", "settings.bands_by"}


def _air(rows: list[Any], catalogue: Catalogue) -> Any:
    plan = Plan(design_of(*rows), catalogue)
    return air_of(plan.design, plan.catalogue)


_SSID = st.text(min_size=1, max_size=32).filter(lambda s: s.strip() and len(s.encode()) <= 32)


@examples(40)
@given(
    st.lists(_SSID, min_size=1, max_size=3, unique=True),
    st.lists(st.text("ABÄ🎻 ", min_size=1, max_size=12).filter(str.strip), min_size=1, max_size=4),
    st.sampled_from(["one", "access_point"]),
    st.sampled_from(["together", "apart"]),
    st.lists(st.booleans(), min_size=3, max_size=3),
)
def test_names_on_the_air_are_all_called_otherwise_and_each_is_where_its_name_is(
    ssids: list[str], devices: list[str], names_by: str, bands_by: str, kept: list[bool]
) -> None:
    points = [
        access_point(1 + 2 * k, 2, f"ap-{k}").model_copy(update={"name": name})
        for k, name in enumerate(devices)
    ]
    net = Network(id="n", name="N", purpose="main", vlan=10, subnet="192.168.10.0/24")
    names = [
        WirelessName(id=f"w{k}", network="n", ssid=s, access_points=("ap-0",) if kept[k] else ())
        for k, s in enumerate(ssids)
    ]
    own = [_figure("settings.names_by", names_by), _figure("settings.bands_by", bands_by)]
    plan = Plan(design_of(*shell(20, 4), *points, net, *names, *own), load_catalogue())
    found = broadcasts(plan.design, plan.catalogue)
    every = [b for rows in found.values() for b in rows]
    assert len({b.ssid for b in every}) == len({b.id for b in every}) == len(every)
    assert all(0 < len(b.ssid.encode()) <= 32 for b in every)
    for name in names:
        on = ["ap-0"] if name.access_points else [p.id for p in points]
        there = [(d, band) for b in found[name.id] for d in b.access_points for band in b.bands]
        assert sorted(there) == sorted(itertools.product(on, name.bands))
        many = (len(on) if names_by == "access_point" else 1) * (2 if bands_by == "apart" else 1)
        assert len(found[name.id]) == many
        if many == 1:
            assert found[name.id][0].ssid == name.ssid


@pytest.mark.parametrize("site", SITES, ids=lambda s: s.key)
def test_every_setting_stands_once_with_a_reason_and_whose_it_is(site: Any) -> None:
    plan = Plan(site.make(), load_catalogue())
    held, found = held_settings(plan), evaluate(plan)
    keys = [(s.target, s.key) for s in held.settings]
    assert len(set(keys)) == len(keys) and sum(held.by.values()) == len(keys)
    assert all(s.reason and s.on and s.label == in_words(s.key) for s in held.settings)
    assert found.settings is not None
    by = {(s.target, s.key): s for s in held.settings}
    unmanaged = {
        s.id for s in plan.design.of(Switch).values() if not plan.catalogue.switches[s.model].managed
    }
    for port in found.settings.ports:
        key = (f"device/{port.switch}", f"port.{port.port}.untagged")
        if port.switch in unmanaged:
            assert key not in by
        else:
            assert by[key].value == port.untagged_vlan and by[key].reason == port.reason
    for radio in found.signal.radios or ():
        at = f"radio.{radio.band}"
        assert by[f"device/{radio.device}", f"{at}.channel"].value == radio.channel
        assert by[f"device/{radio.device}", f"{at}.power_dbm"].value == radio.power_dbm
        assert by[f"device/{radio.device}", f"{at}.on"].whose == radio.origin
    for name in plan.design.of(WirelessName).values():
        network = plan.design.of(Network)[name.network]
        said = by[f"name/{name.id}", "dtim"]
        usual = plan.rules[f"settings.dtim.{network.purpose}"]
        assert (said.value, said.whose) == (
            (usual, "profile") if name.dtim is None else (name.dtim, "person")
        )


def test_an_optimiser_is_given_fences_and_no_channels() -> None:
    plan = _school()
    site = plan.drawn.site.model_copy(update={"channels_by": "controller"})
    held = held_settings(plan.after([put(site)])).settings
    by = {(s.target, s.key): s for s in held}
    assert by["site", "optimiser"].value is True and by["site", "optimiser"].whose == "person"
    assert by["site", "fence.5.width_mhz"].value == 40 and by["site", "fence.5.channels"].value
    assert not [s for s in held if s.key.endswith(".channel")]
    assert all(s.value is True for s in held if s.key.endswith(".tuned"))


@st.composite
def _settings(draw: st.DrawFn) -> tuple[Setting, ...]:
    keys = draw(st.lists(st.sampled_from(["dtim", "port.1.on", "port.2.on", "radio.5.channel"]), unique=True))
    return tuple(
        Setting(
            target=target,
            key=key,
            on=target,
            label=in_words(key),
            value=draw(st.sampled_from([True, False, 1, 36, "x", None])),
            reason="r",
            whose="plan",
        )
        for target in ("device/a", "device/b")
        for key in keys
    )


@examples(60)
@given(_settings(), _settings())
def test_what_would_be_others_is_told_once_for_each_kind(
    before: tuple[Setting, ...], after: tuple[Setting, ...]
) -> None:
    def plain(rows: tuple[Setting, ...]) -> dict[tuple[str, str], str]:
        words = {True: "on", False: "off", None: "none"}
        return {
            (s.target, s.key): words[s.value]
            if s.value is None or isinstance(s.value, bool)
            else str(s.value)
            for s in rows
        }

    was, now = plain(before), plain(after)
    unlike = {k for k in {*was, *now} if was.get(k) != now.get(k)}
    found = {a.key: a for a in altered_settings(before, after)}
    kinds = {k[1].replace("port.1", "port").replace("port.2", "port") for k in unlike}
    assert set(found) == kinds
    for key, row in found.items():
        mine = {t for t, k in unlike if k.replace("port.1", "port").replace("port.2", "port") == key}
        assert set(row.on) == mine
        assert set(row.before.split(" · ")) == {
            was.get(k, "not set")
            for k in unlike
            if k[1].replace("port.1", "port").replace("port.2", "port") == key
        }


def _total(order: Order) -> str:
    return f"{order.sum.total:,.2f} EUR"


def test_what_another_profile_does_is_what_the_plan_says_once_it_is_taken() -> None:
    plan = Plan(SITES[1].make(), load_catalogue())
    light = plan.shelf.practices["light"].practice
    found = practice_change(plan, light, always)
    after = plan.after(found.changes)
    a, b = evaluate(plan, wait=True), evaluate(after, wait=True)
    effects = {e.what: e for e in found.effects}
    price = effects["Price with tax"]
    assert (price.before, price.after) == (_total(order_of(plan)), _total(order_of(after)))
    assert price.better is (order_of(after).sum.total < order_of(plan).sum.total)
    rooms = effects["Rooms that meet all of their use"]
    for text, e in ((rooms.before, a), (rooms.after, b)):
        needed = [r for r in e.rooms if r.verdict != "not_needed"]
        assert text == f"{sum(r.verdict == 'met' for r in needed)} of {len(needed)}"
    walks = effects["Walks on which a call holds"]
    assert (
        walks.after
        == f"{sum(h.verdict == 'holds' for h in b.signal.habits or ())} of {len(b.signal.habits or ())}"
    )
    sleep = effects["A sleeping phone's battery"]  # DTIM 3 and 1: beacons of 102.4 ms
    assert (sleep.before, sleep.after, sleep.better) == ("looks every 307 ms", "looks every 102 ms", False)
    rows = {a.key: a for a in found.altered}
    assert (rows["updates"].before, rows["updates"].after) == ("quiet hour", "nightly")
    assert rows["radio.5.channel"].after == "not set" and len(rows["radio.5.channel"].on) > 4
    # What was chosen for this site stays: it had 80 MHz and one cable by hand.
    assert "width_5ghz_mhz" not in str(rows) and after.drawn.site.width_5ghz_mhz == 80
    same = practice_change(plan, plan.shelf.practices["planned"].practice, always)
    assert not same.altered and not same.matters and all(e.before == e.after for e in same.effects)


def test_schools_of_gear_runs_and_watts_do_what_they_say() -> None:
    plan = next(Plan(s.make(), load_catalogue()) for s in SITES if s.key == "practice")
    kept = {o.id: o for o in evaluate(plan).brief.found if o.advice == "keep" and o.kind != "old_cable"}
    replaced = plan.after(school_changes(plan, "old_gear", "replace", None))
    said = {o.id: o for o in evaluate(replaced).brief.found}
    assert kept and all(
        "replaced while one is there" in said[k].reason for k in kept if "passive" not in kept[k].reason
    )
    usual = plan.after(school_changes(plan, "watts", "usual", None))
    for before, after in zip(evaluate(plan).power.switches, evaluate(usual).power.switches, strict=False):
        assert before.counted_w == (before.reserved_w if before.allocates == "class" else before.rated_w)
        if after.allocates != "class":
            assert after.counted_w == pytest.approx(after.expected_w, abs=0.11)
    octet = plan.after([put(next(iter(plan.drawn.of(Network).values())).model_copy(update={"vlan": 77}))])
    ids = {f.id for f in evaluate(octet).findings}
    free = octet.after(school_changes(octet, "vlan", "any", None))
    gone = ids - {f.id for f in evaluate(free).findings}
    assert gone and all(g.startswith("settings-octet") for g in gone)


@pytest.mark.parametrize("first", ["extender", "fibre"])
def test_a_run_that_is_too_long_is_offered_by_the_firm_s_school(first: str) -> None:
    far = Device.model_validate(
        {**access_point(150, 2, "far").model_dump(), "model": "ravelmoor-c2", "name": "Far"}
    )
    rows = [
        *shell(160, 4),
        rack(1, 2),
        Switch(id="sw", equipment_room="rack", name="SW", model="dunthrip-s16"),
        far,
    ]
    own = _figure("cabling.long_run", first)
    found = evaluate(Plan(design_of(*rows, own), load_catalogue()))
    (length,) = [f for f in found.findings if f.id == "cable-length-far"]
    labels = [c.label for c in length.cures]
    fibre = next(k for k, label in enumerate(labels) if label.startswith("Pull fibre"))
    extender = next(k for k, label in enumerate(labels) if label.startswith("Put in"))
    assert (fibre < extender) == (first == "fibre")


def test_shipped_matters_name_what_there_is(catalogue: Catalogue) -> None:
    practice = catalogue.practices["planned"].practice
    figures, site = _plain(practice)
    assert all(catalogue.rules.figures[p].shipped == v for p, v in figures.items())
    assert all(getattr(Site(id="site"), f) == v for f, v in site.items())
    assert len(catalogue.practices) == 2 and all(isinstance(m, Matter) for m in catalogue.matters.values())
    for row in catalogue.practices.values():
        design: Design = apply(design_of(*shell()), [put(row.practice.model_copy(update={"id": "practice"}))])
        check(design, catalogue)
