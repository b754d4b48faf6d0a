"""Back-haul over the air joined: beside each link what a cable instead would take and bring."""

from __future__ import annotations

from collections.abc import Mapping

from pydantic import BaseModel, ConfigDict, Field

from ..cabling import judge_runs
from ..catalogue import Catalogue
from ..context.effective_rules import in_force
from ..context.scope import as_planned
from ..design import Change, Design, Device, Run, apply, put
from ..order import FirmPrice
from ..signal import MeshLink, air_of, mesh_links
from .costs import place_cents


class CableInstead(BaseModel):
    """A cable instead of the air: whether one gets there, what it takes, and the change for it."""

    model_config = ConfigDict(frozen=True)

    link: MeshLink
    verdict: str
    reason: str
    cable_m: float = Field(description="one cable as bought, m")
    cost: float = Field(description="cable, ends and hours, without tax")
    changes: tuple[Change, ...]


class MeshView(BaseModel):
    """All back-haul over the air of a plan."""

    model_config = ConfigDict(frozen=True)

    currency: str
    links: tuple[CableInstead, ...]


def mesh_view(drawn: Design, catalogue: Catalogue, firm: Mapping[str, FirmPrice]) -> MeshView:
    """Return each access point without a cable, its back-haul, and what a cable would take."""
    design, ruled = as_planned(drawn), in_force(drawn, catalogue)
    rows = [_instead(design, ruled, link, firm) for link in mesh_links(air_of(design, ruled))]
    return MeshView(currency=design.site.currency, links=tuple(rows))


def _instead(
    design: Design, catalogue: Catalogue, link: MeshLink, firm: Mapping[str, FirmPrice]
) -> CableInstead:
    device = design.of(Device)[link.device]
    runs = {r.device: r for r in design.of(Run).values()}
    said = runs.get(device.id)
    if said is None:
        return CableInstead(
            link=link,
            verdict="no_way",
            reason="it repeats what it hears and takes no cable",
            cable_m=0,
            cost=0,
            changes=(),
        )
    wired = said.model_copy(update={"over_air": False})
    there = apply(design, [put(wired)])
    (run,) = judge_runs(there, catalogue, only=device)
    (cents,) = place_cents(there, catalogue, [device], firm)
    return CableInstead(
        link=link,
        verdict=run.verdict,
        reason=run.reason,
        cable_m=run.bought_m,
        cost=round(cents / 100, 2),
        changes=(put(wired),),
    )
