"""What is handed over does not change afterwards; ports, snags and agreement over HTTP."""

from __future__ import annotations

import time
import uuid
from collections.abc import Iterator
from typing import Any

import pypdfium2
import pytest
from flask.testing import FlaskClient

from heathrise.core.catalogue import load_catalogue
from heathrise.core.context.plan import Plan
from heathrise.core.design import Design, Device, put
from heathrise.core.views.acceptance import planned_ports
from heathrise.formats.project_file import Project, dump_project
from heathrise.standins import metered_csv
from heathrise.store import Repository, UnknownProject
from heathrise.web.app import create_app


@pytest.fixture
def client(repository: Repository) -> Iterator[FlaskClient]:
    with create_app(repository).test_client() as made:
        yield made


@pytest.fixture
def project(client: FlaskClient, school: Design) -> str:
    data = dump_project(Project("Hand over", school))
    return str(client.post("/api/import/project", data=data).json["id"])  # type: ignore[index]


def _job(client: FlaskClient, project: str, kind: str, **arguments: object) -> dict[str, Any]:
    answer = client.post(f"/api/projects/{project}/jobs", json={"kind": kind, "arguments": arguments})
    job: Any = answer.json
    until = time.monotonic() + 60
    while job["state"] == "running" and time.monotonic() < until:
        time.sleep(0.1)
        job = client.get(f"/api/jobs/{job['id']}").json
    return job


def _move(client: FlaskClient, project: str, school: Design, revision: int, by_m: float) -> None:
    device = school.of(Device)["ap-6"]
    there = device.model_copy(update={"at": (round(device.at[0] + by_m, 2), device.at[1])})
    change = put(there).model_dump(mode="json")
    answer = client.post(
        f"/api/projects/{project}/changes", json={"revision": revision, "label": "Move", "changes": [change]}
    )
    assert answer.status_code == 200


def test_a_hand_over_is_what_it_was_whatever_comes_later(
    client: FlaskClient, project: str, school: Design
) -> None:
    base = f"/api/projects/{project}"
    assert client.post(f"{base}/agreed", json={"revision": 1, "by": "Ann"}).status_code == 201
    made = _job(client, project, "handover", by="Ann")
    assert made["state"] == "done", made["message"]
    papers = made["result"]["papers"]
    first = {kind: client.get(f"{base}/papers/{key}").data for kind, key in papers.items()}
    _move(client, project, school, 1, 1.5)
    view: Any = client.get(f"{base}/handover").json
    (past,) = view["past"]
    assert (past["revision"], past["by"], past["signed_by"]) == (1, "Ann", None)
    assert any("cables are not tested" in text for text in past["still_open"])
    for kind, key in papers.items():
        assert client.get(f"{base}/papers/{key}").data == first[kind]
    # It can be made again: another beside the first, which says what was built otherwise.
    (moved,) = [d for d in view["now"]["built"] if d["element"] == "ap-6"]
    assert moved["change"] == "moved" and moved["what"].startswith("1.5")
    again = _job(client, project, "handover", by="Ben")
    data = client.get(f"{base}/papers/{again['result']['papers']['technician']}").data
    text = " ".join(p.get_textpage().get_text_bounded() for p in pypdfium2.PdfDocument(data))
    assert "from where it was agreed" in text and "Against revision 1" in text
    view = client.get(f"{base}/handover").json
    assert [(h["revision"], h["by"]) for h in view["past"]] == [(2, "Ben"), (1, "Ann")]


def _stands(client: FlaskClient, project: str) -> Any:
    listed: Any = client.get("/api/projects").json
    return next(p["stand"] for p in listed["projects"] if p["id"] == project)


def test_the_list_of_jobs_says_where_each_stands(client: FlaskClient, project: str) -> None:
    base = f"/api/projects/{project}"
    assert _stands(client, project) == {"stage": "planned", "on": None, "by": ""}
    client.post(f"{base}/agreed", json={"revision": 1, "by": "Ann"})
    assert _stands(client, project)["stage"] == "agreed"
    assert _stands(client, project)["on"] is not None
    first = _job(client, project, "handover", by="Ann")["result"]["handover"]
    assert _stands(client, project)["stage"] == "handed_over"
    client.post(f"{base}/handovers/{first}/signed", json={"signed_by": "M. Cantor", "by": "Ann"})
    assert _stands(client, project)["stage"] == "received"
    # A signature is for its own hand-over only.
    _job(client, project, "handover", by="Ann")
    assert _stands(client, project) | {"on": None} == {"stage": "handed_over", "on": None, "by": ""}


def test_a_hand_over_is_signed_once(client: FlaskClient, project: str) -> None:
    base = f"/api/projects/{project}"
    number = _job(client, project, "handover", by="Ann")["result"]["handover"]
    signed = {"signed_by": "M. Cantor", "by": "Ann"}
    view: Any = client.post(f"{base}/handovers/{number}/signed", json=signed).json
    assert view["past"][0]["signed_by"] == "M. Cantor"
    other = {"signed_by": "Somebody else", "by": "Ann"}
    view = client.post(f"{base}/handovers/{number}/signed", json=other).json
    assert view["past"][0]["signed_by"] == "M. Cantor"
    missing = client.post(f"{base}/handovers/99999/signed", json=signed)
    assert missing.status_code == 422 and "no hand-over 99999" in missing.json["message"]  # type: ignore[index]
    assert _stands(client, project)["stage"] == "received"
    assert _stands(client, project)["by"] == "M. Cantor"
    progress: Any = client.get(f"{base}/progress").json
    assert progress["handed_over"] == 1 and progress["signed"] and progress["done"] == 0


def test_who_hands_over_is_asked_for_and_what_is_not_there_is_told(client: FlaskClient, project: str) -> None:
    assert "say who hands over" in _job(client, project, "handover", by=" ")["message"]
    assert "there are A4" in _job(client, project, "sheets_pdf", paper="A9")["message"]
    late = client.post(f"/api/projects/{project}/agreed", json={"revision": 9, "by": "Ann"})
    assert late.status_code == 422 and "no revision 9 yet" in late.json["message"]  # type: ignore[index]
    for path in ("handover", "progress", "snags", "ports"):
        assert client.get(f"/api/projects/none/{path}").status_code == 404


def test_a_storey_goes_out_as_svg(client: FlaskClient, project: str) -> None:
    answer = client.get(f"/api/projects/{project}/sheets/ground.svg?scale=100")
    assert answer.mimetype == "image/svg+xml" and b"1 : 100" in answer.data
    for path, words in (("nowhere.svg", "no storey"), ("ground.svg?scale=73", "there are 20, 50")):
        refused = client.get(f"/api/projects/{project}/sheets/{path}")
        assert refused.status_code == 422 and words in refused.json["message"]  # type: ignore[index]


def test_a_meter_s_file_is_taken_whole_or_when_told(
    client: FlaskClient, project: str, school: Design
) -> None:
    path = f"/api/projects/{project}/ports"
    ports = planned_ports(Plan(school, load_catalogue()))
    text, hidden = metered_csv(ports, 3, 4, "2026-11-24")
    bad = (text + "NOWHERE,1,1000,3,,\n").encode()
    read: Any = client.post(f"{path}/list", data=bad).json
    assert not read["taken"] and read["read"] == len(ports) and len(read["faults"]) == 1
    assert all(p["verdict"] == "unread" for p in read["ports"])
    for _ in range(2):  # the same file again is the same readings
        read = client.post(f"{path}/list?take=1", data=bad).json
    assert read["taken"]
    wrong = {(p["switch"], p["port"]) for p in read["ports"] if p["verdict"] in ("not_met", "near")}
    assert wrong == set(hidden)
    assert client.get(path).json["ports"] == read["ports"]  # type: ignore[index]
    assert sum(s["read"] for s in read["switches"]) == sum(p.expected_w is not None for p in ports)


def _said(state: str, at: str, **more: object) -> dict[str, object]:
    return {
        "key": uuid.uuid4().hex,
        "snag": "snag-one",
        "state": state,
        "what": "Plate missing",
        "by": "Jo",
        "at": at,
        **more,
    }


def test_snags_are_written_once_and_the_last_word_counts(client: FlaskClient, project: str) -> None:
    path = f"/api/projects/{project}/snags"
    late = _said("closed", "2026-11-25T10:00:00+00:00")
    early = _said(
        "open", "2026-11-25T09:00:00+00:00", owner="Ben", due="2026-11-30", kind="device", element="ap-6"
    )
    clock = "2026-11-25T12:00:00+00:00"
    for said in (late, early, late, early):  # each twice, the earlier sent later
        answer = client.post(path, json={"said": [said], "clock": clock})
    (snag,) = answer.json["snags"]  # type: ignore[index]
    assert (snag["state"], snag["seen_by"]) == ("closed", "Jo")
    again = client.post(
        path,
        json={
            "said": [_said("open", "2026-11-25T11:00:00+00:00", owner="Ben", due="2020-01-01")],
            "clock": clock,
        },
    )
    (snag,) = again.json["snags"]  # type: ignore[index]
    assert snag["state"] == "open" and snag["late"]
    view: Any = client.get(f"/api/projects/{project}/handover").json
    assert any(p["group"] == "snags" and "(late)" in p["text"] for p in view["now"]["still_open"])
    for wrong in ({"what": ""}, {"snag": "x y"}, {"due": "soon"}):
        assert (
            client.post(path, json={"said": [_said("open", "2026-11-25T09:00:00+00:00") | wrong]}).status_code
            == 422
        )
    assert client.post("/api/projects/none/snags", json={"said": [late]}).status_code == 404


def test_an_earlier_revision_is_made_again_from_the_journal(
    client: FlaskClient, project: str, school: Design, repository: Repository
) -> None:
    for revision, by_m in ((1, 1.0), (2, 2.0), (3, 0.0)):
        _move(client, project, school, revision, by_m)
    fresh = Repository(repository.engine, load_catalogue())
    x = school.of(Device)["ap-6"].at[0]
    found = [round(fresh.at(project, r).of(Device)["ap-6"].at[0] - x, 2) for r in (1, 2, 3, 4)]
    assert found == [0, 1.0, 2.0, 0]
    assert {k: dict(t) for k, t in fresh.at(project, 4).tables.items() if t} == {
        k: dict(t) for k, t in fresh.load(project).design.tables.items() if t
    }
    for revision in (0, 5):
        with pytest.raises(UnknownProject):
            fresh.at(project, revision)
