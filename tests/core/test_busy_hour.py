"""The busiest hour: an example worked by hand, and a plain sum over points of random rooms."""

from __future__ import annotations

import pytest

from heathrise.core.catalogue import Catalogue
from heathrise.core.context.plan import Plan
from heathrise.core.context.scope import as_planned
from heathrise.core.design import ClientGroup, Design, Network, Space, WirelessName, apply, put
from heathrise.core.signal import air_of, readings_at
from heathrise.core.views.busy_hour import beacons_by_band, busy_view
from heathrise.demo import SITES

from .plans import RATES, access_point, design_of, shell


def _far_room(count: int, width_mhz: int = 20) -> Design:
    """A room of 2 by 2 m in the open, so far off that a phone gets MCS 7 at 20 MHz throughout."""
    site, *rest = shell(2, 2)
    return design_of(
        site.model_copy(update={"width_5ghz_mhz": width_mhz}),
        *rest,
        Space(id="far", floor="f", name="Far", use="calls", outline=((17, 0), (19, 0), (19, 2), (17, 2))),
        access_point(1, 1),
        ClientGroup(id="g", space="far", kind="phone", count=count),
        Network(id="n", name="Main", purpose="main", vlan=1, subnet="192.168.1.0/24"),
        *(WirelessName(id=f"s{k}", network="n", ssid=f"Name {k}") for k in range(3)),
    )


def test_twelve_phones_in_a_call_by_hand(catalogue: Catalogue) -> None:
    """12 x 6 Mb/s over 172 x 0.65 = 64 % of the air, beacons of three names at 12 Mb/s beside it;
    at 40 MHz the same phones take 31 %."""
    design = _far_room(12)
    for x, y in ((17.1, 0.1), (18.9, 1.9)):
        level = next(
            min(r.downlink_dbm, r.uplink_dbm)
            for r in readings_at(air_of(design, catalogue), "f", x, y)
            if r.band == "5"
        )
        assert -64 <= level < -61 - 0.01 or -64 <= level < -59
    busy = busy_view(Plan(design, catalogue)).busy
    load = busy.loads[0]
    assert (load.band, load.verdict) == ("5", "near")
    assert load.own == pytest.approx(72 / (172 * 0.65), abs=0.001)
    assert load.beacons == pytest.approx(beacons_by_band(design, catalogue)["5"])
    assert load.total == pytest.approx(load.own + load.beacons)
    wider = busy_view(Plan(_far_room(12, 40), catalogue)).busy.loads[0]
    levels_at_40 = 72 / (172 * 2.1 * 0.65)  # 361 Mb/s where 3 dB more are there, else a step less
    assert wider.own >= levels_at_40 - 0.001
    assert busy_view(Plan(_far_room(16), catalogue)).busy.loads[0].verdict == "not_met"


def test_a_wire_relieves_and_is_really_tried(catalogue: Catalogue) -> None:
    design = apply(_far_room(10), [put(ClientGroup(id="tv", space="far", kind="television", count=2))])
    view = busy_view(Plan(design, catalogue))
    assert view.busy.worst > view.busy.near_share
    wire = next(c for c in view.cures if c.label.startswith("A wire for 2 × television"))
    after = busy_view(Plan(apply(design, wire.changes), catalogue)).busy
    assert f"to {after.worst:.0%}" in wire.effect
    # What is left are ten phones and the beacons.
    beacons = beacons_by_band(design, catalogue)["5"]
    assert after.worst == pytest.approx(60 / (172 * 0.65) + beacons, abs=0.001)


def test_who_is_out_of_reach_starves_and_who_has_no_radio_is_told(catalogue: Catalogue) -> None:
    design = apply(
        _far_room(1),
        [
            put(Space(id="lost", floor="f", name="Lost", outline=((900, 0), (904, 0), (904, 4), (900, 4)))),
            put(ClientGroup(id="l", space="lost", kind="phone", count=3)),
            put(ClientGroup(id="d", space="far", kind="storage", count=1)),
        ],
    )
    starved = {s.group: s for s in busy_view(Plan(design, catalogue)).busy.starved}
    assert starved["l"].clients == 3 and "loud enough" in starved["l"].why
    assert "wants a wire" in starved["d"].why


@pytest.mark.parametrize("key", ["school"])
def test_shares_against_a_plain_sum(key: str, catalogue: Catalogue) -> None:
    """Slow and plain: each client point by point from the readings there, each radio's own sum."""
    design = as_planned(next(s for s in SITES if s.key == key).make())
    air = air_of(design, catalogue)
    own: dict[tuple[str, str], float] = {}
    for group in design.of(ClientGroup).values():
        client = catalogue.clients[group.kind]
        count = group.count - group.wired
        if count <= 0 or not client.power_dbm:
            continue
        space = design.of(Space)[group.space]
        xs, ys = zip(*space.outline, strict=True)
        if len(space.outline) != 4 or len(set(xs)) != 2 or len(set(ys)) != 2:
            continue  # turned rooms are left to the whole
        wide, deep = max(xs) - min(xs), max(ys) - min(ys)
        step = min(1.0, (wide * deep / 12) ** 0.5)
        step = max(step, (wide * deep / 2500) ** 0.5)
        nx, ny = max(1, round(wide / step)), max(1, round(deep / step))
        for i in range(nx):
            for j in range(ny):
                x, y = min(xs) + (i + 0.5) * wide / nx, min(ys) + (j + 0.5) * deep / ny
                _add(air, own, space.floor, x, y, client, count / nx / ny)
    found = {(load.device, load.band): load.own for load in busy_view(Plan(design, catalogue)).busy.loads}
    assert own
    for where, share in own.items():
        assert found[where] >= share - 0.02 * max(1, share)  # rounded levels may cross a rate


def _add(air, own, floor, x, y, client, clients) -> None:  # type: ignore[no-untyped-def]
    best: dict[str, tuple[float, str]] = {}
    for r in readings_at(air, floor, x, y):
        if r.band not in client.power_dbm or r.band == "6":
            continue
        phone = air.client
        down = r.downlink_dbm - phone.gain_dbi + client.gain_dbi
        up = r.uplink_dbm - phone.gain_dbi - phone.power_dbm[r.band]
        up += client.gain_dbi + client.power_dbm[r.band]
        best[r.band] = max(best.get(r.band, (-999.0, "")), (min(down, up), r.device))
    for band, least in (("5", -70), ("2.4", -999), ("5", -999)):
        if band not in best or best[band][0] < least:
            continue
        width = air.design.site.width_5ghz_mhz if band == "5" else 20
        more = {20: (0, 1), 40: (3, 2.1), 80: (6, 4.19)}[width]
        rate = max((r for dbm, r in RATES if best[band][0] >= dbm + more[0]), default=0) * more[1]
        if rate:
            key = (best[band][1], band)
            mbps = client.down_mbps + client.up_mbps
            own[key] = own.get(key, 0) + clients * mbps / (rate * 2 * 0.65)
            return
