"""The last step of a search: each place shifted a little, for the sake of the worst room."""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ..base.progress import Progress, always
from ..design import Device
from ..signal import Asked

Levels = NDArray[np.float32]

_STEPS = (0.5, 1.0)  # of the farthest shift
_TURNS = 8
_ROUNDS = 2
_SURE_DB = 40.0  # what is farther over its target than this counts no more
_SILENT_DBM = -140.0


@dataclass(frozen=True)
class RoomsScore:
    """How rooms stand: how many keep their share, what the worst is over its target in dB (of
    those that fall short the one that is nearest to it), what all are on average. The greater the
    better."""

    met: int
    worst_db: float
    mean_db: float

    def better_than(self, other: RoomsScore) -> bool:
        mine = (self.met, round(self.worst_db, 2), round(self.mean_db, 2))
        return mine > (other.met, round(other.worst_db, 2), round(other.mean_db, 2))


class Rooms:
    """The points of all rooms with what they want, judged from the levels heard there."""

    def __init__(self, asked: Sequence[Asked], share: float) -> None:
        sizes = [len(a.x) for a in asked]
        self.ends = np.cumsum([0, *sizes])
        self.first = np.repeat([a.first_dbm for a in asked], sizes)
        seconds = [math.nan if a.second_dbm is None else a.second_dbm for a in asked]
        self.second = np.repeat(seconds, sizes)
        # So many of a room's points may stay short.
        self.skipped = [size - math.ceil(share * size - 1e-9) for size in sizes]

    def over_db(self, best: Levels, next_best: Levels) -> NDArray[np.float64]:
        """Return what the worst point that a room may not leave out is over its targets, in dB."""
        over = best - self.first
        with_second = np.fmin(over, next_best - self.second)
        return np.array(
            [
                np.partition(with_second[a:b], k)[k]
                for a, b, k in zip(self.ends, self.ends[1:], self.skipped, strict=False)
            ]
        )

    def second_over_db(self, next_best: Levels) -> NDArray[np.float64]:
        """Return the same of the second alone; not a number where none is asked for."""
        over = next_best - self.second
        rows = zip(self.ends, self.ends[1:], self.skipped, strict=False)
        return np.array([np.sort(over[a:b])[k] for a, b, k in rows])

    def standing(self, best: Levels, next_best: Levels) -> RoomsScore:
        over = np.minimum(self.over_db(best, next_best), _SURE_DB)
        if not len(over):
            return RoomsScore(0, 0.0, 0.0)
        short = over[over < 0]
        worst = float(short.max() if len(short) else over.min())
        return RoomsScore(int((over >= 0).sum()), worst, float(over.mean()))


def two_best(levels: Levels, size: int) -> tuple[Levels, Levels]:
    """Return the strongest and the second strongest level at each of so many points."""
    silent = np.full((2, size), _SILENT_DBM, dtype=np.float32)
    ranked = np.sort(np.concatenate([silent, levels]), axis=0)
    return ranked[-1], ranked[-2]


def shifted(
    places: Sequence[Device],
    fixed: Levels,
    rooms: Rooms,
    reach: Callable[[Sequence[Device]], Levels],
    allowed: Callable[[Device], bool],
    far_m: float,
    progress: Progress = always,
) -> list[Device]:
    """Return places, each shifted where that makes the worst room better.

    Args:
        fixed: levels of what stays where it is, shape (devices, points).
        reach: gives the levels of devices, shape (devices, points).
        allowed: whether a device may hang where it is put.
    """
    size = int(rooms.ends[-1])
    now, levels = list(places), reach(places) if places else np.empty((0, size), dtype=np.float32)
    standing = rooms.standing(*two_best(np.concatenate([fixed, levels]), size))
    total = _ROUNDS * len(now)
    for turn in range(total):
        if not progress(turn, total):
            break
        row = turn % len(now)
        others = np.concatenate([fixed, np.delete(levels, row, axis=0)])
        best, next_best = two_best(others, size)
        tried = [d for d in _around(now[row], far_m) if allowed(d)]
        if not tried:
            continue
        for device, own in zip(tried, reach(tried), strict=True):
            first = np.maximum(best, own)
            second = np.maximum(next_best, np.minimum(best, own))
            then = rooms.standing(first, second)
            if then.better_than(standing):
                standing, now[row], levels[row] = then, device, own
    return now


def _around(device: Device, far_m: float) -> list[Device]:
    found = []
    for share in _STEPS:
        for k in range(_TURNS):
            turn = 2 * math.pi * k / _TURNS
            at = (
                round(device.at[0] + share * far_m * math.sin(turn), 2),
                round(device.at[1] + share * far_m * math.cos(turn), 2),
            )
            found.append(device.model_copy(update={"at": at}))
    return found
