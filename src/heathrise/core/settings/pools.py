"""Which addresses of a subnet a network gives out: by the house rules, or as somebody said."""

from __future__ import annotations

from collections.abc import Iterator

from ..catalogue import Rules
from ..context.findings import Cure, Finding
from ..design import Network, put
from .reach import settings_finding
from .subnets import Subnet


def pool_of(rules: Rules, network: Network, subnet: Subnet) -> range:
    """Return which addresses of a subnet are given out, by their numbers in it: as somebody said where that
    fits, else all above those that are kept for gear of its own."""
    by_rule = _by_rule(rules, subnet)
    return by_rule if _misfit(network, subnet, by_rule) else _said_pool(network, by_rule)


def _by_rule(rules: Rules, subnet: Subnet) -> range:
    """Return the pool by the house rules: what is kept, the gateway among it, lies below."""
    if subnet.num_addresses < 8:
        return range(2, max(2, subnet.num_addresses - 1))
    kept = min(int(rules["settings.fixed_addresses"]), subnet.num_addresses // 4)
    return range(kept + 1, subnet.num_addresses - 1)


def _said_pool(network: Network, by_rule: range) -> range:
    first = network.pool_first if network.pool_first is not None else by_rule.start
    last = network.pool_last if network.pool_last is not None else by_rule.stop - 1
    return range(first, last + 1)


def _misfit(network: Network, subnet: Subnet, by_rule: range) -> str:
    """Return why a pool that somebody said does not fit its subnet, nothing where it does."""
    said = _said_pool(network, by_rule)
    if not said:
        return f"begins at {said.start} and ends at {said.stop - 1}"
    if said.stop > subnet.num_addresses - 1:
        most = subnet.num_addresses - 2
        return f"ends at {said.stop - 1}, and the last address of {subnet} for a host is {most}"
    return ""


def given_out(rules: Rules, network: Network, subnet: Subnet) -> int:
    """Return how many addresses a network gives out on a subnet."""
    pool = pool_of(rules, network, subnet)
    return max(0, pool.stop - pool.start)  # of IPv6 more than len() can say


def pool_findings(rules: Rules, network: Network, subnet: Subnet) -> Iterator[Finding]:
    """Yield that a pool by hand does not fit, so that the one by the house rules is given out."""
    by_rule = _by_rule(rules, subnet)
    if not (why := _misfit(network, subnet, by_rule)):
        return
    changed = put(network.model_copy(update={"pool_first": None, "pool_last": None}))
    effect = f"{subnet[by_rule[0]]} to {subnet[by_rule[-1]]}" if by_rule else "nothing"
    yield settings_finding(
        f"pool-{network.id}",
        "not_met",
        f"{network.name}: its pool {why}. What is planned gives out {effect} in its place.",
        "a pool lies within its subnet, above the gateway",
        network,
        cures=(Cure(label="Have the pool by rule", effect=effect, changes=(changed,)),),
    )
