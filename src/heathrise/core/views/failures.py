"""A failure drill: what falls when one access point, link, switch, injector or a rack's mains is gone."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from functools import cache
from typing import Literal

from pydantic import Field

from ..base.bands import BANDS
from ..base.frozen import Frozen
from ..base.progress import Progress, always
from ..context.plan import Plan
from ..design import Design, Device, EquipmentRoom, Injector, Switch, UsualRoute
from ..evaluation.evaluate import Evaluation, evaluate
from ..rack import PortUse
from ..settings import beacons_by_band
from ..signal import (
    STEP_S,
    VERDICT_RANK,
    RadioEnvironment,
    RoomVerdict,
    WalkPoint,
    busy_hour,
    channel_plans,
    channel_tasks,
    connected,
    environment_of,
    judge_rooms,
    walk,
    way_of,
)
from .failure_cures import cure_of, port_cure


class Fallen(Frozen):
    """A room that does worse while something is gone."""

    space: str
    name: str
    floor: str
    was: Literal["met", "near", "not_met"]
    now: Literal["met", "near", "not_met"]
    silent: bool = Field(description="whether nobody at all is heard there any more")


FailureKind = Literal["device", "port", "switch", "uplink", "injector", "mains"]


class Failure(Frozen):
    """One thing that fails, what goes with it, and the rooms that fall."""

    kind: FailureKind
    element: str
    name: str
    takes: tuple[str, ...] = Field(description="names of the access points that go with it")
    gone: tuple[str, ...] = Field(description="those access points, by their ids")
    others: int = Field(description="other devices that go with it")
    rooms: tuple[Fallen, ...]
    walk_lost_s: float = Field(
        0.0, description="seconds of the walks on which a call is lost that holds with all"
    )
    busiest: float = Field(
        0.0, description="share of its air of the radio that is fullest in the busiest hour then"
    )
    minutes: float = Field(0.0, description="minutes that a battery carries it first, once it is old")
    cure: str = Field("", description="what would shorten it or do without")
    cure_price: float | None = Field(None, description="what that is bought for, before margin and tax")
    port: str = Field("", description="the port that takes the same with it, where one does")
    port_cure: str = Field("", description="what would help where it is the port that failed")

    @property
    def weight(self) -> tuple[int, int, int, float]:
        """What failures are ordered by: rooms without anybody, rooms not met, rooms worse, and
        how long a walk's call is lost."""
        lost = [r for r in self.rooms if r.now == "not_met" and r.was != "not_met"]
        return sum(r.silent for r in self.rooms), len(lost), len(self.rooms), self.walk_lost_s


_LEAST_POINTS = 2  # of a path


def drill(plan: Plan, progress: Progress = always, path: Sequence[WalkPoint] = ()) -> list[Failure]:
    """Return what each single failure does, the worst first; one that is stopped gives those that
    were tried by then. Power stays as planned: nobody turns it up in the night.

    Args:
        path: a walk that is carried on a call through each failure, beside those of the brief.
    """
    design, ruled = plan.design, plan.catalogue
    air = environment_of(plan)
    before = {r.space: r for r in judge_rooms(air)}
    walks = [path, *(way.points for h in design.of(UsualRoute).values() if (way := way_of(design, h)))]
    whole_s = _lost_s(air, walks)
    heard = {device for device, _ in air.radios}
    plans = channel_plans(air, channel_tasks(air, begin=False), wait=False)
    beacons = beacons_by_band(design, ruled)
    devices = design.of(Device)
    evaluation = evaluate(plan)
    cases = list(_cases(plan, evaluation))
    switches = design.of(Switch)
    ports = {_of_port(use): use for use in evaluation.power.ports if use.link is not None}
    found: list[Failure] = []

    @cache
    def loses(points: frozenset[str]) -> tuple[tuple[Fallen, ...], float, float]:
        """Return rooms, seconds of walks and the fullest air without some access points: a rack's mains
        take what its only switch does, and are not judged again."""
        without = connected(air.without(points))
        lost_s = max(0.0, _lost_s(without, walks) - whole_s) if points else 0.0
        return tuple(_fallen(before, judge_rooms(without))), lost_s, busy_hour(without, plans, beacons).worst

    for number, (kind, element, name, gone) in enumerate(cases):
        if not progress(number, len(cases)):
            break
        points = [d for d in gone if d in heard]
        rack = evaluation.racks.of(element) if kind == "mains" else None
        use = ports.get(element) if kind in ("device", "port") else None
        at_port = port_cure(plan, evaluation, use) if use is not None else ("", None)
        cure, price = at_port if kind == "port" else cure_of(plan, evaluation, kind, element)
        rooms, lost_s, busiest = loses(frozenset(points))
        found.append(
            Failure(
                kind=kind,
                element=element,
                name=name,
                takes=tuple(devices[d].name for d in points),
                gone=tuple(points),
                others=len(gone) - len(points),
                rooms=rooms,
                walk_lost_s=lost_s,
                busiest=busiest,
                minutes=rack.battery.minutes_old if rack is not None and rack.battery is not None else 0.0,
                cure=cure,
                cure_price=price,
                port=f"{switches[use.switch].name} port {use.port}" if use is not None else "",
                port_cure=at_port[0],
            )
        )
    return sorted(found, key=lambda f: f.weight, reverse=True)


def _lost_s(air: RadioEnvironment, walks: Sequence[Sequence[WalkPoint]]) -> float:
    """Return for how many seconds of some walks nobody serves."""
    walked = (walk(air, path) for path in walks if len(path) >= _LEAST_POINTS)
    return STEP_S * sum(s.serving is None for w in walked for s in w.samples)


def _fallen(before: dict[str, RoomVerdict], after: list[RoomVerdict]) -> Iterator[Fallen]:
    for room in after:
        was, now = before[room.space].verdict, room.verdict
        if was == "not_needed" or now == "not_needed":
            continue
        silent = room.worst_first_dbm is None and before[room.space].worst_first_dbm is not None
        if VERDICT_RANK[now] < VERDICT_RANK[was] or silent:
            yield Fallen(space=room.space, name=room.name, floor=room.floor, was=was, now=now, silent=silent)


def _of_port(use: PortUse) -> str:
    """Return what a port serves: its device, else its link."""
    return use.device or use.link or ""


def _cases(plan: Plan, evaluation: Evaluation) -> Iterator[tuple[FailureKind, str, str, list[str]]]:
    """Yield what can fail: each access point or its port, the ports of what else has one link, each switch
    and injector, each way between racks, and the mains of each rack."""
    design, catalogue = plan.design, plan.catalogue
    guests: dict[str, list[str]] = {}
    air: set[str] = set()
    for plug in evaluation.power.plugged:
        if not plug.wrong:
            guests.setdefault(plug.host, []).append(plug.device)
    for device in design.of(Device).values():
        if device.model in catalogue.airs and any(
            band in catalogue.radios_of(device).radios for band in BANDS
        ):
            air.add(device.id)
            yield "device", device.id, device.name, [device.id, *guests.get(device.id, ())]
    power = evaluation.power
    on: dict[str, list[str]] = {s: [] for s in design.of(Switch)}
    for port in power.ports:
        if port.device is not None and port.device not in on[port.switch]:
            on[port.switch] += [port.device, *guests.get(port.device, ())]
    above = {w.switch: w.to for w in power.ways_up}

    def behind(switch: str) -> list[str]:
        rows = list(on.get(switch, ()))
        for below in (s for s, to in above.items() if to == switch):
            rows += behind(below)
        return list(dict.fromkeys(rows))

    for port in power.ports:
        role = catalogue.roles.get(port.role)
        if port.link is None or role is None or role.links != "one" or port.device in air:
            continue
        gone = [port.device, *guests.get(port.device, ())] if port.device is not None else []
        yield "port", _of_port(port), port.name or "", gone
    for switch in design.of(Switch).values():
        yield "switch", switch.id, switch.name, behind(switch.id)
    for injector in design.of(Injector).values():
        fed = injector.device
        name = f"Injector of {design.of(Device)[fed].name}"
        yield "injector", injector.id, name, [fed, *guests.get(fed, ())]
    rooms = design.of(EquipmentRoom)
    for room in rooms.values():
        here = [s.id for s in design.of(Switch).values() if s.equipment_room == room.id]
        if here:
            dark = dict.fromkeys(d for s in here for d in behind(s))
            yield "mains", room.id, f"Mains of {room.name}", list(dark)
    for up in evaluation.uplinks:
        at = rooms.get(up.room or "")
        first = next(
            (
                s.id
                for s in design.of(Switch).values()
                if at is not None and s.equipment_room == at.id and _room_of(design, above.get(s.id)) != at.id
            ),
            None,
        )
        if at is not None and first is not None:
            yield "uplink", at.id, up.name, behind(first)


def _room_of(design: Design, switch: str | None) -> str | None:
    row = design.of(Switch).get(switch or "")
    return row.equipment_room if row is not None else None
