"""A step of the work, and the list that gathers them: the one count of minutes there is."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from typing import Literal, get_args

from pydantic import Field

from ..base.frozen import Frozen
from ..base.memo import IdentityMemo
from ..catalogue import Rules
from ..laying import Hazard, crew_for
from .hazards import SAID

Phase = Literal[
    "safe",
    "dig",
    "rack",
    "holes",
    "pull",
    "ends",
    "mount",
    "panel",
    "test",
    "protect",
    "power",
    "adopt",
    "settings",
    "finish",
]
PHASES: tuple[Phase, ...] = get_args(Phase)
# Kinds of work: what they are called, and what they are counted in.
TASKS: dict[str, tuple[str, str]] = {
    "prepare": ("Preparation", "job"),
    "trench": ("Dig and fill a trench", "m"),
    "rack": ("Set up a rack", "rack"),
    "extend": ("Mount an extender", "piece"),
    "fit": ("Bolt gear into a rack", "rack"),
    "socket": ("Make a socket", "socket"),
    "bond": ("Bond a rack to earth", "rack"),
    "drill": ("Drill masonry", "hole"),
    "floor": ("Drill a floor", "hole"),
    "pull": ("Pull cable", "m"),
    "fire-stop": ("Fire-stop", "opening"),
    "end": ("Terminate and label", "end"),
    "splice": ("Splice fibre", "splice"),
    "dress": ("Dress in the rack", "cable"),
    "test": ("Test and record", "cable"),
    "surge": ("Surge protection and bonding", "end"),
    "switch": ("Put a switch on", "switch"),
    "controller": ("Bring the controller up to date", "job"),
    "reset": ("Reset used gear", "device"),
    "adopt": ("Switch on, adopt, name", "device"),
    "settings": ("Networks, names, ports, radio plan", "job"),
    "walk": ("Walk test", "room"),
    "mast": ("Put up and earth a mast", "mast"),
    "aim": ("Aim a radio's line", "line"),
    "node": ("Hang and set up a node out there", "piece"),
    "joint": ("Set an extender in a joint", "piece"),
    "cabinet": ("Set up a cabinet outdoors", "piece"),
    "feed": ("End, fuse and earth a feed", "end"),
    "sun": ("Put up a solar panel", "panel"),
    "store": ("Set a battery and its charger", "piece"),
    "remote": ("Set up a router, a dish or adapters", "piece"),
    "remove": ("Take old gear away", "piece"),
    "papers": ("Photographs, papers, hand-over", "job"),
    "clean": ("Clear up", "day"),
}


class Work(Frozen):
    """How much of one kind of work a step is. ``person_minutes`` are those of all who do it."""

    task: str
    label: str
    unit: str
    quantity: float
    person_minutes: float


class Step(Frozen):
    """One step; minutes for whoever does it. ``licensed`` is kept for licensed people."""

    id: str
    phase: Phase
    title: str
    kind: str = Field(description="kind of element that it is about")
    element: str
    floor: str | None
    minutes: float = Field(description="from its beginning to its end, rest included")
    rest_minutes: float = Field(0.0, description="of those, rest that heat asks for")
    people: int = 1
    licensed: bool = False
    waits: tuple[str, ...] = ()
    materials: tuple[str, ...] = ()
    tools: tuple[str, ...] = ()
    cautions: tuple[str, ...] = Field((), description="what can hurt, read before it is begun")
    checks: tuple[str, ...] = Field((), description="what is seen to at this step")
    work: tuple[Work, ...] = ()

    @property
    def person_minutes(self) -> float:
        """Minutes of all who do it together."""
        return round(self.minutes * self.people, 1)


StepPlace = tuple[str, str, str | None]  # kind and id of an element, and its storey


class TodoList:
    """Gathers steps; what a step waits for and is not done on this job is left out."""

    def __init__(self, rules: Rules) -> None:
        self.steps: dict[str, Step] = {}
        self.rules = rules

    def add(
        self,
        key: str,
        phase: Phase,
        title: str,
        place: StepPlace,
        work: Iterable[tuple[str, float, float]],
        waits: Sequence[str] = (),
        hazards: Iterable[Hazard] = (),
        said: Iterable[str | None] = (),
        rest: float = 0.0,
        label: str = "",
        **more: object,
    ) -> None:
        """Add a step.

        Args:
            work: kind of work, how much of it, and its minutes for one person.
            hazards: what can hurt; some of them want a second person.
            said: cautions in words of their own.
            rest: minutes of rest that heat asks for.
            label: what its first kind of work is called, where ``TASKS`` does not say.
        """
        known = tuple(w for w in dict.fromkeys(waits) if w in self.steps)
        asked = (key, phase, title, place, tuple(work), known, tuple(hazards), tuple(said), rest, label)
        self.steps[key] = _made.get(
            (self.rules,), (*asked, *more.items()), lambda: _step(self.rules, *asked, more)
        )

    def of(self, phase: Phase) -> list[str]:
        return [k for k, s in self.steps.items() if s.phase == phase]


# These are said with figures of their own.
_IN_OWN_WORDS: frozenset[Hazard] = frozenset({"heat", "lifting", "trench", "old_walls"})


# Most steps stay what they are from one plan to the next.
_made: IdentityMemo[Step] = IdentityMemo(8192, weigh=lambda _: 1_500)


def _step(
    rules: Rules,
    key: str,
    phase: Phase,
    title: str,
    place: StepPlace,
    work: Iterable[tuple[str, float, float]],
    waits: Sequence[str],
    hazards: Sequence[Hazard],
    said: Iterable[str | None],
    rest: float,
    label: str,
    more: Mapping[str, object],
) -> Step:
    people, faster = crew_for(rules, hazards)
    # Minutes are tenths, so that any sum of them is the same however it is made.
    rest = round(rest, 1)
    rows, total = [], rest
    for number, (task, quantity, minutes) in enumerate(work):
        taken = round(minutes / faster, 1)
        name, unit = TASKS.get(task, (label, "piece"))
        all_of_it = (taken + (rest if number == 0 else 0.0)) * people
        rows.append(
            Work(
                task=task,
                label=name,
                unit=unit,
                quantity=round(quantity, 1),
                person_minutes=round(all_of_it, 1),
            )
        )
        total += taken
    words = [SAID[h] for h in hazards if h not in _IN_OWN_WORDS] + [s for s in said if s]
    return Step.model_validate(
        {
            "id": key,
            "phase": phase,
            "title": title,
            "kind": place[0],
            "element": place[1],
            "floor": place[2],
            "minutes": round(total, 1),
            "rest_minutes": rest,
            "people": people,
            "waits": waits,
            "cautions": tuple(dict.fromkeys(words)),
            "work": tuple(rows),
            **more,
        }
    )
