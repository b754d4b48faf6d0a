"""Keys as a controller holds them: what tells one again, and does not tell it."""

from __future__ import annotations

import hashlib
import hmac
import os

from pydantic import BaseModel


class HeldKeys(BaseModel):
    """By target the number under which its key was set, and its digest with a salt of its own. A number
    never comes again, though a name may that was gone."""

    rows: dict[str, tuple[int, str, str]] = {}
    last: int = 0

    @property
    def counts(self) -> dict[str, int]:
        return {target: count for target, (count, _, _) in self.rows.items()}

    def put(self, target: str, key: str) -> int:
        self.last = count = max([self.last, *self.counts.values()]) + 1
        salt = os.urandom(16).hex()
        self.rows = {**self.rows, target: (count, salt, _digest(salt, key))}
        return count

    def has(self, target: str, key: str) -> bool:
        """Whether a target has just this key."""
        if target not in self.rows:
            return False
        _, salt, kept = self.rows[target]
        return hmac.compare_digest(kept, _digest(salt, key))

    def drop(self, target: str) -> None:
        self.rows = {t: row for t, row in self.rows.items() if t != target}


def _digest(salt: str, key: str) -> str:
    return hashlib.scrypt(key.encode(), salt=bytes.fromhex(salt), n=2**10, r=8, p=1).hex()
