"""What one evaluation has that another had not: the rows and values that an edit changed."""

from __future__ import annotations

from typing import Any, get_args

from pydantic import BaseModel

from ..core.evaluation.evaluate import Evaluation

Tree = dict[str, Any]


def _keys() -> dict[str, dict[str, tuple[str, ...]]]:
    """Return by chapter the fields that hold rows, and what tells the rows apart."""
    found: dict[str, dict[str, tuple[str, ...]]] = {}
    for chapter, info in Evaluation.model_fields.items():
        model = _inner(info.annotation)
        for field, inside in model.model_fields.items() if model else ():
            row = _row(inside.annotation)
            if row is not None:
                found.setdefault(chapter, {})[field] = row
    return found


def _inner(annotation: Any) -> type[BaseModel] | None:
    for option in (annotation, *get_args(annotation)):
        if isinstance(option, type) and issubclass(option, BaseModel):
            return option
    return None


def _row(annotation: Any) -> tuple[str, ...] | None:
    for option in (annotation, *get_args(annotation)):
        model = next(iter(get_args(option)), None)
        key = getattr(model, "KEY", None)
        if key is not None:
            return tuple(key)
    return None


ROW_KEYS = _keys()


def patch(base: Tree, new: Tree) -> Tree:
    """Return what leads from one evaluation to another, both as plain data.

    ``{chapter: {"set": {field: value}, "rows": {field: {"put": rows, "gone": keys, "order":
    keys}}}}``. What is None in the new one was not worked out, and stays as it was. ``order`` is
    left out where the rows that were there keep theirs and the others follow.
    """
    found: Tree = {}
    for chapter, fields in new.items():
        if fields is None:
            continue
        before = base.get(chapter) or {}
        keys = ROW_KEYS.get(chapter, {})
        values: Tree = {}
        rows: Tree = {}
        for field, value in fields.items():
            if value is None:
                continue
            elif field in keys:
                changed = _rows(before.get(field) or [], value, keys[field])
                if changed:
                    rows[field] = changed
            elif field not in before or before[field] != value:
                values[field] = value
        if values or rows:
            found[chapter] = {"set": values, "rows": rows}
    return found


def _rows(before: list[Tree], after: list[Tree], key: tuple[str, ...]) -> Tree:
    old, new = ({_name(row, key): row for row in rows} for rows in (before, after))
    put = [row for name, row in new.items() if old.get(name) != row]
    gone = [name for name in old if name not in new]
    follows = [n for n in old if n in new] + [n for n in new if n not in old]
    found: Tree = {"put": put, "gone": gone} if put or gone else {}
    if follows != list(new):
        found = {"put": put, "gone": gone, "order": list(new)}
    return found


def _name(row: Tree, key: tuple[str, ...]) -> str:
    return "/".join(str(row[field]) for field in key)
