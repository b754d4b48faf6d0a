"""Reads the catalogue's data files, which lie beside this module."""

from __future__ import annotations

from functools import cache
from importlib.resources import files
from typing import Any

import yaml

from .models import Catalogue
from .rules import load_rules

FILES = (
    "constructions",
    "access_points",
    "cameras",
    "outlets",
    "clients",
    "switches",
    "injectors",
    "cables",
)


@cache
def load_catalogue() -> Catalogue:
    """Return the shipped catalogue; entries keep the order of their file."""
    folder = files(__package__) / "data"
    shelves: dict[str, Any] = {}
    for name in FILES:
        rows = yaml.safe_load((folder / "gear" / f"{name}.yaml").read_text("utf-8"))
        shelves[name] = {key: {"id": key, **row} for key, row in rows.items()}
    return Catalogue.model_validate({**shelves, "rules": load_rules()})
