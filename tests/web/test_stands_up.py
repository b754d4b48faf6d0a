"""An edit never locks a project out; a failing chapter leaves the others; the door keeps its limits."""

from __future__ import annotations

import contextlib
import json
import os
import signal
import socket
import threading
import time
import urllib.request
from collections.abc import Iterator
from typing import Any

import pytest
from flask.testing import FlaskClient
from hypothesis import given
from hypothesis import strategies as st

from heathrise.core.base.memo import BUDGET
from heathrise.core.catalogue import load_catalogue
from heathrise.core.context.integrity import check
from heathrise.core.context.plan import Plan
from heathrise.core.design import (
    Building,
    Design,
    Device,
    Floor,
    Radio,
    Site,
    Space,
    Wall,
    apply,
    design_of,
    put,
)
from heathrise.core.evaluation import evaluate as evaluation
from heathrise.core.evaluation import settled
from heathrise.core.evaluation.evaluate import evaluate
from heathrise.core.signal.assess import air_of
from heathrise.core.signal.relief import relief
from heathrise.store import Repository
from heathrise.web import app as web_app
from heathrise.web.app import create_app
from heathrise.web.breaker import Breaker
from ops.database import Database
from ops.machine import free_port
from ops.serve import Server, serving
from tests.core.plans import access_point, shell, wall
from tests.core.plans import design_of as small

from ..thorough import examples


@pytest.fixture
def client(repository: Repository) -> Iterator[FlaskClient]:
    with create_app(repository).test_client() as made:
        yield made


def _sensors_with_nobody() -> list[Any]:
    *ground, room = shell()
    sensors = room.model_copy(update={"use": "sensors"})
    off = Radio(id="r", device="ap-1", band="2.4", on=False)
    return [*ground, sensors, access_point(5, 5), off]


def test_the_edit_that_locked_projects_out(client: FlaskClient, repository: Repository) -> None:
    """A room for sensors and one access point whose 2.4 GHz radio is off."""
    *plan, off = _sensors_with_nobody()
    project = repository.create("Hut", small(*plan), "me", "made").id
    body = {"revision": 1, "label": "off", "changes": [put(off).model_dump(mode="json")]}
    assert client.post(f"/api/projects/{project}/changes", json=body).status_code == 200
    for path in ("evaluation", "export/project.json", "export/cables.csv", "export/settings.json"):
        assert client.get(f"/api/projects/{project}/{path}").status_code == 200, path
    answer = client.get(f"/api/projects/{project}/evaluation").get_json()["evaluation"]
    assert "none heard at worst" in next(
        f["text"] for f in answer["signal"]["findings"] if f["id"] == "signal-room-room"
    )


@pytest.mark.parametrize("part", ["judge_rooms", "assess_cable", "plan_power", "network_findings"])
def test_a_chapter_that_fails_says_so_and_the_others_stand(
    part: str, client: FlaskClient, repository: Repository, school: Design, monkeypatch: pytest.MonkeyPatch
) -> None:
    def broken(*_: object, **__: object) -> None:
        raise ZeroDivisionError

    monkeypatch.setattr(settled if part == "network_findings" else evaluation, part, broken)
    project = repository.create("Hut", school, "me", "made").id
    moved = school.of(Device)["ap-3"].model_copy(update={"at": (19.0, 5.0), "name": f"AP of {part}"})
    body = {"revision": 1, "label": "x", "changes": [put(moved).model_dump(mode="json")]}
    assert client.post(f"/api/projects/{project}/changes", json=body).status_code == 200
    answer = client.get(f"/api/projects/{project}/evaluation").get_json()["evaluation"]
    found = [f for chapter in answer.values() for f in chapter.get("findings", ())]
    failed = [f for f in found if f["id"].startswith("failed-")]
    assert len(failed) == 1 and "ZeroDivisionError" in failed[0]["text"]
    assert answer["totals"]["access_points"] == 15
    assert bool(answer["signal"]["rooms"]) == (part != "judge_rooms")
    assert bool(answer["cable"]["runs"]) == (part != "assess_cable")
    assert client.get(f"/api/projects/{project}/export/project.json").status_code == 200


def test_what_cannot_be_worked_out_at_all_is_not_saved(
    client: FlaskClient, repository: Repository, home: Design, monkeypatch: pytest.MonkeyPatch
) -> None:
    project = repository.create("Hut", home, "me", "made").id
    client.application.config["PROPAGATE_EXCEPTIONS"] = False

    def broken(*_: object) -> None:
        raise ZeroDivisionError

    monkeypatch.setattr(evaluation, "_evaluated", broken)
    body = {"revision": 1, "label": "x", "changes": [put(home.site).model_dump(mode="json")]}
    assert client.post(f"/api/projects/{project}/changes", json=body).status_code == 500
    assert repository.load(project).revision == 1


ends = st.sampled_from([-10_000.0, -9_990.0, -3.0, 0.0, 0.001, 2.5, 40.0, 9_990.0, 10_000.0])


@st.composite
def odd_designs(draw: st.DrawFn) -> Design:
    """Valid designs that nobody would draw: two buildings, odd levels, options at their ends."""
    elements: list[Any] = [
        Site(
            id="site",
            domain=draw(st.sampled_from(["europe", "americas"])),
            width_5ghz_mhz=draw(st.sampled_from([20, 40, 80])),
            margin_db=draw(st.sampled_from([0, 20])),
            cords_m=draw(st.sampled_from([0, 20])),
            power_headroom=draw(st.sampled_from([0, 0.9])),
            cables_per_access_point=draw(st.sampled_from([1, 4])),
            tight_bundles=draw(st.booleans()),
            upstream_subnet=draw(st.sampled_from(["", "x", "10.0.0.1/8", "::/0"])),
        ),
        Building(id="a", name="A"),
        Building(id="b", name="B", roof="roof-metal"),
    ]
    floors = []
    for key, level in draw(
        st.lists(st.tuples(st.sampled_from("ab"), st.integers(-9, 50)), min_size=1, max_size=4, unique=True)
    ):
        floors.append(f"{key}{level}".replace("-", "m"))
        elements.append(
            Floor(
                id=floors[-1],
                building=key,
                name="F",
                level=level,
                elevation_m=draw(st.sampled_from([-50.0, 0.0, 2.7, 3.0, 200.0])),
                ceiling_height_m=draw(st.sampled_from([1.6, 2.7, 30.0])),
            )
        )
    for k in range(draw(st.integers(0, 4))):
        x, y = draw(ends), draw(ends)
        w, h = draw(st.sampled_from([0.4, 5.0, 300.0])), draw(st.sampled_from([0.4, 4.0]))
        x, y = min(x, 10_000 - w), min(y, 10_000 - h)
        elements.append(
            Space(
                id=f"s{k}",
                floor=draw(st.sampled_from(floors)),
                name="S",
                use=draw(st.sampled_from(["calls", "everyday", "sensors", "none"])),
                outline=((x, y), (x + w, y), (x + w, y + h), (x, y + h)),
                outdoor=draw(st.booleans()),
                open_above=draw(st.booleans()),
                ceiling_height_m=draw(st.sampled_from([None, 1.6, 30.0])),
            )
        )
    for k in range(draw(st.integers(0, 4))):
        a, b = (draw(ends), draw(ends)), (draw(ends), draw(ends))
        if a != b and abs(a[0] - b[0]) + abs(a[1] - b[1]) > 0.1:
            of = draw(st.sampled_from(["metal", "plasterboard", "concrete"]))
            elements.append(Wall(id=f"w{k}", floor=draw(st.sampled_from(floors)), a=a, b=b, construction=of))
    for k in range(draw(st.integers(0, 3))):
        kind = draw(st.sampled_from(list(load_catalogue().roles)))
        model = draw(st.sampled_from(list(load_catalogue().devices[kind].values())))
        elements.append(
            Device(
                id=f"ap-{k}",
                floor=draw(st.sampled_from(floors)),
                kind=kind,
                model=model.id,
                name="AP",
                at=(draw(ends), draw(ends)),
                height_m=draw(st.sampled_from([-50.0, 0.0, 2.7, 200.0])),
                mount=draw(st.sampled_from(["ceiling", "wall", "desk", "pole"])),
                azimuth_deg=draw(st.sampled_from([-360.0, 0.0, 90.0, 360.0])),
                tilt_deg=draw(st.sampled_from([-360.0, 0.0, 90.0])),
            )
        )
        for band in model.air.radios if model.air else ():
            if draw(st.integers(0, 3)) == 0:
                elements.append(
                    Radio(
                        id=f"r{k}-{band[0]}",
                        device=f"ap-{k}",
                        band=band,
                        on=draw(st.booleans()),
                        channel=draw(st.sampled_from([None, 1, 36, 149, 233])),
                        power_dbm=draw(st.sampled_from([None, 0, 36])),
                    )
                )
    return design_of(elements)


@examples(400)
@given(odd_designs())
def test_every_valid_design_is_worked_out(design: Design) -> None:
    catalogue = load_catalogue()
    check(design, catalogue)
    result = evaluate(Plan(design, catalogue), wait=True)
    assert not [f.text for f in result.findings if f.id.startswith("failed-")]
    assert "NaN" not in result.model_dump_json()
    for floor in list(design.of(Floor))[:1]:
        relief(air_of(design, catalogue, "5"), floor, "5", 1, "weaker")


def test_twenty_readers_share_one_evaluation(
    repository: Repository, school: Design, monkeypatch: pytest.MonkeyPatch
) -> None:
    from heathrise.web import answers

    made: list[int] = []
    real = evaluation._evaluated

    def counted(*arguments: Any) -> Any:
        made.append(1)
        time.sleep(0.2)
        return real(*arguments)

    monkeypatch.setattr(evaluation, "_evaluated", counted)
    plan = Plan(Design(dict(school.tables)), repository.catalogue, shared=True)
    shared = answers.Answers()
    texts: list[answers.Worked] = []
    readers = [threading.Thread(target=lambda: texts.append(shared.figures(plan, 1))) for _ in range(20)]
    for reader in readers:
        reader.start()
    for reader in readers:
        reader.join()
    assert len(made) == 1 and len({w.mark for w in texts}) == 1


def test_a_refusal_says_why(client: FlaskClient) -> None:
    other = client.get("/api/projects", headers={"Host": "example.test"})
    assert other.status_code == 403 and "loopback only" in other.get_json()["message"]
    page = client.post("/api/projects", json={"name": "x"}, headers={"Origin": "http://bad.test"})
    assert page.status_code == 403 and "http://bad.test" in page.get_json()["message"]


def test_smaller_things_are_refused_in_words(
    client: FlaskClient, repository: Repository, home: Design, tmp_path: Any
) -> None:
    (tmp_path / "index.html").write_text("<p>page</p>")
    with create_app(repository, tmp_path).test_client() as pages:
        assert pages.get("/" + "x" * 300).status_code == 200
        assert b"page" in pages.get("/..%2f..%2fetc%2fpasswd").data
    deep = "[" * 100_000
    answer = client.post("/api/projects", data=deep, content_type="application/json")
    assert 400 <= answer.status_code < 500
    assert client.post("/api/projects", json={"name": "   "}).status_code == 422
    twice = '{"name": "one", "name": "two"}'
    assert client.post("/api/projects", data=twice, content_type="application/json").status_code == 400
    project = repository.create("Hut", home, "me", "made").id
    assert client.get(f"/api/projects/{project.upper()}").status_code == 404
    assert client.patch(f"/api/projects/{project}", json={"name": " \t "}).status_code == 422
    listed = client.get(f"/api/projects/{project}/export/nothing").get_json()["message"]
    assert "project.json" in listed and "cables.csv" in listed


def test_taken_away_and_placed_again_comes_last(repository: Repository, home: Design) -> None:
    from heathrise.core.design import remove

    saved = repository.create("Hut", home, "me", "made")
    first = next(iter(home.of(Device).values()))
    after = repository.change(saved.id, 1, [remove(first), put(first)], "me", "again")
    fresh = Repository(repository._engine, load_catalogue()).load(saved.id)
    assert list(fresh.design.of(Device)) == list(after.design.of(Device))
    assert list(fresh.design.of(Device))[-1] == first.id


def test_a_large_project_fits_into_one_entry(repository: Repository) -> None:
    """Some 17 MB of changes in one entry of the journal."""
    outline = tuple((float(k % 25), 10.0 + k // 25 if k % 2 else 10.5 + k // 25) for k in range(3))
    spaces = [Space(id=f"s{k}", floor="f", name="n" * 120, outline=outline) for k in range(900)]
    plan = small(*shell()[:-1], *spaces)
    changes = [put(s) for s in spaces for _ in range(70)]
    saved = repository.create("Large", plan, "me", "made")
    assert len(json.dumps([c.model_dump(mode="json") for c in changes])) > 16_800_000
    assert repository.change(saved.id, 1, changes, "me", "much").revision == 2
    repository.remove(saved.id)


def test_the_breaker_lets_one_in_a_while_try() -> None:
    breaker = Breaker()
    assert breaker.may_try() and breaker.answers
    breaker.failed()
    assert not breaker.may_try() and not breaker.answers
    breaker._failed_at = time.monotonic() - 3
    assert breaker.may_try() and not breaker.may_try()
    breaker.succeeded()
    assert breaker.may_try() and breaker.answers


@pytest.fixture(scope="module")
def served(database: Database) -> Iterator[Server]:
    url = database.create("door", fresh=True)
    with serving(url, free_port(), web_app.Path("frontend/dist"), demo=False) as server:
        yield server


def _ask(server: Server, path: str, timeout: float = 5.0) -> int:
    with urllib.request.urlopen(server.base + path, timeout=timeout) as answer:
        return int(answer.status)


def _raw(server: Server, text: bytes) -> bytes:
    with socket.create_connection(("127.0.0.1", server.port), timeout=10) as line:
        line.sendall(text)
        return line.recv(400)


def test_what_is_too_large_or_for_another_is_turned_away_at_its_head(served: Server) -> None:
    head = b"POST /api/import/project HTTP/1.1\r\nHost: %b\r\nContent-Length: %d\r\n\r\n"
    assert b" 413 " in _raw(served, head % (b"127.0.0.1", 1_000_000_000))[:40]
    assert b" 400 " in _raw(served, head % (b"elsewhere.test", 1_000_000))[:40]


def test_half_sent_requests_block_nobody(served: Server) -> None:
    lines = []
    for _ in range(130):
        line = socket.create_connection(("127.0.0.1", served.port), timeout=5)
        line.sendall(b"POST /api/projects HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Le")
        lines.append(line)
    time.sleep(0.5)
    assert _ask(served, "/api/health") == 200
    for line in lines:
        line.close()


def test_a_stopped_database_leaves_the_page_and_the_health(served: Server, database: Database) -> None:
    assert database.pid
    os.kill(database.pid, signal.SIGSTOP)
    try:

        def ask() -> None:
            with contextlib.suppress(OSError):  # it may be refused, or wait until all is well
                _ask(served, "/api/projects", 30)

        asking = [threading.Thread(target=ask) for _ in range(10)]
        for one in asking:
            one.start()
        time.sleep(1)
        assert _ask(served, "/api/health") == 200
        assert _ask(served, "/") == 200
    finally:
        os.kill(database.pid, signal.SIGCONT)
    for one in asking:
        one.join()
    deadline = time.monotonic() + 20
    while time.monotonic() < deadline:
        try:
            assert _ask(served, "/api/projects") == 200
            break
        except OSError:
            time.sleep(0.5)
    else:
        pytest.fail("the database answers again, and the server does not know it")


def test_rooms_far_apart_and_walls_at_the_ends_cost_little() -> None:
    catalogue = load_catalogue()
    far = Space(id="far", floor="f", name="Far", outline=((9980, 9980), (9990, 9980), (9990, 9990)))
    edge = wall(1, (-9990, -9990), (-9990, -9980), "metal")
    design = small(*shell(), far, edge, access_point(5, 5))
    before = BUDGET.held_bytes
    assert not [f for f in evaluate(Plan(design, catalogue)).findings if "failed" in f.id]
    assert BUDGET.held_bytes - before < 30_000_000
    again = apply(design, [put(edge.model_copy(update={"b": (9990.0, 9990.0)}))])
    assert not [f for f in evaluate(Plan(again, catalogue)).findings if "failed" in f.id]
