"""Keys on their way to a controller: which go, what it says of them, and that no word holds one."""

from __future__ import annotations

from collections.abc import Callable
from datetime import UTC, datetime, timedelta

import pytest
from hypothesis import given
from hypothesis import strategies as st

from heathrise.controller import Controller, ControllerError
from heathrise.controller.keys import KeyAt, KeyStand, key_stands, keyed_names, send_keys
from heathrise.core.catalogue import load_catalogue
from heathrise.core.context.plan import Plan
from heathrise.core.design import Portal, VoucherSet, WirelessName, apply, put, remove
from heathrise.core.records import KeySent
from heathrise.demo import music_school
from heathrise.store.vault import VaultError

from .conftest import StandIn

NOW = datetime(2026, 5, 4, 9, tzinfo=UTC)
SCHOOL = music_school()
_NO_PAGE = [*SCHOOL.of(VoucherSet).values(), *SCHOOL.of(Portal).values()]
_KEYED = SCHOOL.of(WirelessName)["ssid-guest"].model_copy(update={"security": "wpa3_wpa2"})
PLAN = Plan(apply(SCHOOL, [put(_KEYED), *map(remove, _NO_PAGE)]), load_catalogue())
NAMES = [row[0] for row in keyed_names(PLAN)]


@pytest.mark.parametrize(
    "key", ["Gäste 🎻", 'it\'s; "so"', "a\\b\\\\c", "</script>&%20", "{'k': 'v'}", "x" * 199, " \t "]
)
def test_a_key_of_any_kind_is_at_the_controller_as_it_was_sent(standin: StandIn, key: str) -> None:
    site = f"key-{abs(hash(key))}"
    standin.place.plug_in(site, [], 1, 0)
    controller = standin.controller(site)
    with pytest.raises(ControllerError, match="send it first") as told:
        controller.set_key("name/w", key)
    assert not key.strip() or key not in str(told.value)
    controller.send("name/w", {"ssid": "Guests"})
    assert controller.held().keyed == {} and not controller.has_key("name/w", key)
    assert controller.set_key("name/w", key) == 1 and controller.has_key("name/w", key)
    assert not controller.has_key("name/w", f"{key}x") and controller.set_key("name/w", "other") == 2
    assert not controller.has_key("name/w", key) and controller.held().keyed == {"name/w": 2}
    assert key not in controller.backup() and "other" not in controller.backup()
    controller.send("name/w", {"ssid": None})
    assert controller.held().keyed == {}
    standin.place.forget(site)


@given(
    st.lists(
        st.tuples(st.sampled_from(["make", "send", "turn", "lose", "lie"]), st.integers(0, len(NAMES) - 1)),
        max_size=25,
    )
)
def test_how_each_key_stands_whatever_was_done_before(story: list[tuple[str, int]]) -> None:
    """Against a plain account of what was done to each name, in words."""
    made: dict[str, datetime] = {}
    sent: list[KeySent] = []
    keyed: dict[str, int] = {}
    numbers = iter(range(1, 1000))  # one that was used never comes again, though its name may
    truth: dict[str, KeyStand] = dict.fromkeys(NAMES, "missing")
    for minute, (what, at) in enumerate(story):
        of = NAMES[at]
        if what == "make":
            made[of] = NOW + timedelta(minutes=minute)
            truth[of] = "unsent"
        elif what in ("send", "lie") and of in made:
            keyed[of] = next(numbers)
            row = {"of": of, "target": of, "made": made[of], "count": keyed[of], "same": what == "send"}
            sent.append(KeySent(at=NOW, author="me", **row))
            truth[of] = "held" if what == "send" else "unlike"
        elif what == "turn":
            keyed[of] = next(numbers)
            went = any(s.of == of and s.made == made.get(of) for s in sent)
            truth[of] = "turned" if went else truth[of]
        elif what == "lose" and keyed.pop(of, None):
            truth[of] = "unsent" if of in made else "missing"
    assert {k.target: k.stand for k in key_stands(PLAN, made, sent, keyed)} == truth


def test_names_of_one_for_each_access_point_share_its_key() -> None:
    name = PLAN.design.of(WirelessName)["ssid-staff"]
    apart = PLAN.after([put(name.model_copy(update={"security": "enterprise"}))])
    assert "name/ssid-staff" not in {of for of, *_ in keyed_names(apart)}
    firm = load_catalogue()
    each = Plan(
        music_school(),
        firm.model_copy(update={"rules": firm.rules.by_firm({"settings.names_by": "access_point"})}),
    )
    targets = [(of, target) for of, target, *_ in keyed_names(each) if of == "name/ssid-staff"]
    assert len(targets) > 5 and len({t for _, t in targets}) == len(targets)


class _Odd(Controller):
    """A controller that tells of a key what it must not, or says that it took one and did not."""

    def __init__(self, does: Callable[[str], bool]) -> None:
        super().__init__("http://127.0.0.1:9", "s")
        self._does = does

    def set_key(self, target: str, key: str) -> int:
        return len(target and key) and 1

    def has_key(self, target: str, key: str) -> bool:
        assert target
        return self._does(key)


def _echo(key: str) -> bool:
    raise ControllerError("refused", f"the controller will not: {key!r} is too long")


def test_what_goes_wrong_is_told_by_name_and_never_by_key() -> None:
    stands = [KeyAt(of="name/a", target="name/a", name="A", stand="unsent", words="")]
    sent: list[KeySent] = []

    def send(does: Callable[[str], bool], rows: list[KeyAt]) -> list[str]:
        return send_keys(_Odd(does), rows, {"name/a": NOW}, lambda _: "otter-quartz", sent.append, "me")

    wrong = send(_echo, stands)
    assert sent == [] and wrong == ["A: the controller will not: '(its key)' is too long"]
    wrong = send(lambda _: False, stands)
    assert [row.same for row in sent] == [False] and "send it again" in wrong[0]
    assert "otter" not in str(sent) + str(wrong)
    held = [KeyAt(of="name/a", target="name/a", name="A", stand="held", words="")]
    assert send(_echo, held) == [] and len(sent) == 1


def test_a_key_that_was_for_wpa3_alone_is_not_sent_for_wpa2() -> None:
    row = KeyAt(of="name/a", target="name/a", name="A", stand="unsent", words="")
    sent: list[KeySent] = []
    for security, told in (
        ("wpa3", []),
        ("wpa3_wpa2", ["have a new one made"]),
        ("wpa2", ["a new one made"]),
    ):
        rows = [row.model_copy(update={"security": security})]
        wrong = send_keys(
            _Odd(lambda _: True), rows, {"name/a": NOW}, lambda _: "Geige 🎻", sent.append, "me"
        )
        assert len(wrong) == len(told) and all(w in wrong[0] for w in told)
    assert len(sent) == 1


def test_what_was_sent_is_noted_before_the_next_one_fails() -> None:
    stands = [KeyAt(of=f"name/{k}", target=f"name/{k}", name=k, stand="unsent", words="") for k in "abc"]
    made, sent = {row.of: NOW for row in stands}, []  # type: ignore[var-annotated]

    def opened(of: str) -> str:
        if of == "name/b":
            raise VaultError("the key file is gone")
        return "otter-quartz"

    with pytest.raises(VaultError):
        send_keys(_Odd(lambda _: True), stands, made, opened, sent.append, "me")
    assert [row.of for row in sent] == ["name/a"]
