"""Keys: how strong, what is refused, and that those that are made never are."""

from __future__ import annotations

import math
import random
import re

import pytest
from hypothesis import given
from hypothesis import strategies as st

from heathrise.core.catalogue import load_catalogue
from heathrise.core.design import Security
from heathrise.core.settings import KeyShape, judge_key, make_key
from heathrise.core.settings.keys import ALPHABET, MOST_BYTES, key_words

RULES = load_catalogue().rules
SITE = ("Larkmere Music School", "Käthe Örn", "Terrace 7")


def _wrong(key: str, security: Security = "wpa2", avoid: tuple[str, ...] = SITE) -> str:
    return "; ".join(judge_key(key, security, avoid, RULES).wrong)


def test_the_words_are_1024_and_told_apart_when_they_are_read_out() -> None:
    words = key_words()
    assert len(set(words)) == len(words) == 1024
    assert all(re.fullmatch(r"[a-z]{4,6}", w) for w in words)
    assert not {"plane", "reed", "sail", "flour", "knight", "steel", "pedal"} & set(words)


@pytest.mark.parametrize(
    "key, words",
    [
        ("", "it has 0 characters, 14 are the least"),
        ("moor-gras-77x", "it has 13 characters, 14 are the least"),
        ("passwordpassword", "2^45 are the least"),
        ("Password123456789", "2^45 are the least"),
        ("qwertyuiopasdfgh", "commonest passwords"),
        ("aaaaaaaaaaaaaaaaaaaaa", "2^45 are the least"),
        ("Larkmere-quartz-91-vb", "'larkmere', which is in a name of this site"),
        ("l4rkm3r3-quartz-91-vb", "'larkmere', which is in a name of this site"),
        ("viola KAETHE kathe quartz", "'kathe', which is in a name of this site"),
        ("lark mere quartz 91 vb", "'larkmere', which is in a name of this site"),
        (" otter-quartz-91-vb-kiln", "begins or ends with a space"),
        ("otter-quartz\n91-vb-kiln", "cannot be typed"),
        ("otter-quärtz-91-vb-kiln", "have the name on WPA3 alone"),
        ("otter-quartz-91-" * 4, "it is 64 bytes long, 63 are the most"),
    ],
)
def test_what_will_not_do_is_told_with_what_to_do(key: str, words: str) -> None:
    assert words in _wrong(key)


@pytest.mark.parametrize(
    "key", ["otter-quartz-91-vb-kiln", "a;b\\c\"d'e:f,g!h#i$j", "MxTbbmjKX4DBi7", "otter quartz; kiln 91"]
)
def test_what_is_strong_is_taken_whatever_its_signs(key: str) -> None:
    assert _wrong(key) == ""


def test_what_wpa2_cannot_take_wpa3_alone_can() -> None:
    key = '🎻 otter, quärtz; "kiln" \\ 91'
    assert "WPA3 alone" in _wrong(key) and _wrong(key, "wpa3") == ""
    assert "WPA3 alone" in _wrong(key, "wpa3_wpa2")
    assert "bytes long" in _wrong("🎻🎺🥁🎹" * 4, "wpa3")  # 16 characters, 64 bytes


@given(st.text(max_size=80), st.lists(st.text(max_size=20), max_size=3))
def test_whatever_is_typed_is_judged(key: str, avoid: list[str]) -> None:
    """Against a plain reading of the rules that need no library."""
    found = judge_key(key, "wpa2", avoid, RULES)
    must = len(key) < 14 or len(key.encode(errors="replace")) > 63 or not key.isascii() or key != key.strip()
    assert found.bits >= 0 and (found.wrong or not must) and ("2^" in str(found.wrong)) <= (found.bits < 45)


@given(
    st.integers(0, 10_000),
    st.sampled_from(["words", "characters"]),
    st.lists(st.sampled_from(key_words()), max_size=40),
)
def test_a_key_that_is_made_is_as_strong_as_is_said_and_holds_no_name(
    seed: int, shape: KeyShape, names: list[str]
) -> None:
    avoid = [" ".join(names), "Larkmere"]
    key, bits = make_key(shape, "wpa3_wpa2", avoid, RULES, random.Random(seed))
    assert judge_key(key, "wpa3_wpa2", avoid, RULES).wrong == ()
    assert key.isascii() and 14 <= len(key) <= MOST_BYTES
    parts = key.split("-") if shape == "words" else list(key)
    assert set(parts) <= set(key_words() if shape == "words" else ALPHABET)
    assert not set(parts) & set(names)
    choices = 1024 if shape == "words" else 56
    assert bits == pytest.approx(sum(math.log2(choices) for _ in parts), abs=0.1)


def test_keys_are_drawn_evenly_and_never_twice() -> None:
    chance = random.Random(7)
    drawn = [make_key("characters", "wpa2", (), RULES, chance)[0] for _ in range(2000)]
    assert len(set(drawn)) == len(drawn)
    counts = {c: sum(k.count(c) for k in drawn) for c in ALPHABET}
    mean = sum(counts.values()) / len(ALPHABET)
    # Of 32,000 draws each of 56 comes 571 times, give or take 24; five times that is never seen.
    assert all(abs(n - mean) < 5 * math.sqrt(mean) for n in counts.values())
    assert not set("0O1lI") & set("".join(drawn))


def test_a_firm_that_wants_more_strength_gets_longer_keys() -> None:
    stricter = RULES.by_firm({"settings.key_least_bits": 70.0})
    key, bits = make_key("words", "wpa2", (), stricter, random.Random(1))
    assert bits == 70 and key.count("-") == 6
