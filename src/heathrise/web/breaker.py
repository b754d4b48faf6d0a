"""Keeps a database that does not answer from taking all threads with it."""

from __future__ import annotations

import time
from threading import Lock

REST_SECONDS = 2.0
_WITHOUT = ("/api/health", "/api/openapi.json", "/api/schema/")


def asks_database(path: str) -> bool:
    """Whether a request for a path goes to the database."""
    return path.startswith("/api/") and not path.startswith(_WITHOUT)


class Breaker:
    """Open after the database failed: for a while only one request in two seconds tries it."""

    def __init__(self) -> None:
        self._lock = Lock()
        self._failed_at: float | None = None

    @property
    def answers(self) -> bool:
        """Whether the database answered when it was last asked."""
        return self._failed_at is None

    def may_try(self) -> bool:
        """Return whether a request may go to the database now."""
        with self._lock:
            if self._failed_at is None:
                return True
            if time.monotonic() - self._failed_at < REST_SECONDS:
                return False
            self._failed_at = time.monotonic()
            return True

    def failed(self) -> None:
        with self._lock:
            self._failed_at = time.monotonic()

    def succeeded(self) -> None:
        with self._lock:
            self._failed_at = None
