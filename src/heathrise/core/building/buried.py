"""What is dug near to a pipe or cable of others: by hand there, and only once it is located."""

from __future__ import annotations

from collections.abc import Iterator

from ..base.wording import metres
from ..catalogue import Catalogue
from ..context.buried import CARRIED, Meeting, meetings_of
from ..context.findings import Finding, Place
from ..design import BuriedService, Design, Duct

_BY_TOOL = {"machine": "by machine", "plough": "by plough"}


def buried_findings(design: Design, catalogue: Catalogue) -> Iterator[Finding]:
    """Yield each stretch of a duct that is dug near to a buried service."""
    apart_m = catalogue.rules["plan.service_apart_m"]
    for k, meeting in enumerate(meetings_of(design, apart_m)):
        yield _finding(design, catalogue, meeting, k)


def _finding(design: Design, catalogue: Catalogue, meeting: Meeting, number: int) -> Finding:
    duct, service = design.of(Duct)[meeting.trench], design.of(BuriedService)[meeting.service]
    apart_m = catalogue.rules["plan.service_apart_m"]
    apart = metres(apart_m)
    does = "crosses" if meeting.crosses else "lies beside"
    tool = _BY_TOOL.get(duct.dug)
    text = f"{duct.name} {does} {service.name}, a {CARRIED[service.carries]}, {meeting.said} from its start"
    text += f": within {apart} of it dig by hand" + (f", not {tool} as the rest." if tool else ".")
    depth = "nobody knows how deep it lies" if service.depth_m is None else f"{metres(service.depth_m)} deep"
    if not service.found:
        text += f" It is not located yet ({depth}, as told): have that done before the ground is opened."
    elif (
        service.depth_m is not None
        and abs(service.depth_m - duct.depth_m) < catalogue.rules["plan.service_apart_m"]
    ):
        text += f" It was found {depth}, where the duct would lie: lay the duct over or under it."
    return Finding(
        id=f"plan-buried-{duct.id}-{service.id}-{number}",
        stage="plan",
        severity="note" if service.found and not tool else "near",
        text=text,
        places=tuple(
            Place(kind=kind, id=key, floor=duct.from_floor, at=meeting.at)
            for kind, key in (("duct", duct.id), ("buried_service", service.id))
        ),
        rule="near to buried services the ground is opened by hand, once they are located",
        source="practice; the utilities' own rules and local law come first",
        used=catalogue.rules.used("plan.service_apart_m"),
    )
