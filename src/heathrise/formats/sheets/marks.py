"""What stands and lies on a sheet: gear, paths of cable, the marks of the brief."""

from __future__ import annotations

import math
from collections.abc import Iterator, Mapping, Sequence

import shapely

from ...core.cabling import CableChapter, LinkVerdict, RunVerdict
from ...core.catalogue import Catalogue, Rules, drawing_style
from ...core.context.racks import rack_at
from ...core.design import (
    Complaint,
    Design,
    Device,
    Duct,
    EquipmentRoom,
    Floor,
    Light,
    LineEntry,
    OldCable,
    Panel,
    Point,
    Riser,
    Socket,
    Zone,
)
from ...core.mains import clear_of, mains_lines
from ...core.sight import Level, views_of
from .paper import (
    GORSE,
    GRANITE,
    INK,
    LABEL_MM,
    MOSS,
    PAPER,
    RUST,
    TARN,
    Box,
    Paper,
    PaperPoint,
    cleared,
    text,
)

_OUTCOMES = {"mended": MOSS, "better": GORSE, "not_addressed": RUST}
SHOWN_SIGHT: Level = "recognise"
_MARK = 0.24  # mm to a unit of a mark's field
PX_MM = 0.25
_PLAIN_DASH = "6"
# Of cables side by side, by the root of their number; a shorter ribbon has no number.
_RIBBON_MM, _WIDER_MM, _WIDEST_MM = 0.4, 0.2, 2.2
_NUMBERED_MM = 6.0


def mark(shape: str, x: float, y: float, turn: float | None, tone: str = INK) -> str:
    drawing = drawing_style().marks[shape]
    parts = []
    for stroke in drawing.strokes:
        if stroke.drawn == "aim" and turn is None:
            continue
        fill = {"body": PAPER, "clear": PAPER, "dot": tone}.get(stroke.drawn, "none")
        line = tone if stroke.drawn in ("body", "line", "aim") else "none"
        rotate = f' transform="rotate({turn or 0:g})"' if drawing.turns or stroke.drawn == "aim" else ""
        parts.append(
            f'<path d="{stroke.d}" fill="{fill}" stroke="{line}" stroke-width="1.8" '
            f'stroke-linejoin="round" stroke-linecap="round"{rotate}/>'
        )
    return f'<g transform="translate({x:.2f} {y:.2f}) scale({_MARK})">{"".join(parts)}</g>'


def gear(
    design: Design, catalogue: Catalogue, floor: str, paper: Paper, labels: Mapping[str, str]
) -> Iterator[str]:
    """Yield racks, risers and devices with their names; ``labels`` stand beside those of some."""
    level = design.of(Floor)[floor]
    marks: list[tuple[str, str, Point, float | None, str, str]] = [
        ("hut", r.name, r.at, None, INK, "") for r in design.of(EquipmentRoom).values() if r.floor == floor
    ]
    marks += [
        ("well", r.name, r.at, None, INK, "")
        for r in design.of(Riser).values()
        if r.building == level.building and r.lowest_level <= level.level <= r.highest_level
    ]
    racks: dict[int, PaperPoint] = {}
    for device in design.of(Device).values():
        if device.floor == floor:
            role = catalogue.role_of(device)
            turn = device.azimuth_deg if role.aimed or device.mount != "ceiling" else None
            tone = INK if device.state in ("new", "keep") else GRANITE
            near = rack_at(design, floor, device.at) if role.leads_out else None
            if near is not None and device.state != "retire":
                racks[len(marks)] = paper.at(near.at)
            marks.append((role.mark, device.name, device.at, turn, tone, labels.get(device.id, "")))
    spots = [paper.stand(paper.at(row[2]), racks.get(k)) for k, row in enumerate(marks)]
    for (shape, _, at, turn, tone, _), (x, y) in zip(marks, spots, strict=True):
        stands = paper.at(at)
        if stands != (x, y):
            yield (
                f'<path d="M{stands[0]:.2f} {stands[1]:.2f}L{x:.2f} {y:.2f}" '
                f'stroke="{GRANITE}" stroke-width="0.2"/>'
                f'<circle cx="{stands[0]:.2f}" cy="{stands[1]:.2f}" r="0.4" fill="{GRANITE}"/>'
            )
        yield mark(shape, x, y, turn, tone)
    for (_, name, _, _, tone, label), spot in zip(marks, spots, strict=True):
        yield from paper.name_beside(name, *spot, tone, label)


def mains_ground(design: Design, floor: str, rules: Rules, paper: Paper) -> Iterator[str]:
    """Yield what mains lay under a storey's gear: the space before panels, cables drawn and guessed."""
    for panel, area in clear_of(design, floor, rules):
        outline = paper.path(list(area.exterior.coords))
        yield (
            f'<path d="{outline}Z" fill="{RUST}" fill-opacity="0.1" stroke="{RUST}" '
            f'stroke-width="0.2" stroke-dasharray="0.9 0.6" data-clear="{panel.id}"/>'
        )
    for line in mains_lines(design):
        if line.floor == floor and len(line.points) > 1:
            wide, dash = (0.25, "0.4 1.1") if line.guessed else (0.4, "1.8 0.6 0.5 0.6")
            yield (
                f'<path d="{paper.path(line.points)}" fill="none" stroke="{GORSE}" '
                f'stroke-width="{wide}" stroke-dasharray="{dash}"/>'
            )


def sight(design: Design, catalogue: Catalogue, floor: str, paper: Paper, within: Box) -> Iterator[str]:
    """Yield the ground on which each camera of a storey shows who somebody is, as far as the sheet goes."""
    frame = shapely.box(*within)
    for view in views_of(design, catalogue):
        zone = next((z for z in view.zones if z.level == SHOWN_SIGHT), None)
        if view.floor != floor or zone is None:
            continue
        seen = shapely.union_all([shapely.Polygon(s[0], s[1:]) for s in zone.shapes]).intersection(frame)
        for part in shapely.get_parts(seen):
            if isinstance(part, shapely.Polygon):
                rings = "".join(f"{paper.path(list(r.coords))}Z" for r in (part.exterior, *part.interiors))
                yield (
                    f'<path d="{rings}" fill="{TARN}" fill-opacity="0.1" fill-rule="evenodd" '
                    f'stroke="{TARN}" stroke-width="0.2" data-sight="{view.device}"/>'
                )


def mains_marks(design: Design, floor: str, paper: Paper) -> Iterator[str]:
    """Yield lights, sockets and panels; they give way to the gear of this job."""
    rows: list[tuple[str, Point, float | None, str]] = []
    rows += [("lamp", e.at, None, "") for e in design.of(Light).values() if e.floor == floor]
    rows += [("spring", e.at, None, "") for e in design.of(Socket).values() if e.floor == floor]
    rows += [("sluice", e.at, e.azimuth_deg, e.name) for e in design.of(Panel).values() if e.floor == floor]
    for shape, at, turn, name in rows:
        x, y = paper.stand(paper.at(at))
        yield mark(shape, x, y, turn, GORSE)
        if name:
            yield from paper.name_beside(name, x, y, GORSE)


def brief(design: Design, floor: str, paper: Paper, outcomes: Mapping[str, str]) -> Iterator[str]:
    for zone in design.of(Zone).values():
        if zone.floor == floor:
            tone = TARN if zone.kind == "later" else RUST
            yield (
                f'<path d="{paper.path(zone.outline)}Z" fill="{tone}" fill-opacity="0.08" '
                f'stroke="{tone}" stroke-width="0.3" stroke-dasharray="1.6 1"/>'
            )
    for cable in design.of(OldCable).values():
        if cable.floor == floor:
            yield (
                f'<path d="{paper.path((cable.a, cable.b))}" stroke="{GRANITE}" '
                'stroke-width="0.5" stroke-dasharray="2.4 0.8 0.5 0.8"/>'
            )
    for entry in design.of(LineEntry).values():
        if entry.floor == floor:
            x, y = paper.at(entry.at)
            paper.taken.append((x - 3.5, y - 2, x + 2.2, y + 2))
            yield (
                f'<path transform="translate({x:.2f} {y:.2f}) scale({_MARK})" '
                f'd="M-13 0H3M-2 -5L4 0L-2 5M7 -8V8" fill="none" stroke="{TARN}" '
                'stroke-width="2.4" stroke-linecap="round"/>'
            )
    for number, pain in enumerate(design.of(Complaint).values(), start=1):
        if pain.floor == floor:
            x, y = paper.at(pain.at)
            tone = _OUTCOMES[outcomes.get(pain.id, "not_addressed")]
            paper.taken.append((x - 2.6, y - 2.6, x + 2.6, y + 2.6))
            yield (
                f'<path d="M{x:.2f} {y - 2.6:.2f}l2.6 2.6l-2.6 2.6l-2.6 -2.6Z" fill="{PAPER}" '
                f'stroke="{tone}" stroke-width="0.5"/>' + text(x, y + 0.8, str(number), 2.3, tone, 600)
            )


def paths(design: Design, cable: CableChapter, floor: str, paper: Paper) -> Iterator[str]:
    """Yield the ways of all cables on a storey: runs side by side as one ribbon with their number, who lies
    alone in dashes by category, ways between racks for themselves."""
    runs = {run.id: run for run in cable.runs}
    numbers: list[str] = []
    for trunk in cable.trunks:
        mine = [runs[key] for key in trunk.links if key in runs]
        if trunk.floor != floor or not mine:
            continue
        if len(mine) == 1:
            yield _dashes(
                paper, (trunk.a, trunk.b), pen_of(mine[0]), TARN if mine[0].medium == "fibre" else INK
            )
            continue
        count = sum(run.cables for run in mine)
        wide = min(_WIDEST_MM, _RIBBON_MM + _WIDER_MM * math.sqrt(count))
        yield (
            f'<path d="{paper.path((trunk.a, trunk.b))}" fill="none" stroke="{GRANITE}" '
            f'stroke-width="{wide:.2f}" stroke-opacity="0.45"/>'
        )
        (ax, ay), (bx, by) = paper.at(trunk.a), paper.at(trunk.b)
        if math.dist((ax, ay), (bx, by)) > _NUMBERED_MM:
            x, y = (ax + bx) / 2, (ay + by) / 2 + 0.7
            numbers.append(cleared(x, y, 1.2 * len(str(count)) + 0.6, 1.7))
            numbers.append(text(x, y, str(count), LABEL_MM, INK, 600))
    yield from _alone(design, cable, floor, paper)
    yield from numbers


def pen_of(link: LinkVerdict) -> str:
    """Return how a link is drawn: a run by its category, fibre and what lies between racks by that."""
    if link.medium == "fibre":
        return "fibre"
    return link.category if isinstance(link, RunVerdict) else "between"


def _alone(design: Design, cable: CableChapter, floor: str, paper: Paper) -> Iterator[str]:
    """Yield what is no ribbon: what lies in the ground, and ways between racks."""
    ducts = {d.id for d in design.of(Duct).values() if floor in (d.from_floor, d.to_floor)}
    weights = drawing_style().space_weights_px
    for link in cable.links:
        kind = pen_of(link)
        for leg in link.legs:
            here = leg.floor == floor or (leg.kind == "duct" and leg.way in ducts)
            told = isinstance(link, RunVerdict) and leg.kind != "duct"
            if len(leg.points) > 1 and leg.kind != "riser" and here and not told:
                tone = TARN if kind == "fibre" else INK
                yield _dashes(paper, leg.points, kind, tone, weights.get(leg.kind))


def _dashes(
    paper: Paper, points: Sequence[Sequence[float]], kind: str, tone: str, weight_px: float | None = None
) -> str:
    style = drawing_style()
    drawn = style.paths.get(kind, style.paths[_PLAIN_DASH])
    weight = (weight_px or drawn.weight_px) * PX_MM * 0.7
    dash = " ".join(f"{d * PX_MM:.2f}" for d in drawn.dash_px)
    return (
        f'<path d="{paper.path(points)}" fill="none" stroke="{tone}" '
        f'stroke-width="{weight:.2f}" stroke-dasharray="{dash}" stroke-opacity="0.8"/>'
    )
