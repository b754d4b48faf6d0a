"""A whole project out and in again: plan, revisions, records, pictures, papers; and files that are none."""

from __future__ import annotations

import io
import json
import zipfile
from collections.abc import Callable, Iterator
from datetime import UTC, datetime

import pypdfium2
import pytest
from flask.testing import FlaskClient
from PIL import Image

from heathrise.core.design import Device, put
from heathrise.core.records import CableTest, HandedOver, Signed
from heathrise.demo import SITES, watermill
from heathrise.store import Repository, Stores
from heathrise.store.pictures import Kept
from heathrise.store.whole import whole_of
from heathrise.web.app import create_app

AT = datetime(2026, 5, 4, 9, 30, tzinfo=UTC)


@pytest.fixture
def client(repository: Repository) -> Iterator[FlaskClient]:
    with create_app(repository).test_client() as made:
        yield made


def _page() -> bytes:
    """An empty page, as a paper is kept."""
    document, out = pypdfium2.PdfDocument.new(), io.BytesIO()
    document.new_page(200, 100)
    document.save(out)
    return out.getvalue()


@pytest.fixture
def job(repository: Repository) -> str:
    """A mill with a change, a name, a picture, a paper, tests and a hand-over that was signed for."""
    stores = Stores.over(repository)
    saved = repository.create("Mill", watermill(), "Ann", "made")
    device = next(iter(saved.design.of(Device).values()))
    repository.change(saved.id, 1, [put(device.model_copy(update={"height_m": 2.2}))], "Bo", "Hung lower")
    stores.revisions.call(saved.id, 1, "As agreed")
    out = io.BytesIO()
    Image.new("RGB", (30, 20), "teal").save(out, "PNG")
    stores.pictures.keep(saved.id, Kept("image/png", out.getvalue()), 30, 20)
    paper = stores.papers.keep(saved.id, "handover_client", "hand-over.pdf", 2, _page())
    test = next(r for s in SITES if s.records for r in s.records(s.make()) if isinstance(r, CableTest))
    stores.records.append(saved.id, test)
    last = stores.records.last_number(saved.id)
    number = stores.records.append(
        saved.id,
        HandedOver(
            at=AT, author="Ann", revision=2, last_record=last, papers={"client": paper}, still_open=()
        ),
    )
    stores.records.append(saved.id, Signed(at=AT, author="Ann", handover=number, signed_by="Mr Reed"))
    return saved.id


def test_everything_comes_in_again(client: FlaskClient, job: str, repository: Repository) -> None:
    stores = Stores.over(repository)
    data = client.get(f"/api/projects/{job}/whole.zip").data
    made = client.post("/api/import/project", data=data)
    assert made.status_code == 201, made.text
    own = made.json["id"]
    assert own != job and repository.load(own).revision == 2
    for number in (1, 2):
        assert repository.at(own, number) == repository.at(job, number)
    assert repository.load(own).design == repository.load(job).design
    before, after = whole_of(repository, job), whole_of(repository, own)
    assert (after.journal, after.pictures, after.papers, after.files) == (
        before.journal,
        before.pictures,
        before.papers,
        before.files,
    )
    assert [(r.kind, r.at, r.author, r.written) for r in after.records] == [
        (r.kind, r.at, r.author, r.written) for r in before.records
    ]
    (test,) = stores.records.of(own, CableTest)
    (handed,) = stores.records.of(own, HandedOver)
    (signed,) = stores.records.of(own, Signed)
    # Numbers are anew, and what refers to them goes along.
    assert handed.number != stores.records.of(job, HandedOver)[0].number
    assert (signed.handover, handed.last_record) == (handed.number, test.number)
    assert stores.records.standings()[own] == stores.records.standings()[job]
    assert stores.revisions.lines(own)[-1].name == "As agreed"


def test_the_plan_alone_can_be_taken_out_of_it(client: FlaskClient, job: str, repository: Repository) -> None:
    with zipfile.ZipFile(io.BytesIO(client.get(f"/api/projects/{job}/whole.zip").data)) as archive:
        alone = client.post("/api/import/project", data=archive.read("project.json"))
    assert repository.load(alone.json["id"]).design == repository.load(job).design


def _again(data: bytes, change: Callable[[dict[str, bytes]], None]) -> bytes:
    with zipfile.ZipFile(io.BytesIO(data)) as archive:
        files = {n: archive.read(n) for n in archive.namelist()}
    change(files)
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as archive:
        for name, content in files.items():
            archive.writestr(name, content)
    return out.getvalue()


def _held(files: dict[str, bytes], **fields: object) -> None:
    files["whole.json"] = json.dumps({**json.loads(files["whole.json"]), **fields}).encode()


def _first(files: dict[str, bytes], key: str, **fields: object) -> None:
    held = json.loads(files["whole.json"])
    held[key][0].update(fields)
    files["whole.json"] = json.dumps(held).encode()


def _name(files: dict[str, bytes], folder: str) -> str:
    return next(n for n in files if n.startswith(folder))


@pytest.mark.parametrize(
    ("change", "said"),
    [
        (lambda f: f.pop("whole.json"), "whole.json is missing"),
        (lambda f: _held(f, version=9), "can be read"),
        (lambda f: _held(f, extra=1), "whole.json"),
        (lambda f: _held(f, journal=[]), "do not follow one another"),
        (lambda f: f.update({"whole.json": b"{"}), "no JSON"),
        (lambda f: f.update({"whole.json": b"[" * 100_000}), "no JSON"),
        (lambda f: f.pop(_name(f, "pictures/")), "is missing"),
        (lambda f: f.update({_name(f, "pictures/"): b"<svg onload=alert(1)>"}), "not the picture"),
        (lambda f: f.update({_name(f, "papers/"): b"<html>"}), "is no PDF"),
        (lambda f: _first(f, "papers", id="../../etc/passwd"), "papers"),
        (lambda f: _first(f, "records", kind="gossip"), "not known"),
        (lambda f: _first(f, "records", body={}), "records"),
    ],
)
def test_a_file_that_is_not_whole_says_what_is_wrong(
    client: FlaskClient,
    job: str,
    repository: Repository,
    change: Callable[[dict[str, bytes]], None],
    said: str,
) -> None:
    before = len(repository.projects())
    data = _again(client.get(f"/api/projects/{job}/whole.zip").data, change)
    answer = client.post("/api/import/project", data=data)
    assert answer.status_code == 422 and said in answer.text, answer.text
    assert len(repository.projects()) == before


def test_a_bomb_and_a_torn_file_are_refused(client: FlaskClient, job: str) -> None:
    bomb = _again(
        client.get(f"/api/projects/{job}/whole.zip").data,
        lambda f: f.update({"pictures/x": bytes(310_000_000)}),
    )
    assert len(bomb) < 2_000_000
    answer = client.post("/api/import/project", data=bomb)
    assert answer.status_code == 422 and "holds more than" in answer.text
    torn = client.get(f"/api/projects/{job}/whole.zip").data[:4000]
    assert "is damaged" in client.post("/api/import/project", data=torn).text
