"""The one way through: from a design to a chapter for each discipline, in their order."""

from __future__ import annotations

import logging
from collections.abc import Callable, Iterator, Mapping, Sequence
from typing import TypeVar

from ..base.bands import Band
from ..base.frozen import Frozen
from ..brief import BriefChapter, SiteStatus, brief_findings
from ..building import PlanChapter, plan_findings
from ..cabling import (
    CableChapter,
    RunVerdict,
    UplinkVerdict,
    assess_cable,
    bundle_findings,
    cable_findings,
    shared_load,
)
from ..catalogue import Catalogue
from ..context.findings import Cure, Finding, worst_first
from ..context.plan import Plan
from ..design import Design, Device, EquipmentRoom, Extender
from ..elevation import RackChapter, rack_findings
from ..mains import mains_lines
from ..power import CableHop, over_run
from ..rack import NO_POWER, PowerPlan, PowerRun, RoomUp, plan_power, power_findings
from ..settings import SettingsChapter, SettingsSheet, beacon_findings, beacons_by_band
from ..sight import views_of
from ..signal import (
    ChannelPlan,
    ChannelProblem,
    RadioEnvironment,
    RoomVerdict,
    SignalChapter,
    busy_findings,
    busy_hour,
    channel_findings,
    channel_plans,
    channel_tasks,
    environment_of,
    habit_findings,
    judge_habits,
    judge_rooms,
    mesh_cable_findings,
    mesh_findings,
    radios_of,
    sharing,
    signal_findings,
)
from ..walling import gaps_of
from .brief_status import brief_chapter, paths_of, planned_stand
from .chains import Chain, ChainChapter, chain_findings, chains_of
from .chapters import Chapters
from .far_ports import far_loads
from .plugs import plugs_of
from .racks import rack_chapter
from .settled import network_told, settings_told
from .side_effects import said_spoiled
from .totals import Totals, totals_of

log = logging.getLogger(__name__)

T = TypeVar("T")


class Evaluation(Frozen):
    """Everything computed from one design, a chapter for each discipline.

    In a preview ``settings`` is None, and so is what of the signal's takes a search.
    """

    brief: BriefChapter
    plan: PlanChapter
    signal: SignalChapter
    cable: CableChapter
    power: PowerPlan
    racks: RackChapter
    chains: ChainChapter
    settings: SettingsChapter | None
    totals: Totals

    @property
    def rooms(self) -> tuple[RoomVerdict, ...]:
        return self.signal.rooms

    @property
    def runs(self) -> tuple[RunVerdict, ...]:
        return self.cable.runs

    @property
    def uplinks(self) -> tuple[UplinkVerdict, ...]:
        return self.cable.uplinks

    @property
    def searching(self) -> bool:
        return self.signal.searching

    @property
    def findings(self) -> tuple[Finding, ...]:
        """Return the findings of all chapters, the worst first."""
        chapters = (self.plan, self.signal, self.cable, self.power, self.settings, self.brief)
        return worst_first([f for c in chapters if c is not None for f in c.findings])


NO_RACKS = RackChapter()
FRESH_SECONDS = 0.4  # one with channels still searched for is worked out anew, not for each who asks


def evaluate(plan: Plan, wait: bool = False) -> Evaluation:
    """Evaluate a plan whose drawing has passed ``integrity.check``.

    Args:
        wait: for the channel search; without it the best plan known is taken and the search is left
            running. A quick plan has none: left out are the channel plan, the brief's walks, the
            settings sheet, and cures that try other switches.
    """

    def stands(kept: Evaluation, age_s: float) -> bool:
        return not kept.searching or (not wait and age_s < FRESH_SECONDS)

    return plan.answer("evaluation", lambda: _evaluated(plan, wait), stands)


def _evaluated(plan: Plan, wait: bool) -> Evaluation:
    full = not plan.quick
    design, catalogue = plan.design, plan.catalogue
    chapters = Chapters()
    cabled = chapters.run("cable", lambda: assess_cable(design, catalogue))
    links = cabled or CableChapter()
    power = NO_POWER  # what rests on runs that failed is not worked out
    if cabled is not None:
        power = chapters.run("power", lambda: power_of(plan, links, full)) or NO_POWER
    chapters.tell("plan", lambda: plan_findings(design, catalogue))
    air = chapters.run("signal", lambda: environment_of(plan))
    tasks: dict[Band, ChannelProblem] = {}
    signal = SignalChapter()
    if air is not None:
        if wait and full:
            # The longest search runs beside all that does not need its answer.
            tasks = chapters.run("signal", lambda: channel_tasks(air, begin=True)) or {}
        rooms = chapters.run("signal", lambda: judge_rooms(air)) or []
        chapters.tell("signal", lambda: signal_findings(air, rooms))
        chapters.tell("signal", lambda: mesh_findings(air))
        signal = SignalChapter.model_construct(rooms=tuple(rooms))
        if full:
            chapters.tell("signal", lambda: mesh_cable_findings(air))
            habits = chapters.run("signal", lambda: judge_habits(air)) or []
            chapters.tell("signal", lambda: habit_findings(air, habits))
            signal = signal.model_copy(update={"habits": tuple(habits)})
    chapters.tell("cable", lambda: cable_findings(design, catalogue, links, _starves(catalogue)))
    power = chapters.run("power", lambda: _with_spoils(plan, power)) or power
    chapters.tell(
        "power",
        lambda: power_findings(catalogue.rules, power, design.of(EquipmentRoom), design.site.line_mbps),
    )
    carried = {f"run-{d.device}": d.port_w for d in power.devices}
    chapters.tell("cable", lambda: bundle_findings(catalogue.rules, links.trunks, carried))
    racks = chapters.run("power", lambda: rack_chapter(design, catalogue, links.links, power)) or NO_RACKS
    chapters.tell("power", lambda: rack_findings(design, catalogue, racks))
    chains = chapters.run("power", lambda: _chains(design, catalogue, links, power)) or ()
    chapters.tell("power", lambda: chain_findings(design, catalogue, chains))
    chapters.findings += network_told(design, catalogue)
    if full and air is not None:
        if not wait:
            tasks = chapters.run("signal", lambda: channel_tasks(air, begin=False)) or {}
        signal = _channels(chapters, air, tasks, wait, signal)
    settings: SettingsSheet | None = None
    if full:
        wired = frozenset({*wires_of(design, links.runs), *(p.device for p in power.plugged if not p.wrong)})
        settings, found = settings_told(design, catalogue, tuple(plugs_of(power)), wired)
        chapters.findings += found
    brief = _brief(chapters, plan, planned_stand(design, catalogue, air, links, power, signal), links)
    mains = chapters.run("plan", lambda: mains_lines(design)) or ()
    views = chapters.run("plan", lambda: views_of(design, catalogue)) or ()
    gaps = chapters.run("plan", lambda: gaps_of(design, catalogue.rules["plan.gap_m"])) or ()
    findings = chapters.findings
    totals = chapters.run("plan", lambda: totals_of(design, catalogue, signal.rooms, links, power, findings))
    return Evaluation(
        brief=brief.model_copy(update={"findings": chapters.of("brief")}),
        plan=PlanChapter(mains=mains, views=views, gaps=gaps, findings=chapters.of("plan")),
        signal=signal.model_copy(update={"findings": chapters.of("signal")}),
        cable=links.model_copy(update={"findings": chapters.of("cable")}),
        power=power.model_copy(update={"findings": chapters.of("power")}),
        racks=racks,
        chains=ChainChapter.model_construct(chains=chains),
        settings=_with_findings(settings, chapters.of("settings")) if full else None,
        totals=totals or Totals(currency=design.site.currency),
    )


def _with_spoils(plan: Plan, power: PowerPlan) -> PowerPlan:
    """Return the power plan with what those of its cures spoil that make devices do less."""

    def told(cure: Cure) -> Cure:
        if not any(change.kind == "device" for change in cure.changes):
            return cure
        return cure.model_copy(update={"effect": cure.effect + said_spoiled(plan, plan.after(cure.changes))})

    def all_told(by: Mapping[str, tuple[Cure, ...]]) -> dict[str, tuple[Cure, ...]]:
        return {key: tuple(told(cure) for cure in cures) for key, cures in by.items()}

    if not power.cures and not power.less_cures:
        return power
    more = {"cures": all_told(power.cures), "less_cures": all_told(power.less_cures)}
    return power.model_copy(update=more)


def _chains(design: Design, catalogue: Catalogue, links: CableChapter, power: PowerPlan) -> tuple[Chain, ...]:
    return chains_of(design, catalogue, links.runs, power, shared_load(design, catalogue, links.links))


def _channels(
    chapters: Chapters,
    air: RadioEnvironment,
    tasks: dict[Band, ChannelProblem],
    wait: bool,
    signal: SignalChapter,
) -> SignalChapter:
    """Add to the signal chapter what rests on the channel plans."""
    plans: dict[Band, ChannelPlan] = chapters.run("signal", lambda: channel_plans(air, tasks, wait)) or {}
    radios = chapters.run("signal", lambda: radios_of(air, plans)) or {}
    chapters.tell("signal", lambda: channel_findings(air, plans))
    catalogue, design = air.catalogue, air.design
    chapters.tell("settings", lambda: _beacons(air, plans))
    beacons = beacons_by_band(design, catalogue)
    busy = chapters.run("signal", lambda: busy_hour(air, plans, beacons))
    if busy is not None:
        chapters.tell("signal", lambda: busy_findings(air, busy))
        radios = {**radios, "busy": busy}
    return signal.model_copy(update=radios)


def _beacons(air: RadioEnvironment, plans: dict[Band, ChannelPlan]) -> Iterator[Finding]:
    for band in plans:
        yield from beacon_findings(air.design, air.catalogue, band, sharing(plans, band))


def _brief(chapters: Chapters, plan: Plan, planned: SiteStatus, links: CableChapter) -> BriefChapter:
    chapter = chapters.run("brief", lambda: brief_chapter(plan, planned))
    if chapter is not None:
        rows = (chapter.pains, chapter.wishes, chapter.found, chapter.reserves)
        chapters.tell("brief", lambda: brief_findings(planned, *rows, paths_of(links)))
    return chapter or BriefChapter()


def _with_findings(sheet: SettingsSheet | None, findings: tuple[Finding, ...]) -> SettingsChapter:
    fields = {k: getattr(sheet, k) for k in SettingsSheet.model_fields} if sheet is not None else {}
    nothing = {"networks": (), "names": (), "ports": (), "mesh_reason": ""}
    return SettingsChapter.model_validate({**nothing, **fields, "findings": findings})


def power_of(plan: Plan, links: CableChapter, full: bool) -> PowerPlan:
    """Return ports and budgets of a plan whose links are known; with cures where it is ``full``."""
    design, wires = plan.design, wires_of(plan.design, links.runs)
    return plan_power(design, plan.catalogue, wires, rooms_up_of(links.uplinks), full, far_loads(plan))


def wires_of(design: Design, runs: Sequence[RunVerdict]) -> dict[str, PowerRun]:
    extenders = design.of(Extender)
    return {
        r.device: PowerRun(
            device=r.device,
            room=r.room or "",
            # Fibre feeds nothing: what stands at its end does, over a cord in the room.
            loop_m=r.fixed_m + r.cords_m if r.medium == "copper" else r.cords_m / 2,
            heat_c=r.hottest_c,
            cables=r.cables,
            hops=_pieces(r, extenders),
            fibre=r.medium == "fibre",
        )
        for r in runs
        if r.verdict != "no_way"
    }


def _pieces(run: RunVerdict, extenders: Mapping[str, Extender]) -> tuple[tuple[float, str | None], ...]:
    """Return the pieces of a run with extenders, half of the cords at either end, each with the model
    at its far end."""
    last = len(run.hops) - 1
    return tuple(
        (
            h.length_m + run.cords_m / 2 * ((k == 0) + (k == last)),
            extenders[h.extender].model if h.extender else None,
        )
        for k, h in enumerate(run.hops)
    )


def _starves(catalogue: Catalogue) -> Callable[[Device, RunVerdict, Sequence[Extender]], bool]:
    """Return whether a device gets too little over a run with some extenders."""

    def starves(device: Device, run: RunVerdict, extenders: Sequence[Extender]) -> bool:
        model = catalogue.model_of(device)
        if model.power is None:
            return False
        pieces = _pieces(run, {e.id: e for e in extenders})
        hops = [CableHop(m, catalogue.extenders[e] if e else None) for m, e in pieces]
        name, loop_m = device.name, run.fixed_m + run.cords_m
        fed = over_run(
            catalogue.rules, device.id, name, model.label, model.power, loop_m, run.hottest_c, hops
        )
        return fed.verdict == "not_met"

    return starves


def rooms_up_of(uplinks: Sequence[UplinkVerdict]) -> dict[str, RoomUp]:
    return {u.room or "": RoomUp(u.to_room, u.medium, u.speed_mbps) for u in uplinks}
