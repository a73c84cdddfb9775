"""The only map from error class to status and problem document (RFC 9457)."""

from __future__ import annotations

import json
from collections.abc import Callable
from typing import Any

from flask import Flask, Response, make_response
from pydantic import ValidationError
from sqlalchemy.exc import OperationalError
from sqlalchemy.orm.exc import StaleDataError
from werkzeug.exceptions import HTTPException

from bluekettle.core.errors import CoreError, Infeasible, MissingData, OutOfRange
from bluekettle.core.stages import LIMITS
from bluekettle.schemas.base import LIKE_THIS
from bluekettle.schemas.chain import without_kinds
from bluekettle.schemas.problem import FaultPublic, Problem
from bluekettle.services.errors import (
    Busy,
    Changed,
    Conflict,
    NotFound,
    Stopped,
    Unreadable,
)

MEDIA = "application/problem+json"
SHOWN = 120  # characters of what was given that are repeated back


def shown(given: Any) -> str:
    """What was given, shortened, for a person."""
    text = given if isinstance(given, str) else json.dumps(given, default=str)
    text = text.encode("utf-8", "replace").decode()
    return text if len(text) <= SHOWN else text[:SHOWN] + "…"


def answer(problem: Problem) -> Response:
    """A problem document as a response."""
    response = make_response(problem.model_dump_json(), problem.status)
    response.headers["Content-Type"] = MEDIA
    return response


def accepted_by(error: Any) -> str:
    """What pydantic would have accepted, in words and with the unit where the field has one."""
    name = str(error["loc"][-1]) if error["loc"] else ""
    context = error.get("ctx") or {}
    if name in LIMITS and error["type"] not in ("missing", "extra_forbidden"):
        low, high, unit = LIMITS[name]
        whole = "a whole number from " if error["type"].startswith("int") else ""
        return f"{whole}{low:g} to {high:g} {unit}"
    if name == "sauce":
        return "null, the key of a sample sauce, or an object with a name and lines"
    if error["type"] in PLAIN:
        return PLAIN[error["type"]]
    if "expected" in context:
        return str(context["expected"])
    if "error" in context:
        return str(context["error"])
    if error["type"] in ("model_type", "model_attributes_type", "dict_type"):
        return "a JSON object"
    if error["type"] == "missing":
        return "a value: this field is needed"
    if error["type"] == "extra_forbidden":
        return "no field of this name"
    bounds = [
        f"{word} {str(context[key]).removesuffix('.0')}"
        for key, word in BOUNDS.items()
        if key in context
    ]
    return " and ".join(bounds) or str(error["msg"])


PLAIN = {
    "string_type": "text",
    "string_unicode": "text",
    "list_type": "a list",
    "finite_number": "a finite number",
    "float_type": "a number",
    "int_type": "a whole number",
    "bool_type": "true or false",
    "datetime_type": LIKE_THIS,
    "datetime_parsing": LIKE_THIS,
    "datetime_from_date_parsing": LIKE_THIS,
}
BOUNDS = {
    "ge": "at least",
    "gt": "more than",
    "le": "at most",
    "lt": "less than",
    "min_length": "a length of at least",
    "max_length": "a length of at most",
}


def from_validation(error: ValidationError) -> Response:
    """Every fault that pydantic found."""
    faults: dict[str, FaultPublic] = {}
    for item in error.errors(include_url=False):
        # The tags of a union (str, SauceDocument) are pydantic's own, not the document's.
        path = [
            str(part)
            for part in without_kinds(item["loc"])
            if part not in ("str", "SauceDocument") and "[" not in str(part)
        ]
        field = ".".join(path) or "body"
        given = "" if item["type"] == "missing" else shown(item.get("input"))
        if field not in faults:
            faults[field] = FaultPublic(field=field, given=given, accepted=accepted_by(item))
    # A union tells one fault per member: the deeper one, inside the object, is the one that helps.
    for field in [f for f in faults if any(other.startswith(f + ".") for other in faults)]:
        del faults[field]
    detail = "; ".join(f"{f.field}: accepted is {f.accepted}" for f in faults.values())
    return answer(
        Problem(
            title="This cannot be used", status=422, detail=detail, errors=list(faults.values())
        )
    )


def from_core(error: CoreError) -> Response:
    """Errors of the core: out of range 422, infeasible 422; broken data is our own fault, still a
    document.
    """
    if isinstance(error, OutOfRange):
        faults = [
            FaultPublic(field=f.field, given=shown(f.given), accepted=f.accepted)
            for f in error.faults
        ]
        return answer(
            Problem(
                title="This cannot be used", status=422, detail=str(error)[:2000], errors=faults
            )
        )
    if isinstance(error, MissingData):
        fault = FaultPublic(
            field=error.table, given=shown(error.key), accepted=", ".join(error.known)
        )
        return answer(
            Problem(title="Not known", status=422, detail=str(error)[:2000], errors=[fault])
        )
    title = "This cannot be reached" if isinstance(error, Infeasible) else "The model has no answer"
    return answer(Problem(title=title, status=422, detail=str(error)[:2000]))


def from_http(error: HTTPException) -> Any:
    """404, 405 and their like, with their own headers kept (Allow)."""
    response = error.get_response()
    problem = Problem(
        title=error.name, status=error.code or 500, detail=str(error.description or error.name)
    )
    response.set_data(problem.model_dump_json())  # type: ignore[attr-defined]
    response.content_type = MEDIA  # type: ignore[attr-defined]
    return response


NESTED = Problem(
    title="This cannot be used",
    status=422,
    detail="body: accepted is JSON nested a few levels deep",
    errors=[FaultPublic(field="body", given="", accepted="JSON nested a few levels deep")],
)


def stopped(error: Stopped) -> Response:
    """A dish with stops: each with its id, so that a page can ask for a reason."""
    wanted = "a repair, or a reason: "
    faults = [
        FaultPublic(field=f"accepted.{stop}", given="", accepted=wanted + message)
        for stop, message in error.stops
    ]
    return answer(
        Problem(title="A stop stands", status=409, detail=str(error)[:2000], errors=faults)
    )


def busy(error: Busy) -> Response:
    """More than this machine can: worth asking again in a moment."""
    response = answer(Problem(title="Busy", status=503, detail=str(error)))
    response.headers["Retry-After"] = "1"
    return response


def storage(error: OperationalError) -> Response:
    """The disk is full or the folder cannot be written: nothing is lost, and nothing is kept."""
    told = str(error.orig)
    why = next((words for sign, words in STORAGE.items() if sign in told), told)
    return answer(Problem(title="Not kept", status=507, detail=why))


STORAGE = {
    "disk is full": "the disk is full: make room, and what was not kept is sent again",
    "readonly": "the data folder cannot be written",
    "locked": "the database is busy with something else; it is tried again",
    "malformed": "the database is damaged: stop the server and run `kettle check`",
    "disk I/O error": "the disk cannot be read or written",
}


def register_errors(app: Flask) -> None:
    """Hang the map into an application."""
    app.register_error_handler(CoreError, from_core)
    app.register_error_handler(HTTPException, from_http)
    app.register_error_handler(RecursionError, lambda _: answer(NESTED))
    app.register_error_handler(Stopped, stopped)
    app.register_error_handler(Busy, busy)
    app.register_error_handler(OperationalError, storage)
    for kind, title, status in (
        (NotFound, "Not found", 404),
        (StaleDataError, "Not found", 404),
        (Conflict, "Not now", 409),
        (Unreadable, "Set aside", 409),
        (Changed, "Changed elsewhere", 412),
    ):
        app.register_error_handler(kind, told_as(title, status))


def told_as(title: str, status: int) -> Callable[[Exception], Response]:
    """An error as a problem of a title and a status."""
    return lambda error: answer(Problem(title=title, status=status, detail=str(error)[:2000]))
