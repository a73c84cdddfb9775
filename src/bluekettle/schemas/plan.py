"""Plans that are kept, and what they were before."""

from __future__ import annotations

from datetime import datetime
from typing import Any

from pydantic import Field

from bluekettle.schemas.base import AsidePublic, CreateModel, PublicModel
from bluekettle.schemas.chain import ChainDocument


class PlanCreate(CreateModel):
    """What to keep as the plan; a `kettle.dish/1` is kept as the chain that it is."""

    dish: ChainDocument


class PlanPublic(PublicModel):
    """A kept plan."""

    id: int
    title: str
    dish: dict[str, Any]
    version: int = Field(description="the same as its ETag")
    updated_at: datetime


class PlansPublic(PublicModel):
    """A page of kept plans, newest first."""

    plans: list[PlanPublic]
    aside: list[AsidePublic] = Field(default_factory=list)
    more: str = Field("", description="put this into `after` for the next page; empty on the last")


class RevisionPublic(PublicModel):
    """A plan as it was."""

    version: int
    title: str
    dish: dict[str, Any]
    kept_at: datetime


class RevisionsPublic(PublicModel):
    """What a plan was before, newest first."""

    revisions: list[RevisionPublic]
