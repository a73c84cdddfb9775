"""What all models share."""

from __future__ import annotations

import unicodedata
from datetime import UTC, datetime
from typing import Annotated, Any

from pydantic import AfterValidator, BaseModel, BeforeValidator, ConfigDict, Field, field_validator

from bluekettle.core.stages import LIMITS


class CreateModel(BaseModel):
    """Input: no field that is not known, no infinities."""

    model_config = ConfigDict(extra="forbid", allow_inf_nan=False)

    @field_validator("*", mode="before")
    @classmethod
    def readable(cls, given: Any) -> Any:
        """Text that can be shown: no control characters but line ends and tabs, however deep."""
        if not shows(given):
            raise ValueError("text without control characters")
        return given


def shows(given: Any) -> bool:
    """Whether all text in a value can be shown: in lists, and in keys and values of maps."""
    if isinstance(given, str):
        return all(c in "\n\r\t" or unicodedata.category(c) not in ("Cc", "Cs") for c in given)
    if isinstance(given, dict):
        return all(shows(key) and shows(value) for key, value in given.items())
    if isinstance(given, list):
        return all(shows(item) for item in given)
    return True


class PublicModel(BaseModel):
    """Output."""

    model_config = ConfigDict(from_attributes=True)


def _no_number(given: Any) -> Any:
    """Pydantic would take a bare number for a date."""
    if isinstance(given, bool | int | float):
        raise ValueError("a date and time with its time zone, like 2030-05-01T19:30:00+02:00")
    return given


def _utc(moment: datetime) -> datetime:
    try:
        return moment.astimezone(UTC)
    except OverflowError:
        raise ValueError("a date between the years 2 and 9998") from None


def _aware(moment: datetime) -> datetime:
    if moment.tzinfo is None:
        raise ValueError("a date and time with its time zone, like 2030-05-01T19:30:00+02:00")
    return _utc(moment)


Moment = Annotated[datetime, BeforeValidator(_no_number), AfterValidator(_aware)]


def limited(name: str, text: str, default: Any = ...) -> Any:
    """A field whose bounds and unit are those of the core's LIMITS."""
    low, high, unit = LIMITS[name]
    return Field(default, ge=low, le=high, strict=True, description=f"{text} [{unit}]")
