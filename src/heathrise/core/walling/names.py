"""What a room is called that nobody has named yet."""

from __future__ import annotations

import re
from collections.abc import Iterator

from ..design import Design, Space

DEFAULT_NAME = re.compile(r"Room \d+")


def fresh_names(design: Design) -> Iterator[tuple[str, str]]:
    """Yield ids and names that no room of a design has, without end."""
    spaces = design.of(Space)
    names = {s.name for s in spaces.values()}
    number = 0
    while True:
        number += 1
        if f"room-{number}" not in spaces and f"Room {number}" not in names:
            yield f"room-{number}", f"Room {number}"
