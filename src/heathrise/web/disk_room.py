"""Room on the disk of the database: nothing is written into the last of it, since a database that
runs out half way through a large write ends."""

from __future__ import annotations

import shutil
import time
from pathlib import Path
from typing import Any

from flask import jsonify, request

LEAST_FREE_BYTES = 64_000_000  # a paper, a picture and the database's own logs
_LOOKS_EVERY_SECONDS = 1.0
DISK_FULL = (
    "The server's disk is full: nothing can be saved until room is made on it. Nothing is lost: "
    "what is drawn is kept here and sent again; all can be read."
)
_WRITES_NOTHING = {
    "projects.preview_project",
    "gestures.make_gesture",
    "signal.walk_path",
    "signal.read_scan_list",
    "transfer.inspect_drawing",
    "jobs.stop_job",
}


class DiskRoom:
    """Answers writes before they are begun while there is no room for them."""

    def __init__(self, folder: Path | None, least_bytes: int = LEAST_FREE_BYTES) -> None:
        self._folder = folder
        self._least_bytes = least_bytes
        self._looked_at = 0.0
        self._short = False

    @property
    def short(self) -> bool:
        """Whether too little is left."""
        if self._folder is None:
            return False
        now = time.monotonic()
        if now - self._looked_at > _LOOKS_EVERY_SECONDS:
            self._looked_at = now
            self._short = shutil.disk_usage(self._folder).free < self._least_bytes
        return self._short

    def guard(self) -> Any:
        """Return what a request is answered with that there is no room for, or None."""
        writes = request.method not in ("GET", "HEAD", "OPTIONS")
        if writes and request.endpoint not in _WRITES_NOTHING and self.short:
            return no_room()
        return None


def no_room() -> Any:
    """Return the answer that says so."""
    return jsonify(message=DISK_FULL, problems=[]), 507
