"""The hand-over: what was promised and measured, what is still open, what is left in hand."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass, field
from typing import Literal

from pydantic import Field

from ..base.frozen import Frozen
from .built import Difference
from .joining import Join, Reach

Tone = Literal["not_met", "near", "unknown"]
Seen = Literal["met", "near", "not_met", "heard", "unknown"]
Group = Literal["work", "cables", "ports", "snags", "complaints", "wishes", "plan", "signal", "speed"]


class OpenPoint(Frozen):
    """Something that is not measured, not done or not as it should be; ``stage`` is where it is
    mended. ``unknown`` is what nobody has looked at yet."""

    group: Group
    tone: Tone
    text: str
    stage: str
    kind: str | None = None
    element: str | None = None


class Promise(Frozen):
    """One promise, and what is known of it: measured, heard by ear, or not looked at."""

    what: str
    promised: str
    measured: str
    verdict: Seen
    met: int = Field(description="of what was promised, what was measured to hold")
    near: int
    not_met: int
    heard: int = Field(0, description="what somebody heard by himself, not measured")
    unknown: int = Field(description="what nobody has looked at yet")


class Left(Frozen):
    """What one switch has in hand for later."""

    switch: str
    name: str
    ports: int
    powered: int
    watts: float = Field(description="within the headroom")


class RoomProof(Frozen):
    """How one room is known: measured at its spots, heard by somebody, or only planned."""

    name: str
    floor: str
    how: Literal["measured", "heard", "planned"]
    verdict: Seen
    says: str


class DeviceState(Frozen):
    """How one device stands at the hand-over, for its mark on the sheet."""

    device: str
    floor: str
    verdict: Seen
    says: str


class Handover(Frozen):
    """A job as it would be handed over now."""

    done: tuple[str, ...]
    still_open: tuple[OpenPoint, ...]
    promises: tuple[Promise, ...]
    reaches: tuple[Reach, ...]
    joins: tuple[Join, ...]
    restart: tuple[str, ...]
    left: tuple[Left, ...]
    spare_cables: int = Field(description="cables that lie there and are in no port yet")
    built: tuple[Difference, ...]
    agreed_revision: int | None = None
    devices: tuple[DeviceState, ...]
    rooms: tuple[RoomProof, ...] = ()
    complaints: dict[str, Seen] = Field({}, description="by complaint, how it is known to stand")


@dataclass(frozen=True)
class CheckItem:
    """One thing that is looked at: of which kind of proof, how it stands, and why."""

    group: Group
    verdict: Seen
    name: str
    reason: str
    stage: str
    kind: str | None = None
    element: str | None = None


@dataclass(frozen=True)
class Proof:
    """What is known of one promise: its words, and all that was watched for it."""

    what: str
    promised: str
    unit: str
    rows: Sequence[CheckItem] = field(default_factory=tuple)
    measured: str = ""


_ORDER: tuple[Group, ...] = (
    "snags",
    "cables",
    "ports",
    "work",
    "signal",
    "speed",
    "complaints",
    "wishes",
    "plan",
)
_TONES: tuple[Tone, ...] = ("not_met", "near", "unknown")
_SINGLE = 3  # of what was not looked at, so many are named; of more the number is said


def open_points(rows: Iterable[CheckItem]) -> list[OpenPoint]:
    """Return what is open, what is wrong before what nobody has looked at.

    What was not looked at is told as one line a group where it is more than a few.
    """
    found: list[OpenPoint] = []
    unknown: dict[Group, list[CheckItem]] = {}
    heard: dict[Group, list[CheckItem]] = {}
    for row in rows:
        if row.verdict == "unknown":
            unknown.setdefault(row.group, []).append(row)
        elif row.verdict == "heard":
            heard.setdefault(row.group, []).append(row)
        elif row.verdict != "met":
            found.append(_point(row, row.verdict))
    for group, many in unknown.items():
        if len(many) <= _SINGLE:
            found += [_point(row, "unknown") for row in many]
        else:
            names = ", ".join(dict.fromkeys(r.name for r in many[:_SINGLE]))
            text = f"{len(many)} {_MANY[group]}: {names} and others"
            found.append(OpenPoint(group=group, tone="unknown", text=text, stage=many[0].stage))
    for group, many in heard.items():
        names = ", ".join(dict.fromkeys(r.name for r in many[:_SINGLE]))
        more = " and others" if len(many) > _SINGLE else ""
        text = f"{len(many)} {_HEARD[group]} ({many[0].reason}): {names}{more}"
        found.append(OpenPoint(group=group, tone="unknown", text=text, stage=many[0].stage))
    return sorted(found, key=lambda p: (_TONES.index(p.tone), _ORDER.index(p.group)))


_MANY: dict[Group, str] = {
    "work": "steps of the work are not done",
    "cables": "cables are not tested",
    "ports": "ports were not read",
    "snags": "snags",
    "signal": "rooms were not walked, their signal is computed, not measured",
    "speed": "places whose speed was not measured",
    "complaints": "complaints",
    "wishes": "wires",
    "plan": "findings",
}


_HEARD: dict[Group, str] = {
    **_MANY,
    "signal": "rooms were heard, not measured",
    "complaints": "complaints were seen to by ear, not by a measurement",
}


def _point(row: CheckItem, tone: Tone) -> OpenPoint:
    return OpenPoint(
        group=row.group,
        tone=tone,
        text=f"{row.name}: {row.reason}" if row.name else row.reason,
        stage=row.stage,
        kind=row.kind,
        element=row.element,
    )


def promises_of(proofs: Iterable[Proof]) -> list[Promise]:
    """Return what was promised beside what was measured; nothing measured is said to be so."""
    found = []
    for proof in proofs:
        seen = [r for r in proof.rows if r.verdict != "unknown"]
        good = sum(r.verdict == "met" for r in seen)
        heard = sum(r.verdict == "heard" for r in seen)
        worst: Seen = "unknown"
        if seen:
            bad = any(r.verdict == "not_met" for r in seen)
            part = len(seen) < len(proof.rows) or good + heard < len(seen) or 0 < heard < len(seen)
            worst = "not_met" if bad else "near" if part else "heard" if heard else "met"
        measured = proof.measured or "not measured yet"
        if seen and not proof.measured:
            rest = len(proof.rows) - len(seen)
            measured = f"{good} of {len(seen)} {proof.unit}"
            measured += f", {rest} not looked at" if rest else ""
        found.append(
            Promise(
                what=proof.what,
                promised=proof.promised,
                measured=measured,
                verdict=worst,
                met=good,
                near=sum(r.verdict == "near" for r in seen),
                heard=heard,
                not_met=sum(r.verdict == "not_met" for r in seen),
                unknown=len(proof.rows) - len(seen),
            )
        )
    return found


def device_states(devices: Iterable[tuple[str, str]], rows: Iterable[CheckItem]) -> list[DeviceState]:
    """Return how each device stands by the worst of what was watched of it.

    Args:
        devices: id and storey of each.
    """
    of_device: dict[str, list[CheckItem]] = {}
    for row in rows:
        if row.kind == "device" and row.element is not None:
            of_device.setdefault(row.element, []).append(row)
    rank = {"not_met": 0, "near": 1, "unknown": 2, "heard": 3, "met": 4}
    found = []
    for device, floor in devices:
        mine = sorted(of_device.get(device, ()), key=lambda r: rank[r.verdict])
        worst = mine[0].verdict if mine else "unknown"
        says = "; ".join(r.reason for r in mine if r.verdict == worst) or "nothing was looked at"
        found.append(DeviceState(device=device, floor=floor, verdict=worst, says=says))
    return found
