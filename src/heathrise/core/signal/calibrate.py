"""What was measured beside what was planned: the model's figures fitted, and what stands out."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from pydantic import BaseModel, ConfigDict, Field
from scipy.optimize import linear_sum_assignment, lsq_linear

from ..bands import BANDS, Band
from ..design import Device, Opening, Point, Wall
from ..readings import Reading
from .explain import Ray, ray_to
from .levels import Air
from .terrain import losses_db

Array = NDArray[np.float64]

_ROUNDS = 4
_LEAST_SIGMA_DB = 0.5
_SURE = 3.0  # standard errors beyond which something stands out
_LEAST_OF_ONE = 4  # measurements through one wall, or of one access point, to speak of it
_AROUND_M = (2.0, 4.0, 6.0, 9.0)
_BETTER = 0.6  # what is left of the squares once an access point is thought elsewhere


class Fitted(BaseModel):
    """A figure of the model as it was listed and as it was measured, with its standard error."""

    model_config = ConfigDict(frozen=True)

    figure: str = Field(description="its path among the figures, or nothing for the meter's own")
    label: str
    listed: float
    value: float
    error: float = Field(description="standard error of the value")
    unit: str
    rays: int = Field(description="measurements that bear on it")


class Residual(BaseModel):
    """One measurement: what it was, what was planned, what the fitted model says."""

    model_config = ConfigDict(frozen=True)

    floor: str
    at: Point
    device: str
    name: str
    band: Band
    dbm: float
    planned_dbm: float
    fitted_dbm: float


class StandsOut(BaseModel):
    """Something that one wall or one access point explains."""

    model_config = ConfigDict(frozen=True)

    kind: str
    element: str
    floor: str
    at: Point
    text: str


class Calibration(BaseModel):
    """Measured against planned. Deviations are standard deviations in dB."""

    model_config = ConfigDict(frozen=True)

    readings: int
    before_db: float
    after_db: float
    fitted: tuple[Fitted, ...]
    residuals: tuple[Residual, ...]
    stands_out: tuple[StandsOut, ...]
    why_not: str = Field(description="why nothing was fitted, or nothing")


@dataclass(frozen=True, eq=False)
class _Terms:
    """What each reading's level is made of, linear in what is fitted."""

    rays: list[Ray]
    dbm: Array
    fixed: Array  # power, gains, free space at 1 m, antenna
    distance: Array  # 10 log10 d
    walls: Array
    floors: Array
    by_construction: dict[str, Array]


def calibrate(air: Air, readings: Sequence[Reading]) -> Calibration:
    """Fit exponent, scales of walls and of slabs, the meter's own offset, and a correction for each
    construction that enough rays cross; least squares with what is listed as prior.

    ``level = P + G - FSPL(1 m) - antenna - 10 n log10(d) - s_w walls - s_f slabs - sum(c k) + b``.
    """
    rules = air.rules
    known = [r for r in readings if (r.device, r.band) in air.radios and _floor(air, r.floor)]
    terms = _terms(air, known)
    planned = terms.fixed - air.terrain.exponent * terms.distance - terms.walls - terms.floors
    before = _spread(terms.dbm - planned)
    least = int(rules["signal.fit_least"])
    if len(known) < least:
        why = (
            f"{len(known)} measurements of access points of this plan; at least {least} are needed"
        )
        return Calibration(
            readings=len(known), before_db=before, after_db=before, fitted=(), stands_out=(),
            residuals=_residuals(air, known, terms.dbm, planned, planned), why_not=why,
        )  # fmt: skip
    names, matrix, start, prior, low, high = _unknowns(air, terms)
    seen = terms.dbm - terms.fixed
    value, error, sigma = _solve(matrix, seen, start, prior, low, high)
    fitted_dbm = terms.fixed + matrix @ value
    found = tuple(
        Fitted(
            figure=_path(name), label=_label(air, name), listed=float(start[k]),
            value=round(float(value[k]), 3), error=round(float(error[k]), 3),
            unit="" if name in ("exponent", "walls", "floors") else "dB",
            rays=int(np.count_nonzero(matrix[:, k])),
        )
        for k, name in enumerate(names)
    )  # fmt: skip
    left = terms.dbm - fitted_dbm
    return Calibration(
        readings=len(known), before_db=before, after_db=round(max(sigma, _LEAST_SIGMA_DB), 2),
        fitted=found, residuals=_residuals(air, known, terms.dbm, planned, fitted_dbm),
        stands_out=(*_walls_that(air, terms, left, sigma), *_points_that(air, known, left)),
        why_not="",
    )  # fmt: skip


def _floor(air: Air, floor: str) -> bool:
    return floor in air.terrain.storeys.elevation_m


def _terms(air: Air, readings: Sequence[Reading]) -> _Terms:
    rays = []
    for r in readings:
        rays.append(ray_to(air, air.design.of(Device)[r.device], r.floor, r.at, r.band))
    fixed, distance, walls, floors = [], [], [], []
    by: dict[str, Array] = {}
    client = air.client
    for k, (r, ray) in enumerate(zip(readings, rays, strict=True)):
        radio = air.radios[r.device, r.band]
        far = 10 * math.log10(max(ray.distance_m, 1.0))
        fixed.append(
            radio.power_dbm + radio.gain_dbi + client.gain_dbi
            - (ray.free_db - air.terrain.exponent * far) - ray.antenna_db
        )  # fmt: skip
        distance.append(far)
        level = [c for c in ray.crossings if c.kind in ("slab", "roof")]
        upright = [c for c in ray.crossings if c.kind in ("wall", "opening")]
        walls.append(sum(c.takes_db for c in upright))
        floors.append(sum(c.takes_db for c in level))
        for c in upright:
            by.setdefault(c.construction, np.zeros(len(rays)))[k] += c.factor
    return _Terms(
        rays, np.array([r.dbm for r in readings]), np.array(fixed), np.array(distance),
        np.array(walls), np.array(floors), by,
    )  # fmt: skip


def _unknowns(air: Air, terms: _Terms) -> tuple[list[str], Array, Array, Array, Array, Array]:
    """Return the names of what is fitted, its matrix, where it starts, its prior's spread, and the
    least and most that it may be."""
    rules = air.rules
    spread = rules.table("signal.fit_prior")
    names, columns = ["exponent"], [-terms.distance]
    start, prior, low, high = [air.terrain.exponent], [spread["exponent"]], [1.6], [3.5]
    if np.count_nonzero(terms.walls):
        names.append("walls")
        columns.append(-terms.walls)
    if np.count_nonzero(terms.floors):
        names.append("floors")
        columns.append(-terms.floors)
    for _ in names[1:]:
        start.append(1.0)
        prior.append(spread["scale"])
        low.append(0.5)
        high.append(2.0)
    least = rules["signal.fit_least_rays"]
    for construction, factors in sorted(terms.by_construction.items()):
        if np.count_nonzero(factors) >= least:
            names.append(construction)
            columns.append(-factors)
            start.append(0.0)
            prior.append(spread["correction"])
            low.append(-30.0)
            high.append(30.0)
    names.append("offset")
    columns.append(np.ones(len(terms.dbm)))
    start.append(0.0)
    prior.append(spread["offset"])
    low.append(-30.0)
    high.append(30.0)
    arrays = (np.array(rows, dtype=float) for rows in (start, prior, low, high))
    return (names, np.column_stack(columns), *arrays)  # type: ignore[return-value]


def _solve(
    matrix: Array, seen: Array, start: Array, prior: Array, low: Array, high: Array
) -> tuple[Array, Array, float]:
    """Return values, standard errors, and the standard deviation of what is left, in dB."""
    sigma, value = 6.0, start
    for _ in range(_ROUNDS):
        rows = np.vstack([matrix / sigma, np.diag(1 / prior)])
        aims = np.concatenate([seen / sigma, start / prior])
        value = lsq_linear(rows, aims, bounds=(low, high)).x
        hat = np.linalg.inv(rows.T @ rows)
        # What the fit itself takes up of the freedom that the measurements have.
        used = float(np.trace(hat @ (matrix.T @ matrix))) / sigma**2
        left = seen - matrix @ value
        sigma = max(_LEAST_SIGMA_DB, math.sqrt(float(left @ left) / max(1.0, len(seen) - used)))
    rows = np.vstack([matrix / sigma, np.diag(1 / prior)])
    return value, np.sqrt(np.diag(np.linalg.inv(rows.T @ rows))), sigma


def _path(name: str) -> str:
    plain = {"exponent": "signal.exponent", "walls": "signal.wall_scale",
             "floors": "signal.floor_scale", "offset": ""}  # fmt: skip
    return plain.get(name, f"signal.correction_db.{name}")


def _label(air: Air, name: str) -> str:
    plain = {"exponent": "Exponent of the distance", "walls": "Scale of the walls",
             "floors": "Scale of the slabs", "offset": "The meter's own"}  # fmt: skip
    return plain.get(name) or f"{air.catalogue.constructions[name].label}, more than listed"


def _spread(left: Array) -> float:
    return round(float(np.sqrt(np.mean(left**2))), 2) if len(left) else 0.0


def _residuals(
    air: Air, readings: Sequence[Reading], dbm: Array, planned: Array, fitted: Array
) -> tuple[Residual, ...]:
    devices = air.design.of(Device)
    return tuple(
        Residual(
            floor=r.floor, at=r.at, device=r.device, name=devices[r.device].name, band=r.band,
            dbm=round(float(dbm[k]), 1), planned_dbm=round(float(planned[k]), 1),
            fitted_dbm=round(float(fitted[k]), 1),
        )
        for k, r in enumerate(readings)
    )  # fmt: skip


def _walls_that(air: Air, terms: _Terms, left: Array, sigma: float) -> list[StandsOut]:
    """Return the walls that explain what is left on the rays through them, the plainest first."""
    factors: dict[str, dict[int, float]] = {}
    places: dict[str, Point] = {}
    kinds: dict[str, str] = {}
    floors: dict[str, str] = {}
    for k, ray in enumerate(terms.rays):
        for c in ray.crossings:
            if c.kind in ("wall", "opening"):
                row = factors.setdefault(c.element, {})
                row[k] = row.get(k, 0.0) + c.factor
                places.setdefault(c.element, c.at)
                kinds[c.element] = c.label
                floors[c.element] = _storey_of(air, c.element)
    found = []
    least_db = air.rules["signal.fit_wall_db"]
    for element, row in factors.items():
        if _LEAST_OF_ONE <= len(row) < len(left):
            here, f = list(row), np.array(list(row.values()))
            more_db = -float(f @ left[here]) / float(f @ f)
            error = sigma / math.sqrt(float(f @ f))
            if abs(more_db) >= least_db and abs(more_db) > _SURE * error:
                floor = floors[element]
                heavier = "heavier" if more_db > 0 else "lighter"
                ask = ": foil, a tank, a cupboard?" if more_db > 0 else ": a door, a gap?"
                text = f"{kinds[element]} here is {abs(more_db):.0f} dB {heavier} than drawn{ask}"
                out = StandsOut(
                    kind="wall", element=element, floor=floor, at=places[element], text=text
                )
                found.append((abs(more_db) / error, out))
    found.sort(key=lambda row: -row[0])
    return [out for _, out in found[:3]]


def _storey_of(air: Air, element: str) -> str:
    """Return the storey of a wall or an opening."""
    opening = air.design.of(Opening).get(element)
    return air.design.of(Wall)[opening.wall if opening is not None else element].floor


def _points_that(air: Air, readings: Sequence[Reading], left: Array) -> list[StandsOut]:
    """Return the access points that seem to hang elsewhere than drawn."""
    by: dict[str, list[int]] = {}
    for k, r in enumerate(readings):
        by.setdefault(r.device, []).append(k)
    found = []
    for key, rows in by.items():
        if len(rows) < 2 * _LEAST_OF_ONE:
            continue
        device = air.design.of(Device)[key]
        squares = float(left[rows] @ left[rows])
        best = min(
            ((_squares(air, device, at, readings, rows, left), at) for at in _around(device)),
            default=(squares, device.at),
        )
        far_m = math.dist(best[1], device.at)
        if best[0] < _BETTER * squares and far_m >= air.rules["signal.fit_moved_m"]:
            text = f"{device.name} seems to hang {far_m:.0f} m from where it is drawn"
            found.append(
                StandsOut(kind="device", element=key, floor=device.floor, at=best[1], text=text)
            )
    return found


def _around(device: Device) -> list[Point]:
    return [
        (
            round(device.at[0] + far * math.sin(turn), 2),
            round(device.at[1] + far * math.cos(turn), 2),
        )
        for far in _AROUND_M
        for turn in (2 * math.pi * k / 8 for k in range(8))
    ]


def _squares(
    air: Air, device: Device, at: Point, readings: Sequence[Reading], rows: Sequence[int],
    left: Array,
) -> float:  # fmt: skip
    """Return what would be left, squared, if an access point hung elsewhere."""
    model = air.catalogue.airs[device.model]
    moved = device.model_copy(update={"at": at})
    total = 0.0
    floors: dict[str, list[int]] = {}
    for k in rows:
        floors.setdefault(readings[k].floor, []).append(k)
    for floor, here in floors.items():
        x, y = (np.array([readings[k].at[i] for k in here]) for i in (0, 1))
        there = losses_db(air.terrain, moved, model, floor, x, y)
        now = losses_db(air.terrain, device, model, floor, x, y)
        for column, k in enumerate(here):
            band = BANDS.index(readings[k].band)
            total += float(left[k] + there[band, column] - now[band, column]) ** 2
    return total


def proposed_names(
    air: Air, heard: Mapping[str, Sequence[Reading]]
) -> dict[str, tuple[str, float]]:
    """Return by an unknown address the access point whose levels fit best, and by how many dB.

    Args:
        heard: readings by address; their ``device`` is not looked at.
    """
    points = {d for d, _ in air.radios}
    devices = [d for d in air.design.of(Device).values() if d.id in points]
    addresses = list(heard)
    if not devices or not addresses:
        return {}
    cost = np.full((len(addresses), len(devices)), 99.0)
    for i, address in enumerate(addresses):
        for j, device in enumerate(devices):
            apart = _apart(air, device, heard[address])
            if apart is not None:
                cost[i, j] = apart
    rows, columns = linear_sum_assignment(cost)
    return {
        addresses[i]: (devices[j].id, round(float(cost[i, j]), 1))
        for i, j in zip(rows, columns, strict=True)
        if cost[i, j] < _NO_FIT_DB
    }


_NO_FIT_DB = 25.0


def _apart(air: Air, device: Device, readings: Sequence[Reading]) -> float | None:
    """Return how far readings are from what is planned of an access point, dB, root mean square."""
    model = air.catalogue.airs[device.model]
    squares = []
    for r in readings:
        if (device.id, r.band) not in air.radios or not _floor(air, r.floor):
            continue
        x, y = np.array([r.at[0]]), np.array([r.at[1]])
        loss = losses_db(air.terrain, device, model, r.floor, x, y)[BANDS.index(r.band), 0]
        level = air.lossless_dbm(device, r.band, "downlink") - float(loss)
        squares.append((r.dbm - level) ** 2)
    return math.sqrt(sum(squares) / len(squares)) if squares else None
