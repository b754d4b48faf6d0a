"""Routes for the hand-over: how it stands, what was agreed and signed, the sealed copy."""

from __future__ import annotations

from datetime import UTC, datetime

from apiflask import APIBlueprint
from flask import Response, request

from ..core.design import DesignError, Problem
from ..core.evaluation.evaluate import Evaluation, evaluate
from ..core.handover import Handover
from ..core.records import Agreed, HandedOver, Signed
from ..core.views.handover import Observed, handover_of
from ..formats.papers import Drawn, drawn_of, sealed_pdf, sheet_svg
from ..store import Repository, Saved
from ..store.observed import observed
from ..store.records import Records
from .models import Agreement, HandoverView, Keys, PastHandover, ProjectProgress, Signature
from .orders import order_for
from .transfer import file_stem
from .wire import json_of, whole_number


def make_handover(repository: Repository) -> APIBlueprint:
    """Return the blueprint over a repository."""
    routes = APIBlueprint("handover", __name__, url_prefix="/api/projects/<project_id>")
    records = Records(repository.engine) if repository is not None else None

    def stands(saved: Saved) -> tuple[Observed, Handover]:
        catalogue = repository.catalogue
        evaluation = evaluate(saved.design, catalogue, "figures")
        seen = observed(repository, saved, evaluation, datetime.now(UTC).date())
        return seen, handover_of(saved.design, catalogue, evaluation, seen)

    def answered(saved: Saved, status: int = 200) -> Response:
        return json_of(HandoverView(now=stands(saved)[1], past=past(saved.id)), status)

    def sheets_of(saved: Saved, evaluation: Evaluation) -> Drawn:
        today, catalogue = datetime.now(UTC).date(), repository.catalogue
        return drawn_of(saved.name, saved.revision, saved.design, catalogue, evaluation, today)

    def past(project_id: str) -> list[PastHandover]:
        assert records is not None
        signed = {s.handover: s for s in records.of(project_id, Signed)}
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
            for h in reversed(records.of(project_id, HandedOver))
        ]

    @routes.get("/handover")
    @routes.output(HandoverView)
    def seen(project_id: str) -> Response:
        return answered(repository.load(project_id))

    @routes.get("/progress")
    @routes.output(ProjectProgress)
    def progress(project_id: str) -> Response:
        saved, made = repository.load(project_id), past(project_id)
        seen, now = stands(saved)
        known = {s.id for s in seen.steps}
        states = [s.state for s in seen.stands if s.step in known]
        over = [f for f in order_for(repository, saved).findings if f.id == "order-budget"]
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
    def agreed(project_id: str, said: Agreement) -> Response:
        """Note that the client has agreed to a revision; what is built is compared with it."""
        assert records is not None
        saved = repository.load(project_id)
        if said.revision > saved.revision:
            what = f"there is no revision {said.revision} yet; the last is {saved.revision}"
            raise DesignError([Problem("revision", what)])
        record = Agreed(at=datetime.now(UTC), author=said.by, revision=said.revision)
        records.append(project_id, record)
        return answered(saved, 201)

    @routes.post("/handovers/<int:number>/signed")
    @routes.input(Signature, arg_name="said")
    @routes.output(HandoverView, status_code=201)
    def signed(project_id: str, number: int, said: Signature) -> Response:
        assert records is not None
        saved = repository.load(project_id)
        if number not in {h.number for h in past(project_id)}:
            what = f"there is no hand-over {number} of this project"
            raise DesignError([Problem("number", what)])
        record = Signed(at=datetime.now(UTC), author=said.by, handover=number, signed_by=said.signed_by)
        records.append(project_id, record, f"signed-{number}")
        return answered(saved, 201)

    @routes.post("/sealed")
    @routes.input(Keys, arg_name="said")
    def sealed(project_id: str, said: Keys) -> Response:
        """Print the sealed copy. Neither the keys nor the paper are kept."""
        saved = repository.load(project_id)
        evaluation = evaluate(saved.design, repository.catalogue, "preview")
        drawn = sheets_of(saved, evaluation)
        response = Response(sealed_pdf(drawn, said.keys), mimetype="application/pdf")
        name = f"{file_stem(saved.name)}-sealed.pdf"
        response.headers["Content-Disposition"] = f'attachment; filename="{name}"'
        return response

    @routes.get("/sheets/<floor>.svg")
    def sheet(project_id: str, floor: str) -> Response:
        """Draw one storey to scale as SVG."""
        saved = repository.load(project_id)
        scale = request.args.get("scale", "100")
        evaluation = evaluate(saved.design, repository.catalogue, "figures")
        drawn = sheets_of(saved, evaluation)
        text = sheet_svg(drawn, floor, whole_number(scale, most=10_000) or 0)
        response = Response(text, mimetype="image/svg+xml")
        name = f"{file_stem(saved.name)}-{file_stem(floor)}.svg"
        response.headers["Content-Disposition"] = f'attachment; filename="{name}"'
        return response

    return routes
