"""Revisions over the wire: named, compared, gone back to; projects copied and laid aside."""

from __future__ import annotations

from collections.abc import Iterator

import pytest
from flask.testing import FlaskClient

from heathrise.core.design import Device
from heathrise.demo import terrace_house
from heathrise.store import Repository, Stores
from heathrise.store.pictures import Kept
from heathrise.web.app import create_app


@pytest.fixture
def client(repository: Repository) -> Iterator[FlaskClient]:
    with create_app(repository).test_client() as made:
        yield made


@pytest.fixture
def job(repository: Repository) -> str:
    return repository.create("Weavers", terrace_house(), "Ann", "made").id


def moved(client: FlaskClient, job: str, revision: int, height_m: float) -> None:
    """One edit: an access point at another height, put in the middle of nowhere."""
    design = terrace_house()
    device = next(iter(design.of(Device).values())).model_copy(update={"height_m": height_m})
    change = {"op": "put", "kind": "device", "element": device.model_dump(mode="json")}
    body = {"revision": revision, "label": f"Hang at {height_m}", "changes": [change]}
    assert client.post(f"/api/projects/{job}/changes", json=body).status_code == 200


def lines(client: FlaskClient, job: str) -> dict[int, dict]:
    return {r["revision"]: r for r in client.get(f"/api/projects/{job}/revisions").json["revisions"]}


def test_a_revision_is_named_compared_and_gone_back_to(
    client: FlaskClient, job: str, repository: Repository
) -> None:
    moved(client, job, 1, 2.0)
    moved(client, job, 2, 2.2)
    assert client.put(f"/api/projects/{job}/revisions/1", json={"name": " As agreed "}).json == {
        "name": "As agreed"
    }
    assert lines(client, job)[1]["name"] == "As agreed" and lines(client, job)[3]["label"] == "Hang at 2.2"
    found = client.get(f"/api/projects/{job}/revisions/1/difference").json
    (row,) = found["rows"]
    assert (row["how"], row["fields"]) == ("changed", ["height_m"])
    assert not client.get(f"/api/projects/{job}/revisions/2/difference?to=2").json["rows"]
    before = repository.at(job, 1)
    changes = client.get(f"/api/projects/{job}/revisions/1/back").json["changes"]
    body = {"revision": 3, "label": "Back to 1", "changes": changes}
    assert client.post(f"/api/projects/{job}/changes", json=body).status_code == 200
    assert repository.load(job).design == before and repository.load(job).revision == 4
    assert repository.at(job, 3) != before  # what came since is not lost
    same = client.get(f"/api/projects/{job}/revisions/1/back")
    assert same.status_code == 422 and "as it was at revision 1" in same.text
    client.put(f"/api/projects/{job}/revisions/1", json={"name": ""})
    assert lines(client, job)[1]["name"] == ""


@pytest.mark.parametrize("number", [0, 9, 99999999])
def test_a_revision_that_is_none_says_so(client: FlaskClient, job: str, number: int) -> None:
    for method, path in (("get", "difference"), ("get", "back")):
        answer = getattr(client, method)(f"/api/projects/{job}/revisions/{number}/{path}")
        assert answer.status_code == 404 and "revision" in answer.text
    assert client.put(f"/api/projects/{job}/revisions/{number}", json={"name": "x"}).status_code == 404


def test_a_copy_is_a_project_of_its_own_with_its_pictures(
    client: FlaskClient, job: str, repository: Repository
) -> None:
    pictures = Stores.over(repository).pictures
    key = pictures.keep(job, Kept("image/png", b"not really one"), 3, 4)
    moved(client, job, 1, 2.0)
    made = client.post(f"/api/projects/{job}/copy", json={"name": "Weavers again"})
    assert made.status_code == 201
    own = made.json["id"]
    assert repository.load(own).design == repository.load(job).design and repository.load(own).revision == 1
    assert pictures.get(own, key).data == b"not really one"
    earlier = client.post(f"/api/projects/{job}/copy", json={"name": "As begun", "revision": 1}).json["id"]
    assert repository.load(earlier).design == repository.at(job, 1) != repository.load(own).design
    moved(client, own, 1, 1.8)
    assert repository.load(job).revision == 2


def test_a_project_is_laid_aside_and_fetched_again(client: FlaskClient, job: str) -> None:
    def stands() -> bool:
        return next(p for p in client.get("/api/projects").json["projects"] if p["id"] == job)["archived"]

    assert not stands()
    client.put(f"/api/projects/{job}/archived", json={"archived": True})
    assert stands()
    client.put(f"/api/projects/{job}/archived", json={"archived": False})
    assert not stands()
    assert client.put("/api/projects/nowhere/archived", json={"archived": True}).status_code == 404
    sketch = client.get(f"/api/projects/{job}/sketch").json
    assert len(sketch["rooms"]) > 3 and sketch["devices"] > 3
