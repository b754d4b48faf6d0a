"""Which gear takes part: what stands once the job is done, and what stands today.

Gear that was found carries what becomes of it. A plan has all that is new or kept; today has all
that was found. Tables that lose nothing stay the same objects, so that what is known of them holds.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Collection, Hashable, Mapping
from typing import Any

from ..base.memo import IdentityMemo
from ..catalogue import Rules
from ..design import Design, Device, OldCable, State, Switch
from .racks import rack_at

_tables: IdentityMemo[Mapping[str, Any]] = IdentityMemo(64)
# What stays is often the same rows as before: only what goes, or comes, was touched.
_rows: IdentityMemo[Mapping[str, Any]] = IdentityMemo(64)
_designs: IdentityMemo[Design] = IdentityMemo(64, weigh=lambda _: 20_000)
_PLANNED: frozenset[State] = frozenset({"new", "keep"})
_FOUND: frozenset[State] = frozenset({"keep", "retire", "unknown"})


def as_planned(design: Design) -> Design:
    """Return the design without what is retired or undecided."""
    return _standing(design, _PLANNED)


def as_today(design: Design) -> Design:
    """Return the design with nothing but the gear that was found."""
    return _standing(design, _FOUND)


def has_found_gear(design: Design) -> bool:
    """Whether any gear was found."""
    states = [d.state for d in design.of(Device).values()]
    states += [s.state for s in design.of(Switch).values()]
    return any(state in _FOUND for state in states)


def kept_cables(design: Design, rules: Rules) -> dict[str, list[OldCable]]:
    """Return by device the kept cables that are its run: one end at it, the other at a rack. One that
    lies between two racks is the way from one to the other, whoever stands beside them."""
    near_m = rules["brief.cable_ends_m"]
    between = {cable.id for rows in kept_between(design, rules).values() for cable in rows}
    found: dict[str, list[OldCable]] = {}
    for cable in design.of(OldCable).values():
        if cable.state != "keep" or cable.id in between:
            continue
        if (device := _far_end(design, cable, near_m)) is not None:
            found.setdefault(device, []).append(cable)
    return found


def kept_between(design: Design, rules: Rules) -> dict[frozenset[str], list[OldCable]]:
    """Return by pair of racks the kept cables that lie between them."""
    found: dict[frozenset[str], list[OldCable]] = {}
    for cable in design.of(OldCable).values():
        ends = racks_of(design, rules, cable)
        if cable.state == "keep" and len(ends) == 2:
            found.setdefault(frozenset(ends), []).append(cable)
    return found


def racks_of(design: Design, rules: Rules, cable: OldCable) -> set[str]:
    """Return the racks that a found cable ends at."""
    near_m = rules["brief.cable_ends_m"]
    racks = (rack_at(design, cable.floor, end, near_m) for end in (cable.a, cable.b))
    return {rack.id for rack in racks if rack is not None}


def _far_end(design: Design, cable: OldCable, near_m: float) -> str | None:
    devices = [d for d in design.of(Device).values() if d.floor == cable.floor]
    for rack_end, far_end in ((cable.a, cable.b), (cable.b, cable.a)):
        close = [d for d in devices if math.dist(d.at, far_end) <= near_m]
        if close and rack_at(design, cable.floor, rack_end, near_m) is not None:
            return min(close, key=lambda d: math.dist(d.at, far_end)).id
    return None


def _standing(design: Design, states: frozenset[State]) -> Design:
    devices, switches = design.of(Device), design.of(Switch)
    gone = {d.id for d in devices.values() if d.state not in states}
    if not gone and all(s.state in states for s in switches.values()):
        return design
    tables = dict(design.tables)
    tables["device"] = _only(devices, states, lambda d: d.state in states)
    tables["switch"] = _only(switches, states, lambda s: s.state in states)
    gone_switches = {s.id for s in switches.values() if s.state not in states}
    key = (states, frozenset(gone), frozenset(gone_switches))
    for kind in ("run", "injector", "extender", "radio", "port_pin", "way_point", "membership"):
        rows: Mapping[str, Any] = design.tables.get(kind, {})
        if any(row.device in gone or getattr(row, "switch", None) in gone_switches for row in rows.values()):
            tables[kind] = _only(
                rows, key, lambda r: r.device not in gone and getattr(r, "switch", None) not in gone_switches
            )
    ways: Mapping[str, Any] = tables.get("way_pin", {})
    if any(gone_switches & {w.switch, w.to} for w in ways.values()):
        tables["way_pin"] = _only(ways, key, lambda w: not gone_switches & {w.switch, w.to})
    runs: Mapping[str, Any] = tables.get("run", {})
    if any(run.through in gone for run in runs.values()):
        tables["run"] = _tables.get((runs,), (key, "through"), lambda: _begun_anew(runs, gone))
    return _designs.get(tuple(tables.values()), tuple(tables), lambda: Design(tables))


def _begun_anew(runs: Mapping[str, Any], gone: Collection[str]) -> Mapping[str, Any]:
    """Return runs of which none is plugged into what is gone: such a one begins at a rack."""
    return {
        key: run.model_copy(update={"through": None}) if run.through in gone else run
        for key, run in runs.items()
    }


def _only(table: Mapping[str, Any], key: Hashable, stays: Callable[[Any], bool]) -> Mapping[str, Any]:
    def work_out() -> Mapping[str, Any]:
        rows = {name: row for name, row in table.items() if stays(row)}
        return _rows.get(tuple(rows.values()), tuple(rows), lambda: rows)

    return _tables.get((table,), key, work_out)
