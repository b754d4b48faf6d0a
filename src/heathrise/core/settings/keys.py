"""Keys of wireless names: how strong one is, what it must not be, and new ones."""

from __future__ import annotations

import math
import random
import re
import unicodedata
from collections.abc import Iterable, Iterator
from functools import cache
from importlib.resources import files
from typing import Any, Literal

from pydantic import Field

from ..base.frozen import Frozen
from ..catalogue import Rules
from ..design import Security

KeyShape = Literal["words", "characters"]
# Without what one takes for another when it is read off a paper: 0 and O, 1, l and I.
ALPHABET = "abcdefghijkmnpqrstuvwxyzABCDEFGHJKLMNPQRSTUVWXYZ23456789"
# IEEE 802.11: a passphrase of WPA2 is 8 to 63 characters of ASCII from 32 to 126; a password of SAE is not
# so bound, and is kept to as many bytes, so that every controller takes it.
LEAST_BYTES, MOST_BYTES = 8, 63
_LEAST_NAME = 4  # shorter words stand in too much else
_GIVEN_UP = 1000


class KeyVerdict(Frozen):
    """How strong a key is, and why it will not do, where it will not."""

    bits: float = Field(description="guesses that find it, as a power of two")
    wrong: tuple[str, ...] = Field((), description="why it will not do, each with what to do")


@cache
def key_words() -> tuple[str, ...]:
    """Return the words that keys are made of: 1,024, of four to six letters, none sounding like another."""
    return tuple(files(__package__).joinpath("key_words.txt").read_text("ascii").split())


def judge_key(key: str, security: Security, avoid: Iterable[str], rules: Rules) -> KeyVerdict:
    """Return how strong a key is that somebody chose, and what is wrong with it.

    Args:
        avoid: names of site, client, project and network, which whoever stands before the house knows.
    """
    from zxcvbn import zxcvbn

    known = _known(avoid)
    wrong = list(_wrong(key, security, known, rules))
    if not key:
        return KeyVerdict(bits=0, wrong=tuple(wrong))
    found = zxcvbn(key[:MOST_BYTES], user_inputs=known)
    bits = round(math.log2(float(found["guesses"])), 1)
    return KeyVerdict(bits=bits, wrong=(*wrong, *_weak(key, bits, found["sequence"], rules)))


def _wrong(key: str, security: Security, known: Iterable[str], rules: Rules) -> Iterator[str]:
    size, least = len(key.encode(errors="replace")), int(rules["settings.key_least_characters"])
    if any(unicodedata.category(c) in ("Cc", "Cs", "Zl", "Zp") for c in key) or key != key.strip():
        yield "it begins or ends with a space, or holds what cannot be typed; leave that out"
    if security != "wpa3" and not key.isascii():
        yield "WPA2 takes plain letters, digits and signs only; choose others, or have the name on WPA3 alone"
    if size > MOST_BYTES:
        yield f"it is {size} bytes long, {MOST_BYTES} are the most that a controller takes; shorten it"
    if len(key) < max(least, LEAST_BYTES):
        yield f"it has {len(key)} characters, {max(least, LEAST_BYTES)} are the least; make it longer"
    plain = _plain(key)
    held = next((word for word in known if word in plain), None)
    if held is not None:
        yield f"it holds {held!r}, which is in a name of this site; leave that out"


def _weak(key: str, bits: float, sequence: Iterable[dict[str, Any]], rules: Rules) -> Iterator[str]:
    common = (len(str(s["token"])) for s in sequence if s.get("dictionary_name") == "passwords")
    if max(common, default=0) * 2 > len(key):
        yield "it is mostly one of the commonest passwords; choose another"
    wanted = rules["settings.key_least_bits"]
    if bits < wanted:
        yield f"it is found within 2^{bits:.0f} guesses, 2^{wanted:.0f} are the least; have one made"


def _known(avoid: Iterable[str]) -> list[str]:
    return sorted({word for name in avoid for word in _words(name)})


def _words(name: str) -> Iterator[str]:
    for part in re.findall(r"[^\W_]+", unicodedata.normalize("NFC", name)):
        if len(plain := _plain(part)) >= _LEAST_NAME and not plain.isdigit():
            yield plain


_LOOKS = str.maketrans("013457@$!", "oleastasi")


def _plain(text: str) -> str:
    """Return text as one hears it: no accents, signs and spaces, digits as letters they look like."""
    kept = unicodedata.normalize("NFKD", text.casefold()).translate(_LOOKS)
    return "".join(c for c in kept if c.isalnum())


def make_key(
    shape: KeyShape, security: Security, avoid: Iterable[str], rules: Rules, chance: random.Random
) -> tuple[str, float]:
    """Return a new key and its strength in bits, which is exact: each is drawn as likely as every other.

    Args:
        avoid: see ``judge_key``; a key that holds one of these is drawn again.
        chance: where chance comes from; for a key in use that of the system, ``secrets.SystemRandom``.
    """
    known = _known(avoid)
    for _ in range(_GIVEN_UP):
        key, bits = _drawn(shape, rules, chance)
        if not any(_wrong(key, security, known, rules)):
            return key, bits
    raise AssertionError("every key holds what it must not")


def _drawn(shape: KeyShape, rules: Rules, chance: random.Random) -> tuple[str, float]:
    parts, glue, figure = (
        (key_words(), "-", "settings.key_words")
        if shape == "words"
        else (ALPHABET, "", "settings.key_characters")
    )
    each, least = math.log2(len(parts)), rules["settings.key_least_bits"]
    count = max(int(rules[figure]), math.ceil(least / each))
    return glue.join(chance.choice(parts) for _ in range(count)), round(count * each, 1)
