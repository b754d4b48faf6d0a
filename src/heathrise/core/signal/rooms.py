"""Whether each room meets the use it is put to."""

from __future__ import annotations

from dataclasses import dataclass
from typing import ClassVar, Literal

import numba
import numpy as np
from numpy.typing import NDArray
from pydantic import Field
from shapely.geometry import Polygon

from ..base.bands import Band
from ..base.frozen import Frozen
from ..base.memo import IdentityMemo
from ..catalogue import ClientModel, Rules
from ..design import Space, Spot
from .propagation import chance_of
from .radio_environment import SILENT_DBM, Direction, RadioEnvironment, band_losses
from .survey import Survey

Array = NDArray[np.floating]
Verdict = Literal["met", "near", "not_met", "not_needed"]
# The better the greater.
VERDICT_RANK: dict[Verdict, int] = {"not_met": 0, "near": 1, "met": 2, "not_needed": 3}
# What keeps a room from its verdict: one access point or the other, one direction, the noise of
# the width, or two targets that are each met but not in the same places.
Binds = Literal["first", "second", "both", "uplink", "downlink", "width"]


class Target(Frozen):
    """What a use asks for: levels in dBm of the weaker direction, SNR in dB."""

    band: Band
    first_dbm: float
    second_dbm: float | None = None
    snr_db: float = 0.0


def target_of(rules: Rules, use: str) -> Target | None:
    """Return what a use asks for, or None for one that is not judged."""
    path = f"signal.targets.{use}"
    if f"{path}.first_dbm" not in rules.figures:
        return None
    numbers = rules.table(path)
    return Target.model_validate({"band": rules.text(f"{path}.band"), **numbers})


def target_in(air: RadioEnvironment, use: str) -> Target | None:
    """Return what a use asks for on a site: without a second where its school asks for none."""
    target = target_of(air.rules, use)
    if target is None or air.design.site.asks_second:
        return target
    return target.model_copy(update={"second_dbm": None})


def target_figures(rules: Rules, use: str) -> tuple[str, ...]:
    """Return the paths of the figures that a use is judged by."""
    fields = ("first_dbm", "second_dbm", "snr_db")
    paths = (f"signal.targets.{use}.{field}" for field in fields)
    return tuple(p for p in paths if p in rules.figures)


class RoomVerdict(Frozen):
    """One room: shares of its area from 0 to 1, levels in dBm at its worst points.

    ``share`` meets every target, ``share_margin`` meets them with ``margin_db`` in hand.
    ``binds`` says what keeps it from being met, ``worst_at`` where its figure is worst and
    ``chance`` how likely the target is met there.
    """

    KEY: ClassVar = ("space",)

    space: str
    name: str
    floor: str
    use: str
    area_m2: float = Field(description="floor area, m²")
    verdict: Verdict
    band: Band | None = None
    client: str | None = Field(None, description="the weakest client that it is judged by")
    client_dbm: float | None = Field(None, description="conducted power of that client, dBm")
    target_first_dbm: float | None = Field(None, description="wanted of the strongest access point, dBm")
    target_second_dbm: float | None = Field(None, description="wanted of the second strongest, dBm")
    target_snr_db: float | None = Field(None, description="wanted over the noise, dB")
    margin_db: float | None = Field(None, description="signal kept in hand by the site, dB")
    binds: Binds | None = None
    chance: float | None = Field(None, description="chance that the target is met at the worst spot, 0 to 1")
    share: float | None = Field(None, description="share of the floor that meets every target, 0 to 1")
    share_margin: float | None = Field(None, description="share that meets them with the margin in hand")
    share_first: float | None = Field(
        None, description="share where the first access point suffices in the weaker direction"
    )
    share_second: float | None = Field(None, description="share where the second suffices")
    share_downlink: float | None = Field(
        None, description="share where the first suffices in the downlink alone"
    )
    worst_first_dbm: float | None = Field(None, description="first access point at the worst spot, dBm")
    worst_second_dbm: float | None = Field(None, description="second access point at the worst spot, dBm")
    worst_snr_db: float | None = Field(None, description="signal over noise at the worst spot, dB")
    worst_at: Spot | None = None


def judge_rooms(air: RadioEnvironment) -> list[RoomVerdict]:
    """Return a verdict for every space of the design, in order of placing."""
    verdicts: list[RoomVerdict] = []
    by_floor: dict[tuple[str, Band, str], _Heard] = {}
    for space in air.design.of(Space).values():
        target = target_in(air, space.use)
        if target is None:
            verdicts.append(_verdicts.get((space,), None, lambda s=space: _not_needed(s)))  # type: ignore[misc]
            continue
        survey = air.terrain.surveys[space.floor]
        client = air.client_in(space.id, target.band)
        key = (space.floor, target.band, client.id)
        if key not in by_floor:
            by_floor[key] = _hear(air, space.floor, survey, target.band, client)
        heard = by_floor[key].at(survey.rooms[space.id])
        verdicts.append(
            _verdicts.get(
                (space, air.catalogue, survey),
                (
                    target,
                    air.design.site.margin_db,
                    air.design.site.width_5ghz_mhz,
                    air.design.site.asks_second,
                    client.id,
                    heard.key,
                ),
                lambda s=space, t=target, v=survey, h=heard, c=client: _judge(air, s, t, v, h, c),  # type: ignore[misc]
            )
        )
    return verdicts


# Moving one access point changes what few rooms hear.
_verdicts: IdentityMemo[RoomVerdict] = IdentityMemo(4096, weigh=lambda _: 8_000)


def _not_needed(space: Space) -> RoomVerdict:
    return RoomVerdict(
        space=space.id,
        name=space.name,
        floor=space.floor,
        use=space.use,
        area_m2=_area_m2(space),
        verdict="not_needed",
    )


def _area_m2(space: Space) -> float:
    return round(float(Polygon(space.outline).area), 1)


@dataclass(frozen=True)
class _Heard:
    """Levels in dBm at every point of a floor, or of one room."""

    first: Array
    second: Array
    downlink: Array
    uplink: Array

    def at(self, points: NDArray[np.intp]) -> _Heard:
        return _Heard(self.first[points], self.second[points], self.downlink[points], self.uplink[points])

    @property
    def key(self) -> bytes:
        return b"".join(row.tobytes() for row in (self.first, self.second, self.downlink, self.uplink))


def _hear(air: RadioEnvironment, floor: str, survey: Survey, band: Band, client: ClientModel) -> _Heard:
    heard = _Heard(*(np.full(survey.size, SILENT_DBM, dtype=np.float32) for _ in range(4)))
    devices = air.access_points(band)
    for device, loss in zip(devices, band_losses(air, floor, survey, band), strict=True):
        down, up = (air.lossless_dbm(device, band, way, client) for way in _WAYS)
        _take_in(loss, down, up, heard.first, heard.second, heard.downlink, heard.uplink)
    return heard


_WAYS: tuple[Direction, Direction] = ("downlink", "uplink")


@numba.njit(cache=True, nogil=True)
def _take_in(loss, down, up, first, second, downlink, uplink):  # type: ignore[no-untyped-def] # pragma: no cover
    """Let one access point be heard beside those taken in before, at every point."""
    weaker = min(down, up)
    for i in range(loss.shape[0]):
        level = np.float32(weaker - loss[i])
        if level > first[i]:
            second[i] = first[i]
            first[i] = level
        elif level > second[i]:
            second[i] = level
        downlink[i] = max(downlink[i], np.float32(down - loss[i]))
        uplink[i] = max(uplink[i], np.float32(up - loss[i]))


@dataclass(frozen=True)
class _Shares:
    """The share of a room that meets each target, and all of them, at some margin.

    ``enough`` is the share from which a target is met.
    """

    every: float
    first: float
    second: float
    width: float
    downlink: float
    uplink: float
    enough: float

    @classmethod
    def of(cls, heard: _Heard, target: Target, noise_dbm: float, margin_db: float, enough: float) -> _Shares:
        wanted = target.first_dbm + margin_db
        first = heard.first >= wanted
        second = np.ones_like(first)
        if target.second_dbm is not None:
            second = heard.second >= target.second_dbm + margin_db
        width = heard.first - noise_dbm >= target.snr_db + margin_db
        if not target.snr_db:
            width = np.ones_like(first)
        return cls(
            every=_share(first & second & width),
            first=_share(first),
            second=_share(second),
            width=_share(width),
            downlink=_share(heard.downlink >= wanted),
            uplink=_share(heard.uplink >= wanted),
            enough=enough,
        )

    @property
    def binds(self) -> Binds | None:
        """What keeps the room from meeting its targets over enough of its area."""
        if self.every >= self.enough:
            return None
        if self.second < self.enough and self.second < min(self.first, self.width):
            return "second"
        if self.first < self.enough:
            if self.downlink >= self.enough:
                return "uplink"
            return "downlink" if self.uplink >= self.enough else "first"
        if self.width < self.enough:
            return "width"
        return "second" if self.second < self.enough else "both"


def _share(met: NDArray[np.bool_]) -> float:
    return int(np.count_nonzero(met)) / met.size


def _judge(
    air: RadioEnvironment, space: Space, target: Target, survey: Survey, heard: _Heard, client: ClientModel
) -> RoomVerdict:
    points = survey.rooms[space.id]
    rules = air.rules
    noise = air.noise_dbm(target.band)
    margin = air.design.site.margin_db
    enough = rules["signal.met_share"]
    plain = _Shares.of(heard, target, noise, 0.0, enough)
    kept = _Shares.of(heard, target, noise, margin, enough)
    verdict: Verdict = "not_met" if plain.every < rules["signal.near_share"] else "near"
    if kept.every >= enough:
        verdict = "met"
    binds = plain.binds or kept.binds
    worst, lacking_db = _worst(heard, target, noise, binds)
    spot = points[worst]
    return RoomVerdict(
        space=space.id,
        name=space.name,
        floor=space.floor,
        use=space.use,
        area_m2=_area_m2(space),
        verdict=verdict,
        band=target.band,
        client=client.label,
        client_dbm=client.power_dbm[target.band],
        target_first_dbm=target.first_dbm,
        target_second_dbm=target.second_dbm,
        target_snr_db=target.snr_db or None,
        margin_db=margin,
        binds=binds,
        chance=round(chance_of(lacking_db, rules["signal.deviation_db"]), 3),
        share=plain.every,
        share_margin=kept.every,
        share_first=plain.first,
        share_second=plain.second if target.second_dbm is not None else None,
        share_downlink=plain.downlink,
        worst_first_dbm=_shown(heard.first.min()),
        worst_second_dbm=_shown(heard.second.min()),
        worst_snr_db=round(float(heard.first.min() - noise), 1),
        worst_at=(round(float(survey.x[spot]), 2), round(float(survey.y[spot]), 2)),
    )


def _worst(heard: _Heard, target: Target, noise_dbm: float, binds: Binds | None) -> tuple[int, float]:
    """Return the point whose figure is quoted, and what it has over its target in dB."""
    first = heard.first - target.first_dbm
    width = heard.first - noise_dbm - target.snr_db if target.snr_db else np.full_like(first, np.inf)
    second = np.full_like(first, np.inf)
    if target.second_dbm is not None:
        second = heard.second - target.second_dbm
    by: dict[str, Array] = {"second": second, "width": width}
    over = by.get(binds or "", first)
    if binds in (None, "both"):
        over = np.minimum(np.minimum(first, second), width)
    worst = int(np.argmin(over))
    return worst, float(over[worst])


def _shown(level: float) -> float | None:
    return None if level <= SILENT_DBM else round(float(level), 1)
