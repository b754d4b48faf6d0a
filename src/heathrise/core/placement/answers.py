"""What a search for places is answered with: sets of places, what each comes to, what is proven."""

from __future__ import annotations

from pydantic import Field

from ..base.frozen import Frozen
from ..design import Change
from ..evaluation.evaluate import Evaluation
from ..views.offers import Offer
from .changes import Moved
from .places import Excluded, Goal

GOALS: dict[Goal, str] = {
    "fewest": "Fewest",
    "cheapest": "Cheapest installed",
    "strongest": "Strongest second",
}


class Lacks(Frozen):
    """A room that no choice of places meets."""

    space: str
    name: str
    share: float = Field(description="share of its points that can be served, 0 to 1")


class Placement(Frozen):
    """One set of places, as changes on the plan, with what it comes to."""

    goal: Goal
    name: str
    count: int = Field(description="access points, those that stay with them")
    proof: str
    proven: bool
    least: int | None = Field(None, description="no choice has fewer than this")
    gap: float = Field(description="how much of it the bound leaves open, 0 to 1")
    changes: tuple[Change, ...]
    moved: tuple[Moved, ...]
    offer: Offer
    short: tuple[str, ...] = Field(description="names of rooms that still fall short")
    fails: tuple[str, ...] = Field((), description="runs that do not do, and what finds no port")
    over_air: int = Field(0, description="access points that hang on the air, not on a cable")


class Sited(Frozen):
    """What a search for places found, and what it could not do."""

    looked_at: int = Field(description="places that were looked at")
    points: int = Field(description="points that had to be served")
    now: Offer
    answers: tuple[Placement, ...]
    none: str = Field(description="why there is no answer, or nothing")
    excluded: tuple[Excluded, ...]
    lacking: tuple[Lacks, ...]


def failing(evaluation: Evaluation) -> list[str]:
    """Return the runs that do not do, what finds no port, and the walks on which a call breaks."""
    runs = [
        f"{k.name}: {k.reason}"
        for k in evaluation.cable.links
        if k.verdict in ("not_met", "no_way", "test_first")
    ]
    ports = [f"{row.name}: {row.reason}" for row in evaluation.power.left]
    walks = [f"a call breaks from {h.name}" for h in evaluation.signal.habits or () if h.verdict == "breaks"]
    return [*runs, *ports, *walks]


def by_their_price(answers: list[Placement]) -> list[Placement]:
    """Return the answers with the cheapest among those that leave as little short: where another
    of them comes out cheaper than the one that was looked for by its price, it is that."""
    wanted = next((a for a in answers if a.goal == "cheapest"), None)
    if wanted is None:
        return answers
    least = (len(wanted.short), len(wanted.fails))
    better = [
        a
        for a in answers
        if (len(a.short), len(a.fails)) <= least and a.offer.total < wanted.offer.total - 0.005
    ]
    if not better:
        return answers
    best = min(better, key=lambda a: a.offer.total)
    proof = f"not proven: {best.name.lower()} come out cheaper, with all that is in the price, than "
    proof += "what was proven cheapest by gear, cable, hours and switches"
    taken = best.model_copy(
        update={
            "goal": "cheapest",
            "name": wanted.name,
            "proof": proof,
            "proven": False,
            "least": None,
            "gap": wanted.gap,
        }
    )
    return [taken if a is wanted else a for a in answers]
