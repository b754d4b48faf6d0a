"""When the work is done: the earliest finish found for so many people, and what none can beat.

Two people who work beside one another get 1.7 times as much done as one, so each of them goes a
little slower than alone; a step for two takes both, and one that is alone at work loses nothing.
"""

from __future__ import annotations

import heapq
import math
import random
from collections.abc import Mapping, Sequence

from pydantic import Field

from ..base.frozen import Frozen
from .step import Step

_TRIES = 2_000
_STEPS_TRIED = 40_000  # of all tries together: a long list is tried less often
_BUSY_TRIES = 60  # before anybody is thought to wait
_EVEN = 1e-6
_SMALL, _NODES = 8, 60_000  # jobs so small are tried in every order, in so many looks
_TENTH = 0.05


class Finish(Frozen):
    """How long a job takes so many people. ``alone_minutes`` is what one of them may not do."""

    people: int
    minutes: float
    bound_minutes: float = Field(description="no order of the steps is quicker")
    proven: bool
    starts: dict[str, float] = Field(description="minute at which each step begins")
    ends: dict[str, float] = Field(description="minute at which each step ends")
    who: dict[str, tuple[int, ...]] = Field(description="people at each step, counted from 1")
    alone_minutes: float = Field(0.0, description="work that wants a second person, min")


def critical_minutes(steps: Sequence[Step]) -> dict[str, float]:
    """Return for each step the longest way from its beginning to the end of the job, in minutes."""
    after = _after(steps)
    found: dict[str, float] = {}
    for step in reversed(_in_order(steps)):
        found[step.id] = step.minutes + max((found[n.id] for n in after[step.id]), default=0.0)
    return found


def finish_for(steps: Sequence[Step], people: int, two_times: float = 1.7) -> Finish:
    """Return the earliest end found of a job: free people take the ready step with the longest
    tail, and other orders are tried as long as the bound is not met.

    A step for two takes both; one person alone does it with a helper, whose time is told apart.

    Args:
        two_times: what two people get done where one would do, against one.
    """
    tails = critical_minutes(steps)
    wanted = {s.id: min(s.people, people) for s in steps}
    bound = _bound(steps, tails, wanted, people, two_times)
    tries = min(_TRIES, _STEPS_TRIED // max(1, len(steps))) if people > 1 else 1
    best: _Walk | None = None
    small = people > 1 and len(steps) <= _SMALL
    chance = random.Random(1)
    for number in range(2 if small else max(2, tries)):
        spread = 0.0 if number < 2 else (0.1, 0.4, 1.0)[number % 3]
        rank = {k: -t * (1 + spread * (chance.random() - 0.5)) for k, t in tails.items()}
        if number % 7 == 6:
            rank = {k: chance.random() for k in tails}
        idle = 0.0 if number < _BUSY_TRIES else (0.15, 0.4, 0.7)[number % 3]
        walk = _Walk(steps, rank, wanted, people, two_times, number % 2 == 1, idle, chance)
        if best is None or walk.minutes < best.minutes - _EVEN:
            best = walk
        if best.minutes <= bound + _TENTH:
            break
    assert best is not None
    every = False
    if small and best.minutes > bound + _TENTH:
        orders = _Orders(steps, tails, wanted, people, two_times, best.minutes)
        every = orders.looks <= _NODES
        if orders.starts:
            best = _Walk(steps, orders.starts, wanted, people, two_times, False, 0.0, chance, orders.starts)
    return Finish(
        people=people,
        minutes=round(best.minutes, 1),
        bound_minutes=round(bound, 1),
        proven=every or best.minutes <= bound + _TENTH,
        starts={k: round(m, 1) for k, m in best.starts.items()},
        ends={k: round(m, 1) for k, m in best.ends.items()},
        who=best.who,
        alone_minutes=round(sum(s.minutes for s in steps if s.people > people), 1),
    )


class _Walk:
    """A job walked once: who does what when, if the free always take what ranks first.

    ``waiting`` keeps a free person for a step of two that ranks first, until both are free;
    ``idle`` is how often one who is free waits for the other though there is something to do: what
    can be done any time is better done beside what nobody can help with.
    """

    def __init__(
        self,
        steps: Sequence[Step],
        rank: Mapping[str, float],
        wanted: Mapping[str, int],
        people: int,
        two_times: float,
        waiting: bool,
        idle: float,
        chance: random.Random,
        begins: Mapping[str, float] | None = None,
    ) -> None:
        self._begins = begins or {}
        self.starts: dict[str, float] = {}
        self.ends: dict[str, float] = {}
        self.who: dict[str, tuple[int, ...]] = {}
        self.minutes = 0.0
        self._by_id = {s.id: s for s in steps}
        self._wanted, self._waiting = wanted, waiting
        self._idle, self._chance = idle, chance
        self._free = list(range(1, people + 1))
        self._last: dict[int, str | None] = {}  # where each person was at work last
        self._running: dict[str, float] = {}  # what is left of each, in minutes of one alone
        after = _after(steps)
        left = {s.id: len(s.waits) for s in steps}
        self._ready = [(rank[k], k) for k, n in left.items() if n == 0]
        heapq.heapify(self._ready)
        while self._ready or self._running:
            self._take()
            for done in self._work(two_times):
                self._free += self.who[done]
                for other in after[done]:
                    left[other.id] -= 1
                    if not left[other.id]:
                        heapq.heappush(self._ready, (rank[other.id], other.id))

    def _take(self) -> None:
        held: list[tuple[float, str]] = []
        while self._ready and self._free:
            if self._running and self._idle and self._chance.random() < self._idle:
                break
            row = heapq.heappop(self._ready)
            wanted = self._wanted[row[1]]
            early = self._begins.get(row[1], 0.0) > self.minutes + _EVEN
            if early or wanted > len(self._free):
                held.append(row)
                if self._waiting:
                    break
                continue  # one for a single person goes before it
            step = self._by_id[row[1]]
            # Of those who are free the one who is on that storey already.
            self._free.sort(key=lambda p: (self._last.get(p) != step.floor, p))
            self.who[step.id] = tuple(sorted(self._free[:wanted]))
            self._free = self._free[wanted:]
            self._last |= dict.fromkeys(self.who[step.id], step.floor)
            self.starts[step.id] = self.minutes
            self._running[step.id] = step.minutes
        for row in held:
            heapq.heappush(self._ready, row)

    def _work(self, two_times: float) -> list[str]:
        """Work until the next step is done; return what is."""
        speed = _speed(len(self._running), two_times)
        least = min(self._running.values())
        self.minutes += least / speed
        done = [k for k, left in self._running.items() if left - least <= _EVEN]
        self._running = {k: left - least for k, left in self._running.items() if k not in done}
        self.ends |= dict.fromkeys(done, self.minutes)
        return done


class _Orders:
    """Every order of a small job, as far as it may still be better than one that is known.

    ``starts`` are those of the best, empty where none is better; ``looks`` how much was looked at,
    more than ``_NODES`` where it was given up.
    """

    def __init__(
        self,
        steps: Sequence[Step],
        tails: Mapping[str, float],
        wanted: Mapping[str, int],
        people: int,
        two_times: float,
        known_minutes: float,
    ) -> None:
        self.starts: dict[str, float] = {}
        self.looks = 0
        self._steps, self._tails, self._wanted = steps, tails, wanted
        self._people, self._two_times, self._best = people, two_times, known_minutes
        self._from(0.0, {}, frozenset(), {}, 0)

    def _from(
        self,
        now: float,
        running: dict[str, float],
        done: frozenset[str],
        starts: dict[str, float],
        first: int,
    ) -> None:
        """Go on from a moment; of what begins at once each set is looked at in one order only."""
        self.looks += 1
        ahead = max((self._tails[s.id] for s in self._steps if s.id not in starts), default=0.0)
        if self.looks > _NODES or now + ahead >= self._best - _EVEN:
            return
        if len(done) == len(self._steps):
            self._best, self.starts = now, starts
            return
        busy = sum(self._wanted[k] for k in running)
        for number, step in enumerate(self._steps[first:], start=first):
            free = busy + self._wanted[step.id] <= self._people
            if free and step.id not in starts and set(step.waits) <= done:
                begun = {**starts, step.id: now}
                self._from(now, {**running, step.id: step.minutes}, done, begun, number + 1)
        if running:  # or wait for the next end
            least = min(running.values())
            rest = {k: left - least for k, left in running.items() if left - least > _EVEN}
            later = now + least / _speed(len(running), self._two_times)
            self._from(later, rest, done | (running.keys() - rest.keys()), starts, 0)


def _speed(beside: int, two_times: float) -> float:
    """Return how fast each goes of so many who work beside one another."""
    return float(two_times ** math.log2(beside) / beside) if beside else 1.0


def _bound(
    steps: Sequence[Step],
    tails: Mapping[str, float],
    wanted: Mapping[str, int],
    people: int,
    two_times: float,
) -> float:
    """Return a time that no order beats: what cannot begin before some minute and is followed by
    so much more takes at least its work shared by all who are there."""
    heads = _heads(steps)
    share = _speed(people, two_times) * people

    def together(rows: Sequence[Step]) -> float:
        return sum(s.minutes if wanted[s.id] >= people else s.minutes / share for s in rows)

    best = max(tails.values(), default=0.0)
    for head in sorted(set(heads.values())):
        late = [s for s in steps if heads[s.id] >= head]
        for tail in sorted({tails[s.id] - s.minutes for s in late}):
            rows = [s for s in late if tails[s.id] - s.minutes >= tail]
            best = max(best, head + together(rows) + tail)
        if len(steps) > _FEW:
            break
    return best


_FEW = 120  # of longer lists only what can begin at once is looked at


def _heads(steps: Sequence[Step]) -> dict[str, float]:
    """Return for each step the earliest minute at which it can begin."""
    by_id = {s.id: s for s in steps}
    found: dict[str, float] = {}
    for step in _in_order(steps):
        found[step.id] = max((found[w] + by_id[w].minutes for w in step.waits), default=0.0)
    return found


def _in_order(steps: Sequence[Step]) -> list[Step]:
    """Return the steps so that each comes after all it waits for."""
    after, left = _after(steps), {s.id: len(s.waits) for s in steps}
    ready = [s for s in steps if not left[s.id]]
    found: list[Step] = []
    while ready:
        step = ready.pop()
        found.append(step)
        for other in after[step.id]:
            left[other.id] -= 1
            if not left[other.id]:
                ready.append(other)
    return found


def _after(steps: Sequence[Step]) -> dict[str, list[Step]]:
    """Return for each step those that wait for it."""
    after: dict[str, list[Step]] = {s.id: [] for s in steps}
    for step in steps:
        for wait in step.waits:
            after[wait].append(step)
    return after
