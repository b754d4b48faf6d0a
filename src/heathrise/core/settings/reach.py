"""Who may reach whom: by what networks are for, and as somebody said; and what of that should not be."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from ..catalogue import Catalogue
from ..context.findings import Cure, Finding, Place
from ..design import KIND_OF, Design, Element, Network, put
from .subnets import free_subnet, parse_subnet

_SOURCE = "RFC 1918 private addresses; IEEE 802.1Q"


def reaches(one: Network, other: Network) -> bool:
    """Return whether a host of ``one`` may open a connection to a host of ``other``.

    The main network reaches all others but the management's: that is for administrators' machines, which
    have a network of their own.
    """
    if one.id == other.id:
        return not one.client_isolation
    return other.id in one.reaches or (by_purpose(one, other) and other.id not in one.shut)


def by_purpose(one: Network, other: Network) -> bool:
    """Return whether a network reaches another because of what both are for."""
    if one.purpose == "administrators":
        return True
    return one.purpose == "main" and other.purpose not in ("management", "administrators")


def has_internet(network: Network) -> bool:
    """Return whether hosts of a network reach the internet: as somebody said, else by its purpose."""
    by_itself = network.purpose not in ("cameras", "management")
    return by_itself if network.internet is None else network.internet


def settings_finding(
    key: str, severity: str, text: str, rule: str, *elements: Element, **more: object
) -> Finding:
    places = tuple(Place(kind=KIND_OF[type(e)], id=e.id) for e in elements)
    fields = {"source": _SOURCE, **more}
    return Finding.model_validate(
        {
            "id": f"settings-{key}",
            "stage": "settings",
            "severity": severity,
            "text": text,
            "rule": rule,
            "places": places,
            **fields,
        }
    )


def reach_findings(design: Design, catalogue: Catalogue, networks: Sequence[Network]) -> Iterator[Finding]:
    """Yield each way that the trust of a network does not allow, then what is said of the internet."""
    by_id = design.of(Network)
    for network in networks:
        for key in network.reaches:
            other = by_id[key]
            kept = tuple(k for k in network.reaches if k != key)
            changed = put(network.model_copy(update={"reaches": kept}))
            severity = _forbidden(network, other)
            if severity is None:
                continue
            cures = [Cure(label=f"Keep {network.name} out of {other.name}", changes=(changed,))]
            if other.purpose == "management":
                cures += _administrators(design, catalogue, network, other)
            text = f"{network.name} may open connections to {other.name}."
            rule = (
                "cameras reach the recorder only"
                if network.purpose == "cameras"
                else "management is for administrators' machines only"
                if other.purpose == "management"
                else "devices reach the internet and answer, no more"
            )
            yield settings_finding(
                f"reach-{network.id}-{other.id}"[:100],
                severity,
                text,
                rule,
                network,
                other,
                cures=tuple(cures),
                source="practice",
            )
    yield from _internet(networks)


def _administrators(
    design: Design, catalogue: Catalogue, network: Network, management: Network
) -> Iterator[Cure]:
    """Offer a network for administrators' machines in place of a whole network that reaches management."""
    if any(n.purpose == "administrators" for n in design.of(Network).values()):
        return
    held = [*(n.subnet for n in design.of(Network).values()), design.site.upstream_subnet]
    taken = [subnet for subnet in map(parse_subnet, held) if subnet is not None]
    vlan = int(catalogue.rules["settings.offered_vlan.administrators"])
    subnet = free_subnet(taken, vlan)
    vlans, key = {n.vlan for n in design.of(Network).values()}, "net-administrators"
    if subnet is None or vlan in vlans or key in design.of(Network):
        return
    own = Network(
        id=key,
        name="Administrators",
        purpose="administrators",
        vlan=vlan,
        subnet=str(subnet),
        expected_clients=4,
    )
    kept = network.model_copy(update={"reaches": tuple(k for k in network.reaches if k != management.id)})
    effect = f"{network.name} is kept out; put the sockets of who looks after the site on it"
    yield Cure(
        label=f"A network for administrators, {subnet} on VLAN {vlan}",
        effect=effect,
        changes=(put(own), put(kept)),
    )


def _forbidden(network: Network, other: Network) -> str | None:
    if network.purpose in ("guest", "management", "administrators") or network.id == other.id:
        return None  # guests are told by their isolation
    if network.purpose == "cameras" or other.purpose == "management":
        return "not_met"
    return "near" if network.purpose == "devices" else None


def _internet(networks: Sequence[Network]) -> Iterator[Finding]:
    """Yield what reaches the internet and should not, and who is kept from it."""
    for network in networks:
        if network.internet is None:
            continue
        usual = has_internet(network.model_copy(update={"internet": None}))
        if usual == network.internet:
            continue
        changed = put(network.model_copy(update={"internet": None}))
        text = (
            f"{network.name} reaches the internet: what is in it can be reached from there, and calls home."
            if network.internet
            else f"{network.name} is kept from the internet, by hand."
        )
        yield settings_finding(
            f"internet-{network.id}",
            "near" if network.internet else "note",
            text,
            "cameras and management stay inside",
            network,
            cures=(Cure(label="Let its purpose say so", changes=(changed,)),),
            source="practice",
        )
