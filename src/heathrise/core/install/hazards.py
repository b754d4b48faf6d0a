"""What can hurt at a step, said short; local codes and licensed people come first."""

from __future__ import annotations

from typing import Literal

from ..catalogue import Rules

Hazard = Literal[
    "ladder", "roof", "heat", "attic", "drilling", "mains", "powered", "fibre", "trench",
    "lightning", "lifting", "fire",
]  # fmt: skip
SAID: dict[Hazard, str] = {
    "ladder": "Ladder: three points of contact, second person, firm ground.",
    "roof": "Roof or mast: trained people with fall protection; not in wind, rain or thunder.",
    "heat": "Heat: water, somebody below.",
    "attic": "Attic: joists and boards only. Fibres, old wiring, possible asbestos: stop and ask.",
    "drilling": "Drilling: locate pipes and mains first; eye protection.",
    "mains": "Mains: licensed electrician only; never open a panel.",
    "powered": "Powered cable: terminate with the power off; plug in last.",
    "fibre": "Fibre: capped; never look in; shards in a box.",
    "trench": "Ground: services located first; depth by local rule; shored over 1.2 m.",
    "lightning": "Outdoor copper: not in a storm; bonded at both ends.",
    "lifting": "Lifting: two people.",
    "fire": "Fire: every hole through a rated wall or floor is stopped again.",
}
ALWAYS_TWO: frozenset[Hazard] = frozenset({"ladder", "roof", "heat", "attic", "lifting"})


def heat_minutes(rules: Rules, heat_c: float) -> float | None:
    """Return the minutes of work an hour in a space so hot, or None where it is not hot."""
    found: float | None = None
    for limit_c, minutes in rules.table("install.heat_minutes").items():
        if heat_c > float(limit_c):
            found = minutes
    return found


def heat_said(minutes: float, heat_c: float) -> str:
    """Return the caution of a hot space with the minutes allowed in it."""
    if minutes <= 0:
        return f"{SAID['heat']} {heat_c:.0f} °C: early in the morning or not at all."
    return (
        f"{SAID['heat']} {heat_c:.0f} °C: {minutes:.0f} minutes an hour at most; follow local "
        "heat rules."
    )
