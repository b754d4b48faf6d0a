"""Vouchers over the wire: codes are made, come out on slips alone, go to the controller, and are told nowhere."""

from __future__ import annotations

import io
import logging
import re
from collections.abc import Iterator
from pathlib import Path

import pypdfium2
import pytest
from sqlalchemy import text

from heathrise.controller.service import Controllers
from heathrise.core.design import VoucherSet, put, remove
from heathrise.demo import music_school
from heathrise.standins.controller.app import Sites
from heathrise.store import Repository
from heathrise.store.vault import Vault
from heathrise.web.app import create_app

from .test_keys import Keyed, all_that_is_said

CONCERT, TEACHERS = "vouchers-concert", "vouchers-teachers"
_CODE = re.compile(r"[CDFHJKLMNPQRTVWXY3479]{4}-[CDFHJKLMNPQRTVWXY3479]{4}")


@pytest.fixture
def school(repository: Repository, served: tuple[str, Sites], tmp_path: Path) -> Iterator[Keyed]:
    base, sites = served
    saved = repository.create("Larkmere", music_school(), "me", "begin")
    with repository.engine.begin() as connection:
        connection.execute(text("DELETE FROM sealed_key"))
    place, vault = Controllers(base, standin=True), Vault(tmp_path / "sealing.key")
    with create_app(repository, controllers=place, vault=vault).test_client() as client:
        found = Keyed(client, sites, saved.id, tmp_path, repository)
        found.ask("PUT", "/controller/standin", {"faults": 0, "seed": 1, "afresh": True})
        yield found
        place.forget(saved.id)


def _rows(school: Keyed) -> dict[str, dict[str, object]]:
    return {r["set"]: r for r in school.ask("GET", "/vouchers")["rows"]}


def _slips(school: Keyed, key: str) -> list[str]:
    answer = school.client.post(f"/api/projects/{school.id}/vouchers/print", json={"set": key})
    assert answer.status_code == 200, answer.json
    pages = pypdfium2.PdfDocument(io.BytesIO(answer.data))
    return _CODE.findall(" ".join(p.get_textpage().get_text_range() for p in pages))


def _change(school: Keyed, *elements: VoucherSet) -> None:
    revision = school.repository.load(school.id).revision
    school.repository.change(school.id, revision, [put(e) for e in elements], "me", "x")


def test_codes_are_made_once_topped_up_printed_and_thrown_away(school: Keyed) -> None:
    assert {k: (r["total"], r["codes"], r["made"]) for k, r in _rows(school).items()} == {
        CONCERT: (40, 0, None),
        TEACHERS: (6, 0, None),
    }
    school.ask("POST", "/vouchers/print", {"set": TEACHERS}, 404)
    school.ask("POST", "/vouchers/make", {"set": TEACHERS}, 201)
    first = _slips(school, TEACHERS)
    assert len(first) == len(set(first)) == 6
    told = school.ask("POST", "/vouchers/make", {"set": TEACHERS}, 422)
    assert "all codes of Guest teachers are made" in str(told)
    teachers = school.repository.load(school.id).design.of(VoucherSet)[TEACHERS]
    _change(school, teachers.model_copy(update={"number": 9}))
    school.ask("POST", "/vouchers/make", {"set": TEACHERS}, 201)
    more = _slips(school, TEACHERS)
    assert more[:6] == first and len(set(more)) == 9
    _change(school, teachers.model_copy(update={"number": 2}))
    assert _slips(school, TEACHERS) == more, "what was handed out stays valid"
    row = _rows(school)[TEACHERS]
    assert (row["total"], row["codes"], len(row["printed"])) == (2, 9, 3)  # type: ignore[arg-type]
    assert row["one_in"] == pytest.approx(21**8 / 9)
    assert not [r for r in school.ask("GET", "/keys")["rows"] if r["of"].startswith("vouchers/")]
    school.ask("POST", "/vouchers/forget", {"set": TEACHERS})
    assert _rows(school)[TEACHERS]["codes"] == 0
    school.ask("POST", "/vouchers/make", {"set": "none"}, 422)
    school.ask("POST", "/vouchers/make", {"set": "../x"}, 422)


def test_codes_of_a_set_that_is_gone_are_told_until_they_are_thrown_away(school: Keyed) -> None:
    school.ask("POST", "/vouchers/make", {"set": TEACHERS}, 201)
    saved = school.repository.load(school.id)
    gone = remove(saved.design.of(VoucherSet)[TEACHERS])
    school.repository.change(school.id, saved.revision, [gone], "me", "x")
    assert _rows(school)[TEACHERS]["name"] == "vouchers that are gone"
    school.ask("POST", "/vouchers/print", {"set": TEACHERS}, 422)
    school.ask("POST", "/vouchers/forget", {"set": TEACHERS})
    assert TEACHERS not in _rows(school)


def test_codes_go_to_the_controller_with_their_set_and_are_told_nowhere(
    school: Keyed, caplog: pytest.LogCaptureFixture
) -> None:
    caplog.set_level(logging.DEBUG)
    target = f"vouchers/{CONCERT}"
    assert school.stands()[target] == "missing"
    school.ask("POST", "/vouchers/make", {"set": CONCERT}, 201)
    assert school.stands()[target] == "unsent"
    wrong = school.ask("POST", "/keys/send")["wrong"]
    assert "Concert evening: push its settings first" in wrong
    school.job("push")
    assert school.ask("POST", "/keys/send")["wrong"] == []
    assert school.stands()[target] == "held"
    state = school.sites.of(school.id).state
    assert state.held[target]["hours"] == 6 and state.held["network/net-guest"]["page.way"] == "voucher"
    concert = school.repository.load(school.id).design.of(VoucherSet)[CONCERT]
    _change(school, concert.model_copy(update={"number": 41}))
    assert school.stands()[target] == "missing", "one code is still to be made"
    school.ask("POST", "/vouchers/make", {"set": CONCERT}, 201)
    assert school.stands()[target] == "unsent"
    school.ask("POST", "/keys/send")
    assert school.stands()[target] == "held"
    codes = [c.replace("-", "") for c in _slips(school, CONCERT)]
    assert len(codes) == 41
    school.ask("POST", "/controller/backups", {"label": "x"}, 201)
    for where, said in all_that_is_said(school, caplog.text).items():
        for code in codes:
            assert code not in said and f"{code[:4]}-{code[4:]}" not in said, where
