"""Pictures in: what is kept of them, and what is refused in words and in time."""

from __future__ import annotations

import io
import struct
import subprocess
import sys
import time
import zlib

import pypdfium2
import pytest
from PIL import Image

from heathrise.core.design import DesignError
from heathrise.formats.pictures import read_picture

_EXIF_ORIENTATION, _EXIF_GPS, _TURNED = 0x0112, 0x8825, 6


def _png(wide: int = 60, high: int = 40, mode: str = "RGB") -> bytes:
    out = io.BytesIO()
    Image.new(mode, (wide, high), 200 if mode == "L" else (200, 180, 160, 0)[: len(mode)]).save(out, "PNG")
    return out.getvalue()


def _photo() -> bytes:
    """A photograph held sideways, with the place where it was taken."""
    image = Image.new("RGB", (80, 40), "navy")
    exif = image.getexif()
    exif[_EXIF_ORIENTATION] = _TURNED
    exif.get_ifd(_EXIF_GPS)[2] = (51.0, 30.0, 0.0)
    out = io.BytesIO()
    image.save(out, "JPEG", exif=exif)
    return out.getvalue()


def _pdf(pages: int = 1, wide: float = 595, high: float = 842) -> bytes:
    document = pypdfium2.PdfDocument.new()
    for _ in range(pages):
        document.new_page(wide, high)
    out = io.BytesIO()
    document.save(out)
    return out.getvalue()


# Its keys are noise, so that no password opens it.
_LOCKED = (
    b"%PDF-1.4\n1 0 obj<</Type/Catalog/Pages 2 0 R>>endobj\n"
    b"2 0 obj<</Type/Pages/Kids[3 0 R]/Count 1>>endobj\n"
    b"3 0 obj<</Type/Page/Parent 2 0 R/MediaBox[0 0 300 300]>>endobj\n"
    b"4 0 obj<</Filter/Standard/V 1/R 2/P -44/O<" + b"5a" * 32 + b">/U<" + b"7b" * 32 + b">>>endobj\n"
    b"trailer<</Root 1 0 R/Size 5/Encrypt 4 0 R/ID[<00><00>]>>\n%%EOF\n"
)


def _header_of(wide: int, high: int) -> bytes:
    """A PNG that says it is large and holds next to nothing."""

    def chunk(kind: bytes, data: bytes) -> bytes:
        crc = struct.pack(">I", zlib.crc32(kind + data))
        return struct.pack(">I", len(data)) + kind + data + crc

    head = struct.pack(">IIBBBBB", wide, high, 8, 2, 0, 0, 0)
    body = zlib.compress(bytes(1000))
    return b"\x89PNG\r\n\x1a\n" + chunk(b"IHDR", head) + chunk(b"IDAT", body) + chunk(b"IEND", b"")


def test_a_png_comes_through_as_it_is() -> None:
    kept = read_picture(_png())
    assert (kept.media, kept.width_px, kept.height_px, kept.pages) == ("image/png", 60, 40, 1)
    assert Image.open(io.BytesIO(kept.data)).getpixel((5, 5)) == (200, 180, 160)


def test_what_is_clear_is_laid_on_white() -> None:
    kept = read_picture(_png(mode="RGBA"))
    assert Image.open(io.BytesIO(kept.data)).getpixel((5, 5)) == (255, 255, 255)


def test_a_photograph_is_turned_upright_and_its_place_is_gone() -> None:
    assert Image.open(io.BytesIO(_photo())).getexif().get_ifd(_EXIF_GPS)
    kept = read_picture(_photo())
    assert (kept.media, kept.width_px, kept.height_px) == ("image/jpeg", 40, 80)
    assert not dict(Image.open(io.BytesIO(kept.data)).getexif()) and b"Exif" not in kept.data


def test_a_page_of_a_pdf_is_drawn_and_a_large_picture_made_smaller() -> None:
    kept = read_picture(_pdf(3), 2)
    assert kept.pages == 3 and kept.height_px == 3600
    assert kept.width_px == pytest.approx(3600 * 595 / 842, abs=1)
    large = read_picture(_png(5000, 2500, "L"))
    assert (large.width_px, large.height_px) == (3600, 1800)


@pytest.mark.parametrize(
    ("data", "words"),
    [
        (b"", "is empty"),
        (b"not a picture at all", "neither a PNG, a JPEG nor a PDF"),
        (_png()[:60], "damaged or cut off"),
        (_photo()[:300], "damaged or cut off"),
        (b"%PDF-1.7\nnothing", "no readable PDF"),
        (_pdf(500), "has 500 pages"),
        (_pdf(wide=0.2, high=0.2), "nothing on page 1"),
        (_header_of(20_000, 10_000), "has 200 million pixels"),
        (_header_of(7000, 7000), "damaged or cut off"),
        (_header_of(0, 40), "neither a PNG"),
        (b"GIF89a" + bytes(200), "neither a PNG"),
        (bytes(31_000_000), "at most 30 MB"),
    ],
    ids=lambda value: value if isinstance(value, str) else "",
)
def test_what_is_no_picture_is_refused_in_words(data: bytes, words: str) -> None:
    start = time.monotonic()
    with pytest.raises(DesignError, match=words):
        read_picture(data)
    assert time.monotonic() - start < 15


def test_a_page_that_is_not_there_and_a_locked_pdf_are_refused() -> None:
    with pytest.raises(DesignError, match="has 2 pages; there is no page 3"):
        read_picture(_pdf(2), 3)
    with pytest.raises(DesignError, match="locked by a password"):
        read_picture(_LOCKED)


def test_reading_stays_under_half_a_gigabyte() -> None:
    big = _png(7500, 7500, "L")
    script = (
        "import sys;from heathrise.formats.sandbox.picture_worker import main;code=main();"
        "print(open('/proc/self/status').read(),file=sys.stderr);sys.exit(code)"
    )
    done = subprocess.run(
        [sys.executable, "-c", script], input=b'{"page": 1}\n' + big, capture_output=True, check=True
    )
    # The peak of its own memory; what the tests themselves had before it began does not count.
    peak = next(k for k in done.stderr.decode().splitlines() if k.startswith("VmHWM"))
    assert int(peak.split()[1]) < 500_000
