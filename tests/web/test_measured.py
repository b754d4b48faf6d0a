"""A measured walk over the wire: read, confirmed, kept once, fitted, put in force and taken back."""

from __future__ import annotations

import json
from collections.abc import Iterator

import pytest
from flask.testing import FlaskClient

from heathrise.core.catalogue import load_catalogue
from heathrise.core.context.scope import as_planned
from heathrise.core.design import Design, Device, Space
from heathrise.core.records import MOST_READINGS
from heathrise.standins.surveyor import Hidden, surveyed_csv
from heathrise.store import Repository
from heathrise.web import signal as signal_routes
from heathrise.web.app import create_app


@pytest.fixture
def client(repository: Repository) -> Iterator[FlaskClient]:
    with create_app(repository).test_client() as made:
        yield made


def _walk(school: Design, by_address: bool) -> bytes:
    rooms = [s for s in school.of(Space).values() if not s.outdoor]
    spots = [
        (
            s.floor,
            (round(sum(x for x, _ in s.outline) / 4 + dx, 2), round(sum(y for _, y in s.outline) / 4, 2)),
        )
        for s in rooms
        if len(s.outline) == 4
        for dx in (-0.7, 0.7)
    ]
    hidden = Hidden({"signal.wall_scale": 1.3}, offset_db=-2.0, noise_db=2.0)
    text = surveyed_csv(as_planned(school), load_catalogue(), hidden, spots, 5, by_address=by_address)
    return text.encode()


def test_a_walk_is_confirmed_kept_once_and_put_in_force(
    client: FlaskClient, repository: Repository, school: Design
) -> None:
    project = repository.create("Larkmere", school, "me", "made").id
    base = f"/api/projects/{project}"
    data = _walk(school, by_address=True)
    read = client.post(f"{base}/survey?floor=ground", data=data).get_json()
    assert not read["taken"] and not read["faults"] and read["read"] > 100
    names = {p["who"]: p["device"] for p in read["proposed"]}
    right = {f"02:00:5e:00:00:{k:02x}": d for k, d in enumerate(as_planned(school).of(Device))}
    assert names == {who: right[who] for who in names}
    nothing = client.get(f"{base}/calibration").get_json()["calibration"]
    assert nothing["readings"] == 0 and nothing["why_not"]

    for _ in range(2):  # sent twice it is kept once
        query = {"floor": "ground", "take": "true", "names": json.dumps(names)}
        assert client.post(f"{base}/survey", data=data, query_string=query).get_json()["taken"]
    view = client.get(f"{base}/calibration").get_json()
    fit = view["calibration"]
    assert fit["readings"] == read["read"] and not view["in_force"]
    scale = next(f for f in fit["fitted"] if f["figure"] == "signal.wall_scale")
    assert abs(scale["value"] - 1.3) <= 1.96 * scale["error"]
    assert fit["after_db"] < fit["before_db"]

    # In force the rooms are judged by it; it is an edit, and it is fitted to the listed figures.
    edit = {"revision": 1, "label": "measured", "changes": view["changes"]}
    assert client.post(f"{base}/changes", json=edit).status_code == 200
    after = client.get(f"{base}/calibration").get_json()
    assert after["in_force"] and after["calibration"]["fitted"] == fit["fitted"]
    back = {"revision": 2, "label": "listed", "changes": after["back"]}
    assert client.post(f"{base}/changes", json=back).status_code == 200
    assert not client.get(f"{base}/calibration").get_json()["in_force"]


def test_a_walk_is_left_out_and_counted_again(
    client: FlaskClient, repository: Repository, school: Design
) -> None:
    """Two walks: without the second the fit is as it was before it; sent once more it counts."""
    project = repository.create("Larkmere", school, "me", "made").id
    base = f"/api/projects/{project}"
    first = _walk(school, by_address=False)
    second = b"access point,storey,x,y,band,dbm\nAP-1,ground,4,10,5,-99\nAP-2,ground,10,14,5,-99\n"

    def fit() -> dict[str, object]:
        return client.get(f"{base}/calibration").get_json()["calibration"]

    def take(data: bytes) -> None:
        query = {"floor": "ground", "take": "true"}
        assert client.post(f"{base}/survey", data=data, query_string=query).get_json()["taken"]

    take(first)
    before = fit()
    take(second)
    walks = client.get(f"{base}/calibration").get_json()["walks"]
    assert [w["counts"] for w in walks] == [True, True]
    assert (walks[1]["readings"], walks[1]["devices"]) == (2, 2)
    both = fit()
    assert both["readings"] == before["readings"] + 2 and both["after_db"] > before["after_db"]
    number = walks[1]["number"]
    assert client.post(f"{base}/walks/{number}", json={"counts": False}).status_code == 200
    assert fit() == before
    take(second)
    assert fit() == both
    wrong = client.post(f"{base}/walks/{number + 50}", json={"counts": False})
    assert wrong.status_code == 422 and "no measured walk" in wrong.get_data(as_text=True)


def test_what_is_wrong_is_told(client: FlaskClient, repository: Repository, school: Design) -> None:
    project = repository.create("Larkmere", school, "me", "made").id
    base = f"/api/projects/{project}"
    text = "bssid,x,y,dbm,band\n,1,1,-60,5\nAP-1,1,1,9,5\nAP-1,a,1,-60,5\nAP-1,1,1,-60,7\nAP-1,2,2,-55,5\n"
    read = client.post(f"{base}/survey?floor=ground", data=text.encode()).get_json()
    assert read["read"] == 1 and [f["line"] for f in read["faults"]] == [2, 3, 4, 5]
    assert read["proposed"][0]["name"] == "AP-1"
    for query, said in (
        ("floor=attic", "there is no floor"),
        ("floor=ground&take=true&names=%7B", "names by address"),
        ("floor=ground&take=true&names=%7B%22x%22%3A%22tea%22%7D", "no device"),
    ):
        refused = client.post(f"{base}/survey?{query}", data=text.encode())
        assert refused.status_code == 422 and said in refused.get_json()["message"]
    placeless = b"bssid,dbm,band\nAP-1,-60,5\n"
    read = client.post(f"{base}/survey?floor=ground&x=3&y=4", data=placeless).get_json()
    assert (read["read"], read["faults"]) == (1, [])
    read = client.post(f"{base}/survey?floor=ground", data=placeless).get_json()
    assert read["faults"][0]["what"] == "'', '' is no place in m"
    stranger = b"bssid,x,y,dbm,band\nother,1,1,-60,5\n"
    refused = client.post(f"{base}/survey?floor=ground&take=true", data=stranger)
    assert refused.status_code == 422 and "known to be ours" in refused.get_json()["message"]


def test_more_than_can_be_fitted_is_refused_in_words(
    client: FlaskClient, repository: Repository, school: Design, monkeypatch: pytest.MonkeyPatch
) -> None:
    project = repository.create("Larkmere", school, "me", "made").id
    path = f"/api/projects/{project}/survey?floor=ground&take=true"
    head = "access_point,x,y,band,dbm\n"

    def sent(count: int, dbm: int = -60) -> tuple[int, str]:
        rows = "".join(f"AP-1,{4 + k % 40 / 10},{5 + k // 4000},5,{dbm}\n" for k in range(count))
        answer = client.post(path, data=(head + rows).encode())
        return answer.status_code, answer.get_data(as_text=True)

    status, text = sent(MOST_READINGS + 1)
    assert status == 422 and "20,001 levels" in text and "a storey at a time" in text
    monkeypatch.setattr(signal_routes, "MOST_COUNTED", 50)
    assert sent(30)[0] == 200
    status, text = sent(30, -61)
    assert status == 422 and "the 30 that count already" in text
    (walk,) = client.get(f"/api/projects/{project}/calibration").get_json()["walks"]
    client.post(f"/api/projects/{project}/walks/{walk['number']}", json={"counts": False})
    assert sent(30, -61)[0] == 200
