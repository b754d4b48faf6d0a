"""Whatever is sent, the API answers with a clear refusal and never with a failure of its own."""

from __future__ import annotations

import io
import json
import random
from collections.abc import Iterator
from typing import Any

import pytest
from flask.testing import FlaskClient
from hypothesis import HealthCheck, given
from hypothesis import strategies as st

from heathrise.core.design import KINDS, Design, Device, apply, put
from heathrise.formats.project_file import Project, dump_project
from heathrise.store import Repository
from heathrise.web.app import MAX_BODY_BYTES, create_app

from ..thorough import examples

CALM = examples(60, HealthCheck.function_scoped_fixture)
JSON = st.recursive(
    st.none() | st.booleans() | st.integers() | st.floats() | st.text(max_size=12),
    lambda inner: st.lists(inner, max_size=4) | st.dictionaries(st.text(max_size=8), inner, max_size=4),
    max_leaves=10,
)


@pytest.fixture(scope="module")
def client(engine: Any, catalogue: Any) -> Iterator[FlaskClient]:
    with create_app(Repository(engine, catalogue)).test_client() as made:
        yield made


@pytest.fixture(scope="module")
def project(engine: Any, catalogue: Any, home: Design) -> str:
    return Repository(engine, catalogue).create("Hut", home, "me", "made").id


def _refused(answer: Any) -> None:
    assert 400 <= answer.status_code < 500, answer.get_data(as_text=True)[:300]
    assert answer.get_json()["message"]


@CALM
@given(body=JSON)
def test_any_json_as_a_change(client: FlaskClient, project: str, body: Any) -> None:
    text = json.dumps(body)
    path = f"/api/projects/{project}/changes"
    _refused(client.post(path, data=text, content_type="application/json"))


@CALM
@given(kind=st.sampled_from(list(KINDS)) | st.text(max_size=10), element=JSON, revision=st.integers())
def test_any_element_in_a_change(
    client: FlaskClient, project: str, kind: str, element: Any, revision: int
) -> None:
    change = {"op": "put", "kind": kind, "element": element}
    body = {"revision": revision, "label": "x", "changes": [change]}
    path = f"/api/projects/{project}/changes"
    _refused(client.post(path, data=json.dumps(body), content_type="application/json"))


@CALM
@given(data=st.binary(max_size=400))
def test_any_bytes_as_a_file(client: FlaskClient, data: bytes) -> None:
    _refused(client.post("/api/import/project", data=data))
    _refused(client.post("/api/import/dxf/inspect", data=data))


@CALM
@given(seed=st.integers(0, 10_000))
def test_a_damaged_project_file_is_refused_or_whole(client: FlaskClient, home: Design, seed: int) -> None:
    """Change one byte of a good file: it is either still a good file or refused with a place."""
    text = bytearray(dump_project(Project("Hut", home)).encode())
    dice = random.Random(seed)
    text[dice.randrange(len(text))] = dice.choice(b'{}[],:"0x- \\')
    answer = client.post("/api/import/project", data=bytes(text))
    if answer.status_code != 201:
        _refused(answer)
        return
    opened = answer.get_json()["id"]
    assert client.get(f"/api/projects/{opened}/evaluation").status_code == 200


@CALM
@given(cut=st.floats(0, 0.999))
def test_a_truncated_project_file_is_refused(client: FlaskClient, home: Design, cut: float) -> None:
    text = dump_project(Project("Hut", home)).rstrip().encode()
    _refused(client.post("/api/import/project", data=text[: int(len(text) * cut)]))


@CALM
@given(x=st.text(max_size=12).filter(lambda t: "/" not in t and "." not in t and t))
def test_any_spot(client: FlaskClient, project: str, x: str) -> None:
    answer = client.get(f"/api/projects/{project}/levels", query_string={"floor": "middle", "x": x, "y": 1})
    assert answer.status_code in (200, 404, 422, 308)


def test_coordinates_beyond_all_sites(client: FlaskClient, project: str) -> None:
    for bad in ("1e999", "NaN", "-Infinity", "1e7", '"east"', "null", "[1]"):
        text = (
            '{"revision": 1, "label": "x", "changes": [{"op": "put", "kind": "device", "element": '
            '{"id": "ap-1", "floor": "middle", "kind": "access_point", "model": "ravelmoor-c2", '
            f'"name": "x", "at": [{bad}, 1]}}}}]}}'
        )
        path = f"/api/projects/{project}/changes"
        answer = client.post(path, data=text, content_type="application/json")
        _refused(answer)
        assert client.get(f"/api/projects/{project}").get_json()["revision"] == 1


def test_a_body_beyond_the_limit(client: FlaskClient) -> None:
    answer = client.post("/api/import/project", data=b" " * (MAX_BODY_BYTES + 1))
    assert answer.status_code == 413
    assert "MB" in answer.get_json()["message"]


def test_a_very_long_change_list_is_refused(client: FlaskClient, project: str) -> None:
    row = {"op": "remove", "kind": "device", "id": "x"}
    body = {"revision": 1, "label": "x", "changes": [row] * 20_001}
    _refused(client.post(f"/api/projects/{project}/changes", json=body))


@pytest.mark.parametrize("path", ["/api/nothing", "/api/projects/%00", "/api/projects/../../etc"])
def test_paths_that_lead_nowhere(client: FlaskClient, path: str) -> None:
    assert client.get(path).status_code in (404, 308)


@pytest.mark.parametrize("method", ["put", "delete"])
def test_methods_that_are_not_offered(client: FlaskClient, project: str, method: str) -> None:
    answer = getattr(client, method)(f"/api/projects/{project}/changes")
    assert answer.status_code == 405 and answer.get_json()["message"]


def test_text_is_kept_as_it_was_typed(client: FlaskClient) -> None:
    nasty = "<img src=x onerror=alert(1)> '; DROP TABLE wall; -- \u202e \U0001f3b5"
    made = client.post("/api/projects", json={"name": nasty}).get_json()
    assert made["name"] == nasty
    again = client.get(f"/api/projects/{made['id']}")
    assert again.get_json()["name"] == nasty
    assert again.mimetype == "application/json"
    export = client.get(f"/api/projects/{made['id']}/export/project.json")
    assert "<" not in export.headers["Content-Disposition"]


@pytest.mark.parametrize("page", ["²", "٣", "9" * 5000, "-1", "1e3", ""])
def test_numbers_that_are_none_are_told(client: FlaskClient, project: str, page: str) -> None:
    form = {"picture": (io.BytesIO(b"%PDF-1.4"), "p.pdf"), "page": page}
    answer = client.post(f"/api/projects/{project}/pictures", data=form)
    _refused(answer)
    assert "number of a page" in answer.get_json()["message"]
    floor = client.get(f"/api/projects/{project}").get_json()["elements"]["floor"][0]["id"]
    _refused(client.get(f"/api/projects/{project}/sheets/{floor}.svg", query_string={"scale": page}))


@pytest.mark.parametrize("at", ["0001-01-01T00:00:00+14:00", "9999-12-31T23:59:59-12:00"])
def test_times_beyond_ours_are_told(client: FlaskClient, project: str, at: str) -> None:
    tick = {"key": "key-12345678", "step": "safe", "state": "done", "by": "Jo"}
    said = {"key": "key-12345679", "snag": "snag-1", "what": "Plate", "by": "Jo"}
    for body in ({"ticks": [{**tick, "at": at}]}, {"ticks": [tick], "clock": at}):
        _refused(client.post(f"/api/projects/{project}/work", json=body))
    for other in ({"said": [{**said, "at": at}]}, {"said": [said], "clock": at}):
        _refused(client.post(f"/api/projects/{project}/snags", json=other))


def test_ways_of_doing_a_job_hold_no_others_and_nothing_deep(client: FlaskClient, project: str) -> None:
    deep: Any = {"op": "put", "kind": "pain", "element": {"id": "p"}}
    inner: Any = "x"
    for _ in range(300):
        inner = [inner]
    nested: Any = {"id": "v", "name": "V", "changes": []}
    for k in range(300):
        put = {"op": "put", "kind": "variant", "element": nested}
        nested = {"id": f"v{k}", "name": "V", "changes": [put]}
    for changes in ([{**deep, "element": {"id": "p", "words": inner}}], nested["changes"]):
        variant = {"id": "other", "name": "Other", "changes": changes}
        edit = {
            "revision": 1,
            "label": "x",
            "changes": [{"op": "put", "kind": "variant", "element": variant}],
        }
        _refused(client.post(f"/api/projects/{project}/changes", json=edit))


def test_what_is_on_view_may_go_with_an_edit(
    engine: Any, catalogue: Any, home: Design, client: FlaskClient
) -> None:
    """A variant is taken away while its difference is on view: the edit is saved and answered."""
    project = Repository(engine, catalogue).create("Viewed", home, "me", "made").id
    path = f"/api/projects/{project}/changes"
    variant = {"id": "other", "name": "Other", "changes": []}
    floor = next(iter(home.tables["floor"]))
    view = {
        "floor": floor,
        "band": "5",
        "rank": 1,
        "direction": "weaker",
        "show": "difference",
        "against": "variant:other",
    }
    for revision, change in enumerate(
        (
            {"op": "put", "kind": "variant", "element": variant},
            {"op": "remove", "kind": "variant", "id": "other"},
        ),
        start=1,
    ):
        body = {"revision": revision, "label": "x", "changes": [change], "view": view}
        lines = client.post(path, json=body).get_data(as_text=True).splitlines()
        assert json.loads(lines[0])["answer"]["revision"] == revision + 1
        assert len(lines) == (2 if revision == 1 else 1)


def test_gear_that_nobody_sells_is_refused_as_new_and_ordered_where_it_is(
    engine: Any, catalogue: Any, home: Design, client: FlaskClient
) -> None:
    device = next(d for d in home.of(Device).values() if d.kind == "access_point")
    old = device.model_copy(update={"model": "old-router", "mount": "wall", "state": "new"})
    repository = Repository(engine, catalogue)
    there = repository.create("Older", apply(home, [put(old)]), "me", "made").id
    order = client.get(f"/api/projects/{there}/order").get_json()
    assert any("no longer sold: choose another" in line["label"] for line in order["lines"])
    for what in ("parts.csv", "order.xlsx"):
        assert client.get(f"/api/projects/{there}/export/{what}").status_code == 200
    # What is there can be edited all the same; it cannot be brought in.
    moved = put(old.model_copy(update={"height_m": 2.0})).model_dump(mode="json")
    edit = {"revision": 1, "label": "x", "changes": [moved]}
    assert client.post(f"/api/projects/{there}/changes", json=edit).status_code == 200
    fresh = repository.create("Fresh", home, "me", "made").id
    answer = client.post(f"/api/projects/{fresh}/changes", json=edit)
    _refused(answer)
    assert "is no longer sold" in answer.get_json()["message"]
    kept = put(old.model_copy(update={"state": "keep"})).model_dump(mode="json")
    taken = client.post(f"/api/projects/{fresh}/changes", json={**edit, "changes": [kept]})
    assert taken.status_code == 200
