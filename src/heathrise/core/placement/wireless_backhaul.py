"""Back-haul over the air joined: beside each link what a cable instead would take and bring."""

from __future__ import annotations

from pydantic import Field

from ..base.frozen import Frozen
from ..cabling import judge_runs
from ..context.plan import Plan
from ..design import Change, Device, Run, put
from ..signal import MeshLink, environment_of, mesh_links
from .costs import place_cents


class CableInstead(Frozen):
    """A cable instead of the air: whether one gets there, what it takes, and the change for it."""

    link: MeshLink
    verdict: str
    reason: str
    cable_m: float = Field(description="one cable as bought, m")
    cost: float = Field(description="cable, ends and hours, without tax")
    changes: tuple[Change, ...]


class MeshView(Frozen):
    """All back-haul over the air of a plan."""

    currency: str
    links: tuple[CableInstead, ...]


def mesh_view(plan: Plan) -> MeshView:
    """Return each access point without a cable, its back-haul, and what a cable would take."""
    rows = [_instead(plan, link) for link in mesh_links(environment_of(plan))]
    return MeshView(currency=plan.drawn.site.currency, links=tuple(rows))


def _instead(plan: Plan, link: MeshLink) -> CableInstead:
    design = plan.design
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
    there = plan.after([put(wired)])
    (run,) = judge_runs(there.design, there.catalogue, only=device)
    (cents,) = place_cents(there, [device])
    return CableInstead(
        link=link,
        verdict=run.verdict,
        reason=run.reason,
        cable_m=run.bought_m,
        cost=round(cents / 100, 2),
        changes=(put(wired),),
    )
