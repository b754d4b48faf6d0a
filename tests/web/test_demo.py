"""The made-up sites are loaded once, and shown with what each teaches."""

from __future__ import annotations

import pytest
from sqlalchemy import text

from heathrise.core.catalogue import Catalogue
from heathrise.core.design import apply
from heathrise.core.records import CableTest, StepRecord
from heathrise.demo import SITES, music_school
from heathrise.store import Repository, connect
from heathrise.store.migrate import migrate
from heathrise.store.records import Records
from heathrise.web.app import create_app
from heathrise.web.demo import load_demo
from ops.database import Database


def test_sites_are_loaded_once_also_into_a_database_that_knew_only_the_school(
    database: Database, catalogue: Catalogue
) -> None:
    engine = connect(database.create("demo_page", fresh=True))
    migrate(engine)
    repository = Repository(engine, catalogue)
    school = repository.create("Our school", music_school(), "demo", "Demo site")
    repository.set_setting("demo", school.id)
    for _ in range(2):
        load_demo(repository)
    names = sorted(p.name for p in repository.projects())
    assert names == sorted(["Our school", *(s.name for s in SITES if s.key != "school")])
    shown = create_app(repository).test_client().get("/api/demo").get_json()["sites"]
    assert [s["teaches"] for s in shown] == [s.teaches for s in SITES]
    assert shown[0]["project"] == school.id
    mill = shown[1]
    assert len(mill["rooms"]) == 8 and len(mill["yards"]) == 1 and mill["storeys"] == 7
    with engine.connect() as connection:
        assert connection.scalar(text("select count(*) from project")) == len(SITES)
    engine.dispose()


def test_a_first_start_that_is_killed_half_way_loads_nothing_twice(
    database: Database, catalogue: Catalogue, monkeypatch: pytest.MonkeyPatch
) -> None:
    engine = connect(database.create("demo_killed", fresh=True))
    migrate(engine)
    repository, records = Repository(engine, catalogue), Records(engine)
    written = 0

    def killed(self: Records, project_id: str, record: object, key: str | None = None) -> int:
        nonlocal written
        written += 1
        if written == 20:
            raise KeyboardInterrupt
        return append(self, project_id, record, key)  # type: ignore[arg-type]

    append = Records.append
    monkeypatch.setattr(Records, "append", killed)
    with pytest.raises(KeyboardInterrupt):
        load_demo(repository)
    load_demo(repository)
    assert written > 30
    assert sorted(p.name for p in repository.projects()) == sorted(s.name for s in SITES)
    for site in (s for s in SITES if s.records is not None):
        design = site.make()
        said = list(site.records(apply(design, site.mend(design)) if site.mend else design))
        for kind in (CableTest, StepRecord):
            held = records.of(f"p-demo-{site.key}", kind)
            assert len(held) == sum(isinstance(r, kind) for r in said)
    engine.dispose()
