"""Kinds of device are records: those that ship, and one made up here, through every stage."""

from __future__ import annotations

import pytest
from sqlalchemy import Engine

from heathrise.core.catalogue import (
    ROLES,
    AirModel,
    Catalogue,
    DeviceModel,
    PortGroup,
    PortProfile,
    PowerDemand,
    RadioModel,
    Role,
)
from heathrise.core.catalogue.roles import by_kind
from heathrise.core.context.integrity import check
from heathrise.core.context.plan import Plan
from heathrise.core.design import Design, DesignError, Device, Network, WirelessName, apply, put
from heathrise.core.evaluation.evaluate import evaluate
from heathrise.core.views.bill_of_materials import order_of
from heathrise.formats.project_file import Project, dump_project, load_project
from heathrise.store import Repository
from heathrise.web.app import create_app
from ops.api_document import MODULES

ROOM = {"floor": "ground", "at": (6.0, 8.0)}  # in the school's hall

MASTHEAD = Role(
    kind="masthead",
    name="Masthead",
    shelf="mastheads",
    mark="trig",
    key="z",
    hint="press",
    stem="mast",
    prefix="MAST",
    mount="pole",
    height_m=3.0,
    cables="sockets",
    links="every_cable",
    profile=PortProfile(untagged="devices", tagged="names", alone=True, words="as tried here"),
)
MODEL = DeviceModel(
    id="mast-1",
    label="Mast one",
    speed_mbps=1000,
    price=77,
    sockets=2,
    mounts=("pole",),
    power=PowerDemand(poe_class=2, rated_w=5.0, typical_w=3.0),
    ports=(PortGroup(count=3, speed_mbps=100),),
    air=AirModel(
        generation="7",
        pattern="omni",
        radios={"5": RadioModel(gain_dbi=4, min_power_dbm=5, max_power_dbm=20)},
    ),
)


def test_a_kind_that_was_just_made_up_goes_through_every_stage(
    engine: Engine, catalogue: Catalogue, school: Design
) -> None:
    wider = catalogue.with_kind(MASTHEAD, {MODEL.id: MODEL})
    mast = Device(
        id="mast-1", kind="masthead", model="mast-1", name="MAST-1", mount="ceiling", height_m=3.0, **ROOM
    )
    with pytest.raises(DesignError, match="'masthead' is not a kind of device; there are access"):
        check(apply(school, [put(mast)]), catalogue)

    repository = Repository(engine, wider)
    saved = repository.create("Masts", school, "me", "made")
    with create_app(repository).test_client() as client:
        body = {"revision": 1, "label": "x", "changes": [put(mast).model_dump(mode="json")]}
        answer = client.post(f"/api/projects/{saved.id}/changes", json=body)
        assert answer.status_code == 200, answer.text
        assert client.get("/api/catalogue").get_json()["roles"]["masthead"]["key"] == "z"
        schedule = client.get(f"/api/projects/{saved.id}/export/cables.csv").get_data(as_text=True)
        assert "run-mast-1,MAST-1,masthead" in schedule

    design = Repository(engine, wider).load(saved.id).design
    back = load_project(dump_project(Project("Masts", design)).encode(), wider).design
    assert back.of(Device)["mast-1"] == mast
    before, after = evaluate(Plan(school, wider), wait=True), evaluate(Plan(design, wider), wait=True)
    found = {f.id: f for f in after.findings}
    assert "has no ceiling mount; it has pole" in found["plan-mount-mast-1"].text
    run = next(r for r in after.runs if r.device == "mast-1")
    assert run.cables == 2 and run.category == "6A"  # one for each socket; its generation asks
    assert after.totals.access_points == before.totals.access_points + 1
    hall = [next(r for r in e.rooms if r.space == "ground-hall") for e in (before, after)]
    assert (hall[1].share_second or 0) >= (hall[0].share_second or 0)
    links = [p.link for p in after.power.ports if p.device == "mast-1"]
    links += [row.link for row in after.power.left if row.device == "mast-1"]
    assert sorted(filter(None, links)) == ["run-mast-1/1", "run-mast-1/2"]
    fed = next(d for d in after.power.devices if d.device == "mast-1")
    assert fed.poe_class == 2 and fed.rated_w == 5
    assert after.settings is not None
    assert any(r.device == "mast-1" and r.band == "5" for r in after.signal.radios or ())
    given = [p for p in after.settings.ports if p.switch == "mast-1"]
    main = next(n.vlan for n in school.of(Network).values() if n.purpose == "main")
    assert [(p.port, p.untagged_vlan, p.power) for p in given] == [(k, main, False) for k in (1, 2, 3)]
    costs = [order_of(Plan(d, wider)).sum.parts for d in (school, design)]
    assert costs[1] >= costs[0] + 77


@pytest.mark.parametrize("role", ROLES, ids=lambda r: r.kind)
def test_every_kind_that_ships_finds_its_cable_port_and_settings(
    role: Role, catalogue: Catalogue, school: Design
) -> None:
    for model in catalogue.devices[role.kind].values():
        device = Device(
            id="new",
            kind=role.kind,
            model=model.id,
            name="NEW",
            height_m=role.height_m or 3.0,
            mount=model.mounts[0] if model.mounts else role.mount,
            **ROOM,
        )
        result = evaluate(Plan(apply(school, [put(device)]), catalogue))
        if model.over_air:  # its link is the air
            assert not [r for r in result.runs if r.device == "new"]
            continue
        run = next(r for r in result.runs if r.device == "new")
        assert run.verdict in ("met", "near") and run.kind == role.kind
        ports = [p for p in result.power.ports if p.device == "new"]
        left = [row for row in result.power.left if row.device == "new"]
        assert bool(ports or left) != role.leads_out
        assert result.settings is not None
        sheets = [p for p in result.settings.ports if p.name.startswith("NEW")]
        for sheet in sheets:
            assert role.profile.words in sheet.reason or any(
                w in sheet.reason for w in ("none is planned", "main network")
            )
        assert not any(f.id.startswith("failed") for f in result.findings)


def test_what_leads_out_ends_the_way_up_of_the_first_switch(catalogue: Catalogue, school: Design) -> None:
    router = Device(
        id="r", kind="router", model="harrowfen-r4", name="Router-1", height_m=1.2, mount="wall", **ROOM
    )
    before = evaluate(Plan(school, catalogue, quick=True)).power
    after = evaluate(Plan(apply(school, [put(router)]), catalogue, quick=True)).power
    assert next(p.name for p in before.ports if p.uplink) == "to the line"
    assert next(p.name for p in after.ports if p.uplink) == "to Router-1"
    assert sum(p.link is not None for p in after.ports) == sum(p.link is not None for p in before.ports)


def test_a_wall_plate_is_an_access_point_with_ports_of_its_own(catalogue: Catalogue, school: Design) -> None:
    plate = Device(
        id="wp-1",
        kind="wall_plate",
        model="ravelmoor-w3",
        name="WP-1",
        height_m=0.4,
        mount="wall",
        azimuth_deg=90,
        **ROOM,
    )
    result = evaluate(Plan(apply(school, [put(plate)]), catalogue), wait=True)
    assert result.settings is not None
    own = [p for p in result.settings.ports if p.switch == "wp-1"]
    assert len(own) == 2 and not any(p.tagged_vlans or p.power for p in own)
    at_switch = next(p for p in result.settings.ports if p.name == "WP-1")
    names = {school.of(Network)[n.network].vlan for n in school.of(WirelessName).values()}
    assert set(at_switch.tagged_vlans) | {at_switch.untagged_vlan} >= names
    assert {r.band for r in result.signal.radios or () if r.device == "wp-1"} == {"2.4", "5"}


def test_a_gateway_wants_the_devices_network_and_is_offered_one(catalogue: Catalogue, school: Design) -> None:
    gateway = Device(
        id="g", kind="sensor_gateway", model="quillbeck-gate", name="GW-1", mount="wall", height_m=2.2, **ROOM
    )
    kept = {k: n for k, n in school.of(Network).items() if n.purpose != "devices"}
    names = {k: n for k, n in school.of(WirelessName).items() if n.network in kept}
    kept = {k: n.model_copy(update={"reaches": ()}) for k, n in kept.items()}
    bare = Design({**school.tables, "network": kept, "wireless_name": names})
    design = apply(bare, [put(gateway)])
    check(design, catalogue)
    finding = next(f for f in evaluate(Plan(design, catalogue)).findings if f.id == "settings-no-devices")
    assert "GW-1: in the main network" in finding.text
    mended = evaluate(Plan(apply(design, finding.cures[0].changes), catalogue))
    assert "settings-no-devices" not in {f.id for f in mended.findings}
    assert mended.settings is not None
    port = next(p for p in mended.settings.ports if p.name == "GW-1")
    assert port.untagged_vlan == 30 and port.tagged_vlans == ()


def test_two_kinds_with_one_key_are_refused() -> None:
    for field, value in (("kind", "camera"), ("key", "c"), ("stem", "cam"), ("shelf", "cameras")):
        with pytest.raises(ValueError, match=f"{field} {value}"):
            by_kind([*ROLES, MASTHEAD.model_copy(update={field: value})])


def test_what_the_browser_knows_of_the_design_is_what_its_classes_say() -> None:
    for module, text in MODULES.items():
        assert module.read_text("utf-8") == text(), "./run check writes it anew"
