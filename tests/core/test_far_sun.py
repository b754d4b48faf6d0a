"""Gear on the sun at a far place, and a radio's line in rain: against plain arithmetic, hour by hour."""

from __future__ import annotations

import math

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from heathrise.core.catalogue import load_catalogue
from heathrise.core.context.plan import Plan
from heathrise.core.design import Change, Design, EquipmentRoom, FarPoint, OwnFigure, apply, design_of, put
from heathrise.core.far import FarOffer, sun_hours
from heathrise.core.far.sun import SunLoad, held_by_hour
from heathrise.core.views.far_ways import far_ways

from ..thorough import examples
from .plans import access_point, shell

CATALOGUE = load_catalogue()
RULES = CATALOGUE.rules
RACK = EquipmentRoom(id="rack", floor="f", name="Rack", at=(1.0, 1.0))


def site(figures: dict[str, object] | None = None, **more: object) -> Design:
    said = {"id": "far", "name": "Gate", "at": (1.0, 101.0), "cameras": 1, **more}
    drawn = design_of([*shell(), access_point(3, 3), RACK, FarPoint.model_validate(said)])
    own: list[Change] = [
        put(OwnFigure.model_validate({"id": f"own-{k}", "figure": f"far.{name}", "value": value}))
        for k, (name, value) in enumerate((figures or {}).items())
    ]
    return apply(drawn, own)


def way(key: str, figures: dict[str, object] | None = None, **more: object) -> FarOffer:
    return next(w for w in far_ways(Plan(site(figures, **more), CATALOGUE), "far").ways if w.id == key)


# The battery, hour by hour, with what is switched off.

loads = st.lists(
    st.tuples(st.integers(1, 30), st.sampled_from([0.0, 0.25, 0.5, 0.75])), min_size=1, max_size=4
)
days = st.lists(st.floats(0, 6), min_size=1, max_size=20)


def _plainly(
    panel: float, battery: float, rows: list[tuple[int, float]], sun: list[float]
) -> tuple[list[float], int | None]:
    """A ledger of Wh: what came, what went, who is still on."""
    wh, told = battery, []
    on = [True] * len(rows)
    for hour in range(24 * len(sun)):
        on = [is_on and below <= wh / battery for is_on, (_, below) in zip(on, rows, strict=True)]
        today = sun[hour // 24]
        lit = max(1, math.ceil(today))
        noonish = range(12 - lit // 2, 12 - lit // 2 + lit)
        wh += panel * 0.7 * today / lit if hour % 24 in noonish else 0.0
        wh -= sum(watts for is_on, (watts, _) in zip(on, rows, strict=True) if is_on)
        wh = min(wh, battery)
        if wh < 0:
            return told, hour
        told.append(wh)
    return told, None


@given(st.floats(10, 800), st.floats(100, 5000), loads, days)
@examples(60)
def test_a_battery_stands_as_a_plain_ledger_has_it(
    panel: float, battery: float, rows: list[tuple[int, float]], sun: list[float]
) -> None:
    held = held_by_hour(RULES, panel, battery, [SunLoad(str(k), w, b) for k, (w, b) in enumerate(rows)], sun)
    told, dark = _plainly(panel, battery, rows, sun)
    assert held.dark_h == dark
    assert [c * battery for c in held.charge[: len(told)]] == pytest.approx(told)
    assert all(load.off_below > 0 for _, load in held.off), "what is never switched off stays on"
    without = held_by_hour(RULES, panel, battery, [SunLoad("", w) for w, _ in rows], sun)
    if held.dark_h is not None:
        assert without.dark_h is not None and without.dark_h <= held.dark_h, "less drawn lasts no shorter"


def test_a_gate_goes_dark_in_a_grey_december_and_is_mended_by_what_is_said() -> None:
    bad = {"grey_days": 12, "sun_months": (1, 1.6, 2.5, 3.6, 4.6, 5, 4.9, 4.2, 3.1, 2, 1.2, 0.9)}
    gate = way("extender-solar", bad)
    assert gate.sun is not None and gate.sun.month == "December" and gate.sun.hours == 0.9
    spell = gate.sun.spell
    assert gate.verdict == "near" and spell.dark_h is not None
    assert f"leaves it dark after {spell.dark_h} h" in gate.binds
    wanted = int(gate.would.split()[2])
    assert gate.would == f"batteries for {wanted} days of cloud"
    mended = way("extender-solar", {**bad, "cloud_days": wanted})
    assert mended.verdict == "met" and mended.sun is not None and mended.sun.spell.dark_h is None
    assert mended.cost.once > gate.cost.once, "a cure that is bought has a price"
    short = way("extender-solar", {**bad, "cloud_days": wanted - 1})
    assert short.verdict == "near", "one day less would not do"


@given(
    st.integers(1, 20),
    st.sampled_from([0.0, 0.1, 0.2, 0.5]),
    st.integers(1, 6),
    st.integers(0, 3),
    st.sampled_from([0.6, 1.0, 2.0]),
)
@examples(20)
def test_what_would_bring_it_through_does(
    grey: int, share: float, cameras: int, doors: int, hours: float
) -> None:
    figures: dict[str, object] = {"grey_days": grey, "grey_share": share, "sun_hours_here": hours}
    one = way("fibre-solar", figures, cameras=cameras, doors=doors)
    assert one.sun is not None
    check = next(c for c in one.checks if "grey spell" in c.words)
    assert (check.state == "near") == (one.sun.spell.dark_h is not None)
    assume(check.state == "near" and check.would.startswith("batteries for"))
    more = way(
        "fibre-solar", {**figures, "cloud_days": int(check.would.split()[2])}, cameras=cameras, doors=doors
    )
    assert next(c for c in more.checks if "grey spell" in c.words).state == "met"


def test_what_is_shed_keeps_the_rest_up_longer_and_is_told() -> None:
    figures = {"grey_days": 30, "grey_share": 0.0}
    one = way("radio_5-solar", figures, clients=5, cameras=2, doors=1)
    assert one.sun is not None
    spell = one.sun.spell
    assert [(s.name, s.watts) for s in spell.shed] == [("the access point", 13), ("2 cameras", 16)]
    assert spell.dark_h == one.sun.dark_h and spell.shed_dark_h is not None
    assert spell.shed[0].hour < spell.shed[1].hour < spell.shed_dark_h > spell.dark_h
    assert (
        spell.charge[0] == 1 and spell.charge[-1] == 0 and len(spell.charge) == -(-spell.dark_h // 6) + 1
    ) or (len(spell.charge) == spell.dark_h // 6 + 2)


def test_months_come_before_a_worst_month_and_that_before_the_latitude() -> None:
    table = (2.0,) * 11 + (1.4,)
    rows = [
        ({"sun_months": table, "sun_hours_here": 3.0}, 1.4, "December"),
        ({"sun_hours_here": 3.0}, 3.0, ""),
        ({}, 1.0, ""),
        ({"sun_months": (0.8, *table[1:])}, 0.8, "January"),
    ]
    for figures, hours, month in rows:
        kit = way("fibre-solar", figures).sun
        assert kit is not None and (kit.hours, kit.month) == (hours, month)
    polar = way("fibre-solar", {"sun_months": (0.0, *table[1:])})
    assert polar.verdict == "out" and polar.binds == "January has no hour of sun there"


def test_a_panels_tilt_counts_by_the_light_of_the_shortest_noon() -> None:
    # At 50 degrees the noon sun stands 16.55 degrees high: a panel at 73.45 faces it, one at 65 almost.
    assert sun_hours(RULES, 50) == 1.0
    assert sun_hours(RULES, 50, 65) == pytest.approx(1.0)
    assert sun_hours(RULES, 50, 73.45) == pytest.approx(1 / math.cos(math.radians(8.45)))
    flat = math.cos(math.radians(73.45 - 20)) / math.cos(math.radians(8.45))
    assert sun_hours(RULES, 50, 20) == pytest.approx(flat)


# A radio's line in rain.


@given(st.floats(30, 2500), st.sampled_from(["radio_5", "radio_60"]))
@examples(25)
def test_a_line_in_ever_rarer_rain_is_ever_lower_and_its_rate_is_on_the_stairs(
    metres: float, medium: str
) -> None:
    one = way(f"{medium}-solar", at=(1.0, round(1 + metres, 1)), mast_m=30, room_mast_m=30)
    clear, *rain = one.weather
    assert clear.rain_db == 0 and clear.percent == 0 and clear.level_dbm == one.level_dbm
    for before, after in zip(one.weather, rain, strict=False):
        assert after.level_dbm <= before.level_dbm and after.rain_db >= before.rain_db
        assert after.minutes < before.minutes or before is clear
    for row in one.weather:
        kept = [r.mbps for r in one.rates if row.level_dbm >= r.from_dbm - 0.05]
        sure = [r.mbps for r in one.rates if row.level_dbm >= r.from_dbm + 0.05]
        assert max(sure, default=0) <= row.mbps <= max(kept, default=0)
        assert row.over_db == pytest.approx(row.level_dbm - (one.rates[0].from_dbm - 15), abs=0.11)
        assert row.level_dbm == pytest.approx(clear.level_dbm - row.rain_db, abs=0.11)
    hundredth = next(r for r in rain if r.percent == 0.01)
    assert one.mbps == round(hundredth.mbps, 1), "what a way gives is what it gives in that rain"
    assert [r.minutes for r in rain] == [5260, 526, 53, 5]
