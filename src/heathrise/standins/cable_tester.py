"""A stand-in for a cable tester: a file of results made from a plan, with seeded faults."""

from __future__ import annotations

import random
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from ..core.install import Label

HEADER = ("label", "result", "wire_map", "length_m", "worst_margin_db", "date", "tester")
GOOD_MAP = "12345678"
SPREAD = 0.02  # of a length, from one measurement to another


@dataclass(frozen=True)
class Fault:
    """What a fault does to a result: its word, its wire map, what it makes of length and margin."""

    result: str
    wire_map: str
    length: float
    margin_db: tuple[float, float]


FAULTS: Mapping[str, Fault] = {
    "open": Fault("fail", "12345x78", 1.0, (0.0, 0.0)),
    "short": Fault("fail", "1(23)45678", 0.6, (-9.0, -3.0)),
    "split pair": Fault("fail", "12546378", 1.0, (-6.0, -1.0)),
    "marginal": Fault("pass", GOOD_MAP, 1.0, (0.1, 0.9)),
    "other way": Fault("pass", GOOD_MAP, 1.35, (1.5, 3.0)),
}


def measured_csv(
    labels: Sequence[Label], lengths_m: Mapping[str, float], seed: int, faults: int, day: str
) -> tuple[str, dict[str, str]]:
    """Return a tester's file, and which cable was given which fault.

    Args:
        lengths_m: planned length of each link, by its id.
        seed: the same one gives the same file.
        faults: how many cables are at fault, at most all of them.
    """
    chance = random.Random(seed)
    at_fault = chance.sample(range(len(labels)), min(faults, len(labels)))
    kinds = list(FAULTS)
    hidden = {labels[k].text: kinds[n % len(kinds)] for n, k in enumerate(at_fault)}
    rows = [",".join(HEADER)]
    for label in labels:
        fault = FAULTS.get(hidden.get(label.text, ""))
        length = lengths_m[label.link] * chance.gauss(1.0, SPREAD)
        margin = chance.uniform(2.5, 8.0)
        result, wire_map = "pass", GOOD_MAP
        if fault is not None:
            result, wire_map = fault.result, fault.wire_map
            length *= fault.length
            margin = chance.uniform(*fault.margin_db)
        rows.append(f"{label.near},{result},{wire_map},{max(length, 0.5):.1f},{margin:.1f},{day},stand-in")
    return "\n".join(rows) + "\n", hidden
