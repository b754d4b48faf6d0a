"""How long a rack lasts on its battery, new and old, and what is shed first."""

from __future__ import annotations

from collections.abc import Iterable, Sequence

from ..catalogue import BatteryModel, Catalogue, Rules, on_offer
from .values import Battery, Shed


def minutes(wh: float, load_w: float, efficiency: float) -> float:
    """Return ``Wh x efficiency x 60 / W``, minutes; 0 where nothing is loaded.

    References:
        Energy over power; Wh, W.
    """
    return wh * efficiency * 60 / load_w if load_w > 0 else 0.0


def kept_share(years: float, place_c: float, fade_share: float) -> float:
    """Return the share that a battery still holds: ``1 - fade (years / 3) 2^((T - 20) / 10)``, 0 at least.

    It fades by ``fade_share`` in three years at 20 C and twice as fast for each 10 K more.

    References:
        Arrhenius's rule of thumb for lead-acid cells, life halved for each 10 K over 20 C.
    """
    return max(0.0, 1 - fade_share * years / 3 * 2 ** ((place_c - 20) / 10))


def sheds(parts: Iterable[tuple[int, str, float]], wh: float, efficiency: float) -> tuple[Shed, ...]:
    """Return what goes dark step by step and how long the rest lasts from full.

    Args:
        parts: rank, name and watts of what is shed together; those of the last rank stay.
    """
    rows: dict[tuple[int, str], float] = {}
    for rank, name, watts in parts:
        rows[rank, name] = rows.get((rank, name), 0.0) + watts
    left = sum(rows.values())
    found: list[Shed] = []
    for (_, name), watts in sorted(rows.items())[:-1]:
        left -= watts
        found.append(
            Shed(
                name=name,
                watts=round(watts, 1),
                left_w=round(left, 1),
                minutes=round(minutes(wh, left, efficiency), 1),
            )
        )
    return tuple(found)


def judge_battery(
    rules: Rules, model: BatteryModel, load_w: float, place_c: float, parts: Sequence[tuple[int, str, float]]
) -> Battery:
    """Return a battery's verdict: minutes after its years, and its load against its rating."""
    efficiency, years = rules["rack.battery_efficiency"], rules["rack.battery_years"]
    held = kept_share(years, place_c, rules["rack.battery_fade_share"])
    load_va = load_w / rules["rack.power_factor"]
    share = max(load_w / model.watts, load_va / model.va)
    new, old = (minutes(wh, load_w, efficiency) for wh in (model.wh, model.wh * held))
    wanted = rules["rack.battery_minutes"]
    short = new < wanted or share > 1
    near = old < wanted or share > rules["rack.battery_load_share"]
    return Battery(
        item=model.id,
        label=model.label,
        load_w=round(load_w, 1),
        load_va=round(load_va, 1),
        load_share=round(share, 3),
        minutes=round(new, 1),
        minutes_old=round(old, 1),
        years=int(years),
        verdict="not_met" if short else "near" if near else "met",
        sheds=sheds(parts, model.wh, efficiency),
    )


def good_batteries(catalogue: Catalogue, load_w: float, place_c: float) -> list[BatteryModel]:
    """Return the batteries that bear a load for as long as is wanted, the cheapest first."""
    rows = sorted(on_offer(catalogue.batteries), key=lambda m: m.price)
    return [m for m in rows if judge_battery(catalogue.rules, m, load_w, place_c, []).verdict == "met"]
