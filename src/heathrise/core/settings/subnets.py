"""Subnets as an installer writes them: read, compared, and the next one that is free."""

from __future__ import annotations

import ipaddress
from collections.abc import Sequence

Subnet = ipaddress.IPv4Network | ipaddress.IPv6Network


def parse_subnet(text: str) -> Subnet | None:
    """Return the subnet, or None where the text is not one.

    A host's address with its prefix, as routers show it, stands for its subnet; a single address
    is none.
    """
    if "/" not in text:
        return None
    try:
        return ipaddress.ip_network(text.strip(), strict=False)
    except ValueError:
        return None


def host_number(subnet: str, address: object) -> int | None:
    """Return which of a subnet's addresses one is, counted from its own, which is 0; None for what is none
    of them."""
    wide = parse_subnet(subnet)
    try:
        one = ipaddress.ip_address(str(address).strip())
    except ValueError:
        return None
    if wide is None or one not in wide:
        return None
    return int(one) - int(wide.network_address)


# RFC 1918 and, for IPv6, RFC 4193. Loopback, link-local, test and benchmark ranges are not for use.
_PRIVATE = tuple(map(ipaddress.ip_network, ("10.0.0.0/8", "172.16.0.0/12", "192.168.0.0/16", "fc00::/7")))


def is_private(subnet: Subnet) -> bool:
    """Return whether a whole subnet lies in a range meant for private networks."""
    return any(
        subnet.version == wide.version and subnet.subnet_of(wide)  # type: ignore[arg-type]
        for wide in _PRIVATE
    )


def overlap(one: Subnet, other: Subnet) -> bool:
    """Return whether two subnets share an address."""
    return one.version == other.version and one.overlaps(other)


def third_octet(subnet: Subnet) -> int | None:
    """Return the third octet of an IPv4 subnet, None for IPv6."""
    return subnet.network_address.packed[2] if subnet.version == 4 else None


def free_subnet(taken: Sequence[Subnet], wanted_octet: int, prefix: int = 24) -> Subnet | None:
    """Return a private subnet clear of all ``taken``: by VLAN number first, then by tens."""
    octets = [wanted_octet, *range(10, 250, 10), *range(1, 250)]
    for base in ("192.168.{}.0", "10.10.{}.0"):
        for octet in octets:
            if not 0 < octet < 255:
                continue
            subnet = ipaddress.IPv4Network(f"{base.format(octet)}/{prefix}", strict=False)
            if third_octet(subnet) == octet and not any(overlap(subnet, t) for t in taken):
                return subnet
    return None
