"""Pictures of plans as clients have them, drawn from storeys whose walls are known: a clean print, a scan, a
photograph taken at a slant."""

from __future__ import annotations

import io
import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from PIL import Image, ImageDraw, ImageFilter, ImageFont

from heathrise.core.catalogue import drawing_style
from heathrise.core.design import Design, Opening, Space, Wall
from heathrise.formats.straighten import homography

Spot = tuple[float, float]
Line = tuple[Spot, Spot]
MARGIN_M = 1.6
INK, PAPER = (20, 20, 22), (252, 252, 250)


@dataclass(frozen=True)
class PlanPicture:
    """A picture of a storey: where its walls are on it, in px."""

    picture: Image.Image
    metres_per_px: float
    walls: tuple[Line, ...]
    corners: tuple[Spot, ...] = ()

    def data(self, kind: str = "PNG") -> bytes:
        out = io.BytesIO()
        self.picture.save(out, kind, quality=72) if kind == "JPEG" else self.picture.save(out, kind)
        return out.getvalue()


def print_of(design: Design, floor: str, metres_per_px: float = 0.01, style: str = "filled") -> PlanPicture:
    """A clean print: walls filled, doors with their swing, windows as lines, names, furniture, a dimension."""
    walls = [w for w in design.of(Wall).values() if w.floor == floor]
    xs = [p[0] for w in walls for p in (w.a, w.b)]
    ys = [p[1] for w in walls for p in (w.a, w.b)]
    west, north = min(xs) - MARGIN_M, max(ys) + MARGIN_M
    size = (
        math.ceil((max(xs) - min(xs) + 2 * MARGIN_M) / metres_per_px),
        math.ceil((max(ys) - min(ys) + 2 * MARGIN_M) / metres_per_px),
    )
    picture = Image.new("RGB", size, PAPER)
    drawn = _Pen(ImageDraw.Draw(picture), west, north, metres_per_px)
    drawn.closed = style == "outlined"
    ink = (150, 150, 152) if style == "grey" else INK
    for wall in walls:
        drawn.thick(wall.a, wall.b, _thick_m(wall), ink)
    if style == "outlined":
        for wall in walls:
            drawn.thick(wall.a, wall.b, _thick_m(wall) - 5 * drawn.step * drawn.thin / 2, PAPER)
    for opening in design.of(Opening).values():
        wall = design.of(Wall)[opening.wall]
        if wall.floor == floor:
            drawn.opening(wall, opening)
    for space in design.of(Space).values():
        if space.floor == floor and not space.outdoor:
            drawn.furnish(space)
    drawn.dimension((min(xs), min(ys) - 0.9), (max(xs), min(ys) - 0.9))
    placed = tuple((drawn.px(w.a), drawn.px(w.b)) for w in walls)
    corners = tuple(
        drawn.px(p) for p in ((min(xs), max(ys)), (max(xs), max(ys)), (max(xs), min(ys)), (min(xs), min(ys)))
    )
    return PlanPicture(picture, metres_per_px, placed, corners)


def _thick_m(wall: Wall) -> float:
    return max(0.1, drawing_style().pen(wall.construction).width_m)


class _Pen:
    def __init__(self, draw: ImageDraw.ImageDraw, west: float, north: float, metres_per_px: float) -> None:
        self.draw, self.west, self.north, self.step = draw, west, north, metres_per_px
        self.font = ImageFont.load_default(size=0.28 / metres_per_px)
        self.thin = max(1, round(0.02 / metres_per_px))
        self.closed = False

    def px(self, p: Spot) -> Spot:
        return ((p[0] - self.west) / self.step, (self.north - p[1]) / self.step)

    def thick(
        self, a: Spot, b: Spot, thick_m: float, fill: tuple[int, int, int] = INK, square: bool = True
    ) -> None:
        size = math.dist(a, b)
        ux, uy = (b[0] - a[0]) / size, (b[1] - a[1]) / size
        h = thick_m / 2
        # Ends are square and reach to the outside of what they meet.
        reach = h if square else 0.0
        p, q = (a[0] - ux * reach, a[1] - uy * reach), (b[0] + ux * reach, b[1] + uy * reach)
        corners = [
            (p[0] - uy * h, p[1] + ux * h),
            (q[0] - uy * h, q[1] + ux * h),
            (q[0] + uy * h, q[1] - ux * h),
            (p[0] + uy * h, p[1] - ux * h),
        ]
        self.draw.polygon([self.px(c) for c in corners], fill=fill)

    def line(self, points: Sequence[Spot]) -> None:
        self.draw.line([self.px(p) for p in points], fill=INK, width=self.thin)

    def opening(self, wall: Wall, opening: Opening) -> None:
        ux, uy = (wall.b[0] - wall.a[0]) / wall.length_m, (wall.b[1] - wall.a[1]) / wall.length_m
        a = (wall.a[0] + ux * opening.offset_m, wall.a[1] + uy * opening.offset_m)
        b = (a[0] + ux * opening.width_m, a[1] + uy * opening.width_m)
        thick = _thick_m(wall)
        self.thick(a, b, thick + 2 * self.step, PAPER, square=False)
        if self.closed:
            for p in (a, b):
                self.line(
                    [
                        (p[0] - uy * thick / 2, p[1] + ux * thick / 2),
                        (p[0] + uy * thick / 2, p[1] - ux * thick / 2),
                    ]
                )
        if opening.kind == "window":
            for k in (-0.5, 0.0, 0.5):
                off = (-uy * thick * k, ux * thick * k)
                self.line([(a[0] + off[0], a[1] + off[1]), (b[0] + off[0], b[1] + off[1])])
        elif opening.kind == "door":
            w = opening.width_m
            arc = [
                (
                    a[0] + w * (ux * math.cos(t) - uy * math.sin(t)),
                    a[1] + w * (uy * math.cos(t) + ux * math.sin(t)),
                )
                for t in np.linspace(0, math.pi / 2, 16)
            ]
            self.line(arc)
            self.line([a, arc[-1]])

    def furnish(self, space: Space) -> None:
        """A name in the middle, a table beside it, and a filled hob, as rooms have them."""
        xs, ys = [p[0] for p in space.outline], [p[1] for p in space.outline]
        x, y = sum(xs) / len(xs), sum(ys) / len(ys)
        self.draw.text(self.px((x, y)), space.name, fill=INK, font=self.font, anchor="mm")
        if min(max(xs) - min(xs), max(ys) - min(ys)) > 2.6:
            box = [
                (x - 0.6, y - 0.9),
                (x + 0.6, y - 0.9),
                (x + 0.6, y - 0.4),
                (x - 0.6, y - 0.4),
                (x - 0.6, y - 0.9),
            ]
            self.line(box)
            px = self.px((x + 0.9, y - 0.9))
            self.draw.ellipse([px[0] - 8, px[1] - 8, px[0] + 8, px[1] + 8], fill=INK)

    def dimension(self, a: Spot, b: Spot) -> None:
        self.line([a, b])
        for p in (a, b):
            self.line([(p[0] - 0.15, p[1] - 0.15), (p[0] + 0.15, p[1] + 0.15)])
            self.line([(p[0], p[1] - 0.2), (p[0], p[1] + 0.6)])
        self.draw.text(
            self.px(((a[0] + b[0]) / 2, a[1] + 0.25)),
            f"{math.dist(a, b):.2f}",
            fill=INK,
            font=self.font,
            anchor="mm",
        )


def scan_of(plan: PlanPicture, seed: int = 1, turn_deg: float = 0.8) -> PlanPicture:
    """A scan: not laid quite straight, uneven light, specks, blurred and packed."""
    chance = np.random.default_rng(seed)
    wide, high = plan.picture.size
    turned = plan.picture.rotate(turn_deg, Image.Resampling.BICUBIC, fillcolor=PAPER)
    c, s = math.cos(math.radians(turn_deg)), math.sin(math.radians(turn_deg))

    def there(p: Spot) -> Spot:
        x, y = p[0] - wide / 2, p[1] - high / 2
        return (wide / 2 + x * c + y * s, high / 2 - x * s + y * c)

    grey = np.asarray(turned.convert("L").filter(ImageFilter.GaussianBlur(0.8)), dtype=float)
    light = np.linspace(0.78, 1.0, wide)[None, :] * np.linspace(1.0, 0.88, high)[:, None]
    grey = grey * light + chance.normal(0, 7, grey.shape)
    specks = chance.random(grey.shape) < 0.0004
    grey[specks] = chance.integers(40, 140, int(specks.sum()))
    packed = io.BytesIO()
    Image.fromarray(np.clip(grey, 0, 255).astype(np.uint8)).save(packed, "JPEG", quality=60)
    picture = Image.open(io.BytesIO(packed.getvalue())).convert("RGB")
    return PlanPicture(
        picture,
        plan.metres_per_px,
        tuple((there(a), there(b)) for a, b in plan.walls),
        tuple(map(there, plan.corners)),
    )


def slanted(plan: PlanPicture, seed: int = 1, lean: float = 0.12) -> PlanPicture:
    """A photograph of the sheet on a table, from aside: its ``corners`` are those of the outermost walls."""
    chance = np.random.default_rng(seed)
    wide, high = plan.picture.size
    room = (round(wide * 1.1), round(high * 1.15))
    flat = [(0.0, 0.0), (wide, 0.0), (wide, high), (0.0, high)]
    seen = [
        (room[0] * (0.06 + lean), room[1] * 0.08),
        (room[0] * (0.94 - lean * 0.6), room[1] * 0.05),
        (room[0] * 0.98, room[1] * 0.93),
        (room[0] * 0.02, room[1] * 0.95),
    ]
    back = homography(seen, flat)
    photo = plan.picture.transform(
        room,
        Image.Transform.PERSPECTIVE,
        tuple((back / back[2, 2]).ravel()[:8]),
        Image.Resampling.BICUBIC,
        fillcolor=(112, 96, 80),
    )
    grey = np.asarray(photo.filter(ImageFilter.GaussianBlur(1.0)), dtype=float)
    light = (np.linspace(0.7, 1.0, room[1])[:, None] * np.linspace(1.0, 0.8, room[0])[None, :])[..., None]
    grey = grey * light + chance.normal(0, 5, grey.shape)
    there = homography(flat, seen)

    def put(p: Spot) -> Spot:
        x, y, z = there @ np.array([*p, 1.0])
        return (float(x / z), float(y / z))

    picture = Image.fromarray(np.clip(grey, 0, 255).astype(np.uint8))
    return PlanPicture(
        picture,
        plan.metres_per_px,
        tuple((put(a), put(b)) for a, b in plan.walls),
        tuple(map(put, plan.corners)),
    )
