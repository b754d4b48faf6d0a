"""Serves the application on loopback: ``python -m heathrise.web.server``."""

from __future__ import annotations

import argparse
import gc
import logging
import os
import signal
import threading
import time
from pathlib import Path

from sqlalchemy.exc import SQLAlchemyError

from ..controller.service import Controllers
from ..core.catalogue import load_catalogue
from ..core.context.plan import Plan
from ..core.evaluation.evaluate import evaluate
from ..core.signal import environment_of, relief
from ..demo import music_school
from ..store import Repository, connect
from ..store.jobs import Jobs
from ..store.migrate import migrate
from ..store.tables import trouble_of
from ..store.vault import Vault
from .app import create_app
from .demo import hand_over_demo, load_demo
from .front_door import make_server
from .memory import KEEPER

# Not an argument: what is on a command line, everybody on the machine can read.
DATABASE_VARIABLE = "HEATHRISE_DATABASE"
KEEPER_SECONDS = 0.5
COLLECT = (50_000, 20, 20)  # answers are made of many small objects that live on


def main() -> None:
    """Migrate, load the demo once, warm the kernels, serve until stopped."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--port", type=int, required=True)
    parser.add_argument("--frontend", type=Path)
    parser.add_argument("--data", type=Path, help="where the database keeps its data")
    parser.add_argument("--demo", action="store_true")
    parser.add_argument("--controller", help="where the controllers of its sites are, http://host:port")
    parser.add_argument(
        "--key-file", type=Path, help="the key that keys of sites are sealed with; never in the database"
    )
    parser.add_argument("--standin", action="store_true", help="what is there only stands in for them")
    parser.add_argument("--kept", action="store_true", help="end with the process that started it")
    options = parser.parse_args()
    gc.set_threshold(*COLLECT)
    url = os.environ.get(DATABASE_VARIABLE)
    if not url:
        parser.error(f"{DATABASE_VARIABLE} holds no address of a database")
    logging.basicConfig(level=logging.WARNING, format="%(asctime)s %(name)s %(message)s")
    patient = connect(url, patient=True)
    migrate(patient)
    if options.demo:
        load_demo(Repository(patient, load_catalogue()))
    try:
        Jobs(patient).interrupted()
    except SQLAlchemyError as error:
        if trouble_of(error) != "full":
            raise
        logging.warning("the disk is full; jobs of before are not marked as ended")
    patient.dispose()
    repository = Repository(connect(url), load_catalogue())
    if options.kept:
        threading.Thread(target=_end_with, args=(os.getppid(),), daemon=True).start()
    place = Controllers(options.controller, options.standin)
    vault = Vault(options.key_file)
    app = create_app(repository, options.frontend, options.data, place, vault)
    server = make_server(app, options.port)

    def beside() -> None:
        warm()
        if options.demo:
            hand_over_demo(repository)

    threading.Thread(target=beside, daemon=True).start()
    KEEPER.begin()
    server.run()


def _end_with(keeper: int) -> None:
    """End this process soon after its keeper has, however that was ended."""
    while os.getppid() == keeper:
        time.sleep(KEEPER_SECONDS)
    os.kill(os.getpid(), signal.SIGTERM)


def warm() -> None:
    """Compile the kernels and fill their cache before the first gesture needs them."""
    plan = Plan(music_school(), load_catalogue())
    evaluate(plan, wait=True)
    for quick in (False, True):
        relief(environment_of(plan), "ground", "5", 1, "weaker", quick)
    # What is loaded by now stays: the collector need not look through it again and again.
    gc.collect()
    gc.freeze()
    KEEPER.settle()


if __name__ == "__main__":
    main()
