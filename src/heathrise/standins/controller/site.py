"""A site with a controller as it behaves: gear that takes time, fails, and is cut off by its own settings."""

from __future__ import annotations

import json
import random
from collections.abc import Iterator, Sequence
from typing import Any, Literal

from pydantic import BaseModel, Field

from ...controller.story import Doing, Mark, Span, What
from .held_keys import HeldKeys

Fault = Literal["held_elsewhere", "slow", "power_loss", "moved", "refuses", "lies", "deaf", "old_twice"]
# Each fault, and what one sees of it.
FAULTS: dict[Fault, str] = {
    "held_elsewhere": "another controller holds it; it must be released there and reset",
    "slow": "takes many times as long",
    "power_loss": "loses power half-way through its update",
    "moved": "comes back at another address",
    "refuses": "does not know one of the settings",
    "lies": "says that it took a setting, and did not",
    "deaf": "does not answer for a while after settings",
    "old_twice": "wants two updates, one after the other",
}
LATEST = 7
MOST_TOLD = 10_000
_SECONDS = {"adopt": 20.0, "update": 60.0, "restart": 45.0, "apply": 4.0, "dark": 120.0, "deaf": 40.0}
_SLOWER = 6.0
_REFUSED = "this model does not know the setting"


class Planted(BaseModel):
    """A device as it is plugged in: where, by which of its own ports, whether that feeds it."""

    serial: str
    model: str
    kind: str
    parent: str | None = None
    port: int | None = None
    own_port: int | None = None
    fed: bool = False
    managed: bool = True
    over_air: bool = False
    link_mbps: int | None = None
    watts: float | None = None
    radios: dict[str, int] = Field({}, description="channel of each band out of the box")
    clients: dict[str, float] = Field({}, description="clients at the busiest hour, by band")
    busy: dict[str, float] = Field({}, description="share of its air at the busiest hour, by band")


class _Gear(BaseModel):
    planted: Planted
    stand: str = "found"
    firmware: int = LATEST - 1
    address: str = ""
    values: dict[str, Any] = {}
    coming: dict[str, Any] = {}
    version: int = 0
    applied: int = 0
    refuses: dict[str, str] = {}
    until_s: float = 0.0  # when what it does is done
    doing: str = ""
    blinking: bool = False
    faults: dict[str, bool] = {}  # by name whether it has come about


class _State(BaseModel):
    site: str
    seed: int = 1
    now_s: float = 0.0
    firmware: int = LATEST - 2
    updating_until_s: float | None = None
    held: dict[str, dict[str, Any]] = {}
    keys: HeldKeys = HeldKeys()
    gear: dict[str, _Gear] = {}
    spans: list[Span] = []
    marks: list[Mark] = []


class SimulatedSite:
    """One site. Nothing happens but by what is asked of it and by time going on."""

    def __init__(self, site: str, seed: int = 1) -> None:
        self.state = _State(site=site, seed=seed)

    def plant(self, rows: Sequence[Planted], faults: int = 0) -> None:
        """Plug gear in, whatever was there before goes on; ``faults`` devices get one each."""
        chance = random.Random(self.state.seed)
        there = self.state.gear
        self.state.gear = {
            row.serial: there[row.serial].model_copy(update={"planted": row})
            if row.serial in there
            else _Gear(planted=row, address=f"10.255.0.{20 + k}", firmware=LATEST - chance.choice((1, 1, 2)))
            for k, row in enumerate(rows)
        }
        fresh = [g for k, g in self.state.gear.items() if k not in there and g.planted.managed]
        kinds = list(FAULTS)
        chance.shuffle(kinds)
        for number, gear in enumerate(chance.sample(fresh, min(faults, len(fresh)))):
            self._fault(gear, kinds[number % len(kinds)])

    def fault(self, serial: str, fault: Fault) -> None:
        """Let a device have a fault."""
        self._fault(self.state.gear[serial], fault)

    @staticmethod
    def _fault(gear: _Gear, fault: Fault) -> None:
        gear.faults = {**gear.faults, fault: False}
        if fault == "held_elsewhere":
            gear.stand = "held_elsewhere"
        if fault == "old_twice":
            gear.firmware = LATEST - 2

    # What time does.

    def advance(self, seconds: float) -> None:
        """Let so many seconds pass; what is done meanwhile is done in its order."""
        end = self.state.now_s + seconds
        while True:
            due = [g for g in self.state.gear.values() if g.doing and g.until_s <= end]
            if not due:
                break
            gear = min(due, key=lambda g: g.until_s)
            self.state.now_s = max(self.state.now_s, gear.until_s)
            self._done(gear)
        self.state.now_s = end
        if self.state.updating_until_s is not None and self.state.updating_until_s <= end:
            self.state.updating_until_s = None
            self.state.firmware = min(self.state.firmware + 1, LATEST)

    def _begin(self, gear: _Gear, doing: Doing) -> None:
        slower = _SLOWER if "slow" in gear.faults else 1.0
        gear.doing, gear.until_s = doing, self.state.now_s + _SECONDS[doing] * slower
        self._span(gear.planted.serial, doing, gear.until_s)

    def _span(self, serial: str, doing: Doing, end_s: float) -> None:
        if len(self.state.spans) < MOST_TOLD:
            row = Span(serial=serial, doing=doing, begin_s=self.state.now_s, end_s=end_s)
            self.state.spans.append(row)

    def mark(self, what: What, serial: str = "", words: str = "") -> None:
        """Note something that happened, for who asks afterwards."""
        if len(self.state.marks) < MOST_TOLD:
            self.state.marks.append(Mark(at_s=self.state.now_s, serial=serial, what=what, words=words[:300]))

    def _comes(self, gear: _Gear, fault: Fault) -> bool:
        """Whether a fault that a device was given comes about now, which it does once."""
        if gear.faults.get(fault) is not False:
            return False
        gear.faults[fault] = True
        self.mark("came", gear.planted.serial, fault)
        return True

    def _done(self, gear: _Gear) -> None:
        doing, gear.doing = gear.doing, ""
        if doing == "adopt":
            gear.stand = "online"
            if self._comes(gear, "moved"):
                gear.address = gear.address.replace("10.255.0.", "10.255.1.")
        elif doing == "update":
            if self._comes(gear, "power_loss"):
                gear.stand = "offline"
                self._begin(gear, "dark")
                return
            gear.firmware += 1
            gear.stand = "offline"
            self._begin(gear, "restart")
        elif doing in ("restart", "dark", "deaf"):
            gear.stand = "online"
        elif doing == "apply":
            self._apply(gear)

    def _apply(self, gear: _Gear) -> None:
        coming, gear.coming = dict(gear.coming), {}
        gear.refuses = {}
        if coming and self._comes(gear, "refuses"):
            key = sorted(coming)[0]
            gear.refuses = {key: _REFUSED}
            del coming[key]
        if coming and self._comes(gear, "lies"):
            del coming[sorted(coming)[-1]]
        for key, value in coming.items():
            if value is None:
                gear.values.pop(key, None)
            else:
                gear.values[key] = value
        gear.applied = gear.version
        if self._comes(gear, "deaf"):
            gear.stand = "offline"
            self._begin(gear, "deaf")

    # What can be seen.

    def seen(self) -> Iterator[_Gear]:
        """Yield the gear that shows itself: what has power and a way to the controller, and what the
        controller has known before."""
        for gear in self.state.gear.values():
            if gear.planted.managed and (gear.version or gear.stand != "found" or self.reached(gear)):
                yield gear

    def stand_of(self, gear: _Gear) -> str:
        """Return how a device stands as the controller sees it."""
        if gear.stand == "online" and not self.powered(gear):
            return "offline"
        if gear.stand in ("online", "adopting", "updating") and not self.reached(gear):
            return "cut_off"
        return gear.stand

    def powered(self, gear: _Gear) -> bool:
        """Whether a device has power: its own, or that of a port that gives it and is on."""
        parent = self.state.gear.get(gear.planted.parent or "")
        if parent is None:
            return True
        if parent.stand == "offline" or not self.powered(parent):
            return not gear.planted.fed
        if gear.planted.fed and gear.planted.port is not None:
            return parent.values.get(f"port.{gear.planted.port}.power", True) is not False
        return True

    def reached(self, gear: _Gear) -> bool:
        """Whether frames that a device sends come up to the controller, port by port."""
        tag: int | None = None
        if not self.powered(gear):
            return False
        below = gear
        while (parent := self.state.gear.get(below.planted.parent or "")) is not None:
            if not self.powered(parent) or parent.stand == "offline":
                return False
            if below.planted.over_air:
                if parent.stand not in ("online", "updating") and parent.values:
                    return False
                below = parent
                continue
            inside = self._in(parent, below.planted.port, tag)
            if inside is _DROPPED:
                return False
            out = self._out(parent, parent.planted.own_port, inside)
            if out is _DROPPED:
                return False
            tag = out  # type: ignore[assignment]
            below = parent
        return True

    @staticmethod
    def _in(gear: _Gear, port: int | None, tag: int | None) -> object:
        at = f"port.{port}"
        if port is None or f"{at}.on" not in gear.values:
            return tag if tag is not None else _FLAT
        if gear.values.get(f"{at}.on") is False:
            return _DROPPED
        untagged, tagged = gear.values.get(f"{at}.untagged"), gear.values.get(f"{at}.tagged") or []
        if tag is None:
            return untagged if untagged is not None else _DROPPED
        return tag if tag in tagged or tag == untagged else _DROPPED

    @staticmethod
    def _out(gear: _Gear, port: int | None, vlan: object) -> object:
        at = f"port.{port}"
        if port is None or f"{at}.on" not in gear.values:
            return None if vlan is _FLAT else vlan
        if gear.values.get(f"{at}.on") is False:
            return _DROPPED
        untagged, tagged = gear.values.get(f"{at}.untagged"), gear.values.get(f"{at}.tagged") or []
        if vlan is _FLAT or vlan == untagged:
            return None
        return vlan if vlan in tagged else _DROPPED

    # What can be asked of it.

    def adopt(self, serial: str) -> None:
        """Take a device over.

        Raises:
            Refused: it cannot be now; the words say why and what to do.
        """
        gear = self._known(serial)
        if self.state.updating_until_s is not None:
            raise Refused("the controller updates itself; wait until it is back")
        if gear.stand == "held_elsewhere":
            raise Refused("another controller holds it: have it released there, then reset it")
        if gear.stand != "found":
            raise Refused("it is adopted already")
        if not self.reached(gear):
            raise Refused("it cannot be reached")
        if self.state.firmware < LATEST:
            raise Refused("the controller is older than the device: update the controller first")
        gear.stand = "adopting"
        self._begin(gear, "adopt")

    def release(self, serial: str) -> None:
        """Have a device released by who held it, and reset: what somebody does at its button."""
        gear = self._known(serial)
        gear.stand, gear.values, gear.version, gear.applied, gear.doing = "found", {}, 0, 0, ""
        self.mark("released", serial)

    def update(self, serial: str) -> None:
        gear = self._known(serial)
        self._wants_online(gear)
        if gear.firmware >= LATEST:
            raise Refused("there is no newer firmware for it")
        gear.stand = "updating"
        self._begin(gear, "update")

    def update_self(self) -> None:
        if self.state.firmware >= LATEST or self.state.updating_until_s is not None:
            raise Refused("there is no newer firmware for the controller")
        self.state.updating_until_s = self.state.now_s + _SECONDS["update"]
        self._span("", "itself", self.state.updating_until_s)

    def blink(self, serial: str, on: bool) -> None:
        self._known(serial).blinking = on

    def send(self, target: str, values: dict[str, Any]) -> int:
        """Send settings: those of a device take time, what is the controller's own holds at once."""
        if not target.startswith("device/"):
            kept = self.state.held.setdefault(target, {})
            for key, value in values.items():
                if value is None:
                    kept.pop(key, None)
                else:
                    kept[key] = value
            if not kept:
                del self.state.held[target]
                self.state.keys.drop(target)
            return 1
        gear = self._known(target.removeprefix("device/"))
        self._wants_online(gear)
        self.mark("sent", gear.planted.serial)
        gear.coming = {**gear.coming, **values}
        gear.version += 1
        self._begin(gear, "apply")
        return gear.version

    def held(self) -> dict[str, dict[str, Any]]:
        """Return all that the controller holds; of a device what it says itself."""
        found = {target: dict(values) for target, values in self.state.held.items()}
        for serial, gear in self.state.gear.items():
            if gear.planted.managed and gear.stand not in ("found", "held_elsewhere") and gear.values:
                found[f"device/{serial}"] = dict(gear.values)
        return found

    def set_key(self, target: str, key: str) -> int:
        """Give a wireless name a key, or vouchers their codes, and return the number of that.

        Raises:
            Refused: there is no such name, and no such set.
        """
        if not target.startswith(("name/", "vouchers/")) or target not in self.state.held:
            raise Refused(f"there is nothing called {target[:60]!r} to have one; send it first", 404)
        return self.state.keys.put(target, key)

    def backup(self) -> str:
        return json.dumps({"site": self.state.site, "held": self.held()}, sort_keys=True)

    def restore(self, text: str) -> None:
        """Send all that a backup holds, and take away what it does not.

        Raises:
            Refused: it is none, or another site's.
        """
        try:
            said = json.loads(text)
            wanted: dict[str, dict[str, Any]] = said["held"]
        except (ValueError, KeyError, TypeError):
            raise Refused("this is no backup of a controller") from None
        if said.get("site") != self.state.site:
            raise Refused(f"this is a backup of another site, {str(said.get('site'))[:60]!r}")
        now = self.held()
        for target in {*now, *wanted}:
            values = {**dict.fromkeys(now.get(target, {})), **wanted.get(target, {})}
            device = self.state.gear.get(target.removeprefix("device/"))
            if target.startswith("device/") and (device is None or self.stand_of(device) != "online"):
                continue  # what cannot be reached is seen when it is read back
            self.send(target, values)

    def _known(self, serial: str) -> _Gear:
        gear = self.state.gear.get(serial)
        if gear is None or not gear.planted.managed:
            raise Refused(f"there is no device with the serial {serial[:40]!r}", 404)
        return gear

    def _wants_online(self, gear: _Gear) -> None:
        stand = self.stand_of(gear)
        if stand != "online":
            raise Refused(f"it is {stand.replace('_', ' ')}; try again once it is online")


class Refused(Exception):
    """What was asked cannot be done now; says why, and what to do."""

    def __init__(self, why: str, status: int = 409) -> None:
        super().__init__(why)
        self.status = status


_DROPPED = object()
_FLAT = object()  # inside a device that tells no networks apart
