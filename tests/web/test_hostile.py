"""Whatever is sent, the API answers with a clear refusal and never with a failure of its own."""

from __future__ import annotations

import json
import random
from collections.abc import Iterator
from typing import Any

import pytest
from flask.testing import FlaskClient
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from heathrise.core.design import KINDS, Design
from heathrise.formats.project_file import Project, dump_project
from heathrise.store import Repository
from heathrise.web.app import MAX_BODY_BYTES, create_app

CALM = settings(
    max_examples=60,
    deadline=None,
    suppress_health_check=[HealthCheck.function_scoped_fixture, HealthCheck.too_slow],
)
JSON = st.recursive(
    st.none() | st.booleans() | st.integers() | st.floats() | st.text(max_size=12),
    lambda inner: st.lists(inner, max_size=4) | st.dictionaries(st.text(max_size=8), inner, max_size=4),
    max_leaves=10,
)  # fmt: skip


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
@given(
    kind=st.sampled_from(list(KINDS)) | st.text(max_size=10), element=JSON, revision=st.integers()
)
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
def test_a_damaged_project_file_is_refused_or_whole(
    client: FlaskClient, home: Design, seed: int
) -> None:
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
    answer = client.get(f"/api/projects/{project}/levels/middle/{x}/1")
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
