"""All tables. Input has passed a Create model before it comes here; times are UTC."""

from __future__ import annotations

from datetime import UTC, datetime
from typing import Any

from sqlalchemy import (
    JSON,
    Column,
    DateTime,
    Dialect,
    Index,
    Integer,
    TypeDecorator,
    UniqueConstraint,
)
from sqlmodel import Field, SQLModel


class UtcDateTime(TypeDecorator[datetime]):
    """SQLite drops time zones: everything is stored as UTC and comes back aware."""

    impl = DateTime
    cache_ok = True

    def process_bind_param(self, value: datetime | None, dialect: Dialect) -> datetime | None:
        """To naive UTC."""
        return None if value is None else value.astimezone(UTC).replace(tzinfo=None)

    def process_result_value(self, value: datetime | None, dialect: Dialect) -> datetime | None:
        """To aware UTC."""
        return None if value is None else value.replace(tzinfo=UTC)


def _moment(nullable: bool = False) -> Any:
    return Column(UtcDateTime, nullable=nullable)


def _version() -> Any:
    return Column(Integer, nullable=False, server_default="1")


class Meta(SQLModel, table=True):
    """What holds for the whole database: whether it is the sample scenario."""

    key: str = Field(primary_key=True)
    value: str


class Plan(SQLModel, table=True):
    """A dish kept as a plan. Every save has a new version."""

    __table_args__ = (Index("ix_plan_newest", "updated_at", "id"),)

    id: int | None = Field(default=None, primary_key=True)
    title: str
    dish: dict[str, Any] = Field(sa_column=Column(JSON, nullable=False))
    version: int = Field(default=1, sa_column=_version())
    updated_at: datetime = Field(sa_column=_moment())


class PlanRevision(SQLModel, table=True):
    """A plan as it was before it was changed."""

    __tablename__ = "plan_revision"

    id: int | None = Field(default=None, primary_key=True)
    plan_id: int = Field(foreign_key="plan.id", index=True)
    version: int
    title: str
    dish: dict[str, Any] = Field(sa_column=Column(JSON, nullable=False))
    kept_at: datetime = Field(sa_column=_moment())


class Meal(SQLModel, table=True):
    """Several dishes for one supper, as its document (kettle.meal/1). Every save has a new
    version.
    """

    __table_args__ = (Index("ix_meal_newest", "updated_at", "id"),)

    id: int | None = Field(default=None, primary_key=True)
    title: str
    document: dict[str, Any] = Field(sa_column=Column(JSON, nullable=False))
    version: int = Field(default=1, sa_column=_version())
    updated_at: datetime = Field(sa_column=_moment())


class Supper(SQLModel, table=True):
    """A meal that is being cooked, as its document (kettle.supper/1): the puzzle of its plan, what
    the cook was told, and its sides. Its dishes are cooks.
    """

    id: int | None = Field(default=None, primary_key=True)
    title: str
    document: dict[str, Any] = Field(sa_column=Column(JSON, nullable=False))
    version: int = Field(default=1, sa_column=_version())
    updated_at: datetime = Field(sa_column=_moment())


class Cook(SQLModel, table=True):
    """One live execution: its dish, what the plan knew when it began (kettle.cook/1), and a summary
    for lists, kept in step with every event.
    """

    __table_args__ = (
        Index("ix_cook_newest", "started_at", "id"),
        Index("ix_cook_under_way", "ended_at"),
    )

    id: int | None = Field(default=None, primary_key=True)
    title: str
    dish: dict[str, Any] = Field(sa_column=Column(JSON, nullable=False))
    facts: dict[str, Any] = Field(sa_column=Column(JSON, nullable=False))
    plan_id: int | None = Field(default=None, foreign_key="plan.id")
    meal_id: int | None = Field(default=None, foreign_key="meal.id")
    supper_id: int | None = Field(default=None, foreign_key="supper.id")
    line: str = Field(default="", sa_column_kwargs={"server_default": ""})
    started_at: datetime = Field(sa_column=_moment())
    ended_at: datetime | None = Field(default=None, sa_column=_moment(nullable=True))
    deleted_at: datetime | None = Field(default=None, sa_column=_moment(nullable=True))
    planned_s: float
    actual_s: float | None = None
    unknown_steps: int
    strip: dict[str, Any] = Field(sa_column=Column(JSON, nullable=False))


class CookStep(SQLModel, table=True):
    """One step of a cook as it was planned."""

    __tablename__ = "cook_step"
    __table_args__ = (UniqueConstraint("cook_id", "place", name="uq_cook_step_place"),)

    id: int | None = Field(default=None, primary_key=True)
    cook_id: int = Field(foreign_key="cook.id", index=True)
    place: int
    key: str
    who: str
    label: str
    low_s: float
    likely_s: float
    high_s: float
    data: dict[str, Any] = Field(sa_column=Column(JSON, nullable=False))


class CookEvent(SQLModel, table=True):
    """Append-only: what the cook told, when it happened and when it was tapped. `uid` is made by
    the device, so that the same tap sent twice is one.
    """

    __tablename__ = "cook_event"
    __table_args__ = (
        UniqueConstraint("cook_id", "seq", name="uq_cook_event_seq"),
        UniqueConstraint("cook_id", "uid", name="uq_cook_event_uid"),
    )

    id: int | None = Field(default=None, primary_key=True)
    cook_id: int = Field(foreign_key="cook.id", index=True)
    seq: int
    uid: str | None = None
    kind: str
    happened_at: datetime = Field(sa_column=_moment())
    recorded_at: datetime = Field(sa_column=_moment())
    data: dict[str, Any] = Field(sa_column=Column(JSON, nullable=False))


class Reading(SQLModel, table=True):
    """What an outside device read. mark : one of those that a forecast is held against, so that a
    long row of them does not have to be read.
    """

    __table_args__ = (
        UniqueConstraint(
            "cook_id", "quantity", "device", "taken_at", name="uq_reading_of_a_moment"
        ),
        Index("ix_reading_newest", "cook_id", "quantity", "taken_at"),
        Index("ix_reading_marks", "cook_id", "quantity", "mark", "taken_at"),
    )

    id: int | None = Field(default=None, primary_key=True)
    cook_id: int = Field(foreign_key="cook.id")
    device: str
    quantity: str
    site: str
    value: float
    taken_at: datetime = Field(sa_column=_moment())
    received_at: datetime = Field(sa_column=_moment())
    mark: bool


class Rehearsal(SQLModel, table=True):
    """That a cook is a rehearsal: its clock read `cook_at` at `real_at` and runs `speed` times as
    fast. seed : of the kitchen that it hides. kept : whether it stands in the log.
    """

    cook_id: int = Field(primary_key=True, foreign_key="cook.id")
    speed: float
    real_at: datetime = Field(sa_column=_moment())
    cook_at: datetime = Field(sa_column=_moment())
    seed: int
    kept: bool


class Outcome(SQLModel, table=True):
    """What a cook was like."""

    cook_id: int = Field(primary_key=True, foreign_key="cook.id")
    tenderness: str
    crust: str
    colour: str
    note: str
    recorded_at: datetime = Field(sa_column=_moment())


class Sauce(SQLModel, table=True):
    """A kept recipe, as its document (kettle.sauce/1)."""

    __table_args__ = (Index("ix_sauce_name", "name", "id"),)

    id: int | None = Field(default=None, primary_key=True)
    name: str
    document: dict[str, Any] = Field(sa_column=Column(JSON, nullable=False))
    version: int = Field(default=1, sa_column=_version())
    updated_at: datetime = Field(sa_column=_moment())


class KitchenSettings(SQLModel, table=True):
    """What holds for the whole kitchen; one row."""

    __tablename__ = "kitchen_settings"

    id: int = Field(default=1, primary_key=True)
    document: dict[str, Any] = Field(sa_column=Column(JSON, nullable=False))


class Appliance(SQLModel, table=True):
    """One appliance. Figures that are not known are null: then the kind's typical one is
    assumed.
    """

    id: int | None = Field(default=None, primary_key=True)
    kind: str
    name: str
    in_use: bool
    power_w: float | None = None
    volume_l: float | None = None
    gauge_kpa: float | None = None
    element_w_m2: float | None = None
    setting_c: float | None = None
    top_c: float | None = None
    preheat_s: float | None = None
    shape: str | None = None
    width_m: float | None = None
    depth_m: float | None = None
    height_m: float | None = None
    rack_m: float | None = None
    racks_m: list[float] | None = Field(default=None, sa_column=Column(JSON, nullable=True))
    body_id: int | None = Field(default=None, foreign_key="appliance.id")
    words: dict[str, Any] = Field(sa_column=Column(JSON, nullable=False))
    version: int = Field(default=1, sa_column=_version())


class Observation(SQLModel, table=True):
    """A sign seen under an appliance's heat, or the colour in which food came out of it. Never
    changed; forgetting one marks it. cook_id : the cook in which it was told; deep_c, surface_c :
    of its food as it went under; acts : coats and turns that were done before it.
    """

    id: int | None = Field(default=None, primary_key=True)
    appliance_id: int = Field(foreign_key="appliance.id", index=True)
    ground: str
    sign: str
    at_s: float
    dial: float
    coat_mm: float
    sauce_name: str
    sauce: dict[str, Any] | None = Field(default=None, sa_column=Column(JSON, nullable=True))
    made_at: datetime = Field(sa_column=_moment())
    forgotten_at: datetime | None = Field(default=None, sa_column=_moment(nullable=True))
    cook_id: int | None = Field(default=None, foreign_key="cook.id", index=True)
    deep_c: float | None = None
    surface_c: float | None = None
    acts: list[dict[str, Any]] | None = Field(default=None, sa_column=Column(JSON, nullable=True))
