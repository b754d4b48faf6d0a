"""A sheet as it is printed: frame, title block, legend, scale bar, north; over several pages where
the scale that is asked for wants them."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from ...core.catalogue import Catalogue, drawing_style
from ...core.design import (
    Design,
    DesignError,
    Device,
    EquipmentRoom,
    Light,
    Panel,
    Problem,
    Riser,
    Socket,
    Wall,
)
from ...core.mains import mains_lines
from ...core.sight import views_of
from .ground import TONES
from .marks import PX_MM, mark
from .paper import GORSE, GRANITE, INK, PAPER, RUST, TARN, text
from .sheet import Sheet

PAPERS: dict[str, tuple[float, float]] = {
    "A4": (210.0, 297.0),
    "A3": (297.0, 420.0),
    "A2": (420.0, 594.0),
    "Letter": (215.9, 279.4),
    "Tabloid": (279.4, 431.8),
}
PAGE_SCALES = (50, 100, 200)
MOST_PAGES = 60
_MARGIN, _BLOCK, LAP_MM = 8.0, 27.0, 5.0
_LEAST_WIDE = 200.0  # under which the title block has no room
_FEET_M = 0.3048
_BAR_MM = 34.0  # the scale bar is as long as a round length gets under this


@dataclass(frozen=True)
class Title:
    """What a title block says."""

    project: str
    sheet: str
    revision: int
    on: str
    imperial: bool = False


@dataclass(frozen=True)
class Page:
    """One printed page as SVG, sizes in mm."""

    svg: str
    wide_mm: float
    high_mm: float


def whole_page(sheet: Sheet, title: Title, legend: Sequence[str]) -> Page:
    """Return a drawing on one page that is as large as it takes."""
    wide = max(sheet.wide_mm + 2 * _MARGIN, _LEAST_WIDE)
    return _page(sheet, title, legend, (wide, sheet.high_mm + 2 * _MARGIN + _BLOCK), (1, 1), 0)


def room_on(paper: str, landscape: bool) -> tuple[float, float]:
    """Return width and height in mm that a drawing may take on one page."""
    wide, high = _size(paper, landscape)
    return wide - 2 * _MARGIN, high - 2 * _MARGIN - _BLOCK


def pages_of(
    sheet: Sheet, title: Title, legend: Sequence[str], paper: str, landscape: bool | None = None
) -> list[Page]:
    """Return a drawing on pages, as many as it takes at its scale.

    Args:
        legend: rows of the legend, as ``legend_of`` gives them.
        landscape: which way round; None for the one that takes fewer pages.

    Raises:
        DesignError: it would be more pages than anybody glues together.
    """
    if landscape is None:
        landscape = _count(sheet, paper, True) <= _count(sheet, paper, False)
    wide, high = _size(paper, landscape)
    room = room_on(paper, landscape)
    columns, rows = _tiles(sheet.wide_mm, room[0]), _tiles(sheet.high_mm, room[1])
    if columns * rows > MOST_PAGES:
        what = f"takes {columns * rows} pages of {paper} at 1:{sheet.scale}; choose a smaller scale"
        raise DesignError([Problem("scale", what)])
    return [
        _page(sheet, title, legend, (wide, high), (columns, rows), number) for number in range(columns * rows)
    ]


def _page(
    sheet: Sheet,
    title: Title,
    legend: Sequence[str],
    size: tuple[float, float],
    tiles: tuple[int, int],
    number: int,
) -> Page:
    wide, high = size
    room = wide - 2 * _MARGIN, high - 2 * _MARGIN - _BLOCK
    row, column = divmod(number, tiles[0])
    left = _start(sheet.wide_mm, room[0], column)
    top = _start(sheet.high_mm, room[1], row)
    body = (
        f'<svg x="{_MARGIN}" y="{_MARGIN}" width="{room[0]:.2f}" height="{room[1]:.2f}" '
        f'viewBox="{left:.2f} {top:.2f} {room[0]:.2f} {room[1]:.2f}">{sheet.body}</svg>'
    )
    frame = "".join(_frame(sheet, title, legend, size, tiles, number))
    svg = (
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{wide:.2f}mm" height="{high:.2f}mm" '
        f'viewBox="0 0 {wide:.2f} {high:.2f}" font-family="IBM Plex Sans Condensed, sans-serif">'
        f'<rect width="{wide:.2f}" height="{high:.2f}" fill="{PAPER}"/>{body}{frame}</svg>'
    )
    return Page(svg, wide, high)


def legend_of(design: Design, catalogue: Catalogue, floor: str, categories: Sequence[str] = ()) -> list[str]:
    """Return a row for each mark, wall and path that a storey's sheet shows, on 34 by 3.4 mm."""
    style = drawing_style()
    kinds = {d.kind for d in design.of(Device).values() if d.floor == floor}
    rows: dict[str, str] = {}
    for role in (r for r in catalogue.roles.values() if r.kind in kinds):
        rows.setdefault(role.mark, _small(role.mark) + _word(role.name))
    if any(r.floor == floor for r in design.of(EquipmentRoom).values()):
        rows["hut"] = _small("hut") + _word("Rack")
    if design.of(Riser):
        rows["well"] = _small("well") + _word("Riser")
    if any(view.floor == floor for view in views_of(design, catalogue)):
        seen = f'fill="{TARN}" fill-opacity="0.15" stroke="{TARN}" stroke-width="0.2"'
        box = f'<rect x="0.4" y="0.3" width="5.2" height="1.9" {seen}/>'
        rows["sight"] = box + _word("A camera recognises")
    rows |= _mains_rows(design, floor)
    for kind in dict.fromkeys(categories):
        if kind in style.paths:
            tone = TARN if kind == "fibre" else INK
            dash = " ".join(f"{px * PX_MM:.2f}" for px in style.paths[kind].dash_px)
            said = {"fibre": "Fibre", "between": "Copper, racks"}.get(kind, f"Category {kind}")
            rows[f"path-{kind}"] = (
                f'<path d="M0 1.2H6" stroke="{tone}" stroke-width="0.4" '
                f'stroke-dasharray="{dash}"/>{_word(said)}'
            )
    if categories:
        band = f'<path d="M0 1.2H6" stroke="{GRANITE}" stroke-width="1.4" stroke-opacity="0.45"/>'
        rows["path-ribbon"] = f"{band}{_word('Side by side, number')}"
    used = [w.construction for w in design.of(Wall).values() if w.floor == floor]
    for construction in dict.fromkeys(used):
        pen = style.pen(construction)
        dash = ' stroke-dasharray="1.2 0.5"' if pen.dash_m is not None else ""
        high = min(1.6, max(0.3, pen.width_m * 4))
        wall = f'<path d="M0 1.2H6" stroke="{TONES[pen.tone]}" stroke-width="{high:.2f}"{dash}/>'
        if pen.double:
            wall += f'<path d="M0 1.2H6" stroke="{PAPER}" stroke-width="{high * 0.42:.2f}"/>'
        rows[f"wall-{construction}"] = wall + _word(catalogue.constructions[construction].label)
    if any(w.rated for w in design.of(Wall).values() if w.floor == floor):
        rated = f'<path d="M0 1.2H6" stroke="{RUST}" stroke-width="0.4" stroke-dasharray="1.4 0.9"/>'
        rows["wall-rated"] = rated + _word("Keeps fire back")
    return list(rows.values())


def _mains_rows(design: Design, floor: str) -> dict[str, str]:
    """Return the rows of what a storey's sheet shows of mains."""
    shown = {
        "Panel": ("sluice", any(e.floor == floor for e in design.of(Panel).values())),
        "Socket": ("spring", any(e.floor == floor for e in design.of(Socket).values())),
        "Light": ("lamp", any(e.floor == floor for e in design.of(Light).values())),
    }
    rows = {said: _small(shape) + _word(said) for said, (shape, there) in shown.items() if there}
    guesses = {line.guessed for line in mains_lines(design) if line.floor == floor}
    for guessed, said, dash in ((False, "Mains", "1.8 0.6 0.5 0.6"), (True, "Mains, a guess", "0.4 1.1")):
        if guessed in guesses:
            drawn = f'<path d="M0 1.2H6" stroke="{GORSE}" stroke-width="0.4" stroke-dasharray="{dash}"/>'
            rows[said] = drawn + _word(said)
    return rows


def _small(shape: str) -> str:
    return f'<g transform="translate(3 1.2) scale(0.75)">{mark(shape, 0, 0, None)}</g>'


def _word(said: str) -> str:
    return text(7.4, 1.9, said if len(said) <= 26 else f"{said[:25]}…", 2.1, INK, 400, "start")


def _size(paper: str, landscape: bool) -> tuple[float, float]:
    one, other = PAPERS[paper]
    return (other, one) if landscape else (one, other)


def _tiles(long_mm: float, room_mm: float) -> int:
    return 1 if long_mm <= room_mm else math.ceil((long_mm - LAP_MM) / (room_mm - LAP_MM))


def _count(sheet: Sheet, paper: str, landscape: bool) -> int:
    room = room_on(paper, landscape)
    return _tiles(sheet.wide_mm, room[0]) * _tiles(sheet.high_mm, room[1])


def _start(long_mm: float, room_mm: float, number: int) -> float:
    """Return where a page begins along one side; a drawing that fits lies in the middle."""
    if long_mm <= room_mm:
        return -(room_mm - long_mm) / 2
    return number * (room_mm - LAP_MM)


def _frame(
    sheet: Sheet,
    title: Title,
    legend: Sequence[str],
    size: tuple[float, float],
    tiles: tuple[int, int],
    number: int,
) -> Iterator[str]:
    wide, high = size
    left, right, foot = _MARGIN, wide - _MARGIN, high - _MARGIN
    top = foot - _BLOCK
    yield (
        f'<rect x="0" y="{top:.2f}" width="{wide}" height="{high - top:.2f}" fill="{PAPER}"/>'
        f'<rect x="{left}" y="{_MARGIN}" width="{right - left:.2f}" height="{foot - _MARGIN:.2f}" '
        f'fill="none" stroke="{INK}" stroke-width="0.35"/>'
        f'<path d="M{left} {top:.2f}H{right:.2f}" stroke="{INK}" stroke-width="0.35"/>'
    )
    name_wide, bar_wide = 54.0, 50.0
    for x in (left + name_wide, right - bar_wide):
        yield f'<path d="M{x:.2f} {top:.2f}V{foot:.2f}" stroke="{INK}" stroke-width="0.2"/>'
    count = tiles[0] * tiles[1]
    of = f", page {number + 1} of {count}" if count > 1 else ""
    # A name that is longer than its field is drawn smaller, not over the next field.
    big = min(4.2, (name_wide - 5) / max(1, len(title.project)) / 0.56)
    yield text(left + 2.5, top + 6.5, title.project, round(big, 2), INK, 600, "start")
    yield text(left + 2.5, top + 12, f"{title.sheet}{of}"[:40], 3.0, INK, 400, "start")
    yield text(left + 2.5, top + 17, f"Revision {title.revision}, {title.on}", 2.4, GRANITE, 400, "start")
    yield text(
        left + 2.5, top + 21.2, "Planning drawing. Check all on site; local codes", 2.0, GRANITE, 400, "start"
    )
    yield text(left + 2.5, top + 24, "come before it.", 2.0, GRANITE, 400, "start")
    room = right - bar_wide - left - name_wide - 4
    columns = max(1, int(room // 44))
    each = 7
    for k, row in enumerate(legend[: columns * each]):
        x, y = left + name_wide + 3 + (k // each) * 44, top + 2.0 + (k % each) * 3.5
        yield f'<g transform="translate({x:.2f} {y:.2f})">{row}</g>'
    if sheet.scale:
        yield from _scale_bar(right - bar_wide + 3, top, sheet.scale, title.imperial)
        yield from _north(right - 6.5, top + 9)
    else:
        yield text(right - bar_wide + 3, top + 6.5, "Not to scale", 3.4, INK, 600, "start")
    if count > 1:
        yield from _key(right - 20, top + 15.5, tiles, number)


def _scale_bar(x: float, top: float, scale: int, imperial: bool) -> Iterator[str]:
    unit, word = (_FEET_M, "ft") if imperial else (1.0, "m")
    lengths = [n for n in (1, 2, 5, 10, 20, 50, 100, 200) if n * unit * 1000 / scale <= _BAR_MM]
    many = lengths[-1] if lengths else 1
    long = many * unit * 1000 / scale
    y = top + 11
    yield text(x, top + 6.5, f"1 : {scale}", 4.2, INK, 600, "start")
    for k in range(2):
        fill = INK if k == 0 else PAPER
        yield (
            f'<rect x="{x + k * long / 2:.2f}" y="{y}" width="{long / 2:.2f}" height="1.6" '
            f'fill="{fill}" stroke="{INK}" stroke-width="0.2" data-bar="{many} {word}"/>'
        )
    yield text(x, y + 4.4, "0", 2.1, INK, 400, "start")
    yield text(x + long, y + 4.4, f"{many} {word}", 2.1, INK, 400)


def _north(x: float, y: float) -> Iterator[str]:
    arrow = f"M{x} {y - 6}L{x + 2.6} {y + 4}L{x} {y + 2.2}L{x - 2.6} {y + 4}Z"
    yield f'<path d="{arrow}" fill="{INK}"/>'
    yield text(x, y + 7.4, "N", 2.6, INK, 600)


def _key(x: float, y: float, tiles: tuple[int, int], number: int) -> Iterator[str]:
    """Yield which of the pages this is, as they lie beside one another."""
    cell = min(3.0, 14.0 / tiles[0], 10.0 / tiles[1])
    for k in range(tiles[0] * tiles[1]):
        row, column = divmod(k, tiles[0])
        fill = INK if k == number else PAPER
        yield (
            f'<rect x="{x + column * cell:.2f}" y="{y + row * cell:.2f}" width="{cell:.2f}" '
            f'height="{cell:.2f}" fill="{fill}" stroke="{INK}" stroke-width="0.2"/>'
        )
