"""The trade's rules and computation: no web, no database, no interface.

Its face: a design is read, changed and checked by these names, and evaluated by
``heathrise.core.evaluate``. What computes is loaded when it is first asked for.
"""

from __future__ import annotations

from importlib import import_module
from typing import TYPE_CHECKING, Any

from .catalogue import Catalogue, load_catalogue
from .design import Change, Design, DesignError, Problem, apply, design_of, inverse, put, remove

if TYPE_CHECKING:
    from .context.integrity import check

__all__ = [
    "Catalogue",
    "Change",
    "Design",
    "DesignError",
    "Problem",
    "apply",
    "check",
    "design_of",
    "inverse",
    "load_catalogue",
    "put",
    "remove",
]

_LATER = {"check": "context.integrity"}


def __getattr__(name: str) -> Any:
    if name in _LATER:
        return getattr(import_module(f"{__name__}.{_LATER[name]}"), name)
    raise AttributeError(f"module {__name__!r} has no attribute {name!r}")
