"""What a way to a far place costs at once and over its years: parts, hours, digging, fees, energy, upkeep."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field

from pydantic import Field

from ..base.frozen import Frozen
from ..catalogue import Prices, Rules
from ..design import Dug, LandKind
from ..laying import DUG_SAID, Hazard, TrenchSize, crew_for, digging_minutes, trench_of

MONTHS, HOURS_A_YEAR = 12, 8760
# How ground is dug by what lies on it, the cheapest taken; across water nothing is.
DIGS: dict[LandKind, tuple[Dug, ...]] = {
    "lawn": ("loam", "machine", "plough"),
    "paving": ("paving",),
    "drive": ("drive",),
    "trees": ("stony",),
    "water": (),
}


class FarPart(Frozen):
    """A part of a way, at its price of one before margin and tax."""

    item: str
    label: str
    unit: str
    quantity: float
    price: float


class FarTask(Frozen):
    """Work of a way, as the work list has it: in which phase, of what kind, how much of it.

    ``minutes`` are those of one person before two share them; ``person_minutes`` of all who do it together.
    """

    key: str
    phase: str
    task: str
    label: str
    quantity: float
    minutes: float
    hazards: tuple[Hazard, ...]
    person_minutes: float
    trench: TrenchSize | None = None


class FarCost(Frozen):
    """What a way costs in the site's currency, without tax."""

    parts: float = Field(description="parts with the margin")
    work: float
    hours: float = Field(description="work of all who do it together, h")
    dig_m: float
    once: float = Field(description="parts and work, before anything runs")
    monthly: float = Field(description="fee of a plan, a month")
    energy_year: float
    upkeep_year: float
    later: float = Field(description="what is replaced within the years")
    total: float = Field(description="all of it over the years")


@dataclass
class Bill:
    """Gathers what a way takes."""

    prices: Prices
    years: int
    parts: list[FarPart] = field(default_factory=list)
    tasks: list[FarTask] = field(default_factory=list)
    dig_m: float = 0.0
    monthly: float = 0.0
    energy_w: float = 0.0
    upkeep_minutes: float = 0.0
    later: float = 0.0

    @property
    def rules(self) -> Rules:
        return self.prices.catalogue.rules

    def add(self, item: str, quantity: float = 1.0) -> None:
        """Add so many of an item at the price that the order has for it."""
        if quantity <= 0:
            return
        known = self.prices.items[item]
        self.parts.append(
            FarPart(
                item=item,
                label=known.label,
                unit=known.unit,
                quantity=round(quantity, 1),
                price=self.prices.each(item),
            )
        )

    def work(
        self,
        task: str,
        phase: str,
        label: str,
        minutes: float,
        quantity: float = 1.0,
        hazards: Sequence[Hazard] = (),
        trench: TrenchSize | None = None,
    ) -> None:
        """Add minutes of one person. Who is there for another's sake counts, too; in a trench both dig."""
        if minutes <= 0:
            return
        people, faster = crew_for(self.rules, hazards)
        self.tasks.append(
            FarTask(
                key=f"{task}-{len(self.tasks) + 1}",
                phase=phase,
                task=task,
                label=label,
                quantity=round(quantity, 1),
                minutes=minutes,
                hazards=tuple(hazards),
                person_minutes=round(round(minutes / faster, 1) * people, 1),
                trench=trench,
            )
        )

    def trench(self, metres: float, land: LandKind) -> None:
        """Add the cheapest digging that the ground bears, with its duct and tape. Both in a trench dig."""
        rules = self.rules
        depth_m = rules["far.depth_m"]

        def minutes(dug: Dug) -> float:
            return digging_minutes(rules, metres, depth_m, dug)

        dug = min(DIGS[land], key=minutes)
        self.dig_m = metres
        size = trench_of(rules, metres, depth_m, dug)
        label = f"Dig and fill {metres:.0f}\u00a0m, {depth_m:g}\u00a0m deep, {DUG_SAID[dug]}"
        self.work("trench", "dig", label, minutes(dug), metres, ("trench", "alone"), size)
        self.add("duct", metres)
        self.add("warning-tape", metres)

    def mast(self, height_m: float) -> None:
        """Add a mast with its earth; nobody puts one up alone."""
        rules = self.rules
        self.add("mast", height_m)
        self.add("mast-foot")
        self.add("mast-earth")
        minutes = rules["far.minutes.mast"] + rules["far.minutes.mast_m"] * height_m
        label = f"Put up a mast of {height_m:g}\u00a0m and earth it"
        self.work("mast", "mount", label, minutes, 1, ("roof", "ladder", "lightning"))

    def cost(self) -> FarCost:
        """Return the sums, each from what is listed."""
        rules = self.rules
        rate = rules["order.rate_per_hour"] / 60
        more = 1 + rules["order.margin_share"]
        parts = round(sum(round(p.quantity * p.price * more, 2) for p in self.parts), 2)
        minutes = sum(t.person_minutes for t in self.tasks)
        work = round(minutes * rate, 2)
        energy = round(self.energy_w / 1000 * HOURS_A_YEAR * rules["far.kwh_price"], 2)
        upkeep = round(self.upkeep_minutes * rate, 2)
        later = round(more * self.later, 2)
        once = round(parts + work, 2)
        running = self.years * (self.monthly * MONTHS + energy + upkeep)
        return FarCost(
            parts=parts,
            work=work,
            hours=round(minutes / 60, 1),
            dig_m=round(self.dig_m, 1),
            once=once,
            monthly=self.monthly,
            energy_year=energy,
            upkeep_year=upkeep,
            later=later,
            total=round(once + running + later, 2),
        )
