"""The signal chapter: whether rooms meet their use, and how every radio is to be set."""

from __future__ import annotations

from collections.abc import Mapping

from ..base.bands import BANDS, Band
from ..base.frozen import Frozen
from ..base.memo import IdentityMemo
from ..base.progress import Progress
from ..catalogue import Catalogue
from ..context.effective_rules import in_force
from ..context.findings import Finding
from ..context.plan import Plan
from ..design import Design
from .capacity import Busy
from .channels import ChannelPlan, ChannelProblem, channel_task, exchanged, greedy, plan_channels, solve
from .habits import HabitVerdict
from .mesh import connected
from .obstacles import terrain_of
from .power_reduction import quieten
from .radio_environment import RadioEnvironment
from .radios import Fence, RadioSheet, fences, proof_of, radio_sheets
from .rooms import RoomVerdict
from .searches import searches
from .transmit import transmits


class SignalChapter(Frozen):
    """Rooms, walks and radios. What takes a search is None where none was made.

    ``channels`` are those that each band has on this site; ``searching`` says that those planned
    are a first plan and a better one is being looked for; ``fences`` is what a controller's own
    optimiser is kept within; ``busy`` is the busiest hour.
    """

    rooms: tuple[RoomVerdict, ...] = ()
    habits: tuple[HabitVerdict, ...] | None = None
    radios: tuple[RadioSheet, ...] | None = None
    channels: dict[Band, tuple[int, ...]] | None = None
    channels_proven: bool | None = None
    channels_note: str | None = None
    fences: tuple[Fence, ...] | None = None
    searching: bool = False
    busy: Busy | None = None
    findings: tuple[Finding, ...] = ()


# Its terrain and catalogue lie elsewhere too; its own are the radios.
_airs: IdentityMemo[RadioEnvironment] = IdentityMemo(64, weigh=lambda air: 400 * len(air.radios))


def air_of(design: Design, catalogue: Catalogue, band: Band = "2.4") -> RadioEnvironment:
    """Return what levels depend on, with the planned power of every radio.

    For a ``band`` other than 2.4 GHz the search for that band's power is spared.
    """

    catalogue = in_force(design, catalogue)

    def make() -> RadioEnvironment:
        if band == "2.4":
            planned = air_of(design, catalogue, "5")
            return quieten(planned) if catalogue.rules.text("signal.power_24") == "lowest" else planned
        terrain = terrain_of(design, catalogue)
        return connected(RadioEnvironment(design, catalogue, terrain, transmits(design, catalogue)))

    return _airs.get((design, catalogue), band == "2.4", make)


def environment_of(plan: Plan, band: Band = "2.4") -> RadioEnvironment:
    """Return what levels depend on in a plan; see ``air_of``."""
    return air_of(plan.design, plan.catalogue, band)


def channel_tasks(air: RadioEnvironment, begin: bool) -> dict[Band, ChannelProblem]:
    """Return what the plan of each band starts from; ``begin`` sets the searches going."""
    tasks = {band: channel_task(air, band) for band in BANDS if air.access_points(band)}
    for task in tasks.values() if begin else ():
        searches.begin(task)
    return tasks


def channel_plans(
    air: RadioEnvironment, tasks: Mapping[Band, ChannelProblem], wait: bool
) -> dict[Band, ChannelPlan]:
    """Return the best plans known by now or, with ``wait``, those that the searches end in."""
    plans: dict[Band, ChannelPlan] = {}
    for band, task in tasks.items():
        if wait:
            solution, under_way = searches.begin(task).result(), False
        else:
            solution, under_way = searches.now(task)
        plans[band] = plan_channels(air, task, solution, under_way)
    return plans


def quick_plans(air: RadioEnvironment) -> dict[Band, ChannelPlan]:
    """Return plans made at once and bettered radio by radio, for what is only tried out."""
    return {
        band: plan_channels(air, task, exchanged(task, greedy(task)))
        for band, task in channel_tasks(air, begin=False).items()
    }


def search_longer(
    plan: Plan, band: Band, seconds: float, progress: Progress
) -> tuple[ChannelPlan, ChannelPlan] | None:
    """Return the plan of a band as it is and as a longer search finds it; None without radios."""
    air = environment_of(plan)
    task = channel_tasks(air, begin=False).get(band)
    if task is None:
        return None
    now = plan_channels(air, task, searches.begin(task).result(), False)
    return now, plan_channels(air, task, solve(task, seconds, progress), False)


def radios_of(air: RadioEnvironment, plans: Mapping[Band, ChannelPlan]) -> dict[str, object]:
    """Return the fields of the chapter that rest on the channel plans."""
    return {
        "radios": tuple(radio_sheets(air, plans)),
        "channels": {band: air.channels.legal[band] for band in plans},
        "channels_proven": all(plan.proven for plan in plans.values()),
        "channels_note": proof_of(plans),
        "fences": tuple(fences(air, plans)),
        "searching": any(plan.searching for plan in plans.values()),
    }


def sharing(plans: Mapping[Band, ChannelPlan], band: Band) -> int:
    """Return how many access points share a channel and hear each other at most, one at least."""
    plan = plans.get(band)
    return max((1 + len(rows) for rows in plan.contenders.values()), default=1) if plan else 1
