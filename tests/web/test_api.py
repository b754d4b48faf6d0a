"""The API through the test client on a real MariaDB."""

from __future__ import annotations

import io
import json
import time
from collections.abc import Iterator

import pytest
from flask.testing import FlaskClient
from PIL import Image
from werkzeug.test import TestResponse

from heathrise.core.catalogue import load_catalogue
from heathrise.core.design import Design, Device, apply, put
from heathrise.formats.project_file import Project, dump_project
from heathrise.store import Repository
from heathrise.web.app import create_app
from ops.api_document import api_document
from tests.formats.test_dxf import LAYERS, data_of, drawing


@pytest.fixture
def client(repository: Repository) -> Iterator[FlaskClient]:
    with create_app(repository).test_client() as made:
        yield made


@pytest.fixture
def project(repository: Repository, school: Design) -> str:
    return repository.create("Larkmere", school, "me", "made").id


def answered(response: TestResponse) -> dict:
    """The evaluation that comes in the first line of the answer to an edit."""
    assert response.status_code == 200, response.text
    return json.loads(response.text.splitlines()[0])["answer"]


def finished(client: FlaskClient, begun: TestResponse) -> dict:
    """The job that a request has begun, once it has ended."""
    assert begun.status_code == 202, begun.text
    job = begun.get_json()
    for _ in range(600):
        if job["state"] != "running":
            return job
        time.sleep(0.05)
        job = client.get(f"/api/jobs/{job['id']}").get_json()
    raise AssertionError(job)


def _move(school: Design, key: str, x: float, y: float = 5.0) -> dict:
    element = school.of(Device)[key].model_copy(update={"at": (x, y)}).model_dump(mode="json")
    return {"op": "put", "kind": "device", "element": element}


def test_open_change_and_read_again(client: FlaskClient, project: str, school: Design) -> None:
    opened = client.get(f"/api/projects/{project}").get_json()
    assert len(opened["elements"]["device"]) == len(school.of(Device))
    body = {"revision": 1, "label": "Move", "changes": [_move(school, "ap-3", 19.0)]}
    answer = answered(client.post(f"/api/projects/{project}/changes", json=body))
    assert answer["revision"] == 2
    assert answer["evaluation"]["totals"]["access_points"] == 15
    whole = client.get(f"/api/projects/{project}/evaluation").get_json()
    for _ in range(100):
        if not whole["evaluation"]["signal"]["searching"]:
            break
        time.sleep(0.1)
        whole = client.get(f"/api/projects/{project}/evaluation").get_json()
    assert whole["evaluation"]["signal"]["channels_proven"]
    device = next(
        d
        for d in client.get(f"/api/projects/{project}").get_json()["elements"]["device"]
        if d["id"] == "ap-3"
    )
    assert device["at"] == [19.0, 5.0]


def test_stale_gets_409_with_what_changed(client: FlaskClient, project: str, school: Design) -> None:
    path = f"/api/projects/{project}/changes"
    first = {"revision": 1, "label": "a", "changes": [_move(school, "ap-3", 19.0)]}
    assert client.post(path, json=first).status_code == 200
    second = client.post(path, json={**first, "changes": [_move(school, "ap-4", 18.0)]})
    assert second.status_code == 409
    assert second.get_json()["revision"] == 2
    assert second.get_json()["since"] == first["changes"]


def test_preview_answers_but_saves_nothing(client: FlaskClient, project: str, school: Design) -> None:
    body = {
        "changes": [_move(school, "ap-6", 30.0)],
        "view": {"floor": "ground", "band": "5", "rank": 2, "direction": "uplink"},
    }
    lines = client.post(f"/api/projects/{project}/preview", json=body).text.splitlines()
    drawn, judged = (json.loads(line) for line in lines)
    assert drawn["relief"]["rank"] == 2 and any(drawn["relief"]["tints"])
    assert judged["answer"]["evaluation"]["settings"] is None
    spared = client.post(f"/api/projects/{project}/preview", json={**body, "figures": False})
    assert [json.loads(line)["relief"] for line in spared.text.splitlines()] == [drawn["relief"]]
    assert client.get(f"/api/projects/{project}").get_json()["revision"] == 1


@pytest.mark.parametrize(
    ("path", "body", "status", "said"),
    [
        ("changes", {"revision": "x", "label": "", "changes": []}, 422, "revision"),
        ("changes", {"revision": 1, "label": "", "changes": []}, 422, "changes"),
        (
            "changes",
            {"revision": 1, "label": "x", "changes": [{"op": "put", "kind": "ufo", "element": {}}]},
            422,
            "no kind",
        ),
        (
            "changes",
            {
                "revision": 1,
                "label": "x",
                "changes": [{"op": "put", "kind": "device", "element": {"id": "z"}}],
            },
            422,
            "device[z].floor",
        ),
        (
            "changes",
            {"revision": 1, "label": "x", "changes": [{"op": "remove", "kind": "device", "id": "nobody"}]},
            422,
            "not in the design",
        ),
        (
            "changes",
            {"revision": 1, "label": "x", "changes": [{"op": "remove", "kind": "floor", "id": "upper"}]},
            422,
            "does not exist",
        ),
        ("preview", {"changes": [], "view": {"floor": "attic"}}, 422, "no floor"),
        ("preview", {"changes": [], "view": {"floor": "ground", "band": "7"}}, 422, "band"),
    ],
)
def test_bad_input_is_refused_with_its_place(
    client: FlaskClient, project: str, path: str, body: dict, status: int, said: str
) -> None:
    answer = client.post(f"/api/projects/{project}/{path}", json=body)
    assert answer.status_code == status
    assert said in answer.get_json()["message"]
    assert client.get(f"/api/projects/{project}").get_json()["revision"] == 1


def test_text_that_is_no_json_and_projects_that_are_not_there(client: FlaskClient) -> None:
    broken = client.post("/api/projects/p-none/changes", data="{", content_type="application/json")
    assert broken.status_code in (400, 422) and "message" in broken.get_json()
    missing = client.get("/api/projects/p-none")
    assert missing.status_code == 404 and "p-none" in missing.get_json()["message"]
    assert client.get("/api/projects/p-none/levels?floor=ground&x=nan&y=1").status_code in (404, 422)


def test_levels_at_a_spot_name_the_room(client: FlaskClient, project: str) -> None:
    found = client.get(f"/api/projects/{project}/levels?floor=ground&x=20.5&y=13.0").get_json()
    assert found["space"] == "Rehearsal room"
    assert found["readings"][0]["device"] == "ap-3"
    assert client.get(f"/api/projects/{project}/levels?floor=ground&x=inf&y=1").status_code == 422


def test_a_searched_cure_can_be_applied(client: FlaskClient, project: str) -> None:
    body = {"finding": "signal-room-upper-practice-8"}
    cures = finished(
        client, client.post(f"/api/projects/{project}/jobs", json={"kind": "cures", "arguments": body})
    )["result"]["cures"]
    assert cures
    edit = {"revision": 1, "label": cures[0]["label"], "changes": cures[0]["changes"]}
    answer = answered(client.post(f"/api/projects/{project}/changes", json=edit))
    ids = {f["id"] for f in answer["evaluation"]["signal"]["findings"]}
    assert body["finding"] not in ids


def test_export_and_open_again_is_the_same_project(client: FlaskClient, project: str) -> None:
    file = client.get(f"/api/projects/{project}/export/project.json")
    assert "attachment" in file.headers["Content-Disposition"]
    opened = client.post("/api/import/project", data=file.data)
    assert opened.status_code == 201
    again = client.get(f"/api/projects/{opened.get_json()['id']}/export/project.json")
    assert json.loads(again.data)["elements"] == json.loads(file.data)["elements"]
    assert client.get(f"/api/projects/{project}/export/secrets.txt").status_code == 404


def test_a_bad_file_leaves_no_project(client: FlaskClient, project: str) -> None:
    before = len(client.get("/api/projects").get_json()["projects"])
    answer = client.post("/api/import/project", data=b'{"format": ')
    assert answer.status_code == 422 and "line 1" in answer.get_json()["message"]
    assert len(client.get("/api/projects").get_json()["projects"]) == before


def test_a_drawing_is_inspected_and_drawn(client: FlaskClient) -> None:
    data = data_of(drawing())
    found = client.post("/api/import/dxf/inspect", data=data).get_json()
    assert found["units"] == "mm"
    form = {"drawing": (io.BytesIO(data), "hut.dxf"), "choice": json.dumps({"name": "Hut", "layers": LAYERS})}
    made = client.post("/api/import/dxf", data=form, content_type="multipart/form-data")
    job = finished(client, made)
    assert job["state"] == "done", job
    drawn = client.get(f"/api/projects/{job['result']['project']}").get_json()
    assert len(drawn["elements"]["space"]) == 2
    form = {
        "drawing": (io.BytesIO(b"no drawing"), "hut.dxf"),
        "choice": json.dumps({"name": "Hut", "layers": LAYERS}),
    }
    job = finished(client, client.post("/api/import/dxf", data=form, content_type="multipart/form-data"))
    assert job["state"] == "failed" and "not a DXF drawing" in job["message"]
    form = {"drawing": (io.BytesIO(data), "hut.dxf"), "choice": '{"name": ""}'}
    refused = client.post("/api/import/dxf", data=form, content_type="multipart/form-data")
    assert refused.status_code == 422 and "choice." in refused.get_json()["message"]


def test_a_new_project_begins_with_empty_storeys(client: FlaskClient) -> None:
    made = client.post("/api/projects", json={"name": "New", "storeys": 3})
    assert made.status_code == 201
    assert [f["level"] for f in made.get_json()["elements"]["floor"]] == [0, 1, 2]
    evaluation = client.get(f"/api/projects/{made.get_json()['id']}/evaluation")
    assert evaluation.status_code == 200


def test_only_loopback_names_and_own_pages_are_answered(client: FlaskClient, project: str) -> None:
    assert client.get("/api/projects", headers={"Host": "evil.example"}).status_code == 403
    foreign = client.post("/api/projects", json={"name": "x"}, headers={"Origin": "http://evil.example"})
    assert foreign.status_code == 403
    headers = client.get("/api/projects").headers
    assert "script-src 'self'" in headers["Content-Security-Policy"]
    assert headers["X-Content-Type-Options"] == "nosniff"


def test_the_firm_sees_a_figure_differently(client: FlaskClient, repository: Repository) -> None:
    path = "cabling.waste_share"

    def own(value: object, figure: str = path) -> tuple[int, dict]:
        answer = client.put("/api/firm/figures", json={"figure": figure, "value": value})
        return answer.status_code, answer.get_json()

    status, catalogue = own(0.2)
    assert status == 200 and catalogue["rules"]["figures"][path]["firm"] == 0.2
    assert client.get("/api/catalogue").get_json()["rules"]["figures"][path]["firm"] == 0.2
    again = Repository(repository._engine, load_catalogue())
    assert again.catalogue.rules[path] == 0.2 and again.catalogue is again.catalogue
    for value, figure, says in ((7, path, "between 0 and 1"), (0.1, "x.y", "no figure")):
        status, refused = own(value, figure)
        assert status == 422 and says in refused["message"]
    assert own([1, 6], "bands.planned_24")[0] == 200
    assert repository.catalogue.rules.whole_numbers("bands.planned_24") == (1, 6)
    own(None, "bands.planned_24")
    assert own(None)[1]["rules"]["figures"][path]["firm"] is None
    assert repository.catalogue.rules.own("firm") == {}


def test_a_plan_is_kept_shown_and_belongs_to_its_project(client: FlaskClient) -> None:
    out = io.BytesIO()
    Image.new("RGB", (30, 20), "white").save(out, "PNG")
    made = client.post("/api/projects", json={"name": "Plans"}).json
    where = f"/api/projects/{made['id']}/pictures"
    kept = client.post(where, data={"picture": (io.BytesIO(out.getvalue()), "plan.png")})
    assert kept.status_code == 201 and kept.json["width_px"] == 30
    shown = client.get(f"{where}/{kept.json['id']}")
    assert shown.mimetype == "image/png" and "immutable" in shown.headers["Cache-Control"]
    again = client.post(where, data={"picture": (io.BytesIO(out.getvalue()), "copy.png")})
    assert again.json["id"] == kept.json["id"]
    other = client.post("/api/projects", json={"name": "Other"}).json
    assert client.get(f"/api/projects/{other['id']}/pictures/{kept.json['id']}").status_code == 404
    assert client.post(where, data={}).status_code == 422
    wrong = client.post(where, data={"picture": (io.BytesIO(b"text"), "plan.png")})
    assert wrong.status_code == 422 and "neither a PNG" in wrong.json["message"]
    gone = client.post("/api/projects/none/pictures", data={"picture": (io.BytesIO(b"x"), "p.png")})
    assert gone.status_code == 404


def test_a_price_list_is_taken_whole_or_offered(client: FlaskClient, school: Design) -> None:
    data = dump_project(Project("Prices", school))
    project = client.post("/api/import/project", data=data).json["id"]
    before = client.get(f"/api/projects/{project}/order").json
    partly = b"item,price\njack,1.00\nwidget,2\n"
    offered = client.post("/api/firm/prices", data=partly).json
    assert (offered["read"], offered["taken"], offered["faults"][0]["line"]) == (1, False, 3)
    assert client.get(f"/api/projects/{project}/order").json["sum"] == before["sum"]
    assert client.post("/api/firm/prices?take=1", data=partly).json["taken"]
    after = client.get(f"/api/projects/{project}/order").json
    jack = next(k for k in after["lines"] if k["item"] == "jack")
    assert (jack["each"], jack["whose"]) == (1.0, "firm")
    assert after["sum"]["total"] < before["sum"]["total"]
    out = client.get("/api/firm/prices.csv").data
    assert b"jack,Jack,piece,1.0," in out
    assert client.post("/api/firm/prices", data=out).json == {
        "read": 1,
        "taken": True,
        "faults": [],
        "asks": [],
    }
    unclear = b'item,price\njack,"1,080"\n'
    asked = client.post("/api/firm/prices?take=1", data=unclear).json
    assert asked["asks"] == ["1,080"] and not asked["taken"]
    told = client.post("/api/firm/prices?decimal=point", data=unclear).json
    assert told["taken"] and b"jack,Jack,piece,1080.0," in client.get("/api/firm/prices.csv").data
    book = client.get(f"/api/projects/{project}/export/order.xlsx")
    assert book.status_code == 200 and book.data[:2] == b"PK"
    assert client.post("/api/firm/prices", data=b"nothing").status_code == 422


def test_relief_of_today_is_that_of_the_gear_that_was_found(client: FlaskClient, school: Design) -> None:
    device = next(d for d in school.of(Device).values() if d.kind == "access_point")
    found = device.model_copy(update={"id": "found-1", "model": "old-router-ac", "state": "retire"})
    data = dump_project(Project("Today", apply(school, [put(found)])))
    project = client.post("/api/import/project", data=data).json["id"]
    at = f"/api/projects/{project}/relief?floor={device.floor}"
    planned, today = client.get(at).json, client.get(f"{at}&when=today").json
    assert planned["tints"] != today["tints"]
    plain = client.post("/api/import/project", data=dump_project(Project("Plain", school))).json["id"]
    same = client.get(f"/api/projects/{plain}/relief?floor={device.floor}").json
    assert same["tints"] == planned["tints"]
    assert not client.get(f"/api/projects/{plain}/relief?floor={device.floor}&when=today").json["tints"]


def test_every_operation_has_a_name_of_its_own() -> None:
    document = json.loads(api_document())
    methods = ("get", "post", "put", "patch", "delete")
    operations = [o for p in document["paths"].values() for m, o in p.items() if m in methods]
    names = [o["operationId"] for o in operations]
    assert len(names) > 50 and len(set(names)) == len(names)
    floats = [path for path in document["paths"] if "{x}" in path or "{y}" in path]
    assert not floats
    kinds = document["components"]["schemas"]["JobKinds"]["properties"]
    assert "sites" in kinds and "answers" in kinds["sites"]["properties"]["result"]["properties"]
