"""What the blueprints share: the engine, the moment, and the answers every route can give."""

from __future__ import annotations

from datetime import UTC, datetime
from typing import Any

from flask import current_app
from pydantic import BaseModel, Field
from sqlalchemy import Engine

from bluekettle.schemas.problem import Problem

PREFIX = "/api/v1"
PROBLEMS: dict[str | int, Any] = {422: Problem}
CONFLICT: dict[str | int, Any] = {404: Problem, 409: Problem, 422: Problem}
FOUND: dict[str | int, Any] = {404: Problem, 422: Problem}


class IdPath(BaseModel):
    """A record's number."""

    id: int = Field(ge=1, le=2**53, description="number of the record")


def engine() -> Engine:
    """The application's engine."""
    found = current_app.extensions["kettle_engine"]
    assert isinstance(found, Engine)
    return found


def now() -> datetime:
    """The moment of the request; the only clock."""
    clock = current_app.extensions.get("kettle_clock")
    return clock() if clock else datetime.now(UTC)
