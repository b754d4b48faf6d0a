"""Keys over the wire: made, typed, shown and noted, sent; and told nowhere else."""

from __future__ import annotations

import io
import json
import logging
import re
import time
import zipfile
from collections.abc import Iterator
from dataclasses import dataclass
from pathlib import Path
from typing import Any

import pypdfium2
import pytest
import yaml
from flask.testing import FlaskClient
from sqlalchemy import text

from heathrise.controller.service import Controllers
from heathrise.core.design import Portal, Remove, VoucherSet, WirelessName, put, remove
from heathrise.demo import music_school
from heathrise.formats.registry import formats
from heathrise.standins.controller.app import Sites
from heathrise.store import Repository
from heathrise.store.vault import Vault
from heathrise.web.app import create_app

TRICKY = "🎻 \"q\" 'a' ; \\ : , {x} #% <b>"


@dataclass
class Keyed:
    """A school with a controller that has its names, and what is asked of its keys."""

    client: FlaskClient
    sites: Sites
    id: str
    folder: Path
    repository: Repository

    def ask(self, method: str, path: str, body: object = None, status: int = 200) -> Any:
        answer = self.client.open(f"/api/projects/{self.id}{path}", method=method, json=body)
        assert answer.status_code == status, answer.json
        return answer.json

    def show(self, of: str) -> str:
        return str(self.ask("POST", "/keys/show", {"of": of})["key"])

    def job(self, kind: str, **arguments: Any) -> None:
        """Have a job done."""
        job = self.ask("POST", "/jobs", {"kind": kind, "arguments": arguments}, 202)
        until = time.monotonic() + 120
        while self.client.get(f"/api/jobs/{job['id']}").json["state"] == "running":  # type: ignore[index]
            assert time.monotonic() < until
            time.sleep(0.05)

    def stands(self) -> dict[str, str]:
        return {k["target"]: k["stand"] for k in self.ask("GET", "/controller")["keys"]}


@pytest.fixture
def school(repository: Repository, served: tuple[str, Sites], tmp_path: Path) -> Iterator[Keyed]:
    base, sites = served
    design = music_school()
    saved = repository.create("Larkmere", design, "me", "begin")
    # All three ask for a key, and nobody for a voucher.
    staff, guest = (design.of(WirelessName)[f"ssid-{who}"] for who in ("staff", "guest"))
    secured = [staff.model_copy(update={"security": "wpa3"}), guest.model_copy(update={"security": "wpa2"})]
    page = [*design.of(VoucherSet).values(), *design.of(Portal).values()]
    changes = [*map(put, secured), *map(remove, page)]
    repository.change(saved.id, saved.revision, changes, "me", "x")
    with repository.engine.begin() as connection:
        connection.execute(text("DELETE FROM sealed_key"))
    place, vault = Controllers(base, standin=True), Vault(tmp_path / "sealing.key")
    with create_app(repository, controllers=place, vault=vault).test_client() as client:
        found = Keyed(client, sites, saved.id, tmp_path, repository)
        found.ask("PUT", "/controller/standin", {"faults": 0, "seed": 1, "afresh": True})
        found.job("push")
        yield found
        place.forget(saved.id)


def _names(school: Keyed) -> list[str]:
    return [r["of"] for r in school.ask("GET", "/keys")["rows"] if r["security"]]


def test_a_key_is_made_shown_when_asked_noted_and_made_anew(school: Keyed) -> None:
    names = _names(school)
    assert len(names) == 3
    made = school.ask("POST", "/keys/make", {"of": names[0], "shape": "words"}, 201)
    row = made["rows"][0]
    assert (row["how"], row["bits"], row["shown"]) == ("words", 60.0, [])
    assert not [v for r in made["rows"] for v in r.values() if isinstance(v, str) and v.count("-") == 5]
    key = school.show(names[0])
    assert re.fullmatch(r"([a-z]{4,6}-){5}[a-z]{4,6}", key)
    assert [s["way"] for s in school.ask("GET", "/keys")["rows"][0]["shown"]] == ["screen"]
    school.ask("POST", "/keys/make", {"of": names[0], "shape": "characters"}, 201)
    assert len(school.show(names[0])) == 16 and school.show(names[0]) != key
    school.ask("POST", "/keys/forget", {"of": names[0]})
    school.ask("POST", "/keys/show", {"of": names[0]}, 404)


def test_a_key_that_will_not_do_is_refused_and_its_words_do_not_hold_it(school: Keyed) -> None:
    of = _names(school)[1]
    for key, words in (("larkmere-1234567890-x", "name of this site"), ("short", "14 are the least")):
        told = school.ask("PUT", "/keys", {"of": of, "key": key}, 422)
        assert words in json.dumps(told) and key not in json.dumps(told)
    long = school.ask("PUT", "/keys", {"of": of, "key": "q7" * 150}, 422)
    assert "q7q7" not in json.dumps(long)
    school.ask("PUT", "/keys", {"of": "name/none", "key": "x" * 20}, 422)
    school.ask("PUT", "/keys", {"of": "name/../x", "key": "x" * 20}, 422)
    assert school.ask("GET", "/keys")["rows"][1]["made"] is None


def test_a_key_with_signs_of_all_kinds_goes_through_code_yaml_and_controller_unchanged(school: Keyed) -> None:
    of = _names(school)[0]  # on WPA3 alone
    school.ask("PUT", "/keys", {"of": of, "key": TRICKY})
    assert school.show(of) == TRICKY
    assert yaml.safe_load(yaml.safe_dump({"key": school.show(of)}, allow_unicode=True)) == {"key": TRICKY}
    assert school.ask("POST", "/keys/send")["wrong"] == []
    target = next(t for t, stand in school.stands().items() if stand == "held")
    held = school.sites.of(school.id).state.keys
    assert held.has(target, TRICKY) and not held.has(target, TRICKY + " ")
    assert TRICKY not in school.sites.of(school.id).state.model_dump_json()


def test_what_the_controller_has_of_keys_is_seen_without_asking_for_them(school: Keyed) -> None:
    names = _names(school)
    assert set(school.stands().values()) == {"missing"}
    for of in names:
        school.ask("POST", "/keys/make", {"of": of, "shape": "words"}, 201)
    assert set(school.stands().values()) == {"unsent"}
    assert school.ask("POST", "/keys/send") == {"sent": 3, "wrong": []}
    assert set(school.stands().values()) == {"held"}
    assert school.ask("POST", "/keys/send") == {"sent": 0, "wrong": []}
    site = school.sites.of(school.id)
    site.set_key(names[1], "set by somebody else")
    assert [s for t, s in school.stands().items()] == ["held", "turned", "held"]
    school.ask("POST", "/keys/make", {"of": names[2], "shape": "words"}, 201)
    assert [s for t, s in school.stands().items()] == ["held", "turned", "unsent"]
    step = school.ask("GET", "/controller/bring-up")["steps"][8]
    keys = [(i["state"], i["does"]) for i in step["items"] if i["id"].startswith("key-")]
    assert keys == [("done", ""), ("ready", "keys"), ("ready", "keys")]
    assert school.ask("POST", "/keys/send") == {"sent": 2, "wrong": []}
    assert site.state.keys.has(names[1], school.show(names[1]))


def test_a_name_that_is_not_there_yet_gets_no_key_and_a_gone_one_is_told(school: Keyed) -> None:
    of = _names(school)[0]
    school.ask("POST", "/keys/make", {"of": of, "shape": "words"}, 201)
    site = school.sites.of(school.id)
    site.send(of, dict.fromkeys(site.held()[of]))
    assert school.ask("POST", "/keys/send")["wrong"] == ["Larkmere Staff: push its settings first"]
    change = {"op": "remove", "kind": "wireless_name", "id": of.removeprefix("name/")}
    school.repository.change(school.id, 2, [Remove.model_validate(change)], "me", "gone")
    gone = [r for r in school.ask("GET", "/keys")["rows"] if r["of"] == of]
    assert gone and gone[0]["name"] == "a name that is gone" and school.show(of)


def test_the_sealed_copy_holds_all_that_is_kept_and_is_noted(school: Keyed) -> None:
    names = _names(school)
    for of in (names[0], names[2], "account/local"):
        school.ask("POST", "/keys/make", {"of": of, "shape": "words"}, 201)
    answer = school.client.post(f"/api/projects/{school.id}/keys/sealed")
    assert answer.headers["Cache-Control"] == "no-store"
    paper = _text_of(answer.data)
    rows = {r["of"]: r for r in school.ask("GET", "/keys")["rows"]}
    for of in (names[0], names[2], "account/local"):
        assert [s["way"] for s in rows[of]["shown"]] == ["sealed_copy"]
        assert school.show(of) in paper
    assert paper.count("no key yet") == 1 and rows[names[1]]["shown"] == []


def test_a_key_stands_nowhere_but_where_it_was_asked_for(
    school: Keyed, caplog: pytest.LogCaptureFixture
) -> None:
    caplog.set_level(logging.DEBUG)
    typed = "otter quartz kiln lemon 91"
    names = _names(school)
    school.ask("PUT", "/keys", {"of": names[1], "key": typed})
    for of in (names[0], names[2], "account/local"):
        school.ask("POST", "/keys/make", {"of": of, "shape": "words"}, 201)
    school.ask("POST", "/keys/send")
    school.ask("POST", "/controller/read", status=201)
    school.ask("POST", "/controller/backups", {"label": "all"}, 201)
    school.job("handover", by="Ann")
    keys = [school.show(of) for of in (*names, "account/local")]
    assert typed in keys and len(set(keys)) == 4
    looked = all_that_is_said(school, caplog.text)
    for where, said in looked.items():
        for key in keys:
            for spelt in {key, json.dumps(key)[1:-1], "".join(key.split())}:
                assert spelt not in said and spelt not in "".join(said.split()), where


def all_that_is_said(school: Keyed, log: str) -> dict[str, str]:
    """Return a dump of all tables, every export, answers, what is logged, what the controller and the
    folder of the key file hold."""
    with school.repository.engine.connect() as connection:
        tables = connection.scalars(text("SHOW TABLES")).all()
        dump = {t: [tuple(r) for r in connection.execute(text(f"SELECT * FROM `{t}`"))] for t in tables}
    assert dump["sealed_key"]
    looked = {f"table {name}": " ".join(map(_plain, rows)) for name, rows in dump.items()}
    for name in formats("out"):
        answer = school.client.get(f"/api/projects/{school.id}/export/{name}")
        if answer.status_code == 200:
            looked[name] = _text_of(answer.data)
    paths = (
        "",
        "/keys",
        "/vouchers",
        "/controller",
        "/controller/bring-up",
        "/handover",
        "/journal",
        "/settings",
    )
    for path in paths:
        answer = school.client.get(f"/api/projects/{school.id}{path}")
        looked[f"GET {path}"] = answer.get_data(as_text=True)
    looked["log"] = log
    looked["stand-in"] = school.sites.of(school.id).state.model_dump_json()
    looked["files"] = " ".join(p.read_text("latin-1") for p in school.folder.rglob("*") if p.is_file())
    assert len(looked["table record"]) > 1000 and len(looked["project.json"]) > 1000 and len(looked) > 30
    return looked


def _plain(value: object) -> str:
    if isinstance(value, tuple):
        return " ".join(map(_plain, value))
    return _text_of(value) if isinstance(value, bytes) else str(value)


def _text_of(data: bytes) -> str:
    """Return what a file says, opened as far as one can open it."""
    if data.startswith(b"%PDF"):
        return " ".join(p.get_textpage().get_text_bounded() for p in pypdfium2.PdfDocument(data))
    if data.startswith(b"PK"):
        archive = zipfile.ZipFile(io.BytesIO(data))
        return " ".join(archive.read(n).decode("latin-1") for n in archive.namelist())
    return data.decode("utf-8", "replace")


def test_without_a_key_file_one_is_told_what_to_do(repository: Repository) -> None:
    project = repository.create("Bare", music_school(), "me", "begin").id
    with create_app(repository).test_client() as client:
        of = next(r["of"] for r in client.get(f"/api/projects/{project}/keys").json["rows"])
        told = client.post(f"/api/projects/{project}/keys/make", json={"of": of, "shape": "words"})
        assert told.status_code == 409 and "--key-file" in told.json["message"]
