"""Panels and batteries for a far place: the worst month, the cheapest that do, a grey spell stood through."""

from __future__ import annotations

import math
from collections.abc import Iterator

from pydantic import Field

from ..base.frozen import Frozen
from ..base.wording import some
from ..catalogue import Rules, SunModel, Used, on_offer
from .media import BATTERY, PANELS, Draft
from .sun import (
    HOURS,
    Chemistry,
    Held,
    Sunlit,
    SunLoad,
    battery_wh,
    dark_hour,
    held_by_hour,
    panel_w,
    sun_hours,
    usable_share,
)
from .ways import FarCheck, FarDemand, FarSite

_CHEMISTRY: dict[Chemistry, str] = {"lead_acid": "lead-acid", "lithium": "lithium"}
MONTHS = (
    "January",
    "February",
    "March",
    "April",
    "May",
    "June",
    "July",
    "August",
    "September",
    "October",
    "November",
    "December",
)
_MOST_DAYS = 60  # of cloud that more batteries are offered for
_DRAWN_H = 6


class SunShed(Frozen):
    """What is switched off to keep the rest up, and in which hour."""

    hour: int
    name: str
    watts: float


class SunSpell(Frozen):
    """A grey spell in the worst month, from a full battery on. ``charge`` is its share every six hours, as
    all runs on, and ``charge_shed`` with what is switched off."""

    days: int
    share: float = Field(description="of that month's sun that comes through")
    dark_h: int | None = Field(description="hour in which it is empty, None where it is not")
    shed: tuple[SunShed, ...]
    shed_dark_h: int | None
    charge: tuple[float, ...]
    charge_shed: tuple[float, ...]


class SunKit(Frozen):
    """Panels and batteries that keep a load up through the worst month."""

    hours: float = Field(description="of full sun a day in the worst month")
    month: str = Field("", description="the worst one, where a table of the place says so")
    panels: int
    panel_w: float = Field(description="of all panels together")
    wanted_w: float
    batteries: int
    battery_wh: float = Field(description="as rated, all together")
    chemistry: str
    days: float = Field(description="without sun that they bridge")
    dark_h: int = Field(description="hour without any sun in which a full battery is empty")
    spell: SunSpell


def worst_month(rules: Rules) -> tuple[float, str, tuple[Used, ...]]:
    """Return the hours of sun a day of the worst month, its name where a table has it, and the figures used:
    the table of the place, else its worst month, else the latitude and the tilt."""
    table = rules.numbers("far.sun_months")
    if any(table):
        least = min(table)
        name = MONTHS[len(table) - 1 - table[::-1].index(least)] if len(table) == len(MONTHS) else ""
        return least, name, rules.used("far.sun_months")
    if rules["far.sun_hours_here"]:
        return rules["far.sun_hours_here"], "", rules.used("far.sun_hours_here")
    hours = sun_hours(rules, rules["far.latitude_deg"], rules["far.tilt_deg"])
    return round(hours, 2), "", rules.used("far.latitude_deg", "far.tilt_deg")


def solar(site: FarSite, draft: Draft, demand: FarDemand, load_w: float) -> SunKit | None:
    """Judge panels and batteries for a load; the cheapest over the years."""
    rules, bill = site.rules, draft.bill
    hours, month, used = worst_month(rules)
    used = (*used, *rules.used("far.sun_share", "far.cloud_days"))
    when = f"in {month}" if month else "in the worst month"
    if hours <= 0:
        words = f"{month or 'the worst month'} has no hour of sun there"
        would = "power there, or along a cable"
        draft.checks.append(FarCheck(state="out", words=words, would=would, used=used))
        return None
    wanted_w = panel_w(rules, load_w, hours)
    panels = [(m, math.ceil(wanted_w / m.watts)) for m in _suns(site) if m.watts]
    panel, count = min(
        panels, key=lambda r: (r[1] * (site.prices.each(r[0].id) + site.prices.each("sun-frame")), r[0].id)
    )
    most, days = int(rules["far.most_panels"]), rules["far.cloud_days"]
    later, cell, number = _batteries(site, load_w, days)
    assert cell.chemistry is not None
    words = (
        f"{load_w:g} W want {wanted_w:.0f} W of panels at {hours:g} h of sun a day {when}: {count} of them, "
        f"and {number * cell.wh / 1000:.1f} kWh of {_CHEMISTRY[cell.chemistry]} for {days:g} days of cloud"
    )
    few = count <= most
    would = "" if few else f"less drawn out there: no more than {most} panels stand at one place"
    draft.checks.append(FarCheck(state="met" if few else "near", words=words, would=would, used=used))
    loads = list(_loads(site, draft, demand, load_w))
    spell = _spell(site, cell, number, count * panel.watts, loads, hours)
    draft.checks.append(_through_it(site, spell, count * panel.watts, load_w, hours))
    bill.add(panel.id, count)
    bill.add("sun-frame", count)
    bill.add("sun-charger")
    bill.add(cell.id, number)
    bill.later += later
    bill.work("sun", "mount", "Put up solar panels", count * rules["far.minutes.panel"], count, ("lifting",))
    stored = number * rules["far.minutes.battery"] + rules["far.minutes.charger"]
    bill.work("store", "power", "Set batteries and the charger, and wire them", stored, number, ("lifting",))
    bill.upkeep_minutes += rules["far.upkeep_minutes.solar"] + number * rules["far.upkeep_minutes.battery"]
    draft.needs.append("open sky to the south" if rules["far.latitude_deg"] >= 0 else "open sky to the north")
    if cell.chemistry == "lithium" and rules["far.coldest_c"] < 0:
        draft.needs.append("a battery that is kept above 0 °C while it charges")
    draft.hurts += [PANELS, BATTERY]
    return SunKit(
        hours=hours,
        month=month,
        panels=count,
        panel_w=count * panel.watts,
        wanted_w=round(wanted_w, 1),
        batteries=number,
        battery_wh=number * cell.wh,
        chemistry=cell.chemistry,
        days=days,
        dark_h=_dark_h(site, cell, number, count * panel.watts, load_w),
        spell=spell,
    )


def _loads(site: FarSite, draft: Draft, demand: FarDemand, load_w: float) -> Iterator[SunLoad]:
    """Yield what of a load may be switched off, and the rest, what the way itself draws with it."""
    rules, cameras = site.rules, site.point.cameras
    node_w = 0.0 if draft.serves else demand.node_w
    camera_w = cameras * rules["far.draw_w.camera"]
    if node_w:
        yield SunLoad("the access point", node_w, rules["far.shed_below.access_point"])
    if cameras:
        name = "the camera" if cameras == 1 else f"{cameras} cameras"
        yield SunLoad(name, camera_w, rules["far.shed_below.camera"])
    if rest := round(load_w - node_w - camera_w, 1):
        yield SunLoad("the rest", rest)


def _usable_wh(rules: Rules, cell: SunModel, number: int) -> float:
    assert cell.chemistry is not None
    return number * cell.wh * usable_share(rules, cell.chemistry, rules["far.coldest_c"])


def _spell(
    site: FarSite, cell: SunModel, number: int, panels_w: float, loads: list[SunLoad], hours: float
) -> SunSpell:
    rules = site.rules
    days, share = int(rules["far.grey_days"]), rules["far.grey_share"]
    usable, sun = _usable_wh(rules, cell, number), [hours * share] * days
    as_is = held_by_hour(rules, panels_w, usable, [SunLoad(k.name, k.watts) for k in loads], sun)
    kept = held_by_hour(rules, panels_w, usable, loads, sun)
    return SunSpell(
        days=days,
        share=share,
        dark_h=as_is.dark_h,
        shed=tuple(SunShed(hour=h, name=k.name, watts=k.watts) for h, k in kept.off),
        shed_dark_h=kept.dark_h,
        charge=_drawn(as_is),
        charge_shed=_drawn(kept),
    )


def _drawn(held: Held) -> tuple[float, ...]:
    """Return the charge every six hours, and at the end."""
    rows = [1.0, *held.charge]
    shown = rows[::_DRAWN_H]
    return tuple(round(v, 3) for v in (shown if (len(rows) - 1) % _DRAWN_H == 0 else [*shown, rows[-1]]))


def _through_it(site: FarSite, spell: SunSpell, panels_w: float, load_w: float, hours: float) -> FarCheck:
    """Judge a grey spell; what would bring it through is batteries for more days, else more panels."""
    rules = site.rules
    used = rules.used("far.grey_days", "far.grey_share", "far.shed_below.access_point")
    told = f"a grey spell of {spell.days} days with {spell.share:.0%} of the sun"
    if spell.dark_h is None:
        return FarCheck(state="met", words=f"stays up through {told}", used=used)
    words = f"{told} leaves it dark after {spell.dark_h} h"
    if spell.shed:
        names = some([s.name for s in spell.shed])
        ends = f"dark after {spell.shed_dark_h} h" if spell.shed_dark_h is not None else "the rest stays up"
        words += f"; with {names} switched off from hour {spell.shed[0].hour} on, {ends}"
    sun = [hours * spell.share] * spell.days
    for days in range(math.ceil(rules["far.cloud_days"]) + 1, _MOST_DAYS + 1):
        _, cell, number = _batteries(site, load_w, days)
        bought = Sunlit(panels_w, _usable_wh(rules, cell, number), load_w)
        if dark_hour(rules, bought, sun) is None:
            return FarCheck(state="near", words=words, would=f"batteries for {days} days of cloud", used=used)
    return FarCheck(state="near", words=words, would="less drawn out there, or power there", used=used)


def _dark_h(site: FarSite, cell: SunModel, number: int, panels_w: float, load_w: float) -> int:
    usable = _usable_wh(site.rules, cell, number)
    grey = [0.0] * (math.ceil(usable / load_w / HOURS) + 1)
    hour = dark_hour(site.rules, Sunlit(panels_w, usable, load_w), grey)
    assert hour is not None  # without sun every battery is empty some day
    return hour


def _suns(site: FarSite) -> list[SunModel]:
    return on_offer(site.catalogue.suns)


def _batteries(site: FarSite, load_w: float, days: float) -> tuple[float, SunModel, int]:
    """Return the cheapest batteries over the years for days of cloud: what they cost later, and how many."""
    rules, years = site.rules, site.point.years
    rows = []
    for model in _suns(site):
        if model.chemistry is not None:
            wanted = battery_wh(rules, load_w, model.chemistry, days, rules["far.coldest_c"])
            number = math.ceil(wanted / model.wh)
            once = number * site.prices.each(model.id)
            later = once * (math.ceil(years / rules[f"far.battery_years.{model.chemistry}"]) - 1)
            rows.append((once + later, model.id, later, model, number))
    _, _, later, model, number = min(rows, key=lambda r: r[:2])
    return later, model, number
