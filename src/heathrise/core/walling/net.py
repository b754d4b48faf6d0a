"""Walls as a net: where they meet, which places they close, which of their ends are free.

People draw walls that cross, that stop two millimetres short, and twice over one another. What lies nearer
than the drawing's own tolerance is one; beyond that nothing is bent. Lengths in m, areas in m2.
"""

from __future__ import annotations

import itertools
from collections import Counter, defaultdict
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from functools import cached_property
from typing import Any

import numpy as np
import numpy.typing as npt
import shapely
from scipy.sparse import coo_array
from scipy.sparse.csgraph import connected_components
from scipy.spatial import cKDTree

from ..base.memo import IdentityMemo
from ..catalogue import drawing_style
from ..design import Design, Wall

Point = tuple[float, float]
_Pair = tuple[int, int]

JOIN_M = drawing_style().measures.on_line_m
LEAST_ROOM_M2 = drawing_style().measures.least_room_m2
LEAST_WIDTH_M = drawing_style().measures.least_room_width_m
_LEAST_PLACE_M2 = 0.2  # a room that was made so small is still one
MAX_CROSSINGS = 20_000  # as hatching has; what walls of a building never do
_PASSES = 4  # joining may bring another end near enough; after a few times nothing moves any more


@dataclass(frozen=True, eq=False)
class WallNet:
    """The walls of one storey, joined.

    ``nodes`` are the places where walls end or meet (n, 2); ``pieces`` are the stretches between them,
    each once, as pairs of nodes. Where walls cross more than ``MAX_CROSSINGS`` times, ``tangled`` says
    how often and no place is looked for.
    """

    nodes: npt.NDArray[np.float64]
    pieces: tuple[_Pair, ...]
    tangled: int = 0

    @cached_property
    def lines(self) -> list[Any]:
        return _lines(self.nodes, self.pieces)

    @cached_property
    def faces(self) -> tuple[Any, ...]:
        """The places that walls close and that are large enough for a room, from the north-west on."""
        return tuple(p for p in self.places if p.area >= LEAST_ROOM_M2)

    @cached_property
    def places(self) -> tuple[Any, ...]:
        """All that walls close but their own insides: also what is too small to be made a room of."""
        return _closed_by(self.lines) if not self.tangled else ()

    @cached_property
    def free_ends(self) -> tuple[Point, ...]:
        """Where a wall ends and no other begins or passes."""
        degree = Counter(itertools.chain.from_iterable(self.pieces))
        return tuple((float(self.nodes[n][0]), float(self.nodes[n][1])) for n, d in degree.items() if d == 1)


_nets: IdentityMemo[dict[str, WallNet]] = IdentityMemo(32)


def nets_of(design: Design) -> dict[str, WallNet]:
    """Return the net of each storey that has a wall; the same objects as long as no wall changes."""
    walls = design.of(Wall)

    def make() -> dict[str, WallNet]:
        rows: dict[str, list[Wall]] = defaultdict(list)
        for wall in walls.values():
            rows[wall.floor].append(wall)
        return {floor: net_of(mine) for floor, mine in rows.items()}

    return _nets.get((walls,), None, make)


def net_of(walls: Iterable[Wall]) -> WallNet:
    """Join walls that meet, or that come as near as the drawing's tolerance."""
    ends = [(wall.a, wall.b) for wall in walls]
    if not ends:
        return WallNet(np.zeros((0, 2)), ())
    nodes, pieces = _clustered(np.array(ends, dtype=float).reshape(-1, 2))
    for _ in range(_PASSES):
        split = _split(nodes, pieces)
        if split == pieces:
            break
        pieces = split
    return WallNet(nodes, tuple(sorted(pieces)), _crossings(nodes, pieces))


def faces_of(lines: Sequence[Any]) -> tuple[Any, ...]:
    """Return the places that lines close and that are rooms by size, from the north-west on."""
    return tuple(p for p in _closed_by(lines) if p.area >= LEAST_ROOM_M2)


def _closed_by(lines: Sequence[Any]) -> tuple[Any, ...]:
    if not lines:
        return ()
    found = shapely.get_parts(shapely.polygonize([shapely.union_all(lines)]))
    rooms = found[(shapely.area(found) >= _LEAST_PLACE_M2) & ~is_thin(found)]
    x, y = np.round(shapely.get_coordinates(shapely.centroid(rooms)), 3).T
    return tuple(rooms[np.lexsort((x, -y))])


def is_thin(places: Any) -> Any:
    """Whether a place, or each of several, is the inside of a wall drawn by its two faces, not a room."""
    return 2 * shapely.area(places) / shapely.length(places) < LEAST_WIDTH_M


def _lines(nodes: npt.NDArray[np.float64], pieces: Sequence[_Pair]) -> list[Any]:
    return list(shapely.linestrings(nodes[np.array(pieces)])) if pieces else []


def _clustered(ends: npt.NDArray[np.float64]) -> tuple[npt.NDArray[np.float64], set[_Pair]]:
    """Take ends that lie together for one node, in their middle."""
    near = cKDTree(ends).query_pairs(JOIN_M, output_type="ndarray")
    size = len(ends)
    links = coo_array((np.ones(len(near)), (near[:, 0], near[:, 1])), shape=(size, size))
    count, label = connected_components(links, directed=False)
    weight = np.bincount(label, minlength=count)
    nodes = np.stack([np.bincount(label, ends[:, k], count) / weight for k in (0, 1)], axis=1)
    # A wall shorter than the tolerance has its ends in one node, and is none.
    return nodes, {_pair(*ab) for ab in label.reshape(-1, 2).tolist() if ab[0] != ab[1]}


def _pair(a: int, b: int) -> _Pair:
    return (a, b) if a < b else (b, a)


def _split(nodes: npt.NDArray[np.float64], pieces: set[_Pair]) -> set[_Pair]:
    """Divide each piece at the nodes that lie on it."""
    order = sorted(pieces)
    lines = _lines(nodes, order)
    points = shapely.points(nodes)
    at, on = shapely.STRtree(points).query(lines, predicate="dwithin", distance=JOIN_M)
    passed: dict[int, list[tuple[float, int]]] = defaultdict(list)
    for piece, node in zip(at.tolist(), on.tolist(), strict=True):
        if node not in order[piece]:
            passed[piece].append((float(lines[piece].project(points[node])), node))
    made: set[_Pair] = set()
    for number, (a, b) in enumerate(order):
        inside = [n for _, n in sorted(passed.get(number, ()))]
        made.update(_pair(p, q) for p, q in itertools.pairwise([a, *inside, b]))
    return made


def _crossings(nodes: npt.NDArray[np.float64], pieces: set[_Pair]) -> int:
    """Return how often pieces cross where that is more than anything can be found in, else 0."""
    lines = _lines(nodes, sorted(pieces))
    tree = shapely.STRtree(lines)
    # Boxes are asked first: those of an ordinary storey meet seldom enough already.
    if len(tree.query(lines)[0]) // 2 <= MAX_CROSSINGS:
        return 0
    crossings = len(tree.query(lines, predicate="crosses")[0]) // 2
    return crossings if crossings > MAX_CROSSINGS else 0
