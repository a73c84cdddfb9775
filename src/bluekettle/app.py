"""The application: config, store, blueprints, the built web page; nothing else."""

from __future__ import annotations

from datetime import UTC, datetime
from pathlib import Path
from typing import Any

from flask import Flask, Response, jsonify, request, send_from_directory
from flask_compress import Compress
from flask_openapi import Info, OpenAPI
from pydantic import BaseModel
from werkzeug.exceptions import NotFound
from werkzeug.routing import PathConverter

from bluekettle import __version__
from bluekettle.api import advice, cooks, door, forecasts, kitchen, meals, plans, sauces, suppers
from bluekettle.api.errors import from_validation, register_errors
from bluekettle.api.guard import guard
from bluekettle.api.openapi import with_problems
from bluekettle.api.rows import RowsRequest
from bluekettle.config import Config
from bluekettle.core.units import Reading, render
from bluekettle.schemas.problem import Problem
from bluekettle.services.log import refresh_summaries
from bluekettle.services.strips import Strips
from bluekettle.services.workshop import Workshop
from bluekettle.store.opening import open_with_care

STATIC = Path(__file__).parent / "static"


class PagePath(PathConverter):
    """Any address but the API's own, which answers for itself."""

    regex = "(?!api(?:/|$))[^/].*?"


class Kettle(OpenAPI):
    """Flask, with views that may return models, and bodies that may be rows."""

    request_class = RowsRequest

    def make_response(self, rv: Any) -> Response:
        """Turn a model, alone or with a status, into JSON."""
        status = None
        if isinstance(rv, tuple) and len(rv) == 2 and isinstance(rv[0], BaseModel):
            rv, status = rv
        if isinstance(rv, BaseModel):
            rv = Response(rv.model_dump_json(), status=status or 200, mimetype="application/json")
        return super().make_response(rv)


def read_as() -> Reading:
    """How this request's cook reads amounts: the header Kettle-Units, like "us F" or "metric C"."""
    wanted = request.headers.get("Kettle-Units", "").split()
    return Reading(us="us" in wanted, fahrenheit="F" in wanted)


def show_amounts(response: Response) -> Response:
    """Amounts inside sentences, in the cook's units."""
    if response.is_json and not response.direct_passthrough:
        response.set_data(render(response.get_data(as_text=True), read_as()))
        response.vary.add("Kettle-Units")
    return response


def compress(app: Flask) -> None:
    """Answers go out small. What is hung in first runs last: amounts are shown before."""
    app.config["COMPRESS_ALGORITHM"] = ["br", "gzip"]
    app.config["COMPRESS_BR_LEVEL"] = 5
    app.config["COMPRESS_MIMETYPES"] = [
        "text/html",
        "text/css",
        "text/javascript",
        "application/javascript",
        "application/json",
        "image/svg+xml",
    ]
    Compress(app)


def create_app(config: Config, workshop: Workshop | None = None) -> Kettle:
    """Make the application; the database is created or brought up to date. `workshop` : where the
    model runs, if it has begun already.
    """
    app = Kettle(
        "bluekettle",
        info=Info(title="Blue Kettle", version=__version__),
        validation_error_callback=from_validation,
        validation_error_model=Problem,
        validate_response=config.testing or None,
        static_folder=None,
        doc_ui=False,
    )
    app.config["MAX_CONTENT_LENGTH"] = 512 * 1024
    engine = open_with_care(config.database, datetime.now(UTC))
    app.extensions["kettle_engine"] = engine
    refresh_summaries(engine)
    workshop = workshop or Workshop(config.workers)
    app.extensions["kettle_workshop"] = workshop
    app.extensions["kettle_strips"] = Strips(workshop)
    compress(app)
    app.after_request(show_amounts)
    guard(app, config.hosts)
    door.hang(app, config.folder, config.passcode, config.beyond)
    register_errors(app)
    for part in (forecasts, advice, plans, meals, suppers, cooks, kitchen, sauces):
        app.register_api(part.blueprint)

    app.add_url_rule(
        "/api/v1/openapi.json", "openapi_document", lambda: jsonify(with_problems(app.api_doc))
    )
    _serve_page(app)
    return app


def _serve_page(app: Kettle) -> None:
    """The built page; every address that is not the API's and not a file is the page's own
    route.
    """

    files = {f.relative_to(STATIC).as_posix() for f in STATIC.rglob("*") if f.is_file()}

    def page(name: str = "") -> Response:
        file = name if name in files else "index.html"
        if "." in name.rsplit("/", 1)[-1] and name not in files:
            raise NotFound
        response = send_from_directory(STATIC, file)
        fixed = file.startswith("assets/")
        response.headers["Cache-Control"] = (
            "public, max-age=31536000, immutable" if fixed else "no-cache"
        )
        return response

    app.add_url_rule("/", "page", page)
    app.url_map.converters["page"] = PagePath
    app.add_url_rule("/<page:name>", "page", page)
