"""Routes for the diagram of a network: derived from the plan, laid out, as it is looked at."""

from __future__ import annotations

from typing import Annotated, Literal

from apiflask import APIBlueprint
from flask import Response
from pydantic import Field

from ..core.base.frozen import Frozen
from ..core.diagram import Diagram, Picture, as_it_came, diagram_of, lay_out
from ..store.observed import ports_observed
from .api_model import ApiModel
from .desk import stores
from .wire import json_of

routes = APIBlueprint("diagram", __name__, url_prefix="/api/projects/<project_id>/diagram")


class DiagramQuery(ApiModel):
    """What somebody opened and folded away, their ids with a bar between them; as planned or as it is."""

    opened: Annotated[str, Field(max_length=20_000)] = ""
    shut: Annotated[str, Field(max_length=20_000)] = ""
    when: Literal["planned", "today"] = "planned"


class DiagramView(Frozen):
    """A diagram and where each thing of it stands, with what was opened and folded away."""

    diagram: Diagram
    picture: Picture


@routes.get("")
@routes.input(DiagramQuery, location="query", arg_name="asked")
@routes.output(DiagramView)
def get_diagram(project_id: str, asked: DiagramQuery) -> Response:
    """Show the network from the line to the last device."""
    _, plan = stores().plans.load(project_id)
    if asked.when == "today":
        diagram = diagram_of(plan.as_it_is())
    else:
        seen, _ = ports_observed(stores().records, project_id, plan)
        diagram = as_it_came(diagram_of(plan), seen)
    opened, shut = _keys(asked.opened), _keys(asked.shut)
    return json_of(DiagramView(diagram=diagram, picture=lay_out(diagram, opened, shut)))


def _keys(text: str) -> frozenset[str]:
    return frozenset(filter(None, text.split("|")))
