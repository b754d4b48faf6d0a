"""Complaints: what is computed where the client has them, today and as planned."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import ClassVar, Literal

from pydantic import BaseModel, ConfigDict, Field

from ..bands import Band
from ..catalogue import Rules, Used
from ..design import ClientGroup, Complaint, Pain, Switch, WirelessName
from .stand import Level, Spot, Stand

Outcome = Literal["mended", "better", "not_addressed"]
NAMES: dict[Complaint, str] = {
    "dead": "nothing there",
    "slow": "slow",
    "drops": "drops while walking",
    "lags": "lags",
    "full_bars": "full bars, nothing loads",
    "clings": "clings to a far access point",
    "one_device": "one device fails",
    "heap": "heap of wires",
}


class PainVerdict(BaseModel):
    """A complaint and what becomes of it; ``today`` and ``planned`` say it in words."""

    model_config = ConfigDict(frozen=True)
    KEY: ClassVar = ("pain",)

    pain: str
    name: str
    kind: Complaint
    floor: str
    where: str = Field(description="room that the mark lies in")
    words: str
    today: str
    planned: str
    today_dbm: float | None = Field(None, description="level that is looked at, today, dBm")
    planned_dbm: float | None = Field(None, description="the same as planned, dBm")
    outcome: Outcome
    used: tuple[Used, ...] = ()


@dataclass(frozen=True)
class _Seen:
    """How a complaint stands: 2 settled, 1 half, 0 not; in words; the level that was looked at."""

    rank: int
    text: str
    dbm: float | None = None
    used: tuple[str, ...] = ()


def judge_pains(planned: Stand, today: Stand | None) -> list[PainVerdict]:
    """Return what becomes of every complaint; ``today`` is None where no gear was found.

    Mended is what meets its figure as planned; better what was worse by a step or by 3 dB.
    """
    return [_judge(pain, planned, today) for pain in planned.design.of(Pain).values()]


def _judge(pain: Pain, planned: Stand, today: Stand | None) -> PainVerdict:
    look = _LOOKS[pain.kind]
    then = look(pain, planned)
    before = look(pain, today) if today is not None else None
    rules = planned.catalogue.rules
    room = planned.room_at(pain.floor, pain.at)
    gap = "brief.better_db"
    used = (*then.used, gap) if before is not None else then.used
    return PainVerdict(
        pain=pain.id,
        name=f"{NAMES[pain.kind]}{f', {room.name}' if room else ''}",
        kind=pain.kind,
        floor=pain.floor,
        where=room.name if room else "",
        words=pain.words,
        today=before.text if before is not None else "no gear of today is drawn",
        planned=then.text,
        today_dbm=_shown(before.dbm if before else None),
        planned_dbm=_shown(then.dbm),
        outcome=_outcome(then, before, rules[gap]),
        used=rules.used(*used),
    )


def _outcome(then: _Seen, before: _Seen | None, gap_db: float) -> Outcome:
    if then.rank == 2:
        return "mended"
    if before is None:
        return "better" if then.rank == 1 else "not_addressed"
    louder = then.dbm is not None and (before.dbm is None or then.dbm >= before.dbm + gap_db)
    return "better" if then.rank > before.rank or louder else "not_addressed"


def _shown(dbm: float | None) -> float | None:
    return None if dbm is None else round(dbm, 1)


@dataclass(frozen=True)
class _Want:
    """What the use of a spot's room asks for, in dBm, and the figures that say so."""

    band: Band
    first_dbm: float
    second_dbm: float
    margin_db: float
    path: str


def _want(rules: Rules, stand: Stand, spot: Spot, use: str | None = None) -> _Want:
    room = stand.room_at(*spot)
    use = use or (room.use if room is not None and room.use != "none" else "everyday")
    path = f"signal.targets.{use}"
    calls = "signal.targets.calls.second_dbm"
    second = f"{path}.second_dbm"
    numbers = rules.table(path)
    return _Want(
        "2.4" if rules.text(f"{path}.band") == "2.4" else "5",
        numbers["first_dbm"],
        rules[second] if second in rules.figures else rules[calls],
        stand.design.site.margin_db,
        path,
    )


def _first(stand: Stand, spot: Spot, want: _Want) -> tuple[int, Level | None, str]:
    """Return how the strongest at a spot does: rank, who, in words."""
    heard = stand.strongest(spot, want.band)
    if not heard:
        return 0, None, "nobody is heard"
    best = heard[0]
    over = best.dbm - want.first_dbm
    rank = 2 if over >= want.margin_db else 1 if over >= 0 else 0
    name = stand.design.get("device", best.device)
    text = (
        f"{getattr(name, 'name', best.device)} at {best.dbm:.0f} dBm on {want.band} GHz, "
        f"wants {want.first_dbm:g}"
    )
    return rank, best, text + (f" with {want.margin_db:g} dB in hand" if rank < 2 else "")


def _dead(pain: Pain, stand: Stand) -> _Seen:
    spot = (pain.floor, pain.at)
    want = _want(stand.catalogue.rules, stand, spot)
    rank, best, text = _first(stand, spot, want)
    return _Seen(rank, text, best.dbm if best else None, (f"{want.path}.first_dbm",))


def _slow(pain: Pain, stand: Stand) -> _Seen:
    """The narrowest link up to the line, against what the room needs in its busy hour."""
    spot = (pain.floor, pain.at)
    want = _want(stand.catalogue.rules, stand, spot)
    rank, best, text = _first(stand, spot, want)
    figures = (f"{want.path}.first_dbm",)
    need, more = _need_mbps(stand, spot)
    if best is None:
        return _Seen(0, text, None, figures + more)
    device = stand.design.get("device", best.device)
    model = stand.catalogue.model_of(device)  # type: ignore[arg-type]
    links = {f"the line, {stand.design.site.line_mbps:g} Mb/s": stand.design.site.line_mbps}
    own = model.speed_mbps / 2 if model.over_air else model.speed_mbps
    said = "repeats over the air" if model.over_air else f"{model.speed_mbps:g} Mb/s"
    links[f"{getattr(device, 'name', '')}, {said}"] = own
    for switch in stand.design.of(Switch).values():
        speed = max(g.speed_mbps for g in stand.catalogue.switches[switch.model].groups)
        links[f"{switch.name}, {speed:g} Mb/s"] = float(speed)
    narrowest = min(links, key=lambda k: links[k])
    enough = links[narrowest] >= need
    score = 2 if rank == 2 and enough and not model.over_air else 1 if rank and enough else 0
    words = f"narrowest link: {narrowest}; {need:g} Mb/s needed; {text}"
    return _Seen(score, words, best.dbm, figures + more)


def _need_mbps(stand: Stand, spot: Spot) -> tuple[float, tuple[str, ...]]:
    room = stand.room_at(*spot)
    groups = [
        g for g in stand.design.of(ClientGroup).values() if room is not None and g.space == room.id
    ]
    need = sum(stand.catalogue.clients[g.kind].down_mbps * g.count for g in groups)
    if need:
        return round(need, 1), ()
    return stand.catalogue.rules["brief.slow_need_mbps"], ("brief.slow_need_mbps",)


def _drops(pain: Pain, stand: Stand) -> _Seen:
    """A walk holds where a second access point is there before the first is lost."""
    spot = (pain.floor, pain.at)
    rules = stand.catalogue.rules
    want = _want(rules, stand, spot, "calls")
    heard = stand.strongest(spot, want.band)
    used = (f"{want.path}.second_dbm", "brief.near_db")
    if len(heard) < 2:
        return _Seen(0, "no second access point is heard", None, used)
    second = heard[1]
    over = second.dbm - want.second_dbm
    rank = 2 if over >= 0 else 1 if over >= -rules["brief.near_db"] else 0
    name = getattr(stand.design.get("device", second.device), "name", second.device)
    return _Seen(
        rank, f"second is {name} at {second.dbm:.0f} dBm, wants {want.second_dbm:g}",
        second.dbm, used,
    )  # fmt: skip


def _lags(pain: Pain, stand: Stand) -> _Seen:
    """A wire ends it; without one, a good level from what is not repeated over the air."""
    spot = (pain.floor, pain.at)
    room = stand.room_at(*spot)
    if room is not None:
        for device in stand.wired_in(room):
            role = stand.catalogue.role_of(device)
            if role.links == "every_cable" or stand.catalogue.model_of(device).ports:
                return _Seen(2, f"a wire is there: {device.name}")
    want = _want(stand.catalogue.rules, stand, spot)
    rank, best, text = _first(stand, spot, want)
    used = (f"{want.path}.first_dbm",)
    if best is None:
        return _Seen(0, f"no wire; {text}", None, used)
    device = stand.design.get("device", best.device)  # type: ignore[assignment]
    if stand.catalogue.model_of(device).over_air:
        return _Seen(0, f"no wire; {device.name} repeats over the air", best.dbm, used)
    return _Seen(1 if rank == 2 else 0, f"no wire; {text}", best.dbm, used)


def _one_device(pain: Pain, stand: Stand) -> _Seen:
    """An older device joins a name on 2.4 GHz with WPA2 and without fast transition."""
    spot = (pain.floor, pain.at)
    want = _want(stand.catalogue.rules, stand, spot, "sensors")
    rank, best, text = _first(stand, spot, want)
    used = (f"{want.path}.first_dbm",)
    joins = [
        n.ssid
        for n in stand.design.of(WirelessName).values()
        if "2.4" in n.bands and n.security in ("wpa2", "wpa3_wpa2") and not n.fast_transition
    ]
    dbm = best.dbm if best else None
    if not joins:
        why = "no name that an older device can join (2.4 GHz, WPA2, no fast transition)"
        return _Seen(min(rank, 1) if best else 0, f"{why}; {text}", dbm, used)
    return _Seen(rank, f"can join {joins[0]}; {text}", dbm, used)


def _heap(pain: Pain, stand: Stand) -> _Seen:
    far = stand.rack_near(pain.floor, pain.at)
    racks = {
        s.equipment_room for s in stand.design.of(Switch).values() if s.state in ("new", "keep")
    }
    planned = any(s.state == "new" for s in stand.design.of(Switch).values())
    if far is not None and far <= _SAME_CORNER_M and racks and planned:
        return _Seen(2, "a rack is planned here, every run labelled at both ends")
    if racks and planned:
        return _Seen(1, "a rack is planned elsewhere, every run labelled")
    return _Seen(0, "no rack is planned" if not racks else "as it was")


_SAME_CORNER_M = 4.0
_LOOKS: dict[Complaint, Callable[[Pain, Stand], _Seen]] = {
    "dead": _dead,
    "slow": _slow,
    "drops": _drops,
    "lags": _lags,
    "full_bars": _slow,
    "clings": _drops,
    "one_device": _one_device,
    "heap": _heap,
}
