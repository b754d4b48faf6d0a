"""A stand-in for a meter, or for a switch's own table: speeds and watts of ports made from a plan,
with seeded faults."""

from __future__ import annotations

import random
from collections.abc import Sequence

from ..core.records import PlannedPort, SeenSpeed

METER_HEADER = ("switch", "port", "link_mbps", "watts", "date", "meter")
SPREAD = 0.06  # of the watts expected, from one port to another
# By fault what it makes of speed and watts: shares of what is planned.
METER_FAULTS = {"bad pair": (0.1, 1.0), "no link": (0.0, 0.0), "draws much": (1.0, 1.6)}
_BAD_PAIR_MBPS = 100


def metered_csv(
    ports: Sequence[PlannedPort], seed: int, faults: int, day: str
) -> tuple[str, dict[tuple[str, int], str]]:
    """Return a meter's file, and which port was given which fault.

    Args:
        ports: those with a link by the plan.
        seed: the same one gives the same file.
        faults: how many ports are at fault, at most all that can be.
    """
    chance = random.Random(seed)
    kinds = list(METER_FAULTS)
    fast = [k for k, p in enumerate(ports) if p.mbps >= 1000]
    hidden: dict[tuple[str, int], str] = {}
    for number, k in enumerate(chance.sample(fast, min(faults, len(fast)))):
        kind = kinds[number % len(kinds)]
        if kind == "draws much" and ports[k].expected_w is None:
            kind = kinds[0]  # what is not fed draws nothing to begin with
        hidden[ports[k].switch, ports[k].port] = kind
    rows = [",".join(METER_HEADER)]
    for port in ports:
        watts = (port.expected_w or 0.0) * max(0.5, chance.gauss(1.0, SPREAD))
        mbps, kind = port.mbps, hidden.get((port.switch, port.port), "")
        if kind:
            speed, drawn = METER_FAULTS[kind]
            mbps = _BAD_PAIR_MBPS if kind == "bad pair" else round(mbps * speed)
            watts *= drawn
        said = f"{watts:.1f}" if port.expected_w is not None else ""
        rows.append(f"{port.switch_name},{port.port},{mbps},{said},{day},stand-in")
    return "\n".join(rows) + "\n", hidden


_OF_PLANNED, _ROOM_SPREAD = 0.9, 0.05


def measured_speeds(rows: Sequence[SeenSpeed], seed: int) -> dict[str, float]:
    """Return the speeds that a meter shows at each place, in Mb/s: a little under what the plan lets
    through, never nothing."""
    chance = random.Random(f"speeds-{seed}")
    return {
        row.where: round(max(0.1, row.planned_mbps * min(1.0, chance.gauss(_OF_PLANNED, _ROOM_SPREAD))), 1)
        for row in rows
    }
