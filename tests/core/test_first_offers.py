"""What a project that is hardly begun is offered: networks, a rack, a first access point, a switch."""

from __future__ import annotations

import ipaddress
import math

import pytest

from heathrise.core.catalogue import Catalogue
from heathrise.core.context.findings import Cure, Finding
from heathrise.core.context.integrity import check
from heathrise.core.context.plan import Plan
from heathrise.core.design import (
    Design,
    Device,
    EquipmentRoom,
    Network,
    Site,
    Space,
    Wall,
    WirelessName,
    apply,
    put,
    remove,
)
from heathrise.core.evaluation.cure_search import search_cures
from heathrise.core.evaluation.evaluate import evaluate

from .plans import access_point, design_of, shell, wall


def finding(design: Design, catalogue: Catalogue, key: str) -> Finding:
    return next(f for f in evaluate(Plan(design, catalogue)).findings if f.id.startswith(key))


def taken(design: Design, catalogue: Catalogue, cure: Cure) -> Design:
    after = apply(design, cure.changes)
    check(after, catalogue)
    return after


@pytest.mark.parametrize("kind", ["home", "school", "clinic", "shop", "workshop", "office", "guest_house"])
def test_usual_networks_come_clear_of_the_upstream_and_without_a_finding(
    catalogue: Catalogue, kind: str
) -> None:
    site = Site.model_validate({"id": "site", "kind": kind, "upstream_subnet": "192.168.20.0/24"})
    design = apply(design_of(*shell(), access_point(5, 5)), [put(site)])
    (cure,) = finding(design, catalogue, "settings-networks").cures
    after = taken(design, catalogue, cure)
    nets = [ipaddress.ip_network(n.subnet) for n in after.of(Network).values()]
    nets.append(ipaddress.ip_network("192.168.20.0/24"))
    assert len({n for one in nets for n in one.hosts()}) == sum(n.num_addresses - 2 for n in nets)
    wanted = catalogue.usual_networks[kind]
    assert [n.name for n in after.of(Network).values()] == [row.name for row in wanted]
    assert {n.ssid for n in after.of(WirelessName).values()} == {r.name for r in wanted if r.bands}
    assert not [
        f
        for f in evaluate(Plan(after, catalogue)).findings
        if f.id.startswith("settings-") and f.severity != "note"
    ]


def three_rooms() -> Design:
    """Shell of 20 by 20 m cut in three: living room, bath with a wet wall, store."""
    boxes = {"living": (0, 0, 20, 12), "bath": (0, 12, 8, 20), "store": (8, 12, 20, 20)}
    spaces = [
        Space.model_validate(
            {
                "id": k,
                "floor": "f",
                "name": k.capitalize(),
                "outline": ((w, s), (e, s), (e, n), (w, n)),
                "use": "everyday" if k == "living" else "none",
            }
        )
        for k, (w, s, e, n) in boxes.items()
    ]
    plain = apply(design_of(*shell()), [remove(shell()[-1])])
    walls = [
        wall(11, (0, 12), (8, 12), "wet-wall"),
        wall(12, (8, 12), (8, 20), "wet-wall"),
        wall(13, (8, 12), (20, 12), "plasterboard"),
    ]
    return apply(plain, [put(e) for e in (*spaces, *walls)])


def test_a_rack_is_offered_in_a_dry_room_that_nobody_needs(catalogue: Catalogue) -> None:
    empty = three_rooms()
    note = finding(empty, catalogue, "cable-no-room")
    assert note.severity == "note"
    design = apply(empty, [put(access_point(5, 5)), put(access_point(15, 15, "ap-2"))])
    told = finding(design, catalogue, "cable-no-room")
    assert told.severity == "not_met"
    assert [c.label for c in told.cures] == ["Place a rack in Store"]
    after = taken(design, catalogue, told.cures[0])
    (room,) = after.of(EquipmentRoom).values()
    assert 8.4 < room.at[0] < 19.6 and 12.4 < room.at[1] < 19.6
    assert all(r.verdict == "met" for r in evaluate(Plan(after, catalogue)).runs)
    switch = finding(after, catalogue, "power-none").cures[0]
    assert switch.label.startswith("Choose ")
    left = {f.id for f in evaluate(Plan(taken(after, catalogue, switch), catalogue)).findings}
    assert not {i for i in left if i.startswith(("power-left", "power-none", "cable-no"))}


def test_without_a_spare_room_the_one_with_the_least_cable_is_offered(catalogue: Catalogue) -> None:
    design = three_rooms()
    spaces = [s.model_copy(update={"use": "calls"}) for s in design.of(Space).values()]
    dry = [w.model_copy(update={"construction": "plasterboard"}) for w in design.of(Wall).values()]
    points = [access_point(x, y, f"ap-{k}") for k, (x, y) in enumerate([(3, 17), (5, 18), (4, 3)])]
    design = apply(design, [put(e) for e in (*spaces, *dry, *points)])
    offered = finding(design, catalogue, "cable-no-room").cures
    metres = {}
    for cure in offered:
        runs = evaluate(Plan(taken(design, catalogue, cure), catalogue)).runs
        metres[cure.label] = sum(r.bought_m * r.cables for r in runs)
    assert list(metres) == sorted(metres, key=lambda k: metres[k])
    assert next(iter(metres)) == "Place a rack in Bath"


def test_a_first_access_point_goes_where_most_rooms_hear_it(catalogue: Catalogue) -> None:
    design = three_rooms()
    none = finding(design, catalogue, "signal-none")
    assert none.searches_cures
    best = search_cures(Plan(design, catalogue), none.id)[0]
    assert best.label == "Add AP-1 in Living" and best.effect == "reaches 1 of 1 rooms"
    (device,) = apply(design, best.changes).of(Device).values()
    assert math.dist(device.at, (10, 6)) < 0.1
    assert not search_cures(Plan(design, catalogue), none.id, lambda *_: False)
