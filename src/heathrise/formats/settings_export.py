"""The settings as vendor-neutral JSON and YAML, without keys: out, and in again as changes on a plan.

``{"format": "heathrise-settings", "version": 2, "project": ..., "settings": [{"target", "key", "value",
"reason", "whose", ...}], ...}``; the JSON Schema lies beside this module as ``schema/settings-2.json``.
What is read in again are the ``settings`` alone; the sheets beside them say the same for people. Version 1
had no ``settings``, and is not read.
"""

from __future__ import annotations

import json
from typing import Any, Literal

import yaml
from pydantic import BaseModel, ConfigDict, Field, ValidationError

from ..core.base.frozen import Frozen
from ..core.base.plain_text import plain_line, plain_values
from ..core.context.integrity import check, check_edit
from ..core.context.plan import Plan
from ..core.controlled import Differs, Value, normal, same
from ..core.design import Change, DesignError, Problem, describe, put
from ..core.evaluation.evaluate import evaluate
from ..core.settings import SettingsSheet
from ..core.signal import RadioSheet
from ..core.views.held import Setting, held_settings, in_words, said
from ..core.views.push import taken_over

FORMAT: Literal["heathrise-settings"] = "heathrise-settings"
VERSION: Literal[2] = 2
MAX_BYTES = 5_000_000
_KEYS = "not included; made when the controller is set up"
_MOST = 50_000


class SettingsDocument(SettingsSheet):
    """All settings of a plan: one by one with reason and whose each is, then as the sheets have them."""

    format: Literal["heathrise-settings"] = FORMAT
    version: Literal[2] = VERSION
    project: str
    practice: str = Field(description="name of the practice profile")
    keys: str = _KEYS
    settings: tuple[Setting, ...]
    radios: tuple[RadioSheet, ...] = ()
    channels: dict[str, tuple[int, ...]] = Field({})
    channels_proven: bool | None = None
    channels_note: str = ""


def settings_document(name: str, plan: Plan) -> dict[str, Any]:
    """Return the settings as plain data, the same for JSON and YAML."""
    evaluation = evaluate(plan, wait=True)
    held, sheet, signal = held_settings(plan), evaluation.settings, evaluation.signal
    assert sheet is not None, "a quick plan has no settings"
    own = {field: getattr(sheet, field) for field in SettingsSheet.model_fields}
    document = SettingsDocument(
        **own,
        project=name,
        practice=held.practice,
        settings=held.settings,
        radios=signal.radios or (),
        channels={str(band): numbers for band, numbers in (signal.channels or {}).items()},
        channels_proven=signal.channels_proven,
        channels_note=signal.channels_note or "",
    )
    data = document.model_dump(mode="json")
    first = ("format", "version", "project", "practice", "keys", "settings")
    return {key: data[key] for key in (*first, *(k for k in data if k not in first))}


def settings_schema() -> dict[str, Any]:
    """Return the JSON Schema of the document."""
    return SettingsDocument.model_json_schema(mode="serialization")


def write_json(name: str, plan: Plan) -> str:
    return json.dumps(settings_document(name, plan), indent=1, ensure_ascii=False) + "\n"


def write_yaml(name: str, plan: Plan) -> str:
    text: str = yaml.safe_dump(settings_document(name, plan), sort_keys=False, allow_unicode=True)
    return text


class SettingsRead(Frozen):
    """Settings that were read in beside a plan: the changes by which it has them, in words what each takes,
    and what the plan works out itself and so does not take."""

    changes: tuple[Change, ...]
    taken: tuple[str, ...]
    left: tuple[str, ...]
    alike: int = Field(description="settings that the plan has already")


class _Row(BaseModel):
    model_config = ConfigDict(frozen=True, extra="ignore", allow_inf_nan=False)

    target: str = Field(max_length=80)
    key: str = Field(max_length=80)
    value: bool | int | float | str | list[int] | list[str] | None


class _Document(BaseModel):
    model_config = ConfigDict(frozen=True, extra="ignore")

    format: Literal["heathrise-settings"]
    version: Literal[2]
    settings: list[_Row] = Field(max_length=_MOST)


def read_settings(data: bytes, plan: Plan) -> SettingsRead:
    """Return what a settings file would change in a plan; nothing is changed by looking.

    Raises:
        DesignError: it is none, or of a version that is not read; with the place and what is wrong.
    """
    document = _parsed(data)
    mine = {(s.target, s.key): s for s in held_settings(plan).settings}
    taken: list[str] = []
    left: list[str] = []
    alike, found = 0, plan
    for row in document.settings:
        own = mine.get((row.target, row.key))
        if own is not None and same(own.value, row.value):
            alike += 1
            continue
        wanted: Value = normal(own.value) if own is not None else None
        words = _words(own.on if own is not None else row.target, row.key, row.value)
        changes = None
        if own is not None:
            differs = Differs(target=row.target, key=row.key, held=normal(row.value), wanted=wanted)
            changes = _taken(found, differs)
        if changes is None:
            left.append(words)
        else:
            found = found.after(changes)
            taken.append(words)
    return SettingsRead(changes=_together(plan, found), taken=tuple(taken), left=tuple(left), alike=alike)


def _words(on: str, key: str, value: object) -> str:
    return plain_line(f"{on}, {in_words(key)}: {said(normal(value))}")


def _taken(plan: Plan, differs: Differs) -> tuple[Change, ...] | None:
    """Return the changes that take a setting over, None where the plan cannot stand with it."""
    try:
        changes = taken_over(plan, differs)
        if changes is not None:
            after = plan.after(changes)
            check(after.drawn, plan.shelf)
            check_edit(plan.drawn, after.drawn, changes, plan.shelf)
    except (DesignError, ValidationError):
        return None
    return changes


def _together(plan: Plan, after: Plan) -> tuple[Change, ...]:
    """Return as few changes as lead from one plan to the other."""
    return tuple(
        put(element)
        for kind, element in after.drawn.elements()
        if plan.drawn.get(kind, element.id) != element
    )


def _parsed(data: bytes) -> _Document:
    if len(data) > MAX_BYTES:
        what = f"{len(data) / 1e6:.0f} MB; at most {MAX_BYTES / 1e6:.0f} MB can be read"
        raise DesignError([Problem("file", what)])
    try:
        text = data.decode("utf-8-sig")
        found = json.loads(text) if text.lstrip().startswith("{") else yaml.safe_load(text)
    except (ValueError, RecursionError, yaml.YAMLError):
        raise DesignError([Problem("file", "is neither JSON nor YAML; export settings and look")]) from None
    if not isinstance(found, dict):
        raise DesignError([Problem("file", "is no settings file; it should begin with its format")])
    try:
        return _Document.model_validate(plain_values(found))
    except ValidationError as error:
        raise DesignError(list(describe(error, "settings"))[:20]) from None
