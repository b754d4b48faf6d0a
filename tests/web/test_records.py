"""Cable tests are appended beside the plan: nothing is changed, nothing is undone with it."""

from __future__ import annotations

from datetime import UTC, datetime

import pytest
from sqlalchemy import select

from heathrise.core.context.plan import Plan
from heathrise.core.design import Design, Device, put, remove
from heathrise.core.records import CableTest, PortReading, Signed, SnagRecord
from heathrise.core.views.labels import project_labels
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
    assert then["planned_m"] == pytest.approx(88.2, abs=0.1)

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


def test_a_tester_s_file_is_offered_and_written_once(repository: Repository, school: Design) -> None:
    client = create_app(repository).test_client()
    data = dump_project(Project("Tests", school))
    project = client.post("/api/import/project", data=data).get_json()["id"]
    lines = client.get(f"/api/projects/{project}/export/labels.csv").get_data(as_text=True).splitlines()
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


def test_a_cable_tested_again_without_a_time_is_not_swallowed(repository: Repository, school: Design) -> None:
    """Pass, fail, pass in three files, two of them alike to the byte; each sent twice."""
    client = create_app(repository).test_client()
    project = repository.create("Again", school, "me", "made").id
    label = project_labels(Plan(school, repository.catalogue))[0].near
    path = f"/api/projects/{project}/tests/list"
    for count, word in enumerate(("pass", "fail", "pass"), start=1):
        for _ in range(2):
            answer = client.post(path, data=f"label,result\n{label},{word}\n").get_json()
            assert answer["taken"]
        (found,) = [c for c in answer["cables"] if c["tests"]]
        assert (found["tests"], found["last"]["result"]) == (count, word)
    ports = f"/api/projects/{project}/ports/list"
    for count, mbps in enumerate((1000, 100, 1000), start=1):
        for _ in range(2):
            answer = client.post(ports, data=f"label,mbps\n{label},{mbps}\n").get_json()
        (port,) = [p for p in answer["ports"] if p["last"]]
        assert port["last"]["mbps"] == mbps
        assert len(Records(repository.engine).of(project, PortReading)) == count


def test_a_signature_is_not_kept_out_by_a_key_of_a_snag(repository: Repository, school: Design) -> None:
    records = Records(repository.engine)
    project = repository.create("Keys", school, "me", "made").id
    now = datetime.now(UTC)
    snag = SnagRecord(key="signed-12", snag="snag-1", what="Plate", at=now, author="me")
    signed = Signed(handover=12, signed_by="Client", at=now, author="me")
    first = records.append(project, snag, "signed-12")
    assert records.append(project, signed, "signed-12") not in (first, None)
    records.append_all(project, [("signed-12", signed), ("signed-13", signed)])
    assert len(records.of(project, Signed)) == 2 and len(records.of(project, SnagRecord)) == 1
    with pytest.raises(UnknownProject):
        records.append_all("p-none", [(None, signed)])


def test_a_test_noted_by_hand_is_written_once_under_its_key(repository: Repository, school: Design) -> None:
    client = create_app(repository).test_client()
    project = repository.create("Once", school, "me", "made").id
    said = {"device": "ap-15", "result": "pass", "key": "key-00000001", "by": "Jo"}
    for _ in range(3):
        assert client.post(f"/api/projects/{project}/tests", json=said).status_code == 201
    (test,) = Records(repository.engine).of(project, CableTest)
    assert (test.author, test.result) == ("Jo", "pass")
    future = {**said, "key": "key-00000002", "result": "fail", "at": "2199-01-01T00:00:00Z"}
    client.post(f"/api/projects/{project}/tests", json={**future, "clock": "2199-01-01T00:00:00Z"})
    last = Records(repository.engine).of(project, CableTest)[-1]
    assert abs((last.at - datetime.now(UTC)).total_seconds()) < 20
