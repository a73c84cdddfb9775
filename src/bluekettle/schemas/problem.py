"""Errors as problem documents (RFC 9457)."""

from __future__ import annotations

from pydantic import BaseModel, Field


class FaultPublic(BaseModel):
    """One input that cannot be used."""

    field: str = Field(description="path of the field, dots between its parts")
    given: str = Field(description="what was given")
    accepted: str = Field(description="what is accepted")


class Problem(BaseModel):
    """A problem document; `errors` names every field at fault."""

    type: str = "about:blank"
    title: str
    status: int
    detail: str
    errors: list[FaultPublic] = []
