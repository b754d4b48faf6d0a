"""What an edit sends back is only what it changed, and put together again it is the whole."""

from __future__ import annotations

import gzip
import json
import random
import time
from concurrent.futures import ThreadPoolExecutor

import pytest
from flask.testing import FlaskClient

from heathrise.core.catalogue import Catalogue
from heathrise.core.context.plan import Plan
from heathrise.core.design import Change, Design, Device, Network, Space, apply, put, remove
from heathrise.core.evaluation import evaluate as evaluation
from heathrise.core.evaluation.evaluate import evaluate
from heathrise.core.views.shown import shown
from heathrise.store import Repository
from heathrise.web.answers import KEPT, Answers
from heathrise.web.app import create_app
from heathrise.web.patches import ROW_KEYS, Tree, patch


def put_together(base: Tree, different: Tree) -> Tree:
    """The slow, plain way: rows looked for one by one."""
    whole = json.loads(json.dumps(base))
    for chapter, change in different.items():
        fields = whole.setdefault(chapter, {}) or {}
        whole[chapter] = fields
        fields.update(change["set"])
        for field, rows in change["rows"].items():
            key = ROW_KEYS[chapter][field]

            def name(row: Tree, key: tuple[str, ...] = key) -> str:
                return "/".join(str(row[k]) for k in key)

            kept = [row for row in fields.get(field) or [] if name(row) not in rows["gone"]]
            for row in rows["put"]:
                places = [i for i, old in enumerate(kept) if name(old) == name(row)]
                if places:
                    kept[places[0]] = row
                else:
                    kept.append(row)
            if rows.get("order"):
                kept.sort(key=lambda row: rows["order"].index(name(row)))
            fields[field] = kept
    return whole


def _edits(design: Design, chance: random.Random) -> list[Change]:
    device = chance.choice(list(design.of(Device).values()))
    space = chance.choice(list(design.of(Space).values()))
    network = chance.choice(list(design.of(Network).values()))
    x, y = device.at
    return chance.choice(
        [
            [put(device.model_copy(update={"at": (x + chance.uniform(-3, 3), y)}))],
            [put(device.model_copy(update={"id": f"new-{chance.randrange(999)}", "name": "New"}))],
            [put(space.model_copy(update={"use": chance.choice(["calls", "none", "sensors"])}))],
            [put(network.model_copy(update={"vlan": chance.randrange(2, 4000)}))],
            [remove(d) for d in list(design.of(Device).values())[-1:] if d.kind == "outlet"]
            or [put(space.model_copy(update={"name": "Renamed"}))],
        ]
    )


@pytest.mark.parametrize("seed", range(6))
def test_a_patch_put_together_with_its_base_is_the_whole(
    seed: int, catalogue: Catalogue, school: Design
) -> None:
    chance, design = random.Random(seed), school
    base = evaluate(Plan(design, catalogue)).model_dump(mode="json")
    for _ in range(4):
        design = apply(design, _edits(design, chance))
        new = evaluate(Plan(design, catalogue)).model_dump(mode="json")
        different = patch(base, new)
        assert put_together(base, different) == new
        assert patch(new, new) == {}
        base = new


def test_a_preview_leaves_the_settings_as_they_are(catalogue: Catalogue, school: Design) -> None:
    whole = evaluate(Plan(school, catalogue)).model_dump(mode="json")
    moved = school.of(Device)["ap-5"].model_copy(update={"at": (25.0, 10.0)})
    preview = evaluate(Plan(apply(school, [put(moved)]), catalogue, quick=True)).model_dump(mode="json")
    different = patch(whole, preview)
    assert "settings" not in different
    after = put_together(whole, different)
    assert after["settings"] == whole["settings"]
    assert after["signal"]["radios"] == whole["signal"]["radios"]
    assert after["signal"]["rooms"] == preview["signal"]["rooms"]


def _moved(school: Design, x: float) -> list[dict]:
    device = school.of(Device)["ap-6"].model_copy(update={"at": (x, 12.0)})
    return [put(device).model_dump(mode="json")]


def test_one_answer_brings_what_changed_and_then_the_relief(repository: Repository, school: Design) -> None:
    project = repository.create("Larkmere", school, "me", "made").id
    with create_app(repository).test_client() as client:
        first = client.get(f"/api/projects/{project}/evaluation?base=nothing").get_json()
        assert first["base"] is None and first["patch"] is None
        body = {
            "revision": 1,
            "label": "x",
            "changes": _moved(school, 37.0),
            "base": first["mark"],
            "view": {"floor": "ground"},
        }
        response = client.post(
            f"/api/projects/{project}/changes", json=body, headers={"Accept-Encoding": "gzip"}
        )
        assert response.headers["Content-Encoding"] == "gzip"
        assert len(response.data) < 40_000
        lines = [json.loads(line) for line in gzip.decompress(response.data).splitlines()]
        answer, relief = lines[0]["answer"], lines[1]["relief"]
        assert answer["base"] == first["mark"] and answer["evaluation"] is None
        assert relief["floor"] == "ground" and any(relief["tints"])
        runs = answer["patch"]["cable"]["rows"]["runs"]
        assert [r["device"] for r in runs["put"]] == ["ap-6"]
        # What was sent is the evaluation of the saved revision: nothing is worked out again.
        again = client.get(f"/api/projects/{project}/evaluation?base={answer['mark']}").get_json()
        assert again["revision"] == 2
        whole = client.get(f"/api/projects/{project}/evaluation").get_json()["evaluation"]
        sent = put_together(put_together(first["evaluation"], answer["patch"]), again["patch"])
        assert {**sent, "signal": 0} == {**whole, "signal": 0}


def test_only_the_last_evaluations_are_known(catalogue: Catalogue, home: Design) -> None:
    answers, result = Answers(), shown(Plan(home, catalogue, quick=True))
    first = answers.keep(result, 1)
    assert json.loads(answers.text(first, first.mark))["patch"] == {}
    for _ in range(KEPT):
        last = answers.keep(result, 1)
    told = json.loads(answers.text(last, first.mark))
    assert told["base"] is None and told["evaluation"]["totals"] == last.tree["totals"]


def test_who_takes_no_gzip_gets_plain_text(client: FlaskClient) -> None:
    plain = client.get("/api/catalogue", headers={"Accept-Encoding": "identity"})
    packed = client.get("/api/catalogue", headers={"Accept-Encoding": "gzip, br"})
    assert "Content-Encoding" not in plain.headers
    assert gzip.decompress(packed.data) == plain.data and len(packed.data) < len(plain.data) / 4
    assert "Content-Encoding" not in client.get("/api/health").headers


@pytest.fixture
def client(repository: Repository) -> FlaskClient:
    return create_app(repository).test_client()


def test_all_who_ask_for_one_revision_share_one_answer(
    repository: Repository, home: Design, monkeypatch: pytest.MonkeyPatch
) -> None:
    """Twenty readers at once: it is worked out once, written once, packed once."""
    saved = repository.create("Shared", Design(dict(home.tables)), "me", "made")
    made, packed = [], []
    evaluated, pack = evaluation._evaluated, gzip.compress

    def evaluate_once(*args: object) -> object:
        made.append(args)
        time.sleep(0.2)
        return evaluated(*args)  # type: ignore[arg-type]

    monkeypatch.setattr(evaluation, "_evaluated", evaluate_once)
    monkeypatch.setattr(gzip, "compress", lambda *a: packed.append(a) or pack(*a))  # type: ignore[func-returns-value]
    app = create_app(repository)
    path = f"/api/projects/{saved.id}/evaluation"

    def read(_: int) -> bytes:
        with app.test_client() as client:
            return client.get(path, headers={"Accept-Encoding": "gzip"}).get_data()

    with ThreadPoolExecutor(20) as pool:
        answers = set(pool.map(read, range(20)))
    # While channels are searched for they are asked for anew; of one answer all have the same bytes.
    assert len(made) <= 2 and len(answers) == len(packed) <= 2


def test_an_evaluation_that_fails_is_tried_again(
    repository: Repository, home: Design, monkeypatch: pytest.MonkeyPatch
) -> None:
    answers = Answers()
    plan = Plan(Design(dict(home.tables)), repository.catalogue, shared=True)
    monkeypatch.setattr(evaluation, "_evaluated", lambda *_: 1 / 0)
    with pytest.raises(ZeroDivisionError):
        answers.figures(plan, 1)
    monkeypatch.undo()
    assert answers.figures(plan, 1).tree["totals"]
