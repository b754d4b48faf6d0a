"""What was measured beside what was planned: the model's figures fitted, and what stands out."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np
from numpy.typing import NDArray
from pydantic import Field
from scipy.optimize import lsq_linear

from ..base.bands import Band
from ..base.frozen import Frozen
from ..catalogue import Rules
from ..context.readings import Reading
from ..design import Device, Point
from .crossed import crossed, fixed_dbm, heard_by_radio
from .radio_environment import RadioEnvironment
from .radio_matching import swapped
from .ray_pieces import named_panels
from .residuals import StandsOut, Through, points_that_stand_out, walls_that_stand_out

Array = NDArray[np.float64]
Flags = NDArray[np.bool_]

_ROUNDS = 4
_LEAST_SIGMA_DB = 0.5
_MOST_OFFSET_DB = 30.0
_FAINTEST = 0.01  # share of measurements that may be fainter than the meter's floor by a slip
_CLEAR_SIGMAS = 2.0


class Fitted(Frozen):
    """A figure of the model as it was listed and as it was measured, with its standard error."""

    figure: str = Field(description="its path among the figures, or nothing for the meter's own")
    label: str
    listed: float
    value: float
    error: float = Field(description="standard error of the value")
    unit: str
    rays: int = Field(description="measurements that bear on it")


class Residual(Frozen):
    """One measurement: what it was, what was planned, what the fitted model says."""

    floor: str
    at: Point
    device: str
    name: str
    band: Band
    dbm: float
    planned_dbm: float
    fitted_dbm: float


class Calibration(Frozen):
    """Measured against planned. Deviations are standard deviations in dB."""

    readings: int
    faint: int = Field(
        0,
        description="of them left out: expected so near to the faintest heard that others "
        "like them were missed",
    )
    before_db: float
    after_db: float
    fitted: tuple[Fitted, ...]
    residuals: tuple[Residual, ...]
    stands_out: tuple[StandsOut, ...]
    why_not: str = Field(description="why nothing was fitted, or nothing")


@dataclass(frozen=True, eq=False)
class _Terms:
    """What each reading's level is made of, linear in what is fitted."""

    readings: list[Reading]
    through: Through
    dbm: Array
    fixed: Array  # power, gains, free space at 1 m, antenna
    distance: Array  # 10 log10 d
    walls: Array
    floors: Array
    by_construction: dict[str, Array]


@dataclass(frozen=True, eq=False)
class _Unknown:
    """One figure that is fitted: how each level rises with it, what is listed, and the spread about
    that before anything was measured. The meter's offset is no figure."""

    figure: str
    label: str
    unit: str
    column: Array
    listed: float
    prior: float

    def rays(self, clear: Flags) -> int:
        """Return how many of some measurements bear on it."""
        return int(np.count_nonzero(self.column[clear]))


def calibrate(air: RadioEnvironment, readings: Sequence[Reading]) -> Calibration:
    """Fit exponent, scales of walls and of slabs, the meter's own offset, and a correction for each
    construction that enough rays cross; least squares with what is listed as prior.

    ``level = P + G - FSPL(1 m) - antenna - 10 n log10(d) - s_w walls - s_f slabs - sum(c k) + b``.

    A meter hears what is faint only where noise lifts it: of spots at which it should be near the
    faintest there is, the louder half is on file. They are left out by what is expected of them,
    not by what was heard, or walls would pass for lighter than they are.

    References:
        Tikhonov, regularised least squares: |A x - y|^2 / s^2 + |(x - x0) / s0|^2 at its least; dB.
        COST 231 final report, chapter 4, for the model; what is known beforehand (x0, s0) is data.
    """
    rules = air.rules
    terms = _terms(air, readings)
    known = terms.readings
    planned = terms.fixed - air.terrain.exponent * terms.distance - terms.walls - terms.floors
    before = _spread(terms.dbm - planned)
    least = int(rules["signal.fit_least"])
    if len(known) < least:
        why = f"{len(known)} measurements of access points of this plan; at least {least} are needed"
        return Calibration(
            readings=len(known),
            before_db=before,
            after_db=before,
            fitted=(),
            stands_out=(),
            residuals=_residuals(air, known, terms.dbm, planned, planned),
            why_not=why,
        )
    crossed_over = swapped(air, known)
    if crossed_over:
        devices = air.design.of(Device)
        pairs = [f"{devices[a].name} as {devices[b].name}" for a, b in crossed_over]
        why = f"Swapped on the site, or in the list of names: {', '.join(pairs)} is heard. Put "
        why += "that right first; nothing is fitted over it"
        return Calibration(
            readings=len(known),
            before_db=before,
            after_db=before,
            fitted=(),
            stands_out=tuple(
                StandsOut(
                    kind="device",
                    element=a,
                    floor=devices[a].floor,
                    at=devices[a].at,
                    text=f"{devices[a].name} is heard where {devices[b].name} should be: swapped",
                )
                for a, b in crossed_over
            ),
            residuals=_residuals(air, known, terms.dbm, planned, planned),
            why_not=why,
        )
    clear = _clear_of_the_floor(air, terms)
    unknowns = _unknowns(air, terms, clear)
    value, error, sigma, fitted_dbm = _fitted(unknowns, terms, clear, rules)
    found = tuple(
        Fitted(
            figure=u.figure,
            label=u.label,
            unit=u.unit,
            listed=u.listed,
            rays=u.rays(clear),
            value=round(float(value[k]), 3),
            error=round(float(error[k]), 3),
        )
        for k, u in enumerate(unknowns)
    )
    left = (terms.dbm - fitted_dbm)[clear]
    heard = [r for r, is_clear in zip(known, clear, strict=True) if is_clear]
    return Calibration(
        readings=len(known),
        faint=len(known) - len(heard),
        before_db=_spread((terms.dbm - planned)[clear]),
        after_db=round(max(sigma, _LEAST_SIGMA_DB), 2),
        fitted=found,
        residuals=_residuals(air, known, terms.dbm, planned, fitted_dbm),
        stands_out=(
            *walls_that_stand_out(air, terms.through.of(clear), left, sigma),
            *points_that_stand_out(air, heard, left),
        ),
        why_not="",
    )


def _terms(air: RadioEnvironment, readings: Sequence[Reading]) -> _Terms:
    """Return the terms of the measurements of radios and storeys that the plan has."""
    groups = [
        g
        for g in heard_by_radio(readings)
        if (g.device, g.band) in air.radios and g.floor in air.terrain.storeys.elevation_m
    ]
    rows = np.sort(np.concatenate([g.rows for g in groups])) if groups else np.empty(0, np.intp)
    known = [readings[int(k)] for k in rows]
    fixed, distance, walls, floors = (np.zeros(len(rows)) for _ in range(4))
    none, nothing = np.empty(0, np.intp), np.empty(0)
    parts: list[tuple[NDArray[Any], ...]] = [(none, none, nothing, nothing, nothing)]
    for group in groups:
        found = crossed(air, group)
        here = np.searchsorted(rows, group.rows)
        fixed[here] = fixed_dbm(air, group, found)
        distance[here] = 10 * np.log10(np.maximum(found.distance_m, 1.0))
        walls[here], floors[here] = found.walls_db, found.slabs_db
        parts.append((here[found.ray], found.panel, found.factor, found.x, found.y))
    _, pieces = named_panels(air.design, air.catalogue)
    ray, panel, factor, x, y = (np.concatenate(column) for column in zip(*parts, strict=True))
    through = Through(pieces, ray, panel, factor, x, y)
    constructions = np.array([p.construction for p in pieces])[through.panel]
    by = {
        str(key): np.bincount(ray[constructions == key], factor[constructions == key], len(rows)).astype(
            np.float64
        )
        for key in np.unique(constructions)
    }
    dbm = np.array([r.dbm for r in known])
    return _Terms(known, through, dbm, fixed, distance, walls, floors, by)


def _unknowns(air: RadioEnvironment, terms: _Terms, clear: Flags) -> list[_Unknown]:
    """Return what is fitted: figures that some measurement bears on, and the meter's offset."""
    rules = air.rules
    spread = rules.table("signal.fit_prior")
    found = [
        _Unknown(
            "signal.exponent",
            "Exponent of the distance",
            "",
            -terms.distance,
            air.terrain.exponent,
            spread["exponent"],
        ),
        _Unknown("signal.wall_scale", "Scale of the walls", "", -terms.walls, 1.0, spread["scale"]),
        _Unknown("signal.floor_scale", "Scale of the slabs", "", -terms.floors, 1.0, spread["scale"]),
    ]
    found = [u for u in found if u.rays(clear)]
    least = rules["signal.fit_least_rays"]
    for key, factors in sorted(terms.by_construction.items()):
        label = f"{air.catalogue.constructions[key].label}, more than listed"
        own = _Unknown(f"signal.correction_db.{key}", label, "dB", -factors, 0.0, spread["correction"])
        if own.rays(clear) >= least:
            found.append(own)
    offset = np.ones(len(terms.dbm))
    return [*found, _Unknown("", "The meter's own", "dB", offset, 0.0, spread["offset"])]


def _clear_of_the_floor(air: RadioEnvironment, terms: _Terms) -> Flags:
    """Return which measurements are expected well above the faintest."""
    rules = air.rules
    clear = np.ones(len(terms.dbm), dtype=bool)
    floor_dbm = float(np.quantile(terms.dbm, _FAINTEST))
    if floor_dbm > rules["signal.fit_faint_dbm"]:
        return clear
    for _ in range(_ROUNDS):
        unknowns = _unknowns(air, terms, clear)
        _, _, sigma, expected = _fitted(unknowns, terms, clear, rules)
        still = expected >= floor_dbm + _CLEAR_SIGMAS * sigma
        if still.sum() < rules["signal.fit_least"] or (still == clear).all():
            break
        clear = still
    return clear


def _fitted(
    unknowns: Sequence[_Unknown], terms: _Terms, clear: Flags, rules: Rules
) -> tuple[Array, Array, float, Array]:
    """Return values, standard errors and the deviation of a fit to some measurements, and the
    levels that it expects of all."""
    matrix = np.column_stack([u.column for u in unknowns])
    seen = terms.dbm - terms.fixed
    value, error, sigma = _solve(unknowns, matrix[clear], seen[clear], rules)
    return value, error, sigma, terms.fixed + matrix @ value


def _solve(
    unknowns: Sequence[_Unknown], matrix: Array, seen: Array, rules: Rules
) -> tuple[Array, Array, float]:
    """Return values, standard errors, and the standard deviation of what is left, in dB; no value
    is beyond what its figure may be."""
    start, prior = np.array([u.listed for u in unknowns]), np.array([u.prior for u in unknowns])
    low, high = zip(*(_limits(rules, u.figure) for u in unknowns), strict=True)
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


def _limits(rules: Rules, figure: str) -> tuple[float, float]:
    """Return the least and the most that a figure may be, or the meter's offset."""
    known = rules.figures.get(figure)
    if known is None or known.least is None or known.most is None:
        return -_MOST_OFFSET_DB, _MOST_OFFSET_DB
    return known.least, known.most


def _spread(left: Array) -> float:
    return round(float(np.sqrt(np.mean(left**2))), 2) if len(left) else 0.0


def _residuals(
    air: RadioEnvironment, readings: Sequence[Reading], dbm: Array, planned: Array, fitted: Array
) -> tuple[Residual, ...]:
    devices = air.design.of(Device)
    return tuple(
        Residual(
            floor=r.floor,
            at=r.at,
            device=r.device,
            name=devices[r.device].name,
            band=r.band,
            dbm=round(float(dbm[k]), 1),
            planned_dbm=round(float(planned[k]), 1),
            fitted_dbm=round(float(fitted[k]), 1),
        )
        for k, r in enumerate(readings)
    )
