"""A call carried along a path: who serves, each hand-over with its gap, where it is lost."""

from __future__ import annotations

import math
from collections.abc import Hashable, Sequence
from dataclasses import dataclass
from functools import cached_property
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from ..base.bands import BANDS, Band
from ..base.memo import IdentityMemo
from ..catalogue import AirModel, Rules
from ..context.on_air import apart_by, fast_transition_of, on_air_at
from ..design import Design, Device, Floor, Point, WirelessName
from ..walkways import WalkPoint
from .obstacles import losses_to_db
from .radio_environment import SILENT_DBM, RadioEnvironment
from .walk_values import Event, LevelTrace, Sample, Walk

Array = NDArray[np.float64]

STEP_S = 0.5
_FLIGHT_M = 0.5
_BELOW: Band = "2.4"  # that a client falls to where its own band does not reach
MOST_POINTS, MOST_SECONDS = 200, 1800.0
_SHOWN = 6  # access points that are drawn; those that are never near the loudest are not


_APART = {False: (), True: ("signal.gap_ms.other_name", "settings.names_by", "settings.bands_by")}
_FIGURES = ("walk_mps", "roam_below_dbm", "roam_better_db", "drop_dbm", "call_gap_ms")


def walk(air: RadioEnvironment, points: Sequence[WalkPoint], band: Band = "5") -> Walk:
    """Return what becomes of a call along a path.

    A client looks at what it hears: below ``roam_below_dbm`` it takes what is louder by
    ``roam_better_db``. The call is lost where the weaker direction is below ``drop_dbm``. Where
    its name is on 2.4 GHz too it falls there rather than lose the call, and is steered back once
    the band is above ``roam_below_dbm`` again. Where each access point or band has a name of its own
    it stays with the one it has until that is lost, and joins the next anew.

    References:
        IEEE 802.11, roaming is the client's own choice; 802.11r and 802.11k shorten the gap; dBm, s, ms.
    """
    rules = air.rules
    track = _Track.of(air, points, rules["signal.walk_mps"])
    name = _name_of(air.design, band)
    if name is not None:  # who does not have it on the air serves nobody on it
        air = air.without(frozenset(d for d, _ in air.radios if not on_air_at(name, d)))
    falls = name is not None and band != _BELOW and _BELOW in name.bands
    heard = _Heard.of(air, track, (band, _BELOW) if falls else (band,))
    devices, weaker = heard.devices, heard.weaker
    how = _how(air.design, rules, name)
    called = heard.called(*apart_by(rules, name)) if name is not None else heard.called(False, False)
    serving = _serving(rules, heard, called)
    events = _events(air, track, heard, serving, called, how)
    used = [f"signal.{f}" for f in _FIGURES]
    fallen_s = STEP_S * sum(k >= heard.preferred for k in serving)
    lost = [e for e in events if e.kind == "lost"]
    late = [e for e in events if e.kind == "hand_over" and e.bad]
    return Walk(
        seconds=round(float(track.t_s[-1]), 1) if len(track.t_s) else 0.0,
        metres=round(track.metres, 1),
        band=band,
        name=name.ssid if name is not None else "",
        samples=tuple(
            Sample(
                t_s=round(float(t), 2),
                floor=track.floors[k],
                at=track.spot(k),
                serving=devices[serving[k]].id if serving[k] >= 0 else None,
                band=heard.bands[serving[k]] if serving[k] >= 0 else band,
                dbm=round(float(weaker[serving[k], k]), 1) if serving[k] >= 0 else SILENT_DBM,
            )
            for k, t in enumerate(track.t_s)
        ),
        lines=tuple(
            LevelTrace(
                device=devices[k].id,
                band=heard.bands[k],
                name=heard.name(k),
                floor=devices[k].floor,
                dbm=tuple(round(float(v), 1) for v in weaker[k]),
            )
            for k in _shown(weaker[: heard.preferred], serving)
        ),
        events=tuple(events),
        verdict="breaks" if lost or late else "holds",
        text=_said(len([e for e in events if e.kind == "hand_over"]), lost, late, how, fallen_s),
        drop_dbm=rules["signal.drop_dbm"],
        used=rules.used(*used, f"signal.gap_ms.{how}", *_APART[len(set(called)) > 1]),
    )


@dataclass(frozen=True, eq=False)
class _Heard:
    """Radios along a track, those of the band that is preferred first: what a client hears of
    each, dBm, shape (radios, steps)."""

    devices: list[Device]
    bands: list[Band]
    preferred: int  # so many are on the band that is preferred
    down: Array
    weaker: Array

    @classmethod
    def of(cls, air: RadioEnvironment, track: _Track, bands: Sequence[Band]) -> _Heard:
        rows = [(device, band) for band in bands for device in air.access_points(band)]
        down = np.full((len(rows), len(track.t_s)), SILENT_DBM)
        weaker = down.copy()
        for k, (device, band) in enumerate(rows):
            loss = _losses(air, track, device)[BANDS.index(band)]
            down[k] = air.lossless_dbm(device, band, "downlink") - loss
            weaker[k] = air.lossless_dbm(device, band, "weaker") - loss
        preferred = sum(b == bands[0] for _, b in rows)
        return cls([d for d, _ in rows], [b for _, b in rows], preferred, down, weaker)

    def called(self, by_device: bool, by_band: bool) -> list[Hashable]:
        """Return by radio what its name is known by: alike where a client takes them for one."""
        rows = zip(self.devices, self.bands, strict=True)
        return [(d.id if by_device else "", band if by_band else "") for d, band in rows]

    def name(self, k: int) -> str:
        said = f" on {self.bands[k]} GHz" if k >= self.preferred else ""
        return f"{self.devices[k].name}{said}"


class _Track:
    """A path cut into steps of half a second."""

    def __init__(self, t_s: Array, x: Array, y: Array, z_m: Array, floors: list[str], metres: float) -> None:
        self.t_s, self.x, self.y, self.z_m = t_s, x, y, z_m
        self.floors, self.metres = floors, metres

    @cached_property
    def level(self) -> NDArray[np.bool_]:
        """Whether each step is on a storey, not between two."""
        still = np.diff(self.z_m, prepend=self.z_m[:1], append=self.z_m[-1:]) == 0
        return np.asarray(still[:-1] & still[1:])

    @cached_property
    def key(self) -> Hashable:
        """What tracks of one way have alike."""
        return self.x.tobytes(), self.y.tobytes(), self.z_m.tobytes()

    @classmethod
    def of(cls, air: RadioEnvironment, points: Sequence[WalkPoint], speed_mps: float) -> _Track:
        elevation, held = air.terrain.storeys.elevation_m, air.terrain.client_height_m
        corners = np.array([(*p.at, elevation[p.floor] + held) for p in points]).reshape(-1, 3)
        legs = np.linalg.norm(np.diff(corners, axis=0), axis=1)
        along = np.concatenate([[0.0], np.cumsum(legs)])
        metres = float(along[-1])
        t_s = np.arange(0.0, metres / speed_mps + STEP_S, STEP_S)
        at = np.minimum(t_s * speed_mps, metres)
        x, y, z = (np.interp(at, along, corners[:, k]) for k in range(3))
        # On the way up one is on the storey that one is nearer to.
        nearest = [int(np.abs(along - d).argmin()) for d in at]
        return cls(t_s, x, y, z, [points[k].floor for k in nearest], metres)

    def spot(self, k: int) -> Point:
        return round(float(self.x[k]), 2), round(float(self.y[k]), 2)


# While one access point is moved the others are heard on a way as they were.
_kept: IdentityMemo[Array] = IdentityMemo(500)


def _losses(air: RadioEnvironment, track: _Track, device: Device) -> Array:
    """Return the loss from an access point to each step of a track, by band, dB."""
    model = air.catalogue.radios_of(device)
    return _kept.get((air.terrain, device, model), track.key, lambda: _traced(air, track, device, model))


def _traced(air: RadioEnvironment, track: _Track, device: Device, model: AirModel) -> Array:
    loss = np.empty((len(BANDS), len(track.t_s)))
    # On a flight half a metre of height is near enough.
    heights = np.where(track.level, track.z_m, np.round(track.z_m / _FLIGHT_M) * _FLIGHT_M)
    under_m = {floor: air.terrain.storeys.ground_m(floor) for floor in set(track.floors)}
    ground = np.array([under_m[floor] for floor in track.floors])
    for z in np.unique(np.round(heights, 3)):
        here = np.flatnonzero(np.round(heights, 3) == z)
        x, y, ground_m = track.x[here], track.y[here], ground[here]
        loss[:, here] = losses_to_db(air.terrain, device, model, x, y, float(z), ground_m)
    return loss


def _serving(rules: Rules, heard: _Heard, called: Sequence[Hashable]) -> list[int]:
    """Return by step the radio that serves, -1 where a call is lost. A client changes by itself only to
    what is called alike."""
    down, weaker, preferred = heard.down, heard.weaker, heard.preferred
    below, better, drop = (rules[f"signal.{f}"] for f in ("roam_below_dbm", "roam_better_db", "drop_dbm"))
    groups = [g for g in (range(preferred), range(preferred, len(down))) if len(g)]

    def fitting(loudest: Sequence[int], k: int) -> int:
        """Return the loudest of the first band on which a call holds, -1 where it does on none."""
        return next((b for b in loudest if weaker[b, k] >= drop), -1)

    found: list[int] = []
    now = -1
    for k in range(down.shape[1]):
        loudest = [g[int(down[g.start : g.stop, k].argmax())] for g in groups]
        if now >= 0:
            best = next(b for b, g in zip(loudest, groups, strict=True) if now in g)
            back = loudest[0]
            if now >= preferred > 0 and down[back, k] >= below and called[back] == called[now]:
                now = back  # steered back
            elif down[now, k] < below and down[best, k] >= down[now, k] + better:
                now = best if called[best] == called[now] else now
        if now < 0 or weaker[now, k] < drop:
            now = fitting(loudest, k)
        found.append(now)
    return found


def _name_of(design: Design, band: Band) -> WirelessName | None:
    """Return the name that people call over: the first on the band, the main network's before."""
    names = [n for n in design.of(WirelessName).values() if band in n.bands]
    main = [n for n in names if design.get("network", n.network).purpose == "main"]  # type: ignore[union-attr]
    return next(iter(main or names), None)


def _how(design: Design, rules: Rules, name: WirelessName | None) -> str:
    """Return by what a client of a name changes access points, which its gap rests on."""
    if name is not None and fast_transition_of(design, rules, name):
        return "fast"
    return "person" if name is not None and name.security == "enterprise" else "shared_key"


def _events(
    air: RadioEnvironment,
    track: _Track,
    heard: _Heard,
    serving: list[int],
    called: Sequence[Hashable],
    how: str,
) -> list[Event]:
    devices, down, weaker, rules = heard.devices, heard.down, heard.weaker, air.rules
    bears, drop = rules["signal.call_gap_ms"], rules["signal.drop_dbm"]
    alike_ms, other_ms = (rules[f"signal.gap_ms.{h}"] for h in (how, "other_name"))
    found: list[Event] = []

    def event(
        kind: Literal["hand_over", "lost", "back", "clings"],
        k: int,
        until: int,
        frm: int,
        to: int,
        gap: float,
        bad: bool,
        text: str,
    ) -> None:
        found.append(
            Event(
                kind=kind,
                t_s=float(track.t_s[k]),
                until_s=float(track.t_s[until]),
                floor=track.floors[k],
                at=track.spot(k),
                device=devices[frm].id if frm >= 0 else None,
                to=devices[to].id if to >= 0 else None,
                gap_ms=gap,
                bad=bad,
                text=text,
            )
        )

    last = len(serving) - 1
    for k in range(1, len(serving)):
        was, now = serving[k - 1], serving[k]
        if was == now:
            continue
        if now < 0:
            end = next((n for n in range(k, last + 1) if serving[n] >= 0), last)
            level = float(weaker[:, k].max(initial=SILENT_DBM))
            text = f"the call is lost: nobody is louder than {level:.0f} dBm, {drop:g} are needed"
            event("lost", k, end, was, -1, 0.0, True, text)
        elif was < 0:
            event("back", k, k, -1, now, 0.0, False, f"{heard.name(now)} is heard again")
        else:
            gap_ms = alike_ms if called[was] == called[now] else other_ms
            bad = gap_ms > bears
            text = (
                f"{heard.name(was)} at {down[was, k]:.0f} dBm to {heard.name(now)} at "
                f"{down[now, k]:.0f}: a gap of {gap_ms:g} ms"
            )
            event("hand_over", k, k, was, now, gap_ms, bad, text)
    if serving and serving[0] < 0:
        end = next((n for n in range(len(serving)) if serving[n] >= 0), last)
        event("lost", 0, end, -1, -1, 0.0, True, "no call can begin here")
    for start, end, frm, to in _clings(air, track, heard, serving):
        text = (
            f"clings to {devices[frm].name} on another storey at {down[frm, start]:.0f} dBm, "
            f"though {devices[to].name} is there at {down[to, start]:.0f}"
        )
        event("clings", start, end, frm, to, 0.0, False, text)
    return sorted(found, key=lambda e: e.t_s)


_CLINGS_S = 3.0


def _clings(
    air: RadioEnvironment, track: _Track, heard: _Heard, serving: list[int]
) -> list[tuple[int, int, int, int]]:
    """Return the stretches on which a client stays with another storey's access point while one
    of its own is louder by what it would change for."""
    devices, better = heard.devices, air.rules["signal.roam_better_db"]
    down = heard.down[: heard.preferred]
    building = {f.id: f.building for f in air.design.of(Floor).values()}
    found: list[tuple[int, int, int, int]] = []
    start: tuple[int, int, int] | None = None
    for k in range(len(serving) + 1):
        row: tuple[int, int, int] | None = None
        if k < len(serving) and 0 <= serving[k] < heard.preferred:
            best, now = int(down[:, k].argmax()), serving[k]
            floor = track.floors[k]
            away = devices[now].floor != floor and building[devices[now].floor] == building[floor]
            if away and devices[best].floor == floor and down[best, k] >= down[now, k] + better:
                row = (k, now, best)
        if start is not None and (row is None or row[1] != start[1]):
            if (k - start[0]) * STEP_S >= _CLINGS_S:
                found.append((start[0], k - 1, start[1], start[2]))
            start = None
        if row is not None and start is None:
            start = row
    return found


def _shown(weaker: Array, serving: list[int]) -> list[int]:
    """Return who is drawn: all that serve, then the loudest at any step, as many as are read."""
    served = list(dict.fromkeys(k for k in serving if k >= 0))
    by_peak = sorted(range(len(weaker)), key=lambda k: -float(weaker[k].max(initial=SILENT_DBM)))
    return list(dict.fromkeys([*served, *by_peak]))[: max(_SHOWN, len(served))]


def _said(hand_overs: int, lost: list[Event], late: list[Event], how: str, fallen_s: float) -> str:
    words = {
        "fast": "with fast transition",
        "shared_key": "without fast transition",
        "person": "with a person's own password",
    }[how]
    many = f"{hand_overs} hand-over{'s' if hand_overs != 1 else ''} {words}"
    if lost:
        seconds = sum(e.until_s - e.t_s for e in lost)
        times = "once" if len(lost) == 1 else f"{len(lost)} times"
        return f"The call is lost {times}, for {math.ceil(seconds)} s in all; {many}."
    if late:
        return f"The call breaks off: {many}, {late[0].gap_ms:g} ms each."
    low = f", {math.ceil(fallen_s)} s of it on {_BELOW} GHz" if fallen_s else ""
    return f"The call holds: {many}{low}."
