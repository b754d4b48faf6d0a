"""Where a job stands, by what was said of it: one word and a day for a list of jobs."""

from __future__ import annotations

from collections.abc import Mapping
from datetime import date
from typing import Any, Literal

from ..base.frozen import Strict
from .kinds import Agreed, CableTest, HandedOver, PortReading, Signed, StepRecord

Stage = Literal["planned", "agreed", "installed", "handed_over", "received"]
_AT_WORK = (StepRecord.KIND, CableTest.KIND, PortReading.KIND)


class Standing(Strict):
    """The last thing that happened to a job: ``on`` is its day, ``by`` who received it."""

    stage: Stage = "planned"
    on: date | None = None
    by: str = ""


def standing(last: Mapping[str, date], handover: int | None, signed: Mapping[str, Any] | None) -> Standing:
    """Return where a job stands.

    Args:
        last: the last day of each kind of record.
        handover: the number of the last hand-over, or None.
        signed: the last signature; one for an earlier hand-over does not count.
    """
    if handover is not None:
        if signed is not None and signed["handover"] == handover:
            return Standing(stage="received", on=last[Signed.KIND], by=signed["signed_by"])
        return Standing(stage="handed_over", on=last[HandedOver.KIND])
    work = [last[kind] for kind in _AT_WORK if kind in last]
    if work:
        return Standing(stage="installed", on=max(work))
    if Agreed.KIND in last:
        return Standing(stage="agreed", on=last[Agreed.KIND])
    return Standing()
