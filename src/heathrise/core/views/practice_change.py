"""What another practice profile would change: settings one by one, and what they do to the site."""

from __future__ import annotations

import re
from collections.abc import Iterable, Iterator
from typing import ClassVar

from pydantic import Field

from ..base.frozen import Frozen
from ..base.progress import Progress
from ..base.wording import metres
from ..catalogue import wrong_in
from ..context.integrity import check
from ..context.plan import Plan
from ..context.practice import SaidBy
from ..design import Change, DesignError, Network, Practice, WirelessName
from ..evaluation.evaluate import Evaluation, evaluate
from ..evaluation.side_effects import spoiled
from ..settings import beacons_by_band
from .bill_of_materials import order_of
from .held import NONE, Setting, held_settings, in_words, said
from .practice import differing_matters, profile_changes

_BEACON_MS = 102.4  # IEEE 802.11: a beacon each 100 units of 1.024 ms
_SHOWN = 4


class Altered(Frozen):
    """A setting that would be another; of ports and radios all together. What is alike is told once."""

    KEY: ClassVar = ("key",)

    key: str
    label: str
    before: str
    after: str
    on: tuple[str, ...] = Field(description="what has it, in words")
    reason: str
    whose: SaidBy


class Effect(Frozen):
    """What follows for the site; ``better`` is None where it is neither."""

    KEY: ClassVar = ("what",)

    what: str
    before: str
    after: str
    better: bool | None


class InWords(Frozen):
    """What no figure says of a matter: under the one school, and under the other."""

    KEY: ClassVar = ("matter",)

    matter: str
    before: str
    after: str


class PracticeChange(Frozen):
    """Another practice profile beside the plan's own. ``spoils`` names rooms and walks that do worse."""

    name: str
    changes: tuple[Change, ...]
    matters: tuple[str, ...] = Field(description="matters that it sees differently, in words")
    altered: tuple[Altered, ...]
    settings: int = Field(description="settings that would be others")
    effects: tuple[Effect, ...]
    words: tuple[InWords, ...]
    spoils: tuple[str, ...]


def practice_change(plan: Plan, practice: Practice, progress: Progress) -> PracticeChange:
    """Return what a plan would be under another profile, really worked out.

    Raises:
        DesignError: the profile names what there is not, or the plan cannot stand under it.
    """
    if problems := list(wrong_in(practice, plan.catalogue.matters, "practice")):
        raise DesignError(problems)
    changes = profile_changes(plan, practice)
    after = plan.after(changes)
    check(after.drawn, plan.shelf)
    progress(0, 3)
    before_eval = evaluate(plan, wait=True)
    progress(1, 3)
    after_eval = evaluate(after, wait=True)
    progress(2, 3)
    altered = tuple(altered_settings(held_settings(plan).settings, held_settings(after).settings))
    return PracticeChange(
        name=practice.name,
        changes=changes,
        matters=tuple(f"{m.label}: {b.label.lower()}" for m, _, b in differing_matters(plan, practice)),
        altered=altered,
        settings=sum(len(a.on) for a in altered),
        effects=tuple(_effects(plan, after, before_eval, after_eval)),
        words=tuple(_words(plan, practice)),
        spoils=tuple(spoiled(plan, after)),
    )


def altered_settings(before: tuple[Setting, ...], after: tuple[Setting, ...]) -> Iterator[Altered]:
    """Yield what differs of two lists of settings: one row for a kind of setting, whichever port or radio."""
    was = {(s.target, s.key): s for s in before}
    now = {(s.target, s.key): s for s in after}
    groups: dict[str, list[tuple[Setting | None, Setting | None]]] = {}
    for key in dict.fromkeys([*was, *now]):
        old, new = was.get(key), now.get(key)
        if old is None or new is None or said(old.value) != said(new.value):
            groups.setdefault(re.sub(r"^port\.\d+", "port", key[1]), []).append((old, new))
    for name, pairs in groups.items():
        first = next(new or old for old, new in pairs)
        assert first is not None
        yield Altered(
            key=name,
            label=in_words(name),
            before=_all_said(old for old, _ in pairs),
            after=_all_said(new for _, new in pairs),
            on=tuple(dict.fromkeys((new or old).on for old, new in pairs if new or old)),  # type: ignore[union-attr]
            reason=first.reason,
            whose=first.whose,
        )


def _all_said(rows: Iterable[Setting | None]) -> str:
    words = list(dict.fromkeys("not set" if r is None else said(r.value) for r in rows))
    return " · ".join(words[:_SHOWN]) + (" …" if len(words) > _SHOWN else "")


def _effects(plan: Plan, after: Plan, a: Evaluation, b: Evaluation) -> Iterator[Effect]:
    for what, x, y, more_is_better in _figures(plan, after, a, b):
        (shown_x, number_x), (shown_y, number_y) = x, y
        better = (
            None
            if number_x == number_y or more_is_better is None
            else (number_y > number_x) == more_is_better
        )
        yield Effect(what=what, before=shown_x, after=shown_y, better=better)
    sleeps = [_sleep(p) for p in (plan, after)]
    if None not in sleeps:
        looks = [f"looks every {s:.0f} ms" for s in sleeps if s is not None]
        better = None if sleeps[0] == sleeps[1] else (sleeps[1] or 0) > (sleeps[0] or 0)
        yield Effect(what="A sleeping phone's battery", before=looks[0], after=looks[1], better=better)


def _words(plan: Plan, practice: Practice) -> Iterator[InWords]:
    for matter, old, new in differing_matters(plan, practice):
        if old.does or new.does:
            yield InWords(matter=matter.label, before=old.does or old.reason, after=new.does or new.reason)


Shown = tuple[str, float]


def _figures(
    plan: Plan, after: Plan, a: Evaluation, b: Evaluation
) -> Iterator[tuple[str, Shown, Shown, bool | None]]:
    def both(what: str, more: bool | None, of: tuple[Shown, Shown]) -> tuple[str, Shown, Shown, bool | None]:
        return what, of[0], of[1], more

    pairs = ((plan, a), (after, b))
    rooms = [(f"{e.totals.rooms_met} of {e.totals.rooms_needed}", e.totals.rooms_met) for _, e in pairs]
    yield both("Rooms that meet all of their use", True, (rooms[0], rooms[1]))
    second = [
        (f"{e.totals.rooms_second} of {e.totals.rooms_second_needed}", e.totals.rooms_second)
        for _, e in pairs
    ]
    if a.totals.rooms_second_needed or b.totals.rooms_second_needed:
        yield both("Rooms with a second access point", True, (second[0], second[1]))
    walks = [_walks(e) for _, e in pairs]
    if a.signal.habits:
        yield both("Walks on which a call holds", True, (walks[0], walks[1]))
    shares = [_shares(e) for _, e in pairs]
    yield both("Radios that share their air with another", False, (shares[0], shares[1]))
    beacons = [_beacons(p) for p, _ in pairs]
    yield both("Air that beacons take, at most", False, (beacons[0], beacons[1]))
    busy = [_busy(e) for _, e in pairs]
    if a.signal.busy is not None and a.signal.busy.loads:
        yield both("Busiest radio in the busiest hour", False, (busy[0], busy[1]))
    watts = [(f"{e.totals.counted_w:.0f} of {e.totals.budget_w:.0f} W", e.totals.counted_w) for _, e in pairs]
    # Counted in another way they are not more or less.
    alike = plan.rules.text("power.counts") == after.rules.text("power.counts")
    yield both("Watts that count", False if alike else None, (watts[0], watts[1]))
    cable = [(metres(e.totals.cable_m + e.totals.fibre_m, 0), e.totals.cable_m) for _, e in pairs]
    yield both("Cable", False, (cable[0], cable[1]))
    currency = plan.design.site.currency
    prices = [order_of(p).sum.total for p, _ in pairs]
    paid = [(f"{price:,.2f} {currency}", price) for price in prices]
    yield both("Price with tax", False, (paid[0], paid[1]))
    found = [(str(e.totals.not_met + e.totals.near), e.totals.not_met + e.totals.near) for _, e in pairs]
    yield both("Findings not met or near", False, (found[0], found[1]))


def _walks(evaluation: Evaluation) -> Shown:
    habits = evaluation.signal.habits or ()
    held = sum(h.verdict == "holds" for h in habits)
    return f"{held} of {len(habits)}", held


def _shares(evaluation: Evaluation) -> Shown:
    radios = [r for r in evaluation.signal.radios or () if r.on]
    shared = sum(bool(r.contenders) for r in radios)
    return f"{shared} of {len(radios)}", shared


def _beacons(plan: Plan) -> Shown:
    share = max(beacons_by_band(plan.design, plan.catalogue).values(), default=0.0)
    return f"{share:.1%}", round(share, 4)


def _busy(evaluation: Evaluation) -> Shown:
    busy = evaluation.signal.busy
    if busy is None or not busy.loads:
        return NONE, 0.0
    worst = max(busy.loads, key=lambda load: load.total)
    return f"{worst.total:.0%}, {worst.name} on {worst.band} GHz", round(worst.total, 3)


def _sleep(plan: Plan) -> float | None:
    """Return after how many ms a sleeping phone looks for what waits, on the first name for people."""
    sheet = evaluate(plan).settings
    purposes = {n.id: n.purpose for n in plan.design.of(Network).values()}
    elements = plan.design.of(WirelessName)
    if sheet is None:
        return None
    for name in sheet.names:
        if purposes[elements[name.id].network] != "devices":
            return _BEACON_MS * name.dtim
    return None
