"""Tables that come in as text: any order of columns, any usual delimiter, point or comma."""

from __future__ import annotations

import csv
import io
import math
from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from datetime import UTC, datetime
from typing import Literal, NoReturn

from ..core.base.bands import BANDS, Band
from ..core.base.plain_text import plain
from ..core.design import DesignError, Floor, Problem
from ..core.records import in_our_time

MAX_BYTES = 40_000_000
MAX_ROWS = 250_000
_DELIMITERS = (";", "\t", ",", "|")
_SHOWN = 40


@dataclass(frozen=True)
class Row:
    """A row by the names of its columns; ``line`` counts from 1 with the head."""

    line: int
    cells: Mapping[str, str]


@dataclass(frozen=True)
class Fault:
    """What is wrong in one line."""

    line: int
    what: str


def read_table(
    data: bytes,
    columns: Mapping[str, Sequence[str]],
    needed: Sequence[str],
    needs: Literal["all", "any"] = "all",
) -> Iterator[Row]:
    """Yield the rows of a table whose head names its columns, in any order.

    Args:
        columns: by our name, the names a column may have in the head, lower case.
        needed: those of our names without which nothing can be read.
        needs: whether all of those must be there, or any one of them.

    Raises:
        DesignError: it is no such table; nothing was read.
    """
    if len(data) > MAX_BYTES:
        most = MAX_BYTES // 1_000_000
        _refuse(f"has {len(data) / 1e6:.0f} MB; at most {most} MB can be read")
    text = plain(_decoded(data))
    head, _, _ = text.partition("\n")
    if not head.strip():
        _refuse("is empty; its first line should name the columns")
    delimiter = max(_DELIMITERS, key=head.count)
    rows = csv.reader(io.StringIO(text, newline=""), delimiter=delimiter)
    try:
        names = [_plain(cell) for cell in next(rows)]
        places = {
            ours: names.index(found)
            for ours, theirs in columns.items()
            if (found := next((n for n in (ours, *theirs) if n in names), None)) is not None
        }
        lacking = [n for n in needed if n not in places]
        if len(lacking) == len(needed) or (lacking and needs == "all"):
            seen = ", ".join(n for n in names if n)[:120] or "nothing"
            join = ", " if needs == "all" else " or "
            _refuse(f"has no column {join.join(lacking)}; its first line names {seen}")
        for count, cells in enumerate(rows):
            if count >= MAX_ROWS:
                _refuse(f"has more than {MAX_ROWS:,} rows; split it")
            if any(c.strip() for c in cells):
                values = {n: cells[k].strip() if k < len(cells) else "" for n, k in places.items()}
                yield Row(rows.line_num, values)
    except csv.Error as error:
        _refuse(f"line {rows.line_num}: {error}")


Sign = Literal[".", ","]
_SPACES = str.maketrans("", "", "\u00a0\u202f '\u2019")


def signs_of(text: str) -> set[Sign]:
    """Return the signs that can be the decimal one of a number: both where nobody can tell, as in
    1.080, and both as well where it has none."""
    plain = text.translate(_SPACES).lstrip("+-")
    both: set[Sign] = {".", ","}
    used = [c for c in plain if c in ".,"]
    if not used:
        return both
    if len(set(used)) == 2:
        return {"."} if plain.rfind(".") > plain.rfind(",") else {","}
    (sign,) = set(used)
    other: Sign = "," if sign == "." else "."
    head, *groups = plain.split(sign)
    thousands = 1 <= len(head) <= 3 and head[:1] != "0" and all(len(g) == 3 for g in groups)
    if len(groups) > 1:
        return {other} if thousands else set()
    return both if thousands else {sign}  # type: ignore[arg-type]


def decimal_sign(texts: Iterable[str]) -> Sign | None:
    """Return the sign that a whole column has before its decimals; None where nothing in it tells,
    or some of it tells one and some the other."""
    told = [next(iter(s)) for t in texts if len(s := signs_of(t)) == 1]
    return told[0] if told and len(set(told)) == 1 else None


def number_by(text: str, sign: Sign) -> float | None:
    """Return a number whose decimals follow a sign, or None where it is none."""
    if sign not in signs_of(text):
        return number_of(text)
    plain = text.translate(_SPACES).replace("," if sign == "." else ".", "")
    return number_of(plain.replace(sign, "."))


def number_of(text: str) -> float | None:
    """Return a number with a decimal point or comma, or None where it is none."""
    plain = text.translate(_SPACES)
    if plain.count(",") == 1 and "." not in plain:
        plain = plain.replace(",", ".")
    elif "," in plain and "." in plain:
        # The one that stands last is the decimal sign, the other parts thousands.
        thousands = "," if plain.rfind(".") > plain.rfind(",") else "."
        plain = plain.replace(thousands, "").replace(",", ".")
    try:
        value = float(plain)
    except ValueError:
        return None
    return value if math.isfinite(value) else None


@dataclass(frozen=True)
class Taken:
    """When a measurement was taken; ``exact`` where a time of day tells it from the next."""

    at: datetime
    exact: bool


def taken_at(text: str, now: datetime) -> Taken | str:
    """Return when a row was measured, as ISO 8601 has it, or what is wrong with that.

    Without a zone it is taken for UTC; where nothing is said it is ``now``.
    """
    if not text:
        return Taken(now, False)
    try:
        found = datetime.fromisoformat(text)
        at = in_our_time(found if found.tzinfo is not None else found.replace(tzinfo=UTC))
    except ValueError:
        return f"{text[:20]!r} is no day; write it as 2026-11-24 or 2026-11-24T15:30"
    return Taken(at, len(text) > len("2026-11-24"))


def said_band(text: str) -> Band | None:
    """Return a band as it is written, with GHz or without, or None for anything else."""
    plain = text.lower().replace("ghz", "").strip().replace(",", ".")
    return next((b for b in BANDS if b == plain), None)


def floors_by_name(floors: Sequence[Floor]) -> dict[str, str]:
    """Return storeys by what a table may call them, lower case: by id before by name."""
    return {f.name.lower(): f.id for f in floors} | {f.id.lower(): f.id for f in floors}


def shown(faults: Sequence[Fault]) -> list[Fault]:
    """Return the faults that are worth showing: the first of many, and how many more there are."""
    if len(faults) <= _SHOWN:
        return list(faults)
    rest = len(faults) - _SHOWN
    return [*faults[:_SHOWN], Fault(faults[_SHOWN].line, f"and {rest} more faults from here on")]


def _decoded(data: bytes) -> str:
    if data.startswith((b"\xff\xfe", b"\xfe\xff")):
        return data.decode("utf-16", "replace").removeprefix("\ufeff")
    if b"\x00" in data[:4096]:
        _refuse("is no table in text; save it as CSV")
    try:
        return data.decode("utf-8-sig")
    except UnicodeDecodeError:
        return data.decode("cp1252", "replace")


def _plain(cell: str) -> str:
    return cell.strip().strip('"').lower().replace(" ", "_")


def _refuse(what: str) -> NoReturn:
    raise DesignError([Problem("file", what)])


@dataclass
class Once:
    """What the rows of a file have said: a row counts once where its time tells that it is the same; without
    one where it says what was said of its place last, since a place may be as it was before."""

    _lines: dict[str, int] = field(default_factory=dict)
    _last: dict[object, str] = field(default_factory=dict)

    def again(self, row: Row, place: object, digest: str, exact: bool) -> str | None:
        """Note a row of a place; return what is wrong with it where it was said before, else None."""
        if digest in self._lines and (exact or self._last.get(place) == digest):
            return f"is the same as line {self._lines[digest]}; it counts once"
        self._lines[digest], self._last[place] = row.line, digest
        return None
