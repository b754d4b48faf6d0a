"""What a kind of site brings along: uses by the names of rooms, and what is often forgotten."""

from __future__ import annotations

from typing import ClassVar

from pydantic import Field

from ..base.frozen import Frozen
from ..catalogue import Catalogue, SiteKindModel
from ..design import Change, ClientGroup, Design, Space, Use, put


class Reminder(Frozen):
    """Something that is often forgotten on a site of this kind, and where it was thought of."""

    KEY: ClassVar = ("what",)

    what: str
    seen: str = Field(description="room or clients that show it was thought of, or nothing")


def reminders(design: Design, catalogue: Catalogue) -> list[Reminder]:
    """Return what is often forgotten on a site of this kind."""
    kind = catalogue.site_kinds[design.site.kind]
    spaces = list(design.of(Space).values())
    groups = list(design.of(ClientGroup).values())
    found: list[Reminder] = []
    for what, signs in kind.forgotten.items():
        rooms = [s.name for s in spaces if any(w in s.name.lower() for w in signs.words)]
        clients = [catalogue.clients[g.kind].label for g in groups if g.kind in signs.clients]
        # A doorbell is thought of when it is listed; that there is a porch says little.
        seen = clients if signs.clients else rooms
        found.append(Reminder(what=what, seen=", ".join(dict.fromkeys(seen))))
    return found


def usual_use(kind: SiteKindModel, name: str) -> Use | None:
    """Return the use that a room's name stands for on this kind of site, if it stands for any."""
    words = name.lower()
    rows: list[tuple[Use, tuple[str, ...]]] = [
        ("sensors", kind.sensors),
        ("everyday", kind.everyday),
        ("calls", kind.calls),
    ]
    # The longest word wins: a meeting room is none of a guest house's rooms.
    fitting = [(len(sign), use) for use, signs in rows for sign in signs if sign in words]
    return max(fitting, key=lambda row: row[0])[1] if fitting else None


def usual_uses(design: Design, catalogue: Catalogue) -> list[Change]:
    """Return the changes that give rooms the uses that their names stand for.

    Only while nobody has chosen any: all rooms have the use that a new room has.
    """
    kind = catalogue.site_kinds[design.site.kind]
    untouched = Space.model_fields["use"].default
    if any(s.use != untouched for s in design.of(Space).values()):
        return []
    changes: list[Change] = []
    for space in design.of(Space).values():
        use = usual_use(kind, space.name)
        if use is not None and use != space.use:
            changes.append(put(space.model_copy(update={"use": use})))
    return changes
