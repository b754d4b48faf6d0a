"""The store on a real MariaDB: one write path, revisions, constraints, kill -9."""

from __future__ import annotations

import threading
from pathlib import Path

import pytest
from sqlalchemy import Engine, insert, inspect, select
from sqlalchemy.exc import IntegrityError

from heathrise.core.catalogue import Catalogue
from heathrise.core.design import Design, DesignError, Device, Remove, apply, put
from heathrise.store import Repository, StaleRevision, UnknownProject, connect
from heathrise.store.migrate import migrate
from heathrise.store.tables import ELEMENT_TABLES, metadata
from ops.database import Database


def _moved(design: Design, key: str, x: float) -> Device:
    return design.of(Device)[key].model_copy(update={"at": (x, 5.0)})


def test_what_is_saved_comes_back_whole(
    repository: Repository, engine: Engine, catalogue: Catalogue, school: Design, home: Design
) -> None:
    for design in (school, home):
        saved = repository.create("Site", design, "me", "made")
        fresh = Repository(engine, catalogue).load(saved.id)
        assert fresh.design == design
        kinds = fresh.design.tables.items()
        assert [list(rows) for _, rows in kinds] == [list(design.tables[k]) for k, _ in kinds]


def test_migrations_make_the_tables_the_code_expects(engine: Engine) -> None:
    there = inspect(engine)
    for table in metadata.sorted_tables:
        columns = {c["name"] for c in there.get_columns(table.name)}
        assert columns == {c.name for c in table.columns}
        assert there.get_table_options(table.name)["mysql_engine"] == "InnoDB"
        assert "utf8mb4" in str(there.get_table_options(table.name))


def test_a_change_bumps_the_revision_and_is_in_the_journal(
    repository: Repository, engine: Engine, catalogue: Catalogue, school: Design
) -> None:
    saved = repository.create("Site", school, "me", "made")
    change = put(_moved(school, "ap-3", 19.0))
    after = repository.change(saved.id, 1, [change], "me", "Move AP-3")
    assert after.revision == 2
    assert Repository(engine, catalogue).load(saved.id).design == apply(school, [change])
    labels = [row["label"] for row in repository.history(saved.id)]
    assert labels == ["Move AP-3", "made"]


def test_a_stale_change_is_refused_with_what_came_between(repository: Repository, school: Design) -> None:
    saved = repository.create("Site", school, "me", "made")
    first = put(_moved(school, "ap-3", 19.0))
    repository.change(saved.id, 1, [first], "me", "first")
    with pytest.raises(StaleRevision) as caught:
        repository.change(saved.id, 1, [put(_moved(school, "ap-4", 18.0))], "you", "second")
    assert caught.value.revision == 2
    assert caught.value.since == [first]
    assert repository.load(saved.id).revision == 2


def test_a_design_that_does_not_hold_leaves_no_trace(
    repository: Repository, engine: Engine, catalogue: Catalogue, school: Design
) -> None:
    saved = repository.create("Site", school, "me", "made")
    with pytest.raises(DesignError, match="does not exist"):
        repository.change(saved.id, 1, [Remove(kind="floor", id="upper")], "me", "oops")
    assert Repository(engine, catalogue).load(saved.id).design == school
    assert len(repository.history(saved.id)) == 1


def test_the_database_itself_refuses_dangling_rows(
    repository: Repository, engine: Engine, school: Design
) -> None:
    saved = repository.create("Site", school, "me", "made")
    row = {
        "project_id": saved.id,
        "id": "w999",
        "placed": 1,
        "floor": "nowhere",
        "a": [0, 0],
        "b": [1, 1],
        "construction": "stone",
        "rated": False,
    }
    with pytest.raises(IntegrityError), engine.begin() as connection:
        connection.execute(insert(ELEMENT_TABLES["wall"]).values(row))


def test_two_at_once_never_both_save_on_one_revision(repository: Repository, school: Design) -> None:
    saved = repository.create("Site", school, "me", "made")
    outcomes: list[str] = []

    def edit(number: int) -> None:
        try:
            change = put(_moved(school, f"ap-{number}", 3.0 + number))
            repository.change(saved.id, 1, [change], "me", f"edit {number}")
            outcomes.append("saved")
        except StaleRevision:
            outcomes.append("stale")

    threads = [threading.Thread(target=edit, args=(n,)) for n in range(1, 7)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    assert sorted(outcomes) == ["saved"] + ["stale"] * 5
    assert repository.load(saved.id).revision == 2


def test_removing_a_project_takes_its_rows(repository: Repository, engine: Engine, home: Design) -> None:
    saved = repository.create("Site", home, "me", "made")
    repository.remove(saved.id)
    with pytest.raises(UnknownProject):
        repository.load(saved.id)
    with engine.connect() as connection:
        for table in ELEMENT_TABLES.values():
            left = select(table.c.id).where(table.c.project_id == saved.id)
            assert connection.execute(left).first() is None


def test_killing_the_database_loses_nothing_that_was_saved(
    tmp_path: Path, catalogue: Catalogue, home: Design
) -> None:
    database = Database(tmp_path / "power-cut")
    database.start()
    try:
        engine = connect(database.create("site"))
        migrate(engine)
        repository = Repository(engine, catalogue)
        saved = repository.create("Site", home, "me", "made")
        for revision in range(1, 6):
            change = put(_moved(home, "ap-1", 2.0 + revision / 10))
            repository.change(saved.id, revision, [change], "me", "move")
        port = database.port
        database.kill()
        assert not database.running
        database.start()
        assert database.port == port
        # The same engine notices that its connections are gone and makes new ones.
        assert repository.projects()[0].revision == 6
        again = connect(database.create("site"))
        migrate(again)
        found = Repository(again, catalogue).load(saved.id)
        assert found.revision == 6
        assert found.design.of(Device)["ap-1"].at == (2.5, 5.0)
    finally:
        database.stop()
