"""Keys on their way to a controller: which it has, which it lacks, which somebody else has set since."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping, Sequence
from datetime import UTC, datetime
from typing import ClassVar, Literal

from pydantic import Field

from ..core.base.frozen import Frozen
from ..core.context.on_air import broadcasts
from ..core.context.plan import Plan
from ..core.design import KEYED, Security, VoucherSet, WirelessName
from ..core.records import KeySent
from ..core.views.vouchers import CODES
from .adapter import Controller, ControllerError

KeyStand = Literal["missing", "unsent", "turned", "unlike", "held"]
STANDS: dict[KeyStand, str] = {
    "missing": "none yet: have it made under Settings",
    "unsent": "not at the controller yet",
    "turned": "somebody else set another at the controller since",
    "unlike": "the controller said that it took it, and has another: send it again",
    "held": "at the controller, asked for and the same",
}


class KeyAt(Frozen):
    """How the key of a name on the air stands at the controller, or the codes of a set of vouchers."""

    KEY: ClassVar = ("target",)

    of: str = Field(description="what it is the key of: ``name/`` or ``vouchers/`` with the id")
    target: str = Field(description="that as the controller has it")
    name: str = Field(description="what it is called, such as the name on the air")
    security: Security | None = Field(None, description="of the name; None for vouchers")
    stand: KeyStand
    words: str


def key_stands(
    plan: Plan, made: Mapping[str, datetime], sent: Sequence[KeySent], keyed: Mapping[str, int]
) -> tuple[KeyAt, ...]:
    """Return how the key of each name that asks for one stands, and the codes of each set of vouchers.

    Args:
        made: of each key that is kept, and of codes where there are enough, when it was made.
        sent: keys that were sent, the first first.
        keyed: the number under which the controller says that each was set.
    """
    last = {row.target: row for row in sent}
    found = []
    sets = plan.design.of(VoucherSet).values()
    vouchers = [(f"{CODES}{v.id}", f"{CODES}{v.id}", v.name, None) for v in sets]
    for of, target, name, security in (*keyed_names(plan), *vouchers):
        stand = _stand(made.get(of), last.get(target), keyed.get(target))
        words = STANDS[stand]
        found.append(KeyAt(of=of, target=target, name=name, security=security, stand=stand, words=words))
    return tuple(found)


def keyed_names(plan: Plan) -> Iterator[tuple[str, str, str, Security]]:
    """Yield of each name on the air that asks for a key what it is the key of, its target, how it is called
    and secured. Names that a wireless name has on the air for it share its key."""
    on_air = broadcasts(plan.design, plan.catalogue)
    for name in plan.design.of(WirelessName).values():
        if name.security in KEYED:
            for part in on_air[name.id]:
                yield f"name/{name.id}", f"name/{part.id}", part.ssid, name.security


def _stand(made: datetime | None, sent: KeySent | None, count: int | None) -> KeyStand:
    if made is None:
        return "missing"
    if sent is None or sent.made != made or count is None:
        return "unsent"
    if count != sent.count:
        return "turned"
    return "held" if sent.same else "unlike"


def send_keys(
    controller: Controller,
    stands: Sequence[KeyAt],
    made: Mapping[str, datetime],
    key_of: Callable[[str], str],
    told: Callable[[KeySent], None],
    author: str,
) -> list[str]:
    """Send each key that the controller lacks or has otherwise, and ask it whether it has that now.

    Args:
        key_of: opens the key of what is named.
        told: is given each that was sent, at once: whatever comes next, that one is there.

    Returns:
        what went wrong, in words that tell no key.
    """
    wrong: list[str] = []
    for row in stands:
        if row.stand in ("missing", "held"):
            continue
        key = key_of(row.of)
        if row.security in ("wpa2", "wpa3_wpa2") and not key.isascii():
            wrong.append(f"{row.name}: its key was for WPA3 alone and is none for WPA2: have a new one made")
            continue
        try:
            count = controller.set_key(row.target, key)
            same = controller.has_key(row.target, key)
        except ControllerError as error:
            wrong.append(f"{row.name}: {_without(str(error), key)}")
            continue
        if not same:
            wrong.append(f"{row.name}: {STANDS['unlike']}")
        now, of = datetime.now(UTC), row.of
        told(KeySent(at=now, author=author, of=of, target=row.target, made=made[of], count=count, same=same))
    return wrong


def _without(words: str, key: str) -> str:
    """Return words without a key, or any of several codes, in case a controller says them back."""
    for part in key.split("\n"):
        words = words.replace(part, "(its key)")
    return words
