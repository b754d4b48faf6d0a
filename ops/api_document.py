"""Writes the OpenAPI document from which the front end's types are made."""

from __future__ import annotations

import json

from heathrise.web.app import create_app

from .machine import ROOT


def api_document() -> str:
    """Return the OpenAPI document as text. No database is touched."""
    app = create_app(None)  # type: ignore[arg-type]
    with app.app_context():
        return json.dumps(app.spec, indent=1, sort_keys=True)  # type: ignore[attr-defined]


if __name__ == "__main__":
    target = ROOT / "build" / "openapi.json"
    target.parent.mkdir(exist_ok=True)
    target.write_text(api_document(), "utf-8")
