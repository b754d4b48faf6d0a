"""What a change spoils: rooms that meet their use less, walks on which a call breaks."""

from __future__ import annotations

from collections.abc import Iterator

from ..base.wording import some
from ..context.plan import Plan
from ..design import UsualRoute
from ..signal import VERDICT_RANK, environment_of, judge_habits, judge_rooms

_WORDS = {"met": "met", "near": "near", "not_met": "not met", "not_needed": ""}


def spoiled(before: Plan, after: Plan) -> list[str]:
    """Return in words what a change spoils, nothing where nothing is spoilt."""
    return [*_rooms(before, after), *broken_walks(before, after)]


def said_spoiled(before: Plan, after: Plan) -> str:
    """Return what a change spoils as the end of a sentence, or nothing."""
    words = spoiled(before, after)
    return f"; spoils: {', '.join(words)}" if words else ""


def _rooms(before: Plan, after: Plan) -> Iterator[str]:
    was = {r.space: r for r in judge_rooms(environment_of(before))}
    worse = []
    for room in judge_rooms(environment_of(after)):
        old = was.get(room.space)
        if old is None or "not_needed" in (old.verdict, room.verdict):
            continue
        if VERDICT_RANK[room.verdict] < VERDICT_RANK[old.verdict]:
            share = f" to {room.share:.0%}" if room.share is not None else ""
            worse.append(f"{room.name} from {_WORDS[old.verdict]}{share}")
    if worse:
        yield some(worse)


def broken_walks(before: Plan, after: Plan) -> Iterator[str]:
    """Yield the walks on which a call breaks that held before, in words."""
    if not before.design.of(UsualRoute):
        return
    held = {h.habit for h in judge_habits(environment_of(before)) if h.verdict == "holds"}
    broken = [
        h.name for h in judge_habits(environment_of(after)) if h.habit in held and h.verdict == "breaks"
    ]
    if broken:
        yield f"a call breaks from {some(broken)}"
