"""The one shape of every verdict."""

from __future__ import annotations

from typing import ClassVar, Literal

from ..base.frozen import Frozen
from ..catalogue import Used
from ..design import Change, Spot

Stage = Literal["brief", "plan", "signal", "cable", "power", "settings", "order"]
Severity = Literal["not_met", "near", "note"]
SEVERITY_ORDER: dict[Severity, int] = {"not_met": 0, "near": 1, "note": 2}


class Place(Frozen):
    """The element a finding is about, and where on which floor to look."""

    kind: str
    id: str
    floor: str | None = None
    at: Spot | None = None


class Cure(Frozen):
    """A set of changes that would mend a finding, with what it is expected to do."""

    label: str
    effect: str = ""
    changes: tuple[Change, ...]


class Finding(Frozen):
    """What is wrong, where, by how much, by which rule and figures, and what would mend it."""

    KEY: ClassVar = ("id",)

    id: str
    stage: Stage
    severity: Severity
    text: str
    places: tuple[Place, ...] = ()
    figure: float | None = None
    limit: float | None = None
    unit: str = ""
    rule: str
    source: str
    used: tuple[Used, ...] = ()
    cures: tuple[Cure, ...] = ()
    searches_cures: bool = False


def worst_first(findings: list[Finding]) -> tuple[Finding, ...]:
    """Return the findings, those not met first; the order within a severity is kept."""
    return tuple(sorted(findings, key=lambda f: SEVERITY_ORDER[f.severity]))
