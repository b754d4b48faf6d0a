"""Findings about guests: pages that nobody passes or gear cannot read, vouchers for nobody, addresses."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator

from ..catalogue import Catalogue
from ..context.findings import Cure, Finding
from ..design import (
    MOST_TERMS,
    Change,
    ClientGroup,
    Design,
    Device,
    Network,
    Portal,
    VoucherSet,
    WirelessName,
    put,
    remove,
)
from .membership import ends_of
from .networks import lease_h_of
from .pools import given_out
from .portals import (
    Binds,
    VoucherSheet,
    addresses_for_each,
    hours_in_words,
    kept_said,
    law_rows,
    lease_that_fits,
    names_on,
    sets_of,
    shortest_h,
    terms_with,
    usual_terms,
    voucher_sheets,
)
from .reach import settings_finding
from .subnets import parse_subnet
from .usual import usual_page, usual_vouchers
from .vouchers import MOST_VOUCHERS

_PRACTICE = "practice"
_A_FEW = 20
_NO_PAGE = frozenset({"devices", "cameras", "management", "tills"})


def portal_findings(design: Design, catalogue: Catalogue) -> Iterator[Finding]:
    """Yield what is wrong with how guests come on."""
    yield from _open_names(design, catalogue)
    sheets = voucher_sheets(design, catalogue)
    for portal in design.of(Portal).values():
        network = design.of(Network)[portal.network]
        if network.purpose in _NO_PAGE:
            yield _on_gear(design, portal, network)
            continue
        yield from _page(design, catalogue, portal, network)
        yield from _blind(design, catalogue, portal, network)
        yield from _addresses(design, catalogue, portal, network)
        for sheet in sheets:
            if sheet.portal == portal.id:
                yield from _set(design, catalogue, network, sheet)


def _open_names(design: Design, catalogue: Catalogue) -> Iterator[Finding]:
    behind = {p.network for p in design.of(Portal).values()}
    for name in design.of(WirelessName).values():
        if name.security != "open_portal" or name.network in behind:
            continue
        network = design.of(Network)[name.network]
        keyed = put(name.model_copy(update={"security": "wpa3_wpa2"}))
        cures = [Cure(label=f"Ask for a key on {name.ssid}", effect="the page is gone", changes=(keyed,))]
        if network.purpose not in _NO_PAGE:
            page = usual_page(design, catalogue, network.id)
            cures.insert(0, Cure(label=f"Put a page before {network.name}", changes=page))
        yield settings_finding(
            f"portal-none-{name.id}",
            "not_met",
            f"{name.ssid} is open and no page is planned: anybody in reach is on {network.name}, "
            "and has agreed to nothing.",
            "an open name has a page before it",
            name,
            source=_PRACTICE,
            cures=tuple(cures),
        )


def _on_gear(design: Design, portal: Portal, network: Network) -> Finding:
    gone = (*(remove(v) for v in sets_of(design, portal.id)), remove(portal))
    return settings_finding(
        f"portal-gear-{portal.id}",
        "not_met",
        f"{network.name} is for {network.purpose}: what is on it cannot read a page, and so stays off.",
        "a page stands before people alone",
        portal,
        network,
        source=_PRACTICE,
        cures=(Cure(label=f"Take the page off {network.name}", changes=gone),),
    )


def _page(design: Design, catalogue: Catalogue, portal: Portal, network: Network) -> Iterator[Finding]:
    if not portal.terms.strip():
        terms = usual_terms(design.site.client_name, portal.kept_days)
        changed = put(portal.model_copy(update={"terms": terms}))
        yield settings_finding(
            f"portal-terms-{portal.id}",
            "near",
            f"The page before {network.name} has no terms, so that nobody agrees to any.",
            "guests agree to terms",
            portal,
            source=_PRACTICE,
            cures=(
                Cure(
                    label="Begin with plain terms",
                    effect="to be read by whoever advises the client",
                    changes=(changed,),
                ),
            ),
        )
    elif portal.kept_days is not None and kept_said(portal.kept_days) not in portal.terms:
        terms = terms_with(portal.terms, portal.kept_days)
        changed = put(portal.model_copy(update={"terms": terms}))
        cure = Cure(label="Have the terms say so", changes=(changed,))
        yield settings_finding(
            f"portal-told-{portal.id}",
            "near",
            f"The terms of {network.name} do not say what is kept: {kept_said(portal.kept_days)}",
            "a guest is told what is kept of him",
            portal,
            source=_PRACTICE,
            cures=(cure,) if len(terms) <= MOST_TERMS else (),
        )
    open_rows = [row for row in law_rows(design, portal) if not row.answer]
    if open_rows or portal.kept_days is None:
        asked = [row.asks for row in open_rows]
        what = f"of what local law may ask, {len(asked)} are open: {asked[0]}" if asked else ""
        kept = "how long it is kept who was on is not said" if portal.kept_days is None else ""
        yield settings_finding(
            f"portal-law-{portal.id}",
            "note",
            f"{network.name}: {'; '.join(filter(None, (kept, what)))}",
            "what local law asks of a network for guests is asked of who knows it",
            portal,
            source=_PRACTICE,
        )
    if portal.way == "register" and not portal.asks:
        changed = put(portal.model_copy(update={"asks": ("name",)}))
        yield settings_finding(
            f"portal-asks-{portal.id}",
            "near",
            f"The page before {network.name} asks who one is, and for nothing by which to tell.",
            "whoever is asked who he is is asked for something",
            portal,
            source=_PRACTICE,
            cures=(Cure(label="Ask for a name", changes=(changed,)),),
        )
    sets = sets_of(design, portal.id)
    if portal.way == "voucher" and not sets:
        usual = usual_vouchers(design, catalogue, portal.id)
        yield settings_finding(
            f"portal-vouchers-{portal.id}",
            "not_met",
            f"The page before {network.name} asks for the code of a voucher, and there are none.",
            "who is asked for a code has one",
            portal,
            source=_PRACTICE,
            cures=(Cure(label="Plan the vouchers", changes=(put(usual),)),),
        )
    if portal.way != "voucher" and sets:
        changed = put(portal.model_copy(update={"way": "voucher"}))
        yield settings_finding(
            f"portal-spare-{portal.id}",
            "near",
            f"There are vouchers for {network.name}, whose page asks for none.",
            "who has a code is asked for it",
            portal,
            *sets,
            source=_PRACTICE,
            cures=(Cure(label="Ask for a code", changes=(changed,)),),
        )


def _blind(design: Design, catalogue: Catalogue, portal: Portal, network: Network) -> Iterator[Finding]:
    """Yield gear that cannot read a page and meets one: by cable, and on the air."""
    ends = ends_of(design, catalogue)
    wired: list[str] = []
    for (device, cable), kind in ends.wired_clients.items():
        outlet = design.of(Device)[device]
        if not catalogue.clients[kind].page and ends.of_link(outlet, cable)[0] == network:
            wired.append(f"{catalogue.clients[kind].label.lower()} at {outlet.name}")
    for outlet in design.of(Device).values():
        role = catalogue.role_of(outlet)
        if role.links != "every_cable" and not role.passes_on and ends.of_link(outlet)[0] == network:
            wired.append(outlet.name)
    found = [*wired, *_loose(design, catalogue, network)]
    if not found:
        return
    more = f" and {len(found) - 4} more" if len(found) > 4 else ""
    yield settings_finding(
        f"portal-blind-{portal.id}",
        "near",
        f"{', '.join(found[:4])}{more}: on {network.name} it would meet a page that it cannot read.",
        "what has no page to press is on a network without one",
        portal,
        network,
        figure=len(found),
        limit=0,
        unit="kinds of gear",
        source=_PRACTICE,
    )


def _loose(design: Design, catalogue: Catalogue, network: Network) -> list[str]:
    """Return what is on the air and cannot read a page, and belongs on this network, or on one that has no
    name on the air."""
    ends, counts = ends_of(design, catalogue), Counter[str]()
    named = {n.network for n in design.of(WirelessName).values()}
    for group in design.of(ClientGroup).values():
        client = catalogue.clients[group.kind]
        if client.page or not client.power_dbm or group.count <= group.wired:
            continue
        home = ends.of_purpose(client.network)
        if home is None or home == network or home.id not in named:
            counts[client.label.lower()] += group.count - group.wired
    return [f"{label} ({count} on the air)" for label, count in counts.items()]


def _addresses(design: Design, catalogue: Catalogue, portal: Portal, network: Network) -> Iterator[Finding]:
    subnet, rules = parse_subnet(network.subnet), catalogue.rules
    if subnet is None or not network.expected_clients:
        return
    hours, lease = shortest_h(design, portal), lease_h_of(rules, network)
    each, gives = addresses_for_each(hours, lease), given_out(rules, network, subnet)
    needed = each * network.expected_clients
    if needed <= gives:
        return
    fits = lease_that_fits(hours, lease, gives / network.expected_clients)
    cures: tuple[Cure, ...] = ()
    if fits is not None:
        changed = put(network.model_copy(update={"lease_h": fits}))
        effect = f"then {addresses_for_each(hours, fits) * network.expected_clients} at the most"
        cures = (Cure(label=f"Lease for {hours_in_words(fits)}", effect=effect, changes=(changed,)),)
    yield settings_finding(
        f"portal-addresses-{portal.id}",
        "near",
        f"{network.name}: a guest is on for {hours_in_words(hours)} and his address stays taken, leased for "
        f"{hours_in_words(lease)}: {network.expected_clients} places with one guest after the other take "
        f"{needed} addresses, and {gives} are given out.",
        "an address is free again when the next guest comes",
        network,
        portal,
        figure=gives,
        limit=needed,
        unit="addresses",
        source="RFC 2131",
        cures=cures,
    )


def _set(design: Design, catalogue: Catalogue, network: Network, sheet: VoucherSheet) -> Iterator[Finding]:
    one = design.of(VoucherSet)[sheet.id]
    if one.rooms and not sheet.total:
        changed = put(one.model_copy(update={"rooms": False, "number": max(one.number, _A_FEW)}))
        yield settings_finding(
            f"portal-rooms-{one.id}",
            "not_met",
            f"{one.name}: a voucher for each guest room, and no room is called one.",
            "vouchers are for somebody",
            one,
            source=_PRACTICE,
            cures=(Cure(label="A number of them instead", changes=(changed,)),),
        )
    if sheet.wanted > sheet.total:
        yield settings_finding(
            f"portal-many-{one.id}",
            "not_met",
            f"{one.name}: {sheet.wanted} vouchers, of which {MOST_VOUCHERS:,} are made.",
            "a set is printed and handed out by hand",
            one,
            figure=sheet.wanted,
            limit=MOST_VOUCHERS,
            unit="vouchers",
            source=_PRACTICE,
        )
    if sheet.rooms and sheet.at_once > network.expected_clients:
        changed = put(network.model_copy(update={"expected_clients": min(5000, sheet.at_once)}))
        yield settings_finding(
            f"portal-places-{one.id}",
            "near",
            f"{one.name}: {sheet.total} vouchers for {one.devices} devices each let {sheet.at_once} on "
            f"{network.name} at once, which is planned for {network.expected_clients}.",
            "a network is planned for whom it lets on",
            one,
            network,
            figure=network.expected_clients,
            limit=sheet.at_once,
            unit="clients",
            source=_PRACTICE,
            cures=(Cure(label=f"Expect {sheet.at_once} clients", changes=(changed,)),),
        )
    call = catalogue.clients["phone"]
    if sheet.limit_mbps is not None and sheet.limit_mbps < call.down_mbps:
        whose = _WHOSE[sheet.limit_by]
        yield settings_finding(
            f"portal-slow-{one.id}",
            "near",
            f"{one.name}: {sheet.limit_mbps:g} Mb/s for a client by {whose}; a call with picture asks for "
            f"{call.down_mbps:g}.",
            "what is paid for carries a call",
            one,
            *(names_on(design, network.id) if sheet.limit_by == "name" else ()),
            figure=sheet.limit_mbps,
            limit=call.down_mbps,
            unit="Mb/s",
            source=_PRACTICE,
            cures=_faster(design, one, network, call.down_mbps),
        )


_WHOSE: dict[Binds, str] = {
    "vouchers": "its own limit",
    "name": "that of the name on the air",
    "network": "that of all the network together",
    "line": "the line",
}


def _faster(design: Design, one: VoucherSet, network: Network, mbps: float) -> tuple[Cure, ...]:
    """Offer that vouchers and the names that they are for let a call through."""
    changes: list[Change] = []
    if one.limit_mbps is not None and one.limit_mbps < mbps:
        changes.append(put(one.model_copy(update={"limit_mbps": mbps})))
    for name in names_on(design, network.id):
        if name.limit_mbps is not None and name.limit_mbps < mbps:
            changes.append(put(name.model_copy(update={"limit_mbps": mbps})))
    if network.limit_all_mbps is not None and network.limit_all_mbps < mbps:
        changes.append(put(network.model_copy(update={"limit_all_mbps": mbps})))
    if not changes or design.site.line_mbps < mbps:
        return ()
    return (Cure(label=f"Let {mbps:g} Mb/s through", changes=tuple(changes)),)
