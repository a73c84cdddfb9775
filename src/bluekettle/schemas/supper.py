"""A meal that is being cooked: what comes next over all its dishes, and what moved."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Literal
from uuid import UUID

from pydantic import Field

from bluekettle.schemas.alarm import AlarmPublic
from bluekettle.schemas.base import CreateModel, Key, Moment, PublicModel


class SupperNextPublic(PublicModel):
    """An act that hands are wanted for."""

    cook: int | None = Field(description="number of its cook; null for a side")
    line: str = Field(description="id of its dish or side")
    name: str
    step: str
    label: str
    at: datetime = Field(description="when it was told to begin")
    waits_until: datetime | None = Field(description="until when it may wait; null: no limit")


class SupperMovePublic(PublicModel):
    """A dish of which something begins at another moment than was told."""

    line: str
    name: str
    label: str
    was_at: datetime
    is_at: datetime


class SideWayPublic(PublicModel):
    """Where a side can go."""

    body: str = Field(description="key of a kind of body")
    name: str


class SupperSidePublic(PublicModel):
    """A side as it stands."""

    line: str
    name: str
    step: str | None = Field(description="key of the current step; null once it is over")
    label: str
    who: Literal["", "hands", "machine"]
    begin_at: datetime | None
    due_at: datetime | None
    undoable: bool
    place: str = Field(description="what it cooks in; empty where it is in no heat any more")
    was: str = Field(description="key of what it had to leave and can go back to; else empty")
    was_place: str = Field(description="what that is called")
    ways: list[SideWayPublic] = Field(description="where else it can go; it is planned anew")
    calls: list[AlarmPublic] = Field(description="moments at which to call the cook for it")


class StillInPublic(PublicModel):
    """A dish or side that is still to be cooked in what broke or was taken."""

    cook: int | None = Field(description="number of its cook; null for a side")
    line: str
    says: str
    ways: list[SideWayPublic] = Field(description="where a side can go instead")


class SupperPublic(PublicModel):
    """A meal that is being cooked."""

    id: int
    title: str
    now: datetime = Field(description="by the clock of its cooks")
    wanted_at: datetime
    serve_at: datetime = Field(description="when everything is likely to be there")
    hands: int
    stale: bool = Field(description="whether the rest is to be planned anew")
    why: str = Field(description="why it was planned anew; empty where it was not")
    moved: list[SupperMovePublic] = Field(description="against what the cook has seen")
    supper_was_at: datetime = Field(description="what the cook has seen")
    next: list[SupperNextPublic] = Field(description="in the order of the plan")
    sides: list[SupperSidePublic]
    still_in: list[StillInPublic] = Field(
        description="what would still go into an appliance that broke or was taken"
    )
    version: int


class SupperChange(CreateModel):
    """What of a supper is to be changed; null: as it is."""

    wanted_at: Moment | None = Field(None, description="the guests come later, or sooner")
    hands: int | None = Field(None, ge=1, le=6, description="pairs of hands")
    seen: bool = Field(False, description="what moved was read")


class SideTellCreate(CreateModel):
    """A step of a side is done, or the last one was not. Both moments are by the device's own
    clock, so only their difference counts.
    """

    id: UUID | None = Field(None, description="made by the device: the same tap is told once")
    line: str = Field(min_length=1, max_length=60, description="id of the side")
    kind: Literal["done", "undo"]
    step: str = Field("", max_length=60, description="for done: key of its step")
    ago_s: float = Field(
        0.0, ge=0, le=14_400, description="how long before the tap it happened [s]"
    )
    tapped_at: Moment | None = Field(None, description="when it was tapped")
    sent_at: Moment | None = Field(None, description="when it was sent")


class SideMoveCreate(CreateModel):
    """A side goes into something else, because what it was to cook in is not there any more; or
    back.
    """

    line: str = Field(min_length=1, max_length=60, description="id of the side")
    body: Annotated[str, Key("bodies")] = Field(description="kind of body that it goes into")


class SupperPlanCreate(CreateModel):
    """Plan the rest of a supper anew."""

    version: int | None = Field(None, ge=1, le=2**53, description="that was read; null: any")
