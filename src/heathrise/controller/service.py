"""Where controllers are: one address for all sites of this program, told when it was started."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

import urllib3

from ..core.design import DesignError, Problem
from .adapter import ANSWER_SECONDS, Controller, ControllerError
from .story import Story

_MISSING = "no controller is known: start the program with the address of one"


@dataclass(frozen=True)
class Controllers:
    """The controllers of all sites, each under ``/sites/<site>/v1`` of one address on loopback or in the
    firm's own network; None where there is none. ``standin`` says that it only stands in for them."""

    root: str | None = None
    standin: bool = False
    seconds: float = ANSWER_SECONDS

    def of(self, site: str) -> Controller:
        """Return the controller of a site.

        Raises:
            ControllerError: none is known.
        """
        if self.root is None:
            raise ControllerError("away", _MISSING)
        return Controller(f"{self.root.rstrip('/')}/sites/{site}/v1", site, self.seconds)

    def plug_in(self, site: str, gear: Sequence[dict[str, Any]], seed: int, faults: int) -> None:
        """Plug the gear of a plan into a stand-in, so many of it with a fault.

        Raises:
            DesignError: what answers is no stand-in.
            ControllerError: it does not do it.
        """
        body = {"gear": list(gear), "seed": seed, "faults": faults}
        self._standing_in("PUT", f"{site}/gear", body)

    def release(self, site: str, serial: str) -> None:
        """Have a device released by who held it and reset, as somebody does on site."""
        self._standing_in("POST", f"{site}/release/{serial}", None)

    def story(self, site: str) -> Story:
        """Return what a stand-in tells of a site afterwards.

        Raises:
            ControllerError: it cannot be reached, or knows the site no more.
        """
        text = self._standing_in("GET", f"{site}/story", None)
        return Story.model_validate_json(text)

    def let_pass(self, site: str, seconds: float) -> None:
        """Let time go by on a site that a stand-in plays, as somebody needs it there."""
        self._standing_in("POST", f"{site}/pass", {"seconds": seconds})

    def forget(self, site: str) -> None:
        """Let a stand-in forget a site."""
        self._standing_in("DELETE", f"{site}/", None)

    def _standing_in(self, method: str, path: str, body: object) -> bytes:
        if self.root is None or not self.standin:
            raise DesignError([Problem("controller", "only a stand-in can do that; this is none")])
        address = f"{self.root.rstrip('/')}/standin/{path}"
        try:
            answer = urllib3.request(method, address, json=body, timeout=self.seconds, retries=False)
        except urllib3.exceptions.HTTPError:
            raise ControllerError("away", "the stand-in cannot be reached; start the demo again") from None
        if answer.status >= 400:
            raise ControllerError("failed", f"the stand-in will not (HTTP {answer.status})")
        return answer.data
