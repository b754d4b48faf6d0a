"""How long a site takes to come up where nobody hesitates: all that can be done is done at once."""

from __future__ import annotations

from collections.abc import Sequence

from .gear import LATEST, Planted
from .site import SimulatedSite

_LABEL = {"label": "as planned"}
_MOST_ROUNDS = 10_000


def par_seconds(rows: Sequence[Planted], seed: int, faults: int) -> float:
    """Return the seconds by the site's clock until all gear that can be reached is adopted, has the newest
    firmware and what it was sent. What is held by another controller is released at once; what never shows
    itself is left."""
    site = SimulatedSite("par", seed)
    site.plant(rows, faults)
    for _ in range(_MOST_ROUNDS):
        _press_all(site)
        due = [g.until_s for g in site.state.gear.values() if g.doing]
        if site.state.updating_until_s is not None:
            due.append(site.state.updating_until_s)
        if not due:
            break
        site.advance(max(0.0, min(due) - site.state.now_s))
    return site.state.now_s


def _press_all(site: SimulatedSite) -> None:
    """Do all that would be done now."""
    if site.state.firmware < LATEST:
        if site.state.updating_until_s is None:
            site.update_self()
        return
    for serial, gear in site.state.gear.items():
        if not gear.planted.managed or gear.doing:
            continue
        if gear.stand == "held_elsewhere":
            site.release(serial)
        if gear.stand == "found" and site.reached(gear):
            site.adopt(serial)
        elif site.stand_of(gear) == "online" and gear.firmware < LATEST:
            site.update(serial)
        elif site.stand_of(gear) == "online" and gear.values.get("label") != _LABEL["label"]:
            site.send(f"device/{serial}", dict(_LABEL))
