"""What is plugged in on a site where a plan was built as it is drawn: for a stand-in to stand in for."""

from __future__ import annotations

import hashlib

from ...core.context.plan import Plan
from ...core.evaluation.evaluate import evaluate
from ...core.views.managed import tree_of
from .gear import Planted
from .neighbourhood import near_each


def serial_of(site: str, device: str) -> str:
    """Return the made-up serial of a device: always the same one."""
    mark = hashlib.sha256(f"{site}/{device}".encode()).hexdigest().upper()
    return f"HR{mark[:4]}-{mark[4:8]}"


def planted(plan: Plan, site: str) -> list[Planted]:
    """Return the gear of a plan as it is plugged in, with the clients of the busiest hour."""
    tree, evaluation = tree_of(plan), evaluate(plan)
    near = near_each(plan.drawn, site)
    watts = {d.device: d.expected_w for d in evaluation.power.devices}
    loads = evaluation.signal.busy.loads if evaluation.signal.busy is not None else ()
    found = []
    for row in tree.rows.values():
        mine = [load for load in loads if load.device == row.id]
        radios = [r for r in evaluation.signal.radios or () if r.device == row.id]
        found.append(
            Planted(
                serial=serial_of(site, row.id),
                model=row.model,
                kind=row.kind,
                parent=serial_of(site, row.parent) if row.parent is not None else None,
                port=row.port,
                own_port=row.own_port,
                fed=row.fed,
                managed=row.managed,
                over_air=row.over_air,
                link_mbps=row.link_mbps,
                watts=watts.get(row.id),
                radios={r.band: {"2.4": 1, "5": 36, "6": 5}[r.band] for r in radios},
                clients={x.band: x.clients for x in mine},
                busy={x.band: min(1.0, x.total) for x in mine},
                near=[n for n in near.get(row.id, ()) if any(r.band == n.band for r in radios)],
            )
        )
    return found
