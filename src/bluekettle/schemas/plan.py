"""Plans that are kept: a dish of one heat and one finish, or a chain; and what they were before."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Any

from pydantic import Discriminator, Field, Tag, TypeAdapter

from bluekettle.schemas.base import AsidePublic, CreateModel, PublicModel
from bluekettle.schemas.chain import ChainDocument
from bluekettle.schemas.dish import DishDocument

DISH, CHAIN = "kettle.dish/1", "kettle.dish/2"
FORMATS = (DISH, CHAIN)


def format_of(given: Any) -> str:
    """The format of a document; one that names none is the oldest."""
    if isinstance(given, DishDocument | ChainDocument):
        return given.format
    named = given.get("format", DISH) if isinstance(given, dict) else DISH
    return named if isinstance(named, str) else ""


AnyDish = Annotated[
    Annotated[DishDocument, Tag(DISH)] | Annotated[ChainDocument, Tag(CHAIN)],
    Discriminator(
        format_of,
        custom_error_type="format_unknown",
        custom_error_message="a document of a format that is known",
        custom_error_context={"expected": f"a document of the format {DISH} or {CHAIN}"},
    ),
]
# A DishDocument or a ChainDocument.
ANY_DISH: TypeAdapter[Any] = TypeAdapter(AnyDish)  # type: ignore[arg-type]


class PlanCreate(CreateModel):
    """A dish or a chain to keep as the plan."""

    dish: AnyDish


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
