"""What was written by earlier versions is still readable: a sample of each is kept."""

from __future__ import annotations

import re
from pathlib import Path

import pytest
from sqlalchemy import select

from heathrise.core.catalogue import Catalogue
from heathrise.core.design import Device, Wall, put
from heathrise.core.evaluate import evaluate
from heathrise.core.integrity import check
from heathrise.core.records import CableTest
from heathrise.formats.project_file import load_project
from heathrise.store import Repository, connect
from heathrise.store.migrate import migrate
from heathrise.store.records import Records
from heathrise.store.tables import project
from ops.database import Database

SAMPLES = Path(__file__).parent.parent / "samples"


@pytest.mark.parametrize("name", sorted(p.name for p in SAMPLES.glob("project-*.json")))
def test_an_older_project_file_opens(name: str, catalogue: Catalogue) -> None:
    opened = load_project((SAMPLES / name).read_bytes(), catalogue)
    assert len(opened.design.of(Wall)) > 20 and len(opened.design.of(Device)) > 5
    assert evaluate(opened.design, catalogue, "preview").rooms


@pytest.mark.parametrize("name", sorted(p.name for p in SAMPLES.glob("database-*.sql")))
def test_an_older_database_migrates(name: str, database: Database, catalogue: Catalogue) -> None:
    engine = connect(database.create(f"old_{re.sub('[^0-9]', '', name)}", fresh=True))
    script = re.sub(r"^/\*.*?\*/;?\s*$", "", (SAMPLES / name).read_text("utf-8"), flags=re.M)
    raw = engine.raw_connection()
    with raw.cursor() as cursor:
        cursor.execute("SET foreign_key_checks = 0")
        for statement in filter(str.strip, re.split(r";\n", script)):
            cursor.execute(statement)
    raw.commit()
    raw.close()
    migrate(engine)
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
    engine.dispose()
