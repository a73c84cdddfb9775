"""What the blueprints share: the engine, the moment, the workshop, and the answers every route can
give.
"""

from __future__ import annotations

from collections.abc import Callable
from datetime import UTC, datetime
from typing import Any, Literal, TypeVar

from flask import Response, current_app, request
from pydantic import BaseModel, Field
from sqlalchemy import Engine

from bluekettle.schemas.beginning import HeatTimesCreate
from bluekettle.schemas.chain import ChainDocument
from bluekettle.schemas.dish import KitchenDocument
from bluekettle.schemas.problem import Problem
from bluekettle.schemas.sauce import AnalyseCreate, VariantCreate
from bluekettle.services.in_kitchen import filled
from bluekettle.services.kitchen import get_kitchen
from bluekettle.services.paging import read_version
from bluekettle.services.strips import Strips
from bluekettle.services.workshop import Workshop, always

PREFIX = "/api/v1"
Body = TypeVar("Body", ChainDocument, HeatTimesCreate, AnalyseCreate, VariantCreate)
PROBLEMS: dict[str | int, Any] = {422: Problem}
HEAVY: dict[str | int, Any] = {422: Problem, 503: Problem}
CONFLICT: dict[str | int, Any] = {404: Problem, 409: Problem, 422: Problem}
FOUND: dict[str | int, Any] = {404: Problem, 422: Problem}
CHANGED: dict[str | int, Any] = {404: Problem, 412: Problem, 422: Problem}


class IdPath(BaseModel):
    """A record's number."""

    id: int = Field(ge=1, le=2**53, description="number of the record")


class PageQuery(BaseModel):
    """A page of a list."""

    search: str = Field("", max_length=80, description="words that the title holds")
    after: str = Field("", max_length=200, description="what `more` of the page before said")
    limit: int = Field(50, ge=1, le=200, description="records on a page")


class IfMatch(BaseModel):
    """The version that a change is made to; without it the change is made to whatever there is."""

    if_match: str = Field(
        "",
        alias="If-Match",
        description='ETag that was read, like "3"',
        json_schema_extra={"pattern": r'^([*]?|(W/)?"[0-9]{1,15}(:[a-z]+)?")$'},
    )

    @property
    def version(self) -> int | None:
        """The version, None where any will do; OutOfRange for what is no ETag of ours."""
        return read_version(self.if_match)


class InKitchen(BaseModel):
    """The kitchen that a document is cooked in."""

    kitchen: Literal["", "kept"] = Field(
        "",
        alias="Kettle-Kitchen",
        description="kept: the kept kitchen fills what the document leaves open; else nothing does",
    )


def here(told: KitchenDocument, header: InKitchen) -> KitchenDocument:
    """What a document says of its kitchen, filled where the request wants it."""
    if header.kitchen == "kept":
        return filled(told, get_kitchen(engine(), now()).for_plans)
    return told


def cooked_in(body: Body, header: InKitchen) -> Body:
    """A document, in the kitchen that the request wants."""
    return body.model_copy(update={"kitchen": here(body.kitchen, header)})


def tagged(record: BaseModel, status: int = 200) -> Response:
    """A record as an answer, its `version` as the ETag, its address where it was created."""
    response = Response(record.model_dump_json(), status=status, mimetype="application/json")
    response.set_etag(str(record.version))  # type: ignore[attr-defined]
    if status == 201:
        response.headers["Location"] = f"{request.path}/{record.id}"  # type: ignore[attr-defined]
    return response


def engine() -> Engine:
    """The application's engine."""
    found = current_app.extensions["kettle_engine"]
    assert isinstance(found, Engine)
    return found


def workshop() -> Workshop:
    """Where the model runs."""
    found = current_app.extensions["kettle_workshop"]
    assert isinstance(found, Workshop)
    return found


def strips() -> Strips:
    """Strips of live cooks."""
    found = current_app.extensions["kettle_strips"]
    assert isinstance(found, Strips)
    return found


def waits() -> Callable[[], bool]:
    """Whether the client of this request is still there."""
    gone = request.environ.get("waitress.client_disconnected")
    return always if gone is None else (lambda: not gone())


def heavy(task: str, *payload: Any) -> Any:
    """Run a heavy task for this request."""
    return workshop().run(task, *payload, waits=waits())


def now() -> datetime:
    """The moment of the request; the only clock."""
    clock = current_app.extensions.get("kettle_clock")
    return clock() if clock else datetime.now(UTC)
