"""Shared by all tests: the catalogue, small designs, a MariaDB of the tests' own."""

from __future__ import annotations

import os
from collections.abc import Iterator

import pytest
from sqlalchemy import Engine

from heathrise.core.catalogue import Catalogue, load_catalogue
from heathrise.core.design import Design
from heathrise.demo import music_school
from heathrise.store import Repository, connect
from heathrise.store.migrate import migrate
from ops.database import Database, running
from ops.machine import LOGS, VAR

from .lakeside_home import lakeside_home
from .thorough import PROFILE


def pytest_report_header() -> str:
    return f"looked at: {PROFILE}"


@pytest.fixture(scope="session")
def catalogue() -> Catalogue:
    return load_catalogue()


@pytest.fixture(scope="session")
def school() -> Design:
    return music_school()


@pytest.fixture(scope="session")
def home() -> Design:
    return lakeside_home()


@pytest.fixture(scope="session")
def database() -> Iterator[Database]:
    LOGS.mkdir(parents=True, exist_ok=True)
    folder = VAR / f"test{os.environ.get('PYTEST_XDIST_WORKER', '')}"
    with running(folder, durable=False) as server:
        yield server


@pytest.fixture(scope="session")
def engine(database: Database) -> Engine:
    made = connect(database.create("unit", fresh=True))
    migrate(made)
    return made


@pytest.fixture
def repository(engine: Engine, catalogue: Catalogue) -> Repository:
    return Repository(engine, catalogue)
