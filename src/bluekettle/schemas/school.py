"""Where practitioners disagree, for one plan."""

from __future__ import annotations

from typing import Any

from pydantic import Field

from bluekettle.schemas.base import PublicModel


class SchoolChoicePublic(PublicModel):
    """One school."""

    key: str
    text: str
    why: str = Field(description="what it changes")
    chosen: bool = Field(description="the plan follows it")
    patch: list[dict[str, Any]] = Field(
        description="JSON Patch of the plan that follows it; empty where it is followed"
    )
    later_s: float | None = Field(
        description="how much later it is on the table; null: it cannot be reckoned so [s]"
    )
    right: float | None = Field(description="share of evenings that come out right; null as above")


class SchoolPublic(PublicModel):
    """A question that practitioners answer in several ways."""

    key: str
    question: str
    in_view: bool = Field(description="shown at first")
    choices: list[SchoolChoicePublic]


class SchoolsPublic(PublicModel):
    """The questions of a plan, in order."""

    schools: list[SchoolPublic]
