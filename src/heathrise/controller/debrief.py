"""A round of practice afterwards: what was under way when, what was missed, and why it mattered."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator, Mapping, Sequence
from functools import cache
from importlib.resources import files
from typing import ClassVar

import yaml
from pydantic import BaseModel, ConfigDict, Field

from ..core.base.frozen import Frozen
from ..core.base.wording import some
from ..core.catalogue import Rules
from ..core.records import BroughtTick, PushedStep
from .bring_up import BringUp
from .story import Doing, Mark, Span, Story

_LEAST_IDLE_S = 60.0
_MACHINE = frozenset({"adopt", "update", "update_itself", "push"})


class Under(Frozen):
    """Something that was under way, in seconds from the begin of the round."""

    device: str
    doing: Doing
    begin_s: float
    end_s: float


class FaultTold(Frozen):
    """A fault that a device was given: when it came about, and whether the device is as planned now."""

    KEY: ClassVar = ("device",)

    device: str
    fault: str
    came_s: float | None
    mended: bool
    lesson: str


class Missed(Frozen):
    """Something that was left, tried too early, or in a wrong order, and why that matters."""

    step: int = Field(description="of the fourteen, 0 for none")
    what: str
    why: str


class Debrief(Frozen):
    """What a trainee is told afterwards. Times are seconds by the site's clock; ``par_s`` is what the gear
    takes where nobody hesitates, ``idle_s`` how long nothing was under way before the last of it was."""

    used_s: float
    allowed_s: float
    par_s: float
    idle_s: float
    done: int
    of: int
    under: tuple[Under, ...]
    faults: tuple[FaultTold, ...]
    missed: tuple[Missed, ...]


class _Lessons(BaseModel):
    model_config = ConfigDict(frozen=True, extra="forbid")

    faults: dict[str, str]
    mistakes: dict[str, str]


@cache
def lessons() -> _Lessons:
    """Return what is taught of each fault and mistake, as it ships."""
    text = files(__package__).joinpath("lessons.yaml").read_text("utf-8")
    return _Lessons.model_validate(yaml.safe_load(text))


def debrief_of(
    story: Story,
    brought: BringUp,
    names: Mapping[str, str],
    ticks: Sequence[BroughtTick],
    pushed: Sequence[PushedStep],
    allowed_s: float,
    par_s: float,
    sees: Mapping[str, str],
) -> Debrief:
    """Return what a trainee is told of his round.

    Args:
        brought: how far the site is in the end.
        names: of devices by their serial.
        ticks: what was ticked by hand, the first first.
        pushed: steps of pushes as they went, the first first.
        allowed_s: how long the round was given.
        par_s: how long the gear itself takes.
        sees: what one sees of each fault.
    """
    idle_s = idle(story.spans)
    missed = [
        *_left(brought),
        *_refused(story.marks),
        *_too_early(story, names, ticks, pushed),
        *_cut_off(pushed),
        *_slow(story.now_s, allowed_s, idle_s),
    ]
    return Debrief(
        used_s=round(story.now_s, 1),
        allowed_s=round(allowed_s, 1),
        par_s=round(par_s, 1),
        idle_s=round(idle_s, 1),
        done=brought.done,
        of=brought.of,
        under=tuple(
            Under(
                device=names.get(s.serial, s.serial) or "The controller",
                doing=s.doing,
                begin_s=round(s.begin_s, 1),
                end_s=round(min(s.end_s, story.now_s), 1),
            )
            for s in story.spans
        ),
        faults=tuple(_faults(story, brought, names, sees)),
        missed=tuple(missed),
    )


def allowed_s(rules: Rules, brought: BringUp, par_s: float, pace: float) -> float:
    """Return how long a round is given, in seconds by the site's clock: what its gear takes, hands for what
    no controller ticks, and the meter at each place.

    Args:
        brought: how far the site is in the beginning.
        pace: seconds of the site that go by in each of his.
    """
    every = [i for s in brought.steps for i in s.items]
    by_meter = sum(i.does == "speed" for i in every)
    by_hand = sum(i.does not in _MACHINE and not i.device for i in every) - by_meter
    hands_s = rules["settings.round_item_s"] * by_hand * max(pace, 1.0)
    meter_s = rules["settings.round_measure_s"] * by_meter
    return round(rules["settings.round_slack"] * (par_s + hands_s + meter_s), 1)


def idle(spans: Sequence[Span]) -> float:
    """Return for how long nothing was under way before the last thing was begun, in s."""
    gone = covered = 0.0
    last = max((s.begin_s for s in spans), default=0.0)
    for span in sorted(spans, key=lambda s: s.begin_s):
        gone += max(0.0, min(span.begin_s, last) - covered)
        covered = max(covered, span.end_s)
    return gone


def _left(brought: BringUp) -> Iterator[Missed]:
    for step in brought.steps:
        keys = [i for i in step.items if i.id.startswith("key-")]
        rest = [i for i in step.items if not i.id.startswith("key-")]
        why = f"{step.why[:1].upper()}{step.why[1:]}."
        for title, items, because in ((step.title, rest, why), ("Keys", keys, lessons().mistakes["keys"])):
            left = [i.name for i in items if i.state != "done"]
            if left:
                what = f"{title}: {len(left)} of {len(items)} left: {some(left)}"
                yield Missed(step=step.number, what=what, why=because)


def _refused(marks: Sequence[Mark]) -> Iterator[Missed]:
    for words, count in Counter(m.words for m in marks if m.what == "refused").most_common():
        times = "Once" if count == 1 else f"{count} times"
        yield Missed(step=0, what=f"{times} refused: {words}", why=lessons().mistakes["refused"])


def _too_early(
    story: Story, names: Mapping[str, str], ticks: Sequence[BroughtTick], pushed: Sequence[PushedStep]
) -> Iterator[Missed]:
    why, early = lessons().mistakes, []
    for serial, name in names.items():
        updates = [s.begin_s for s in story.spans if s.serial == serial and s.doing == "update"]
        sent = [m.at_s for m in story.marks if m.serial == serial and m.what == "sent"]
        if updates and sent and min(sent) < max(updates):
            early.append(name)
    if early:
        what = f"Settings before the update: {some(early)}"
        yield Missed(step=7, what=what, why=why["early_settings"])
    last = {t.item: t.at for t in ticks if t.done}
    sent_at = [p.at for p in pushed if p.outcome == "done"]
    if "walk" in last and sent_at and last["walk"] < max(sent_at):
        yield Missed(
            step=14, what="The walk was ticked before the last setting was sent", why=why["early_walk"]
        )
    nets = [p.at for p in pushed if p.outcome == "done" and p.target.startswith("network/")]
    if "leases" in last and (not nets or last["leases"] < max(nets)):
        what = "Leases were ticked before the networks were sent"
        yield Missed(step=11, what=what, why=why["early_leases"])


def _cut_off(pushed: Sequence[PushedStep]) -> Iterator[Missed]:
    gone = [p.name for p in pushed if p.outcome == "cut_off"]
    if gone:
        yield Missed(step=9, what=f"Cut off by a push: {some(gone)}", why=lessons().mistakes["cut_off"])


def _slow(used_s: float, allowed_s: float, idle_s: float) -> Iterator[Missed]:
    if idle_s > _LEAST_IDLE_S:
        yield Missed(
            step=0, what=f"{_minutes(idle_s)} with nothing under way", why=lessons().mistakes["idle"]
        )
    if used_s > allowed_s:
        what = f"Late: {_minutes(used_s)}, and {_minutes(allowed_s)} were given"
        yield Missed(step=0, what=what, why=lessons().mistakes["late"])


def _minutes(seconds: float) -> str:
    return f"{seconds / 60:.0f} min" if seconds >= 90 else f"{seconds:.0f} s"


def _faults(
    story: Story, brought: BringUp, names: Mapping[str, str], sees: Mapping[str, str]
) -> Iterator[FaultTold]:
    items = [i for s in brought.steps for i in s.items if i.serial]
    mended = {i.serial for i in items} - {i.serial for i in items if i.state != "done"}
    came = {(m.serial, m.words): m.at_s for m in story.marks if m.what == "came"}
    for gear in story.gear:
        for fault in gear.faults:
            yield FaultTold(
                device=names.get(gear.serial, gear.serial),
                fault=sees[fault],
                came_s=came.get((gear.serial, fault)),
                mended=gear.serial in mended,
                lesson=lessons().faults[fault],
            )
