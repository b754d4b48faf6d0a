"""Writes what the front end knows of the API and of the design."""

from __future__ import annotations

import json
from collections.abc import Callable
from pathlib import Path
from typing import Any, Literal

from pydantic import BaseModel

from heathrise.core.catalogue import ROLES, drawing_style
from heathrise.core.context.integrity import REFERENCES
from heathrise.core.design import KINDS
from heathrise.core.records import SnagWords, StepWords
from heathrise.formats.registry import formats
from heathrise.jobs import KINDS as JOB_KINDS
from heathrise.web.app import create_app
from heathrise.web.patches import ROW_KEYS

from .machine import FRONTEND, ROOT

DIRECTIONS: tuple[Literal["out", "in"], ...] = ("out", "in")
_LIMITS = {
    "default": "default",
    "enum": "choices",
    "minimum": "least",
    "maximum": "most",
    "exclusiveMinimum": "above",
    "maxLength": "longest",
}


def api_document() -> str:
    """Return the OpenAPI document as text. No database is touched."""
    app = create_app(None)
    with app.app_context():
        document: dict[str, Any] = app.spec  # type: ignore[attr-defined]
    document["components"]["schemas"] |= _job_schemas()
    return json.dumps(document, indent=1, sort_keys=True)


def _job_schemas() -> dict[str, Any]:
    """Return what may be asked of each kind of job and what it ends in, as schemas by name."""
    found: dict[str, Any] = {}

    def schema(model: type[BaseModel], mode: Literal["validation", "serialization"]) -> dict[str, Any]:
        made = model.model_json_schema(mode=mode, ref_template="#/components/schemas/Job.{model}")
        found.update({f"Job.{name}": inner for name, inner in made.pop("$defs", {}).items()})
        return made

    kinds = {
        name: {
            "type": "object",
            "required": ["asked", "result"],
            "properties": {
                "asked": schema(kind.asked, "validation"),
                "result": schema(kind.result, "serialization"),
            },
        }
        for name, kind in JOB_KINDS.items()
    }
    found["JobKinds"] = {"type": "object", "required": list(kinds), "properties": kinds}
    return found


def design_module() -> str:
    """Return the TypeScript module that says of the design what its classes say."""
    references = {
        kind: [
            {
                "field": field,
                "kind": target,
                "many": many,
                "optional": not many and field not in cls.NEEDS and cls.model_fields[field].default is None,
            }
            for field, (target, many) in REFERENCES[kind].items()
        ]
        for kind, cls in KINDS.items()
    }
    return f"""// Made from the design's classes by ./run check. Change those, not this.
import type {{ Kind }} from './types'

/** Kinds of element, each after those that it refers to. */
export const KINDS: Kind[] = {_plain(list(KINDS))}

/** The key that takes each kind of device in hand. */
export const DEVICE_KEYS: Record<string, string> = {_plain({r.kind: r.key for r in ROLES if r.key})}

export interface Reference {{
  field: string
  kind: Kind
  many: boolean
  optional: boolean
}}

/** Which fields of a kind hold ids of other elements. */
export const REFERENCES: Record<Kind, Reference[]> = {_plain(references)}
"""


def exchange_module() -> str:
    """Return the TypeScript module that says what goes between browser and server beside the design."""
    said = {"step": _fields(StepWords), "snag": _fields(SnagWords)}
    rows = {c: {f: list(k) for f, k in fields.items()} for c, fields in ROW_KEYS.items()}
    files = {
        way: [
            {"file": f.file, "label": f.label, "icon": f.icon, "accept": f.extension, "about": f.about}
            for f in formats(way).values()
        ]
        for way in DIRECTIONS
    }
    return f"""// Made from the classes of the core by ./run check. Change those, not this.

export interface Field {{
  default?: unknown
  choices?: readonly (string | number)[]
  least?: number
  most?: number
  above?: number
  longest?: number
}}

/** What may be said on site of a step and of a snag. */
export const SAID: Record<string, Record<string, Field>> = {_plain(said)}

/** By chapter of an evaluation the tables in it, and the fields that tell their rows apart. */
export const ROW_KEYS: Record<string, Record<string, string[]>> = {_plain(rows)}

export interface Format {{
  file: string
  label: string
  icon: string
  accept: string
  about: string
}}

/** The files that go out of a project, and those that a new one can begin from. */
export const FORMATS: {{ out: Format[]; in: Format[] }} = {_plain(files)}
"""


def drawing_module() -> str:
    """Return the TypeScript module that says how a design is drawn, as the catalogue has it."""
    style = drawing_style().model_dump(mode="json", by_alias=True)
    return f"""// Made from the catalogue by ./run check. Change that, not this.

export interface Pen {{
  width_m: number
  tone: 'masonry' | 'light' | 'timber' | 'metal' | 'glass'
  dash_m: number[] | null
  double: boolean
}}

export interface Mark {{
  strokes: {{ d: string; as: 'body' | 'clear' | 'dot' | 'line' | 'aim' }}[]
  turns: boolean
}}

export interface Path {{
  dash_px: number[]
  weight_px: number
}}

/** How constructions, marks and paths of cable are drawn, and how heavy a path is by its space. */
export const PENS: Record<string, Pen> = {_plain(style["pens"])}
export const MARKS: Record<string, Mark> = {_plain(style["marks"])}
export const PATHS: Record<string, Path> = {_plain(style["paths"])}
export const SPACE_WEIGHTS_PX: Record<string, number> = {_plain(style["space_weights_px"])}

/** What a cord is drawn in, by the word for its colour. */
export const CORDS: Record<string, string> = {_plain(style["cords"])}

/** Lengths that screen, paper and core draw by, m. */
export const MEASURES = {_plain(style["measures"])}
"""


def _fields(cls: type[BaseModel]) -> dict[str, dict[str, Any]]:
    schema = cls.model_json_schema()
    found: dict[str, dict[str, Any]] = {}
    for name, rule in schema["properties"].items():
        options = [rule, *rule.get("anyOf", []), rule.get("items", {})]
        row = {ours: o[theirs] for o in options for theirs, ours in _LIMITS.items() if theirs in o}
        if row:
            found[name] = row
    return found


def _plain(value: object) -> str:
    return json.dumps(value, indent=2, ensure_ascii=False)


MODULES: dict[Path, Callable[[], str]] = {
    FRONTEND / "src" / "api" / "design.ts": design_module,
    FRONTEND / "src" / "api" / "exchange.ts": exchange_module,
    FRONTEND / "src" / "api" / "drawing.ts": drawing_module,
}


if __name__ == "__main__":
    target = ROOT / "build" / "openapi.json"
    target.parent.mkdir(exist_ok=True)
    target.write_text(api_document(), "utf-8")
    for module, text in MODULES.items():
        module.write_text(text(), "utf-8")
