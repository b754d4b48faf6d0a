"""How power and frames go on a simulated site: down from port to port, up to the controller."""

from __future__ import annotations

from collections.abc import Iterator

from .gear import Gear, State

_DROPPED = object()
_FLAT = object()  # inside a device that tells no networks apart


def above(state: State, gear: Gear) -> Gear | None:
    """Return what a device hangs on."""
    return state.gear.get(gear.parent or "")


def powered(state: State, gear: Gear) -> bool:
    """Whether a device has power: its own, or that of a port that gives it and is on."""
    parent = above(state, gear)
    if parent is None:
        return True
    if parent.stand == "offline" or not powered(state, parent):
        return not gear.planted.fed
    if gear.planted.fed and gear.planted.port is not None:
        return parent.values.get(f"port.{gear.planted.port}.power", True) is not False
    return True


def reached(state: State, gear: Gear) -> bool:
    """Whether frames that a device sends come up to the controller, port by port."""
    if not powered(state, gear):
        return False
    tag: int | None = None
    for below, parent in _way(state, gear):
        if not powered(state, parent) or parent.stand == "offline":
            return False
        if below.planted.over_air:
            if not _carries(state, parent):
                return False
            continue
        inside = _in(parent, below.planted.port, tag)
        out = _out(parent, parent.planted.own_port, inside) if inside is not _DROPPED else _DROPPED
        if out is _DROPPED:
            return False
        tag = out  # type: ignore[assignment]
    return True


def behind_a_scan(state: State, gear: Gear) -> bool:
    """Whether what a device hangs on over the air listens to the neighbourhood just now."""
    listening = state.scan.listening
    return any(b.planted.over_air and p.planted.serial in listening for b, p in _way(state, gear))


def _way(state: State, gear: Gear) -> Iterator[tuple[Gear, Gear]]:
    """Yield each device on the way up with what it hangs on."""
    below = gear
    while (parent := above(state, below)) is not None:
        yield below, parent
        below = parent


def _carries(state: State, parent: Gear) -> bool:
    """Whether a device lets others hang on it over the air: it does unless it was set up and is not there."""
    if parent.planted.serial in state.scan.listening:
        return False
    return parent.stand in ("online", "updating") or not parent.values


def _in(gear: Gear, port: int | None, tag: int | None) -> object:
    at = f"port.{port}"
    if port is None or f"{at}.on" not in gear.values:
        return tag if tag is not None else _FLAT
    if gear.values.get(f"{at}.on") is False:
        return _DROPPED
    untagged, tagged = gear.values.get(f"{at}.untagged"), gear.values.get(f"{at}.tagged") or []
    if tag is None:
        return untagged if untagged is not None else _DROPPED
    return tag if tag in tagged or tag == untagged else _DROPPED


def _out(gear: Gear, port: int | None, vlan: object) -> object:
    at = f"port.{port}"
    if port is None or f"{at}.on" not in gear.values:
        return None if vlan is _FLAT else vlan
    if gear.values.get(f"{at}.on") is False:
        return _DROPPED
    untagged, tagged = gear.values.get(f"{at}.untagged"), gear.values.get(f"{at}.tagged") or []
    if vlan is _FLAT or vlan == untagged:
        return None
    return vlan if vlan in tagged else _DROPPED
