"""The networks and wireless names that a kind of site usually has, and the page before its guests."""

from __future__ import annotations

from ..catalogue import Catalogue, UsualVouchers
from ..context.findings import Cure
from ..design import Change, Design, Network, Portal, VoucherSet, WirelessName, free_number, put
from .portals import guest_rooms, usual_terms
from .subnets import Subnet, free_subnet, parse_subnet

_ANY = UsualVouchers(name="Vouchers", number=20, hours=24, devices=2)


def usual_networks(design: Design, catalogue: Catalogue) -> tuple[Cure, ...]:
    """Return one cure that plans all usual networks of the site's kind, clear of the upstream."""
    rules, kind = catalogue.rules, design.site.kind
    words = catalogue.site_kinds[kind].label.split(" or ")[0].lower()
    upstream = parse_subnet(design.site.upstream_subnet)
    taken: list[Subnet] = [upstream] if upstream is not None else []
    changes: list[Change] = []
    rows = catalogue.usual_networks[kind]
    guests = catalogue.site_kinds[kind].guests
    for row in rows:
        vlan = int(rules[f"settings.offered_vlan.{row.purpose}"])
        subnet = free_subnet(taken, vlan)
        if subnet is None:
            return ()
        taken.append(subnet)
        key, guest = f"net-{row.purpose}", row.purpose == "guest"
        network = Network(
            id=key,
            name=row.name,
            purpose=row.purpose,
            vlan=vlan,
            subnet=str(subnet),
            expected_clients=row.clients,
            client_isolation=guest,
        )
        changes.append(put(network))
        if row.bands:
            paged = guest and guests.open
            name = WirelessName(
                id=f"ssid-{row.purpose}",
                network=key,
                ssid=row.name,
                bands=row.bands,
                client_isolation=guest,
                security="open_portal" if paged else "wpa3_wpa2",
            )
            changes.append(put(name))
            changes += usual_page(design, catalogue, key) if paged else ()
    names = ", ".join(row.name for row in rows)
    label = f"Plan the usual networks of {_with_article(words)}"
    effect = f"{names}; each with its VLAN and subnet, names on the air where clients join"
    return (Cure(label=label, effect=effect, changes=tuple(changes)),)


def _with_article(noun: str) -> str:
    return f"{'an' if noun[0] in 'aeiou' else 'a'} {noun}"


def usual_page(design: Design, catalogue: Catalogue, network: str) -> tuple[Change, ...]:
    """Return the changes that put the page of the site's kind before a network, with its vouchers."""
    usual = catalogue.site_kinds[design.site.kind].guests
    key = f"portal-{free_number(design.of(Portal), 'portal')}"
    asks = ("name",) if usual.way == "register" else ()
    terms = usual_terms(design.site.client_name, None)
    page = Portal(id=key, network=network, way=usual.way, session_h=usual.session_h, asks=asks, terms=terms)
    changes: list[Change] = [put(page)]
    if usual.way == "voucher":
        changes.append(put(usual_vouchers(design, catalogue, key)))
    return tuple(changes)


def usual_vouchers(design: Design, catalogue: Catalogue, portal: str) -> VoucherSet:
    """Return the vouchers that a site of this kind usually has."""
    usual = catalogue.site_kinds[design.site.kind].guests.vouchers or _ANY
    if usual.rooms and not guest_rooms(design, catalogue):
        usual = usual.model_copy(update={"rooms": False, "number": _ANY.number})
    key = f"vouchers-{free_number(design.of(VoucherSet), 'vouchers')}"
    return VoucherSet(id=key, portal=portal, **usual.model_dump())
