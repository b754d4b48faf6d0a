"""Routes for the firm's own gear: by form, and as a table in and out."""

from __future__ import annotations

from apiflask import APIBlueprint
from flask import Response, request

from ..core.catalogue import Catalogue, Entry, OwnGear, on_shelf, read_gear, shelves_of
from ..formats.gear_table import fields_of, flat_of, gear_from, read_gear_table, write_gear_table
from .desk import stores
from .models import GearList, GearRead, GearRow, GearSaid, GearShelf
from .wire import download, json_of, line_faults

routes = APIBlueprint("gear", __name__, url_prefix="/api/firm")


@routes.get("/gear")
@routes.output(GearList)
def list_gear() -> Response:
    return json_of(_answered(stores().repository.catalogue))


@routes.put("/gear")
@routes.input(GearSaid, arg_name="said")
@routes.output(GearList)
def put_gear(said: GearSaid) -> Response:
    """Keep a thing of the firm's own; plans that have it are worked out with it."""
    repository = stores().repository
    gear = gear_from(repository.catalogue, said.shelf, said.values, said.id)
    return json_of(_answered(repository.put_gear([gear.model_copy(update={"withdrawn": said.withdrawn})])))


@routes.delete("/gear/<key>")
@routes.output(GearList)
def remove_gear(key: str) -> Response:
    """Take a thing away; what a project has or had is withdrawn instead."""
    return json_of(_answered(stores().repository.remove_gear(key)))


@routes.get("/gear.csv")
def get_gear_table() -> Response:
    repository = stores().repository
    text = write_gear_table(repository.catalogue, repository.gear.all())
    return download(text, "text/csv", "gear.csv")


@routes.post("/gear")
@routes.output(GearRead)
def read_gear_file() -> Response:
    """Read a table of gear. It is taken when nothing is at fault, or when ``take`` says so."""
    repository = stores().repository
    read = read_gear_table(request.get_data(), repository.catalogue)
    taken = bool(read.gear) and (not read.faults or request.args.get("take") == "1")
    if taken:
        repository.put_gear(read.gear)
    return json_of(GearRead(read=len(read.gear), taken=taken, faults=line_faults(read.faults)))


def _answered(catalogue: Catalogue) -> GearList:
    own = stores().repository.gear
    held = own.all()
    used = own.used(g.id for g in held)
    return GearList(
        rows=[_row(catalogue, gear, used[gear.id]) for gear in held],
        shelves=[
            GearShelf(
                shelf=shelf,
                name=name,
                fields=fields_of(catalogue, shelf),
                like=[_like(catalogue, shelf, entry) for entry in _shipped(catalogue, shelf)],
            )
            for shelf, name in shelves_of(catalogue).items()
        ],
    )


def _row(catalogue: Catalogue, gear: OwnGear, used: int) -> GearRow:
    entry = read_gear(catalogue, gear).model_dump(mode="json")
    values = flat_of(catalogue, gear.shelf, entry)
    return GearRow(id=gear.id, shelf=gear.shelf, values=values, withdrawn=gear.withdrawn, used=used)


def _like(catalogue: Catalogue, shelf: str, entry: Entry) -> GearRow:
    return GearRow(id=entry.id, shelf=shelf, values=flat_of(catalogue, shelf, entry.model_dump(mode="json")))


def _shipped(catalogue: Catalogue, shelf: str) -> list[Entry]:
    """Return what a new thing of a shelf may be begun from: what is on it and still offered."""
    held = on_shelf(catalogue, shelf)
    return [e for e in held.values() if getattr(e, "old", None) is None and not e.withdrawn]
