"""Networks, their numbering and who may reach whom."""

from __future__ import annotations

import math
from collections.abc import Iterable, Iterator, Sequence
from typing import ClassVar, Literal

from pydantic import Field

from ..base.frozen import Frozen
from ..catalogue import Catalogue, Rules
from ..context.findings import Cure, Finding
from ..design import MOST_HOSTS, Design, Network, Purpose, WirelessName, put
from .name_findings import name_findings
from .pools import given_out, pool_findings, pool_of
from .reach import by_purpose, has_internet, reach_findings, reaches, settings_finding
from .subnets import Subnet, free_subnet, is_private, overlap, parse_subnet, third_octet
from .usual import usual_networks

Tone = Literal["heather", "tarn", "gorse", "rust", "moss", "granite", "ink"]
_TONES: dict[Purpose, Tone] = {
    "main": "heather",
    "staff": "heather",
    "pupils": "tarn",
    "tills": "tarn",
    "guest": "gorse",
    "devices": "moss",
    "cameras": "rust",
    "management": "granite",
    "administrators": "ink",
}


def lane_tones(networks: Iterable[Network]) -> dict[str, Tone]:
    """Return the colour of each network's lane, the same on screen, plan and paper: that of its purpose
    where no other has it, else the first that is free."""
    found: dict[str, Tone] = {}
    for network in networks:
        own = _TONES[network.purpose]
        free = [t for t in dict.fromkeys([own, *_TONES.values()]) if t not in found.values()]
        found[network.id] = free[0] if free else own
    return found


class NetworkSheet(Frozen):
    """One network as the controller will hold it."""

    KEY: ClassVar = ("id",)

    id: str
    name: str
    purpose: str
    vlan: int
    subnet: str
    gateway: str
    pool_first: str
    pool_last: str
    pool: tuple[int, int] | None = Field(None, description="the same by their numbers in the subnet")
    lease_hours: int
    limit_all_mbps: float | None = Field(None, description="what all of it together gets at most, Mb/s")
    client_isolation: bool
    internet: bool
    reaches: tuple[str, ...]
    by_purpose: tuple[str, ...] = Field((), description="what its purpose reaches, whatever was said")
    reason: str
    tone: Tone = Field("heather", description="colour of its lane")


def network_sheet(design: Design, rules: Rules, network: Network) -> NetworkSheet:
    """Return a network with its pool, lease and reach worked out."""
    subnet = parse_subnet(network.subnet)
    gateway = first = last = ""
    pool: range | None = None
    if subnet is not None and subnet.num_addresses >= 8:
        gateway = str(subnet[1])
        pool = pool_of(rules, network, subnet)
        first, last = str(subnet[pool[0]]), str(subnet[pool[-1]])
    numbered = third_octet(subnet) == network.vlan if subnet else False
    return NetworkSheet(
        id=network.id,
        name=network.name,
        purpose=network.purpose,
        vlan=network.vlan,
        subnet=str(subnet) if subnet is not None else network.subnet,
        gateway=gateway,
        pool_first=first,
        pool_last=last,
        pool=(pool[0], pool[-1]) if pool is not None and pool[-1] <= MOST_HOSTS else None,
        lease_hours=lease_h_of(rules, network),
        limit_all_mbps=network.limit_all_mbps,
        client_isolation=network.client_isolation,
        internet=has_internet(network),
        reaches=tuple(n.id for n in design.of(Network).values() if reaches(network, n)),
        by_purpose=tuple(n.id for n in design.of(Network).values() if by_purpose(network, n)),
        reason="VLAN equals the third octet" if numbered else "numbered by hand",
        tone=lane_tones(design.of(Network).values())[network.id],
    )


def lease_h_of(rules: Rules, network: Network) -> int:
    """Return for how many hours an address of a network is given out: as said, else by its purpose."""
    return int(rules[f"settings.lease_h.{network.purpose}"]) if network.lease_h is None else network.lease_h


def network_findings(design: Design, catalogue: Catalogue) -> Iterator[Finding]:
    """Yield what is wrong with the networks and wireless names."""
    rules = catalogue.rules
    networks = list(design.of(Network).values())
    if not networks:
        yield settings_finding(
            "networks",
            "note",
            "No networks are planned yet.",
            "a network for each trust",
            cures=() if design.of(WirelessName) else usual_networks(design, catalogue),
        )
        return
    upstream = parse_subnet(design.site.upstream_subnet)
    if upstream is None:
        text = (
            f"The upstream subnet {design.site.upstream_subnet!r} is not one such as "
            "192.168.1.0/24, so nothing is compared with it."
        )
        rule = "no subnet overlaps the upstream router's"
        yield settings_finding("upstream-unread", "near", text, rule)
    parsed = {n.id: parse_subnet(n.subnet) for n in networks}
    for network in networks:
        yield from _numbering(design, rules, network, parsed, upstream)
    yield from _vlans(networks)
    yield from _isolation(design, networks)
    yield from _limits(design, catalogue, networks)
    yield from reach_findings(design, catalogue, networks)
    yield from name_findings(design, catalogue)


def _numbering(
    design: Design, rules: Rules, network: Network, parsed: dict[str, Subnet | None], upstream: Subnet | None
) -> Iterator[Finding]:
    subnet = parsed[network.id]
    others = [s for k, s in parsed.items() if k != network.id and s is not None]
    taken = [*others, *([upstream] if upstream else [])]
    cure = _renumber(design, network, taken)
    if subnet is None:
        text = f"{network.name}: {network.subnet!r} is not a subnet such as 192.168.10.0/24."
        yield settings_finding(f"subnet-{network.id}", "not_met", text, "a valid subnet", network, cures=cure)
        return
    if not is_private(subnet):
        text = f"{network.name}: {subnet} is not a private subnet (10/8, 172.16/12, 192.168/16)."
        yield settings_finding(
            f"public-{network.id}", "not_met", text, "private subnets", network, cures=cure
        )
    if upstream is not None and overlap(subnet, upstream):
        text = (
            f"{network.name}: {subnet} overlaps the upstream router's {upstream}. "
            "A router behind one with the same subnet gets no address."
        )
        rule = "no subnet overlaps the upstream router's"
        yield settings_finding(f"upstream-{network.id}", "not_met", text, rule, network, cures=cure)
    for other in design.of(Network).values():
        theirs = parsed[other.id]
        if other.id > network.id and theirs is not None and overlap(subnet, theirs):
            text = f"{network.name} and {other.name} overlap: {subnet} and {theirs}."
            key = f"overlap-{network.id}-{other.id}"
            yield settings_finding(key, "not_met", text, "no two subnets overlap", network, other, cures=cure)
    yield from pool_findings(rules, network, subnet)
    needed = math.ceil(rules["settings.clients_factor"] * network.expected_clients)
    hosts = given_out(rules, network, subnet)
    if hosts < needed:
        text = f"{network.name}: {subnet} gives out {hosts} addresses; its clients want {needed}."
        yield settings_finding(
            f"size-{network.id}",
            "near",
            text,
            "addresses for more than the expected clients",
            network,
            used=rules.used("settings.clients_factor", "settings.fixed_addresses"),
            figure=hosts,
            limit=needed,
            unit="addresses",
            cures=_larger(rules, network, subnet, taken, needed),
        )
    widest = int(rules["settings.widest_prefix"])
    if subnet.version == 4 and subnet.prefixlen < widest and is_private(subnet):
        text = (
            f"{network.name}: {subnet} takes {subnet.num_addresses:,} addresses. What lies in it elsewhere, "
            "another site or a way in from afar, is looked for here and not found."
        )
        used, rule = rules.used("settings.widest_prefix"), "no wider than a site can use"
        key = f"wide-{network.id}"
        yield settings_finding(key, "near", text, rule, network, used=used, cures=cure)
    if rules.text("settings.vlan_by") != "octet":
        return
    if third_octet(subnet) not in (network.vlan, None) and 0 < network.vlan < 255:
        text = f"{network.name}: VLAN {network.vlan} on {subnet}; the third octet would say which."
        yield settings_finding(
            f"octet-{network.id}",
            "note",
            text,
            "VLAN number equal to the third octet",
            network,
            source="house rule; the other school numbers freely",
            cures=cure,
        )


def _larger(
    rules: Rules, network: Network, subnet: Subnet, taken: Sequence[Subnet], needed: int
) -> tuple[Cure, ...]:
    """Offer the smallest subnet round the same addresses that gives out enough, if it is free."""
    network = network.model_copy(update={"pool_last": None})
    for prefix in range(subnet.prefixlen - 1, 15, -1):
        wide = subnet.supernet(new_prefix=prefix)
        if given_out(rules, network, wide) < needed:
            continue
        if not is_private(wide) or any(overlap(wide, t) for t in taken):
            return ()
        changed = put(network.model_copy(update={"subnet": str(wide)}))
        effect = f"gives out {given_out(rules, network, wide)} addresses"
        return (Cure(label=f"Widen to {wide}", effect=effect, changes=(changed,)),)
    return ()


def _renumber(design: Design, network: Network, taken: Sequence[Subnet]) -> tuple[Cure, ...]:
    subnet = free_subnet(taken, network.vlan)
    if subnet is None or str(subnet) == network.subnet:
        return ()
    octet = third_octet(subnet) or network.vlan
    vlans = {n.vlan for n in design.of(Network).values() if n.id != network.id}
    vlan = octet if octet not in vlans else network.vlan
    changed = network.model_copy(update={"subnet": str(subnet), "vlan": vlan})
    effect = "clear of every other subnet and the upstream router's"
    label = f"Use {subnet} on VLAN {vlan}"
    return (Cure(label=label, effect=effect, changes=(put(changed),)),)


def _vlans(networks: Iterable[Network]) -> Iterator[Finding]:
    seen: dict[int, Network] = {}
    for network in networks:
        other = seen.setdefault(network.vlan, network)
        if other is not network:
            text = f"{other.name} and {network.name} share VLAN {network.vlan}: they are one network."
            key = f"vlan-{other.id}-{network.id}"
            yield settings_finding(key, "not_met", text, "one VLAN for each network", other, network)


def _limits(design: Design, catalogue: Catalogue, networks: Sequence[Network]) -> Iterator[Finding]:
    """Yield limits for all of a network that carry no single call, and those that never bind."""
    call, line = catalogue.clients["phone"].down_mbps, design.site.line_mbps
    for network in networks:
        limit = network.limit_all_mbps
        if limit is None:
            continue
        off = put(network.model_copy(update={"limit_all_mbps": None}))
        if limit >= line:
            yield settings_finding(
                f"limit-{network.id}",
                "note",
                f"{network.name}: {limit:g} Mb/s for all of it never binds, the line gives {line:g}.",
                "a limit below what the line gives",
                network,
                cures=(Cure(label="Take the limit away", changes=(off,)),),
            )
        elif limit < call:
            enough = put(network.model_copy(update={"limit_all_mbps": call}))
            whole = f"Let {call:g} Mb/s through"
            yield settings_finding(
                f"limit-{network.id}",
                "near",
                f"{network.name}: {limit:g} Mb/s for all of it together; one call with picture asks for "
                f"{call:g}.",
                "a network carries one call",
                network,
                figure=limit,
                limit=call,
                unit="Mb/s",
                source="practice",
                cures=(Cure(label=whole, changes=(enough,)),) if call < line else (),
            )


def _isolation(design: Design, networks: Sequence[Network]) -> Iterator[Finding]:
    for network in networks:
        if network.purpose != "guest":
            continue
        if not network.client_isolation or network.reaches:
            text = f"{network.name}: guests can reach "
            text += "other networks." if network.reaches else "one another."
            changed = network.model_copy(update={"client_isolation": True, "reaches": ()})
            cure = Cure(label="Isolate the guests", changes=(put(changed),))
            rule = "guests reach the internet only, and not each other"
            yield settings_finding(
                f"guest-{network.id}", "not_met", text, rule, network, cures=(cure,), source="practice"
            )
    by_id = {n.id: n for n in networks}
    for name in design.of(WirelessName).values():
        if by_id[name.network].purpose == "guest" and not name.client_isolation:
            changed_name = name.model_copy(update={"client_isolation": True})
            cure = Cure(label="Turn client isolation on", changes=(put(changed_name),))
            text = f"{name.ssid}: guests on it can reach one another over the air."
            yield settings_finding(
                f"guest-name-{name.id}",
                "not_met",
                text,
                "guests do not reach each other",
                name,
                cures=(cure,),
                source="practice",
            )
