"""Routes for orders: what a plan takes and costs, and the firm's prices."""

from __future__ import annotations

from apiflask import APIBlueprint
from flask import Response, request

from ..asked import Asked, DeviceAsked, OfferList, PacketAsked, WayTold
from ..core.catalogue import priced_items
from ..core.context.plan import utc_today
from ..core.order import Order
from ..core.settings import PacketWalk
from ..core.views.bill_of_materials import order_of
from ..core.views.category_steps import CategorySteps
from ..core.views.cutting_list import CuttingList
from ..core.views.pull_list import PullList
from ..core.views.remedies import Remedies
from ..formats.prices_csv import read_prices, write_prices
from ..formats.tables_in import Sign
from ..questions import QUESTIONS
from .desk import stores
from .models import PricesRead
from .wire import download, json_of, line_faults

_ASKED = 5  # of prices that can be read in two ways so many are shown


routes = APIBlueprint("orders", __name__, url_prefix="/api")


@routes.get("/projects/<project_id>/order")
@routes.output(Order)
def get_order(project_id: str) -> Response:
    _, plan = stores().plans.load(project_id)
    return json_of(order_of(plan))


@routes.get("/projects/<project_id>/offers")
@routes.output(OfferList)
def list_offers(project_id: str) -> Response:
    _, plan = stores().plans.load(project_id)
    return json_of(QUESTIONS["offers"].ask(plan))


@routes.get("/projects/<project_id>/remedies")
@routes.input(DeviceAsked, location="query", arg_name="asked")
@routes.output(Remedies)
def get_remedies(project_id: str, asked: DeviceAsked) -> Response:
    """Show everything that would mend a run, with what each takes and costs."""
    _, plan = stores().plans.load(project_id)
    return json_of(QUESTIONS["remedies"].ask(plan, asked))


@routes.get("/projects/<project_id>/categories")
@routes.output(CategorySteps)
def get_categories(project_id: str) -> Response:
    """Show what each category of cable would cost beside the one that the job has."""
    _, plan = stores().plans.load(project_id)
    return json_of(QUESTIONS["categories"].ask(plan, Asked()))


@routes.get("/projects/<project_id>/cutting")
@routes.output(CuttingList)
def get_cutting(project_id: str) -> Response:
    """Show which cable is cut from which box, and what is left of each."""
    _, plan = stores().plans.load(project_id)
    return json_of(QUESTIONS["cutting"].ask(plan, Asked()))


@routes.get("/projects/<project_id>/pulls")
@routes.output(PullList)
def get_pulls(project_id: str) -> Response:
    """Show what is pulled at once, off which boxes, the farthest first."""
    _, plan = stores().plans.load(project_id)
    return json_of(QUESTIONS["pulls"].ask(plan, Asked()))


@routes.get("/projects/<project_id>/way")
@routes.input(DeviceAsked, location="query", arg_name="asked")
@routes.output(WayTold)
def get_way(project_id: str, asked: DeviceAsked) -> Response:
    """Show how a device's run lies, leg by leg."""
    _, plan = stores().plans.load(project_id)
    return json_of(QUESTIONS["way"].ask(plan, asked))


@routes.get("/projects/<project_id>/packet")
@routes.input(PacketAsked, location="query", arg_name="asked")
@routes.output(PacketWalk)
def get_packet(project_id: str, asked: PacketAsked) -> Response:
    """Show what becomes of a packet from one host to another, or to the internet."""
    _, plan = stores().plans.load(project_id)
    return json_of(QUESTIONS["packet"].ask(plan, asked))


@routes.get("/firm/prices.csv")
def get_prices() -> Response:
    items = priced_items(stores().repository.catalogue).values()
    text = write_prices(items, stores().prices.all())
    return download(text, "text/csv", "prices.csv")


@routes.post("/firm/prices")
@routes.output(PricesRead)
def read_prices_list() -> Response:
    """Read a list. It is taken when nothing is at fault, or when ``take`` says so; never while
    it can be read in two ways, until ``decimal`` says in which."""
    decimal: dict[str, Sign] = {"point": ".", "comma": ","}
    items = priced_items(stores().repository.catalogue)
    sign = decimal.get(request.args.get("decimal", ""))
    read = read_prices(request.get_data(), items, utc_today(), sign)
    taken = not read.asks and (not read.faults or request.args.get("take") == "1")
    if taken:
        stores().prices.take(read.prices)
    faults = line_faults(read.faults)
    found = PricesRead(read=len(read.prices), taken=taken, faults=faults, asks=list(read.asks[:_ASKED]))
    return json_of(found)
