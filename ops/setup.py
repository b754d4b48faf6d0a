"""Installs what the locks name, and builds the front end, whenever either has changed."""

from __future__ import annotations

import json
import os
import re
import shutil
import sys
from pathlib import Path

from .machine import (
    FRONTEND,
    ROOT,
    VAR,
    VENV,
    check_basics,
    counting,
    is_fresh,
    need_debian,
    need_library,
    need_venv,
    run,
    say,
    set_stamp,
    stamp_of,
)

PYTHON = VENV / "bin" / "python"
DIST = FRONTEND / "dist"
# What lays out text on paper.
PRINTING = {
    "pango-1.0": "libpango-1.0-0",
    "pangoft2-1.0": "libpangoft2-1.0-0",
    "harfbuzz-subset": "libharfbuzz-subset0",
}
INSTALLING = VAR / "installing-python"
KERNELS = VAR / "numba"


def set_up(for_tests: bool = False) -> None:
    """Make the checkout ready to serve, or to be tested."""
    check_basics()
    need_debian("mariadbd", "mariadb-server")
    for library, package in PRINTING.items():
        need_library(library, package)
    if for_tests:
        need_debian("chromium-headless-shell", "chromium-headless-shell")
    _python(for_tests)
    _node_modules()
    if for_tests:
        _api_types()
        _kernels()
    _front_end()


def _python(for_tests: bool) -> None:
    locks = [ROOT / "requirements.lock"]
    if for_tests:
        locks.append(ROOT / "requirements-dev.lock")
    if INSTALLING.exists():
        shutil.rmtree(VENV, ignore_errors=True)  # an earlier set-up was ended half way
        INSTALLING.unlink()
    anew = not PYTHON.exists()
    if anew:
        need_venv()
        INSTALLING.touch()
        say("Making the Python environment ...")
        run([sys.executable, "-m", "venv", str(VENV)], "making the Python environment", "venv")
    pip = [str(PYTHON), "-m", "pip", "--disable-pip-version-check"]
    for lock in locks:
        stamp = stamp_of(lock, ROOT / "pyproject.toml")
        if is_fresh(lock.name, stamp) and not anew:
            continue
        INSTALLING.touch()
        names = locked_names(lock)
        say(f"Installing the {len(names)} Python packages of {lock.name} ...")
        # The lock names everything, so nothing is resolved: what pip would find newer stays out.
        exact = ["install", "--no-deps", "--require-hashes", "--progress-bar", "off"]
        run(
            [*pip, *exact, "-r", str(lock)],
            "Python packages",
            "pip",
            watch=counting(r"^(?:Collecting|Requirement already satisfied:) ([\w.-]+)", len(names)),
        )
        if lock.name == "requirements.lock":
            own = [*pip, "install", "--no-deps", "--no-build-isolation", "-e", str(ROOT)]
            run(own, "installing heathrise", "pip-own")
        run([*pip, "check"], "checking the Python packages", "pip-check")
        set_stamp(lock.name, stamp)
        INSTALLING.unlink()


def locked_names(lock: Path) -> list[str]:
    """Return the names of the packages that a lock file pins."""
    return re.findall(r"^([A-Za-z0-9._-]+)==", lock.read_text("utf-8"), re.MULTILINE)


def _node_modules() -> None:
    stamp = stamp_of(FRONTEND / "package-lock.json", FRONTEND / "package.json")
    if is_fresh("node", stamp) and (FRONTEND / "node_modules").exists():
        return
    lock = json.loads((FRONTEND / "package-lock.json").read_text("utf-8"))
    # Builds for other systems are locked too and never fetched.
    total = sum("linux" in row.get("os", ["linux"]) for key, row in lock["packages"].items() if key)
    say("Installing the npm packages ...")
    run(
        ["npm", "ci", "--no-audit", "--no-fund", "--loglevel=http"],
        "npm packages",
        "npm",
        FRONTEND,
        watch=counting(r"npm http (?:fetch|cache).*/([\w.-]+)\.tgz", total),
    )
    set_stamp("node", stamp)


def _front_end() -> None:
    stamp = stamp_of(*front_end_sources())
    if is_fresh("front-end", stamp) and (DIST / "index.html").exists():
        return
    say("Building the front end ...")
    run(["npm", "run", "build"], "building the front end", "build", FRONTEND)
    set_stamp("front-end", stamp)


def _api_types() -> None:
    """Write what the front end knows of the API and the design, so that none can drift apart."""
    sources = [p for p in (ROOT / "src").rglob("*") if p.suffix in (".py", ".yaml")]
    stamp = stamp_of(*sources, ROOT / "ops" / "api_document.py", FRONTEND / "package-lock.json")
    if is_fresh("api-types", stamp) and (FRONTEND / "src" / "api" / "schema.d.ts").exists():
        return
    run([str(PYTHON), "-m", "ops.api_document"], "describing the API", "api-document")
    run(["npm", "run", "api-types"], "writing the API's types", "api-types", FRONTEND)
    set_stamp("api-types", stamp)


def _kernels() -> None:
    """Compile the kernels once, before many processes would each compile them at the same time."""
    stamp = stamp_of(*(ROOT / "src" / "heathrise" / "core" / "signal").glob("*.py"))
    if is_fresh("kernels", stamp) and any(KERNELS.glob("*")):
        return
    say("Compiling the signal's kernels ...")
    warm = [str(PYTHON), "-c", "from heathrise.web.server import warm; warm()"]
    run(warm, "compiling the kernels", "kernels", env=environment())
    set_stamp("kernels", stamp)


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
    KERNELS.mkdir(parents=True, exist_ok=True)
    kept = {k: v for k, v in os.environ.items() if k != "PYTHONPATH"}
    # Few arenas: what many threads let go of is otherwise kept from the system by each.
    own = {"NUMBA_CACHE_DIR": str(KERNELS), "PYTHONUNBUFFERED": "1", "MALLOC_ARENA_MAX": "2"}
    return {**kept, **own}


def browser() -> str:
    """Return the path of Debian's Chromium."""
    return shutil.which("chromium-headless-shell") or "/usr/bin/chromium-headless-shell"
