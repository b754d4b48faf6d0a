"""Routes for keys: made, typed, shown to who asks and noted, printed on the sealed copy, sent to the
controller. No key stands in an address, and none in an answer but the one that was asked for by name."""

from __future__ import annotations

import secrets
from collections.abc import Iterator
from datetime import UTC, datetime

from apiflask import APIBlueprint
from flask import Response

from ..controller.keys import send_keys
from ..core.context.plan import Plan
from ..core.design import KEYED, DesignError, Network, Problem, Security, WirelessName
from ..core.handover import joins_of
from ..core.records import KeySent, KeyShown, KeyWay
from ..core.settings import judge_key, make_key
from ..core.views.vouchers import CODES
from ..formats.papers import code_svg, drawn_of, sealed_pdf
from ..store import Saved
from ..store.keys import KeptKey
from .controller import key_stands_now, seen_now
from .desk import stores
from .key_models import KeyMake, KeyNamed, KeyRow, KeysSent, KeysView, KeyTold, KeyTyped, ShownRow
from .transfer import file_stem
from .wire import AUTHOR, download, json_of

routes = APIBlueprint("keys", __name__, url_prefix="/api/projects/<project_id>/keys")
LOCAL = "account/local"
_LOCAL_NAME = "Local administrator of the controller"
_LAST_SHOWN = 5


@routes.get("")
@routes.output(KeysView)
def get_keys(project_id: str) -> Response:
    """Tell which keys are kept, and what may be said of them."""
    return _answered(project_id)


@routes.post("/make")
@routes.input(KeyMake, arg_name="said")
@routes.output(KeysView, status_code=201)
def make_new_key(project_id: str, said: KeyMake) -> Response:
    """Make a new key and keep it sealed; nobody is shown it."""
    saved, plan = stores().plans.load(project_id)
    security, avoid = _security(plan, said.of), _avoided(saved, plan)
    key, bits = make_key(said.shape, security, avoid, plan.rules, secrets.SystemRandom())
    stores().keys.put(project_id, said.of, key, said.shape, bits, AUTHOR)
    return _answered(project_id, 201)


@routes.put("")
@routes.input(KeyTyped, arg_name="said")
@routes.output(KeysView)
def type_key(project_id: str, said: KeyTyped) -> Response:
    """Keep a key that somebody chose, if it is strong enough."""
    saved, plan = stores().plans.load(project_id)
    found = judge_key(said.key, _security(plan, said.of), _avoided(saved, plan), plan.rules)
    if found.wrong:
        raise DesignError([Problem("key", what) for what in found.wrong])
    stores().keys.put(project_id, said.of, said.key, "typed", found.bits, AUTHOR)
    return _answered(project_id)


@routes.post("/show")
@routes.input(KeyNamed, arg_name="said")
@routes.output(KeyTold)
def show_key(project_id: str, said: KeyNamed) -> Response:
    """Show one key, which is noted first."""
    _, plan = stores().plans.load(project_id)
    key = stores().keys.show(project_id, said.of)
    _note_shown(project_id, said.of, "screen")
    name = said.of.removeprefix("name/")
    codes = [j.code for j in joins_of(plan.design, plan.catalogue, {name: key}) if j.name == name]
    # Where each access point has a name of its own there is one for each: those are on the sealed copy.
    code = codes[0] if len(codes) == 1 else ""
    return json_of(KeyTold(key=key, code=code_svg(code) if code else ""))


@routes.post("/forget")
@routes.input(KeyNamed, arg_name="said")
@routes.output(KeysView)
def forget_key(project_id: str, said: KeyNamed) -> Response:
    """Throw a key away."""
    stores().repository.load(project_id)
    stores().keys.forget(project_id, said.of)
    return _answered(project_id)


@routes.post("/send")
@routes.output(KeysSent)
def send_to_controller(project_id: str) -> Response:
    """Give the controller each key that it lacks, and ask it whether it has that now."""
    _, plan = stores().plans.load(project_id)
    controller, seen = seen_now(project_id, plan)
    made, stands = key_stands_now(project_id, plan, seen)
    there = [row for row in stands if row.target in seen.held]
    sent: list[KeySent] = []

    def told(record: KeySent) -> None:
        stores().records.append(project_id, record)
        sent.append(record)

    wrong = send_keys(controller, there, made, lambda of: stores().keys.show(project_id, of), told, AUTHOR)
    wrong += [f"{r.name}: push its settings first" for r in stands if r.stand == "unsent" and r not in there]
    return json_of(KeysSent(sent=len(sent), wrong=wrong))


@routes.post("/sealed")
def print_sealed(project_id: str) -> Response:
    """Print the sealed copy with all keys that are kept, which is noted. The paper is not kept."""
    saved, plan = stores().plans.load(project_id)
    kept = stores().keys.all(project_id)
    rows = [of for of, _ in _named(plan) if of in kept]
    keys = {of: stores().keys.show(project_id, of) for of in rows}
    for of in rows:
        _note_shown(project_id, of, "sealed_copy")
    account = (_LOCAL_NAME, keys[LOCAL]) if LOCAL in keys else None
    names = {of.removeprefix("name/"): key for of, key in keys.items() if of != LOCAL}
    data = sealed_pdf(drawn_of(saved.name, saved.revision, plan), names, account)
    return download(data, "application/pdf", f"{file_stem(saved.name)}-sealed.pdf")


def _answered(project_id: str, status: int = 200) -> Response:
    _, plan = stores().plans.load(project_id)
    kept, names = stores().keys.all(project_id), dict(_named(plan))
    shown = last_shown(project_id, _LAST_SHOWN)
    names |= {of: "a name that is gone" for of in kept if of not in names and not of.startswith(CODES)}
    rows = [_row(plan, of, name, kept.get(of), shown.get(of, [])) for of, name in names.items()]
    return json_of(KeysView(rows=rows), status)


def last_shown(project_id: str, most: int) -> dict[str, list[ShownRow]]:
    """Return by key who was shown it, the last first, so many at the most."""
    found: dict[str, list[ShownRow]] = {}
    for record in reversed(stores().records.of(project_id, KeyShown)):
        rows = found.setdefault(record.of, [])
        if len(rows) < most:
            rows.append(ShownRow(at=record.at, by=record.author, way=record.way))
    return found


def _row(plan: Plan, of: str, name: str, kept: KeptKey | None, shown: list[ShownRow]) -> KeyRow:
    element = _name_of(plan, of)
    return KeyRow(
        of=of,
        name=name,
        network=plan.design.of(Network)[element.network].name if element is not None else "",
        security=element.security if element is not None else None,
        how=kept.how if kept is not None else None,
        bits=kept.bits if kept is not None else None,
        made=kept.made if kept is not None else None,
        by=kept.author if kept is not None else "",
        shown=shown,
    )


def _named(plan: Plan) -> Iterator[tuple[str, str]]:
    """Yield what has a key and how it is called: wireless names that ask for one, and the account."""
    for name in plan.design.of(WirelessName).values():
        if name.security in KEYED:
            yield f"name/{name.id}", name.ssid
    yield LOCAL, _LOCAL_NAME


def _name_of(plan: Plan, of: str) -> WirelessName | None:
    """Return the wireless name that something is the key of, or None where it is no name's."""
    return plan.design.of(WirelessName).get(of.removeprefix("name/"))


def _security(plan: Plan, of: str) -> Security:
    """Return what the key of something must do for; an account's holds to the narrower rule.

    Raises:
        DesignError: there is nothing of this id, or it asks for no key.
    """
    if of not in dict(_named(plan)):
        raise DesignError([Problem("of", f"nothing that asks for a key is called {of[:50]!r}")])
    name = _name_of(plan, of)
    return name.security if name is not None else "wpa2"


def _avoided(saved: Saved, plan: Plan) -> list[str]:
    """Return the names that whoever stands before the house knows, or hears on the air."""
    site = plan.design.site
    return [saved.name, site.client_name, *(n.ssid for n in plan.design.of(WirelessName).values())]


def _note_shown(project_id: str, of: str, way: KeyWay) -> None:
    record = KeyShown(at=datetime.now(UTC), author=AUTHOR, of=of, way=way)
    stores().records.append(project_id, record)
