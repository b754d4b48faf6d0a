"""Every way to a place on the land, worked out by the plan's own radios, ports, cables and prices."""

from __future__ import annotations

from pydantic import Field

from ..base.frozen import Frozen
from ..base.memo import IdentityMemo
from ..context.line_channels import LineChannel, line_channels
from ..context.plan import Plan
from ..design import Design, DesignError, FarPoint, Problem, apply, put
from ..evaluation.far_checks import port_left
from ..evaluation.far_lines import far_view
from ..evaluation.far_sites import node_at, site_of, wiring_of
from ..far import FarDemand, FarOffer, all_ways, ranked

_WHERE = "far"


_kept: IdentityMemo[tuple[FarDemand, tuple[FarOffer, ...]]] = IdentityMemo(128)


class FarWays(Frozen):
    """A place, what it asks for, and all ways to it; the first is the best by the firm's weights."""

    point: str
    name: str
    length_m: float
    years: int
    currency: str
    demand: FarDemand
    channel: LineChannel | None = Field(None, description="of its line on 5 GHz, as if that were taken")
    ways: tuple[FarOffer, ...]


def far_ways(plan: Plan, point: str) -> FarWays:
    """Return all ways to a place.

    Raises:
        DesignError: there is no such place, or no rack to feed it from.
    """
    return plan.answer(f"far_ways.{point}", lambda: _ways(plan, point))


def _ways(plan: Plan, key: str) -> FarWays:
    point = plan.drawn.of(FarPoint).get(key)
    if point is None:
        raise DesignError([Problem(_WHERE, f"there is no far place {key!r}; open the site again")])
    line = next(row for row in far_view(plan).lines if row.point == key)
    if line.room is None:
        what = f"{point.name} has no rack to be fed from, or stands on it; place a rack on the plan first"
        raise DesignError([Problem(_WHERE, what)])
    rests_on = node_at(plan, point, line), wiring_of(plan, point, line)
    site, catalogue = plan.drawn.site, plan.catalogue
    # Whatever else of the plan is moved, what a place is reached by stays.
    demand, ways = _kept.get(
        (point, line, site, catalogue, plan.prices), rests_on, lambda: all_ways(site_of(plan, point, line))
    )
    ways = ranked(plan.rules, demand, [_with_port(plan, point, line.room, demand, w) for w in ways])
    return FarWays(
        point=key,
        name=point.name,
        length_m=line.length_m,
        years=point.years,
        currency=plan.drawn.site.currency,
        demand=demand,
        channel=line_channels(_with_line(plan.drawn, point), plan.catalogue).get(key),
        ways=ways,
    )


def _with_port(plan: Plan, point: FarPoint, room: str, demand: FarDemand, way: FarOffer) -> FarOffer:
    """Return a way judged by the port that it asks for, too; through a slower one it gives less."""
    left = port_left(plan, point, room, way, demand.mbps) if way.verdict != "out" else None
    if left is None:
        return way
    check, mbps = left.check, left.mbps
    told: dict[str, object] = {"checks": (*way.checks, check)}
    if mbps is not None:
        told["mbps"] = min(way.mbps, float(mbps))
    if check.state != "met":
        told["would"] = "; ".join(w for w in (way.would, check.would) if w)
        if way.verdict == "met":
            told |= {"verdict": check.state, "binds": check.words}
    return way.model_copy(update=told)


def _with_line(design: Design, point: FarPoint) -> Design:
    """Return the design with a line on 5 GHz to a place."""
    return apply(design, [put(point.model_copy(update={"way": "radio_5-mains"}))])
