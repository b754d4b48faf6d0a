"""What layers of other people's drawings meant: the firm's own memory, by the names of layers."""

from __future__ import annotations

import json
from collections.abc import Mapping

from .repository import Repository

_SETTING = "drawing_layers"
MOST_NAMES = 600
_LONGEST = 120


def remembered_layers(repository: Repository) -> dict[str, str]:
    """Return constructions by the names of layers in small letters, the latest last."""
    said = repository.setting(_SETTING)
    return dict(json.loads(said)) if said else {}


def remember_layers(repository: Repository, chosen: Mapping[str, str]) -> None:
    """Keep what was chosen; of more names than can be kept the oldest are forgotten."""
    known = remembered_layers(repository)
    for name, construction in chosen.items():
        key = name.casefold()[:_LONGEST]
        known.pop(key, None)
        known[key] = construction
    kept = list(known.items())[-MOST_NAMES:]
    repository.set_setting(_SETTING, json.dumps(dict(kept)))
