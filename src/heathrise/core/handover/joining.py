"""How to join: what a code to be scanned holds, with a key only where one is handed over."""

from __future__ import annotations

from collections.abc import Iterable, Mapping

from pydantic import Field

from ..base.frozen import Frozen
from ..catalogue import Catalogue
from ..context.on_air import broadcasts
from ..design import KEYED, Design, Network, Portal, PortalWay, Purpose, Security, WirelessName

# Names of these purposes are for gear that is set up once, not for people.
_GEAR: frozenset[Purpose] = frozenset({"devices", "cameras", "management"})
_WORDS: dict[Security, str] = {
    "wpa3": "WPA3, asks for its key",
    "wpa3_wpa2": "WPA3 or WPA2, asks for its key",
    "wpa2": "WPA2, asks for its key",
    "enterprise": "asks for a person's own name and password",
    "open_portal": "open",
}
_PAGES: dict[PortalWay, str] = {
    "agree": "with a page to agree to",
    "register": "with a page that asks who one is",
    "voucher": "with a page that asks for the code of a voucher",
}
_QUOTED = str.maketrans({c: f"\\{c}" for c in '\\;,:"'})


class Join(Frozen):
    """One wireless name and how one joins it."""

    id: str
    name: str = Field(description="id of the name that it is on the air for, whose key it has")
    ssid: str
    network: str
    purpose: Purpose
    people: bool = Field(description="whether people join it, not gear that is set up once")
    how: str
    code: str = Field(description="what a code to be scanned holds; empty where none can help")
    wants_key: bool


def joins_of(design: Design, catalogue: Catalogue, keys: Mapping[str, str] | None = None) -> list[Join]:
    """Return the wireless names, those for people first.

    Args:
        keys: keys by the id of their name, for a sealed copy; without one its code has none.
    """
    networks, on_air = design.of(Network), broadcasts(design, catalogue)
    pages = {p.network: f", {_PAGES[p.way]}" for p in design.of(Portal).values()}
    found = [
        Join(
            id=part.id,
            name=name.id,
            ssid=part.ssid,
            network=networks[name.network].name,
            purpose=networks[name.network].purpose,
            people=networks[name.network].purpose not in _GEAR,
            how=f"{_WORDS[name.security]}{pages.get(name.network, '')}",
            code=wifi_code(part.ssid, name.security, (keys or {}).get(name.id, "")),
            wants_key=name.security in KEYED,
        )
        for name in design.of(WirelessName).values()
        for part in on_air[name.id]
    ]
    return sorted(found, key=lambda j: not j.people)


def wifi_code(ssid: str, security: Security, key: str = "") -> str:
    """Return the text of a code that joins a wireless name (the form of the WPA3 specification,
    section 7); empty for names that a code does not help to join."""
    if security == "enterprise":
        return ""
    name = ssid.translate(_QUOTED)
    if security == "open_portal":
        return f"WIFI:S:{name};;"
    only_wpa3 = "R:1;" if security == "wpa3" else ""
    secret = f"P:{key.translate(_QUOTED)};" if key else ""
    return f"WIFI:T:WPA;{only_wpa3}S:{name};{secret};"


class Reach(Frozen):
    """What those on one network reach, in words."""

    network: str
    vlan: int
    says: str


def reach_of(rows: Iterable[tuple[str, int, bool, bool, tuple[str, ...]]]) -> list[Reach]:
    """Return who reaches what.

    Args:
        rows: of each network its name, VLAN, whether it reaches the internet, whether its own
            clients are kept apart, and the names of the others it reaches.
    """
    found = []
    for name, vlan, internet, apart, others in rows:
        parts = (["the internet"] if internet else []) + list(others)
        says = _listed(parts) if parts else "nothing beyond itself"
        within = "; its own clients do not see one another" if apart else ""
        found.append(Reach(network=name, vlan=vlan, says=f"{says}{within}"))
    return found


def _listed(parts: list[str]) -> str:
    return parts[0] if len(parts) == 1 else f"{', '.join(parts[:-1])} and {parts[-1]}"
