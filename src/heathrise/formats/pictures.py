"""Pictures in: photographs and plans as PNG, JPEG or a page of a PDF."""

from __future__ import annotations

import json
from dataclasses import dataclass

from ..core.base.progress import always
from ..core.design import DesignError, Problem
from .sandbox.confine import confined
from .sandbox.picture_worker import CPU_SECONDS

MAX_BYTES = 30_000_000
WALL_SECONDS = 20


@dataclass(frozen=True)
class Picture:
    """A picture as it is kept: upright, in PNG or JPEG, with nothing but its pixels.

    ``pages`` is how many its file had.
    """

    media: str
    width_px: int
    height_px: int
    pages: int
    data: bytes


def read_picture(data: bytes, page: int = 1) -> Picture:
    """Return a picture, or a page of a PDF, counted from 1.

    Raises:
        DesignError: the file cannot be read; it says why and what to do.
    """
    if not data:
        raise DesignError([Problem("file", "is empty; choose it again")])
    if len(data) > MAX_BYTES:
        most = MAX_BYTES // 1_000_000
        what = f"has {len(data) / 1e6:.0f} MB; at most {most} MB can be read. Save it smaller."
        raise DesignError([Problem("file", what)])
    request = json.dumps({"page": page}).encode() + b"\n" + data
    answer = confined("picture_worker", request, always, WALL_SECONDS)
    if answer is None:
        what = f"takes more than {CPU_SECONDS} s or too much memory to read. Save it smaller."
        raise DesignError([Problem("file", what)])
    head, picture = answer.split(b"\n", 1)
    said = json.loads(head)
    if "problem" in said:
        raise DesignError([Problem("file", said["problem"])])
    return Picture(data=picture, **said)
