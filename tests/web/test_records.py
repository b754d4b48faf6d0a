"""Cable tests are appended beside the plan: nothing is changed, nothing is undone with it."""

from __future__ import annotations

import pytest
from sqlalchemy import select

from heathrise.core.design import Design, Device, put, remove
from heathrise.core.records import CableTest
from heathrise.formats.project_file import Project, dump_project
from heathrise.store import Repository, UnknownProject
from heathrise.store.records import Records
from heathrise.store.tables import record
from heathrise.web.app import create_app
from heathrise.web.demo import load_demo


def test_a_test_is_noted_corrected_and_kept(repository: Repository, school: Design) -> None:
    client = create_app(repository).test_client()
    project = repository.create("Tested", school, "me", "made").id
    path = f"/api/projects/{project}/tests"

    def of(answer: dict, device: str, cable: int) -> dict:
        return next(c for c in answer["cables"] if (c["device"], c["cable"]) == (device, cable))

    before = client.get(path).get_json()
    assert {c["verdict"] for c in before["cables"]} == {"untested"}
    assert len([c for c in before["cables"] if c["device"] == "ap-15"]) == 2
    first = client.post(path, json={"device": "ap-15", "cable": 2, "result": "fail"})
    assert first.status_code == 201
    assert of(first.get_json(), "ap-15", 2)["verdict"] == "not_met"
    again = {"device": "ap-15", "cable": 2, "result": "pass", "length_m": 88.5, "note": "redone"}
    then = of(client.post(path, json=again).get_json(), "ap-15", 2)
    assert (then["verdict"], then["tests"], then["last"]["note"]) == ("met", 2, "redone")
    assert then["planned_m"] == pytest.approx(87.6, abs=0.1)

    # The plan's own history is untouched, and the plan may change without losing a record.
    assert repository.load(project).revision == 1
    device = school.of(Device)["ap-15"]
    repository.change(project, 1, [remove(device)], "me", "taken away")
    gone = client.get(path).get_json()
    assert not [c for c in gone["cables"] if c["device"] == "ap-15"]
    repository.change(project, 2, [put(device)], "me", "back")
    assert of(client.get(path).get_json(), "ap-15", 2)["tests"] == 2
    with repository.engine.connect() as connection:
        rows = connection.execute(select(record).where(record.c.project_id == project)).all()
    assert [r.author for r in rows] == ["installer", "installer"]


@pytest.mark.parametrize(
    ("body", "where"),
    [
        ({"device": "nobody", "result": "pass"}, "device"),
        ({"device": "cam-1", "cable": 2, "result": "pass"}, "cable"),
        ({"device": "ap-1", "result": "splendid"}, "result"),
        ({"device": "ap-1", "result": "pass", "length_m": -3}, "length_m"),
        ({"device": "ap-1", "result": "pass", "colour": "blue"}, "colour"),
    ],
)
def test_a_wrong_test_says_what_is_wrong_and_writes_nothing(
    repository: Repository, school: Design, body: dict, where: str
) -> None:
    client = create_app(repository).test_client()
    project = repository.create("Wrong", school, "me", "made").id
    answer = client.post(f"/api/projects/{project}/tests", json=body)
    assert answer.status_code == 422
    assert where in str(answer.get_json()["problems"])
    assert Records(repository.engine).of(project, CableTest) == []


def test_an_unknown_project_has_no_records(repository: Repository) -> None:
    client = create_app(repository).test_client()
    assert client.get("/api/projects/p-none/tests").status_code == 404
    test = CableTest.model_validate(
        {"at": "2026-03-02T09:00:00Z", "author": "me", "device": "ap-1", "result": "pass"}
    )
    with pytest.raises(UnknownProject):
        Records(repository.engine).append("p-none", test)


def test_a_tester_s_file_is_offered_and_written_once(
    repository: Repository, school: Design
) -> None:
    client = create_app(repository).test_client()
    data = dump_project(Project("Tests", school))
    project = client.post("/api/import/project", data=data).get_json()["id"]
    lines = (
        client.get(f"/api/projects/{project}/export/labels.csv").get_data(as_text=True).splitlines()
    )
    label = lines[1].split(",")[0]
    text = f"label;result;length_m\n{label};pass;12,5\nX-1;pass;3\n".encode()
    where = f"/api/projects/{project}/tests/list"
    offered = client.post(where, data=text).get_json()
    assert (offered["read"], offered["taken"], offered["faults"][0]["line"]) == (1, False, 3)
    assert all(c["verdict"] == "untested" for c in offered["cables"])
    for _ in range(2):
        taken = client.post(f"{where}?take=1", data=text).get_json()
    tested = [c for c in taken["cables"] if c["tests"]]
    assert [(c["tests"], c["last"]["length_m"]) for c in tested] == [(1, 12.5)]


def test_the_demo_s_practice_is_half_installed_with_faults(repository: Repository) -> None:
    load_demo(repository)
    with create_app(repository).test_client() as client:
        known = {s["name"]: s["project"] for s in client.get("/api/demo").get_json()["sites"]}
        project = next(p for name, p in known.items() if name.startswith("Hollin"))
        work = client.get(f"/api/projects/{project}/work").get_json()
        states = [s["state"] for s in work["stands"]]
        assert states.count("done") > 20 and "blocked" in states
        assert len(work["stands"]) < len(work["steps"])
        cables = client.get(f"/api/projects/{project}/tests").get_json()["cables"]
        assert {"met", "near", "not_met"} <= {c["verdict"] for c in cables}
