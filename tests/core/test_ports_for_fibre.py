"""Ports for fibre: cages before converters, none too slow; against every assignment there is."""

from __future__ import annotations

import itertools

from hypothesis import given
from hypothesis import strategies as st

from heathrise.core.catalogue import PortGroup, SwitchModel
from heathrise.core.ports import Demand, Shelf, UplinkPort, assign, fits

from ..thorough import examples

# What stands in the way of an assignment, each above all that lies below it for so few links.
_LEFT, _SLOWER, _CONVERTER, _WASTES_POWER, _WASTES_SPEED = 60_000, 300, 30, 20, 4
NO_WAYS: tuple[UplinkPort, ...] = ()


def _switch(key: str, *groups: PortGroup) -> Shelf:
    model = SwitchModel(id=key, label=key, groups=groups, budget_w=100.0, price=100.0)
    return Shelf(key, key.upper(), model)


def _ports(count: int, mbps: int = 1000, cage: bool = False, power: int | None = None) -> PortGroup:
    return PortGroup(count=count, speed_mbps=mbps, cage=cage, poe_class=power)


def _lit(key: str, mbps: int = 1000) -> Demand:
    return Demand(f"run-{key}", key, mbps, device=key, fibre=True)


def _copper(key: str, mbps: int = 1000) -> Demand:
    return Demand(f"run-{key}", key, mbps, device=key)


def test_fibre_goes_into_a_cage_and_copper_never_does() -> None:
    shelf = _switch("sw", _ports(2), _ports(2, cage=True))
    found = assign((_lit("a"), _copper("b"), _copper("c"), _copper("d")), (shelf,), kept=NO_WAYS)
    assert found.slots["run-a"].port > 2
    assert sorted(found.slots[f"run-{k}"].port for k in "bcd" if f"run-{k}" in found.slots) == [1, 2]
    assert list(found.left.values()) == ["no_ports"]


def test_fibre_goes_by_a_converter_where_no_cage_is_left() -> None:
    shelf = _switch("sw", _ports(2), _ports(1, cage=True))
    found = assign((_lit("a"), _lit("b")), (shelf,), kept=NO_WAYS)
    assert not found.left
    assert sorted(found.slots[f"run-{k}"].group for k in "ab") == [0, 1]


def test_a_cage_that_is_slower_than_the_light_takes_it_not() -> None:
    slow, fast = _ports(1, 1000, cage=True), _ports(1, 10_000, cage=True)
    ten = _lit("a", 2500)
    assert not fits(slow, ten) and fits(fast, ten) and fits(slow, _lit("b", 1000))
    found = assign((ten,), (_switch("sw", slow, _ports(1, 2500)),), kept=NO_WAYS)
    assert found.slots["run-a"].group == 1  # by a converter in copper


def _cost(demands: list[Demand], groups: list[PortGroup], at: tuple[int, ...]) -> float | None:
    """Return what an assignment costs, None where it cannot be; ``len(groups)`` is for no port."""
    for k, group in enumerate(groups):
        if at.count(k) > group.count:
            return None
    total = 0
    for demand, place in zip(demands, at, strict=True):
        if place == len(groups):
            total += _LEFT
            continue
        group = groups[place]
        if group.cage and not (demand.fibre and group.speed_mbps >= demand.speed_mbps):
            return None
        total += _SLOWER * (group.speed_mbps < demand.speed_mbps)
        total += _CONVERTER * (demand.fibre and not group.cage)
        total += _WASTES_POWER * (group.poe_class is not None)
        total += _WASTES_SPEED * (group.speed_mbps > demand.speed_mbps)
    return total


@given(
    kinds=st.lists(st.tuples(st.booleans(), st.sampled_from([100, 1000, 2500])), min_size=1, max_size=5),
    shapes=st.lists(
        st.tuples(
            st.integers(1, 3),
            st.sampled_from([1000, 2500, 10_000]),
            st.sampled_from(["plain", "cage", "power"]),
        ),
        min_size=1,
        max_size=3,
    ),
)
@examples(80)
def test_no_assignment_is_better_than_the_one_that_is_found(
    kinds: list[tuple[bool, int]], shapes: list[tuple[int, int, str]]
) -> None:
    demands = [_lit(f"d{k}", m) if lit else _copper(f"d{k}", m) for k, (lit, m) in enumerate(kinds)]
    groups = [_ports(n, m, what == "cage", 4 if what == "power" else None) for n, m, what in shapes]
    found = assign(tuple(demands), (_switch("sw", *groups),), kept=NO_WAYS)
    chosen = tuple(found.slots[d.id].group if d.id in found.slots else len(groups) for d in demands)
    costs = (
        _cost(demands, groups, at) for at in itertools.product(range(len(groups) + 1), repeat=len(demands))
    )
    assert found.proven
    assert _cost(demands, groups, chosen) == min(c for c in costs if c is not None)
