"""Walks that people are used to take with a call: each is carried along its way by the plan."""

from __future__ import annotations

from collections.abc import Iterator
from typing import ClassVar, Literal

from pydantic import Field

from ..base.bands import Band
from ..base.frozen import Frozen
from ..base.wording import some
from ..catalogue import Rules, Used
from ..context.findings import Cure, Finding, Place
from ..context.on_air import fast_transition_of
from ..design import Design, Floor, Point, Space, UsualRoute, WirelessName, put
from ..walkways import WalkPoint, Way, footways_of
from .radio_environment import RadioEnvironment
from .walk import walk
from .walk_values import Walk


class HabitVerdict(Frozen):
    """A walk out of one room into another, its way, and what becomes of a call on it.

    ``text`` says it in words; ``no_way`` is where no stair leads from storey to storey.
    """

    KEY: ClassVar = ("habit",)

    habit: str
    name: str
    verdict: Literal["holds", "breaks", "no_way"]
    text: str
    points: tuple[WalkPoint, ...] = ()
    metres: float = 0.0
    seconds: float = 0.0
    at: Point | None = Field(None, description="where it first goes wrong")
    floor: str | None = None
    late: bool = Field(False, description="whether it is a hand-over's gap alone that breaks it")
    undrawn: tuple[str, ...] = Field((), description="rooms between which no door is drawn")
    clings: tuple[tuple[str, Point], ...] = Field(
        (), description="storeys and spots at which a client clings to another storey"
    )
    used: tuple[Used, ...] = ()


def name_of(design: Design, habit: UsualRoute) -> str:
    """Return what a walk is called: where from and where to."""
    spaces = design.of(Space)
    return f"{spaces[habit.from_space].name} to {spaces[habit.to_space].name}"


def way_of(design: Design, habit: UsualRoute) -> Way | None:
    """Return the way of a walk on foot; None where there is none."""
    spaces = design.of(Space)
    return footways_of(design).way(spaces[habit.from_space], spaces[habit.to_space])


def walk_of(air: RadioEnvironment, habit: UsualRoute, band: Band = "5") -> Walk | None:
    """Return a walk that people are used to take, on a call; None where no way leads there."""
    way = way_of(air.design, habit)
    return walk(air, way.points, band) if way is not None else None


def judge_habits(air: RadioEnvironment) -> list[HabitVerdict]:
    """Return what becomes of each walk that the brief names, in order of placing."""
    band: Band = "5" if air.access_points("5") else "2.4"
    return [_judge(air, habit, band) for habit in air.design.of(UsualRoute).values()]


def _judge(air: RadioEnvironment, habit: UsualRoute, band: Band) -> HabitVerdict:
    name = name_of(air.design, habit)
    way = way_of(air.design, habit)
    if way is None:
        spaces, floors = air.design.of(Space), air.design.of(Floor)
        a, b = (floors[spaces[s].floor].name for s in (habit.from_space, habit.to_space))
        text = f"no way leads from {a} to {b}: say which room holds the stairs"
        return HabitVerdict(habit=habit.id, name=name, verdict="no_way", text=text)
    walked = walk(air, way.points, band)
    wrong = next((e for e in walked.events if e.bad), None)
    return HabitVerdict(
        habit=habit.id,
        name=name,
        verdict=walked.verdict,
        text=walked.text,
        points=way.points,
        metres=walked.metres,
        seconds=walked.seconds,
        at=wrong.at if wrong else None,
        floor=wrong.floor if wrong else None,
        late=wrong is not None and all(e.kind == "hand_over" for e in walked.events if e.bad),
        undrawn=tuple(f"{a} and {b}" for a, b in way.through),
        used=walked.used,
        clings=tuple((e.floor, e.at) for e in walked.events if e.kind == "clings"),
    )


def habit_findings(air: RadioEnvironment, habits: list[HabitVerdict]) -> Iterator[Finding]:
    """Yield the walks on which a call breaks, and those whose way is not drawn."""
    spaces, habits_of = air.design.of(Space), air.design.of(UsualRoute)
    for row in habits:
        start = spaces[habits_of[row.habit].from_space]
        if row.verdict == "holds" and not row.undrawn:
            continue
        text = f"{row.name}: {row.text[0].lower()}{row.text[1:]}"
        if row.undrawn:
            text = f"{text.rstrip('.')}. No door is drawn between {some(row.undrawn)}; the walk "
            text += "goes through."
        elif row.verdict == "no_way":
            text += "."
        gap, bears = "signal.gap_ms.fast", "signal.call_gap_ms"
        yield Finding(
            id=f"signal-walk-{row.habit}",
            stage="signal",
            severity="not_met" if row.verdict == "breaks" else "near",
            text=text,
            places=(Place(kind="space", id=start.id, floor=row.floor or start.floor, at=row.at),),
            rule=f"a call holds all the way: nobody is lost below "
            f"{air.rules['signal.drop_dbm']:g} dBm, no gap is over {air.rules[bears]:g} ms",
            source=air.rules.source("signal.drop_dbm"),
            used=row.used or air.rules.used(gap, bears),
            cures=_faster(air.design, air.rules) if row.late else (),
        )


def _faster(design: Design, rules: Rules) -> tuple[Cure, ...]:
    slow = [n for n in design.of(WirelessName).values() if not fast_transition_of(design, rules, n)]
    changes = tuple(put(n.model_copy(update={"fast_transition": True})) for n in slow)
    said = ", ".join(n.ssid for n in slow)
    return (Cure(label=f"Fast transition on {said}", changes=changes),) if slow else ()
