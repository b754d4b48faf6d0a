"""Serves the application on loopback: ``python -m heathrise.web.server``."""

from __future__ import annotations

import argparse
import logging
import threading
from pathlib import Path

import waitress

from ..core.catalogue import load_catalogue
from ..core.evaluate import air_of, evaluate
from ..core.signal.relief import relief
from ..demo import lakeside_home, music_school
from ..demo.lakeside_home import NAME as HOME_NAME
from ..demo.music_school import NAME as SCHOOL_NAME
from ..store import Repository, connect
from ..store.migrate import migrate
from .app import create_app

THREADS = 8


def main() -> None:
    """Migrate, load the demo once, warm the kernels, serve until stopped."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--database", required=True)
    parser.add_argument("--port", type=int, required=True)
    parser.add_argument("--frontend", type=Path)
    parser.add_argument("--demo", action="store_true")
    options = parser.parse_args()
    logging.basicConfig(level=logging.WARNING, format="%(asctime)s %(name)s %(message)s")
    engine = connect(options.database)
    migrate(engine)
    repository = Repository(engine, load_catalogue())
    if options.demo:
        load_demo(repository)
    threading.Thread(target=warm, daemon=True).start()
    app = create_app(repository, options.frontend)
    waitress.serve(
        app,
        host="127.0.0.1",
        port=options.port,
        threads=THREADS,
        ident=None,
        clear_untrusted_proxy_headers=True,
    )


def load_demo(repository: Repository) -> None:
    """Load the made-up sites, once in a database's life."""
    if repository.setting("demo") is not None:
        return
    repository.create(HOME_NAME, lakeside_home(), "demo", "Demo site")
    school = repository.create(SCHOOL_NAME, music_school(), "demo", "Demo site")
    repository.set_setting("demo", school.id)


def warm() -> None:
    """Compile the kernels and fill their cache before the first gesture needs them."""
    catalogue, design = load_catalogue(), music_school()
    evaluate(design, catalogue)
    for quick in (False, True):
        relief(air_of(design, catalogue), "ground", "5", 1, "weaker", quick)


if __name__ == "__main__":
    main()
