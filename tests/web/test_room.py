"""A disk without room: told as what it is, reading goes on."""

from __future__ import annotations

from collections import namedtuple
from pathlib import Path

import pytest
from sqlalchemy.exc import DataError, IntegrityError, InternalError, OperationalError

from heathrise.core.design import Design, Network, put
from heathrise.store import Repository
from heathrise.store import repository as repository_module
from heathrise.store.tables import out_of_reach, trouble_of
from heathrise.web import disk_room as room
from heathrise.web.app import create_app

Usage = namedtuple("Usage", "total used free")
NETWORK = Network(id="net-x", name="X", purpose="staff", vlan=77, subnet="10.7.0.0/24")


def test_writes_are_answered_before_they_are_begun_and_reading_goes_on(
    repository: Repository, home: Design, monkeypatch: pytest.MonkeyPatch, tmp_path: Path
) -> None:
    project = repository.create("Full", home, "me", "made").id
    client = create_app(repository, data=tmp_path).test_client()
    path = f"/api/projects/{project}"
    edit = {"revision": 1, "label": "x", "changes": [put(NETWORK).model_dump(mode="json")]}
    free = 10_000_000
    monkeypatch.setattr(room.shutil, "disk_usage", lambda _: Usage(1, 1, free))
    monkeypatch.setattr(room, "_LOOKS_EVERY_SECONDS", 0.0)
    for written in (
        client.post(f"{path}/changes", json=edit),
        client.post(f"{path}/work", json={}),
        client.post(f"{path}/jobs", json={"kind": "brief_pdf"}),
        client.patch(path, json={"name": "No"}),
    ):
        assert written.status_code == 507 and "disk is full" in written.get_json()["message"]
    for read in ("", "/evaluation", "/order", "/work", "/export/cables.csv"):
        assert client.get(path + read).status_code == 200
    preview = {k: edit[k] for k in ("changes",)}
    assert client.post(f"{path}/preview", json=preview).status_code == 200
    free = 900_000_000
    assert client.post(f"{path}/changes", json=edit).status_code == 200


def test_what_writes_nothing_is_named_as_it_is_called() -> None:
    assert set(create_app(None).view_functions) >= room._WRITES_NOTHING


def _failed(cls: type, code: int, text: str) -> Exception:
    return cls("insert", {}, type("Said", (Exception,), {})(code, text))


@pytest.mark.parametrize(
    ("error", "trouble", "status"),
    [
        (_failed(OperationalError, 1021, "Disk full (/tmp/x)"), "full", 507),
        (_failed(OperationalError, 1114, "The table 'paper' is full"), "full", 507),
        (_failed(InternalError, 3, 'Error writing file (Errcode: 28 "No space left")'), "full", 507),
        (_failed(InternalError, 1030, "Got error 28 from storage engine"), "full", 507),
        (_failed(OperationalError, 1030, "Got error 128 from storage engine"), "other", 503),
        (_failed(OperationalError, 2013, "Lost connection"), "gone", 503),
        (_failed(OperationalError, 2003, "Can't connect"), "gone", 503),
        (_failed(OperationalError, 1153, "Got a packet bigger"), "too_large", 413),
        (_failed(DataError, 1406, "Data too long"), "too_large", 413),
    ],
)
def test_what_a_failed_statement_says_is_told_apart(
    error: Exception,
    trouble: str,
    status: int,
    repository: Repository,
    home: Design,
    monkeypatch: pytest.MonkeyPatch,
) -> None:
    assert trouble_of(error) == trouble  # type: ignore[arg-type]
    assert out_of_reach(error) == (trouble in ("gone", "full"))  # type: ignore[arg-type]
    project = repository.create("Trouble", home, "me", "made").id
    client = create_app(repository).test_client()

    def fail(*_: object) -> None:
        raise error

    monkeypatch.setattr(repository_module, "write_elements", fail)
    edit = {"revision": 1, "label": "x", "changes": [put(NETWORK).model_dump(mode="json")]}
    assert client.post(f"/api/projects/{project}/changes", json=edit).status_code == status
    # A full disk keeps nobody from reading; a database that is gone is let alone for a while.
    assert client.get(f"/api/projects/{project}").status_code == (503 if status == 503 else 200)


def test_that_the_server_is_well_says_nothing_of_the_database(
    repository: Repository, monkeypatch: pytest.MonkeyPatch
) -> None:
    """However often its health is asked for, the database is still let alone, and told as gone."""
    client = create_app(repository).test_client()

    def fail() -> None:
        raise _failed(OperationalError, 2003, "Can't connect")

    with monkeypatch.context() as gone:
        gone.setattr(repository, "projects", fail)
        assert client.get("/api/projects").status_code == 503
    for _ in range(3):
        assert client.get("/api/health").get_json()["database"] is False
    assert client.get("/api/projects").status_code == 503


def test_what_is_nobody_s_trouble_but_ours_is_no_answer_in_words() -> None:
    assert trouble_of(_failed(IntegrityError, 1062, "Duplicate entry")) == "other"  # type: ignore[arg-type]
