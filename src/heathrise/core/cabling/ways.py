"""The ways a cable can take: a lattice through every void, joined by risers and ducts.

Cables run square to the building, so the lattice has two layers, one for each direction, and a
turn from one to the other costs a little. An edge's cost is its length times what the space is
to work in, plus what breaking through masonry costs; the route is the cheapest to work.
"""

from __future__ import annotations

import itertools
import math
from collections.abc import Iterable, Iterator
from dataclasses import dataclass, field, replace
from typing import Any

import numpy as np
import shapely
from numpy.typing import NDArray
from scipy.sparse import coo_array
from scipy.sparse.csgraph import dijkstra
from shapely.geometry import Polygon

from ..base.memo import IdentityMemo
from ..catalogue import Catalogue, Rules
from ..context.storeys import Storeys, storeys_of
from ..design import Building, Design, Device, Duct, EquipmentRoom, Floor, Point, Riser, Space, Wall
from ..mains import MainsLine, mains_lines
from .lattice import LATTICE_M, OVERHEADS, Storey, direction_of, storey_of, void_z_m

Array = NDArray[np.float64]

STUB_NODES = 12
MOST_NODES = 60_000
_BLOCK = 512
ALONG = math.cos(math.radians(30))  # what turns less than this from a line lies along it
_ON_WALL_M = 0.02
_SAME_WALL_M = 0.05  # masonry crossed twice within this is one wall drawn twice


@dataclass(frozen=True)
class WayEdge:
    """A riser's or duct's way between two nodes: kind, length in m and the points in between."""

    kind: str
    length_m: float
    points: tuple[Point, ...]
    way: str | None = None


@dataclass(eq=False)
class Ways:
    """The lattice of a design with the cheapest way from one equipment room to every node, or the
    ``shortest``.

    A node stands twice, once for each layer, ``nodes`` apart; a riser's own nodes come after
    both layers.
    """

    plan: Storeys
    storeys: dict[str, Storey]
    cost: Array
    previous: NDArray[np.int32]
    links: dict[tuple[int, int], WayEdge]
    room: EquipmentRoom
    rules: Rules
    shortest: bool = False
    nodes: int = 0
    source: int = -1
    graph: Any = None
    floor_of: list[str] = field(default_factory=list)

    @property
    def void_m(self) -> float:
        return self.rules["cabling.void_above_ceiling_m"]

    def plain(self, node: int) -> int:
        """Return a node's number without its layer."""
        return node - self.nodes if self.nodes <= node < 2 * self.nodes else node

    def floor_at(self, node: int) -> str:
        """Return the floor of a node; a riser's own nodes come last in ``floor_of``."""
        return self.floor_of[node if node < self.nodes else node - self.nodes]


_ways: IdentityMemo[dict[str, Ways]] = IdentityMemo(64)
_lattices: IdentityMemo[dict[str, Storey]] = IdentityMemo(64)


def ways_of(design: Design, catalogue: Catalogue, shortest: bool = False) -> dict[str, Ways]:
    """Return the ways from each equipment room; the same objects as long as nothing they rest
    on changes.

    Args:
        shortest: by their metres alone, not by what they cost to work.
    """
    parts = tuple(design.of(cls) for cls in (Floor, Space, Building, Riser, Duct))
    # Racks by what they are: one that is tried out is put into more than one drawing.
    rooms = tuple(design.of(EquipmentRoom).values())
    # Walls bear on the ways by their masonry alone, so any other may move as it likes.
    masonry = _masonry(design, catalogue)
    key = tuple((f, rows.tobytes()) for f, rows in masonry.items())
    mains = mains_lines(design)
    return _ways.get(
        (*parts, catalogue, mains),
        (key, rooms, shortest),
        lambda: _make(design, catalogue.rules, masonry, mains, shortest),
    )


def _make(
    design: Design, rules: Rules, masonry: dict[str, Array], mains: tuple[MainsLine, ...], shortest: bool
) -> dict[str, Ways]:
    parts = tuple(design.of(c) for c in (Floor, Space, Building, Riser, Duct))
    rooms = list(design.of(EquipmentRoom).values())
    if not rooms:
        return {}
    plan = storeys_of(design)
    storeys = _lattices.get((*parts, plan, rules), tuple(rooms), lambda: _make_storeys(design, plan, rules))
    count = sum(_block(s) for s in storeys.values())
    ways = Ways(plan, storeys, np.empty(0), np.empty(0, np.int32), {}, rooms[0], rules, shortest)
    ways.nodes = count
    ways.floor_of = [s.floor.id for s in storeys.values() for _ in range(_block(s))]
    edges = [_turns(count, _TINY_COST if shortest else rules["cabling.turn_cost"])]
    for storey in storeys.values():
        here = _pieces(mains, storey.floor.id)
        if shortest:
            edges.append(_lattice_lengths(storey, count))
        else:
            walls = masonry[storey.floor.id]

            def work_out(storey: Storey = storey, walls: Array = walls, here: Array = here) -> Edges:
                return _lattice_edges(storey, rules, walls, here, count)

            edges.append(_costs.get((storey, rules), (walls.tobytes(), here.tobytes(), count), work_out))
    per_m = _PLAIN_COSTS if shortest else rules.table("cabling.cost_per_m")
    edges += list(_risers(design, ways, per_m["rise"]))
    edges += list(_ducts(design, ways, per_m["duct"]))
    graph: Any = _graph(edges, count + len(ways.floor_of))
    ways.graph = graph
    return {room.id: _from(ways, graph, room) for room in rooms}


def beginning_at(ways: Ways, device: Device) -> Ways:
    """Return the ways from a device that begins runs anew, over the lattice of others."""
    spot = EquipmentRoom(
        id=device.id,
        floor=device.floor,
        name=device.name,
        at=device.at,
        rack_height_m=max(0.0, min(device.height_m, MOST_RACK_M)),
    )
    return _begun.get((ways, device), None, lambda: _from(ways, ways.graph, spot))


MOST_RACK_M = 3.0  # as high as a beginning of runs may stand
_begun: IdentityMemo[Ways] = IdentityMemo(64)
_onward: IdentityMemo[Ways] = IdentityMemo(256)


def onward(ways: Ways, node: int) -> Ways:
    """Return the ways from a node of the lattice that a run is led through."""

    def work_out() -> Ways:
        cost, previous = dijkstra(ways.graph, indices=node, return_predecessors=True)  # type: ignore[call-overload]
        return replace(ways, source=node, cost=cost, previous=previous)

    return _onward.get((ways,), node, work_out)


def _from(ways: Ways, graph: Any, room: EquipmentRoom) -> Ways:
    """Return the ways from one room; nothing is reached from one that has no storey under it."""
    storey = ways.storeys.get(room.floor)
    if storey is None:
        return replace(ways, room=room)
    source = storey.nearest(room.at)
    cost, previous = dijkstra(graph, indices=source, return_predecessors=True)  # type: ignore[call-overload]
    return replace(ways, room=room, source=source, cost=cost, previous=previous)


def _make_storeys(design: Design, plan: Storeys, rules: Rules) -> dict[str, Storey]:
    turns = _directions(design)
    step_m = _lattice_step_m(design)
    found: dict[str, Storey] = {}
    void_m, first = rules["cabling.void_above_ceiling_m"], 0
    for floor in design.of(Floor).values():
        turn = turns[floor.building]
        through = list(_terminals(design, floor))

        def work_out(
            floor: Floor = floor, turn: float = turn, first: int = first, through: list[Point] = through
        ) -> Storey | None:
            return storey_of(plan, floor, turn, first, step_m, through, void_m)

        storey = _storeys.get((plan, floor), (turn, first, step_m, tuple(through), void_m), work_out)
        if storey is not None:
            found[floor.id] = storey
            first += _block(storey)
    return found


# A rack that is tried out changes the lattice of its own storey alone.
_storeys: IdentityMemo[Storey | None] = IdentityMemo(256)


def _block(storey: Storey) -> int:
    """Return how many numbers a storey's nodes have to themselves: a few more do not move the next
    storey's, which then stays as it is."""
    return -(-len(storey.xy) // _BLOCK) * _BLOCK


def _directions(design: Design) -> dict[str, float]:
    """Return the direction of each building, radians."""
    floors = design.of(Floor)
    outlines: dict[str, list[tuple[Point, ...]]] = {b: [] for b in design.of(Building)}
    for space in design.of(Space).values():
        if not space.outdoor:
            outlines[floors[space.floor].building].append(space.outline)
    return {building: direction_of(rows) for building, rows in outlines.items()}


def _terminals(design: Design, floor: Floor) -> Iterator[Point]:
    for room in design.of(EquipmentRoom).values():
        if room.floor == floor.id:
            yield room.at
    for riser in design.of(Riser).values():
        if riser.building == floor.building and _serves(riser, floor):
            yield riser.at
    for duct in design.of(Duct).values():
        if duct.from_floor == floor.id:
            yield duct.path[0]
        if duct.to_floor == floor.id:
            yield duct.path[-1]


def _serves(riser: Riser, floor: Floor) -> bool:
    return riser.lowest_level <= floor.level <= riser.highest_level


def _lattice_step_m(design: Design) -> float:
    area = sum(Polygon(s.outline).area for s in design.of(Space).values() if not s.outdoor)
    return max(LATTICE_M, math.sqrt(area / MOST_NODES))


def _masonry(design: Design, catalogue: Catalogue) -> dict[str, Array]:
    """Return by floor the walls (x1 y1 x2 y2) that a cable has to break through, or that it must be
    stopped in."""
    rows: dict[str, list[tuple[float, ...]]] = {floor: [] for floor in design.of(Floor)}
    for wall in design.of(Wall).values():
        if wall.rated or catalogue.constructions[wall.construction].masonry:
            rows[wall.floor].append((*wall.a, *wall.b))
    return {f: np.array(found, dtype=np.float64).reshape(-1, 4) for f, found in rows.items()}


Edges = tuple[NDArray[np.int64], NDArray[np.int64], Array]
_costs: IdentityMemo[Edges] = IdentityMemo(256)


def _turns(count: int, cost: float) -> Edges:
    nodes = np.arange(count)
    return nodes, nodes + count, np.full(count, cost)


def _pieces(mains: tuple[MainsLine, ...], floor: str) -> Array:
    """Return the straight pieces (x1 y1 x2 y2) of a storey's mains cables."""
    rows = [(*a, *b) for m in mains if m.floor == floor for a, b in itertools.pairwise(m.points)]
    return np.array(rows, dtype=np.float64).reshape(-1, 4)


def _lattice_edges(storey: Storey, rules: Rules, masonry: Array, mains: Array, count: int) -> Edges:
    """Return the edges along the building (layer 0) and across it (layer 1) of one storey."""
    costs = rules.table("cabling.cost_per_m")
    per_m = np.array([costs[k] for k in OVERHEADS])[storey.overhead]
    start, end = storey.start, storey.end
    length = np.abs(storey.uv[end] - storey.uv[start]).sum(axis=1)
    cost = length * (per_m[start] + per_m[end]) / 2
    cost += costs["rise"] * np.abs(storey.z_m[end] - storey.z_m[start])
    cost += rules["cabling.masonry_cost"] * _crossings(storey, masonry)
    if len(mains):
        apart_m = rules["plan.mains_beside_apart_m"]
        cost += rules["cabling.beside_mains_cost"] * length * _beside(storey, mains, apart_m)
    layer = np.where(storey.north, count, 0) + storey.first
    return start + layer, end + layer, cost


_TINY_COST = 1e-6  # of two ways of one length that with fewer turns
_PLAIN_COSTS = {"rise": 1.0, "duct": 1.0}


def _lattice_lengths(storey: Storey, count: int) -> Edges:
    """Return the edges of one storey by their metres alone."""
    start, end = storey.start, storey.end
    length = np.abs(storey.uv[end] - storey.uv[start]).sum(axis=1)
    length += np.abs(storey.z_m[end] - storey.z_m[start])
    layer = np.where(storey.north, count, 0) + storey.first
    return start + layer, end + layer, length


def _beside(storey: Storey, mains: Array, apart_m: float) -> NDArray[np.bool_]:
    """Return which edges lie along a mains cable and nearer to it than they may for long."""
    found = np.zeros(len(storey.start), dtype=bool)
    line, edge = storey.edges.query(
        shapely.linestrings(mains.reshape(-1, 2, 2)), predicate="dwithin", distance=apart_m
    )
    way = mains[:, 2:] - mains[:, :2]
    way /= np.maximum(np.linalg.norm(way, axis=1), 1e-9)[:, None]
    step = storey.xy[storey.end[edge]] - storey.xy[storey.start[edge]]
    step /= np.maximum(np.linalg.norm(step, axis=1), 1e-9)[:, None]
    found[edge[np.abs((way[line] * step).sum(axis=1)) > ALONG]] = True
    return found


def _crossings(storey: Storey, walls: Array) -> Array:
    """Return how many walls (x1 y1 x2 y2) each edge crosses or lies in, one drawn twice once."""
    crossed = np.zeros(len(storey.start))
    if not len(walls):
        return crossed
    lines = shapely.linestrings(walls.reshape(-1, 2, 2))
    wall, edge = storey.edges.query(lines, predicate="intersects")
    a, b = storey.xy[storey.start[edge]], storey.xy[storey.end[edge]]
    p, q = walls[wall, 0:2], walls[wall, 2:4]

    def side(of: Array, start: Array, end: Array) -> Array:
        along, offset = end - start, of - start
        return np.asarray(along[:, 0] * offset[:, 1] - along[:, 1] * offset[:, 0])

    from_a, from_b = side(a, p, q), side(b, p, q)
    through = ((from_a >= 0) != (from_b >= 0)) & ((side(p, a, b) >= 0) != (side(q, a, b) >= 0))
    # A cable does not run inside the masonry either, where a line lies along a wall.
    reach = _ON_WALL_M * np.linalg.norm(q - p, axis=1)
    within = (np.abs(from_a) < reach) & (np.abs(from_b) < reach)
    np.add.at(crossed, np.unique(edge[within]), 1)
    edge, from_a, from_b = edge[through], from_a[through], from_b[through]
    at_m = from_a / (from_a - from_b) * np.linalg.norm((b - a)[through], axis=1)
    order = np.lexsort((at_m, edge))
    edge, at_m = edge[order], at_m[order]
    again = np.zeros(len(edge), dtype=bool)
    again[1:] = (edge[1:] == edge[:-1]) & (at_m[1:] - at_m[:-1] < _SAME_WALL_M)
    np.add.at(crossed, edge[~again], 1)
    return crossed


def _risers(design: Design, ways: Ways, per_m: float) -> Iterable[Edges]:
    """Give each riser a node at every storey: who passes a storey by pays no detour there."""
    for riser in design.of(Riser).values():
        served = [
            s for s in ways.storeys.values() if s.floor.building == riser.building and _serves(riser, s.floor)
        ]
        served.sort(key=lambda s: s.elevation_m)
        shaft: list[tuple[int, float]] = []
        for storey in served:
            z_m = void_z_m(ways.plan, None, storey.floor, ways.void_m)
            node = ways.nodes + len(ways.floor_of)
            ways.floor_of.append(storey.floor.id)
            near = storey.nearest(riser.at)
            apart_m = storey.aside_m(near, riser.at) + abs(storey.height_m(near) - z_m)
            link = WayEdge("riser", apart_m, (storey.spot(near), riser.at), riser.id)
            yield _join(ways.links, near, node, link, per_m)
            shaft.append((node, z_m))
        for (low, low_m), (high, high_m) in itertools.pairwise(shaft):
            link = WayEdge("riser", abs(high_m - low_m), (riser.at, riser.at), riser.id)
            yield _join(ways.links, low, high, link, per_m)


def _ducts(design: Design, ways: Ways, per_m: float) -> Iterable[Edges]:
    for duct in design.of(Duct).values():
        near, far = (ways.storeys.get(f) for f in (duct.from_floor, duct.to_floor))
        if near is None or far is None:
            continue
        start, end = near.nearest(duct.path[0]), far.nearest(duct.path[-1])
        along = sum(math.dist(a, b) for a, b in itertools.pairwise(duct.path))
        ends = ((near, start), (far, end))
        drops = sum(s.height_m(n) - s.elevation_m + duct.depth_m for s, n in ends)
        aside = near.aside_m(start, duct.path[0]) + far.aside_m(end, duct.path[-1])
        link = WayEdge("duct", along + drops + aside, duct.path, duct.id)
        yield _join(ways.links, start, end, link, per_m)


def _join(
    links: dict[tuple[int, int], WayEdge], start: int, end: int, link: WayEdge, cost_per_m: float
) -> Edges:
    # Of two ways between the same nodes the shorter one is taken.
    if (start, end) not in links or link.length_m < links[start, end].length_m:
        links[start, end] = link
        links[end, start] = WayEdge(link.kind, link.length_m, link.points[::-1], link.way)
    cost = np.array([max(link.length_m * cost_per_m, 1e-6)])
    return np.array([start]), np.array([end]), cost


def _graph(edges: Iterable[Edges], nodes: int) -> Any:
    """Return the graph both ways round; of edges between the same nodes the cheapest."""
    starts, ends, costs = (np.concatenate(part) for part in zip(*edges, strict=True))
    rows, columns = np.concatenate([starts, ends]), np.concatenate([ends, starts])
    cost = np.concatenate([costs, costs])
    order = np.lexsort((cost, columns, rows))
    rows, columns, cost = rows[order], columns[order], cost[order]
    first = np.ones(len(rows), dtype=bool)
    first[1:] = (rows[1:] != rows[:-1]) | (columns[1:] != columns[:-1])
    graph = coo_array((cost[first], (rows[first], columns[first])), shape=(nodes, nodes))
    return graph.tocsr()
