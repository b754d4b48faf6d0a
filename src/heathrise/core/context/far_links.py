"""The link of a way to a far place: what it is called at the rack that it comes from."""

from __future__ import annotations

_BEGINS = "far-"


def far_link(point: str) -> str:
    """Return the link that goes to a far place."""
    return f"{_BEGINS}{point}"


def far_place(link: str | None) -> str | None:
    """Return the far place that a link goes to, None where it goes to none."""
    return link.removeprefix(_BEGINS) if link is not None and link.startswith(_BEGINS) else None
