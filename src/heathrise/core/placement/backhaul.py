"""Which access points get a cable where the others may hang on the air."""

from __future__ import annotations

from collections.abc import Collection, Iterator, Sequence

import numpy as np
from numpy.typing import NDArray
from ortools.sat.python import cp_model

from ..context.plan import Plan
from ..context.run_decisions import run_said, said_over_air
from ..design import Change, Design, Device, put
from ..signal import environment_of, over_the_air, rates_over_air
from .costs import air_cents, place_cents
from .places import movable

_SECONDS = 5.0
_SCALE = 100  # a second parent is worth this share of a cent for each that has none


def wired_ones(
    rates_mbps: NDArray[np.float64],
    cable_cents: Sequence[int],
    air_cents: Sequence[int],
    least_mbps: float,
    decided: Collection[int] = (),
    loose: Collection[int] = (),
) -> set[int]:
    """Return which access points are wired so that all others get enough over the air, for least.

    Of choices that cost alike the one is taken that leaves the fewest without a second parent.

    Args:
        rates_mbps: what a user at the row gets if the column is wired, shape (n, n).
        cable_cents, air_cents: what a cable to each costs, and what it takes without one.
        decided: those that have a cable whatever is chosen; ``loose`` those that never have one.
    """
    count = len(cable_cents)
    reach = rates_mbps >= least_mbps
    model = cp_model.CpModel()
    wired = [model.new_bool_var(f"w{k}") for k in range(count)]
    alone = [model.new_bool_var(f"a{k}") for k in range(count)]
    for k in range(count):
        parents = [wired[j] for j in range(count) if j != k and reach[k, j] and j not in loose]
        if k in decided:
            model.add(wired[k] == 1)
            continue
        if k in loose:
            model.add(wired[k] == 0)
        if parents or k not in loose:  # what nothing can reach stays cut off
            model.add_bool_or([wired[k], *parents])
        model.add(2 * wired[k] + sum(parents) >= 2).only_enforce_if(~alone[k])
    own = [(c - a) * _SCALE * v for c, a, v in zip(cable_cents, air_cents, wired, strict=True)]
    model.minimize(cp_model.LinearExpr.sum([*own, *alone]))
    solver = cp_model.CpSolver()
    solver.parameters.max_time_in_seconds = _SECONDS
    solver.parameters.random_seed = 1
    if solver.solve(model) not in (cp_model.OPTIMAL, cp_model.FEASIBLE):
        return set(range(count)) - set(loose)
    return {k for k, v in enumerate(wired) if solver.boolean_value(v)}


def links_to(plan: Plan, keep: Collection[str]) -> list[Change]:
    """Return the changes that leave a cable to those access points alone that need one.

    Args:
        keep: access points that are left as they are.
    """
    design, catalogue = plan.design, plan.catalogue
    mine = {d.id: d for d in movable(design, catalogue) if d.id not in keep}
    # With a cable to each of them all are heard, those too that now lead nowhere.
    cabled = plan.after(list(_linked(design, list(mine.values()), mine)))
    devices, rates = rates_over_air(environment_of(cabled))
    cable = dict.fromkeys((d.id for d in devices), 0)
    air = dict(cable)
    points = list(mine.values())
    cable |= zip(mine, place_cents(plan, points), strict=True)
    air |= zip(mine, air_cents(plan, points), strict=True)
    stays = {k for k, d in enumerate(devices) if d.id not in mine}
    by_air = over_the_air(cabled.design, catalogue)
    loose = {k for k in stays if devices[k].id in by_air}
    wired = wired_ones(
        rates,
        [cable[d.id] for d in devices],
        [air[d.id] for d in devices],
        catalogue.rules["signal.mesh_least_mbps"],
        stays - loose,
        loose,
    )
    on_5 = {d.id for d in devices}
    with_cable = {devices[k].id for k in wired} | (set(mine) - on_5)
    return list(_linked(plan.drawn, points, with_cable))


def _linked(design: Design, devices: Sequence[Device], with_cable: Collection[str]) -> Iterator[Change]:
    """Yield the changes that take the cable from access points, or give it back."""
    loose = said_over_air(design)
    for device in devices:
        on_air = device.id not in with_cable
        if (device.id in loose) != on_air:
            run = run_said(design, device.id)
            yield put(run.model_copy(update={"over_air": on_air}))
