"""The settings sheet as vendor-neutral JSON and YAML, without keys."""

from __future__ import annotations

import json
from typing import Any

import yaml

from ..core.evaluate import Evaluation

FORMAT = "heathrise-settings"
VERSION = 1


def settings_document(name: str, evaluation: Evaluation) -> dict[str, Any]:
    """Return the settings as plain data."""
    if evaluation.settings is None:
        raise ValueError("the evaluation was made without settings")
    return {
        "format": FORMAT,
        "version": VERSION,
        "project": name,
        "keys": "not included; made when the controller is set up",
        **evaluation.settings.model_dump(mode="json"),
    }


def settings_json(name: str, evaluation: Evaluation) -> str:
    return json.dumps(settings_document(name, evaluation), indent=1, ensure_ascii=False) + "\n"


def settings_yaml(name: str, evaluation: Evaluation) -> str:
    document = settings_document(name, evaluation)
    text: str = yaml.safe_dump(document, sort_keys=False, allow_unicode=True)
    return text
