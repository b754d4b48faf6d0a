"""The catalogue as it ships."""

from __future__ import annotations

from functools import cache
from typing import Any

from .files import read
from .practices import Matter, check_matters, shipped
from .roles import ROLES, by_kind
from .rules import load_rules
from .shelves import Catalogue

SHELVES = (
    "constructions",
    "clients",
    "switches",
    "injectors",
    "extenders",
    "converters",
    "splitters",
    "frames",
    "batteries",
    "cables",
    "fibres",
    "parts",
    "bridges",
    "remotes",
    "suns",
)


@cache
def load_catalogue() -> Catalogue:
    """Return the shipped catalogue; entries keep the order of their file."""
    shelves: dict[str, Any] = {name: _shelf(name) for name in SHELVES}
    roles = by_kind(ROLES)
    devices = {kind: _shelf(role.shelf) for kind, role in roles.items()}
    ids = [key for models in devices.values() for key in models]
    if twice := {key for key in ids if ids.count(key) > 1}:
        raise ValueError(f"models stand on two shelves: {', '.join(sorted(twice))}")
    usual = read("usual_networks.yaml")
    sheets = {key: {"id": key, **row} for key, row in read("label_sheets.yaml").items()}
    kinds = {key: {"id": key, **row} for key, row in read("site_kinds.yaml").items()}
    rules, practices = load_rules(), shipped(read("practices.yaml"))
    matters = {key: Matter.model_validate(row) for key, row in read("matters.yaml").items()}
    check_matters(matters, practices, rules)
    return Catalogue.model_validate(
        {
            **shelves,
            "roles": roles,
            "devices": devices,
            "usual_networks": usual,
            "site_kinds": kinds,
            "label_sheets": sheets,
            "matters": matters,
            "practices": practices,
            "rules": rules,
        }
    )


def _shelf(name: str) -> dict[str, Any]:
    return {key: {"id": key, **row} for key, row in read("gear", f"{name}.yaml").items()}
