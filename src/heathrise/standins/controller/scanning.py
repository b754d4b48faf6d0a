"""A scan of the neighbourhood as a simulated site does it: it waits, its radios listen, it is over."""

from __future__ import annotations

import random
from collections.abc import Sequence
from typing import Any

from pydantic import BaseModel

from ...controller.contract import Stranger

SCAN_S = 240.0
_FAINTEST_DBM = -92.0
_SPREAD_DB = 1.5


class Near(BaseModel):
    """A radio of somebody else's that a device can hear, and how loud it is there in the long run."""

    bssid: str
    name: str
    band: str
    channel: int
    width_mhz: int
    dbm: float


class Scanning(BaseModel):
    """The scan that waits or is under way, in seconds by the site's clock, and what the last one heard."""

    serials: list[str] = []
    begins_s: float | None = None
    ends_s: float | None = None
    listening: list[str] = []
    heard: list[Stranger] | None = None
    heard_by: list[str] = []

    @property
    def due_s(self) -> float | None:
        """When the next thing happens to it, None where none is under way."""
        return self.begins_s if self.ends_s is None else self.ends_s

    def over(self, heard: list[Stranger]) -> Scanning:
        """Return it as it is once it is over."""
        return Scanning(heard=heard, heard_by=self.listening)


def heard_of(serial: str, near: Sequence[Near], seed: int, at_s: float) -> list[Stranger]:
    """Return what a device hears of what is near it: each a little louder or fainter every time."""
    chance = random.Random(f"{seed}-{serial}-{int(at_s)}")
    rows = [(n, n.dbm + chance.gauss(0, _SPREAD_DB)) for n in near]
    return [
        Stranger(serial=serial, **n.model_dump(exclude={"dbm"}), dbm=round(min(-20.0, dbm), 1))
        for n, dbm in rows
        if dbm >= _FAINTEST_DBM
    ]


def scan_of(scan: Scanning) -> dict[str, Any]:
    """Return a scan as the contract has it."""
    state = "waits" if scan.begins_s is not None else "none" if scan.heard is None else "over"
    serials = scan.serials if scan.begins_s is not None else scan.heard_by
    if scan.ends_s is not None:
        state, serials = "under_way", scan.listening
    said = {"state": state, "takes_s": SCAN_S, "serials": serials}
    return {**said, "begins_s": scan.begins_s, "ends_s": scan.ends_s, "heard": scan.heard or []}
