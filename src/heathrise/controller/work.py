"""Work with a controller: match its gear to the plan, read back, push step by step, adopt and update."""

from __future__ import annotations

import time
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from functools import cached_property
from typing import Any

from ..core.base.progress import Progress
from ..core.controlled import Differs, Held, Managed, PushStep, Tree, device_of, normal, same
from ..core.records import Outcome
from .adapter import Controller, ControllerError
from .contract import About, Gear

APPLY_SECONDS = 120.0  # by the controller's own clock
REAL_SECONDS = 90.0
LOOK_SECONDS = 0.15


@dataclass(frozen=True)
class Seen:
    """A controller as it was read: what it says of itself, its gear by serial, and what it holds with
    devices by their id in the plan; ``strangers`` are serials that no device of the plan is matched to."""

    about: About
    gear: Mapping[str, Gear]
    held: Held
    matched: Mapping[str, str]
    keyed: Mapping[str, int]

    @cached_property
    def devices(self) -> Mapping[str, str]:
        """Devices of the plan by their serial."""
        return {serial: device for device, serial in self.matched.items()}

    @property
    def strangers(self) -> list[Gear]:
        return [g for serial, g in self.gear.items() if serial not in self.devices]

    @property
    def online(self) -> frozenset[str]:
        """Devices of the plan that are online."""
        rows = self.matched.items()
        return frozenset(k for k, s in rows if s in self.gear and self.gear[s].stand == "online")

    def sendable(self, differs: Sequence[Differs]) -> list[Differs]:
        """Return the differences that can be sent now: of devices those that are online."""
        devices = ((d, device_of(d.target)) for d in differs)
        return [d for d, device in devices if device is None or device in self.online]


def read(controller: Controller, tree: Tree, said: Mapping[str, str]) -> Seen:
    """Return a controller as it is now, its gear matched to a plan's devices.

    Args:
        said: serials that somebody told by device; the others follow from where gear is plugged in.

    Raises:
        ControllerError: it cannot be read, or is another site's.
    """
    about = controller.about()
    gear = {g.serial: g for g in controller.gear()}
    matched = matches(tree, list(gear.values()), said)
    by_serial = {serial: device for device, serial in matched.items()}
    held: dict[str, dict[str, Any]] = {}
    said_held = controller.held()
    for target, values in said_held.held.items():
        at = target
        if (serial := device_of(target)) is not None:
            at = f"device/{by_serial[serial]}" if serial in by_serial else f"device/serial:{serial}"
        held[at] = {k: normal(v) for k, v in values.items() if v is not None}
    return Seen(about, gear, held, matched, said_held.keyed)


def matches(tree: Tree, gear: Sequence[Gear], matched: Mapping[str, str]) -> dict[str, str]:
    """Return serials by device as far as it is known where each is plugged in: what was matched already,
    then whoever is on the port, or the air, of what is matched and is of the planned model."""
    found = {k: s for k, s in matched.items() if k in tree.rows}
    serials = {g.serial: g for g in gear}
    _match(found, serials, tree)
    # Over the air a device hangs on whom it hears best: what is the only one of its model left is that.
    for row in tree.rows.values():
        if row.over_air and _rivals(tree, row, found) == [row]:
            taken = set(found.values())
            astray = [g for g in gear if g.model == row.model and g.parent and not g.port]
            left = [g for g in astray if g.serial not in taken]
            if len(left) == 1:
                found[row.id] = left[0].serial
                _match(found, serials, tree)
    return found


def _match(found: dict[str, str], serials: Mapping[str, Gear], tree: Tree) -> None:
    """Add to what is matched whoever hangs on it as it is planned."""
    again = True
    while again:
        again = False
        taken = set(found.values())
        by_serial = {s: k for k, s in found.items()}
        for one in serials.values():
            if one.serial in taken:
                continue
            parent = by_serial.get(one.parent or "")
            fits = [
                row
                for row in tree.rows.values()
                if row.managed
                and row.id not in found
                and row.model == one.model
                and _hangs(row, one, parent, tree)
            ]
            if len(fits) == 1:
                found[fits[0].id] = one.serial
                again = True
                break


def _rivals(tree: Tree, row: Managed, found: Mapping[str, str]) -> list[Managed]:
    """Return what is managed, of a row's model and matched to nothing yet."""
    return [r for r in tree.rows.values() if r.managed and r.model == row.model and r.id not in found]


def _hangs(row: Managed, gear: Gear, parent: str | None, tree: Tree) -> bool:
    above = row.parent
    while above is not None and not tree.rows[above].managed:
        return False  # behind what tells nothing of its ports it is matched by its label
    if gear.parent is None:
        return above is None
    return above is not None and above == parent and row.port == gear.port


@dataclass
class PushRun:
    """One push: its steps as they go, each told to ``told`` when it is through."""

    controller: Controller
    matched: Mapping[str, str]
    even_so: bool = False
    told: Callable[[PushStep, Outcome, str], None] = lambda *_: None
    pause: Callable[[float], None] = time.sleep

    def run(self, steps: Sequence[PushStep], progress: Progress) -> list[tuple[PushStep, Outcome, str]]:
        """Send the steps in their order and read each back. Once one cut something off, or the controller
        itself goes away, what is left stays unsent; what would cut off is not sent at all."""
        found: list[tuple[PushStep, Outcome, str]] = []
        ends = ""
        for k, step in enumerate(steps):
            outcome: Outcome = "stopped"
            words = ends or "stopped by hand"
            if not ends and progress(k, len(steps)):
                outcome, words = self._one(step)
                shared_away = outcome == "away" and device_of(step.target) is None
                if outcome == "cut_off" or shared_away:
                    ends = f"left after {step.name}: {words}"
            found.append((step, outcome, words))
            self.told(step, outcome, words)
        return found

    def _one(self, step: PushStep) -> tuple[Outcome, str]:
        if step.cuts and not self.even_so:
            return "dangerous", f"it would cut off {len(step.cuts)}; nothing was sent"
        device = device_of(step.target)
        serial = self.matched.get(device) if device is not None else None
        if device is not None and serial is None:
            return "away", "no serial is matched to it yet"
        target = f"device/{serial}" if serial is not None else step.target
        try:
            version = self.controller.send(target, {c.key: _plain(c.wanted) for c in step.changes})
        except ControllerError as error:
            if error.trouble not in ("late", "half"):
                return ("refused" if error.trouble == "refused" else "away"), str(error)
            version = -1  # it may have been done: what is read back tells
        try:
            wrong = self._wait(serial, version) if serial is not None else None
            return wrong or self._read_back(target, serial, step)
        except ControllerError as error:
            return "away", f"it was sent, and could not be read back: {error}"

    def _wait(self, serial: str, version: int) -> tuple[Outcome, str] | None:
        """Wait until a device has what it was sent; return what is wrong where it does not."""
        began, by_theirs = time.monotonic(), self.controller.about().now_s
        while True:
            gear = next((g for g in self.controller.gear() if g.serial == serial), None)
            if gear is None:
                return "cut_off", "it does not show itself any more"
            if gear.applied >= max(version, gear.version) and gear.stand == "online":
                return None
            if gear.stand == "cut_off":
                return (
                    "cut_off",
                    "its way to the controller is cut by what it was sent; set the port right on site",
                )
            theirs = self.controller.about().now_s - by_theirs
            if theirs > APPLY_SECONDS or time.monotonic() - began > REAL_SECONDS:
                stand = gear.stand.replace("_", " ")
                return "away", f"it is {stand} and has not said that it is done; read back later"
            self.pause(LOOK_SECONDS)

    def _read_back(self, target: str, serial: str | None, step: PushStep) -> tuple[Outcome, str]:
        held = self.controller.held().held.get(target, {})
        wrong = [c for c in step.changes if not same(held.get(c.key), c.wanted)]
        if not wrong:
            return "done", ""
        gear = next((g for g in self.controller.gear() if g.serial == serial), None) if serial else None
        refused = {c.key: gear.refuses[c.key] for c in wrong if gear is not None and c.key in gear.refuses}
        if refused:
            key, why = next(iter(refused.items()))
            return "refused", f"{key}: {why}; {len(step.changes) - len(wrong)} of {len(step.changes)} hold"
        names = ", ".join(c.key for c in wrong[:3])
        return "not_held", f"it says that it took {names}, and holds something else; send it again"


def _plain(value: Any) -> Any:
    return list(value) if isinstance(value, tuple) else value
