"""Reads the catalogue's data, which lies beside this module."""

from __future__ import annotations

from importlib.resources import files
from typing import Any


def read(*path: str) -> Any:
    """Return what a YAML file of the data holds."""
    import yaml  # who only imports the core's shapes need not wait for it

    return yaml.safe_load(files(__package__).joinpath("data", *path).read_text("utf-8"))
