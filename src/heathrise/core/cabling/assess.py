"""The cable chapter: every run and every way between racks."""

from __future__ import annotations

from ..base.frozen import Frozen
from ..catalogue import Catalogue
from ..context.findings import Finding
from ..design import Design
from .links import LinkVerdict
from .runs import RunVerdict, judge_runs
from .trunks import Trunk, trunks_of
from .uplinks import BesideVerdict, UplinkVerdict, judge_beside, judge_uplinks
from .ways import ways_of


class CableChapter(Frozen):
    """Runs in order of placing, the ways up of all rooms but the top one, what is pulled beside those of
    fibre, and where they lie together."""

    runs: tuple[RunVerdict, ...] = ()
    uplinks: tuple[UplinkVerdict, ...] = ()
    beside: tuple[BesideVerdict, ...] = ()
    trunks: tuple[Trunk, ...] = ()
    findings: tuple[Finding, ...] = ()

    @property
    def links(self) -> tuple[LinkVerdict, ...]:
        return (*self.runs, *self.uplinks, *self.beside)


def assess_cable(design: Design, catalogue: Catalogue) -> CableChapter:
    """Return what becomes of all cable."""
    runs, uplinks = judge_runs(design, catalogue), judge_uplinks(design, catalogue)
    ways = next(iter(ways_of(design, catalogue).values()), None)
    turns = {floor: storey.turn for floor, storey in ways.storeys.items()} if ways is not None else {}
    beside = tuple(judge_beside(design, catalogue, uplinks))
    trunks = trunks_of(catalogue, [*runs, *uplinks, *beside], turns)
    return CableChapter.model_construct(
        runs=tuple(runs), uplinks=tuple(uplinks), beside=beside, trunks=tuple(trunks)
    )
