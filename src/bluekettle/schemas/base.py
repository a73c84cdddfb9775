"""What all models share."""

from __future__ import annotations

import re
from copy import deepcopy
from dataclasses import dataclass
from datetime import UTC, datetime
from functools import cache
from types import UnionType
from typing import Annotated, Any, Union, get_args, get_origin

from pydantic import (
    AfterValidator,
    BaseModel,
    BeforeValidator,
    ConfigDict,
    Field,
    GetCoreSchemaHandler,
    GetJsonSchemaHandler,
    ValidationInfo,
    field_validator,
)
from pydantic_core import CoreSchema, core_schema

from bluekettle.core.stages import LIMITS
from bluekettle.core.tables import rows

# Text that can be shown, for the JSON Schema; `shows` is what decides.
SHOWN_TEXT = r"^[^\u0000-\u0008\u000b\u000c\u000e-\u001f\u007f-\u009f]*$"
# What cannot: control characters but line ends and tabs, and halves of a pair (Unicode Cc and Cs).
HIDDEN = re.compile("[\x00-\x08\x0b\x0c\x0e-\x1f\x7f-\x9f\ud800-\udfff]")


class Described(BaseModel):
    """What routes take and give."""

    @classmethod
    def model_json_schema(cls, *given: Any, **told: Any) -> dict[str, Any]:
        """Made once for each way it is asked for: every route asks for that of a fault again."""
        return deepcopy(schema_made(cls, given, tuple(sorted(told.items()))))


@cache
def schema_made(
    model: type[Described], given: tuple[Any, ...], told: tuple[tuple[str, Any], ...]
) -> dict[str, Any]:
    """The JSON Schema of a model."""
    return super(Described, model).model_json_schema(*given, **dict(told))


class CreateModel(Described):
    """Input: no field that is not known, no infinities."""

    model_config = ConfigDict(extra="forbid", allow_inf_nan=False)

    @field_validator("*", mode="before")
    @classmethod
    def readable(cls, given: Any, info: ValidationInfo) -> Any:
        """Text that can be shown: no control characters but line ends and tabs, however deep.
        Numbers as JSON means them: 2.0 is a whole number, "2" and true are none.
        """
        if not shows(given):
            raise ValueError("text without control characters")
        return as_json_means(given, kinds_of(cls, info.field_name or ""))

    @classmethod
    def __get_pydantic_json_schema__(
        cls, schema: CoreSchema, handler: GetJsonSchemaHandler
    ) -> dict[str, Any]:
        """Says of every text what `readable` asks of it."""
        made = handler(schema)
        for field in handler.resolve_ref_schema(made).get("properties", {}).values():
            say_shown_text(field)
        return made


@cache
def kinds_of(model: type[BaseModel], field: str) -> frozenset[Any]:
    """What a field may be: its type, or each of its choices."""
    annotation = model.model_fields[field].annotation
    choice = get_origin(annotation) in (Union, UnionType)
    return frozenset(get_args(annotation) if choice else (annotation,))


def as_json_means(given: Any, kinds: frozenset[Any]) -> Any:
    """A number or a switch for a field of these kinds."""
    if isinstance(given, float) and int in kinds and float not in kinds and given.is_integer():
        return int(given)
    if bool in kinds and not isinstance(given, bool | None):
        raise ValueError("true or false")
    if kinds & {int, float} and isinstance(given, str | bool):
        raise ValueError("a number")
    return given


def say_shown_text(schema: dict[str, Any]) -> None:
    """Put the pattern of text that can be shown where nothing narrower is said."""
    if schema.get("type") == "string" and not schema.keys() & {
        "enum",
        "const",
        "format",
        "pattern",
    }:
        schema["pattern"] = SHOWN_TEXT
    if isinstance(schema.get("additionalProperties"), dict):
        schema.setdefault("propertyNames", {"type": "string"})
    inner = [schema.get("items"), schema.get("additionalProperties"), schema.get("propertyNames")]
    for part in [*schema.get("anyOf", []), *inner]:
        if isinstance(part, dict):
            say_shown_text(part)


def shows(given: Any) -> bool:
    """Whether all text in a value can be shown: in lists, and in keys and values of maps."""
    if isinstance(given, str):
        return HIDDEN.search(given) is None
    if isinstance(given, dict):
        return all(shows(key) and shows(value) for key, value in given.items())
    if isinstance(given, list):
        return all(shows(item) for item in given)
    return True


class PublicModel(Described):
    """Output."""

    model_config = ConfigDict(from_attributes=True)


LIKE_THIS = "a date and time with its time zone, like 2030-05-01T19:30:00+02:00"


def _no_number(given: Any) -> Any:
    """Pydantic would take a bare number for a date."""
    if isinstance(given, bool | int | float):
        raise ValueError(LIKE_THIS)
    return given


def _utc(moment: datetime) -> datetime:
    try:
        return moment.astimezone(UTC)
    except OverflowError:
        raise ValueError("a date between the years 2 and 9998") from None


def _aware(moment: datetime) -> datetime:
    if moment.tzinfo is None:
        raise ValueError(LIKE_THIS)
    return _utc(moment)


Moment = Annotated[datetime, BeforeValidator(_no_number), AfterValidator(_aware)]


@dataclass(frozen=True)
class Key:
    """Text that is the key of a row of a table: `Annotated[str, Key("cuts")]`."""

    table: str

    def check(self, given: str) -> str:
        """The key, where there is such a row."""
        if given not in rows(self.table):
            raise ValueError(f"one of {', '.join(rows(self.table))}")
        return given

    def __get_pydantic_core_schema__(
        self, source: Any, handler: GetCoreSchemaHandler
    ) -> CoreSchema:
        """Text, then a look into the table."""
        return core_schema.no_info_after_validator_function(self.check, handler(source))

    def __get_pydantic_json_schema__(
        self, schema: CoreSchema, handler: GetJsonSchemaHandler
    ) -> dict[str, Any]:
        """All keys; as a pattern, so that a new row of a table is no new type of the page."""
        return {**handler(schema), "pattern": f"^({'|'.join(rows(self.table))})$"}


def limited(name: str, text: str, default: Any = ...) -> Any:
    """A field whose bounds and unit are those of the core's LIMITS."""
    low, high, unit = LIMITS[name]
    return Field(default, ge=low, le=high, strict=True, description=f"{text} [{unit}]")


class AsidePublic(PublicModel):
    """A record that cannot be read: it is set aside, and the others live."""

    id: int
    title: str
    why: str
