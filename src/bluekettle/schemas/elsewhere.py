"""A heat that is left for another while it is cooked."""

from __future__ import annotations

from datetime import datetime
from typing import Literal
from uuid import UUID

from pydantic import Field

from bluekettle.schemas.base import CreateModel, PublicModel
from bluekettle.schemas.chain import HeatKey, Left

# What failed: the appliance, the foil around the food, or nothing: the cook would rather.
Gone = Literal["appliance", "cover", "choice"]


class LeavablePublic(PublicModel):
    """A heat that the food is in, or is still to come to, and what may fail there."""

    stage: str
    gone: Literal["appliance", "cover"] = Field(
        description="cover: the foil around the food is torn"
    )
    name: str = Field(description="of what may fail")
    says: str = Field(description='what the cook would tell: "The broiler is out"')


class ElsewhereQuery(CreateModel):
    """Which heat has to be left, and what failed."""

    stage: Left = Field(description="id of the heat, one of `leavable` of the live cook")
    gone: Gone = Field("appliance", description="what failed")


class ElsewhereWayPublic(PublicModel):
    """Another heat that does it."""

    heat: str
    name: str
    says: str = Field(description="what to do")
    eat_at: datetime = Field(description="when it is likely to be on the table")
    later_s: float = Field(description="how much later than now told; below 0: sooner [s]")
    right: float | None = Field(
        description="chance that it comes out in the wanted colours; null: nothing is browned in it"
    )


class ElsewherePublic(PublicModel):
    """Where the food can go, the soonest first; empty where nowhere is known."""

    stage: str
    gone: Gone
    ways: list[ElsewhereWayPublic]


class ElsewhereCreate(ElsewhereQuery):
    """Leave a heat for another."""

    id: UUID | None = Field(None, description="made by the device: the same tap is told once")
    heat: HeatKey = Field(description="where the food goes: key of a heat")
    seen: int | None = Field(
        None, ge=0, le=2**53, description="number of the last event that the page had seen"
    )
