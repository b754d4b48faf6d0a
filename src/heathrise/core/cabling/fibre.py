"""What a fibre link loses from one module to the other, and what is left of its strands."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from pydantic import Field

from ..base.frozen import Frozen
from ..catalogue import Catalogue, Rules

LinkWord = Literal["met", "near", "test_first", "not_met", "no_way"]
_ENDS = 2
STRANDS_USED = 2  # one each way
IN_HAND = "cabling.fibre_in_hand_db"
SPLICED = "cabling.fibre_spliced"


class FibreSheet(Frozen):
    """A fibre cable between two racks: strands, and the loss of one from module to module, dB."""

    strands: int = Field(description="strands in the cable")
    used: int = Field(description="strands that the link takes")
    spliced: int = Field(description="strands that end in a connector, those used among them")
    pairs: int = Field(description="pairs of connectors on the way of one strand")
    splices: int = Field(description="splices on the way of one strand")
    loss_db: float = Field(description="what length, connectors and splices lose together")
    budget_db: float = Field(description="what the modules bear at this speed")

    @property
    def free(self) -> int:
        """Strands that end in a connector and are not used."""
        return self.spliced - self.used

    @property
    def dark(self) -> int:
        """Strands that lie in the splice boxes without an end."""
        return self.strands - self.spliced


def fibre_sheet(catalogue: Catalogue, kind: str, speed_mbps: int, length_m: float) -> FibreSheet:
    """Return the sheet of a fibre of one kind: at each end a pigtail is spliced on and plugged in.

    References:
        TIA-568, channel loss as the sum of cable, connector pairs and splices, dB.
    """
    rules = catalogue.rules
    return FibreSheet(
        strands=catalogue.fibres[kind].strands,
        used=STRANDS_USED,
        spliced=int(rules[SPLICED]),
        pairs=_ENDS,
        splices=_ENDS,
        loss_db=round(length_m / 1000 * rules[f"cabling.fibre_db_per_km.{kind}"] + _at_ends_db(rules), 2),
        budget_db=rules[budget_path(rules, kind, speed_mbps)],
    )


@dataclass(frozen=True)
class FibreChoice:
    """A kind of fibre for a link, its verdict and what binds it."""

    kind: str
    verdict: LinkWord
    limit_m: float
    figure: str
    reason: str
    sheet: FibreSheet


def choose_fibre(catalogue: Catalogue, speed_mbps: int, fixed_m: float) -> FibreChoice:
    """Return the cheapest kind of fibre that reaches as far and keeps loss in hand, else one that bears the
    loss, else the farthest."""
    found = [_judged(catalogue, kind, speed_mbps, fixed_m) for kind in catalogue.fibres]
    costs = {k: f.price_per_m * fixed_m + _ENDS * f.optic_price for k, f in catalogue.fibres.items()}
    order = ("met", "near", "not_met")
    best = min(found, key=lambda f: (order.index(f.verdict), costs[f.kind]))
    return best if best.verdict != "not_met" else max(found, key=lambda f: f.limit_m)


def _judged(catalogue: Catalogue, kind: str, speed_mbps: int, fixed_m: float) -> FibreChoice:
    rules = catalogue.rules
    steps = rules.table(f"cabling.fibre_m.{kind}")
    step = next(s for s in steps if int(s) >= speed_mbps)
    path, limit = f"cabling.fibre_m.{kind}.{step}", steps[step]
    sheet = fibre_sheet(catalogue, kind, speed_mbps, fixed_m)
    kept_m, hand = loss_limit_m(rules, kind, speed_mbps), rules[IN_HAND]
    said = f"loses {sheet.loss_db:g} of {sheet.budget_db:g}\u00a0dB"
    if fixed_m > limit or sheet.loss_db > sheet.budget_db:
        word: LinkWord = "not_met"
    else:
        word = "met" if round(sheet.loss_db + hand, 2) <= sheet.budget_db else "near"
    if kept_m < limit:
        path, limit = budget_path(rules, kind, speed_mbps), kept_m
        said += f", with {hand:g}\u00a0dB kept"
    label = catalogue.fibres[kind].label
    reason = f"{label} reaches {limit:g}\u00a0m at {speed_mbps / 1000:g} Gb/s; {said}"
    return FibreChoice(kind, word, limit, path, reason, sheet)


def budget_path(rules: Rules, kind: str, speed_mbps: int) -> str:
    """Return the path of the loss that a kind of fibre bears at a speed."""
    steps = rules.table(f"cabling.fibre_budget_db.{kind}")
    return f"cabling.fibre_budget_db.{kind}.{next(s for s in steps if int(s) >= speed_mbps)}"


def loss_limit_m(rules: Rules, kind: str, speed_mbps: int) -> float:
    """Return the length in m at which what is kept in hand begins to be used up."""
    left_db = rules[budget_path(rules, kind, speed_mbps)] - rules[IN_HAND] - _at_ends_db(rules)
    return max(0.0, round(left_db / rules[f"cabling.fibre_db_per_km.{kind}"] * 1000, 1))


def _at_ends_db(rules: Rules) -> float:
    return _ENDS * (rules["cabling.fibre_pair_db"] + rules["cabling.fibre_splice_db"])
