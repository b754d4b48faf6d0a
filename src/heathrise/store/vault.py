"""What is kept so that the database alone does not tell it: encrypted, its key in a file beside it."""

from __future__ import annotations

import contextlib
import json
import os
import stat
from pathlib import Path

from cryptography.fernet import Fernet, InvalidToken

_MODE = 0o600


class VaultError(RuntimeError):
    """What is kept cannot be opened or sealed; the words say where that lies and what to do."""


class Vault:
    """Seals texts with a key that stands in a file of mode 600; without a ``path`` it seals nothing.

    A sealed text is bound to the project and to what it is the secret of, so that none opens in another's
    place.
    """

    def __init__(self, path: Path | None = None) -> None:
        self._path = path

    def seal(self, project_id: str, of: str, text: str, first: bool) -> str:
        """Return a text sealed.

        Args:
            first: whether nothing was sealed before; only then a file that is not there is made.

        Raises:
            VaultError: there is no file, and there should be, or it is not what it should be.
        """
        said = json.dumps([project_id, of, text])
        return self._box(make=first).encrypt(said.encode()).decode("ascii")

    def open(self, project_id: str, of: str, token: str) -> str:
        """Return what was sealed for a project and a thing of it.

        Raises:
            VaultError: it was sealed with the key of another file, or for something else.
        """
        box = self._box(make=False)
        try:
            project, what, text = json.loads(box.decrypt(token.encode("ascii")))
        except (InvalidToken, ValueError):
            what = f"what is kept was sealed with another key than that in {self._named}"
            raise VaultError(f"{what}; put the file back that was there, or have new keys made") from None
        if (project, what) != (project_id, of):
            raise VaultError("what is kept belongs to another project; have a new key made")
        return str(text)

    @property
    def _named(self) -> str:
        assert self._path is not None
        return self._path.name

    def _box(self, make: bool) -> Fernet:
        if self._path is None:
            raise VaultError("no key file is told; start the program with --key-file and a path")
        try:
            if make and not self._path.exists():
                self._make(self._path)
            mode = stat.S_IMODE(self._path.stat().st_mode)
            if mode & 0o077:
                what = f"others on this machine can read {self._named} (mode {mode:o})"
                raise VaultError(
                    f"{what}; set it to 600, and have new keys made if somebody may have read it"
                )
            return Fernet(self._path.read_bytes().strip())
        except FileNotFoundError:
            what = f"the key file {self._named} is gone, and keys are kept that were sealed with it"
            raise VaultError(f"{what}; put it back from where you back it up") from None
        except OSError as error:
            what = f"the key file {self._named} cannot be used ({error.strerror})"
            raise VaultError(f"{what}; look who owns it and its folder") from None
        except ValueError:
            what = f"{self._named} holds no key"
            raise VaultError(f"{what}; put it back from where you back it up") from None

    @staticmethod
    def _make(path: Path) -> None:
        """Write a new key whole or not at all; who comes second takes what the first has made."""
        path.parent.mkdir(mode=0o700, parents=True, exist_ok=True)
        fresh = path.with_name(f"{path.name}.{os.getpid()}-{os.urandom(4).hex()}")
        handle = os.open(fresh, os.O_WRONLY | os.O_CREAT | os.O_EXCL, _MODE)
        try:
            with os.fdopen(handle, "wb") as file:
                file.write(Fernet.generate_key() + b"\n")
                file.flush()
                os.fsync(file.fileno())
            with contextlib.suppress(FileExistsError):
                os.link(fresh, path)
            folder = os.open(path.parent, os.O_RDONLY)
            os.fsync(folder)
            os.close(folder)
        finally:
            fresh.unlink(missing_ok=True)
