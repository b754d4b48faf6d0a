"""Installs what the locks name, and builds the front end, whenever either has changed."""

from __future__ import annotations

import os
import shutil
import sys
from pathlib import Path

from .machine import (
    FRONTEND,
    ROOT,
    VENV,
    check_basics,
    is_fresh,
    need_debian,
    need_venv,
    run,
    say,
    set_stamp,
    stamp_of,
)

PYTHON = VENV / "bin" / "python"
DIST = FRONTEND / "dist"


def set_up(for_tests: bool = False) -> None:
    """Make the checkout ready to serve, or to be tested."""
    check_basics()
    need_debian("mariadbd", "mariadb-server")
    if for_tests:
        need_debian("chromium", "chromium")
    _python(for_tests)
    _node_modules()
    _front_end()
    if for_tests:
        _api_types()


def _python(for_tests: bool) -> None:
    locks = [ROOT / "requirements.lock"]
    if for_tests:
        locks.append(ROOT / "requirements-dev.lock")
    if not PYTHON.exists():
        need_venv()
        say("Making the Python environment ...")
        run([sys.executable, "-m", "venv", str(VENV)], "making the Python environment", "venv")
    for lock in locks:
        stamp = stamp_of(lock, ROOT / "pyproject.toml")
        if not is_fresh(lock.name, stamp):
            say(f"Installing the Python packages of {lock.name} ...")
            pip = [str(PYTHON), "-m", "pip", "install", "--disable-pip-version-check"]
            run([*pip, "--require-hashes", "-r", str(lock)], "installing Python packages", "pip")
            if lock.name == "requirements.lock":
                own = [*pip, "--no-deps", "--no-build-isolation", "-e", str(ROOT)]
                run(own, "installing heathrise", "pip-own")
            set_stamp(lock.name, stamp)


def _node_modules() -> None:
    stamp = stamp_of(FRONTEND / "package-lock.json", FRONTEND / "package.json")
    if is_fresh("node", stamp) and (FRONTEND / "node_modules").exists():
        return
    say("Installing the npm packages ...")
    run(["npm", "ci", "--no-audit", "--no-fund"], "installing npm packages", "npm", FRONTEND)
    set_stamp("node", stamp)


def _front_end() -> None:
    stamp = stamp_of(*front_end_sources())
    if is_fresh("front-end", stamp) and (DIST / "index.html").exists():
        return
    say("Building the front end ...")
    run(["npm", "run", "build"], "building the front end", "build", FRONTEND)
    set_stamp("front-end", stamp)


def _api_types() -> None:
    """Write the front end's types from the API, so that the two cannot drift apart."""
    sources = [p for p in (ROOT / "src").rglob("*.py") if p.is_file()]
    stamp = stamp_of(*sources, FRONTEND / "package-lock.json")
    if is_fresh("api-types", stamp) and (FRONTEND / "src" / "api" / "schema.d.ts").exists():
        return
    run([str(PYTHON), "-m", "ops.api_document"], "describing the API", "api-document")
    run(["npm", "run", "api-types"], "writing the API's types", "api-types", FRONTEND)
    set_stamp("api-types", stamp)


def front_end_sources() -> list[Path]:
    """Return every file that the built front end depends on."""
    names = ("index.html", "vite.config.ts", "package-lock.json")
    files = [FRONTEND / name for name in names]
    for folder in ("src", "public"):
        files += [p for p in (FRONTEND / folder).rglob("*") if p.is_file()]
    # The types of the API are erased from what is built.
    return [f for f in files if f.name != "schema.d.ts"]


def environment() -> dict[str, str]:
    """Return the environment for the project's own processes."""
    cache = ROOT / "var" / "numba"
    cache.mkdir(parents=True, exist_ok=True)
    kept = {k: v for k, v in os.environ.items() if k != "PYTHONPATH"}
    return {**kept, "NUMBA_CACHE_DIR": str(cache), "PYTHONUNBUFFERED": "1"}


def browser() -> str:
    """Return the path of Debian's Chromium."""
    return shutil.which("chromium") or "/usr/bin/chromium"
