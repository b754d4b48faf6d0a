"""Walls of a drawing, whether one line or two faces were drawn of them, and the doors and windows in them."""

from __future__ import annotations

import math
from collections import Counter
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from typing import Literal

from shapely.geometry import LineString, Point
from shapely.strtree import STRtree

from ..core.catalogue import Catalogue, Construction
from ..core.context.integrity import MAX_ELEMENTS, MIN_WALL_M
from ..core.design import Opening, Wall
from ..core.walling import FaceWall, faces_met, walls_of_faces
from .dxf_entities import refuse
from .dxf_lines import Segment, Swing
from .dxf_rooms import untangled

ON_WALL_M = 0.15
THICK_M = 0.2  # from here on a wall may be drawn as another construction than its layer's
LEAST_SHARE = 0.4  # so much of a layer's lines being faces, it is drawn by two of them
MOST_LINES = 20_000  # beyond, lines are taken as they are: walls are never so many
_LEAST_OPENING_M = 0.1
_DOOR_M = (0.5, 1.6)
_HINGE_M = 0.3
_LEAF_REACH = 1.03
_SQUARE = math.cos(math.radians(12))
Kind = Literal["door", "window", "gap"]
USUAL: dict[Kind, str] = {"door": "door-hollow", "window": "glass-clear", "gap": "open-gap"}


@dataclass
class Drawn:
    """The lines of one storey in m, by layer, with what each is drawn as."""

    by_layer: Mapping[str, Sequence[Segment]]
    constructions: Mapping[str, Construction]
    others: Sequence[Segment] = ()
    swings: Sequence[Swing] = ()
    faces: bool | None = None
    thick: str | None = None
    two_faced: bool = field(default=False, init=False)


@dataclass(frozen=True)
class _Laid:
    """A wall, and what is known of it beyond what a plan keeps."""

    wall: Wall
    thick_m: float
    gaps: tuple[tuple[float, float], ...]


def walls_of(drawn: Drawn, floor: str, count: int) -> tuple[list[Wall], list[Opening]]:
    """Return the walls and openings of a storey, their ids numbered from ``count`` on.

    Raises:
        DesignError: there are too many.
    """
    laid: list[_Laid] = []
    faces = [(c, f) for c, rows in _by_construction(drawn) for f in rows]
    if len(faces) + count > MAX_ELEMENTS["wall"]:
        refuse("layers", f"give more than {MAX_ELEMENTS['wall']:,} walls; choose fewer layers")
    met = faces_met([f for _, f in faces]) if drawn.two_faced else [f for _, f in faces]
    seen: set[tuple[tuple[float, float], tuple[float, float]]] = set()
    for (usual, _), face in zip(faces, met, strict=True):
        construction = drawn.thick if drawn.thick and (face.thick_m or 0.0) >= THICK_M else usual
        a, b = ((round(x, 4), round(y, 4)) for x, y in (face.a, face.b))
        if math.dist(a, b) < MIN_WALL_M or (min(a, b), max(a, b)) in seen:
            continue
        seen.add((min(a, b), max(a, b)))
        number = count + len(laid) + 1
        wall = Wall(id=f"w{number}", floor=floor, a=a, b=b, construction=construction)
        laid.append(_Laid(wall, face.thick_m or 0.0, face.gaps))
    return [one.wall for one in laid], list(_openings(drawn, laid))


def _by_construction(drawn: Drawn) -> list[tuple[str, Sequence[FaceWall]]]:
    """Return walls with their construction, each layer's for itself: one wall's faces lie on one layer."""
    layers = {k: rows for k, rows in drawn.by_layer.items() if drawn.constructions[k].kind == "wall"}
    lines = {k: [((s[0], s[1]), (s[2], s[3])) for s in rows] for k, rows in layers.items()}
    plain: list[tuple[str, Sequence[FaceWall]]] = []
    for k, rows in lines.items():
        plain.append((drawn.constructions[k].id, [FaceWall(a, b, None) for a, b in rows]))
    if drawn.faces is False or sum(map(len, lines.values())) > MOST_LINES:
        return plain
    untangled(
        [
            Wall(id=f"l{n}", floor="f", a=a, b=b, construction="line")
            for n, (a, b) in enumerate(line for rows in lines.values() for line in rows)
            if a != b
        ]
    )
    windows = [
        s for k, rows in drawn.by_layer.items() if drawn.constructions[k].kind == "window" for s in rows
    ]
    across = [((s[0], s[1]), (s[2], s[3])) for s in (*drawn.others, *windows)]
    found = {k: walls_of_faces(rows, across) for k, rows in lines.items()}
    size = {k: sum(math.dist(a, b) for a, b in rows) for k, rows in lines.items()}
    share = sum(f.share * size[k] for k, f in found.items()) / (sum(size.values()) or 1.0)
    if not drawn.faces and share < LEAST_SHARE:
        return plain
    drawn.two_faced = True
    return [(drawn.constructions[k].id, f.walls) for k, f in found.items()]


def _openings(drawn: Drawn, laid: Sequence[_Laid]) -> Iterator[Opening]:
    """Yield doors and windows: those of their layers, then swings of doors, then gaps between walls."""
    placed, leaves = _Placed(laid), _Leaves(drawn.swings)
    for layer, rows in drawn.by_layer.items():
        construction = drawn.constructions[layer]
        if construction.kind in USUAL:
            for s in rows:
                if s not in leaves:
                    yield from placed.along(s, construction.kind, construction.id)
    built = {c.kind: c.id for c in reversed(list(drawn.constructions.values())) if c.kind in USUAL}
    for swing in drawn.swings:
        yield from placed.hung(swing, built.get("door", USUAL["door"]))
    windows = [LineString([s[:2], s[2:]]) for s in drawn.others]
    tree = STRtree(windows) if windows else None
    for k, one in enumerate(laid):
        for low, high in one.gaps:
            kind: Kind = "gap"
            if tree is not None and _runs_along(one, (low, high), tree, windows):
                kind = "window"
            yield from placed.at(k, low, high, kind, built.get(kind, USUAL[kind]))


class _Leaves:
    """Open leaves of doors and pieces of their swings: lines that are no door themselves."""

    def __init__(self, swings: Sequence[Swing]) -> None:
        self._swings = swings
        self._tree = STRtree([Point(s.hinge) for s in swings]) if swings else None
        self._widest = max((s.width for s in swings), default=0.0)

    def __contains__(self, line: Segment) -> bool:
        if self._tree is None:
            return False
        near = self._tree.query(Point(line[:2]), predicate="dwithin", distance=_LEAF_REACH * self._widest)
        return any(_reaches(self._swings[int(k)], line) for k in near)


def _reaches(swing: Swing, line: Segment) -> bool:
    reach = _LEAF_REACH * swing.width
    return all(math.dist(swing.hinge, line[k : k + 2]) <= reach for k in (0, 2))


def _runs_along(one: _Laid, gap: tuple[float, float], tree: STRtree, lines: Sequence[LineString]) -> bool:
    wall = one.wall
    ux, uy = (wall.b[0] - wall.a[0]) / wall.length_m, (wall.b[1] - wall.a[1]) / wall.length_m
    ends = [(wall.a[0] + ux * t, wall.a[1] + uy * t) for t in gap]
    for k in tree.query(LineString(ends), predicate="dwithin", distance=one.thick_m / 2 + 0.02):
        (ax, ay), (bx, by) = lines[int(k)].coords
        along = abs((bx - ax) * ux + (by - ay) * uy)
        if along > 0.8 * (gap[1] - gap[0]) and along > _SQUARE * lines[int(k)].length:
            return True
    return False


class _Placed:
    """Puts openings in walls, no two over one another."""

    def __init__(self, laid: Sequence[_Laid]) -> None:
        self._laid = laid
        self._tree = STRtree([LineString([o.wall.a, o.wall.b]) for o in laid]) if laid else None
        self._taken: Counter[str] = Counter()
        self._spans: dict[str, list[tuple[float, float]]] = {}

    def along(self, line: Segment, kind: Kind, construction: str) -> Iterator[Opening]:
        """An opening for a line that lies along a wall: in the one that holds most of it."""
        if self._tree is None:
            return
        near = self._tree.query(
            LineString([line[:2], line[2:]]), predicate="dwithin", distance=ON_WALL_M + 0.35
        )
        spots = {int(k): self._held(int(k), line) for k in near}
        held = [(-round(high - low, 4), k, low) for k, spot in spots.items() if spot for low, high in [spot]]
        if held:
            width, k, low = min(held)
            yield from self.at(k, low, low - width, kind, construction)

    def hung(self, swing: Swing, construction: str) -> Iterator[Opening]:
        """A door by its swing: it is shut along the wall that it hangs in, as wide as its leaf."""
        if self._tree is None or not _DOOR_M[0] <= swing.width <= _DOOR_M[1]:
            return
        best: tuple[float, int, float, float] | None = None
        for shut in (swing.one, swing.other):
            leaf = (*swing.hinge, *shut)
            for k in self._tree.query(
                LineString([swing.hinge, shut]), predicate="dwithin", distance=_HINGE_M + 0.35
            ):
                one = self._laid[int(k)]
                (p, off), (q, far) = (_foot(one.wall, leaf[n], leaf[n + 1]) for n in (0, 2))
                most = max(off, far)
                along = abs(q - p) > _SQUARE * swing.width
                if along and most <= one.thick_m / 2 + _HINGE_M and (best is None or most < best[0]):
                    best = (most, int(k), min(p, q), max(p, q))
        if best is not None:
            _, k, low, high = best
            # Where the wall has a gap for it, that is what was cut out.
            gap = next(
                (g for g in self._laid[k].gaps if min(g[1], high) - max(g[0], low) > 0.6 * swing.width), None
            )
            yield from self.at(k, *(gap or (low, high)), "door", construction)

    def at(self, k: int, low: float, high: float, kind: Kind, construction: str) -> Iterator[Opening]:
        wall = self._laid[k].wall
        low, high = max(low, 0.0), min(high, wall.length_m)
        spans = self._spans.setdefault(wall.id, [])
        if high - low < _LEAST_OPENING_M or any(min(q, high) - max(p, low) > 0.02 for p, q in spans):
            return
        spans.append((low, high))
        self._taken[wall.id] += 1
        fields = {
            "id": f"o-{wall.id}-{self._taken[wall.id]}",
            "wall": wall.id,
            "kind": kind,
            "offset_m": round(low, 4),
            "width_m": round(high - low, 4),
            "construction": construction,
        }
        yield Opening.model_validate(fields)

    def _held(self, k: int, line: Segment) -> tuple[float, float] | None:
        """Return from where to where along a wall a line lies in it; None where it does not."""
        one = self._laid[k]
        start, end = (_foot(one.wall, line[n], line[n + 1]) for n in (0, 2))
        if max(start[1], end[1]) > max(ON_WALL_M, one.thick_m / 2 + 0.05):
            return None
        low, high = sorted((start[0], end[0]))
        low, high = max(low, 0.0), min(high, one.wall.length_m)
        return (low, high) if high - low > _LEAST_OPENING_M else None


def _foot(wall: Wall, x: float, y: float) -> tuple[float, float]:
    """Return how far along a wall, and how far off it, a point lies, in m."""
    (ax, ay), (bx, by) = wall.a, wall.b
    dx, dy = (bx - ax) / wall.length_m, (by - ay) / wall.length_m
    return (x - ax) * dx + (y - ay) * dy, abs((x - ax) * dy - (y - ay) * dx)


def constructions_of(layers: Mapping[str, str], catalogue: Catalogue) -> dict[str, Construction]:
    """Return what each layer is drawn as."""
    return {layer: catalogue.constructions[chosen] for layer, chosen in layers.items()}
