"""A site with a controller as it behaves: gear that takes time, fails, and is cut off by its own settings."""

from __future__ import annotations

import json
import random
from collections.abc import Callable, Iterator, Sequence
from functools import partial
from typing import Any

from ...controller.story import Doing, Mark, Span, What
from .gear import FAULTS, LATEST, MOST_TOLD, Fault, Gear, Planted, State
from .scanning import SCAN_S, heard_of
from .ways import behind_a_scan, powered, reached

_SECONDS = {"adopt": 20.0, "update": 60.0, "restart": 45.0, "apply": 4.0, "dark": 120.0, "deaf": 40.0}
_SLOWER = 6.0
_REFUSED = "this model does not know the setting"


class SimulatedSite:
    """One site. Nothing happens but by what is asked of it and by time going on."""

    def __init__(self, site: str, seed: int = 1) -> None:
        self.state = State(site=site, seed=seed)

    def plant(self, rows: Sequence[Planted], faults: int = 0) -> None:
        """Plug gear in, whatever was there before goes on; ``faults`` devices get one each."""
        chance = random.Random(self.state.seed)
        there = self.state.gear
        self.state.gear = {
            row.serial: there[row.serial].model_copy(update={"planted": row})
            if row.serial in there
            else Gear(planted=row, address=f"10.255.0.{20 + k}", firmware=LATEST - chance.choice((1, 1, 2)))
            for k, row in enumerate(rows)
        }
        fresh = [g for k, g in self.state.gear.items() if k not in there and g.planted.managed]
        kinds = [k for k in FAULTS if k != "strays"]
        chance.shuffle(kinds)
        for number, gear in enumerate(chance.sample(fresh, min(faults, len(fresh)))):
            kind = kinds[number % len(kinds)]
            self._fault(gear, "strays" if gear.planted.over_air and self._others(gear) else kind)

    def fault(self, serial: str, fault: Fault) -> None:
        """Let a device have a fault.

        Raises:
            Refused: it cannot have that one.
        """
        if fault == "strays" and not self._others(self.state.gear[serial]):
            raise Refused("there is nothing else on the air that it could hang on")
        self._fault(self.state.gear[serial], fault)

    def _others(self, gear: Gear) -> list[str]:
        """Return what a device over the air may hang on but for what it was planned on: what has a cable."""
        rows = (g.planted for g in self.state.gear.values())
        wired = [r.serial for r in rows if r.radios and r.managed and not r.over_air]
        return [s for s in wired if s not in (gear.planted.parent, gear.planted.serial)]

    def _fault(self, gear: Gear, fault: Fault) -> None:
        gear.faults = {**gear.faults, fault: fault == "strays"}
        if fault == "strays":
            gear.strayed_to = random.Random(gear.planted.serial).choice(self._others(gear))
        if fault == "held_elsewhere":
            gear.stand = "held_elsewhere"
        if fault == "old_twice":
            gear.firmware = LATEST - 2

    # What time does.

    def advance(self, seconds: float) -> None:
        """Let so many seconds pass; what is done meanwhile is done in its order."""
        end = self.state.now_s + seconds
        while (due := self._due(end)) is not None:
            at_s, happens = due
            self.state.now_s = max(self.state.now_s, at_s)
            happens()
        self.state.now_s = end
        if self.state.updating_until_s is not None and self.state.updating_until_s <= end:
            self.state.updating_until_s = None
            self.state.firmware = min(self.state.firmware + 1, LATEST)

    def _due(self, end_s: float) -> tuple[float, Callable[[], None]] | None:
        """Return what happens next until then, and when."""
        found = [
            (g.until_s, partial(self._done, g))
            for g in self.state.gear.values()
            if g.doing and g.until_s <= end_s
        ]
        at_s = self.state.scan.due_s
        if at_s is not None and at_s <= end_s:
            found.append((at_s, partial(self._scans)))
        return min(found, key=lambda x: x[0], default=None)

    def _scans(self) -> None:
        """Let a scan begin that waited, or end one that was under way."""
        scan, now_s = self.state.scan, self.state.now_s
        if scan.ends_s is None:
            online = [s for s in scan.serials if self.stand_of(self.state.gear[s]) == "online"]
            scan.listening, scan.ends_s = online, now_s + SCAN_S
            for serial in online:
                self._span(serial, "scan", scan.ends_s)
            return
        rows = ((s, self.state.gear[s].planted.near) for s in scan.listening)
        heard = [row for s, near in rows for row in heard_of(s, near, self.state.seed, now_s)]
        self.state.scan = scan.over(heard)

    def _begin(self, gear: Gear, doing: Doing) -> None:
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

    def _comes(self, gear: Gear, fault: Fault) -> bool:
        """Whether a fault that a device was given comes about now, which it does once."""
        if gear.faults.get(fault) is not False:
            return False
        gear.faults[fault] = True
        self.mark("came", gear.planted.serial, fault)
        return True

    def _done(self, gear: Gear) -> None:
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

    def _apply(self, gear: Gear) -> None:
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

    def seen(self) -> Iterator[Gear]:
        """Yield the gear that shows itself: what has power and a way to the controller, and what the
        controller has known before."""
        for gear in self.state.gear.values():
            if gear.planted.managed and (gear.version or gear.stand != "found" or self.reached(gear)):
                yield gear

    def stand_of(self, gear: Gear) -> str:
        """Return how a device stands as the controller sees it."""
        if gear.stand == "online" and not powered(self.state, gear):
            return "offline"
        if gear.stand in ("online", "adopting", "updating") and not self.reached(gear):
            return "offline" if behind_a_scan(self.state, gear) else "cut_off"
        if gear.stand == "online" and gear.planted.serial in self.state.scan.listening:
            return "scanning"
        return gear.stand

    def reached(self, gear: Gear) -> bool:
        """Whether frames that a device sends come up to the controller, port by port."""
        return reached(self.state, gear)

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

    def scan(self, serials: Sequence[str], in_s: float) -> None:
        """Let devices listen to the neighbourhood in so many seconds.

        Raises:
            Refused: one waits or is under way, or none of them has a radio and is online.
        """
        if self.state.scan.begins_s is not None:
            raise Refused("a scan waits or is under way; take it back, or wait until it is over")
        known = [self._known(s) for s in serials]
        wanted = [g.planted.serial for g in known if g.planted.radios and self.stand_of(g) == "online"]
        if not wanted:
            raise Refused("none of these has a radio and is online; try again once one is")
        scan = self.state.scan
        scan.serials, scan.begins_s, scan.ends_s = wanted, self.state.now_s + in_s, None
        self.advance(0.0)

    def drop_scan(self) -> None:
        """Take a scan back that waits.

        Raises:
            Refused: none waits.
        """
        scan = self.state.scan
        if scan.begins_s is None or scan.ends_s is not None:
            raise Refused("no scan waits that could be taken back")
        scan.serials, scan.begins_s = [], None

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

    def _known(self, serial: str) -> Gear:
        gear = self.state.gear.get(serial)
        if gear is None or not gear.planted.managed:
            raise Refused(f"there is no device with the serial {serial[:40]!r}", 404)
        return gear

    def _wants_online(self, gear: Gear) -> None:
        stand = self.stand_of(gear)
        if stand != "online":
            raise Refused(f"it is {stand.replace('_', ' ')}; try again once it is online")


class Refused(Exception):
    """What was asked cannot be done now; says why, and what to do."""

    def __init__(self, why: str, status: int = 409) -> None:
        super().__init__(why)
        self.status = status
