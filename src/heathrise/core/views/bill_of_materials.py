"""The order of a project: joined of what cable, power and the work list have worked out."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from ..base.memo import IdentityMemo
from ..base.wording import some
from ..cabling import Bought, cable_bought
from ..catalogue import JACKETS, Catalogue
from ..context.plan import Plan, answered
from ..design import Design
from ..install import Step
from ..laying import Link
from ..order import Bulk, Done, Order, Where, assess_order
from .far_taken import far_parts
from .laid_links import cuts_of, fresh_holes, links_of
from .rack_parts import rack_parts
from .work_list import steps_of


@answered
def order_of(plan: Plan) -> Order:
    """Return what a plan takes and costs; of a quick plan boxes are not proven the fewest."""
    return _order(plan, prove=not plan.quick)


@answered
def proven_order(plan: Plan) -> Order:
    """Return what a plan takes and costs, the same to the last cent for a quick plan and a full one."""
    return _order(plan, prove=True)


def _order(plan: Plan, prove: bool) -> Order:
    links = links_of(plan)
    bought = cable_bought(plan.catalogue, cuts_of(links), plan.priced.each, prove=prove)
    return assess_order(
        plan.design,
        plan.priced,
        links,
        fresh_holes(plan),
        list(_bulk(plan.catalogue, bought)),
        pieces_of(plan.drawn, steps_of(plan)),
        plan.on,
        _told(plan.catalogue, bought, links),
        rack_parts(plan),
        far_parts(plan),
    )


def _bulk(catalogue: Catalogue, bought: Sequence[Bought]) -> Iterator[Bulk]:
    """Yield boxes and reels, each with the links that are cut from it."""
    for row in bought:
        model = catalogue.cables[row.category]
        yield Bulk(model.item(row.jacket), row.boxes, [c.name for c in row.boxed])
        yield Bulk(model.item(row.jacket, reel=True), row.reels, [c.name for c in row.reeled])


def _told(catalogue: Catalogue, bought: Sequence[Bought], links: Sequence[Link]) -> list[str]:
    names = {k.id: k.name for k in links}
    told = []
    if long := [names[k] for row in bought for k in row.too_long]:
        told.append(
            f"No box and no reel holds a cable as long as these want, so none is priced: {some(long)}."
        )
    for row in bought:
        lesser = [c for c in (*row.boxed, *row.reeled) if c.jacket != row.jacket]
        if count := sum(c.cables for c in lesser):
            label = f"{catalogue.cables[row.category].label}{JACKETS[row.jacket]}"
            told.append(
                f"{label} serves {count} cable{'s' * (count > 1)} that could do with less, too: "
                "that costs less than boxes of each."
            )
    return told


def pieces_of(drawn: Design, steps: Sequence[Step]) -> Iterator[Done]:
    """Yield the work of the steps, piece by piece, as the order sums it."""
    for step in steps:
        element = drawn.get(step.kind, step.element)
        name = getattr(element, "name", "") or ("the job" if step.kind == "site" else step.title)
        yield from _pieces.get((step,), name, lambda step=step, name=name: tuple(_of_step(step, name)))  # type: ignore[misc]


_pieces: IdentityMemo[tuple[Done, ...]] = IdentityMemo(8192, weigh=lambda rows: 1_000 * len(rows))


def _of_step(step: Step, name: str) -> Iterator[Done]:
    for work in step.work:
        where = Where(kind=step.kind, id=step.element, name=name, floor=step.floor, quantity=work.quantity)
        yield Done(work.task, work.label, work.unit, work.quantity, work.person_minutes, where, step.licensed)
