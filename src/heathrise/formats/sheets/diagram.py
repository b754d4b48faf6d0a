"""The network drawn, as SVG on paper: the same picture as on the screen, in one of its readings."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from functools import cached_property
from html import escape

from ...core.diagram import Card, Diagram, FrameBox, Joint, Node, Picture, Reading
from ...core.settings import NetworkSheet
from .marks import mark
from .page import LAP_MM
from .paper import GRANITE, HEATHER, INK, MOSS, PAPER, RUST, TARN, text
from .sheet import Sheet

MM = 0.29  # of paper to the picture's own unit: what is said on a card is as large as on a sheet
_NAME_MM, _SAYS_MM = 2.9, 2.6
_LETTER = 0.47  # width of a letter over its height, condensed
_LANES = {
    "heather": HEATHER,
    "tarn": TARN,
    "gorse": "#d9a514",
    "rust": RUST,
    "moss": MOSS,
    "granite": GRANITE,
    "ink": INK,
}
_GROUND, _LINE = "#f3efe6", "#b9b4ac"
_STRAND_MM = 0.8
_FAST_MBPS, _SLOW_MBPS = 2500.0, 1000.0


@dataclass(frozen=True)
class _Drawing:
    diagram: Diagram
    picture: Picture
    reading: Reading
    lanes: Mapping[int, str]

    @cached_property
    def nodes(self) -> dict[str, Node]:
        return {n.id: n for n in self.diagram.nodes}

    def left(self, column: int) -> float:
        return MM * (self.picture.grid.margin + column * self.picture.grid.column)

    def top(self, row: int) -> float:
        return MM * self.picture.tops[row]

    @property
    def wide(self) -> float:
        return MM * self.picture.grid.card_wide

    @property
    def high(self) -> float:
        return MM * self.picture.grid.card_high


def draw_diagram(
    diagram: Diagram, picture: Picture, reading: Reading, networks: Sequence[NetworkSheet]
) -> Sheet:
    """Return a diagram as it is laid out, in one reading.

    Args:
        networks: in the order of their lanes.
    """
    lanes = {n.vlan: _LANES[n.tone] for n in networks}
    drawing = _Drawing(diagram, picture, reading, lanes)
    parts = [part for f in picture.frames for part in _frame(drawing, f)]
    cards = {key: card for card in picture.cards for key in card.nodes}
    nodes = drawing.nodes
    by_id = {c.id: c for c in picture.cards}
    for below, above in picture.seconds:
        parts.append(_line(_way(drawing, by_id[above], by_id[below]), _LINE, 0.3, "0.8 1.2"))
    for card in picture.cards:
        node = nodes[card.nodes[0]]
        if node.parent is not None and node.joint is not None:
            joints = [nodes[k].joint for k in card.nodes]
            parts += _joined(drawing, cards[node.parent], card, [j for j in joints if j is not None])
    for card in picture.cards:
        parts += _card(drawing, card, nodes[card.nodes[0]])
    return Sheet("".join(parts), MM * picture.wide, MM * picture.high, 0)


def on_pages(picture: Picture, high_mm: float) -> Picture:
    """Return a picture whose rows are pushed down so that none lies across the end of a page of that height,
    as ``pages_of`` parts a drawing: each page begins a lap above the end of the one before."""
    tops, pushed = [], 0.0
    head, pad = picture.grid.frame_head, picture.grid.frame_pad
    for top in picture.tops:
        first, last = MM * (top + pushed - head), MM * (top + pushed + picture.grid.card_high + pad)
        page = max(0, int((first - LAP_MM) // (high_mm - LAP_MM)))
        begins, ends = page * (high_mm - LAP_MM), page * (high_mm - LAP_MM) + high_mm
        if first < begins or last > ends:
            pushed += (ends - LAP_MM - first) / MM + 1.0
        tops.append(top + pushed)
    return picture.model_copy(update={"tops": tuple(tops), "high": picture.high + pushed})


def fitted(sheet: Sheet, wide_mm: float, high_mm: float) -> Sheet:
    """Return a drawing as large as so much room allows, never larger than it is."""
    factor = min(1.0, wide_mm / sheet.wide_mm, high_mm / sheet.high_mm)
    body = f'<g transform="scale({factor:.4f})">{sheet.body}</g>'
    return Sheet(body, sheet.wide_mm * factor, sheet.high_mm * factor, sheet.scale)


def diagram_legend(reading: Reading, networks: Sequence[NetworkSheet]) -> list[str]:
    """Return what the lines of a reading mean, as rows of a sheet's legend."""
    rows: list[tuple[str, float, str, str]]
    if reading == "networks":
        rows = [(_LANES[n.tone], 0.9, "", n.name) for n in networks]
    elif reading == "power":
        rows = [("#d9a514", 1.2, "", "Feeds: the thicker the more"), (_LINE, 0.3, "", "Feeds nothing")]
    else:
        rows = [(INK, 0.5, "", "On a wire" if reading == "client" else "Copper")]
        rows += [] if reading == "client" else [(TARN, 0.5, "", "Fibre")]
        rows.append((INK, 0.5, "1.6 1.1", "Over the air"))
        rows += [] if reading == "client" else [(RUST, 0.5, "", "Not as it should be")]
    return [_line("M0 1.2H6", *row[:3]) + text(7.4, 2.1, row[3][:26], 2.6, INK, 400, "start") for row in rows]


def _line(path: str, tone: str, width: float, dash: str = "") -> str:
    dashed = f' stroke-dasharray="{dash}"' if dash else ""
    return f'<path d="{path}" fill="none" stroke="{tone}" stroke-width="{width:.2f}"{dashed}/>'


def _way(drawing: _Drawing, above: Card, below: Card, shift: float = 0.0) -> str:
    x1, y1 = drawing.left(above.column) + drawing.wide, drawing.top(above.row) + drawing.high / 2 + shift
    x2, y2 = drawing.left(below.column), drawing.top(below.row) + drawing.high / 2 + shift
    if above.row == below.row:
        return f"M{x1:.2f} {y1:.2f}H{x2:.2f}"
    bus = x1 + (x2 - x1) * 0.45 + shift
    return f"M{x1:.2f} {y1:.2f}H{bus:.2f}V{y2:.2f}H{x2:.2f}"


def _joined(drawing: _Drawing, above: Card, below: Card, joints: list[Joint]) -> Iterator[str]:
    first = joints[0]
    dash = "1.6 1.1" if first.kind == "air" else "0.6 1.1" if first.kind == "none" else ""
    if drawing.reading == "networks":
        carried = {v for j in joints for v in (j.untagged, *j.tagged)}
        order = list(drawing.lanes)
        for k, vlan in enumerate(order):
            if vlan in carried:
                shift = (k - (len(order) - 1) / 2) * _STRAND_MM
                yield _line(_way(drawing, above, below, shift), drawing.lanes[vlan], 0.6, dash)
        if carried & set(order):
            return
    if drawing.reading == "power":
        watts = sum(j.watts for j in joints)
        width = 0.4 + min(1.7, watts / 55)
        yield _line(_way(drawing, above, below), "#d9a514" if watts else _LINE, width if watts else 0.3)
        return
    wrong = drawing.reading == "cables" and any(j.verdict == "not_met" for j in joints)
    tone = RUST if wrong or first.kind == "none" else TARN if first.kind == "fibre" else INK
    speed = min(j.speed_mbps for j in joints)
    width = 0.85 if speed >= _FAST_MBPS else 0.5 if speed >= _SLOW_MBPS else 0.3
    yield _line(_way(drawing, above, below), tone, 0.5 if drawing.reading == "client" else width, dash)


def _frame(drawing: _Drawing, frame: FrameBox) -> Iterator[str]:
    grid = drawing.picture.grid
    x, y = drawing.left(frame.column) - MM * grid.frame_pad, drawing.top(frame.row) - MM * grid.frame_head
    wide = drawing.left(frame.last_column) + drawing.wide + MM * grid.frame_pad - x
    high = drawing.top(frame.last_row) + drawing.high + MM * grid.frame_pad - y
    yield (
        f'<rect x="{x:.2f}" y="{y:.2f}" width="{wide:.2f}" height="{high:.2f}" rx="0.8" fill="{_GROUND}" '
        f'stroke="{_LINE}" stroke-width="0.3" data-frame="{escape(frame.room)}"/>'
    )
    said = ": ".join(filter(None, (frame.name, frame.says.get(drawing.reading, ""))))
    yield text(x + 2, y + 3.2, _short(said, wide - 4, 2.6), 2.6, GRANITE, 600, "start")


def _card(drawing: _Drawing, card: Card, node: Node) -> Iterator[str]:
    x, y = drawing.left(card.column), drawing.top(card.row)
    nodes = drawing.nodes
    wrong = any((j := nodes[k].joint) is not None and j.verdict == "not_met" for k in card.nodes)
    dash = ' stroke-dasharray="1.2 0.8"' if node.state == "keep" else ""
    if len(card.nodes) > 1 or card.behind:
        yield (
            f'<rect x="{x + 0.8:.2f}" y="{y + 0.8:.2f}" width="{drawing.wide:.2f}" '
            f'height="{drawing.high:.2f}" fill="{PAPER}" stroke="{_LINE}" stroke-width="0.25"/>'
        )
    yield (
        f'<rect x="{x:.2f}" y="{y:.2f}" width="{drawing.wide:.2f}" height="{drawing.high:.2f}" '
        f'fill="{PAPER}" stroke="{RUST if wrong else INK}" stroke-width="0.3"{dash} '
        f'data-card="{escape(card.id)}"/>'
    )
    bold = node.kind in ("line", "router", "switch")
    if bold:
        yield f'<rect x="{x:.2f}" y="{y:.2f}" width="0.9" height="{drawing.high:.2f}" fill="{INK}"/>'
    inset = 2.0
    if node.mark:
        yield mark(node.mark, x + 3.6, y + drawing.high / 2, None)
        inset = 6.9
    room = drawing.wide - inset - 1.2
    more = f", {card.behind} behind it" if card.behind else ""
    yield text(x + inset, y + 4.0, _short(card.name + more, room, _NAME_MM), _NAME_MM, INK, 600, "start")
    says = _short(card.says.get(drawing.reading, ""), room, _SAYS_MM)
    yield text(x + inset, y + 7.9, says, _SAYS_MM, RUST if wrong else GRANITE, 400, "start")


def _short(said: str, room_mm: float, size_mm: float) -> str:
    """Return what of a text fits."""
    most = int(room_mm / (size_mm * _LETTER))
    return said if len(said) <= most else f"{said[: most - 1].rstrip(' ·,')}…"
