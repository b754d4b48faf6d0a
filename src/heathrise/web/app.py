"""Puts the application together: routes, errors, security headers, the built front end."""

from __future__ import annotations

import logging
import re
from pathlib import Path
from typing import Any

from apiflask import APIFlask
from flask import Flask, Response, abort, jsonify, request, send_from_directory
from flask.json.provider import DefaultJSONProvider
from sqlalchemy.exc import OperationalError, SQLAlchemyError
from sqlalchemy.exc import TimeoutError as PoolTimeout
from werkzeug.exceptions import HTTPException, RequestEntityTooLarge

from ..controller import ControllerError
from ..controller.service import Controllers
from ..core.design import DesignError
from ..formats.project_file import once
from ..formats.sandbox.confine import Busy
from ..jobs import EmbeddedRunner
from ..store import Repository, StaleRevision, Stores
from ..store.tables import trouble_of
from ..store.unknown import Unknown
from ..store.vault import Vault, VaultError
from . import (
    controller,
    demo,
    diagram,
    firm,
    gear,
    gestures,
    handover,
    install,
    jobs,
    keys,
    orders,
    pictures,
    practices,
    projects,
    records,
    revisions,
    rounds,
    scan,
    signal,
    snags,
    transfer,
    vouchers,
)
from .answers import Answers
from .breaker import Breaker, asks_database
from .compress import compressed
from .desk import Desk
from .disk_room import DiskRoom, no_room
from .front_door import LOOPBACK_NAMES, MAX_BODY_BYTES, NOT_HERE, host_name

log = logging.getLogger(__name__)

NO_DATABASE = "The database does not answer. Nothing is lost: what is drawn is kept here and sent again."
SECURITY_HEADERS = {
    # The component library writes its theme into style elements; scripts only come from files.
    "Content-Security-Policy": (
        "default-src 'self'; script-src 'self'; style-src 'self' 'unsafe-inline'; "
        "img-src 'self' data: blob:; font-src 'self'; connect-src 'self'; object-src 'none'; "
        "base-uri 'none'; form-action 'self'; frame-ancestors 'none'"
    ),
    "X-Content-Type-Options": "nosniff",
    "X-Frame-Options": "DENY",
    "Referrer-Policy": "no-referrer",
    "Cross-Origin-Opener-Policy": "same-origin",
    "Cross-Origin-Resource-Policy": "same-origin",
    "Permissions-Policy": "camera=(), microphone=(), geolocation=()",
}


ROUTES = (
    projects.routes,
    transfer.routes,
    jobs.routes,
    demo.routes,
    records.routes,
    records.port_routes,
    records.speed_routes,
    pictures.routes,
    orders.routes,
    practices.routes,
    firm.routes,
    gear.routes,
    install.routes,
    snags.routes,
    handover.routes,
    signal.routes,
    controller.routes,
    scan.routes,
    diagram.routes,
    gestures.routes,
    keys.routes,
    vouchers.routes,
    rounds.routes,
    revisions.routes,
)


_NONE = Controllers()


class _Json(DefaultJSONProvider):
    """JSON in which no name stands twice."""

    def loads(self, s: str | bytes, **kwargs: Any) -> Any:
        return super().loads(s, object_pairs_hook=once, **kwargs)


def create_app(
    repository: Repository | None,
    frontend: Path | None = None,
    data: Path | None = None,
    controllers: Controllers = _NONE,
    vault: Vault | None = None,
) -> Flask:
    """Return the application over a repository.

    Args:
        repository: None for an application that only describes itself.
        frontend: what is built of the interface, to be served.
        data: where the database keeps its data, if it is on this machine's disk.
        controllers: where the controllers of its sites are.
        vault: what seals keys.
    """
    app = APIFlask(
        __name__,
        title="Heathrise",
        version="1",
        docs_path=None,
        static_folder=None,  # type: ignore[arg-type]
        spec_path="/api/openapi.json",
    )
    app.json = _Json(app)
    app.config["MAX_CONTENT_LENGTH"] = MAX_BODY_BYTES
    app.config["VALIDATION_ERROR_STATUS_CODE"] = 422
    breaker = Breaker()
    if repository is not None:
        stores = Stores.over(repository, vault)
        Desk(stores, Answers(), breaker, EmbeddedRunner(stores.jobs), controllers).lay(app.extensions)
    for routes in ROUTES:
        app.register_blueprint(routes)
    _name_operations(app)
    app.before_request(_guard)
    app.before_request(lambda: _spare(breaker))
    app.before_request(DiskRoom(data).guard)
    app.after_request(compressed)
    app.after_request(_secure)
    _answer_errors(app, breaker)
    if frontend is not None:
        _serve(app, frontend.resolve())
    return app


def _name_operations(app: APIFlask) -> None:
    """Call each operation in the API's document as the function that answers it.

    Raises:
        ValueError: two are called alike.
    """
    known: set[str] = set()
    for endpoint, view in app.view_functions.items():
        blueprint, _, name = endpoint.rpartition(".")
        if not blueprint or blueprint == "openapi":
            continue  # what the framework answers itself
        if name in known:
            raise ValueError(f"two operations are called {name}")
        known.add(name)
        app_spec: dict[str, Any] = vars(view).setdefault("_spec", {})
        app_spec.setdefault("operation_id", name)


def _guard() -> None:
    """Refuse names other than loopback's, and writes that another site's page has sent."""
    if host_name(request.host) not in LOOPBACK_NAMES:
        abort(403, NOT_HERE)
    origin = request.headers.get("Origin")
    if request.method not in ("GET", "HEAD") and origin and origin != f"http://{request.host}":
        abort(403, f"A page of {origin[:80]} may not change anything here; only this server's own.")


def _spare(breaker: Breaker) -> Any:
    """Answer at once, without a thread waiting, while the database is known not to."""
    if asks_database(request.path) and not breaker.may_try():
        return jsonify(message=NO_DATABASE, problems=[]), 503
    return None


def _secure(response: Response) -> Response:
    for name, value in SECURITY_HEADERS.items():
        response.headers.setdefault(name, value)
    if request.path.startswith("/api/"):
        response.headers.setdefault("Cache-Control", "no-store")
    return response


def _serve(app: Flask, frontend: Path) -> None:
    # Only what was shipped is looked for, so that no path says what else the disk holds.
    shipped = {str(p.relative_to(frontend)) for p in frontend.rglob("*") if p.is_file()}

    @app.get("/", defaults={"path": ""})
    @app.get("/<path:path>")
    def page(path: str) -> Response:
        if path.startswith("api/"):
            abort(404)
        wanted = path if path in shipped else "index.html"
        response = send_from_directory(frontend, wanted)
        if wanted.startswith("assets/"):
            response.headers["Cache-Control"] = "public, max-age=31536000, immutable"
        else:
            response.headers["Cache-Control"] = "no-cache"
        return response


def _answer_errors(app: APIFlask, breaker: Breaker) -> None:
    """Every error is JSON with a message and, where it is known, the places at fault."""

    @app.errorhandler(DesignError)
    def refused(error: DesignError) -> Any:
        problems = [{"where": p.where, "what": p.what} for p in error.problems]
        return jsonify(message=str(error), problems=problems), 422

    @app.errorhandler(StaleRevision)
    def stale(error: StaleRevision) -> Any:
        since = [change.model_dump(mode="json") for change in error.since]
        return jsonify(message=str(error), revision=error.revision, since=since), 409

    @app.errorhandler(Unknown)
    def unknown(error: Unknown) -> Any:
        return jsonify(message=f"There is no {error.what} {str(error)[:60]!r}.", problems=[]), 404

    @app.errorhandler(RequestEntityTooLarge)
    def too_large(_error: RequestEntityTooLarge) -> Any:
        most = MAX_BODY_BYTES // 1_000_000
        return jsonify(message=f"The file is larger than {most} MB.", problems=[]), 413

    @app.errorhandler(VaultError)
    def not_opened(error: VaultError) -> Any:
        return jsonify(message=str(error), problems=[]), 409

    @app.errorhandler(ControllerError)
    def no_controller(error: ControllerError) -> Any:
        # What was asked of us is well; what it depends on is not (RFC 4918).
        return jsonify(message=str(error), problems=[]), 409 if error.trouble == "refused" else 424

    @app.errorhandler(SQLAlchemyError)
    def database_trouble(error: SQLAlchemyError) -> Any:
        trouble = trouble_of(error)
        log.warning("database: %s", getattr(error, "orig", error))
        if trouble == "too_large":
            message = "This is more than the database takes at once; nothing was saved."
            return jsonify(message=message, problems=[]), 413
        if trouble == "full":
            return no_room()
        if trouble == "other" and not isinstance(error, OperationalError):
            raise error
        if not isinstance(error, PoolTimeout):
            breaker.failed()
        return jsonify(message=NO_DATABASE, problems=[]), 503

    @app.errorhandler(Busy)
    def busy(_error: Busy) -> Any:
        message = "The machine is busy with other files; try again in half a minute."
        return jsonify(message=message, problems=[]), 503

    @app.errorhandler(RecursionError)
    def too_deep(_error: RecursionError) -> Any:
        return jsonify(message="The request is nested too deep.", problems=[]), 422

    @app.error_processor
    def from_apiflask(error: Any) -> Any:
        problems = [
            {"where": _placed(field), "what": "; ".join(map(str, texts))}
            for place in (error.detail or {}).values()
            for field, texts in place.items()
        ]
        message = problems[0]["where"] + ": " + problems[0]["what"] if problems else error.message
        return {"message": message, "problems": problems}, error.status_code

    # After the above, which sets one up that knows the status and not the reason.
    @app.errorhandler(HTTPException)
    def other(error: HTTPException) -> Any:
        return jsonify(message=error.description, problems=[]), error.code


def _placed(field: str) -> str:
    """Return where a fault is, rows of a list by their number in brackets: ``ticks[0].minutes``."""
    return re.sub(r"\.(\d+)(?=\.|$)", r"[\1]", field)
