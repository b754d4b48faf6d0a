"""What access points heard of the neighbourhood, as changes of a plan, and which channels that moves."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import ClassVar

from pydantic import Field

from ..base.bands import Band
from ..base.frozen import Frozen
from ..context.plan import Plan
from ..design import Change, Device, Neighbour, Remove, put
from ..evaluation.evaluate import evaluate
from ..signal import noted

WIDEST_MHZ = 160


@dataclass(frozen=True)
class HeardRadio:
    """A radio of somebody else's as a device of the plan heard it; one that tells no name has its address."""

    device: str
    name: str
    address: str
    band: Band
    channel: int
    width_mhz: int
    dbm: float


class ChannelMove(Frozen):
    """A radio that the plan would put on another channel."""

    KEY: ClassVar = ("device", "band")

    device: str
    name: str
    band: Band
    before: int
    after: int


class ScanOffer(Frozen):
    """What a scan would change in a plan: neighbours that are new, as loud as never before, or gone."""

    changes: tuple[Change, ...] = ()
    fresh: int = 0
    again: int = Field(0, description="of them known from there before, with another level")
    gone: int = Field(0, description="known from there before and not heard any more")
    left_out: int = Field(0, description="the faintest, of more than a plan can hold")
    moves: tuple[ChannelMove, ...] = ()


def scan_offer(plan: Plan, heard: Sequence[HeardRadio], scanned: Sequence[str]) -> ScanOffer:
    """Return what a scan would change.

    A neighbour is known by its name, band and channel at the place of the access point that heard it; of
    several there the loudest counts. What was noted there before and was not heard this time is gone.

    Args:
        scanned: devices that listened.
    """
    devices = {k: d for k, d in plan.drawn.of(Device).items() if k in set(scanned)}
    there = {(d.floor, d.at): k for k, d in devices.items()}
    known: dict[_Key, list[Neighbour]] = {}
    for row in plan.drawn.of(Neighbour).values():
        if (device := there.get((row.floor, row.at))) is not None:
            known.setdefault((device, row.band, row.channel, row.name), []).append(row)
    loudest: dict[_Key, HeardRadio] = {}
    for one in heard:
        if one.device in devices:
            key = (one.device, one.band, one.channel, named(one))
            if key not in loudest or one.dbm > loudest[key].dbm:
                loudest[key] = one
    changes: list[Change] = []
    fresh: list[dict[str, object]] = []
    again = 0
    for key, one in loudest.items():
        place = devices[one.device]
        said = {
            "floor": place.floor,
            "at": place.at,
            "name": named(one),
            "band": one.band,
            "channel": one.channel,
            "width_mhz": _width(one.width_mhz),
            "level_dbm": float(round(one.dbm)),
        }
        rows = known.pop(key, [])
        if not rows:
            fresh.append(said)
            continue
        changed = rows[0].model_copy(update=said)
        again += changed != rows[0]
        changes += [put(changed)] if changed != rows[0] else []
        changes += [_forgotten(row) for row in rows[1:]]
    gone = [row for rows in known.values() for row in rows]
    taken = set(plan.drawn.of(Neighbour))
    new, left_out = noted(fresh, taken, len(taken) - len(gone))
    changes += [*map(_forgotten, gone), *map(put, new)]
    moves = _moves(plan, changes) if changes else ()
    return ScanOffer(
        changes=tuple(changes), fresh=len(new), again=again, gone=len(gone), left_out=left_out, moves=moves
    )


_Key = tuple[str, Band, int, str]


def named(one: HeardRadio) -> str:
    """Return what a stranger is called: by its name, or by the end of its address."""
    return one.name.strip() or f"Hidden {one.address[-5:]}"


def _width(mhz: int) -> int:
    """Return the width of a plan that is not below one that was heard, as far as a plan has one."""
    return next((w for w in (20, 40, 80) if mhz <= w), WIDEST_MHZ)


def _forgotten(row: Neighbour) -> Remove:
    return Remove(kind="neighbour", id=row.id)


def _moves(plan: Plan, changes: Sequence[Change]) -> tuple[ChannelMove, ...]:
    """Return the radios that get another channel once a plan knows."""
    before = {(r.device, r.band): r for r in evaluate(plan).signal.radios or ()}
    after = {(r.device, r.band): r for r in evaluate(plan.after(changes)).signal.radios or ()}
    names = {k: d.name for k, d in plan.design.of(Device).items()}
    return tuple(
        ChannelMove(device=d, name=names[d], band=b, before=row.channel, after=after[d, b].channel)
        for (d, b), row in before.items()
        if row.on and (d, b) in after and after[d, b].channel != row.channel
    )
