"""What was written by earlier versions is still readable: a sample of each is kept."""

from __future__ import annotations

import re
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path

import pytest
from sqlalchemy import Engine, select, text

from bench.migrations import kills_from, load_sample, shape_of
from heathrise.core.catalogue import Catalogue
from heathrise.core.context.integrity import check
from heathrise.core.context.plan import Plan
from heathrise.core.design import Device, Network, Wall, WirelessName, put
from heathrise.core.evaluation.evaluate import evaluate
from heathrise.core.records import CableTest
from heathrise.formats.project_file import load_project
from heathrise.store import Repository, connect
from heathrise.store.migrate import migrate
from heathrise.store.records import Records
from heathrise.store.tables import project
from ops.database import Database

from ..thorough import count

SAMPLES = Path(__file__).parent.parent / "samples"


@pytest.mark.parametrize("name", sorted(p.name for p in SAMPLES.glob("project-*.json")))
def test_an_older_project_file_opens(name: str, catalogue: Catalogue) -> None:
    opened = load_project((SAMPLES / name).read_bytes(), catalogue)
    assert len(opened.design.of(Wall)) > 20 and len(opened.design.of(Device)) > 5
    assert evaluate(Plan(opened.design, catalogue, quick=True)).rooms


@pytest.mark.parametrize("name", sorted(p.name for p in SAMPLES.glob("database-*.sql")))
def test_an_older_database_migrates(name: str, database: Database, catalogue: Catalogue) -> None:
    engine = connect(database.create(f"old_{re.sub('[^0-9]', '', name)}", fresh=True))
    script = load_sample(engine, SAMPLES / name)
    migrate(engine)
    _as_it_was(engine, catalogue, script)
    engine.dispose()


def test_fast_transition_that_a_network_has_anyway_is_by_it_after_a_migration(
    database: Database, catalogue: Catalogue
) -> None:
    engine = connect(database.create("by_purpose", fresh=True))
    load_sample(engine, SAMPLES / "database-0018.sql")
    with engine.connect() as connection:
        before = dict(connection.execute(text("SELECT id, fast_transition FROM wireless_name")).all())  # type: ignore[arg-type]
    migrate(engine)
    repository = Repository(engine, catalogue)
    with engine.connect() as connection:
        (project_id,) = connection.scalars(select(project.c.id))
    design = repository.load(project_id).design
    names = design.of(WirelessName)
    assert set(before) == set(names) and len(names) > 2
    for key, name in names.items():
        usual = design.of(Network)[name.network].purpose != "devices"
        assert name.fast_transition == (None if bool(before[key]) is usual else bool(before[key]))
    assert names["ssid-things"].fast_transition is True  # said by hand against what its network has
    engine.dispose()


_KILLED = ["database-0010.sql", None, "database-0006.sql", "database-0008.sql"]


@pytest.mark.parametrize("name", _KILLED[: count(4, 1)])
def test_a_migration_that_is_killed_goes_on(
    name: str | None, database: Database, catalogue: Catalogue, tmp_path: Path
) -> None:
    sample = SAMPLES / name if name else None
    kills, engine, alike = kills_from(database, sample, tmp_path)
    assert kills >= 3 and alike
    if sample is not None:
        _as_it_was(engine, catalogue, sample.read_text("utf-8"))
    engine.dispose()


def test_two_that_migrate_at_once_wait_for_each_other(database: Database) -> None:
    engines = [connect(database.create("at_once", fresh=k == 0)) for k in range(3)]
    with ThreadPoolExecutor(3) as pool:
        for done in [pool.submit(migrate, engine) for engine in engines]:
            done.result()
    assert "habit" in shape_of(engines[0])
    for engine in engines:
        engine.dispose()


def _as_it_was(engine: Engine, catalogue: Catalogue, script: str) -> None:
    """What a sample holds is read, and can be changed."""
    repository = Repository(engine, catalogue)
    with engine.connect() as connection:
        ids = list(connection.scalars(select(project.c.id)))
    assert ids
    for project_id in ids:
        saved = repository.load(project_id)
        check(saved.design, catalogue)
        assert len(saved.design.of(Wall)) > 20
        device = next(iter(saved.design.of(Device).values()))
        moved = device.model_copy(update={"height_m": 2.5})
        if "INSERT INTO `journal`" in script:
            check(repository.at(project_id, 1), catalogue)  # what was agreed then can be compared
        after = repository.change(project_id, saved.revision, [put(moved)], "test", "after")
        assert after.revision == saved.revision + 1
    if "INSERT INTO `firm_figure`" in script:
        assert repository.catalogue.rules["signal.contend_dbm"] == -84
    if "INSERT INTO `record`" in script:
        assert [t.length_m for t in Records(engine).of(ids[0], CableTest)] == [20.5]
