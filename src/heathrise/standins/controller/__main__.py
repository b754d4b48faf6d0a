"""Serves the stand-in on loopback: ``python -m heathrise.standins.controller --port N``."""

from __future__ import annotations

import argparse
from pathlib import Path

import waitress

from .app import create_standin


def main() -> None:
    """Serve until stopped."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--port", type=int, required=True)
    parser.add_argument("--folder", type=Path, help="where its sites are kept")
    parser.add_argument("--pace", type=float, default=1.0, help="seconds that go by in each")
    options = parser.parse_args()
    app = create_standin(options.folder, options.pace)
    waitress.serve(app, host="127.0.0.1", port=options.port, threads=4)


if __name__ == "__main__":
    main()
