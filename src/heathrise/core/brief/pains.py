"""Complaints: what is computed where the client has them, today and as planned."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterable
from dataclasses import dataclass, replace
from typing import ClassVar, Literal

from pydantic import Field

from ..base.bands import Band
from ..base.frozen import Frozen
from ..catalogue import Rules, Used
from ..context.on_air import fast_transition_of
from ..design import ClientGroup, Complaint, ComplaintKind, Device, Switch, WirelessName
from .stand import Level, SiteStatus, StoreySpot

Outcome = Literal["mended", "better", "not_addressed"]
NAMES: dict[ComplaintKind, str] = {
    "dead": "nothing there",
    "slow": "slow",
    "drops": "drops while walking",
    "lags": "lags",
    "full_bars": "full bars, nothing loads",
    "clings": "clings to a far access point",
    "one_device": "one device fails",
    "heap": "heap of wires",
}


class PainVerdict(Frozen):
    """A complaint and what becomes of it; ``today`` and ``planned`` say it in words."""

    KEY: ClassVar = ("pain",)

    pain: str
    name: str
    kind: ComplaintKind
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
    """How a complaint stands: 2 settled, 1 half, 0 not; in words; the level that was looked at, and
    the access point that it hangs on."""

    rank: int
    text: str
    dbm: float | None = None
    used: tuple[str, ...] = ()
    device: str | None = None


def judge_pains(planned: SiteStatus, today: SiteStatus | None) -> list[PainVerdict]:
    """Return what becomes of every complaint; ``today`` is None where no gear was found.

    Mended is what meets its figure as planned; better what was worse by a step or by 3 dB.
    """
    return [_judge(pain, planned, today) for pain in planned.design.of(Complaint).values()]


def _judge(pain: Complaint, planned: SiteStatus, today: SiteStatus | None) -> PainVerdict:
    look = _LOOKS[pain.kind]
    then = _over_its_run(look(pain, planned), planned)
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


def _over_its_run(seen: _Seen, stand: SiteStatus) -> _Seen:
    """Nothing is mended over a run that does not carry what it should."""
    why = stand.failing.get(seen.device or "")
    if why is None:
        return seen
    return replace(seen, rank=min(seen.rank, 1), text=f"{seen.text}; its cable: {why}")


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


def _want(rules: Rules, stand: SiteStatus, spot: StoreySpot, use: str | None = None) -> _Want:
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


def _first(stand: SiteStatus, spot: StoreySpot, want: _Want) -> tuple[int, Level | None, str]:
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


def _dead(pain: Complaint, stand: SiteStatus) -> _Seen:
    spot = (pain.floor, pain.at)
    want = _want(stand.catalogue.rules, stand, spot)
    rank, best, text = _first(stand, spot, want)
    used = (f"{want.path}.first_dbm",)
    return _Seen(rank, text, best.dbm if best else None, used, best.device if best else None)


def _slow(pain: Complaint, stand: SiteStatus) -> _Seen:
    """The narrowest link on the way to the line, what is got over the air there and how full it
    is in the busiest hour, against what the room needs."""
    spot = (pain.floor, pain.at)
    want = _want(stand.catalogue.rules, stand, spot)
    rank, best, text = _first(stand, spot, want)
    figures = (f"{want.path}.first_dbm",)
    need, more = _need_mbps(stand, spot)
    if best is None:
        return _Seen(0, text, None, figures + more)
    name, mbps = _narrowest(stand, best)
    enough = mbps >= need
    full, said, used = _air(stand, best)
    words = f"narrowest: {name}, {mbps:g} Mb/s; {need:g} Mb/s needed{said}; {text}"
    halved = any(h.name.startswith("the air to ") for h in stand.chains.get(best.device, ()))
    score = 2 if rank == 2 and enough and full == 0 and not halved else 1
    if not rank or not enough or full == 2:
        score = 0
    return _Seen(score, words, best.dbm, figures + more + used, best.device)


def _narrowest(stand: SiteStatus, best: Level) -> tuple[str, float]:
    """Return the narrowest link between a spot and the line, the air at the spot among them."""
    links = [(hop.name, hop.mbps) for hop in stand.chains.get(best.device, ())]
    if best.mbps:
        links.append((f"the air on {best.band} GHz", round(best.mbps, 1)))
    if not links:
        links = [("the line", float(stand.design.site.line_mbps))]
    return min(links, key=lambda link: link[1])


def _air(stand: SiteStatus, best: Level) -> tuple[int, str, tuple[str, ...]]:
    """Return how full the air of a radio is in the busiest hour: 0 there is room, 1 it is told, 2
    it does not hold; in words, and the figures."""
    share = stand.air.get((best.device, best.band))
    if share is None:
        return 0, "", ()
    rules = stand.catalogue.rules
    paths = ("signal.busy_share", "signal.busy_near_share")
    full = 2 if share > rules[paths[0]] else 1 if share > rules[paths[1]] else 0
    words = f"; its air is {share:.0%} full in the busiest hour" if full else ""
    return full, words, paths if full else ()


def _need_mbps(stand: SiteStatus, spot: StoreySpot) -> tuple[float, tuple[str, ...]]:
    room = stand.room_at(*spot)
    groups = [g for g in stand.design.of(ClientGroup).values() if room is not None and g.space == room.id]
    need = sum(stand.catalogue.clients[g.kind].down_mbps * g.count for g in groups)
    if need:
        return round(need, 1), ()
    return stand.catalogue.rules["brief.slow_need_mbps"], ("brief.slow_need_mbps",)


def _near(pain: Complaint, spots: Iterable[StoreySpot]) -> bool:
    """Whether any of some spots lies near a complaint, on its storey."""
    return any(f == pain.floor and math.dist(at, pain.at) <= _PASSES_M for f, at in spots)


def _drops(pain: Complaint, stand: SiteStatus) -> _Seen:
    """A walk holds where a second access point is there before the first is lost; the walks that
    are noted and pass here are asked as well."""
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
    text = f"second is {name} at {second.dbm:.0f} dBm, wants {want.second_dbm:g}"
    passing = [w for w in stand.walks if _near(pain, w.points)]
    broken = next((w for w in passing if not w.holds), None)
    if broken is not None:
        said = f"{broken.text[0].lower()}{broken.text[1:]}"
        return _Seen(min(rank, 1), f"on the way {broken.name} {said}; {text}", second.dbm, used)
    if passing:
        text += f"; the call holds on the way {passing[0].name}"
    return _Seen(rank, text, second.dbm, used, second.device)


def _clings(pain: Complaint, stand: SiteStatus) -> _Seen:
    """A client lets go of another storey's access point where one of its own is louder by what it
    changes for, and the walks that pass here show no clinging."""
    spot = (pain.floor, pain.at)
    rules = stand.catalogue.rules
    want = _want(rules, stand, spot, "calls")
    path = "signal.roam_better_db"
    floors = {d.id: d.floor for d in stand.design.of(Device).values()}
    heard = stand.strongest(spot, want.band)
    own = next((k for k in heard if floors[k.device] == pain.floor), None)
    away = next((k for k in heard if floors[k.device] != pain.floor), None)
    if own is None:
        return _Seen(0, "no access point of this storey is heard", None, (path,))
    name = getattr(stand.design.get("device", own.device), "name", own.device)
    clinging = [w for w in stand.walks if _near(pain, w.clings)]
    if clinging:
        return _Seen(0, f"on the way {clinging[0].name} a client still clings", own.dbm, (path,))
    if away is None:
        return _Seen(2, f"{name} is heard alone", own.dbm, (path,))
    over = own.dbm - away.dbm
    rank = 2 if over >= rules[path] else 1 if over > 0 else 0
    words = f"{name} is {over:.0f} dB over the loudest of another storey, wants {rules[path]:g}"
    return _Seen(rank, words, own.dbm, (path,))


def _full_bars(pain: Complaint, stand: SiteStatus) -> _Seen:
    """Full bars say nothing of what lies behind them: the chain to the line, and the air."""
    seen = _slow(pain, stand)
    return seen if seen.rank else replace(seen, text=f"the signal is not what lacks; {seen.text}")


def _lags(pain: Complaint, stand: SiteStatus) -> _Seen:
    """A wire ends it; without one, a good level from what is not repeated over the air and has
    room in its air."""
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
    over_air = any(h.name.startswith("the air to ") for h in stand.chains.get(best.device, ()))
    if stand.catalogue.model_of(device).over_air or over_air:
        return _Seen(0, f"no wire; {device.name} hangs on the air itself", best.dbm, used)
    full, said, more = _air(stand, best)
    score = 1 if rank == 2 and full < 2 else 0
    return _Seen(score, f"no wire{said}; {text}", best.dbm, used + more, best.device)


def _one_device(pain: Complaint, stand: SiteStatus) -> _Seen:
    """An older device joins a name on 2.4 GHz with WPA2 and without fast transition."""
    spot = (pain.floor, pain.at)
    want = _want(stand.catalogue.rules, stand, spot, "sensors")
    rank, best, text = _first(stand, spot, want)
    used = (f"{want.path}.first_dbm",)
    joins = [
        n.ssid
        for n in stand.design.of(WirelessName).values()
        if "2.4" in n.bands
        and n.security in ("wpa2", "wpa3_wpa2")
        and not fast_transition_of(stand.design, stand.catalogue.rules, n)
    ]
    dbm = best.dbm if best else None
    if not joins:
        why = "no name that an older device can join (2.4 GHz, WPA2, no fast transition)"
        return _Seen(min(rank, 1) if best else 0, f"{why}; {text}", dbm, used)
    return _Seen(rank, f"can join {joins[0]}; {text}", dbm, used, best.device if best else None)


def _heap(pain: Complaint, stand: SiteStatus) -> _Seen:
    far = stand.rack_near(pain.floor, pain.at)
    racks = {s.equipment_room for s in stand.design.of(Switch).values() if s.state in ("new", "keep")}
    planned = any(s.state == "new" for s in stand.design.of(Switch).values())
    if far is not None and far <= _SAME_CORNER_M and racks and planned:
        return _Seen(2, "a rack is planned here, every run labelled at both ends")
    if racks and planned:
        return _Seen(1, "a rack is planned elsewhere, every run labelled")
    return _Seen(0, "no rack is planned" if not racks else "as it was")


_SAME_CORNER_M = 4.0
_PASSES_M = 4.0  # a walk that comes so near to a complaint passes it
_LOOKS: dict[ComplaintKind, Callable[[Complaint, SiteStatus], _Seen]] = {
    "dead": _dead,
    "slow": _slow,
    "drops": _drops,
    "lags": _lags,
    "full_bars": _full_bars,
    "clings": _clings,
    "one_device": _one_device,
    "heap": _heap,
}
