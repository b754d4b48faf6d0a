"""What can hurt at a step, said short; local codes and licensed people come first."""

from __future__ import annotations

from ..base.wording import metres
from ..catalogue import Rules
from ..laying import Hazard

SAID: dict[Hazard, str] = {
    "ladder": "Ladder: three points of contact, second person, firm ground.",
    "roof": "Roof, façade or mast: trained people with fall protection; not in wind, rain or thunder.",
    "heat": "Heat: water, somebody below.",
    "attic": "Attic: joists and boards only. Fibres, old wiring, possible asbestos: stop and ask.",
    "drilling": "Drilling: locate pipes and mains first; eye protection.",
    "rated": "If this wall or floor is fire-rated, the hole is stopped again with a rated seal.",
    "mains": "Mains: licensed electrician only; never open a panel. Keep clear of its space.",
    "powered": "Powered cable: terminate with the power off; plug in last.",
    "fibre": "Fibre: capped; never look in; shards in a box.",
    "trench": "Ground: services located first; depth by local rule.",
    "lightning": "Outdoors: not in a storm; copper bonded at both ends.",
    "lifting": "Lifting: two people.",
    "fire": "Fire: every hole through a rated wall or floor is stopped again.",
    "alone": "Not alone: somebody within call, who knows where you are.",
}


def heat_minutes(rules: Rules, heat_c: float) -> float | None:
    """Return the minutes of work an hour in a space so hot, or None where it is not hot."""
    found: float | None = None
    for limit_c, minutes in rules.table("install.heat_minutes").items():
        if heat_c > float(limit_c):
            found = minutes
    return found


def rest_minutes(rules: Rules, heat_c: float, work_minutes: float) -> float:
    """Return the rest that work in a hot space is owed. Where it is too hot for any, it is done
    early in the morning, and counted as in the hottest space that allows some."""
    allowed = heat_minutes(rules, heat_c)
    if allowed is None:
        return 0.0
    if allowed <= 0:
        allowed = min(m for m in rules.table("install.heat_minutes").values() if m > 0)
    return work_minutes * (60 - allowed) / allowed


def heat_said(minutes: float, heat_c: float) -> str:
    """Return the caution of a hot space with the minutes allowed in it."""
    if minutes <= 0:
        return f"{SAID['heat']} {heat_c:.0f} °C: early in the morning or not at all."
    return f"{SAID['heat']} {heat_c:.0f} °C: {minutes:.0f} minutes an hour at most; follow local heat rules."


def lifting_said(weight_kg: float) -> str:
    return f"{SAID['lifting']} It weighs about {weight_kg:.0f} kg."


def trench_said(rules: Rules, depth_m: float) -> str:
    """Return the caution of a trench so deep."""
    shored_m = rules["install.shored_m"]
    deep = f" This one is {metres(depth_m)} deep: its sides are shored." * (depth_m > shored_m)
    return f"{SAID['trench']} Shored over {metres(shored_m)}.{deep}"


def old_walls_said(rules: Rules, built: int | None) -> str | None:
    """Return the caution of drilling in a building of that year; None where it is new enough."""
    year = int(rules["install.old_building"])
    if built is not None and built >= year:
        return None
    since = f"Built {built}" if built is not None else f"If it was built before {year}"
    return (
        f"{since}: old paint may hold lead, boards, textured ceilings and flues asbestos. "
        "Stop and ask before you drill."
    )
