"""Routes for orders: what a plan takes and costs, and the firm's prices."""

from __future__ import annotations

from datetime import UTC, date, datetime

from apiflask import APIBlueprint
from flask import Response, request

from ..core.evaluation.evaluate import evaluate
from ..core.order import Order, priced_items
from ..core.views.bill_of_materials import order_of
from ..core.views.offers import offers
from ..formats.prices_csv import read_prices, write_prices
from ..formats.tables_in import Sign
from ..store import Repository, Saved
from ..store.prices import FirmPrices
from .models import OfferList, PricesRead
from .wire import json_of, line_faults

_ASKED = 5  # of prices that can be read in two ways so many are shown


def today() -> date:
    return datetime.now(UTC).date()


def order_for(repository: Repository, saved: Saved) -> Order:
    """Return the order of a saved project under the firm's prices."""
    catalogue = repository.catalogue
    evaluation = evaluate(saved.design, catalogue, "figures")
    firm = FirmPrices(repository.engine).all()
    return order_of(saved.design, catalogue, evaluation, firm, today())


def make_orders(repository: Repository) -> APIBlueprint:
    """Return the blueprint over a repository."""
    routes = APIBlueprint("orders", __name__, url_prefix="/api")

    @routes.get("/projects/<project_id>/order")
    @routes.output(Order)
    def order(project_id: str) -> Response:
        return json_of(order_for(repository, repository.load(project_id)))

    @routes.get("/projects/<project_id>/offers")
    @routes.output(OfferList)
    def compared(project_id: str) -> Response:
        design = repository.load(project_id).design
        firm = FirmPrices(repository.engine).all()
        found = offers(design, repository.catalogue, firm, today())
        return json_of(OfferList(currency=design.site.currency, offers=found))

    @routes.get("/firm/prices.csv")
    def prices_out() -> Response:
        items = priced_items(repository.catalogue).values()
        text = write_prices(items, FirmPrices(repository.engine).all())
        response = Response(text, mimetype="text/csv")
        response.headers["Content-Disposition"] = 'attachment; filename="prices.csv"'
        return response

    @routes.post("/firm/prices")
    @routes.output(PricesRead)
    def prices_in() -> Response:
        """Read a list. It is taken when nothing is at fault, or when ``take`` says so; never while
        it can be read in two ways, until ``decimal`` says in which."""
        decimal: dict[str, Sign] = {"point": ".", "comma": ","}
        items = priced_items(repository.catalogue)
        sign = decimal.get(request.args.get("decimal", ""))
        read = read_prices(request.get_data(), items, today(), sign)
        taken = not read.asks and (not read.faults or request.args.get("take") == "1")
        if taken:
            FirmPrices(repository.engine).take(read.prices)
        faults = line_faults(read.faults)
        found = PricesRead(read=len(read.prices), taken=taken, faults=faults, asks=list(read.asks[:_ASKED]))
        return json_of(found)

    return routes
