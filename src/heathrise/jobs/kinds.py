"""The kinds of job: what may be asked of it, what it ends in, and a function from one to the other."""

from __future__ import annotations

import secrets
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from datetime import UTC, datetime
from typing import Annotated, Any, Generic, TypeVar

from pydantic import BaseModel, Field

from ..asked import Answer, Asked
from ..controller import Controller, ControllerError
from ..controller.work import PushRun, Seen, read
from ..core.base.progress import Progress, ShowBest
from ..core.context.plan import Plan
from ..core.controlled import PushStep, differences
from ..core.design import DesignError, ElementId, Problem, Underlay
from ..core.diagram import READINGS, Reading
from ..core.evaluation.evaluate import evaluate
from ..core.records import HandedOver, Outcome, PushedStep, Record, undone
from ..core.views.bill_of_materials import order_of
from ..core.views.handover import Observed, handover_of
from ..core.views.labels import project_labels
from ..core.views.managed import tree_of
from ..core.views.offers import offers
from ..core.views.push import differing, push_plan
from ..core.walling import ProposedWall, proposed
from ..formats.papers import (
    Head,
    History,
    Quote,
    brief_pdf,
    check_paper,
    client_pdf,
    diagram_pdf,
    drawn_of,
    labels_pdf,
    notice_pdf,
    quote_pdf,
    racks_pdf,
    settings_pdf,
    sheets_pdf,
    technician_pdf,
)
from ..questions import QUESTIONS, Question, parsed


class Stopped(Exception):
    """A job was stopped before it had anything to show."""


@dataclass(frozen=True)
class ControllerSite:
    """A site's controller, the serials that were said, and the steps that were pushed before."""

    controller: Callable[[], Controller]
    serials: Callable[[], dict[str, str]]
    pushed: Callable[[], list[PushedStep]]


@dataclass(frozen=True)
class JobContext:
    """What a job has to go on: the plan of a project as it was saved.

    ``keep`` keeps a paper of a kind under a name, and returns its id; ``seen`` gives what was seen
    on the site; ``history`` the journal's last lines; ``record`` appends a record and returns its
    number, ``last_record`` is the last one's; ``show`` shows the best so far; ``head`` is the
    firm's head for papers, ``next_offer`` gives the number of its next offer; ``site`` is its controller,
    ``picture`` gives a picture that was kept.
    """

    name: str
    revision: int
    plan: Plan
    progress: Progress
    keep: Callable[[str, str, bytes], str]
    seen: Callable[[], Observed]
    history: Callable[[], list[History]]
    record: Callable[[Record], int]
    last_record: Callable[[], int]
    show: ShowBest
    head: Callable[[], Head]
    next_offer: Callable[[], str]
    site: ControllerSite
    picture: Callable[[str], bytes]


A = TypeVar("A", bound=Asked)
R = TypeVar("R", bound=BaseModel)


@dataclass(frozen=True)
class JobKind(Generic[A, R]):
    """A kind of job: how it is asked for, what it ends in, and what it does."""

    asked: type[A]
    result: type[R]
    work_out: Callable[[JobContext, A], R]
    alone: bool = False  # whether two of it in one project would undo each other

    def run(self, job: JobContext, arguments: Mapping[str, Any]) -> dict[str, Any]:
        """Return what a job ends in, as JSON can hold it.

        Raises:
            DesignError: an argument is missing, too much, or not what it should be.
            Stopped: it was stopped before it had anything to show.
        """
        return self.work_out(job, parsed(self.asked, arguments)).model_dump(mode="json")


class LabelsAsked(Asked):
    sheet: Annotated[str, Field(max_length=80)]


class SheetsAsked(Asked):
    paper: Annotated[str, Field(max_length=20)] = "A4"
    scale: int | None = None
    floors: Annotated[tuple[ElementId, ...], Field(max_length=200)] | None = None


class DiagramAsked(Asked):
    """Readings of the network, the paper, and the rack whose door it is for, if one."""

    readings: Annotated[tuple[Reading, ...], Field(min_length=1, max_length=4)] = READINGS
    paper: Annotated[str, Field(max_length=20)] = "A3"
    rack: Annotated[str, Field(max_length=40)] = ""


class HandoverAsked(Asked):
    by: Annotated[str, Field(max_length=120)]


class Paper(Answer):
    """The id of a paper that was printed."""

    paper: str


class HandoverPrinted(Answer):
    """The number of a hand-over, and its papers' ids by whom each is for."""

    handover: int
    papers: dict[str, str]


def _brief(job: JobContext, _: Asked) -> Paper:
    job.progress(1, 3)
    evaluate(job.plan)
    job.progress(2, 3)
    data = brief_pdf(job.name, job.revision, job.plan, job.head())
    return Paper(paper=job.keep("brief", "brief.pdf", data))


def _quote(job: JobContext, _: Asked) -> Paper:
    job.progress(1, 4)
    order_of(job.plan)
    job.progress(2, 4)
    options = offers(job.plan)
    if not job.progress(3, 4):
        raise Stopped
    quote = Quote(job.name, job.revision, job.plan, options, job.next_offer())
    data = quote_pdf(quote, job.head())
    return Paper(paper=job.keep("quote", "offer.pdf", data))


def _labels(job: JobContext, asked: LabelsAsked) -> Paper:
    """Print the labels on a sheet as it is sold."""
    sheet = job.plan.catalogue.label_sheets.get(asked.sheet)
    if sheet is None:
        listed = ", ".join(job.plan.catalogue.label_sheets)
        raise DesignError([Problem("sheet", f"there are {listed}")])
    labels = project_labels(job.plan)
    job.progress(1, 2)
    data = labels_pdf(job.name, labels, sheet)
    return Paper(paper=job.keep("labels", "labels.pdf", data))


def _sheets(job: JobContext, asked: SheetsAsked) -> Paper:
    check_paper(asked.paper, asked.scale)
    drawn = drawn_of(job.name, job.revision, job.plan)
    job.progress(1, 2)
    only = list(asked.floors) if asked.floors else None
    data = sheets_pdf(drawn, asked.paper, asked.scale, only)
    return Paper(paper=job.keep("sheets", "sheets.pdf", data))


def _diagram(job: JobContext, asked: DiagramAsked) -> Paper:
    job.progress(1, 2)
    data = diagram_pdf(job.name, job.revision, job.plan, asked.readings, asked.paper, asked.rack)
    return Paper(paper=job.keep("diagram", "network.pdf", data))


def _racks(job: JobContext, _: Asked) -> Paper:
    drawn = drawn_of(job.name, job.revision, job.plan)
    job.progress(1, 2)
    return Paper(paper=job.keep("racks", "racks.pdf", racks_pdf(drawn, job.head())))


def _settings(job: JobContext, _: Asked) -> Paper:
    evaluate(job.plan, wait=True)
    job.progress(1, 2)
    paper = settings_pdf(job.name, job.revision, job.plan, job.head())
    return Paper(paper=job.keep("settings", "settings.pdf", paper))


def _notice(job: JobContext, _: Asked) -> Paper:
    return Paper(paper=job.keep("notice", "notice.pdf", notice_pdf(job.name, job.plan)))


def _handover(job: JobContext, asked: HandoverAsked) -> HandoverPrinted:
    """Print both hand-overs and note them: what is handed over does not change afterwards."""
    by = asked.by.strip()
    if not by:
        raise DesignError([Problem("by", "say who hands over")])
    last_record = job.last_record()
    evaluate(job.plan, wait=True)  # what is printed of the channels is final
    job.progress(1, 4)
    seen = job.seen()
    handover = handover_of(job.plan, seen)
    drawn = drawn_of(job.name, job.revision, job.plan)
    head = job.head()
    client = client_pdf(drawn, handover, head)
    job.progress(2, 4)
    technician = technician_pdf(drawn, handover, seen, job.history(), head)
    if not job.progress(3, 4):
        raise Stopped
    papers = {
        "client": job.keep("handover_client", "hand-over.pdf", client),
        "technician": job.keep("handover_technician", "technician.pdf", technician),
    }
    said = HandedOver(
        at=datetime.now(UTC),
        author=by,
        revision=job.revision,
        last_record=last_record,
        papers=papers,
        still_open=tuple(p.text for p in handover.still_open),
    )
    return HandoverPrinted(handover=job.record(said), papers=papers)


class PictureAsked(Asked):
    """The client's plan on which walls are looked for."""

    underlay: ElementId


class WallsSeen(Answer):
    """Walls that could be drawn on a storey, by what is seen on the client's plan."""

    floor: str
    walls: tuple[ProposedWall, ...]


def _walls(job: JobContext, asked: PictureAsked) -> WallsSeen:
    # OpenCV takes long to load, and only this needs it.
    from ..formats.plan_picture import walls_on

    underlay = job.plan.drawn.of(Underlay).get(asked.underlay)
    if underlay is None:
        raise DesignError(
            [Problem("underlay", f"there is no picture {asked.underlay[:40]!r} under the sheet")]
        )
    job.progress(1, 3)
    seen = walls_on(job.picture(underlay.picture), underlay)
    job.progress(2, 3)
    return WallsSeen(floor=underlay.floor, walls=proposed(job.plan.drawn, underlay.floor, seen))


class PushAsked(Asked):
    """What of the differences is pushed: all, one target, or one key of it; or which push is undone.

    ``even_so`` goes on where a step cuts something off.
    """

    target: Annotated[str, Field(max_length=80)] = ""
    key: Annotated[str, Field(max_length=80)] = ""
    undo: Annotated[str, Field(max_length=40)] = ""
    even_so: bool = False


class PushEnded(Answer):
    """A push: its steps with how each went, in words."""

    push: str
    done: int
    of: int
    wrong: tuple[str, ...]


def _push(job: JobContext, asked: PushAsked) -> PushEnded:
    """Send what differs, step by step, and read each back. Each step is noted as soon as it is through."""
    evaluate(job.plan, wait=True)
    try:
        controller = job.site.controller()
        seen = read(controller, tree_of(job.plan), job.site.serials())
        steps = push_steps_of(job.plan, seen, asked, job.site.pushed())
    except ControllerError as error:
        raise DesignError([Problem("controller", str(error))]) from None
    push = f"push-{secrets.token_hex(6)}"

    def told(step: PushStep, outcome: Outcome, words: str) -> None:
        said = PushedStep(
            at=datetime.now(UTC),
            author=_PUSHED_BY,
            push=push,
            revision=job.revision,
            step=step.number,
            of=len(steps),
            target=step.target,
            name=step.name[:120],
            changes=step.changes,
            outcome=outcome,
            words=words[:400],
        )
        job.record(said)

    run = PushRun(controller, seen.matched, asked.even_so, told)
    rows = run.run(steps, job.progress)
    wrong = tuple(f"{step.name}: {words}" for step, outcome, words in rows if outcome != "done")
    return PushEnded(push=push, done=len(rows) - len(wrong), of=len(rows), wrong=wrong)


def push_steps_of(plan: Plan, seen: Seen, asked: PushAsked, pushed: Sequence[PushedStep]) -> list[PushStep]:
    """Return the steps of what was asked for, of devices those that are online.

    Raises:
        DesignError: there is nothing to send, or no such push to undo.
    """
    differs = differing(plan, seen.held, seen.matched)
    if asked.undo:
        before = undone(pushed, asked.undo)
        if not before:
            raise DesignError([Problem("undo", "nothing of that push was sent")])
        now = {t: {k: seen.held.get(t, {}).get(k) for k in values} for t, values in before.items()}
        differs = list(differences(now, before))
    elif asked.target:
        differs = [d for d in differs if d.target == asked.target and asked.key in ("", d.key)]
    ready = seen.sendable(differs)
    if not ready:
        what = "what differs is on devices that are not online" if differs else "everything is as it shall be"
        raise DesignError([Problem("push", what)])
    return push_plan(plan, seen.held, ready)


_PUSHED_BY = "installer"


def _asked_of_the_plan(question: Question[A, R]) -> JobKind[A, R]:
    return JobKind(
        question.asked,
        question.answer,
        lambda job, asked: question.work_out(job.plan, asked, job.progress, job.show),
    )


KINDS: dict[str, JobKind[Any, Any]] = {
    **{name: _asked_of_the_plan(q) for name, q in QUESTIONS.items() if q.long},
    "brief_pdf": JobKind(Asked, Paper, _brief),
    "quote_pdf": JobKind(Asked, Paper, _quote),
    "labels_pdf": JobKind(LabelsAsked, Paper, _labels),
    "sheets_pdf": JobKind(SheetsAsked, Paper, _sheets),
    "diagram_pdf": JobKind(DiagramAsked, Paper, _diagram),
    "racks_pdf": JobKind(Asked, Paper, _racks),
    "settings_pdf": JobKind(Asked, Paper, _settings),
    "notice_pdf": JobKind(Asked, Paper, _notice),
    "handover": JobKind(HandoverAsked, HandoverPrinted, _handover),
    "walls": JobKind(PictureAsked, WallsSeen, _walls),
    "push": JobKind(PushAsked, PushEnded, _push, alone=True),
}
