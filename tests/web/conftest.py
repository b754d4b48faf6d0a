"""What tests of routes share: a stand-in for the controllers of all sites, whose time is let go by."""

from __future__ import annotations

from collections.abc import Iterator

import pytest

from bench.bring_ups import standing_in
from heathrise.standins.controller.app import Sites


@pytest.fixture(scope="module")
def served() -> Iterator[tuple[str, Sites]]:
    with standing_in() as found:
        yield found
