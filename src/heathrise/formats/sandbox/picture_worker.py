"""Reads one picture in a process of its own: ``python -m heathrise.formats.sandbox.picture_worker``.

Standard input holds a line of JSON with the page that is wanted (from 1), and then the file.
Standard output takes a line of JSON, ``media``, ``width_px``, ``height_px`` and ``pages`` or
``problem``, and then the picture: turned upright, no larger than is useful, without what the
camera wrote of time and place.
"""

from __future__ import annotations

import io
import json
import resource
import sys
import warnings

from .worker import CALM

CPU_SECONDS = 12
MEMORY_BYTES = 900_000_000  # of addresses; of memory it takes less than half
MOST_PIXELS = 80_000_000  # an A1 sheet scanned at 300 dpi has 70
MOST_PAGES = 200
MOST_SIDE_PX = 3600
_PNG_BYTES = 4_000_000
_JPEG_QUALITY = 88


class Refused(ValueError):
    """The file cannot be read, in words that say what to do."""


def main() -> int:
    """Read, answer and leave; the system ends whoever passes the limits."""
    resource.setrlimit(resource.RLIMIT_CPU, (CPU_SECONDS, CPU_SECONDS + 1))
    resource.setrlimit(resource.RLIMIT_AS, (MEMORY_BYTES, MEMORY_BYTES))
    page = int(json.loads(sys.stdin.buffer.readline())["page"])
    data = sys.stdin.buffer.read()
    try:
        head, picture = _pdf(data, page) if data[:1024].find(b"%PDF-") >= 0 else _picture(data)
    except Refused as refused:
        head, picture = {"problem": str(refused)}, b""
    except MemoryError:
        return 2
    sys.stdout.buffer.write(json.dumps(head).encode() + b"\n" + picture)
    return CALM


def _picture(data: bytes) -> tuple[dict[str, object], bytes]:
    from PIL import Image, ImageOps, UnidentifiedImageError

    warnings.simplefilter("ignore")
    Image.MAX_IMAGE_PIXELS = None  # the limit below is stricter, and says what to do
    try:
        with Image.open(io.BytesIO(data), formats=("PNG", "JPEG")) as opened:
            wide, high = opened.size
            if wide * high > MOST_PIXELS:
                most = MOST_PIXELS // 1_000_000
                raise Refused(
                    f"has {wide * high / 1e6:.0f} million pixels; at most {most} million can be "
                    "read. Save it smaller."
                )
            photo = opened.format == "JPEG"
            if photo:
                opened.draft("RGB", (MOST_SIDE_PX, MOST_SIDE_PX))
            upright = ImageOps.exif_transpose(opened)
            return _saved(upright, photo, 1)
    except UnidentifiedImageError:
        raise Refused("is neither a PNG, a JPEG nor a PDF; save it as one of these") from None
    except (OSError, SyntaxError, ValueError) as error:
        if isinstance(error, Refused):
            raise
        raise Refused("is damaged or cut off; save or photograph it again") from None


def _pdf(data: bytes, page: int) -> tuple[dict[str, object], bytes]:
    import pypdfium2

    try:
        document = pypdfium2.PdfDocument(data)
    except pypdfium2.PdfiumError as error:
        locked = "password" in str(error).lower()
        why = "is locked by a password; print it to a new PDF" if locked else "is no readable PDF"
        raise Refused(why) from None
    pages = len(document)
    if not pages:
        raise Refused("has no pages")
    if pages > MOST_PAGES:
        raise Refused(
            f"has {pages} pages; at most {MOST_PAGES} can be looked through. Print the page that "
            "is wanted to a PDF of its own."
        )
    if not 1 <= page <= pages:
        raise Refused(f"has {pages} page{'s' if pages > 1 else ''}; there is no page {page}")
    sheet = document[page - 1]
    wide, high = sheet.get_size()
    if min(wide, high) < 1:
        raise Refused(f"has nothing on page {page}")
    bitmap = sheet.render(scale=min(MOST_SIDE_PX / max(wide, high), 8.0))
    return _saved(bitmap.to_pil(), False, pages)


def _saved(image, photo: bool, pages: int) -> tuple[dict[str, object], bytes]:  # type: ignore[no-untyped-def]
    """Return a picture on white paper, without anything but its pixels."""
    from PIL import Image

    image.thumbnail((MOST_SIDE_PX, MOST_SIDE_PX))
    if image.mode in ("RGBA", "LA", "PA") or "transparency" in image.info:
        seen = image.convert("RGBA")
        image = Image.new("RGB", seen.size, "white")
        image.paste(seen, mask=seen.getchannel("A"))
    image = image.convert("RGB")
    image.info.clear()
    out = io.BytesIO()
    if not photo:
        image.save(out, "PNG", optimize=False, compress_level=6)
    if photo or out.tell() > _PNG_BYTES:
        photo, out = True, io.BytesIO()
        image.save(out, "JPEG", quality=_JPEG_QUALITY)
    media = "image/jpeg" if photo else "image/png"
    head = {"media": media, "width_px": image.width, "height_px": image.height, "pages": pages}
    return head, out.getvalue()


if __name__ == "__main__":
    sys.exit(main())
