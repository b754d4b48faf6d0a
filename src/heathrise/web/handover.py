"""Routes for the hand-over: how it stands, what was agreed and signed, sheets."""

from __future__ import annotations

from datetime import UTC, datetime

from apiflask import APIBlueprint
from flask import Response, request

from ..core.base.memo import IdentityMemo
from ..core.context.plan import Plan
from ..core.design import DesignError, Problem
from ..core.evaluation.evaluate import evaluate
from ..core.handover import Handover
from ..core.records import Agreed, HandedOver, Signed
from ..core.views.bill_of_materials import order_of
from ..core.views.handover import Observed, handover_of
from ..formats.papers import drawn_of, sheet_svg
from ..store import Saved
from ..store.observed import observed
from .desk import stores
from .models import Agreement, HandoverView, PastHandover, ProjectProgress, Signature
from .transfer import file_stem
from .wire import download, json_of, whole_number

routes = APIBlueprint("handover", __name__, url_prefix="/api/projects/<project_id>")


_kept: IdentityMemo[tuple[Observed, Handover]] = IdentityMemo(8)


def _stands(saved: Saved, plan: Plan) -> tuple[Observed, Handover]:
    """Return what was seen and how the job stands, worked out once for each record that is written."""

    def look() -> tuple[Observed, Handover]:
        seen = observed(stores(), saved.id, plan)
        return seen, handover_of(plan, seen)

    if evaluate(plan).searching:
        return look()
    key = (saved.id, stores().records.last_number(saved.id), plan.on)
    return _kept.get((plan.drawn, plan.shelf, plan.prices), key, look)


def _answered(project_id: str, status: int = 200) -> Response:
    saved, plan = stores().plans.load(project_id)
    _, now = _stands(saved, plan)
    return json_of(HandoverView(now=now, past=_past(saved.id)), status)


def _past(project_id: str) -> list[PastHandover]:
    signed = {s.handover: s for s in stores().records.of(project_id, Signed)}
    return [
        PastHandover(
            number=h.number,
            at=h.at,
            by=h.author,
            revision=h.revision,
            papers=h.papers,
            still_open=list(h.still_open),
            signed_by=signed[h.number].signed_by if h.number in signed else None,
            signed_at=signed[h.number].at if h.number in signed else None,
        )
        for h in reversed(stores().records.of(project_id, HandedOver))
    ]


@routes.get("/handover")
@routes.output(HandoverView)
def get_handover(project_id: str) -> Response:
    return _answered(project_id)


@routes.get("/progress")
@routes.output(ProjectProgress)
def get_progress(project_id: str) -> Response:
    (saved, plan), made = stores().plans.load(project_id), _past(project_id)
    seen, now = _stands(saved, plan)
    known = {s.id for s in seen.steps}
    states = [s.state for s in seen.stands if s.step in known]
    over = [f for f in order_of(plan).findings if f.id == "order-budget"]
    return json_of(
        ProjectProgress(
            steps=len(seen.steps),
            done=states.count("done") + states.count("skipped"),
            blocked=states.count("blocked"),
            still_open=len(now.still_open),
            agreed=now.agreed_revision,
            handed_over=made[0].revision if made else None,
            signed=bool(made) and made[0].signed_by is not None,
            over_budget=round(sum((f.figure or 0) - (f.limit or 0) for f in over), 2),
        )
    )


@routes.post("/agreed")
@routes.input(Agreement, arg_name="said")
@routes.output(HandoverView, status_code=201)
def note_agreed(project_id: str, said: Agreement) -> Response:
    """Note that the client has agreed to a revision; what is built is compared with it."""
    saved = stores().repository.load(project_id)
    if said.revision > saved.revision:
        what = f"there is no revision {said.revision} yet; the last is {saved.revision}"
        raise DesignError([Problem("revision", what)])
    record = Agreed(at=datetime.now(UTC), author=said.by, revision=said.revision)
    stores().records.append(project_id, record)
    return _answered(project_id, 201)


@routes.post("/handovers/<int:number>/signed")
@routes.input(Signature, arg_name="said")
@routes.output(HandoverView, status_code=201)
def note_signed(project_id: str, number: int, said: Signature) -> Response:
    stores().repository.load(project_id)
    if number not in {h.number for h in _past(project_id)}:
        what = f"there is no hand-over {number} of this project"
        raise DesignError([Problem("number", what)])
    record = Signed(at=datetime.now(UTC), author=said.by, handover=number, signed_by=said.signed_by)
    stores().records.append(project_id, record, f"signed-{number}")
    return _answered(project_id, 201)


@routes.get("/sheets/<floor>.svg")
def get_sheet(project_id: str, floor: str) -> Response:
    """Draw one storey to scale as SVG."""
    saved, plan = stores().plans.load(project_id)
    scale = request.args.get("scale", "100")
    drawn = drawn_of(saved.name, saved.revision, plan)
    text = sheet_svg(drawn, floor, whole_number(scale, most=10_000) or 0)
    return download(text, "image/svg+xml", f"{file_stem(saved.name)}-{file_stem(floor)}.svg")
