"""What was measured beside what was planned: the model's figures fitted, and what stands out."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from pydantic import BaseModel, ConfigDict, Field
from scipy.optimize import lsq_linear

from ..bands import Band
from ..design import Device, Point
from ..readings import Reading
from .explain import Ray, ray_to
from .levels import Air
from .standing_out import StandsOut, points_that_stand_out, walls_that_stand_out

Array = NDArray[np.float64]

_ROUNDS = 4
_LEAST_SIGMA_DB = 0.5


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
    known = [
        r
        for r in readings
        if (r.device, r.band) in air.radios and r.floor in air.terrain.storeys.elevation_m
    ]
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
        stands_out=(
            *walls_that_stand_out(air, terms.rays, left, sigma),
            *points_that_stand_out(air, known, left),
        ),
        why_not="",
    )  # fmt: skip


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
