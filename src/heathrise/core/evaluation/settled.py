"""Settings with what is found in them, kept while gear is only moved within its rooms."""

from __future__ import annotations

from collections.abc import Callable, Collection, Hashable, Sequence
from typing import TypeVar

from ..base.memo import IdentityMemo
from ..catalogue import Catalogue
from ..context.findings import Finding
from ..context.unmoved import as_they_hang, unmoved
from ..design import Design
from ..settings import (
    Plug,
    SettingsSheet,
    fabric_of,
    leak_findings,
    network_findings,
    port_findings,
    portal_findings,
    settings_sheet,
    with_hosts,
)
from .chapters import Chapters

T = TypeVar("T")

_networks: IdentityMemo[tuple[None, tuple[Finding, ...]]] = IdentityMemo(64)
_sheets: IdentityMemo[tuple[SettingsSheet | None, tuple[Finding, ...]]] = IdentityMemo(64)


def network_told(design: Design, catalogue: Catalogue) -> tuple[Finding, ...]:
    """Return what is found in the networks, their names and their portals."""

    def work(chapters: Chapters, still: Design) -> None:
        chapters.tell("settings", lambda: network_findings(still, catalogue))
        chapters.tell("settings", lambda: portal_findings(still, catalogue))

    return _kept(_networks, design, catalogue, None, work)[1]


def settings_told(
    design: Design, catalogue: Catalogue, plugs: Sequence[Plug], wired: Collection[str]
) -> tuple[SettingsSheet | None, tuple[Finding, ...]]:
    """Return the settings, and what is found in them.

    Args:
        plugs: who is in which port, as a tuple.
        wired: the devices that a cable reaches, as a frozenset.
    """

    def work(chapters: Chapters, still: Design) -> SettingsSheet | None:
        sheet = chapters.run("settings", lambda: settings_sheet(still, catalogue, plugs, wired))
        if sheet is not None:
            ports = sheet.ports
            chapters.tell("settings", lambda: port_findings(still, catalogue, ports))
            fabric, bare = fabric_of(still, catalogue, plugs, ports), sheet
            chapters.tell("settings", lambda: leak_findings(fabric))
            sheet = chapters.run("settings", lambda: with_hosts(bare, fabric)) or sheet
        return sheet

    return _kept(_sheets, design, catalogue, (plugs, wired), work)


def _kept(
    memo: IdentityMemo[tuple[T, tuple[Finding, ...]]],
    design: Design,
    catalogue: Catalogue,
    values: Hashable,
    work: Callable[[Chapters, Design], T],
) -> tuple[T, tuple[Finding, ...]]:
    """Return what work gives and tells, kept unless some of it failed: that is tried again."""
    rests_on = unmoved(design), catalogue
    kept = memo.peek(rests_on, values)
    if kept is None:
        chapters = Chapters()
        kept = work(chapters, rests_on[0]), tuple(chapters.findings)
        if not chapters.failed:
            memo.put(rests_on, values, kept)
    return kept[0], as_they_hang(kept[1], design)
