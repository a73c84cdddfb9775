"""What outside devices read: a probe in the food, a thermometer in the oven, the pin of a pot."""

from __future__ import annotations

from datetime import datetime
from typing import Any, Literal

from pydantic import Field, model_validator

from bluekettle.schemas.base import CreateModel, Moment, PublicModel

MOST_AT_ONCE = 2000
Quantity = Literal["core_c", "air_c", "pin"]


class ReadingCreate(CreateModel):
    """One reading: core_c, inside the food [°C]; air_c, around it [°C]; pin, 1 while it is up."""

    quantity: Quantity = Field(description="core_c, air_c or pin")
    value: float = Field(ge=-60, le=600, description="what it read [°C]; of a pin 1 (up) or 0")
    at: Moment | None = Field(None, description="when, by the clock of the cook; null: now")
    device: str = Field("probe", min_length=1, max_length=40, description="what you call it")
    site: str = Field("", max_length=40, description="where it is, like thickest piece")


class ReadingsCreate(CreateModel):
    """A batch of readings, each device's in the order of time. A single reading may stand alone."""

    readings: list[ReadingCreate] = Field(
        min_length=1, max_length=MOST_AT_ONCE, description="all are taken, or none"
    )

    @model_validator(mode="before")
    @classmethod
    def of_one(cls, given: Any) -> Any:
        """A reading by itself is the batch that it is."""
        alone = isinstance(given, dict) and "quantity" in given and "readings" not in given
        return {"readings": [given]} if alone else given


class ReadingsPublic(PublicModel):
    """What was taken."""

    taken: int
    newest_at: datetime


class DevicePublic(PublicModel):
    """The newest reading of one quantity. silent : it has said nothing for a while."""

    device: str
    quantity: str
    value: float
    site: str
    taken_at: datetime
    silent: bool


class ProbePublic(PublicModel):
    """What a probe in the food says, and when it will read what is wanted."""

    device: str
    site: str
    temp_c: float
    taken_at: datetime
    silent: bool = Field(description="it has said nothing for a while")
    loose: bool = Field(description="it reads what the food cannot be: it is not in its middle")
    target_c: float | None = Field(description="what is waited for; null where nothing is")
    ready: bool = Field(description="false while the moment is being computed")
    at: datetime | None = Field(description="when it is likely there; null where that is not known")
    low_at: datetime | None
    high_at: datetime | None


class DeviceDonePublic(PublicModel):
    """A step of which a device says that it is done: a person still tells it."""

    step: str
    at: datetime
    ago_s: float
    says: str
    button: str
