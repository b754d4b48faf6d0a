"""Codes of vouchers: as long as it takes that nobody guesses one, and read off a slip without a doubt."""

from __future__ import annotations

import math
import random
from collections.abc import Collection

from ..catalogue import Rules

# Capitals and digits, without what one takes for another: 0 and O, 1 and I, 2 and Z, 5 and S, 6 and G, 8 and
# B, U and V; without vowels, so that no code is a word.
VOUCHER_ALPHABET = "CDFHJKLMNPQRTVWXY3479"
MOST_VOUCHERS = 2_000
_GROUP = 4


def code_length(total: int, rules: Rules) -> int:
    """Return how many characters a code has, where so many are valid at once."""
    needed = math.log(rules["settings.voucher_one_in"] * max(1, total), len(VOUCHER_ALPHABET))
    return max(int(rules["settings.voucher_characters"]), math.ceil(needed - 1e-9))


def one_in(total: int, length: int) -> float:
    """Return how many guesses there are to one that is the code of some voucher."""
    return float(len(VOUCHER_ALPHABET) ** length) / max(1, total)


def make_codes(
    count: int, valid: Collection[str], total: int, rules: Rules, chance: random.Random
) -> tuple[str, ...]:
    """Return new codes, each drawn as likely as every other and none twice.

    Args:
        valid: codes that there are, of all sets of the site.
        total: how many will be valid at once.
        chance: where chance comes from; for codes in use that of the system, ``secrets.SystemRandom``.
    """
    length, taken = code_length(total, rules), set(valid)
    found: list[str] = []
    while len(found) < count:
        code = "".join(chance.choice(VOUCHER_ALPHABET) for _ in range(length))
        if code not in taken:
            taken.add(code)
            found.append(code)
    return tuple(found)


def as_printed(code: str) -> str:
    """Return a code in groups, as it is read and typed."""
    parts = math.ceil(len(code) / _GROUP)
    even = math.ceil(len(code) / parts)
    return "-".join(code[k : k + even] for k in range(0, len(code), even))
