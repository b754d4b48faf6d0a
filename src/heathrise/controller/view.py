"""A controller beside the plan, as it is shown: devices as they hang, what differs, what would be sent."""

from __future__ import annotations

from collections import Counter
from collections.abc import Mapping, Sequence
from datetime import UTC, datetime
from typing import ClassVar

from pydantic import Field

from ..core.base.frozen import Frozen
from ..core.context.plan import Plan
from ..core.controlled import Managed, Tree
from ..core.design import Device
from ..core.evaluation.evaluate import evaluate
from ..core.records import (
    AirHeard,
    Drift,
    KeptBackup,
    PushedStep,
    RadioHeard,
    ReadBack,
    busiest_of,
    since_when,
)
from ..core.views.held import in_words, said_by_name, setting_names
from ..core.views.managed import tree_of, wanted_of
from ..core.views.push import differing, names_of, push_plan, taken_over
from .contract import About, Gear, Measured, Stand
from .keys import KeyAt
from .work import Seen

_SHOWN_PUSHES = 5


class DeviceRow(Frozen):
    """A device of the plan, how it hangs, and the device that the controller has for it."""

    KEY: ClassVar = ("id",)

    id: str
    name: str
    model: str
    kind: str
    parent: str | None
    depth: int
    port: int | None
    managed: bool
    over_air: bool
    serial: str = Field("", description="of what is matched to it, empty where nothing is")
    stand: Stand | None = Field(None, description="how it stands, None where it does not show itself")
    address: str = ""
    firmware: int = 0
    offers: int | None = None
    differs: int = Field(0, description="settings that are not as planned")
    planned_mbps: int | None = None
    link_mbps: int | None = None
    watts: float | None = None
    blinking: bool = False
    elsewhere: str = Field("", description="where it is plugged in or hangs, if not where it is planned")


class DiffersRow(Frozen):
    """A setting that is held otherwise than planned, in words, and since which read."""

    KEY: ClassVar = ("target", "key")

    target: str
    key: str
    name: str
    label: str
    held: str
    wanted: str
    since: datetime | None
    takes: bool = Field(description="whether the plan can have what is held")
    sent: bool = Field(False, description="whether it was held as it was sent once")


class StepRow(Frozen):
    """A step of the push as it would go now."""

    KEY: ClassVar = ("number",)

    number: int
    target: str
    name: str
    phase: str
    settings: int
    cuts: tuple[str, ...] = Field((), description="names of what it would cut off")
    branch: bool


class PushRow(Frozen):
    """A push as it went."""

    KEY: ClassVar = ("push",)

    push: str
    at: datetime
    by: str
    done: int
    of: int
    wrong: tuple[str, ...] = Field((), description="steps that did not go, in words")


class BackupRow(Frozen):
    """A backup that is kept with the project."""

    KEY: ClassVar = ("number",)

    number: int
    at: datetime
    by: str
    label: str
    bytes: int


class ControllerView(Frozen):
    """A site's controller beside its plan; ``trouble`` says why it cannot be read, where it cannot."""

    known: bool = Field(description="whether an address of a controller is known")
    standin: bool
    trouble: str = ""
    about: About | None = None
    devices: tuple[DeviceRow, ...] = ()
    strangers: tuple[Gear, ...] = ()
    settings: int = Field(0, description="settings of the plan")
    differs: tuple[DiffersRow, ...] = ()
    steps: tuple[StepRow, ...] = ()
    keys: tuple[KeyAt, ...] = ()
    pushes: tuple[PushRow, ...] = ()
    backups: tuple[BackupRow, ...] = ()
    read_at: datetime | None = None


def controller_view(
    plan: Plan, seen: Seen, reads: Sequence[ReadBack], standin: bool, keys: tuple[KeyAt, ...] = ()
) -> ControllerView:
    """Return a controller as it was just read, beside the plan, with how each key stands there."""
    tree = tree_of(plan)
    differs = differing(plan, seen.held, seen.matched)
    targets, elements = names_of(plan, differs, seen.held), setting_names(plan)
    many = Counter(d.target for d in differs)
    return ControllerView(
        known=True,
        standin=standin,
        about=seen.about,
        devices=tuple(_row(tree, row, seen, many[f"device/{row.id}"]) for row in hanging(tree)),
        strangers=tuple(seen.strangers),
        settings=sum(map(len, wanted_of(plan).values())),
        differs=tuple(_differs(plan, d, targets, elements) for d in since_when(differs, reads)),
        steps=tuple(
            StepRow(
                number=s.number,
                target=s.target,
                name=s.name,
                phase=s.phase,
                settings=len(s.changes),
                cuts=tuple(tree.rows[k].name for k in s.cuts),
                branch=s.branch,
            )
            for s in push_plan(plan, seen.held, seen.sendable(differs))
        ),
        keys=keys,
        read_at=reads[-1].at if reads else None,
    )


def with_past(
    view: ControllerView, pushed: Sequence[PushedStep], backups: Sequence[KeptBackup]
) -> ControllerView:
    """Return a view with what was pushed and kept before."""
    sent = {(s.target, c.key) for s in pushed if s.outcome == "done" for c in s.changes}
    return view.model_copy(
        update={
            "differs": tuple(d.model_copy(update={"sent": (d.target, d.key) in sent}) for d in view.differs),
            "pushes": tuple(pushes_of(pushed)[:_SHOWN_PUSHES]),
            "backups": tuple(
                BackupRow(number=b.number, at=b.at, by=b.author, label=b.label, bytes=len(b.text.encode()))
                for b in reversed(backups)
            ),
        }
    )


def pushes_of(steps: Sequence[PushedStep]) -> list[PushRow]:
    """Return pushes by their steps, the last first."""
    by_push: dict[str, list[PushedStep]] = {}
    for step in steps:
        by_push.setdefault(step.push, []).append(step)
    rows = [
        PushRow(
            push=push,
            at=mine[0].at,
            by=mine[0].author,
            done=sum(s.outcome == "done" for s in mine),
            of=mine[0].of,
            wrong=tuple(f"{s.name}: {s.words}" for s in mine if s.outcome not in ("done", "stopped")),
        )
        for push, mine in by_push.items()
    ]
    return rows[::-1]


def hanging(tree: Tree) -> list[Managed]:
    """Return the devices so that each stands below what it hangs on."""
    below: dict[str | None, list[Managed]] = {}
    for row in tree.rows.values():
        below.setdefault(row.parent, []).append(row)
    found: list[Managed] = []

    def go(parent: str | None) -> None:
        for row in sorted(below.get(parent, []), key=lambda r: (r.port or 0, r.name)):
            found.append(row)
            go(row.id)

    go(None)
    return found


def _row(tree: Tree, row: Managed, seen: Seen, differs: int) -> DeviceRow:
    serial = seen.matched.get(row.id, "")
    gear = seen.gear.get(serial)
    shown = DeviceRow(
        id=row.id,
        name=row.name,
        model=row.model,
        kind=row.kind,
        parent=row.parent,
        depth=tree.depth[row.id],
        port=row.port,
        managed=row.managed,
        over_air=row.over_air,
        serial=serial,
        differs=differs,
        planned_mbps=row.link_mbps,
    )
    if gear is None:
        return shown
    own = gear.model_dump(
        include={"stand", "address", "firmware", "offers", "link_mbps", "watts", "blinking"}
    )
    return shown.model_copy(update={**own, "elsewhere": elsewhere(tree, row, gear, seen)})


def elsewhere(tree: Tree, row: Managed, gear: Gear, seen: Seen) -> str:
    """Return in words where a device is plugged in, or on whom it hangs over the air, where that is not as
    planned; nothing where it is, or where what it hangs on tells nothing of its ports."""
    above, planned = seen.devices.get(gear.parent or ""), tree.rows.get(row.parent or "")
    if above is None or planned is None or not planned.managed:
        return ""
    if above == planned.id and (row.over_air or gear.port is None or gear.port == row.port):
        return ""
    if row.over_air:
        return f"hangs on {tree.rows[above].name}, planned on {planned.name}"
    at = f" at port {row.port}" if row.port is not None else ""
    return f"is plugged into {tree.rows[above].name}, port {gear.port}; planned on {planned.name}{at}"


def _differs(plan: Plan, drift: Drift, targets: Mapping[str, str], elements: Mapping[str, str]) -> DiffersRow:
    row = drift.differs
    return DiffersRow(
        target=row.target,
        key=row.key,
        name=targets.get(row.target, row.target),
        label=in_words(row.key),
        held=said_by_name(elements, row.held),
        wanted=said_by_name(elements, row.wanted),
        since=drift.since,
        takes=taken_over(plan, row) is not None,
    )


class MeasuredRadio(Frozen):
    """One radio as it is heard beside as it was planned: clients, share of its air, noise."""

    device: str
    name: str
    band: str
    channel: int
    clients: int
    planned_clients: float
    busy: float
    planned_busy: float | None
    noise_dbm: float
    most_busy: float | None = Field(None, description="largest share of its air that was kept")
    most_at: datetime | None = Field(None, description="when that was")


class Measurement(Frozen):
    """Who is on what just now, and how busy and noisy the air is."""

    radios: tuple[MeasuredRadio, ...]
    clients: int
    weak: int = Field(description="clients that are heard below the level from which one roams")
    kept: int = Field(0, description="how often it was kept")
    last_kept: datetime | None = None


def measurement(
    plan: Plan, found: Measured, devices: Mapping[str, str], kept: Sequence[AirHeard] = ()
) -> Measurement:
    """Return what was measured beside the plan, and beside what was kept of it before.

    Args:
        devices: those of the plan by their serial.
    """
    busiest = busiest_of(kept)
    names = {d.id: d.name for d in plan.design.of(Device).values()}
    busy = evaluate(plan).signal.busy
    loads = {(x.device, str(x.band)): x for x in busy.loads} if busy is not None else {}
    rows = []
    for air in found.air:
        device = devices.get(air.serial, "")
        load = loads.get((device, air.band))
        most = busiest.get((device or air.serial, air.band))
        rows.append(
            MeasuredRadio(
                device=device,
                name=names.get(device, air.serial),
                band=air.band,
                channel=air.channel,
                clients=air.clients,
                planned_clients=round(load.clients, 1) if load else 0.0,
                busy=air.busy,
                planned_busy=round(load.total, 3) if load else None,
                noise_dbm=air.noise_dbm,
                most_busy=most[0] if most is not None else None,
                most_at=most[1] if most is not None else None,
            )
        )
    weak = sum(c.dbm < plan.rules["signal.roam_below_dbm"] for c in found.clients)
    last = kept[-1].at if kept else None
    return Measurement(
        radios=tuple(rows), clients=len(found.clients), weak=weak, kept=len(kept), last_kept=last
    )


def heard(shown: Measurement, found: Measured, devices: Mapping[str, str], author: str) -> AirHeard:
    """Return what was measured as a record to be kept."""
    rows = ((devices.get(a.serial, a.serial), a.model_dump(exclude={"serial"})) for a in found.air)
    radios = tuple(RadioHeard(device=device, **more) for device, more in rows)
    now = datetime.now(UTC)
    return AirHeard(at=now, author=author, clients=shown.clients, weak=shown.weak, radios=radios)
