"""The kinds of job: a name, and a function from a design to a result that JSON can hold."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from datetime import UTC, datetime
from typing import Any

from pydantic import TypeAdapter, ValidationError

from ..core.catalogue import Catalogue
from ..core.design import Design, DesignError, Floor, Problem
from ..core.drill import drill
from ..core.evaluate import Evaluation, evaluate
from ..core.handing import Observed, handover_of
from ..core.in_force import in_force
from ..core.kept import as_planned
from ..core.labelling import project_labels
from ..core.offers import POLICY_NAMES, make_variant
from ..core.order import FirmPrice
from ..core.ordering import order_of
from ..core.progress import Progress, ShowBest
from ..core.records import HandedOver, Record
from ..core.remedies import search_cures
from ..core.signal import MOST_POINTS, WalkPoint
from ..core.siting import Wishes, best_places, needless, search_sites
from ..formats.papers import (
    Drawn,
    History,
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
    """What a job has to go on: a project as it was saved, and what was asked.

    ``keep`` keeps a paper of a kind under a name, and returns its id; ``prices`` gives the firm's;
    ``seen`` what was seen on the site beside an evaluation; ``history`` the journal's last lines;
    ``record`` appends a record and returns its number, ``last_record`` is the last one's;
    ``show`` shows the best so far.
    """

    name: str
    revision: int
    design: Design
    catalogue: Catalogue
    arguments: Mapping[str, Any]
    progress: Progress
    keep: Callable[[str, str, bytes], str]
    prices: Callable[[], Mapping[str, FirmPrice]]
    seen: Callable[[Evaluation], Observed]
    history: Callable[[], list[History]]
    record: Callable[[Record], int]
    last_record: Callable[[], int]
    show: ShowBest


def _cures(work: Work) -> dict[str, Any]:
    """Look for moves that mend a room; one that is stopped gives the best found by then."""
    finding = str(work.arguments.get("finding", ""))
    found = search_cures(as_planned(work.design), work.catalogue, finding, work.progress)
    return {"cures": [cure.model_dump(mode="json") for cure in found]}


def _brief_pdf(work: Work) -> dict[str, Any]:
    """Print the brief."""
    work.progress(1, 3)
    evaluation = evaluate(work.design, work.catalogue, "figures")
    work.progress(2, 3)
    today = datetime.now(UTC).date()
    ruled = in_force(work.design, work.catalogue)
    data = brief_pdf(work.name, work.design, ruled, evaluation, work.revision, today)
    return {"paper": work.keep("brief", "brief.pdf", data)}


def _quote_pdf(work: Work) -> dict[str, Any]:
    """Print the offer."""
    work.progress(1, 3)
    evaluation = evaluate(work.design, work.catalogue, "figures")
    today = datetime.now(UTC).date()
    order = order_of(work.design, work.catalogue, evaluation, work.prices(), today)
    work.progress(2, 3)
    data = quote_pdf(work.name, work.design, evaluation, order, work.revision, today)
    return {"paper": work.keep("quote", "offer.pdf", data)}


def _labels_pdf(work: Work) -> dict[str, Any]:
    """Print the labels on a sheet as it is sold."""
    sheet = work.catalogue.label_sheets.get(str(work.arguments.get("sheet", "")))
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


def _sheets_pdf(work: Work) -> dict[str, Any]:
    """Print storeys to scale."""
    paper, scale = str(work.arguments.get("paper", "A4")), work.arguments.get("scale")
    check_paper(paper, scale)
    evaluation = evaluate(work.design, work.catalogue, "figures")
    work.progress(1, 2)
    drawn = _drawn(work, evaluation)
    only = work.arguments.get("floors")
    data = sheets_pdf(drawn, paper, scale, list(only) if only else None)
    return {"paper": work.keep("sheets", "sheets.pdf", data)}


def _handover(work: Work) -> dict[str, Any]:
    """Print both hand-overs and note them: what is handed over does not change afterwards."""
    by = str(work.arguments.get("by", "")).strip()[:120]
    if not by:
        raise DesignError([Problem("by", "say who hands over")])
    last_record = work.last_record()
    evaluation = evaluate(work.design, work.catalogue, "full")
    work.progress(1, 4)
    seen = work.seen(evaluation)
    handover = handover_of(work.design, work.catalogue, evaluation, seen)
    drawn = _drawn(work, evaluation)
    client = client_pdf(drawn, handover)
    work.progress(2, 4)
    technician = technician_pdf(drawn, handover, seen, work.history())
    if not work.progress(3, 4):
        return {}
    papers = {
        "client": work.keep("handover_client", "hand-over.pdf", client),
        "technician": work.keep("handover_technician", "technician.pdf", technician),
    }
    said = HandedOver(
        at=datetime.now(UTC), author=by, revision=work.revision, last_record=last_record,
        papers=papers, still_open=tuple(p.text for p in handover.still_open),
    )  # fmt: skip
    return {"handover": work.record(said), "papers": papers}


def _variant(work: Work) -> dict[str, Any]:
    """Make another way of doing the job by a policy."""
    policy = work.arguments.get("policy")
    if policy not in POLICY_NAMES:
        raise DesignError([Problem("policy", f"there are {', '.join(POLICY_NAMES)}")])
    changes = make_variant(work.design, work.catalogue, policy, work.progress)
    return {
        "name": POLICY_NAMES[policy],
        "changes": [c.model_dump(mode="json") for c in changes],
    }


def _drill(work: Work) -> dict[str, Any]:
    """Try what each single failure does; one that is stopped gives those tried by then."""
    evaluation = evaluate(work.design, work.catalogue, "figures")
    found = drill(work.design, work.catalogue, evaluation, work.progress, _path(work))
    return {"failures": [f.model_dump(mode="json") for f in found]}


def _path(work: Work) -> list[WalkPoint]:
    """Return the walk that was asked about, storeys that are no more left out."""
    try:
        rows = TypeAdapter(list[WalkPoint]).validate_python(work.arguments.get("path", []))
    except ValidationError as error:
        raise DesignError([Problem("path", error.errors()[0]["msg"])]) from None
    if len(rows) > MOST_POINTS:
        raise DesignError([Problem("path", f"has {len(rows)} spots; at most {MOST_POINTS}")])
    return [r for r in rows if r.floor in work.design.of(Floor)]


def _wishes(work: Work) -> Wishes:
    try:
        return Wishes.model_validate(work.arguments.get("wishes", {}))
    except ValidationError as error:
        first = error.errors()[0]
        where = ".".join(map(str, first["loc"])) or "wishes"
        raise DesignError([Problem(where, first["msg"])]) from None


def _sites(work: Work) -> dict[str, Any]:
    """Look for places for access points; stopped, the best by then."""
    today = datetime.now(UTC).date()
    found = search_sites(
        work.design, work.catalogue, _wishes(work), work.prices(), today, work.progress, work.show
    )
    return found.model_dump(mode="json")


def _best_places(work: Work) -> dict[str, Any]:
    """Look for the best place for one access point while the others stay."""
    device = str(work.arguments.get("device", ""))
    found = best_places(work.design, work.catalogue, device, _wishes(work), work.progress)
    return {"cures": [cure.model_dump(mode="json") for cure in found]}


def _needless(work: Work) -> dict[str, Any]:
    """Try which access points nobody would miss."""
    found = needless(work.design, work.catalogue, work.progress)
    return {"cures": [cure.model_dump(mode="json") for cure in found]}


KINDS: dict[str, Callable[[Work], dict[str, Any]]] = {
    "cures": _cures,
    "drill": _drill,
    "brief_pdf": _brief_pdf,
    "quote_pdf": _quote_pdf,
    "labels_pdf": _labels_pdf,
    "sheets_pdf": _sheets_pdf,
    "handover": _handover,
    "variant": _variant,
    "sites": _sites,
    "best_places": _best_places,
    "needless": _needless,
}
