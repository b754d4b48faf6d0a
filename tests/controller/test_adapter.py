"""What a controller may do wrong: late, half, wrong, another version's, another site's; each is told."""

from __future__ import annotations

import json
import threading
import time
from collections.abc import Callable, Iterator
from contextlib import contextmanager, suppress
from http.server import BaseHTTPRequestHandler, HTTPServer
from pathlib import Path
from typing import Any

import pytest

import heathrise.controller
from heathrise.controller import CONTRACT, Controller, ControllerError
from heathrise.controller.contract import Gear
from heathrise.standins.controller import create_standin
from heathrise.standins.controller.app import contract_text
from heathrise.standins.controller.gear import Planted

from .conftest import StandIn

Answer = Callable[[BaseHTTPRequestHandler], None]
ABOUT = {"contract": CONTRACT, "name": "C", "site": "s", "firmware": 7, "offers": None, "now_s": 1.0}


def _json(body: object, status: int = 200) -> Answer:
    return _text(json.dumps(body).encode(), status)


def _text(data: bytes, status: int = 200) -> Answer:
    def answer(request: BaseHTTPRequestHandler) -> None:
        request.send_response(status)
        request.send_header("Content-Length", str(len(data)))
        request.end_headers()
        request.wfile.write(data)

    return answer


def _half(request: BaseHTTPRequestHandler) -> None:
    request.send_response(200)
    request.send_header("Content-Length", "4000")
    request.end_headers()
    request.wfile.write(b'{"contract": 1, ')


def _late(request: BaseHTTPRequestHandler) -> None:
    time.sleep(1.2)
    _json(ABOUT)(request)


@contextmanager
def _answering(answer: Answer) -> Iterator[Controller]:
    class Handler(BaseHTTPRequestHandler):
        def _go(self) -> None:
            self.rfile.read(int(self.headers.get("Content-Length") or 0))
            with suppress(BrokenPipeError):  # whoever asked may have gone
                answer(self)

        do_GET = do_POST = do_PATCH = _go  # noqa: N815

        def log_message(self, *_: Any) -> None:
            return

    server = HTTPServer(("127.0.0.1", 0), Handler)
    threading.Thread(target=server.serve_forever, daemon=True).start()
    try:
        yield Controller(f"http://127.0.0.1:{server.server_port}/sites/s/v1", "s", seconds=0.6)
    finally:
        server.shutdown()


@pytest.mark.parametrize(
    ("answer", "trouble", "words"),
    [
        (_late, "late", "answers too late"),
        (_half, "half", "broke off in the middle"),
        (_text(b"<html>Log in</html>"), "wrong", "is no JSON"),
        (_text(b"[" * 100_000), "wrong", "is no JSON"),
        (_json([1, 2]), "wrong", "not as the contract has it"),
        (_json({**ABOUT, "firmware": "new"}), "wrong", "at firmware"),
        (_json({"message": "x"}, 500), "failed", "HTTP 500"),
        (_json({**ABOUT, "contract": 2}), "other_version", "version 2 of the contract, this program 1"),
        (_json({**ABOUT, "site": "other"}), "other_site", "holds the site 'other', not this one"),
        (_json({"message": "no power"}, 409), "refused", "the controller will not: no power"),
        (_text(b"", 404), "refused", "HTTP 404"),
    ],
)
def test_what_a_controller_does_wrong_is_told(answer: Answer, trouble: str, words: str) -> None:
    with _answering(answer) as controller, pytest.raises(ControllerError) as told:
        controller.about()
    assert told.value.trouble == trouble and words in str(told.value)


def test_one_that_is_not_there_and_one_that_lists_a_serial_twice_are_told() -> None:
    with pytest.raises(ControllerError) as told:
        Controller("http://127.0.0.1:9/sites/s/v1", "s", seconds=0.5).about()
    assert told.value.trouble in ("away", "late") and "http" not in str(told.value)
    one = Gear(serial="A", model="m", kind="switch", stand="found").model_dump()
    twice, deep = _json({"gear": [one, one]}), _json({"held": {"site": {"mesh": {"deep": 1}}}})
    with _answering(twice) as controller, pytest.raises(ControllerError, match="lists a serial twice"):
        controller.gear()
    with _answering(deep) as controller, pytest.raises(ControllerError, match=r"at held\.site\.mesh"):
        controller.held()


def test_what_a_later_version_says_more_is_no_concern() -> None:
    with _answering(_json({**ABOUT, "cloud": {"beta": True}})) as controller:
        assert controller.about().firmware == 7


def test_the_contract_that_is_kept_is_the_one_that_is_spoken() -> None:
    kept = Path(heathrise.controller.__file__).parent / "contract.json"
    assert kept.read_text("utf-8") == contract_text(create_standin())
    paths = json.loads(kept.read_text("utf-8"))["paths"]
    spoken = {"about", "gear", "settings", "measured", "backup", "restore", "update", "keys", "scan"}
    assert {p.split("/v1/")[1].split("/")[0] for p in paths} == spoken
    assert not [p for p in paths if p.startswith("/standin")]


@pytest.mark.parametrize("text", ["Gäste 🎻", 'it\'s; "so"', "a\\b\\\\c", "</script>&%20", "x" * 400, " \t "])
def test_words_of_any_kind_come_back_as_they_were_sent(standin: StandIn, text: str) -> None:
    site = f"words-{abs(hash(text))}"
    standin.place.plug_in(site, [], 1, 0)
    controller = standin.controller(site)
    controller.send("name/w", {"ssid": text, "bands": ["2.4", "5"]})
    assert controller.held().held == {"name/w": {"ssid": text, "bands": ["2.4", "5"]}}
    controller.send("name/w", {"ssid": None, "bands": None})
    assert controller.held().held == {}


def test_a_stand_in_outlives_its_process(tmp_path: Path) -> None:
    one = create_standin(tmp_path).test_client()
    gear = [Planted(serial="A", model="m", kind="switch").model_dump()]
    assert one.put("/standin/s/gear", json={"gear": gear, "seed": 4}).status_code == 200
    assert one.post("/sites/s/v1/gear/A/adopt").status_code == 409  # the controller is older
    for _ in range(2):
        assert one.post("/sites/s/v1/update").status_code == 202
        one.post("/standin/s/pass", json={"seconds": 100})
    assert one.post("/sites/s/v1/gear/A/adopt").status_code == 202
    again = create_standin(tmp_path).test_client()
    again.post("/standin/s/pass", json={"seconds": 100})
    assert [g["stand"] for g in again.get("/sites/s/v1/gear").json["gear"]] == ["online"]
    assert again.get("/sites/t/v1/about").status_code == 404
    assert again.post("/standin/s/fault", json={"serial": "B", "fault": "slow"}).status_code == 404
    assert again.delete("/standin/s/").status_code == 200
    assert create_standin(tmp_path).test_client().get("/sites/s/v1/about").status_code == 404
