"""When the work is done: the earliest finish for so many people, and what it cannot beat."""

from __future__ import annotations

import heapq
from collections.abc import Sequence

from pydantic import BaseModel, ConfigDict, Field

from .steps import Step


class Finish(BaseModel):
    """How long a job takes so many people. ``alone_minutes`` is what one of them may not do."""

    model_config = ConfigDict(frozen=True)

    people: int
    minutes: float
    bound_minutes: float = Field(description="no order of the steps is quicker")
    proven: bool
    starts: dict[str, float] = Field(description="minute at which each step begins")
    who: dict[str, tuple[int, ...]] = Field(description="people at each step, counted from 1")
    alone_minutes: float = Field(0.0, description="work that wants a second person, min")


def critical_minutes(steps: Sequence[Step]) -> dict[str, float]:
    """Return for each step the longest way from its beginning to the end of the job, in minutes."""
    after = _after(steps)
    found: dict[str, float] = {}

    def tail(step: Step) -> float:
        stack = [step]
        while stack:
            top = stack[-1]
            open_ = [n for n in after[top.id] if n.id not in found]
            if open_:
                stack.extend(open_)
                continue
            found[top.id] = top.minutes + max((found[n.id] for n in after[top.id]), default=0.0)
            stack.pop()
        return found[step.id]

    for step in steps:
        if step.id not in found:
            tail(step)
    return found


def finish_for(steps: Sequence[Step], people: int) -> Finish:
    """Return when a job ends if the free people always take the ready step with the longest tail.

    Never better than the bound: the critical path, and all work shared evenly. A step for two
    takes both; one person alone does it with a helper, whose time is told apart.
    """
    tails = critical_minutes(steps)
    by_id = {s.id: s for s in steps}
    wanted = {s.id: min(s.people, people) for s in steps}
    left = {s.id: len(s.waits) for s in steps}
    after = _after(steps)
    ready = [(-tails[k], k) for k, n in left.items() if n == 0]
    heapq.heapify(ready)
    running: list[tuple[float, str]] = []
    starts: dict[str, float] = {}
    who: dict[str, tuple[int, ...]] = {}
    last: dict[int, str | None] = {}  # where each person was at work last
    now, free = 0.0, list(range(1, people + 1))
    while ready or running:
        held: list[tuple[float, str]] = []
        while ready and free:
            row = heapq.heappop(ready)
            if wanted[row[1]] > len(free):
                held.append(row)  # a step for two waits; one for a single person goes before it
                continue
            starts[row[1]] = round(now, 1)
            step = by_id[row[1]]
            # Of those who are free the one who is on that storey already.
            free.sort(key=lambda p: (last.get(p) != step.floor, p))
            who[step.id] = tuple(sorted(free[: wanted[step.id]]))
            free = free[wanted[step.id] :]
            last |= dict.fromkeys(who[step.id], step.floor)
            heapq.heappush(running, (now + by_id[row[1]].minutes, row[1]))
        for row in held:
            heapq.heappush(ready, row)
        now, done = heapq.heappop(running)
        free += who[done]
        for other in after[done]:
            left[other.id] -= 1
            if not left[other.id]:
                heapq.heappush(ready, (-tails[other.id], other.id))
    work = sum(s.minutes * wanted[s.id] for s in steps)
    bound = max(max(tails.values(), default=0.0), work / people)
    return Finish(
        people=people, minutes=round(now, 1), bound_minutes=round(bound, 1),
        proven=now <= bound + 0.05, starts=starts, who=who,
        alone_minutes=round(sum(s.minutes for s in steps if s.people > people), 1),
    )  # fmt: skip


def _after(steps: Sequence[Step]) -> dict[str, list[Step]]:
    """Return for each step those that wait for it."""
    after: dict[str, list[Step]] = {s.id: [] for s in steps}
    for step in steps:
        for wait in step.waits:
            after[wait].append(step)
    return after
