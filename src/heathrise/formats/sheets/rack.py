"""A rack's elevation as SVG, to scale: front with ports and cords, side with depths."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence

from ...core.catalogue import drawing_style
from ...core.elevation import FACE_MM, UNIT_MM, Cord, Elevation, Thing, face_rows, height_mm, port_mm
from ...core.rack import PortUse
from .paper import GRANITE, INK, MOSS, PAPER, RUST, TARN, text

SCALE = 10
_RAIL_MM, _NAMES_MM, _HEAD_MM, _FOOT_MM = 7.0, 46.0, 6.0, 9.0
_SHELF_MM = 4.0
_LINE_MM = 3.3


def rack_svg(
    rack: Elevation, things: Sequence[Thing], cords: Sequence[Cord], ports: Sequence[PortUse]
) -> str:
    """Return a rack from the front and from the side at 1 : 10, with the names of what is in it."""
    wide, high = FACE_MM / SCALE, rack.units * UNIT_MM / SCALE
    side = 2 * _RAIL_MM + wide + _NAMES_MM
    size = side + rack.deep_mm / SCALE + 3, high + _HEAD_MM + _FOOT_MM
    parts = [
        text(_RAIL_MM, 3.4, f"Front, {rack.units} units, 1 : {SCALE}", 2.6, GRANITE, 600, "start"),
        text(side, 3.4, f"Side, {rack.deep_mm:g} mm deep", 2.6, GRANITE, 600, "start"),
        f'<g transform="translate({_RAIL_MM} {_HEAD_MM})">',
        *_front(rack, things, ports, wide, high),
        *_cords(rack, things, cords),
        *_names(rack, things, wide, high),
        "</g>",
        f'<g transform="translate({side:.2f} {_HEAD_MM})">',
        *_side(rack, things, high),
        "</g>",
        *_bar(size[1] - 3.5),
    ]
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{size[0]:.2f}mm" height="{size[1]:.2f}mm" '
        f'viewBox="0 0 {size[0]:.2f} {size[1]:.2f}" font-family="IBM Plex Sans Condensed, sans-serif">'
        f"{''.join(parts)}</svg>"
    )


def _box(x: float, y: float, wide: float, high: float, fill: str, tone: str, more: str = "") -> str:
    return (
        f'<rect x="{x:.2f}" y="{y:.2f}" width="{wide:.2f}" height="{high:.2f}" fill="{fill}" '
        f'stroke="{tone}" stroke-width="0.2"{more}/>'
    )


def _top(rack: Elevation, thing: Thing) -> float:
    """Return how far under the frame's top a thing begins, mm on the paper."""
    return (rack.units - thing.unit - thing.units + 1) * UNIT_MM / SCALE


def _front(
    rack: Elevation, things: Sequence[Thing], ports: Sequence[PortUse], wide: float, high: float
) -> Iterator[str]:
    unit = UNIT_MM / SCALE
    yield _box(-1.5, -0.5, wide + 3, high + 1, "none", INK)
    for k in range(rack.units):
        y = k * unit
        yield f'<path d="M0 {y:.2f}H{wide:.2f}" stroke="#e6e1d8" stroke-width="0.15"/>'
        yield text(-2.2, y + unit / 2 + 0.8, str(rack.units - k), 2.0, GRANITE, 400, "end")
    for blank in rack.blanks:
        yield _box(
            0, (rack.units - blank) * unit, wide, unit, "#f3efe6", GRANITE, ' stroke-dasharray="0.6 0.8"'
        )
    uses = {(p.switch, p.port): p for p in ports}
    for thing in (t for t in things if t.unit and not t.on):
        y, tall = _top(rack, thing), thing.units * unit
        if thing.kind == "shelf":
            yield f'<path d="M0 {y + tall - 0.4:.2f}H{wide:.2f}" stroke="{INK}" stroke-width="0.5"/>'
            yield from _stood(thing, things, y + tall - 0.6, tall)
            continue
        yield _box(0, y + 0.1, wide, tall - 0.2, PAPER, INK)
        yield from _ports(rack, thing, uses)


def _stood(shelf: Thing, things: Sequence[Thing], foot: float, tall: float) -> Iterator[str]:
    x = _SHELF_MM / SCALE
    for thing in (t for t in things if t.on == shelf.thing):
        high = min(tall - 1.2, 0.85 * UNIT_MM / SCALE)
        yield _box(x, foot - high, thing.wide_mm / SCALE, high, PAPER, INK)
        x += (thing.wide_mm + 15) / SCALE


def _ports(rack: Elevation, thing: Thing, uses: Mapping[tuple[str, int], PortUse]) -> Iterator[str]:
    rows = face_rows(thing)
    for number in range(1, thing.ports + 1):
        use = uses.get((thing.element, number))
        tone = PAPER
        if use is not None:
            tone = TARN if use.uplink else MOSS if use.feeds else GRANITE if use.link else PAPER
        x = port_mm(thing, number) / SCALE
        y = _top(rack, thing) + thing.units * UNIT_MM / SCALE * (
            0.5 if rows == 1 else 0.32 + 0.36 * ((number - 1) % 2)
        )
        yield _box(x - 0.55, y - 0.55, 1.1, 1.1, tone, GRANITE)


def _cords(rack: Elevation, things: Sequence[Thing], cords: Sequence[Cord]) -> Iterator[str]:
    here, inks = {t.thing: t for t in things}, drawing_style().cords

    def spot(key: str, port: int) -> tuple[float, float] | None:
        thing = here.get(key)
        if thing is None or not thing.unit:
            return None
        high = rack.units * UNIT_MM - height_mm(thing)
        return port_mm(thing, port) / SCALE, high / SCALE

    for cord in cords:
        a, b = spot(cord.from_thing, cord.from_port), spot(cord.to_thing, cord.to_port)
        if a is None or b is None:
            continue
        bow = 1.4 if b[1] >= a[1] else -1.4
        yield (
            f'<path d="M{a[0]:.2f} {a[1]:.2f}C{a[0]:.2f} {a[1] + bow:.2f} {b[0]:.2f} {b[1] - bow:.2f} '
            f'{b[0]:.2f} {b[1]:.2f}" fill="none" stroke="{inks.get(cord.colour, GRANITE)}" '
            'stroke-width="0.3"/>'
        )


def _names(rack: Elevation, things: Sequence[Thing], wide: float, high: float) -> Iterator[str]:
    rows = [(_top(rack, t) + t.units * UNIT_MM / SCALE / 2, t) for t in things if t.unit and not t.on]
    for thing in (t for t in things if t.on and t.unit):
        shelf = next(t for t in things if t.thing == thing.on)
        rows.append((_top(rack, shelf) + shelf.units * UNIT_MM / SCALE / 2 + 0.1, thing))
    last = -_LINE_MM
    placed: list[tuple[float, float, Thing]] = []
    for middle, thing in sorted(rows, key=lambda row: row[0]):
        last = max(middle, last + _LINE_MM)
        placed.append((middle, last, thing))
    over = max(0.0, last - high + 1)
    for middle, y, thing in placed:
        at = max(0.5, y - over)
        watts = f", {thing.watts:.0f} W" if thing.watts else ""
        hand = ", placed by hand" if thing.by == "person" else ""
        x = wide + 2 * _RAIL_MM - 4
        yield (
            f'<path d="M{wide + 2:.2f} {middle:.2f}L{x - 1:.2f} {at:.2f}" stroke="{GRANITE}" '
            'stroke-width="0.15" fill="none"/>'
        )
        yield text(x, at + 0.9, f"{thing.name}{watts}{hand}"[:36], 2.5, INK, 600, "start")


def _side(rack: Elevation, things: Sequence[Thing], high: float) -> Iterator[str]:
    deep = rack.deep_mm / SCALE
    yield _box(0, -0.5, deep, high + 1, "none", INK)
    for thing in (t for t in things if t.unit):
        shelf = next((t for t in things if t.thing == thing.on), thing)
        tall = shelf.units * UNIT_MM / SCALE
        tone = RUST if thing.deep_mm > rack.deep_mm else INK
        if not thing.on:
            yield _box(0.3, _top(rack, shelf) + 0.2, thing.deep_mm / SCALE, tall - 0.4, PAPER, tone)
    if rack.wall:
        yield f'<path d="M{deep + 0.8:.2f} -0.5V{high + 0.5:.2f}" stroke="{INK}" stroke-width="1.2"/>'


def _bar(y: float) -> Iterator[str]:
    """Yield the scale bar: half a metre, so that a print can be measured."""
    long = 500 / SCALE
    for k in range(5):
        yield _box(_RAIL_MM + k * long / 5, y, long / 5, 1.2, INK if k % 2 == 0 else PAPER, INK)
    yield text(_RAIL_MM + long + 2, y + 1.4, "0.5 m", 2.2, INK, 400, "start")
