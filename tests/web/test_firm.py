"""The firm on its papers: written once for all projects, its mark a picture, its offers numbered."""

from __future__ import annotations

import io
from collections.abc import Iterator
from concurrent.futures import ThreadPoolExecutor

import pytest
from flask.testing import FlaskClient
from PIL import Image

from heathrise.store import Repository
from heathrise.store.firm import FirmHeads
from heathrise.web.app import create_app


@pytest.fixture
def client(repository: Repository) -> Iterator[FlaskClient]:
    with create_app(repository).test_client() as made:
        yield made


def _picture() -> bytes:
    out = io.BytesIO()
    Image.new("RGB", (60, 20), "teal").save(out, "PNG")
    return out.getvalue()


def test_a_firm_is_written_read_and_its_mark_taken_off(client: FlaskClient) -> None:
    client.delete("/api/firm/mark")  # whatever another test has left
    firm = client.get("/api/firm/head").json["firm"]
    said = {**firm, "name": "Fellgate\x07 Networks", "address": ["4 Yard", " ", "Town"], "valid_days": 14}
    answer = client.put("/api/firm/head", json=said).json
    assert answer["firm"]["name"] == "Fellgate Networks" and answer["firm"]["address"] == ["4 Yard", "Town"]
    assert client.get("/api/firm/mark").status_code == 404
    picture = {"picture": (io.BytesIO(_picture()), "mark.png")}
    assert client.post("/api/firm/mark", data=picture).json["has_mark"]
    shown = client.get("/api/firm/mark")
    assert shown.mimetype == "image/png" and shown.data[:4] == b"\x89PNG"
    # Words said later leave the mark as it is.
    assert client.put("/api/firm/head", json=said).json["has_mark"]
    assert not client.delete("/api/firm/mark").json["has_mark"]


@pytest.mark.parametrize("wrong", [{"valid_days": 0}, {"name": "x" * 121}, {"tea": 1}])
def test_what_no_paper_can_hold_is_refused(client: FlaskClient, wrong: dict[str, object]) -> None:
    firm = client.get("/api/firm/head").json["firm"]
    assert client.put("/api/firm/head", json={**firm, **wrong}).status_code == 422
    text = {"picture": (io.BytesIO(b"no picture"), "mark.png")}
    assert client.post("/api/firm/mark", data=text).status_code == 422


def test_no_two_offers_have_one_number(repository: Repository) -> None:
    heads = FirmHeads(repository.engine)
    with ThreadPoolExecutor(4) as pool:
        numbers = list(pool.map(lambda _: heads.next_offer(2031), range(12)))
    assert sorted(numbers) == [f"2031-{k:03d}" for k in range(1, 13)]
    assert heads.next_offer(2032) == "2032-001"
