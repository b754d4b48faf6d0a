"""Chapters worked out one after the other, and findings told: what fails says so, all else stands."""

from __future__ import annotations

import logging
from collections.abc import Callable, Iterable
from typing import TypeVar

from ..context.findings import Finding, Stage

log = logging.getLogger(__name__)

T = TypeVar("T")


class Chapters:
    """Works out one chapter after the other; one that fails says so while all others stand."""

    def __init__(self) -> None:
        self.findings: list[Finding] = []
        self.failed = False

    def of(self, stage: Stage) -> tuple[Finding, ...]:
        """Return the findings of one stage."""
        return tuple(f for f in self.findings if f.stage == stage)

    def run(self, stage: Stage, work: Callable[[], T]) -> T | None:
        """Return what ``work`` gives, or None and a finding where it fails."""
        try:
            return work()
        except Exception as error:
            log.exception("the %s chapter could not be worked out", stage)
            self.failed = True
            self.findings.append(_failed(stage, len(self.findings), error))
            return None

    def tell(self, stage: Stage, work: Callable[[], Iterable[Finding]]) -> None:
        """Add the findings that ``work`` yields, up to where it fails."""

        def add() -> None:
            for finding in work():
                self.findings.append(finding)

        self.run(stage, add)


def _failed(stage: Stage, number: int, error: Exception) -> Finding:
    return Finding(
        id=f"failed-{stage}-{number}",
        stage=stage,
        severity="not_met",
        text=f"This could not be worked out ({type(error).__name__}). What is drawn is safe and "
        "all else stands. Undo the last edit, or send the project file to whoever keeps this "
        "program.",
        rule="every chapter of the plan is worked out",
        source="this program",
    )
