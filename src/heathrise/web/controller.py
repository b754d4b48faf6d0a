"""Routes for a site's controller: read it, adopt and update its gear, take over, put back, keep backups."""

from __future__ import annotations

import secrets
from collections.abc import Mapping
from datetime import UTC, datetime
from typing import Literal

from apiflask import APIBlueprint
from flask import Response, abort, request

from ..asked import Changes
from ..controller import Controller, ControllerError
from ..controller.bring_up import BringUp, bring_up, ticks
from ..controller.contract import Measured
from ..controller.keys import KeyAt, key_stands
from ..controller.view import ControllerView, Measurement, controller_view, heard, measurement, with_past
from ..controller.work import Seen, read
from ..core.context.plan import Plan
from ..core.controlled import Differs
from ..core.design import DesignError, Device, Problem, Switch
from ..core.records import (
    AirHeard,
    BroughtTick,
    KeptBackup,
    KeySent,
    PushedStep,
    ReadBack,
    RoundBegun,
    SerialMatched,
    Staged,
    bench_of,
    kept_since,
    serials_as_matched,
    ticked,
)
from ..core.views.managed import tree_of, wanted_of
from ..core.views.push import differing, taken_over
from ..core.views.vouchers import codes_wanted
from ..formats.serials_csv import read_serials
from ..standins.controller.planting import planted
from ..store.observed import speeds_observed
from .controller_models import BackupNote, Serial, SerialsRead, SettingNamed, Staging, StandinSaid, Tick
from .desk import desk, stores
from .wire import AUTHOR, json_of, line_faults

routes = APIBlueprint("controller", __name__, url_prefix="/api/projects/<project_id>/controller")
Doing = Literal["adopt", "update", "blink", "still", "release"]


def seen_now(project_id: str, plan: Plan) -> tuple[Controller, Seen]:
    """Return a site's controller and what it holds now.

    Raises:
        ControllerError: it cannot be read.
    """
    controller = desk().controllers.of(project_id)
    said = serials_as_matched(stores().records.of(project_id, SerialMatched))
    return controller, read(controller, tree_of(plan), said)


def key_stands_now(project_id: str, plan: Plan, seen: Seen) -> tuple[dict[str, datetime], tuple[KeyAt, ...]]:
    """Return when each key that is kept was made, and how each stands at the controller."""
    kept, wanted = stores().keys.all(project_id), codes_wanted(plan)
    made = {of: row.made for of, row in kept.items() if row.parts >= wanted.get(of, 1)}
    return made, key_stands(plan, made, stores().records.of(project_id, KeySent), seen.keyed)


def _answered(project_id: str, status: int = 200) -> Response:
    _, plan = stores().plans.load(project_id)
    kept, place = stores().records, desk().controllers
    try:
        _, seen = seen_now(project_id, plan)
        reads = kept.of(project_id, ReadBack)
        keys = key_stands_now(project_id, plan, seen)[1]
        view = controller_view(plan, seen, reads, place.standin, keys)
    except ControllerError as error:
        view = ControllerView(known=place.root is not None, standin=place.standin, trouble=str(error))
    pushed, backups = kept.of(project_id, PushedStep), kept.of(project_id, KeptBackup)
    return json_of(with_past(view, pushed, backups), status)


@routes.get("")
@routes.output(ControllerView)
def get_controller(project_id: str) -> Response:
    """Show a controller beside the plan, as it is now."""
    return _answered(project_id)


@routes.post("/read")
@routes.output(ControllerView, status_code=201)
def note_read(project_id: str) -> Response:
    """Read everything back, and note what differs from the plan."""
    saved, plan = stores().plans.load(project_id)
    _, seen = seen_now(project_id, plan)
    differs = tuple(differing(plan, seen.held, seen.matched))
    count = sum(map(len, wanted_of(plan).values()))
    note = ReadBack(
        at=datetime.now(UTC), author=AUTHOR, revision=saved.revision, settings=count, differs=differs
    )
    stores().records.append(project_id, note)
    return _answered(project_id, 201)


@routes.post("/update")
@routes.output(ControllerView)
def update_controller(project_id: str) -> Response:
    """Let the controller update itself."""
    stores().repository.load(project_id)
    desk().controllers.of(project_id).update_itself()
    return _answered(project_id)


@routes.post("/gear/<serial>/<doing>")
@routes.output(ControllerView)
def do_with_gear(project_id: str, serial: str, doing: Doing) -> Response:
    """Adopt a device, update it, let it blink or be still again; a stand-in also releases it."""
    stores().repository.load(project_id)
    controller = desk().controllers.of(project_id)
    if doing == "adopt":
        controller.adopt(serial)
    elif doing == "update":
        controller.update(serial)
    elif doing in ("blink", "still"):
        controller.blink(serial, doing == "blink")
    elif doing == "release":
        desk().controllers.release(project_id, serial)
    else:
        abort(404, f"nothing is called {str(doing)[:20]!r}")
    return _answered(project_id)


@routes.put("/serials")
@routes.input(Serial, arg_name="said")
@routes.output(ControllerView)
def match_serial(project_id: str, said: Serial) -> Response:
    """Say which serial a device of the plan has, as its label says."""
    _, plan = stores().plans.load(project_id)
    if said.device not in plan.design.of(Device) and said.device not in plan.design.of(Switch):
        raise DesignError([Problem("device", f"there is no device {said.device[:40]!r} in the plan")])
    record = SerialMatched(
        at=datetime.now(UTC), author=AUTHOR, device=said.device, serial=said.serial.strip()
    )
    stores().records.append(project_id, record)
    return _answered(project_id)


@routes.post("/serials/list")
@routes.output(SerialsRead)
def read_serials_list(project_id: str) -> Response:
    """Read a file of serials. It is taken when nothing is at fault, or when ``take`` says so."""
    _, plan = stores().plans.load(project_id)
    read = read_serials(request.get_data(), {r.id: r.name for r in tree_of(plan).rows.values()})
    taken = not read.faults or request.args.get("take") == "1"
    if taken:
        now = datetime.now(UTC)
        rows = [
            (None, SerialMatched(at=now, author=AUTHOR, device=device, serial=serial))
            for device, serial in read.serials.items()
        ]
        stores().records.append_all(project_id, rows)
    return json_of(SerialsRead(read=len(read.serials), taken=taken, faults=line_faults(read.faults)))


@routes.post("/take-over")
@routes.input(SettingNamed, arg_name="said")
@routes.output(Changes)
def take_over(project_id: str, said: SettingNamed) -> Response:
    """Return the changes by which the plan has what the controller holds."""
    _, plan = stores().plans.load(project_id)
    changes = taken_over(plan, _named(project_id, plan, said))
    if changes is None:
        what = "the plan works this out; change what it follows from, or put it back"
        raise DesignError([Problem("key", what)])
    return json_of(Changes(changes=changes))


def _named(project_id: str, plan: Plan, said: SettingNamed) -> Differs:
    _, seen = seen_now(project_id, plan)
    for row in differing(plan, seen.held, seen.matched):
        if (row.target, row.key) == (said.target, said.key):
            return row
    raise DesignError([Problem("key", "it is as planned by now")])


def brought_now(project_id: str) -> BringUp:
    """Return how far a site is.

    Raises:
        ControllerError: its controller cannot be read.
    """
    _, plan = stores().plans.load(project_id)
    _, seen = seen_now(project_id, plan)
    kept = stores().records
    backed_up = kept_since(kept.of(project_id, PushedStep), kept.of(project_id, KeptBackup))
    marks = ticked(kept.of(project_id, BroughtTick))
    keys = key_stands_now(project_id, plan, seen)[1]
    speeds = speeds_observed(kept, project_id, plan)
    return bring_up(plan, seen, marks, backed_up, keys, speeds, bench_of(kept.of(project_id, Staged)))


def _brought(project_id: str, status: int = 200) -> Response:
    return json_of(brought_now(project_id), status)


@routes.get("/bring-up")
@routes.output(BringUp)
def get_bring_up(project_id: str) -> Response:
    """Show the fourteen steps of bringing the site up: done, ready, or what stands in the way."""
    return _brought(project_id)


@routes.put("/staging")
@routes.input(Staging, arg_name="said")
@routes.output(BringUp)
def stage(project_id: str, said: Staging) -> Response:
    """Note that the site is set up at the bench, behind another network, or stands where it belongs."""
    stores().repository.load(project_id)
    now = datetime.now(UTC)
    record = Staged(at=now, author=AUTHOR, at_bench=said.at_bench, subnet=said.subnet.strip())
    stores().records.append(project_id, record)
    return _brought(project_id)


@routes.post("/ticks")
@routes.input(Tick, arg_name="said")
@routes.output(BringUp, status_code=201)
def tick_by_hand(project_id: str, said: Tick) -> Response:
    """Note that something no controller can tell is done, or is open again."""
    stores().repository.load(project_id)
    if said.item not in ticks():
        raise DesignError([Problem("item", f"nothing to be ticked is called {said.item!r}")])
    now = datetime.now(UTC)
    record = BroughtTick(at=now, author=AUTHOR, item=said.item, done=said.done, note=said.note.strip())
    stores().records.append(project_id, record)
    return _brought(project_id, 201)


@routes.get("/measured")
@routes.output(Measurement)
def get_measured(project_id: str) -> Response:
    """Show who is on what, and how busy and noisy the air is, beside what was planned."""
    plan, found, devices = _heard_now(project_id)
    return json_of(measurement(plan, found, devices, stores().records.of(project_id, AirHeard)))


@routes.post("/measured")
@routes.output(Measurement, status_code=201)
def keep_measured(project_id: str) -> Response:
    """Keep who is on what and how busy the air is now, with the project."""
    plan, found, devices = _heard_now(project_id)
    kept = stores().records
    kept.append(project_id, heard(measurement(plan, found, devices), found, devices, AUTHOR))
    return json_of(measurement(plan, found, devices, kept.of(project_id, AirHeard)), 201)


def _heard_now(project_id: str) -> tuple[Plan, Measured, Mapping[str, str]]:
    """Return a plan, what its controller hears, and the plan's devices by their serial."""
    _, plan = stores().plans.load(project_id)
    controller, seen = seen_now(project_id, plan)
    return plan, controller.measured(), seen.devices


@routes.post("/backups")
@routes.input(BackupNote, arg_name="said")
@routes.output(ControllerView, status_code=201)
def keep_backup(project_id: str, said: BackupNote) -> Response:
    """Keep all that the controller holds with the project."""
    stores().repository.load(project_id)
    text = desk().controllers.of(project_id).backup()
    record = KeptBackup(at=datetime.now(UTC), author=AUTHOR, text=text, label=said.label.strip())
    stores().records.append(project_id, record)
    return _answered(project_id, 201)


@routes.post("/backups/<int:number>/restore")
@routes.output(ControllerView)
def restore_backup(project_id: str, number: int) -> Response:
    """Send the controller everything that a backup holds."""
    found = next((b for b in stores().records.of(project_id, KeptBackup) if b.number == number), None)
    if found is None:
        abort(404, f"there is no backup {number} of this project")
    desk().controllers.of(project_id).restore(found.text)
    return _answered(project_id)


@routes.put("/standin")
@routes.input(StandinSaid, arg_name="said")
@routes.output(ControllerView)
def plug_in(project_id: str, said: StandinSaid) -> Response:
    """Have the plan built in a stand-in: its gear is plugged in and has power, some of it with a fault."""
    _, plan = stores().plans.load(project_id)
    if stores().records.of(project_id, RoundBegun):
        raise DesignError([Problem("round", "a round is brought up once; begin another one on the project")])
    if said.afresh:
        desk().controllers.forget(project_id)
    seed = said.seed if said.seed is not None else secrets.randbelow(10_000)
    rows = [row.model_dump() for row in planted(plan, project_id)]
    desk().controllers.plug_in(project_id, rows, seed, said.faults)
    return _answered(project_id)
