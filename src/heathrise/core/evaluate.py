"""The one way through: from a design to everything that follows from it."""

from __future__ import annotations

import logging
from collections.abc import Callable, Collection, Iterable, Iterator, Sequence
from concurrent.futures import Future, ThreadPoolExecutor
from typing import Literal, TypeVar

from pydantic import BaseModel, ConfigDict

from .bands import BANDS, Band
from .cabling.assess import CableChapter, assess_cable
from .cabling.runs import RunVerdict
from .cabling.uplinks import UplinkVerdict
from .cabling.verdicts import cable_findings
from .catalogue import Catalogue
from .design import Design, Device, EquipmentRoom, Network, WirelessName
from .findings import Finding, Stage, worst_first
from .in_force import in_force
from .memo import IdentityMemo
from .plan.placing import placing_findings
from .plan.storeys import storey_findings
from .rack import NO_POWER, PowerPlan, RoomUp, Wire, plan_power
from .rack_findings import power_findings
from .settings.networks import network_findings
from .settings.port_findings import port_findings
from .settings.sheet import (
    Origin,
    Plug,
    RadioSheet,
    SettingsSheet,
    beacon_share,
    lowest_rate_mbps,
    mesh_reason,
    name_sheets,
    network_sheets,
    port_sheets,
)
from .signal.channels import ChannelPlan, Task, channel_task, plan_channels
from .signal.levels import Air
from .signal.quiet import quieten
from .signal.rooms import RoomVerdict, judge_rooms
from .signal.searches import searches
from .signal.terrain import terrain_of
from .signal.transmit import overrides, transmits
from .signal.verdicts import channel_findings, signal_findings
from .tally import Tally, tally_of

log = logging.getLogger(__name__)

T = TypeVar("T")
Depth = Literal["full", "figures", "preview"]


class Evaluation(BaseModel):
    """Everything computed from one design. ``settings`` is None in a preview.

    ``searching`` says that channels are a first plan and a better one is being looked for.
    """

    model_config = ConfigDict(frozen=True)

    rooms: tuple[RoomVerdict, ...]
    runs: tuple[RunVerdict, ...]
    uplinks: tuple[UplinkVerdict, ...]
    power: PowerPlan
    settings: SettingsSheet | None
    findings: tuple[Finding, ...]
    tally: Tally
    searching: bool = False


_airs: IdentityMemo[Air] = IdentityMemo(8)


def air_of(design: Design, catalogue: Catalogue, band: Band = "2.4") -> Air:
    """Return what levels depend on, with the planned power of every radio.

    For a ``band`` other than 2.4 GHz the search for that band's power is spared.
    """

    catalogue = in_force(design, catalogue)

    def make() -> Air:
        if band == "2.4":
            return quieten(air_of(design, catalogue, "5"))
        terrain = terrain_of(design, catalogue)
        return Air(design, catalogue, terrain, transmits(design, catalogue))

    return _airs.get((design, catalogue), band == "2.4", make)


def evaluate(design: Design, catalogue: Catalogue, depth: Depth = "full") -> Evaluation:
    """Evaluate a design that has passed ``integrity.check``.

    Args:
        depth: "full" waits for the channel search; "figures" takes the best plan known and leaves
            the search running; "preview", while something is dragged, leaves out what takes a
            search: the channel plan, the settings sheet, cures that try other switches, and the
            proof of box counts.
    """
    full = depth != "preview"
    catalogue = in_force(design, catalogue)
    chapters = Chapters()
    # Cable and power need nothing of the signal's, and much of both leaves Python's lock free.
    cable = _beside.submit(assess_cable, design, catalogue)
    rack = _beside.submit(_power, design, catalogue, cable, full)
    chapters.tell("plan", lambda: _plan_findings(design, catalogue))
    air = chapters.run("signal", lambda: air_of(design, catalogue))
    tasks: dict[Band, Task] = {}
    rooms: list[RoomVerdict] = []
    if air is not None:
        if depth == "full":
            # The longest search runs beside all that does not need its answer.
            tasks = chapters.run("signal", lambda: _tasks(air, begin=True)) or {}
        rooms = chapters.run("signal", lambda: judge_rooms(air)) or []
        chapters.tell("signal", lambda: signal_findings(air, rooms))
    links = chapters.run("cable", cable.result) or CableChapter()
    chapters.tell("cable", lambda: cable_findings(design, catalogue, links))
    wires = _wires(links.runs)
    power = chapters.run("power", lambda: rack.result() or NO_POWER) or NO_POWER
    chapters.tell("power", lambda: power_findings(catalogue.rules, power, design.of(EquipmentRoom)))
    chapters.tell("settings", lambda: network_findings(design, catalogue.rules))
    plans: dict[Band, ChannelPlan] = {}
    settings: SettingsSheet | None = None
    if full and air is not None:
        wait = depth == "full"
        if not wait:
            tasks = chapters.run("signal", lambda: _tasks(air, begin=False)) or {}
        plans = chapters.run("signal", lambda: _channel_plans(air, tasks, wait)) or {}
        settings = chapters.run("settings", lambda: _settings(air, plans, power, wires))
        chapters.tell("signal", lambda: channel_findings(air, plans))
        chapters.tell("settings", lambda: _beacons(design, catalogue, plans))
    if settings is not None:
        ports = settings.ports
        chapters.tell("settings", lambda: port_findings(design, catalogue, ports))
    findings = worst_first(chapters.findings)
    tally = chapters.run(
        "plan", lambda: tally_of(design, catalogue, rooms, links, power, findings, prove=full)
    )
    return Evaluation(
        rooms=tuple(rooms),
        runs=links.runs,
        uplinks=links.uplinks,
        power=power,
        settings=settings,
        findings=worst_first(chapters.findings),
        tally=tally or Tally(currency=design.site.currency),
        searching=any(plan.searching for plan in plans.values()),
    )


_beside = ThreadPoolExecutor(4, thread_name_prefix="chapters")


def _power(
    design: Design, catalogue: Catalogue, cable: Future[CableChapter], full: bool
) -> PowerPlan | None:
    """Return the power plan, or None where the runs that it rests on have failed."""
    if cable.exception() is not None:
        return None
    links = cable.result()
    return plan_power(design, catalogue, _wires(links.runs), _rooms_up(links.uplinks), full)


def _wires(runs: Sequence[RunVerdict]) -> dict[str, Wire]:
    return {
        r.device: Wire(
            device=r.device,
            room=r.room or "",
            loop_m=r.fixed_m + r.cords_m,
            heat_c=r.hottest_c,
            cables=r.cables,
        )
        for r in runs
        if r.verdict != "no_way"
    }


def _rooms_up(uplinks: Sequence[UplinkVerdict]) -> dict[str, RoomUp]:
    return {u.room or "": RoomUp(u.to_room, u.medium, u.speed_mbps) for u in uplinks}


class Chapters:
    """Works out one chapter after the other; one that fails says so while all others stand."""

    def __init__(self) -> None:
        self.findings: list[Finding] = []

    def run(self, stage: Stage, work: Callable[[], T]) -> T | None:
        """Return what ``work`` gives, or None and a finding where it fails."""
        try:
            return work()
        except Exception as error:
            log.exception("the %s chapter could not be worked out", stage)
            self.findings.append(_failed(stage, len(self.findings), error))
            return None

    def tell(self, stage: Stage, work: Callable[[], Iterable[Finding]]) -> None:
        """Add the findings that ``work`` yields, up to where it fails."""

        def add() -> None:
            for finding in work():
                self.findings.append(finding)

        self.run(stage, add)


def _failed(stage: Stage, number: int, error: Exception) -> Finding:
    return Finding(
        id=f"failed-{stage}-{number}",
        stage=stage,
        severity="not_met",
        text=f"This could not be worked out ({type(error).__name__}). What is drawn is safe and "
        "all else stands. Undo the last edit, or send the project file to whoever keeps this "
        "program.",
        rule="every chapter of the plan is worked out",
        source="this program",
    )


def _plan_findings(design: Design, catalogue: Catalogue) -> list[Finding]:
    return [*storey_findings(design, catalogue), *placing_findings(design, catalogue)]


def _tasks(air: Air, begin: bool) -> dict[Band, Task]:
    tasks = {band: channel_task(air, band) for band in BANDS if air.access_points(band)}
    for task in tasks.values() if begin else ():
        searches.begin(task)
    return tasks


def _channel_plans(air: Air, tasks: dict[Band, Task], wait: bool) -> dict[Band, ChannelPlan]:
    plans: dict[Band, ChannelPlan] = {}
    for band, task in tasks.items():
        if wait:
            solution, under_way = searches.begin(task).result(), False
        else:
            solution, under_way = searches.now(task)
        plans[band] = plan_channels(air, task, solution, under_way)
    return plans


def _beacons(
    design: Design, catalogue: Catalogue, plans: dict[Band, ChannelPlan]
) -> Iterator[Finding]:
    rules, networks = catalogue.rules, design.of(Network)
    names = [n for n in design.of(WirelessName).values() if "2.4" in n.bands]
    plan = plans.get("2.4")
    if plan is None or not names:
        return
    sharing = max((1 + len(rows) for rows in plan.contenders.values()), default=1)
    rates = [lowest_rate_mbps(rules, networks[n.network]) for n in names]
    share = sum(beacon_share(rules, 1, sharing, rate) for rate in rates)
    limit = rules["settings.beacon_limit_share"]
    if share > limit:
        yield Finding(
            id="settings-beacons",
            stage="settings",
            severity="near",
            text=f"Beacons take {share:.0%} of the air on 2.4 GHz: {len(names)} names on "
            f"{sharing} access points that share a channel.",
            figure=round(100 * share, 1),
            limit=100 * limit,
            unit="% of the air",
            rule="beacons leave the air to the rest",
            source=rules.source("settings.beacon_share.12"),
            used=rules.used("settings.beacon_limit_share"),
        )


def _settings(
    air: Air, plans: dict[Band, ChannelPlan], power: PowerPlan, wired: Collection[str]
) -> SettingsSheet:
    design = air.design
    plugs = [
        Plug(
            switch=p.switch, port=p.port, device=p.device, name=p.name,
            speed_mbps=p.speed_mbps, power=p.feeds, uplink=p.uplink, uplink_to=p.uplink_to,
        )
        for p in power.ports
    ]  # fmt: skip
    unproven = [b for b, p in plans.items() if not p.proven]
    return SettingsSheet(
        networks=network_sheets(design, air.rules),
        names=name_sheets(design, air.rules),
        radios=tuple(_radio_sheets(air, plans)),
        ports=port_sheets(design, air.catalogue, plugs),
        mesh_reason=mesh_reason(design, air.catalogue, wired),
        channels={b: air.channels.legal[b] for b in plans},
        channels_proven=not unproven,
        channels_note=_proof(plans),
    )


def _proof(plans: dict[Band, ChannelPlan]) -> str:
    parts = []
    for band, plan in plans.items():
        left = f"{plan.cost_db:.0f} dB of shared air" if plan.cost_db else "no two share air"
        proof = "proven best" if plan.proven else f"at best {plan.bound_db:.0f} dB"
        proof = "a better plan is being looked for" if plan.searching else proof
        parts.append(f"{band} GHz: {left}, {proof}")
    return "; ".join(parts)


def _radio_sheets(air: Air, plans: dict[Band, ChannelPlan]) -> Iterator[RadioSheet]:
    devices = air.design.of(Device)
    said = overrides(air.design)
    for (device_id, band), radio in air.radios.items():
        device = devices[device_id]
        plan = plans.get(band)
        channel = plan.channels.get(device_id, 0) if plan else 0
        held = said.get((device_id, band))
        by_hand = held is not None and held.channel is not None
        contenders = plan.contenders.get(device_id, ()) if plan else ()
        names = tuple(devices[other].name for other, _ in contenders)
        origin: Origin = "person" if by_hand or radio.by_person else "plan"
        yield RadioSheet(
            device=device_id,
            name=device.name,
            model=air.catalogue.model_of(device).label,
            band=band,
            on=radio.on,
            channel=channel,
            width_mhz=_width_mhz(air, band, plan.width_mhz, channel) if plan else 20,
            power_dbm=radio.power_dbm,
            eirp_dbm=radio.eirp_dbm,
            cap_dbm=radio.cap_dbm,
            origin=origin,
            channel_reason=_channel_reason(by_hand, radio.on, names),
            power_reason=radio.reason,
            contenders=names,
            radar=air.channels.needs_radar_watch(band, channel),
        )


def _width_mhz(air: Air, band: Band, width_mhz: int, channel: int) -> int:
    """Return the width of the legal block that holds a channel, in MHz."""
    return 20 * len(air.channels.block(band, width_mhz, channel))


def _channel_reason(by_hand: bool, on: bool, contenders: tuple[str, ...]) -> str:
    if not on:
        return "radio off"
    start = "set by hand" if by_hand else "by plan"
    if not contenders:
        return f"{start}: nobody it hears is on it"
    return f"{start}: shares air with {', '.join(contenders[:3])}"
