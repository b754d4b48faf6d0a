"""Which width of channels the air allows on 5 GHz: each is planned and tried."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Literal

from pydantic import Field

from ..base.bands import Band
from ..base.frozen import Frozen
from ..base.wording import some
from ..context.plan import Plan
from ..design import Change, Device, put
from ..settings import beacons_by_band
from ..signal import (
    VERDICT_RANK,
    ChannelPlan,
    RoomVerdict,
    busy_hour,
    environment_of,
    judge_rooms,
    quick_plans,
)
from .busy_hour import WIDTHS


class Width(Frozen):
    """One width of channels and what it comes to."""

    width_mhz: int
    blocks: int = Field(description="channels of this width that the site has")
    shared_db: float = Field(description="shared air of the best plan found, dB over contention")
    sharing: tuple[str, ...] = Field(description="access points that share their air")
    rooms_met: int
    busiest: float = Field(description="share of the air of the busiest radio, 0 to 1 and more")
    verdict: Literal["met", "near", "not_met"] = Field(description="of the busiest radio")
    changes: tuple[Change, ...] = Field(description="what plans it; none where it is planned")


class WidthView(Frozen):
    """All widths beside each other, and the one that the air allows."""

    rows: tuple[Width, ...]
    allows: int
    why: str


def width_view(plan: Plan) -> WidthView:
    """Return what each width comes to on 5 GHz. The air allows the widest at which no two radios
    share theirs and no room is spoilt by the noise; where they share at any, that with the least
    busy radio."""
    rows: list[Width] = []
    rooms: list[list[RoomVerdict]] = []
    for width in WIDTHS:
        site = plan.drawn.site.model_copy(update={"width_5ghz_mhz": width})
        row, verdicts = _tried(plan.after([put(site)]))
        if width != plan.drawn.site.width_5ghz_mhz:
            row = row.model_copy(update={"changes": (put(site),)})
        rows.append(row)
        rooms.append(verdicts)
    return _judged(rows, rooms)


def _tried(plan: Plan) -> tuple[Width, list[RoomVerdict]]:
    design = plan.design
    air = environment_of(plan)
    plans: Mapping[Band, ChannelPlan] = quick_plans(air)
    channels, rooms, width = plans.get("5"), judge_rooms(air), design.site.width_5ghz_mhz
    busy = busy_hour(air, plans, beacons_by_band(design, plan.catalogue))
    busiest = next((load for load in busy.loads if load.band == "5"), None)  # they come first
    devices = design.of(Device)
    sharing = [devices[d].name for d, rows in channels.contenders.items() if rows] if channels else []
    return Width(
        width_mhz=width,
        blocks=len(air.channels.primaries("5", width)) if channels else 0,
        shared_db=round(channels.cost_db, 1) if channels else 0.0,
        sharing=tuple(sorted(sharing)),
        rooms_met=sum(r.verdict == "met" for r in rooms),
        busiest=busiest.total if busiest else 0.0,
        changes=(),
        verdict=busiest.verdict if busiest else "met",
    ), rooms


def _judged(rows: Sequence[Width], rooms: Sequence[Sequence[RoomVerdict]]) -> WidthView:
    spoilt = [_spoilt(rooms[0], r) for r in rooms]
    clear = [
        k
        for k, (row, names) in enumerate(zip(rows, spoilt, strict=True))
        if not row.sharing and not row.shared_db and not names
    ]
    if clear:
        k = clear[-1]
        why = f"{rows[k].width_mhz} MHz: no two share their air"
        if k + 1 < len(rows):
            over = rows[k + 1]
            why += f"; at {over.width_mhz} {_against(over, spoilt[k + 1])}"
    else:
        k = min(range(len(rows)), key=lambda n: (rows[n].busiest, -rows[n].width_mhz))
        why = f"{rows[k].width_mhz} MHz: some share their air at any width, here the busiest is at "
        why += f"{rows[k].busiest:.0%}"
    return WidthView(rows=tuple(rows), allows=rows[k].width_mhz, why=why)


def _against(row: Width, spoilt: Sequence[str]) -> str:
    said = []
    if row.sharing:
        said.append(f"{some(row.sharing)} do")
    if spoilt:
        said.append(f"the noise spoils {some(spoilt)}")
    return " and ".join(said) or "a neighbour is in the way"


def _spoilt(narrow: Sequence[RoomVerdict], now: Sequence[RoomVerdict]) -> list[str]:
    """Return the rooms that do worse than in the narrowest channels."""
    return [
        b.name for a, b in zip(narrow, now, strict=True) if VERDICT_RANK[b.verdict] < VERDICT_RANK[a.verdict]
    ]
