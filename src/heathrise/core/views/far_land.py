"""All places on the land together: cells of one name, each on a line of its own, or one mesh."""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from pydantic import Field

from ..base.foliage import foliage_db as leaves_take_db
from ..base.frozen import Frozen
from ..context.leaves import leaves_m
from ..context.plan import Plan, answered
from ..design import EquipmentRoom, FarPoint, Grove
from ..evaluation.far_lines import far_view
from ..evaluation.far_sites import grown_m, node_at
from ..far import (
    DIGS,
    MHZ,
    FarOffer,
    FedPlace,
    LandGap,
    MeshLink,
    MeshPlace,
    OneFeed,
    cell_cost,
    foliage_db,
    free_space_db,
    gaps_along,
    hectares,
    mesh_of,
    one_feed,
    path_of,
    reach_of,
)
from ..signal import environment_of, user_mbps
from .far_ways import far_ways

# A cell's own line: what is laid or aimed for it alone, and nothing of somebody else's.
_LINES = frozenset({"radio_5", "radio_60", "copper", "extender", "extenders", "switch", "fibre"})
_LEAST_M = 1.0
Array = NDArray[np.float64]


class LandRow(Frozen):
    """A place as a cell and as a node of the mesh; a way that there is none of is None."""

    point: str
    name: str
    cell: str | None = Field(description="the best line of its own, in words")
    cell_state: str
    cell_mbps: float
    cell_once: float
    cell_total: float
    over: str = Field(description="over whom its node hangs, in words")
    hops: int
    mesh_mbps: float
    mesh_once: float
    mesh_total: float
    wanted_mbps: float


class LandView(Frozen):
    """Both for the same places. Sums are over the places that each reaches; those left are named."""

    currency: str
    rows: tuple[LandRow, ...]
    reach_m: float = Field(description="how far a client and an access point hear each other over open land")
    hectares: float = Field(description="land that all places serve together")
    cells_once: float
    cells_total: float
    cells_left: tuple[str, ...]
    mesh_once: float
    mesh_total: float
    mesh_left: tuple[str, ...] = Field(
        description="nodes that reach no other, or give less than is asked for"
    )
    path: tuple[str, ...] = Field(description="names of places in the order of a walk from the house")
    gaps: tuple[LandGap, ...] = Field(description="where neither of two places next to each other is heard")
    advice: str
    feed: OneFeed | None = Field(
        None, description="all of one rack on one feed of direct current, None where no two are"
    )


@dataclass(frozen=True)
class _OpenAir:
    """The air of 5 GHz over the land: what nodes like the plan's strongest access point, and clients, hear
    of each other through the trees that are drawn, as they will be."""

    plan: Plan
    power_dbm: float
    gain_dbi: float
    least_dbm: float
    reach_m: float

    @classmethod
    def of(cls, plan: Plan) -> _OpenAir:
        client, least = environment_of(plan).client, plan.rules["far.repeater_dbm"]
        power, gain = _radio(plan)
        # The weaker way counts: a client sends with less than it hears.
        sent = min(power, client.power_dbm["5"]) + gain + client.gain_dbi
        return cls(plan, power, gain, least, reach_of(sent, least))

    def leaves(self, key: str, x: Array, y: Array, height_m: float, years: float) -> Array:
        """Return the metres of leaves from a place's antenna to spots."""
        place, groves = self.plan.drawn.of(FarPoint)[key], self.plan.drawn.of(Grove)
        source = (*place.at, place.mast_m)
        return leaves_m(groves, source, x, y, height_m, grown_m(self.plan, years))

    def rate(self, one: str, other: str) -> float:
        """Return what a link between two nodes carries, Mb/s, when the years of both are over."""
        a, b = (self.plan.drawn.of(FarPoint)[key] for key in (one, other))
        x, y = (np.array([c]) for c in b.at)
        trees = float(self.leaves(one, x, y, b.mast_m, max(a.years, b.years))[0])
        km = max(math.dist(a.at, b.at), _LEAST_M) / 1000
        level = self.power_dbm + 2 * self.gain_dbi - free_space_db("5", km) - foliage_db("5", trees)
        width = environment_of(self.plan).width_mhz("5")
        return user_mbps(self.plan.rules, level, width) if level >= self.least_dbm else 0.0

    def hears(self, key: str, x: Array, y: Array) -> NDArray[np.bool_]:
        """Return whether a client at spots and a place hear each other."""
        place = self.plan.drawn.of(FarPoint)[key]
        apart = np.maximum(np.hypot(x - place.at[0], y - place.at[1]), _LEAST_M)
        held_m = self.plan.rules["signal.client_height_m"]
        takes = leaves_take_db(MHZ["5"], self.leaves(key, x, y, held_m, place.years))
        return np.asarray(20 * np.log10(apart / self.reach_m) + takes <= 0)


@answered
def far_land(plan: Plan) -> LandView:
    """Return all places as cells and as one mesh; those without a rack are left out."""
    points = plan.drawn.of(FarPoint)
    lines = {k.point: k for k in far_view(plan).lines if k.room is not None}
    air = _OpenAir.of(plan)
    nodes = []
    for key, line in lines.items():
        heard = node_at(plan, points[key], line)
        nodes.append(MeshPlace(key, heard.mbps if heard.level_dbm >= air.least_dbm else 0.0))
    mesh = mesh_of(nodes, air.rate)
    rows = tuple(_row(plan, points[key], mesh.get(key)) for key in lines)
    spots = {key: points[key].at for key in lines}
    room = next((k.room for k in lines.values()), None)
    order = path_of(plan.drawn.of(EquipmentRoom)[room].at, spots) if room is not None else []
    names = {key: points[key].name for key in lines}
    gaps = [
        g.model_copy(update={"start": names[g.start], "end": names[g.end]})
        for g in gaps_along(order, spots, air.reach_m, air.hears)
    ]
    cells_left = tuple(r.name for r in rows if r.cell is None)
    mesh_left = tuple(r.name for r in rows if not r.hops or r.mesh_mbps < r.wanted_mbps)
    return LandView(
        currency=plan.drawn.site.currency,
        rows=rows,
        reach_m=round(air.reach_m, 1),
        hectares=round(hectares(spots, air.reach_m, air.hears), 2),
        cells_once=round(sum(r.cell_once for r in rows), 2),
        cells_total=round(sum(r.cell_total for r in rows), 2),
        cells_left=cells_left,
        mesh_once=round(sum(r.mesh_once for r in rows), 2),
        mesh_total=round(sum(r.mesh_total for r in rows), 2),
        mesh_left=mesh_left,
        path=tuple(names[k] for k in order),
        gaps=tuple(gaps),
        advice=_advice(mesh_left, cells_left, bool(gaps)),
        feed=_feed(plan),
    )


def _feed(plan: Plan) -> OneFeed | None:
    """Return one feed to all places of the rack that most are fed from: what draws there, over land that is
    dug."""
    rooms: dict[str, list[FedPlace]] = {}
    site = plan.drawn.site
    for line in far_view(plan).lines:
        point = plan.drawn.of(FarPoint)[line.point]
        if line.room is None or not DIGS[point.land]:
            continue
        offer = next((w for w in far_ways(plan, point.id).ways if w.id == "fibre-cable"), None)
        if offer is not None:
            own = (offer.feed.kind, offer.feed.mm2) if offer.feed is not None else None
            place = FedPlace(point.id, point.name, point.at, offer.watts, point.land, own)
            rooms.setdefault(line.room, []).append(place)
    if not rooms:
        return None
    room, places = max(rooms.items(), key=lambda row: len(row[1]))
    slack_m = site.slack_device_m + site.slack_rack_m
    return one_feed(plan.priced, plan.drawn.of(EquipmentRoom)[room].at, places, slack_m)


def _radio(plan: Plan) -> tuple[float, float]:
    """Return the power and the gain of the plan's strongest access point on 5 GHz; a node is one like it."""
    radios = [r for (_, band), r in environment_of(plan).radios.items() if band == "5"]
    best = max(radios, key=lambda r: r.power_dbm + r.gain_dbi, default=None)
    return (best.power_dbm, best.gain_dbi) if best is not None else (0.0, 0.0)


def _row(plan: Plan, point: FarPoint, link: MeshLink | None) -> LandRow:
    found = far_ways(plan, point.id)
    own = next((w for w in found.ways if w.medium in _LINES and w.verdict != "out"), None)
    node = cell_cost(plan.priced, point.years)
    serves = found.demand.node_w > 0
    hung = _mesh_offer(found.ways, point)
    names = plan.drawn.of(FarPoint)
    over = "" if link is None else "the house" if link.parent is None else names[link.parent].name
    return LandRow(
        point=point.id,
        name=point.name,
        cell=own.label if own is not None else None,
        cell_state=own.verdict if own is not None else "out",
        cell_mbps=own.mbps if own is not None else 0.0,
        cell_once=round(own.cost.once + serves * node.once, 2) if own is not None else 0.0,
        cell_total=round(own.cost.total + serves * node.total, 2) if own is not None else 0.0,
        over=over,
        hops=link.hops if link is not None else 0,
        mesh_mbps=link.mbps if link is not None else 0.0,
        mesh_once=hung.cost.once if link is not None else 0.0,
        mesh_total=hung.cost.total if link is not None else 0.0,
        wanted_mbps=found.demand.mbps,
    )


def _mesh_offer(ways: tuple[FarOffer, ...], point: FarPoint) -> FarOffer:
    """Return the node with the supply that there is; what it takes is the same over one hop and over two."""
    supply = "solar" if point.power == "none" else "mains"
    return next(w for w in ways if w.medium == "mesh" and w.supply == supply)


def _advice(mesh_left: tuple[str, ...], cells_left: tuple[str, ...], gaps: bool) -> str:
    roams = "Cells of one name and one key roam well enough"
    apart = "; between places a client hears neither, whichever it is" if gaps else ""
    if mesh_left and not cells_left:
        return f"{roams} where nodes of a mesh are too far apart or give too little{apart}."
    if cells_left and not mesh_left:
        return f"A mesh reaches every place; a line of its own does not{apart}."
    if mesh_left and cells_left:
        return f"Neither reaches every place; mix both, or take another way for those that are left{apart}."
    return f"Both reach every place; a mesh shares one channel's air, a cell has its line for itself{apart}."
