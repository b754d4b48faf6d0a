"""The made-up firm whose papers the demo prints."""

from __future__ import annotations

import io

from PIL import Image, ImageDraw

from ..core.context.firm import Firm

DEMO_FIRM = Firm(
    name="Fellgate Network Works",
    address=("4 Tanner's Yard", "Netherholm"),
    tax_number="XX 204 118 07",
    contact="Workshop, weekdays 8 to 17, extension 12",
    bank="Netherholm Savings, account 0042 1180 7",
    payment="A third with the order, a third when the cables are tested, the rest 14 days after hand-over.",
    warranty="Two years on our work, as its maker gives it on gear. Call the workshop.",
    terms="Changes on the day are noted, priced and agreed before they are made.",
)
_WIDE, _HIGH, _FINE = 360, 120, 3


def demo_mark() -> bytes:
    """Return the firm's mark as PNG: a gate under a hill."""
    picture = Image.new("RGB", (_WIDE * _FINE, _HIGH * _FINE), "white")
    pen = ImageDraw.Draw(picture)

    def box(*edges: float) -> list[float]:
        return [e * _FINE for e in edges]

    pen.arc(box(20, 18, 340, 198), 180, 360, fill="#4c6a3c", width=9 * _FINE)
    for x in (110, 180, 250):
        pen.line(box(x, 62, x, 116), fill="#2b2622", width=8 * _FINE)
    for y in (72, 94):
        pen.line(box(104, y, 256, y), fill="#2b2622", width=6 * _FINE)
    out = io.BytesIO()
    picture.resize((_WIDE, _HIGH), Image.Resampling.LANCZOS).save(out, "PNG")
    return out.getvalue()
