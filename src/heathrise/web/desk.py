"""What every route reaches for: the stores, the answers that are kept, who runs jobs."""

from __future__ import annotations

from dataclasses import dataclass

from flask import current_app

from ..controller.service import Controllers
from ..jobs import Runner
from ..store import Stores
from .answers import Answers
from .breaker import Breaker

_NAME = "heathrise"


@dataclass(frozen=True)
class Desk:
    """Made once for an application."""

    stores: Stores
    answers: Answers
    breaker: Breaker
    runner: Runner
    controllers: Controllers

    def lay(self, extensions: dict[str, object]) -> None:
        """Give it to an application."""
        extensions[_NAME] = self


def desk() -> Desk:
    """Return the desk of the application that answers just now."""
    found = current_app.extensions[_NAME]
    assert isinstance(found, Desk)
    return found


def stores() -> Stores:
    """Return its stores."""
    return desk().stores
