"""Packets: who reaches whom among 200 devices and 8 networks, all pairs at once and each by itself."""

from __future__ import annotations

import time

from heathrise.core.catalogue import load_catalogue
from heathrise.core.context.plan import Plan
from heathrise.core.design import (
    Building,
    Design,
    Device,
    EquipmentRoom,
    Floor,
    Membership,
    Network,
    Site,
    Space,
    Switch,
    WirelessName,
    design_of,
)
from heathrise.core.evaluation.evaluate import evaluate
from heathrise.core.evaluation.plugs import plugs_of
from heathrise.core.settings import fabric_of, pair_classes, verdict

from .pace import Marks

_PURPOSES = ("main", "staff", "pupils", "tills", "guest", "devices", "cameras", "management")
_SWITCHES, _OUTLETS, _POINTS = 5, 160, 40
_WIDE = 40.0


def campus(access_points: int = _POINTS) -> Design:
    """Return a hall with 40 access points and 160 outlets on five switches, each socket on a network by hand,
    one of the switches a plain one."""
    outline = ((0, 0), (_WIDE, 0), (_WIDE, 30), (0, 30))
    networks = [
        Network.model_validate(
            {"id": p, "name": p.title(), "purpose": p, "vlan": 10 + k, "subnet": f"10.0.{10 + k}.0/24"}
        )
        for k, p in enumerate(_PURPOSES)
    ]

    def device(kind: str, model: str, k: int) -> Device:
        at = (1 + (k * 7) % 38 + 0.1 * (k % 9), 1 + (k * 3) % 28)
        fields = {
            "id": f"{kind}-{k}",
            "floor": "f",
            "kind": kind,
            "model": model,
            "name": f"{kind} {k}",
            "at": at,
        }
        return Device.model_validate(
            {**fields, "height_m": 2.7, "mount": "wall" if kind == "outlet" else "ceiling"}
        )

    outlets = [device("outlet", "outlet-single", k) for k in range(_OUTLETS)]
    points = [device("access_point", "ravelmoor-t3", k) for k in range(access_points)]
    members = [
        Membership(id=f"m-{k}", network=networks[k % len(networks)].id, device=d.id)
        for k, d in enumerate(outlets)
    ]
    names = [WirelessName(id=f"n-{n.id}", network=n.id, ssid=n.name) for n in networks[:4]]
    models = ["dunthrip-m48"] * (_SWITCHES - 1) + ["dunthrip-u16"]
    switches = [
        Switch(id=f"sw-{k}", equipment_room="rack", name=f"SW-{k + 1}", model=m) for k, m in enumerate(models)
    ]
    return design_of(
        [
            Site(id="site", kind="school", cables_per_access_point=1),
            Building(id="b", name="Hall"),
            Floor(id="f", building="b", name="Ground", level=0),
            Space(id="hall", floor="f", name="Hall", outline=outline),
            EquipmentRoom(id="rack", floor="f", name="Rack", at=(20, 15)),
            *outlets,
            *points,
            *switches,
            *networks,
            *names,
            *members,
        ]
    )


def packets() -> None:
    """Print how long all pairs take."""
    marks = Marks("Packets")
    plan = Plan(campus(), load_catalogue())
    evaluation = evaluate(plan)
    ports = evaluation.settings.ports if evaluation.settings is not None else ()
    plugs = plugs_of(evaluation.power)
    started = time.perf_counter()
    fabric = fabric_of(plan.design, plan.catalogue, plugs, ports)
    classes, _ = pair_classes(fabric)
    took = time.perf_counter() - started
    hosts, networks = len(fabric.hosts), len(plan.design.of(Network))
    what = f"{hosts} hosts, {len(classes)} classes"
    marks.row(
        f"all pairs of {_OUTLETS + _POINTS} devices and {networks} networks", 1e3 * took, "ms", 100, what
    )
    started = time.perf_counter()
    passing = sum(not verdict(fabric, a, b) for a in fabric.hosts for b in fabric.hosts)
    alone = time.perf_counter() - started
    marks.row("each pair by itself", 1e3 * alone, "ms", None, f"{passing} of {hosts**2} pass")
