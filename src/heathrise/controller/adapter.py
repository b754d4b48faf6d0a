"""Speaks to one controller. Whatever comes back is checked before it is believed."""

from __future__ import annotations

import json
from collections.abc import Sequence
from typing import Any, Literal, TypeVar
from urllib.parse import quote

import urllib3
from pydantic import BaseModel, ValidationError

from .contract import CONTRACT, About, Backup, Gear, GearList, Held, KeyChecked, Measured, Scan, Taken, Value

M = TypeVar("M", bound=BaseModel)
ANSWER_SECONDS = 8.0
MOST_BYTES = 20_000_000
Trouble = Literal["away", "late", "half", "wrong", "failed", "other_version", "other_site", "refused"]


class ControllerError(Exception):
    """A controller did not do what it was asked: ``trouble`` says in what way, the words what to do."""

    def __init__(self, trouble: Trouble, words: str) -> None:
        super().__init__(words)
        self.trouble = trouble


class Controller:
    """One controller, by the address that its contract stands under."""

    def __init__(self, base: str, site: str, seconds: float = ANSWER_SECONDS) -> None:
        self._base, self._site = base.rstrip("/"), site
        timeout = urllib3.Timeout(connect=min(2.0, seconds), read=seconds)
        # What was sent is not sent a second time: whether it was done is read back.
        self._pool = urllib3.PoolManager(timeout=timeout, retries=False, maxsize=4)

    def about(self) -> About:
        """Return what it says of itself.

        Raises:
            ControllerError: as with all below; here also that it speaks another version of the
                contract, or holds another site.
        """
        said = self._asked("GET", "/about")
        if isinstance(said, dict) and said.get("contract") != CONTRACT:
            theirs = str(said.get("contract"))[:20]
            what = f"it speaks version {theirs} of the contract, this program {CONTRACT}: update the older"
            raise ControllerError("other_version", what)
        about = self._read(About, said)
        if about.site != self._site:
            what = f"it holds the site {about.site[:60]!r}, not this one: look at which controller is asked"
            raise ControllerError("other_site", what)
        return about

    def gear(self) -> list[Gear]:
        found = self._read(GearList, self._asked("GET", "/gear")).gear
        serials = [g.serial for g in found]
        if len(set(serials)) != len(serials):
            raise ControllerError("wrong", "it lists a serial twice; look at its labels, or restart it")
        return found

    def held(self) -> Held:
        """Return everything that it holds, and the number under which the key of each target was set."""
        return self._read(Held, self._asked("GET", "/settings"))

    def set_key(self, target: str, key: str) -> int:
        """Give a target its key, and return the number under which it has it."""
        return self._read(Taken, self._asked("PUT", f"/keys/{quote(target)}", {"key": key})).version

    def has_key(self, target: str, key: str) -> bool:
        """Ask whether a target has just this key."""
        said = self._asked("POST", f"/keys/{quote(target)}/check", {"key": key})
        return self._read(KeyChecked, said).same

    def send(self, target: str, values: dict[str, Value]) -> int:
        """Send settings for a target and return their number; a device takes its time with them."""
        said = self._asked("PATCH", f"/settings/{quote(target)}", {"values": values})
        return self._read(Taken, said).version

    def adopt(self, serial: str) -> None:
        self._asked("POST", f"/gear/{quote(serial, safe='')}/adopt")

    def update(self, serial: str) -> None:
        self._asked("POST", f"/gear/{quote(serial, safe='')}/update")

    def update_itself(self) -> None:
        self._asked("POST", "/update")

    def blink(self, serial: str, on: bool) -> None:
        self._asked("POST", f"/gear/{quote(serial, safe='')}/blink", {"on": on})

    def measured(self) -> Measured:
        return self._read(Measured, self._asked("GET", "/measured"))

    def scan(self) -> Scan:
        """Return the scan that waits or is under way, or what the last one heard."""
        return self._read(Scan, self._asked("GET", "/scan"))

    def begin_scan(self, serials: Sequence[str], in_s: float) -> None:
        """Let devices listen to the neighbourhood in so many seconds; their clients are off meanwhile."""
        self._asked("POST", "/scan", {"serials": list(serials), "in_s": in_s})

    def drop_scan(self) -> None:
        """Take a scan back that waits."""
        self._asked("DELETE", "/scan")

    def backup(self) -> str:
        return self._read(Backup, self._asked("GET", "/backup")).text

    def restore(self, text: str) -> None:
        self._asked("POST", "/restore", {"text": text})

    def _asked(self, method: str, path: str, body: object | None = None) -> Any:
        data = None if body is None else json.dumps(body, ensure_ascii=False).encode()
        headers = {"Content-Type": "application/json"} if data is not None else {}
        try:
            answer = self._pool.request(
                method, self._base + path, body=data, headers=headers, preload_content=False
            )
            with answer:
                text = answer.read(MOST_BYTES + 1, decode_content=True)
        except (urllib3.exceptions.ReadTimeoutError, urllib3.exceptions.ConnectTimeoutError):
            what = "the controller answers too late; what was sent may have been done: read it back"
            raise ControllerError("late", what) from None
        except (urllib3.exceptions.ProtocolError, urllib3.exceptions.DecodeError):
            what = "the controller broke off in the middle of its answer; ask again"
            raise ControllerError("half", what) from None
        except urllib3.exceptions.HTTPError:
            what = "the controller cannot be reached; look whether it has power and a cable"
            raise ControllerError("away", what) from None
        if len(text) > MOST_BYTES:
            raise ControllerError("wrong", "the controller answers with more than it can hold; restart it")
        if answer.status >= 500:
            what = f"the controller failed (HTTP {answer.status}); look at its log, then ask again"
            raise ControllerError("failed", what)
        said = _parsed(text)
        if answer.status >= 400:
            words = said.get("message") if isinstance(said, dict) else None
            shown = str(words)[:200] if words else f"HTTP {answer.status}"
            raise ControllerError("refused", f"the controller will not: {shown}")
        return said

    def _read(self, cls: type[M], said: object) -> M:
        try:
            return cls.model_validate(said)
        except ValidationError as error:
            first = error.errors(include_url=False, include_input=False)[0]
            where = ".".join(map(str, first["loc"]))[:80]
            what = f"the controller's answer is not as the contract has it, at {where or 'its start'}"
            raise ControllerError("wrong", f"{what}: {first['msg']}") from None


def _parsed(text: bytes) -> Any:
    try:
        return json.loads(text or b"{}")
    except (ValueError, RecursionError):
        what = "the controller's answer is no JSON; something else may answer under its address"
        raise ControllerError("wrong", what) from None
