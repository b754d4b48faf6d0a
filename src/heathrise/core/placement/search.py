"""The search for places: the fewest access points, the cheapest installed, the strongest second."""

from __future__ import annotations

import math
import time
from collections.abc import Sequence
from concurrent.futures import ThreadPoolExecutor
from dataclasses import replace

import numpy as np

from ..base.progress import Progress, ShowBest, always, give_way
from ..context.plan import Plan
from ..design import Device
from ..evaluation.evaluate import evaluate
from ..signal import asked_rooms, over_the_air, reach_dbm
from ..views.added_ports import with_ports
from ..views.offers import offer_of
from .answers import GOALS, Lacks, Placement, Sited, by_their_price, failing
from .backhaul import links_to
from .changes import changes_to
from .costs import place_cents, priced
from .cover import Cover, CoverProblem, choose, greedy, too_near
from .ground import Ground, ground_of
from .landings import drawbacks
from .places import Goal, Wishes
from .shift import Levels, Rooms, shifted, two_best

_SECONDS_SHARE: dict[Goal, float] = {"fewest": 0.5, "cheapest": 0.25, "strongest": 0.25}
_MORE_FOR_SECOND = 1.25  # so many times the fewest may be used for the strongest second
_MOST_DB = 30  # by which a second is looked for to be stronger, or is given up
_REFINED = 2  # times that rooms are looked at more closely
_TINY = 1e-6
_LEAST_SHIFT_S, _SHIFT_SHARE = 5.0, 0.2
_CROSSING_SECONDS = 3.0
_NEEDED_SECONDS = 4.0
_KEPT_APART = 6  # times that a choice is made anew because two came too near


def search_sites(
    plan: Plan, wishes: Wishes, progress: Progress = always, show: ShowBest = lambda _: None
) -> Sited:
    """Return up to three sets of places that meet first and second targets; stopped, those found.

    Args:
        show: is told the best so far: its places, how many, and the bound.

    Raises:
        DesignError: there is nothing to search for, or nowhere.
    """
    with ThreadPoolExecutor(1, thread_name_prefix="sites", initializer=give_way) as beside:
        search = beside.submit(_search, plan, wishes, progress, show)
        return search.result()


def _search(plan: Plan, wishes: Wishes, progress: Progress, show: ShowBest) -> Sited:
    begun = time.monotonic()
    ground = ground_of(plan, wishes)
    seeker = _Seeker(ground, plan, progress, show, begun)
    answers = list(seeker.answers())
    demands = seeker.demands
    return Sited(
        looked_at=len(ground.places),
        points=ground.reach.shape[1],
        now=offer_of(None, "The plan as it stands", plan),
        answers=tuple(answers),
        none=seeker.none,
        excluded=ground.excluded,
        lacking=tuple(
            Lacks(space=(s := ground.asked[r.room].space).id, name=s.name, share=round(r.share, 2))
            for r in demands.lacking
        ),
    )


class _Seeker:
    """One search: it makes each choice, shifts it, looks again where it falls short."""

    def __init__(self, ground: Ground, plan: Plan, progress: Progress, show: ShowBest, begun: float) -> None:
        self.ground, self.plan = ground, plan
        self.demands = ground.demands()
        self.apart = ground.apart()
        self.begun = begun
        self.show_best, self.told = show, progress
        self.go_on = True
        self.none = ""
        self.crowded = False  # whether some had to be kept apart
        air, wishes = ground.air, ground.wishes
        self.fine = asked_rooms(air, ground.margin_db, second=wishes.second)
        self.rooms = Rooms(self.fine, ground.share)
        self.of_fixed = reach_dbm(air, ground.fixed, self.fine)

    def progress(self, _done: int, _total: int) -> bool:
        tenths = round(10 * (time.monotonic() - self.begun))
        total = round(10 * self.ground.wishes.seconds)
        self.go_on = self.told(min(tenths, total), total) and self.go_on
        return self.go_on

    def within(self, seconds: float, least: float = 1.0) -> float:
        """Return the end of a part: so long, within what was asked for, but for the least it wants."""
        now = time.monotonic()
        return max(now + least, min(now + seconds, self.begun + self.ground.wishes.seconds))

    @property
    def time_is_up(self) -> bool:
        return time.monotonic() > self.begun + self.ground.wishes.seconds

    def answers(self) -> list[Placement]:
        found: list[Placement] = []
        least: Cover | None = None
        for number, goal in enumerate(self.ground.wishes.goals):
            if found and (not self.go_on or self.time_is_up):
                left = [GOALS[g].lower() for g in self.ground.wishes.goals[number:]]
                if self.go_on:
                    self.none = f"No time was left to look for the {' and the '.join(left)}."
                break
            if goal == "strongest":
                found += self._strongest(least)
                continue
            taken = self._look(goal, self._task(goal, least))
            if taken is None:
                continue
            choice, devices = taken
            if goal == "fewest":
                least = choice
            found.append(self._answer(goal, choice, devices))
        return by_their_price(found)

    def _strongest(self, least: Cover | None) -> list[Placement]:
        """Return the choice with the strongest second wherever one is asked for, with no more than
        a quarter above the fewest: in whole dB, from both ends to the middle."""
        ground, begun = self.ground, time.monotonic()
        until = self.within(ground.wishes.seconds * _SECONDS_SHARE["strongest"])
        fewest = len(least.places if least is not None else greedy(self._task("fewest", None)))
        most = ground.wishes.most or math.ceil(_MORE_FOR_SECOND * fewest)
        low, high = -_MOST_DB, _MOST_DB + 1  # low will do as far as is known, high will not
        best: Cover | None = None
        proven = tried_high = False
        while high - low > 1 and self.go_on and (time.monotonic() < until or best is None):
            middle = (low + high) // 2
            each = max(1.0, (until - begun) / 4)
            choice, sure = self._with_second(middle, most, least, each)
            if choice is not None:
                low, best = middle, choice
            else:
                high, proven, tried_high = middle, sure, True
        if best is None:
            return []
        devices = self._shifted(best)
        # In the true model, at all points, it may be a little less than at the places looked at.
        has = min(low, math.floor(self._second_over_db(devices)))
        over = f"{abs(has)} dB {'over' if has >= 0 else 'under'} its target and margin"
        proof = f"second {over}; "
        if high - low > 1:
            proof += f"not proven: {low + 1} dB and more was not decided in this time"
        elif not tried_high:
            proof += f"not proven: more than {_MOST_DB} dB was not looked at"
        else:
            word = "proven" if proven else "not proven"
            proof += f"{word}: {high} dB take more than {most} of the places looked at"
        exact = proven and tried_high and high - has == 1
        known = Cover(best.places, float(has), float(has if exact else high - 1), exact)
        return [self._answer("strongest", known, devices, proof)]

    def _second_over_db(self, devices: Sequence[Device]) -> float:
        """Return what the second is over its target and margin where that is least, lacking rooms aside."""
        asked = self.ground.with_second(self.fine, 0)
        over = Rooms(asked, self.ground.share).second_over_db(self._two_best(devices)[1])
        lacking = {r.room for r in self.demands.lacking}
        rows = [float(db) for k, db in enumerate(over) if k not in lacking and not math.isnan(db)]
        return min(rows, default=float(_MOST_DB))

    def _with_second(
        self, more_db: int, most: int, least: Cover | None, seconds: float
    ) -> tuple[Cover | None, bool]:
        """Return a choice with which the second is so much stronger than its target, and whether it
        is certain that there is none."""
        ground = self.ground
        demands = replace(ground, asked=ground.with_second(ground.asked, more_db)).demands()
        lacking = {r.room for r in self.demands.lacking}
        if any(r.room not in lacking for r in demands.lacking):
            return None, True  # no choice at all gives it
        fixed = frozenset(range(len(ground.fixed)))
        prices = (1,) * len(ground.columns)
        task = CoverProblem(demands, prices, fixed, self.apart, most, any_will_do=True)
        start = greedy(task)
        if len(start) <= most and not too_near(task, start):
            return Cover(start, float(len(start)), 0.0, False), True
        known = math.ceil(least.bound - _TINY) if least is not None and more_db >= 0 else 0
        task = replace(task, start=start, least=known)
        choice = self._chosen(task, seconds, "strongest")
        if choice is None or choice.impossible or len(choice.places) > most:
            return None, choice is not None and choice.impossible
        return choice, True

    def _task(self, goal: Goal, least: Cover | None) -> CoverProblem:
        ground = self.ground
        columns, fixed = ground.columns, frozenset(range(len(ground.fixed)))
        plain = CoverProblem(self.demands, (1,) * len(columns), fixed, self.apart)
        plain = replace(plain, most=ground.wishes.most)
        if goal == "fewest" or least is None:
            start = greedy(plain)
        if goal == "fewest":
            return replace(plain, start=start)
        if least is not None:
            start = least.places
            plain = replace(plain, least=math.ceil(least.bound - _TINY))
        if goal == "cheapest":
            own = place_cents(self.plan, ground.places)
            more = priced(self.plan, ground.places, ground.free).after(len(ground.fixed))
            prices = (*(0 for _ in ground.fixed), *own)
            return replace(plain, prices=prices, priced=more, start=start)
        return plain

    def _look(self, goal: Goal, task: CoverProblem) -> tuple[Cover, list[Device]] | None:
        """Choose, shift, and where a room falls short look at all of its points and choose anew."""
        seconds = self.ground.wishes.seconds * _SECONDS_SHARE[goal]
        until = self.within(seconds)
        if task.start and goal == "fewest":
            self._show(task.start, 0.0, goal)
        best: tuple[Cover, list[Device]] | None = None
        met = -1
        for _ in range(1 + _REFINED):
            left = max(1.0, until - time.monotonic())
            choice = self._chosen(task, left, goal)
            if choice is None or choice.impossible:
                self.none = self._none(choice)
                return best
            if goal == "fewest" and self.ground.wishes.meshes(self.ground.design.site):
                choice = self._fit_for_mesh(task, choice)
            devices = self._shifted(choice)
            short = self._short(devices)
            if len(self.fine) - len(short) > met:
                best, met = (choice, devices), len(self.fine) - len(short)
            lacking = {r.room for r in self.demands.lacking}
            more = [k for k in short if k not in lacking and self._coarse(k)]
            if not more or not self.go_on or time.monotonic() > until:
                break
            self._look_closer(more)
            task = replace(task, demands=self.demands, start=choice.places)
        return best

    def _fit_for_mesh(self, task: CoverProblem, choice: Cover) -> Cover:
        """Return as many places, more of them where air reaches on through stairwells and doors,
        and near an outlet."""
        ground = self.ground
        prices = drawbacks(ground.design, ground.catalogue, ground.columns)
        count = len(choice.places)
        again = replace(task, prices=prices, most=count, least=count, start=choice.places)
        better = choose(again, _CROSSING_SECONDS, self.progress)
        if better is None or len(better.places) != count or too_near(task, better.places):
            return choice
        return replace(choice, places=better.places)

    def _chosen(self, task: CoverProblem, seconds: float, goal: Goal) -> Cover | None:
        """Choose; pairs that come too near are kept apart from then on, which few choices need."""
        until = time.monotonic() + seconds

        def found(places: tuple[int, ...], _value: float, bound: float) -> None:
            self._show(places, bound, goal)

        kept: set[tuple[int, int]] = set()
        best: Cover | None = None
        for _ in range(_KEPT_APART):
            now = replace(task, apart=tuple(kept))
            choice = choose(now, max(1.0, until - time.monotonic()), self.progress, found)
            # Better two near one another than a room without its second.
            if choice is None or choice.impossible:
                best = best or choice
                break
            best, task = choice, replace(task, start=choice.places)
            near = too_near(task, choice.places)
            kept.update(near)
            self.crowded = self.crowded or bool(near)
            if not near or not self.go_on or time.monotonic() > until:
                break
        fits = task.most is None or len(task.start) <= task.most
        if best is None and task.start and fits:
            best = Cover(task.start, float(len(task.start)), 0.0, False)
        return best

    def _none(self, choice: Cover | None) -> str:
        most, places = self.ground.wishes.most, len(self.ground.places)
        if choice is not None and choice.impossible and most is not None:
            free = choose(replace(self._task("fewest", None), most=None), _NEEDED_SECONDS)
            needed = max(most + 1, math.ceil(free.bound - _TINY)) if free is not None else most + 1
            return f"Proven: {most} of the {places} places do not do; at least {needed} are needed."
        return "No choice was found in this time, and none was proven impossible."

    def _show(self, places: Sequence[int], bound: float, goal: Goal) -> None:
        chosen = [self.ground.columns[k] for k in places]
        least = math.ceil(bound - _TINY) if goal == "fewest" else None
        self.show_best(
            {
                "goal": GOALS[goal],
                "count": len(chosen),
                "least": least,
                "places": [{"floor": d.floor, "at": list(d.at)} for d in chosen],
            }
        )

    def _shifted(self, choice: Cover) -> list[Device]:
        ground = self.ground
        share_s = _SHIFT_SHARE * ground.wishes.seconds
        until = self.within(max(_LEAST_SHIFT_S, share_s), least=share_s)

        def go_on(done: int, total: int) -> bool:
            return self.progress(done, total) and time.monotonic() < until

        placed = [ground.columns[k] for k in choice.places if k >= len(ground.fixed)]
        return shifted(
            placed,
            self.of_fixed,
            self.rooms,
            self._reach,
            ground.allows,
            ground.catalogue.rules["signal.place_shift_m"],
            go_on,
        )

    def _reach(self, devices: Sequence[Device]) -> Levels:
        """Return levels at all points; a shifted place keeps its radio."""
        return reach_dbm(self.ground.air, devices, self.fine)

    def _two_best(self, devices: Sequence[Device]) -> tuple[Levels, Levels]:
        levels = np.concatenate([self.of_fixed, self._reach(devices)])
        return two_best(levels, levels.shape[1])

    def _short(self, devices: Sequence[Device]) -> list[int]:
        return [int(k) for k in np.flatnonzero(self.rooms.over_db(*self._two_best(devices)) < 0)]

    def _coarse(self, room: int) -> bool:
        return len(self.ground.asked[room].x) < len(self.fine[room].x)

    def _look_closer(self, rooms: Sequence[int]) -> None:
        """Ask for all the points of some rooms from now on."""
        asked = list(self.ground.asked)
        for k in rooms:
            asked[k] = self.fine[k]
        reach = reach_dbm(self.ground.air, self.ground.columns, asked)
        self.ground = replace(self.ground, asked=tuple(asked), reach=reach)
        self.demands = self.ground.demands()

    def _answer(self, goal: Goal, choice: Cover, devices: Sequence[Device], proof: str = "") -> Placement:
        ground = self.ground
        changes, moved = changes_to(ground.design, ground.catalogue, ground.free, devices)
        after = self.plan.after(changes)
        if ground.wishes.meshes(ground.design.site):
            links = links_to(after, ground.wishes.keep)
            changes, after = [*changes, *links], after.after(links)
        bought, after = with_ports(after)
        changes, worked = [*changes, *bought], evaluate(after)
        rooms = worked.rooms
        count = len(devices) + len(ground.fixed)
        least = math.ceil(choice.bound - _TINY) if goal == "fewest" else None
        over = max(0.0, choice.value - choice.bound) / max(1.0, abs(choice.value))
        return Placement(
            goal=goal,
            name=GOALS[goal],
            count=count,
            proven=choice.proven,
            least=least,
            proof=proof or self._proof(goal, choice, over),
            gap=round(min(1.0, over), 4) if goal != "strongest" else 0.0,
            changes=tuple(changes),
            moved=tuple(moved),
            offer=offer_of(None, GOALS[goal], after),
            short=tuple(r.name for r in rooms if r.verdict in ("near", "not_met")),
            over_air=len(over_the_air(after.design, ground.catalogue)),
            fails=tuple(failing(worked)),
        )

    def _proof(self, goal: Goal, choice: Cover, over: float) -> str:
        """Return what is proven of a choice, and what is not in the proof, in one line."""
        places = f"the {len(self.ground.places)} places looked at"
        left = (
            ""
            if self.demands.exact or not self._may_leave()
            else ("; the points that a room may leave out were chosen beforehand")
        )
        apart = "; two in a room are kept apart" if self.crowded else ""
        if goal == "fewest":
            if choice.proven:
                return f"proven: no choice of {places} has fewer{apart}{left}"
            return f"not proven: at least {math.ceil(choice.bound - _TINY)} are needed{left}"
        outside = "; shared trunks, holes and ladders are in the price, not in the proof"
        if self.ground.wishes.meshes(self.ground.design.site):
            outside = "; counted with a cable to each, those that need none then lose theirs"
        if choice.proven:
            what = "is cheaper by gear, cable, hours and switches"
            return f"proven: no choice of {places} {what}{apart}{left}{outside}"
        if choice.bound <= 0:
            return f"not proven: no bound was found in this time{outside}"
        return f"not proven: at most {over:.1%} of what was counted could be saved{left}{outside}"

    def _may_leave(self) -> bool:
        """Whether any room has so many points that some may be left out."""
        share = self.ground.share
        return any(len(a.x) - math.ceil(share * len(a.x) - 1e-9) > 0 for a in self.ground.asked)
