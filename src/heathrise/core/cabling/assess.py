"""The cable chapter: every run and every way between racks."""

from __future__ import annotations

from ..base.frozen import Frozen
from ..catalogue import Catalogue
from ..context.findings import Finding
from ..design import Design
from .links import LinkVerdict
from .runs import RunVerdict, judge_runs
from .uplinks import UplinkVerdict, judge_uplinks


class CableChapter(Frozen):
    """Runs in order of placing, and the ways up of all rooms but the top one."""

    runs: tuple[RunVerdict, ...] = ()
    uplinks: tuple[UplinkVerdict, ...] = ()
    findings: tuple[Finding, ...] = ()

    @property
    def links(self) -> tuple[LinkVerdict, ...]:
        return (*self.runs, *self.uplinks)


def assess_cable(design: Design, catalogue: Catalogue) -> CableChapter:
    """Return what becomes of all cable."""
    runs, uplinks = judge_runs(design, catalogue), judge_uplinks(design, catalogue)
    return CableChapter.model_construct(runs=tuple(runs), uplinks=tuple(uplinks))
