"""A stand-in for controllers on loopback, whose time goes by when it is told to."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

import pytest

from bench.bring_ups import standing_in
from heathrise.controller import Controller
from heathrise.controller.service import Controllers
from heathrise.core.catalogue import load_catalogue
from heathrise.core.context.plan import Plan
from heathrise.demo import SITES
from heathrise.standins.controller.app import Sites


@dataclass
class StandIn:
    """The stand-in's address and its sites."""

    base: str
    sites: Sites

    @property
    def place(self) -> Controllers:
        return Controllers(self.base, standin=True, seconds=3.0)

    def controller(self, site: str) -> Controller:
        return self.place.of(site)

    def wait(self, site: str, seconds: float = 5.0) -> None:
        with self.sites.lock:
            self.sites.of(site).advance(seconds)


@pytest.fixture(scope="session")
def standin() -> Iterator[StandIn]:
    with standing_in() as (base, sites):
        yield StandIn(base, sites)


@pytest.fixture(scope="session")
def plans() -> list[Plan]:
    """The sites of the demo."""
    return [Plan(s.make(), load_catalogue()) for s in SITES]
