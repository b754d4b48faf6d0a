"""The networks and wireless names that a kind of site usually has, as a first offer."""

from __future__ import annotations

from ..catalogue import Catalogue
from ..context.findings import Cure
from ..design import Change, Design, Network, WirelessName, put
from .subnets import Subnet, free_subnet, parse_subnet


def usual_networks(design: Design, catalogue: Catalogue) -> tuple[Cure, ...]:
    """Return one cure that plans all usual networks of the site's kind, clear of the upstream."""
    rules, kind = catalogue.rules, design.site.kind
    words = catalogue.site_kinds[kind].label.split(" or ")[0].lower()
    upstream = parse_subnet(design.site.upstream_subnet)
    taken: list[Subnet] = [upstream] if upstream is not None else []
    changes: list[Change] = []
    rows = catalogue.usual_networks[kind]
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
            name = WirelessName(
                id=f"ssid-{row.purpose}", network=key, ssid=row.name, bands=row.bands, client_isolation=guest
            )
            changes.append(put(name))
    names = ", ".join(row.name for row in rows)
    label = f"Plan the usual networks of {_with_article(words)}"
    effect = f"{names}; each with its VLAN and subnet, names on the air where clients join"
    return (Cure(label=label, effect=effect, changes=tuple(changes)),)


def _with_article(noun: str) -> str:
    return f"{'an' if noun[0] in 'aeiou' else 'a'} {noun}"
