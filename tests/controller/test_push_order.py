"""What differs, in what order it is sent, whom that cuts off: against plain counts and the simulated site."""

from __future__ import annotations

from typing import Any

from hypothesis import given
from hypothesis import strategies as st

from heathrise.core.controlled import Differs, Managed, Tree, differences, normal, push_steps, same
from heathrise.standins.controller.gear import Planted
from heathrise.standins.controller.site import SimulatedSite

from ..thorough import examples

_VALUE = st.sampled_from([None, "", (), True, False, 0, 1, 20, 20.0, 1.5, "20", (20,), (20.0,), ("a", "b")])
_TARGETS = ("site", "network/main", "network/guest", "name/main", "device/sw", "device/ap")
_HELD = st.dictionaries(st.sampled_from(_TARGETS), st.dictionaries(st.sampled_from("abc"), _VALUE))


def _plain(value: Any) -> str:
    """A value as JSON would have it back, in words: nothing, empty and not there are one."""
    if value is None or value in ("", ()):
        return "nothing"
    if isinstance(value, tuple):
        return "list " + " ".join(_plain(v) for v in value)
    if isinstance(value, bool):
        return f"switch {value}"
    return f"text {value}" if isinstance(value, str) else f"number {value:.6f}"


@examples(200)
@given(_VALUE, _VALUE)
def test_two_values_are_one_where_json_cannot_tell_them_apart(a: Any, b: Any) -> None:
    assert same(a, b) == (_plain(a) == _plain(b))
    assert same(normal(a), a)


@examples(100)
@given(_HELD, _HELD)
def test_differences_are_all_that_is_not_alike_each_once(
    held: dict[str, Any], wanted: dict[str, Any]
) -> None:
    found = list(differences(held, wanted))
    keys = {(t, k) for side in (held, wanted) for t, values in side.items() for k in values}
    unlike = {(t, k) for t, k in keys if _plain(held.get(t, {}).get(k)) != _plain(wanted.get(t, {}).get(k))}
    assert [(d.target, d.key) for d in found] == list(dict.fromkeys((d.target, d.key) for d in found))
    assert {(d.target, d.key) for d in found} == unlike
    put: dict[str, dict[str, Any]] = {t: dict(v) for t, v in held.items()}
    for row in found:
        put.setdefault(row.target, {})[row.key] = row.wanted
    assert not list(differences(put, wanted))


@st.composite
def trees(draw: st.DrawFn) -> tuple[Tree, dict[str, dict[str, Any]]]:
    """A tree of up to nine switches and devices, and how their ports are set."""
    rows: dict[str, Managed] = {}
    for k in range(draw(st.integers(1, 9))):
        key = f"d{k}"
        parent = f"d{draw(st.integers(0, k - 1))}" if k else None
        rows[key] = Managed(
            id=key,
            name=key.upper(),
            model="m",
            kind="switch",
            managed=k == 0 or draw(st.integers(0, 4)) > 0,
            parent=parent,
            port=k if parent else None,
            own_port=20 if parent else draw(st.sampled_from([None, 20])),
            fed=bool(parent) and draw(st.booleans()),
        )
    held: dict[str, dict[str, Any]] = {}
    for key, row in rows.items():
        if not row.managed or draw(st.booleans()):
            continue
        held[f"device/{key}"] = values = {}
        for port in [*(r.port for r in rows.values() if r.parent == key), row.own_port]:
            if port is not None and draw(st.integers(0, 5)) > 0:
                values |= _port(draw, port)
    sits = draw(st.sampled_from([None, *rows]))
    return Tree(rows, sits), held


def _port(draw: st.DrawFn, port: int) -> dict[str, Any]:
    untagged = draw(st.sampled_from([None, 1, 10, 99]))
    tagged = draw(st.lists(st.sampled_from([1, 10, 99]), unique=True))
    return {
        f"port.{port}.on": draw(st.integers(0, 7)) > 0,
        f"port.{port}.untagged": untagged,
        f"port.{port}.tagged": tuple(t for t in tagged if t != untagged),
        f"port.{port}.power": draw(st.integers(0, 7)) > 0,
    }


def _simulated(tree: Tree, held: dict[str, dict[str, Any]]) -> set[str]:
    """Who is reached on the simulated site, which walks its frames by itself."""
    site = SimulatedSite("s")
    site.plant(
        [
            Planted(
                serial=row.id,
                model=row.model,
                kind=row.kind,
                managed=row.managed,
                parent=row.parent,
                port=row.port,
                own_port=row.own_port,
                fed=row.fed,
            )
            for row in tree.rows.values()
        ]
    )
    for target, values in held.items():
        gear = site.state.gear[target.removeprefix("device/")]
        gear.values = {k: list(v) if isinstance(v, tuple) else v for k, v in values.items()}
        gear.stand = "online"
    return {k for k, g in site.state.gear.items() if g.planted.managed and site.reached(g)}


@examples(200)
@given(trees())
def test_who_is_reached_is_who_is_reached_on_the_simulated_site(
    drawn: tuple[Tree, dict[str, dict[str, Any]]],
) -> None:
    tree, held = drawn
    assert set(tree.reached(held)) == _simulated(tree, held)


@examples(100)
@given(trees(), st.data())
def test_a_push_goes_from_the_far_ends_and_cuts_off_nobody_unsaid(
    drawn: tuple[Tree, dict[str, dict[str, Any]]], data: st.DataObject
) -> None:
    tree, held = drawn
    held = {**held, "network/old": {"vlan": 5}, "name/old": {"ssid": "Old"}}
    wanted: dict[str, dict[str, Any]] = {
        "network/main": {"vlan": 10},
        "name/main": {"ssid": "Main"},
        "site": {"mesh": False},
    }
    for key, row in tree.rows.items():
        if row.managed:
            ports = [r.port for r in tree.rows.values() if r.parent == key and r.port is not None]
            wanted[f"device/{key}"] = {"label": key}
            for port in ports:
                wanted[f"device/{key}"] |= _port_of(data, port)
    differs = list(differences(held, wanted))
    steps = push_steps(differs, held, tree, {})
    # Each difference is sent once, in as many steps as there are targets.
    assert sorted((c.target, c.key) for s in steps for c in s.changes) == sorted(
        (d.target, d.key) for d in differs
    )
    order = [s.target for s in steps]
    assert len(set(order)) == len(order)
    first_device = next((k for k, s in enumerate(steps) if s.phase == "device"), len(steps))
    last_device = max((k for k, s in enumerate(steps) if s.phase == "device"), default=-1)
    kinds = [t.split("/")[0] for t in order]
    assert kinds.index("network") < kinds.index("name") < first_device
    assert order.index("name/old") > last_device and order.index("network/old") > order.index("name/old")
    at = {t.removeprefix("device/"): k for k, t in enumerate(order)}
    for key, place in at.items():
        if key in tree.rows:
            above = [p for p in tree.up(key) if p in at and (p in tree.branch) == (key in tree.branch)]
            assert all(at[p] > place for p in above), "what hangs on another comes before it"
    off_branch = [k for k in at if k in tree.rows and k not in tree.branch]
    assert all(at[b] > at[k] for b in tree.branch if b in at for k in off_branch)
    # Sent one after the other, those that cut somebody off left out, everybody stays reached.
    now = {t: dict(v) for t, v in held.items()}
    reached = _simulated(tree, _devices(now))
    for step in steps:
        then = {t: dict(v) for t, v in now.items()}
        for change in step.changes:
            then.setdefault(step.target, {})[change.key] = change.wanted
        lost = reached - _simulated(tree, _devices(then))
        assert set(step.cuts) == lost
        if not step.cuts:
            now, reached = then, _simulated(tree, _devices(then))


def _port_of(data: st.DataObject, port: int) -> dict[str, Any]:
    untagged = data.draw(st.sampled_from([1, 10, 99]))
    on, power = data.draw(st.integers(0, 5)) > 0, data.draw(st.integers(0, 5)) > 0
    at = f"port.{port}"
    return {f"{at}.on": on, f"{at}.untagged": untagged, f"{at}.tagged": (), f"{at}.power": power}


def _devices(held: dict[str, dict[str, Any]]) -> dict[str, dict[str, Any]]:
    return {
        t: {k: v for k, v in values.items() if v is not None}
        for t, values in held.items()
        if t.startswith("device/")
    }


def test_a_frame_by_hand() -> None:
    """AP on port 3 of SW-2, which hangs with its port 16 on port 5 of SW-1: management 99 untagged on both
    ends comes up; where SW-2's port has 10, SW-1's port 5 must carry 10 too; switched off, it is cut."""
    rows = {
        "sw-1": Managed(id="sw-1", name="SW-1", model="m", kind="switch"),
        "sw-2": Managed(id="sw-2", name="SW-2", model="m", kind="switch", parent="sw-1", port=5, own_port=16),
        "ap": Managed(id="ap", name="AP", model="m", kind="access_point", parent="sw-2", port=3, fed=True),
    }
    tree = Tree(rows)
    plain = {
        f"port.{p}.{k}": v for p in (3, 16) for k, v in (("on", True), ("untagged", 99), ("tagged", (10,)))
    }
    assert tree.reached({"device/sw-2": plain}) == {"sw-1", "sw-2", "ap"}
    astray = {**plain, "port.3.untagged": 10}
    assert tree.reached({"device/sw-2": astray}) == {"sw-1", "sw-2", "ap"}
    narrow = {**astray, "port.16.tagged": ()}
    assert tree.reached({"device/sw-2": narrow}) == {"sw-1", "sw-2"}
    dark = {**plain, "port.3.power": False}
    (step,) = push_steps(
        [Differs(target="device/sw-2", key="port.3.power", wanted=False)], {"device/sw-2": plain}, tree, {}
    )
    assert step.cuts == ("ap",) and tree.reached({"device/sw-2": dark}) == {"sw-1", "sw-2"}
