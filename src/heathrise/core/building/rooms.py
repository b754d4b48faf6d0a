"""Rooms and the walls about them: gaps that keep one open, places that nobody drew a room in."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterator, Sequence
from typing import Any

import shapely
from shapely.geometry import Polygon

from ..base.memo import IdentityMemo
from ..base.shapes import shape_of
from ..base.wording import metres, some
from ..catalogue import Catalogue, drawing_style
from ..context.findings import Cure, Finding, Place
from ..design import Change, Design, Floor, Opening, Space, Wall, apply, free_number, put
from ..walling import Gap, follow, fresh_names, gaps_of, nets_of, outline_of, twins

_SOURCE = "geometry of the drawing"
_COVERED = 0.2
_EACH = 5  # so many gaps of a storey are told one by one, more of them together
_SHORTEST_WALL_M = drawing_style().measures.shortest_wall_m


_kept: IdentityMemo[tuple[Finding, ...]] = IdentityMemo(32)


def room_findings(design: Design, catalogue: Catalogue) -> tuple[Finding, ...]:
    """Return the gaps that keep a room open, and the places between walls without a room; the same as
    long as no wall and no room changes, so that a drag of anything else pays nothing for it."""
    parts = (design.of(Floor), design.of(Wall), design.of(Opening), design.of(Space), catalogue.rules)
    return _kept.get(parts, None, lambda: tuple(_found(design, catalogue)))


def _found(design: Design, catalogue: Catalogue) -> Iterator[Finding]:
    by_floor: dict[str, list[Gap]] = defaultdict(list)
    for gap in gaps_of(design, catalogue.rules["plan.gap_m"]):
        by_floor[gap.floor].append(gap)
    for floor, gaps in by_floor.items():
        for gap in gaps[:_EACH]:
            yield _gap(design, catalogue, gap)
        if len(gaps) > _EACH:
            yield _many(design, catalogue, floor, gaps[_EACH:])
    yield from _bare(design)


def _gap(design: Design, catalogue: Catalogue, gap: Gap) -> Finding:
    storey = design.of(Floor)[gap.floor].name
    least_m = catalogue.rules["plan.door_gap_m"]
    closed = Cure(
        label=f"Close it with {metres(gap.width_m, 2)} of wall",
        effect=f"a room of {gap.closes_m2:.1f} m² is closed",
        changes=_with_rooms(design, _closing(design, gap, None)),
    )
    cures = [closed]
    if gap.width_m >= least_m:
        door = Cure(
            label=f"Put a door of {metres(gap.width_m, 2)} there",
            effect=closed.effect,
            changes=_with_rooms(design, _closing(design, gap, "door")),
        )
        cures = [door, closed]
    x, y = ((gap.start[k] + gap.end[k]) / 2 for k in (0, 1))
    return Finding(
        id=f"plan-gap-{gap.id}",
        stage="plan",
        severity="note",
        text=f"{storey}: a wall stops {metres(gap.width_m, 2)} short, "
        f"and a room of {gap.closes_m2:.1f} m² stays open.",
        places=(Place(kind="wall", id=gap.wall, floor=gap.floor, at=(round(x, 3), round(y, 3))),),
        figure=round(gap.width_m, 3),
        limit=catalogue.rules["plan.gap_m"],
        unit="m",
        rule="a room is closed by walls, and a way through one is a door or a gap in it",
        source=_SOURCE,
        used=catalogue.rules.used("plan.gap_m", "plan.door_gap_m"),
        cures=tuple(cures),
    )


def _many(design: Design, catalogue: Catalogue, floor: str, gaps: Sequence[Gap]) -> Finding:
    """Tell the rest of a storey's gaps as one."""
    least_m = catalogue.rules["plan.door_gap_m"]
    changes: list[Change] = []
    built = design
    for gap in gaps:
        made = _closing(built, gap, "door" if gap.width_m >= least_m else None)
        built = apply(built, made)
        changes += made
    label = "Close them all, with a door where one fits"
    return Finding(
        id=f"plan-gaps-{floor}",
        stage="plan",
        severity="note",
        text=f"{design.of(Floor)[floor].name}: {len(gaps)} more gaps between walls keep rooms open.",
        places=tuple(Place(kind="wall", id=g.wall, floor=floor, at=g.start) for g in gaps),
        figure=float(len(gaps)),
        rule="a room is closed by walls, and a way through one is a door or a gap in it",
        source=_SOURCE,
        used=catalogue.rules.used("plan.gap_m", "plan.door_gap_m"),
        cures=(Cure(label=label, changes=_with_rooms(design, changes)),),
    )


def _closing(design: Design, gap: Gap, opening: str | None) -> list[Change]:
    """Return a wall across a gap, of what the wall that stops is made of, with a door in it.

    What is shorter than a wall may be is mended by the wall itself, which goes on so far.
    """
    walls = design.of(Wall)
    stops = walls.get(gap.wall) or next(w for w in walls.values() if w.floor == gap.floor)
    if gap.width_m < _SHORTEST_WALL_M:
        far = _farther(stops, gap.start)
        return [put(stops.model_copy(update={far: gap.end}))]
    key = f"wall-{free_number(walls, 'wall')}"
    wall = Wall(
        id=key, floor=gap.floor, a=gap.start, b=gap.end, construction=stops.construction, rated=stops.rated
    )
    changes: list[Change] = [put(wall)]
    if opening:
        fields = {
            "id": f"opening-{free_number(design.of(Opening), 'opening')}",
            "wall": key,
            "kind": "door",
            "offset_m": 0.0,
            "width_m": round(wall.length_m, 4),
            "construction": "door-hollow",
        }
        changes.append(put(Opening.model_validate(fields)))
    return changes


def _farther(wall: Wall, at: tuple[float, float]) -> str:
    return min(("a", "b"), key=lambda end: shapely.Point(getattr(wall, end)).distance(shapely.Point(at)))


def _with_rooms(design: Design, changes: Sequence[Change]) -> tuple[Change, ...]:
    return (*changes, *follow(design, apply(design, changes)).changes)


def _bare(design: Design) -> Iterator[Finding]:
    """Yield each storey on which walls close places that no room is drawn in."""
    spaces: dict[str, list[Any]] = defaultdict(list)
    for space in design.of(Space).values():
        spaces[space.floor].append(shape_of(space.outline))
    names = fresh_names(design)
    for floor, net in nets_of(design).items():
        tree, drawn = shapely.STRtree(spaces[floor]), twins(net.faces, spaces[floor])
        loose = [p for k, p in enumerate(net.faces) if k not in drawn]
        bare = [p for p in loose if _share(p, tree, spaces[floor]) < _COVERED]
        rooms = [(next(names), outline) for p in bare if (outline := outline_of(p))]
        if not rooms:
            continue
        made = [
            Space.model_validate({"id": key, "floor": floor, "name": name, "outline": outline})
            for (key, name), outline in rooms
        ]
        total_m2 = sum(Polygon(r.outline).area for r in made)
        several = len(made) > 1
        yield Finding(
            id=f"plan-bare-{floor}",
            stage="plan",
            severity="note",
            text=f"{design.of(Floor)[floor].name}: walls close {len(made)} "
            f"{'places' if several else 'place'}, {total_m2:.1f} m² together, with no room in "
            f"{'them' if several else 'it'}. No signal is judged there.",
            places=tuple(
                Place(kind="floor", id=floor, floor=floor, at=_middle(Polygon(r.outline))) for r in made[:20]
            ),
            figure=float(len(made)),
            rule="what walls close is a room",
            source=_SOURCE,
            cures=(
                Cure(
                    label=f"Make {'rooms of them' if several else 'a room of it'}",
                    effect=f"as {some([r.name for r in made])}",
                    changes=tuple(put(r) for r in made),
                ),
            ),
        )


def _share(place: Any, tree: Any, rooms: Sequence[Any]) -> float:
    over = [rooms[k] for k in tree.query(place, predicate="intersects")]
    return float(place.intersection(shapely.union_all(over)).area / place.area) if over else 0.0


def _middle(place: Any) -> tuple[float, float]:
    point = place.representative_point()
    return (round(point.x, 3), round(point.y, 3))
