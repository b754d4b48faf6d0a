"""The settings sheet as vendor-neutral JSON and YAML, without keys."""

from __future__ import annotations

import json
from typing import Any

import yaml

from ..core.context.plan import Plan
from ..core.evaluation.evaluate import Evaluation, evaluate

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
        **_sheet(evaluation),
    }


def _sheet(evaluation: Evaluation) -> dict[str, Any]:
    """Return networks, names, radios and ports, and how good the channels are known to be."""
    assert evaluation.settings is not None
    rest = evaluation.settings.model_dump(mode="json", exclude={"findings"})
    radios = evaluation.signal.model_dump(mode="json", include={"radios"})
    channels = {"channels", "channels_proven", "channels_note"}
    first = {key: rest.pop(key) for key in ("networks", "names")}
    return {**first, **radios, **rest, **evaluation.signal.model_dump(mode="json", include=channels)}


def settings_json(name: str, evaluation: Evaluation) -> str:
    return json.dumps(settings_document(name, evaluation), indent=1, ensure_ascii=False) + "\n"


def settings_yaml(name: str, evaluation: Evaluation) -> str:
    document = settings_document(name, evaluation)
    text: str = yaml.safe_dump(document, sort_keys=False, allow_unicode=True)
    return text


def write_json(name: str, plan: Plan) -> str:
    return settings_json(name, evaluate(plan, wait=True))


def write_yaml(name: str, plan: Plan) -> str:
    return settings_yaml(name, evaluate(plan, wait=True))
