"""The plan chapter: what the drawing contradicts, and devices where they cannot be."""

from __future__ import annotations

from collections.abc import Iterator

from ..base.frozen import Frozen
from ..catalogue import Catalogue
from ..context.findings import Finding
from ..design import Design
from ..mains import MainsLine
from ..sight import CameraView, sight_findings, views_of
from ..walling import Gap
from .buried import buried_findings
from .mains import mains_findings
from .placing import placing_findings
from .rooms import room_findings
from .stacks import stack_findings
from .storeys import storey_findings


class PlanChapter(Frozen):
    """What is found of the plan, where mains cables lie as far as is known, what cameras see, where a
    gap between walls keeps a room open."""

    mains: tuple[MainsLine, ...] = ()
    views: tuple[CameraView, ...] = ()
    gaps: tuple[Gap, ...] = ()
    findings: tuple[Finding, ...] = ()


def plan_findings(design: Design, catalogue: Catalogue) -> Iterator[Finding]:
    """Yield the findings of the plan stage."""
    yield from storey_findings(design, catalogue)
    yield from room_findings(design, catalogue)
    yield from stack_findings(design, catalogue)
    yield from placing_findings(design, catalogue)
    yield from mains_findings(design, catalogue)
    yield from buried_findings(design, catalogue)
    yield from sight_findings(design, catalogue, views_of(design, catalogue))
