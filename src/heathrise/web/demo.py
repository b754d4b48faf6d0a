"""The made-up sites in the database, and the page that shows them."""

from __future__ import annotations

import json
import logging
from datetime import UTC, datetime
from functools import cache

from apiflask import APIBlueprint
from flask import Response
from sqlalchemy.exc import SQLAlchemyError

from ..core.base.progress import always
from ..core.context.firm import Firm
from ..core.design import Design, Device, Floor, Space
from ..core.records import HandedOver, Signed
from ..demo import DEMO_FIRM, SITES, DemoSite, demo_mark
from ..jobs import run_kind
from ..store import Repository, Stores, UnknownProject
from ..store.pictures import Kept
from .desk import stores
from .models import DemoLine, DemoList, SiteSketch

log = logging.getLogger(__name__)

_SETTING = "demo"
_BY = {"by": "Ann"}


def load_demo(repository: Repository) -> None:
    """Load each made-up site once in a database's life, also those that are newer than it.

    Ids and keys are the same at each start, so that one that was killed half way is gone on with.
    """
    kept = Stores.over(repository)
    known, heads = _known(repository), kept.heads
    if not known and heads.get().firm == Firm():
        heads.say(DEMO_FIRM)
        heads.mark(Kept("image/png", demo_mark()))
    for site in (s for s in SITES if s.key not in known):
        design, own_id = site.make(), f"p-demo-{site.key}"
        made = repository.create(site.name, design, "demo", "Demo site", own_id)
        known[site.key] = made.id
        if site.mend is not None:
            if made.revision == 1:
                changes = site.mend(design)
                made = repository.change(own_id, 1, changes, "Ann", "Mended before the work began")
            design = made.design
        for k, record in enumerate(site.records(design) if site.records is not None else ()):
            kept.records.append(own_id, record, f"demo-{k}")
        repository.set_setting(_SETTING, json.dumps(known))


def hand_over_demo(repository: Repository) -> None:
    """Hand over the sites that are handed over and are not yet: their papers take seconds, so
    nobody who starts the demo waits for them."""
    kept = Stores.over(repository)
    known = _known(repository)
    for site in (s for s in SITES if s.received_by and s.key in known):
        project = known[site.key]
        try:
            if not kept.records.of(project, HandedOver):
                made = run_kind(kept, repository.load(project), "handover", _BY, always)
                signed = Signed(
                    at=datetime.now(UTC), author="Ann", handover=made["handover"], signed_by=site.received_by
                )
                kept.records.append(project, signed, f"signed-{made['handover']}")
        except (UnknownProject, SQLAlchemyError):
            log.info("the demo's %s is not handed over; it is gone", site.key)


def _known(repository: Repository) -> dict[str, str]:
    """Return the project that each site was loaded as; at first only the school's id was kept."""
    said = repository.setting(_SETTING)
    if said is None:
        return {}
    return dict(json.loads(said)) if said.startswith("{") else {"school": said}


routes = APIBlueprint("demo", __name__, url_prefix="/api")


_SITES_BY_KEY = {site.key: site for site in SITES}


@routes.get("/demo")
@routes.output(DemoList)
def list_demo_sites() -> Response:
    known = _known(stores().repository)
    lines = [
        _sketch(_SITES_BY_KEY[key]).model_copy(update={"project": project})
        for key, project in known.items()
        if key in _SITES_BY_KEY
    ]
    return Response(DemoList(sites=lines).model_dump_json(), mimetype="application/json")


@cache
def _sketch(site: DemoSite) -> DemoLine:
    """Return what the page shows of a site, from the site as it is made."""
    drawn = sketch_of(site.make())
    return DemoLine(project="", name=site.name, teaches=site.teaches, **dict(drawn))


def sketch_of(design: Design) -> SiteSketch:
    """Return the ground floors of a site as a small drawing."""
    shown = _ground_floors(design)
    spaces = [s for s in design.of(Space).values() if s.floor in shown]
    return SiteSketch(
        kind=design.site.kind,
        rooms=[s.outline for s in spaces if not s.outdoor],
        yards=[s.outline for s in spaces if s.outdoor],
        marks=[d.at for d in design.of(Device).values() if d.floor in shown],
        storeys=len(design.of(Floor)),
        devices=len(design.of(Device)),
        needed=sum(1 for s in design.of(Space).values() if s.use != "none"),
    )


def _ground_floors(design: Design) -> set[str]:
    """Return the lowest storey of each building."""
    lowest: dict[str, Floor] = {}
    for floor in design.of(Floor).values():
        if floor.building not in lowest or floor.level < lowest[floor.building].level:
            lowest[floor.building] = floor
    return {f.id for f in lowest.values()}
