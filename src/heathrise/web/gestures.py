"""What a hand does on the sheet: what goes along with it, and what becomes of the rooms."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Annotated

from apiflask import APIBlueprint
from flask import Response
from pydantic import Field

from ..core.context.integrity import check
from ..core.design import Change, Design, Put, apply
from ..core.several import Gesture, drawn
from ..core.walling import Followed, follow
from .api_model import ApiModel
from .desk import stores
from .wire import json_of

routes = APIBlueprint("gestures", __name__, url_prefix="/api/projects/<project_id>/gestures")


class GestureMade(ApiModel):
    """A gesture, and the edits that are not saved yet on which it is made."""

    unsaved: Annotated[tuple[Change, ...], Field(max_length=20_000)] = ()
    gesture: Gesture


@routes.post("")
@routes.input(GestureMade, arg_name="asked")
@routes.output(Followed, description="All that changes, rooms too, and what only a person can say")
def make_gesture(project_id: str, asked: GestureMade) -> Response:
    """Work out a gesture without saving it."""
    _, plan = stores().plans.load(project_id)
    before = apply(plan.drawn, _not_made(plan.drawn, asked.unsaved))
    changes = drawn(before, asked.gesture, plan.shelf)
    after = apply(before, changes)
    followed = follow(before, after)
    check(apply(after, followed.changes), plan.shelf)
    return json_of(followed.model_copy(update={"changes": (*changes, *followed.changes)}))


def _not_made(design: Design, changes: Sequence[Change]) -> list[Change]:
    """Leave out what an edit took away that has been saved meanwhile."""
    made: list[Change] = []
    here = {(kind, element.id) for kind, element in design.elements()}
    for change in changes:
        key = (change.kind, change.id)
        if isinstance(change, Put):
            here.add(key)
        elif key not in here:
            continue
        else:
            here.discard(key)
        made.append(change)
    return made
