"""What a simulated site hears: clients, and its air."""

from __future__ import annotations

import random
from typing import Any

from .site import SimulatedSite


def measured_at(site: SimulatedSite) -> tuple[list[dict[str, Any]], list[dict[str, Any]]]:
    """Return clients and air as they are seen, about what was planned: each radio hears a little more
    or less, clients stand a little nearer or farther."""
    chance = random.Random(f"{site.state.seed}-{int(site.state.now_s // 60)}")
    clients: list[dict[str, Any]] = []
    air: list[dict[str, Any]] = []
    for serial, gear in site.state.gear.items():
        if site.stand_of(gear) != "online":
            continue
        for band, channel in gear.planted.radios.items():
            if gear.values.get(f"radio.{band}.on", True) is False:
                continue
            count = round(gear.planted.clients.get(band, 0.0) * chance.uniform(0.7, 1.1))
            share = min(1.0, gear.planted.busy.get(band, 0.0) * chance.uniform(0.7, 1.25) + 0.02)
            set_to = gear.values.get(f"radio.{band}.channel", channel)
            air.append(
                {
                    "serial": serial,
                    "band": band,
                    "channel": set_to,
                    "busy": round(share, 3),
                    "noise_dbm": round(-95 + chance.uniform(-1, 4), 1),
                    "clients": count,
                }
            )
            for _ in range(count):
                mac = "02:" + ":".join(f"{chance.randrange(256):02x}" for _ in range(5))
                row = {"mac": mac, "device": serial, "band": band, "name": ""}
                dbm, mbps = round(chance.gauss(-58, 8), 1), round(chance.uniform(0.1, 20), 1)
                clients.append({**row, "dbm": dbm, "mbps": mbps})
    return clients, air
