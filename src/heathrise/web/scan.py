"""Routes for a scan of the neighbourhood by a site's own access points: its cost, its hour, what it heard."""

from __future__ import annotations

from apiflask import APIBlueprint
from flask import Response

from ..controller import Controller, ControllerError
from ..controller.scan import ScanView, scan_points, scan_view, seconds_to_quiet
from ..controller.work import Seen
from ..core.context.plan import Plan
from .controller import seen_now
from .controller_models import ScanWhen
from .desk import desk, stores
from .wire import json_of

routes = APIBlueprint("scan", __name__, url_prefix="/api/projects/<project_id>/controller/scan")


def _read(project_id: str) -> tuple[Plan, Controller, Seen]:
    _, plan = stores().plans.load(project_id)
    controller, seen = seen_now(project_id, plan)
    return plan, controller, seen


def _answered(plan: Plan, controller: Controller, seen: Seen, status: int = 200) -> Response:
    view = scan_view(plan, seen, controller.scan(), controller.measured())
    return json_of(view, status)


@routes.get("")
@routes.output(ScanView)
def get_scan(project_id: str) -> Response:
    """Show how a scan stands, whom one would take off the air now, and what the last one heard."""
    return _answered(*_read(project_id))


@routes.post("")
@routes.input(ScanWhen, arg_name="said")
@routes.output(ScanView, status_code=201)
def begin_scan(project_id: str, said: ScanWhen) -> Response:
    """Let the access points listen to the neighbourhood, at the site's quiet hour or now."""
    plan, controller, seen = _read(project_id)
    points = scan_points(plan, seen)
    if not points:
        raise ControllerError("refused", "no access point is online that could listen; bring one up first")
    in_s = 0.0
    if said.when == "quiet":
        wait_s = seconds_to_quiet(plan, seen)
        if wait_s is None:
            what = "the controller does not tell the time of day; let it listen now, at a quiet hour"
            raise ControllerError("wrong", what)
        in_s = wait_s
    controller.begin_scan([seen.matched[k] for k in points], in_s)
    return _answered(*_read(project_id), 201)


@routes.delete("")
@routes.output(ScanView)
def drop_scan(project_id: str) -> Response:
    """Take a scan back that waits."""
    plan, controller, seen = _read(project_id)
    controller.drop_scan()
    return _answered(plan, controller, seen)


@routes.post("/pass")
@routes.output(ScanView)
def let_the_hour_come(project_id: str) -> Response:
    """Let a stand-in's time go by until the scan that waits is over."""
    _, controller, seen = _read(project_id)
    scan = controller.scan()
    ends_s = scan.ends_s if scan.begins_s is None or scan.ends_s is not None else scan.begins_s + scan.takes_s
    if ends_s is not None:
        desk().controllers.let_pass(project_id, max(0.0, ends_s - seen.about.now_s))
    return _answered(*_read(project_id))
