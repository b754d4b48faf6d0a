"""The kinds of job: a name, what may be asked of it, and a function from a design to a result that
JSON can hold."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from datetime import UTC, datetime
from typing import Annotated, Any, Generic, TypeVar

from pydantic import BaseModel, ConfigDict, Field, ValidationError

from ..core.base.progress import Progress, ShowBest
from ..core.catalogue import Catalogue
from ..core.context.effective_rules import in_force
from ..core.context.scope import as_planned
from ..core.design import Design, DesignError, ElementId, Floor, Problem
from ..core.evaluation.cure_search import search_cures
from ..core.evaluation.evaluate import Evaluation, evaluate
from ..core.order import FirmPrice
from ..core.placement import Wishes, best_places, needless, search_sites
from ..core.records import HandedOver, Record
from ..core.signal import MOST_POINTS, WalkPoint
from ..core.views.bill_of_materials import order_of
from ..core.views.busy_hour import busy_view
from ..core.views.failures import drill
from ..core.views.handover import Observed, handover_of
from ..core.views.labels import project_labels
from ..core.views.offers import POLICY_NAMES, make_variant, offers
from ..core.views.promises import promised
from ..core.views.savings import savings_of
from ..core.views.work_list import steps_of
from ..formats.papers import (
    Drawn,
    Head,
    History,
    Quote,
    brief_pdf,
    check_paper,
    client_pdf,
    drawn_of,
    labels_pdf,
    quote_pdf,
    sheets_pdf,
    technician_pdf,
)


@dataclass(frozen=True)
class Work:
    """What a job has to go on: a project as it was saved.

    ``keep`` keeps a paper of a kind under a name, and returns its id; ``prices`` gives the firm's;
    ``seen`` what was seen on the site beside an evaluation; ``history`` the journal's last lines;
    ``record`` appends a record and returns its number, ``last_record`` is the last one's;
    ``show`` shows the best so far; ``head`` is the firm's head for papers, ``next_offer`` gives
    the number of its next offer.
    """

    name: str
    revision: int
    design: Design
    catalogue: Catalogue
    progress: Progress
    keep: Callable[[str, str, bytes], str]
    prices: Callable[[], Mapping[str, FirmPrice]]
    seen: Callable[[Evaluation], Observed]
    history: Callable[[], list[History]]
    record: Callable[[Record], int]
    last_record: Callable[[], int]
    show: ShowBest
    head: Callable[[], Head]
    next_offer: Callable[[], str]


class Asked(BaseModel):
    """What may be asked of a job; by itself nothing."""

    model_config = ConfigDict(frozen=True, extra="forbid")


A = TypeVar("A", bound=Asked)


@dataclass(frozen=True)
class JobKind(Generic[A]):
    """A kind of job: how it is asked for, and what it does."""

    asked: type[A]
    run: Callable[[Work, A], dict[str, Any]]

    def parse(self, arguments: Mapping[str, Any]) -> A:
        """Return what was asked, checked.

        Raises:
            DesignError: an argument is missing, too much, or not what it should be.
        """
        try:
            return self.asked.model_validate(arguments)
        except ValidationError as error:
            raise DesignError(
                [Problem(".".join(map(str, e["loc"])) or "arguments", e["msg"]) for e in error.errors()]
            ) from None


class CuresAsked(Asked):
    finding: Annotated[str, Field(max_length=200)]


class LabelsAsked(Asked):
    sheet: Annotated[str, Field(max_length=80)]


class SheetsAsked(Asked):
    paper: Annotated[str, Field(max_length=20)] = "A4"
    scale: int | None = None
    floors: Annotated[tuple[ElementId, ...], Field(max_length=200)] | None = None


class HandoverAsked(Asked):
    by: Annotated[str, Field(max_length=120)]


class VariantAsked(Asked):
    policy: Annotated[str, Field(max_length=40)]


class DrillAsked(Asked):
    path: Annotated[tuple[WalkPoint, ...], Field(max_length=MOST_POINTS)] = ()


class SitesAsked(Asked):
    wishes: Wishes = Wishes()


class BestPlacesAsked(SitesAsked):
    device: ElementId


def _cures(work: Work, asked: CuresAsked) -> dict[str, Any]:
    """Look for moves that mend a room; one that is stopped gives the best found by then."""
    planned = as_planned(work.design)
    if asked.finding.startswith("signal-busy"):
        view = busy_view(work.design, work.catalogue)
        return {"cures": [cure.model_dump(mode="json") for cure in view.cures]}
    found = search_cures(planned, work.catalogue, asked.finding, work.progress)
    return {"cures": [cure.model_dump(mode="json") for cure in found]}


def _brief_pdf(work: Work, _: Asked) -> dict[str, Any]:
    """Print the brief."""
    work.progress(1, 3)
    evaluation = evaluate(work.design, work.catalogue, "figures")
    work.progress(2, 3)
    today = datetime.now(UTC).date()
    ruled = in_force(work.design, work.catalogue)
    data = brief_pdf(work.name, work.design, ruled, evaluation, work.revision, today, work.head())
    return {"paper": work.keep("brief", "brief.pdf", data)}


def _quote_pdf(work: Work, _: Asked) -> dict[str, Any]:
    """Print the offer."""
    work.progress(1, 4)
    evaluation = evaluate(work.design, work.catalogue, "figures")
    today = datetime.now(UTC).date()
    order = order_of(work.design, work.catalogue, evaluation, work.prices(), today)
    work.progress(2, 4)
    options = offers(work.design, work.catalogue, work.prices(), today)
    steps = steps_of(work.design, work.catalogue, evaluation)
    ruled = in_force(work.design, work.catalogue)
    said = promised(as_planned(work.design), ruled, evaluation, steps)
    if not work.progress(3, 4):
        return {}
    quote = Quote(
        work.name, work.design, evaluation, order, said, work.revision, today, options, work.next_offer()
    )
    data = quote_pdf(quote, work.head())
    return {"paper": work.keep("quote", "offer.pdf", data)}


def _labels_pdf(work: Work, asked: LabelsAsked) -> dict[str, Any]:
    """Print the labels on a sheet as it is sold."""
    sheet = work.catalogue.label_sheets.get(asked.sheet)
    if sheet is None:
        listed = ", ".join(work.catalogue.label_sheets)
        raise DesignError([Problem("sheet", f"there are {listed}")])
    evaluation = evaluate(work.design, work.catalogue, "figures")
    work.progress(1, 2)
    data = labels_pdf(work.name, project_labels(work.design, evaluation), sheet)
    return {"paper": work.keep("labels", "labels.pdf", data)}


def _drawn(work: Work, evaluation: Evaluation) -> Drawn:
    today = datetime.now(UTC).date()
    return drawn_of(work.name, work.revision, work.design, work.catalogue, evaluation, today)


def _sheets_pdf(work: Work, asked: SheetsAsked) -> dict[str, Any]:
    """Print storeys to scale."""
    check_paper(asked.paper, asked.scale)
    evaluation = evaluate(work.design, work.catalogue, "figures")
    work.progress(1, 2)
    drawn = _drawn(work, evaluation)
    only = list(asked.floors) if asked.floors else None
    data = sheets_pdf(drawn, asked.paper, asked.scale, only)
    return {"paper": work.keep("sheets", "sheets.pdf", data)}


def _handover(work: Work, asked: HandoverAsked) -> dict[str, Any]:
    """Print both hand-overs and note them: what is handed over does not change afterwards."""
    by = asked.by.strip()
    if not by:
        raise DesignError([Problem("by", "say who hands over")])
    last_record = work.last_record()
    evaluation = evaluate(work.design, work.catalogue, "full")
    work.progress(1, 4)
    seen = work.seen(evaluation)
    handover = handover_of(work.design, work.catalogue, evaluation, seen)
    drawn = _drawn(work, evaluation)
    head = work.head()
    client = client_pdf(drawn, handover, head)
    work.progress(2, 4)
    technician = technician_pdf(drawn, handover, seen, work.history(), head)
    if not work.progress(3, 4):
        return {}
    papers = {
        "client": work.keep("handover_client", "hand-over.pdf", client),
        "technician": work.keep("handover_technician", "technician.pdf", technician),
    }
    said = HandedOver(
        at=datetime.now(UTC),
        author=by,
        revision=work.revision,
        last_record=last_record,
        papers=papers,
        still_open=tuple(p.text for p in handover.still_open),
    )
    return {"handover": work.record(said), "papers": papers}


def _variant(work: Work, asked: VariantAsked) -> dict[str, Any]:
    """Make another way of doing the job by a policy."""
    policy = next((p for p in POLICY_NAMES if p == asked.policy), None)
    if policy is None:
        raise DesignError([Problem("policy", f"there are {', '.join(POLICY_NAMES)}")])
    changes = make_variant(work.design, work.catalogue, policy, work.progress)
    return {"name": POLICY_NAMES[policy], "changes": [c.model_dump(mode="json") for c in changes]}


def _savings(work: Work, _: Asked) -> dict[str, Any]:
    """Try what could be left out; one that is stopped gives those tried by then."""
    today = datetime.now(UTC).date()
    found = savings_of(work.design, work.catalogue, work.prices(), today, work.progress)
    return {"savings": [s.model_dump(mode="json") for s in found]}


def _drill(work: Work, asked: DrillAsked) -> dict[str, Any]:
    """Try what each single failure does; one that is stopped gives those tried by then."""
    evaluation = evaluate(work.design, work.catalogue, "figures")
    # Storeys that are no more are left out of the walk.
    path = [p for p in asked.path if p.floor in work.design.of(Floor)]
    found = drill(work.design, work.catalogue, evaluation, work.progress, path)
    return {"failures": [f.model_dump(mode="json") for f in found]}


def _sites(work: Work, asked: SitesAsked) -> dict[str, Any]:
    """Look for places for access points; stopped, the best by then."""
    today = datetime.now(UTC).date()
    found = search_sites(
        work.design, work.catalogue, asked.wishes, work.prices(), today, work.progress, work.show
    )
    return found.model_dump(mode="json")


def _best_places(work: Work, asked: BestPlacesAsked) -> dict[str, Any]:
    """Look for the best place for one access point while the others stay."""
    found = best_places(work.design, work.catalogue, asked.device, asked.wishes, work.progress)
    return {"cures": [cure.model_dump(mode="json") for cure in found]}


def _needless(work: Work, _: SitesAsked) -> dict[str, Any]:
    """Try which access points nobody would miss."""
    found = needless(work.design, work.catalogue, work.progress)
    return {"cures": [cure.model_dump(mode="json") for cure in found]}


KINDS: dict[str, JobKind[Any]] = {
    "cures": JobKind(CuresAsked, _cures),
    "drill": JobKind(DrillAsked, _drill),
    "brief_pdf": JobKind(Asked, _brief_pdf),
    "quote_pdf": JobKind(Asked, _quote_pdf),
    "labels_pdf": JobKind(LabelsAsked, _labels_pdf),
    "sheets_pdf": JobKind(SheetsAsked, _sheets_pdf),
    "handover": JobKind(HandoverAsked, _handover),
    "variant": JobKind(VariantAsked, _variant),
    "savings": JobKind(Asked, _savings),
    "sites": JobKind(SitesAsked, _sites),
    "best_places": JobKind(BestPlacesAsked, _best_places),
    "needless": JobKind(SitesAsked, _needless),
}
