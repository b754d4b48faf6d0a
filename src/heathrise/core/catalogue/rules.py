"""The figures of the trade: each stands once, as data, with its unit and its source.

A firm may see a figure differently, the practice profile of a project, and the project itself; what
counts is the project's, else the profile's, else the firm's, else the one that is shipped. Paths are
``discipline.name`` or, for a figure of many, ``discipline.name.key`` such as ``cabling.space_c.attic``.
"""

from __future__ import annotations

import math
from collections.abc import Iterator, Mapping
from functools import cached_property
from typing import Any, Literal

from pydantic import BaseModel, ConfigDict

from ..base.frozen import Frozen
from ..base.wording import celsius, metres
from .files import read
from .poe_classes import PoeClass

Value = float | str | tuple[float, ...]
Whose = Literal["shipped", "firm", "profile", "project"]
SeenBy = Literal["firm", "profile", "project"]
DISCIPLINES = (
    "brief",
    "plan",
    "camera",
    "signal",
    "bands",
    "cabling",
    "power",
    "rack",
    "settings",
    "far",
    "order",
    "install",
    "handover",
)
_UNIT_OF = {"_dbm": "dBm", "_db": "dB", "_w": "W", "_v": "V"}


class Source(BaseModel):
    """What a figure rests on."""

    model_config = ConfigDict(frozen=True, extra="forbid", defer_build=True)

    name: str
    about: str = ""


class Figure(BaseModel):
    """One figure: as shipped, and as the firm, a practice profile and the project see it if they differ.

    Figures in words are chosen among ``choices``; those without any cannot be changed. A list
    has ``length`` numbers where that is given.
    """

    model_config = ConfigDict(frozen=True, extra="forbid", defer_build=True)

    path: str
    label: str
    unit: str
    source: str
    about: str = ""
    least: float | None = None
    most: float | None = None
    choices: tuple[str, ...] = ()
    length: int | None = None
    shipped: Value
    firm: Value | None = None
    profile: Value | None = None
    project: Value | None = None

    @property
    def value(self) -> Value:
        return self.usual if self.project is None else self.project

    @property
    def usual(self) -> Value:
        """What counts where the project has nothing of its own."""
        return next((v for v in (self.profile, self.firm) if v is not None), self.shipped)

    @property
    def whose(self) -> Whose:
        if self.project is not None:
            return "project"
        if self.profile is not None:
            return "profile"
        return "firm" if self.firm is not None else "shipped"

    def wrong(self, value: Value) -> str | None:
        """Return why a value cannot stand here, or None where it can."""
        if isinstance(self.shipped, str):
            if value in self.choices:
                return None
            return f"should be one of {', '.join(self.choices)}" if self.choices else "is fixed"
        many = isinstance(self.shipped, tuple)
        if isinstance(value, str) or isinstance(value, tuple) != many:
            return "should be a list of numbers" if many else "should be a number"
        if self.length is not None and isinstance(value, tuple) and len(value) != self.length:
            return f"should be {self.length} numbers"
        for number in value if isinstance(value, tuple) else (value,):
            low = self.least if self.least is not None else -math.inf
            high = self.most if self.most is not None else math.inf
            if not low <= number <= high:
                return f"should lie between {low:g} and {high:g} {self.unit}".rstrip()
        return None


class Used(Frozen):
    """A figure that a verdict rests on: its value in words, whose it is, and its source."""

    figure: str
    label: str
    value: str
    whose: Whose
    source: str


class Rules(BaseModel):
    """All figures by path, and the sources they name."""

    model_config = ConfigDict(frozen=True, extra="forbid", defer_build=True)

    figures: dict[str, Figure]
    sources: dict[str, Source]

    def __getitem__(self, path: str) -> float:
        """Return a figure that is one number."""
        value = self._values[path]
        assert isinstance(value, float), path
        return value

    def numbers(self, path: str) -> tuple[float, ...]:
        """Return a figure that is a list of numbers."""
        value = self._values[path]
        assert isinstance(value, tuple), path
        return value

    def whole_numbers(self, path: str) -> tuple[int, ...]:
        return tuple(map(int, self.numbers(path)))

    def text(self, path: str) -> str:
        """Return a figure that is a word."""
        value = self._values[path]
        assert isinstance(value, str), path
        return value

    def table(self, path: str) -> dict[str, float]:
        """Return the numbers below a path by their last key, in the order of the file."""
        return {k: v for k, v in self._below(path) if isinstance(v, float)}

    def words(self, path: str) -> dict[str, str]:
        """Return the words below a path by their last key."""
        return {k: v for k, v in self._below(path) if isinstance(v, str)}

    def lists(self, path: str) -> dict[str, tuple[int, ...]]:
        """Return the lists of whole numbers below a path by their last key."""
        return {k: tuple(map(int, v)) for k, v in self._below(path) if isinstance(v, tuple)}

    def source(self, path: str) -> str:
        """Return the name of a figure's source."""
        return self.sources[self.figures[path].source].name

    def used(self, *paths: str) -> tuple[Used, ...]:
        """Return the figures that a verdict rests on, as it shows them."""
        return tuple(
            Used(
                figure=path,
                label=(figure := self.figures[path]).label,
                value=in_words(figure.value, figure.unit),
                whose=figure.whose,
                source=self.source(path),
            )
            for path in paths
        )

    def by_firm(self, values: Mapping[str, Value]) -> Rules:
        """Return the figures with the firm's own; those that are unknown or wrong are left out."""
        return self._with("firm", values)

    def by_project(self, values: Mapping[str, Value]) -> Rules:
        """Return the figures with a project's own, in place of any other project's."""
        return self._with("project", values)

    def by_profile(self, values: Mapping[str, Value]) -> Rules:
        """Return the figures with those of a practice profile, in place of any other profile's."""
        return self._with("profile", values)

    def own(self, whose: SeenBy) -> dict[str, Value]:
        """Return what the firm, the profile or the project sees differently."""
        return self._own[whose]

    @cached_property
    def _own(self) -> dict[str, dict[str, Value]]:
        rows = self.figures.items()
        return {
            "firm": {path: f.firm for path, f in rows if f.firm is not None},
            "profile": {path: f.profile for path, f in rows if f.profile is not None},
            "project": {path: f.project for path, f in rows if f.project is not None},
        }

    @cached_property
    def poe_classes(self) -> dict[int, PoeClass]:
        """The classes of Power over Ethernet by number."""
        found: dict[int, PoeClass] = {}
        for key in self._keys("power.poe"):
            numbers = self.table(f"power.poe.{key}")
            found[int(key)] = PoeClass(
                number=int(key),
                standard=self.text(f"power.poe.{key}.standard"),
                reserved_w=numbers["reserved_w"],
                device_w=numbers["device_w"],
                pairs=int(numbers["pairs"]),
                port_v=numbers["port_v"],
                device_v=numbers["device_v"],
            )
        return found

    @cached_property
    def _values(self) -> dict[str, Value]:
        return {p: float(v) if isinstance(v := f.value, int) else v for p, f in self.figures.items()}

    @cached_property
    def _branches(self) -> dict[str, dict[str, Value]]:
        found: dict[str, dict[str, Value]] = {}
        for path, value in self._values.items():
            for k, letter in enumerate(path):
                if letter == ".":
                    found.setdefault(path[:k], {})[path[k + 1 :]] = value
        return found

    def _below(self, path: str) -> Iterator[tuple[str, Value]]:
        return iter(self._branches[path].items())

    def _keys(self, path: str) -> list[str]:
        return list(dict.fromkeys(key.split(".")[0] for key, _ in self._below(path)))

    def _with(self, whose: SeenBy, values: Mapping[str, Value]) -> Rules:
        figures = {
            path: figure.model_copy(update={whose: _good(figure, values.get(path))})
            for path, figure in self.figures.items()
        }
        return Rules.model_construct(figures=figures, sources=self.sources)


def _good(figure: Figure, value: Value | None) -> Value | None:
    return value if value is not None and figure.wrong(value) is None else None


def in_words(value: Value, unit: str) -> str:
    """Return a value with its unit: a share in per cent, lengths and heat as in sentences."""
    if isinstance(value, tuple):
        return ", ".join(f"{v:g}" for v in value) + (f" {unit}" if unit else "")
    if isinstance(value, str):
        return f"{value} {unit}".rstrip()
    if unit == "share":
        return f"{100 * value:g} %"
    if unit == "m":
        return metres(value)
    return celsius(value) if unit == "°C" else f"{value:g} {unit}".rstrip()


def load_rules() -> Rules:
    """Return the shipped figures."""
    sources = read("sources.yaml")
    figures: dict[str, Figure] = {}
    for discipline in DISCIPLINES:
        for name, row in read("rules", f"{discipline}.yaml").items():
            for figure in _figures(f"{discipline}.{name}", row):
                figures[figure.path] = figure
    rules = Rules.model_validate({"figures": figures, "sources": sources})
    for figure in figures.values():
        _check(figure, rules)
    return rules


def _figures(path: str, row: dict[str, Any]) -> Iterator[Figure]:
    common = {k: v for k, v in row.items() if k not in ("value", "each", "each_of")}
    if "each_of" in row:  # one for each entry of a shelf
        row = {"each": dict.fromkeys(read("gear", f"{row['each_of']}.yaml"), row["value"])}
    if "value" in row:
        yield _figure(path, row["value"], common, "")
        return
    for key, value in row["each"].items():
        if not isinstance(value, dict):
            yield _figure(f"{path}.{key}", value, common, f": {_plain(key)}")
            continue
        for field, inner in value.items():
            label = f": {_plain(key)}, {_plain(field)}"
            yield _figure(f"{path}.{key}.{field}", inner, common, label)


def _figure(path: str, value: Any, common: dict[str, Any], more: str) -> Figure:
    last = path.rsplit(".", 1)[-1]
    unit = next((u for end, u in _UNIT_OF.items() if last.endswith(end)), "")
    row = {"unit": unit, **common, "label": common["label"] + more}
    if isinstance(value, int):
        value = float(value)
    return Figure(path=path, shipped=value, **row)


def _plain(key: object) -> str:
    text = str(key)
    for end in _UNIT_OF:
        text = text.removesuffix(end)
    return text.replace("_", " ")


def _check(figure: Figure, rules: Rules) -> None:
    """Refuse shipped data that would refuse itself."""
    if figure.source not in rules.sources:
        raise ValueError(f"{figure.path}: there is no source {figure.source!r}")
    fixed = isinstance(figure.shipped, str) and not figure.choices
    if not fixed and (wrong := figure.wrong(figure.shipped)) is not None:
        raise ValueError(f"{figure.path}: {wrong}")
