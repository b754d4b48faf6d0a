"""One keeper for each data folder: who comes second is told who came first."""

from __future__ import annotations

import fcntl
import os
from pathlib import Path

from .machine import ROOT, command_of, stop


class FolderLock:
    """Held for as long as the process lives; the system lets go of it whatever ends the process."""

    def __init__(self, folder: Path) -> None:
        self._folder = folder
        self._path = folder.parent / f"{folder.name}.lock"
        self._handle: int | None = None

    def take(self) -> None:
        """Take the lock, or end with one line that names the process that holds it."""
        self._path.parent.mkdir(parents=True, exist_ok=True)
        handle = os.open(self._path, os.O_RDWR | os.O_CREAT, 0o600)
        try:
            fcntl.flock(handle, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except BlockingIOError:
            pid = os.read(handle, 20).decode("ascii", "replace").strip() or "unknown"
            os.close(handle)
            where = self._folder.relative_to(ROOT) if self._folder.is_relative_to(ROOT) else "data"
            whose = command_of(int(pid))[:80] if pid.isdecimal() else ""
            stop(f"{where} is in use by process {pid} ({whose or 'just ended'}); stop it first.")
        os.ftruncate(handle, 0)
        os.write(handle, str(os.getpid()).encode())
        self._handle = handle

    def release(self) -> None:
        if self._handle is not None:
            os.close(self._handle)
            self._handle = None
