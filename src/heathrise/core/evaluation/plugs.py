"""Who is in which port, as settings need to know it of the power plan."""

from __future__ import annotations

from ..rack import PowerPlan
from ..settings import Plug


def plugs_of(power: PowerPlan) -> list[Plug]:
    """Return who is in which port, as settings need to know it."""
    return [
        Plug(
            switch=p.switch,
            port=p.port,
            device=p.device,
            role=p.role,
            name=p.name,
            speed_mbps=p.speed_mbps,
            power=p.feeds,
            uplink=p.uplink,
            uplink_to=p.uplink_to,
            link=p.link,
        )
        for p in power.ports
    ]
