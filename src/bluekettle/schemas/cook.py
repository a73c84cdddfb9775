"""Plans kept, live cooks, their events and outcomes."""

from __future__ import annotations

from datetime import datetime
from typing import Any, Literal

from pydantic import Field

from bluekettle.schemas.base import CreateModel, PublicModel
from bluekettle.schemas.dish import DishDocument
from bluekettle.schemas.forecast import CallPublic, ForecastPublic, GlazePublic


class PlanCreate(CreateModel):
    """A dish to keep as the plan."""

    dish: DishDocument


class PlanPublic(PublicModel):
    """A kept plan."""

    id: int
    title: str
    dish: dict[str, Any]
    updated_at: datetime


class PlansPublic(PublicModel):
    """Kept plans, newest first."""

    plans: list[PlanPublic]


class CookCreate(CreateModel):
    """Start cooking a dish now."""

    dish: DishDocument
    plan_id: int | None = Field(None, ge=1, le=2**53, description="the plan it came from")


class EventCreate(CreateModel):
    """Something that happened. `ago_s` says how long before the tap."""

    kind: Literal["done", "extend", "saw", "undo"] = Field(description="what is told")
    step: str = Field("", max_length=40, description="key of the step, for done and extend")
    ago_s: float = Field(0.0, ge=0, le=21_600, description="how long ago it happened [s]")
    seconds: float = Field(0.0, ge=-3600, le=3600, description="for extend: how much longer [s]")
    sign: Literal["", "nothing yet", "bubbling", "amber at the edges", "dark"] = Field(
        "", description="for saw"
    )
    temp_c: float | None = Field(
        None, ge=-30, le=130, description="for a gate: the thermometer's reading [°C]"
    )
    tender: bool | None = Field(None, description="for a gate: whether it is tender")


class OutcomeCreate(CreateModel):
    """What it was like."""

    tenderness: Literal["tough", "tug", "falls", "shreds", "mushy"]
    crust: Literal["soft", "sticky", "crackling", "hard"]
    colour: Literal["pale", "amber", "mahogany", "too dark", "burnt"]
    note: str = Field("", max_length=2000)


class OutcomePublic(PublicModel):
    """What it was like."""

    tenderness: str
    crust: str
    colour: str
    note: str
    recorded_at: datetime


class StepPublic(PublicModel):
    """A step of a live cook: confirmed, estimated, unknown, current, running or upcoming."""

    key: str
    label: str
    who: str
    state: str
    beside: bool
    begin_at: datetime | None
    end_at: datetime | None
    due_at: datetime
    likely_s: float
    passed: bool


class LivePublic(PublicModel):
    """The state of a cook at one moment."""

    id: int
    title: str
    now: datetime
    started_at: datetime
    ended_at: datetime | None
    last_event: int
    current: str | None
    says: str = Field(description="the one thing to do now")
    button: str = Field(
        description="what the wide button says, empty where there is nothing to tap"
    )
    detail: str
    steps: list[StepPublic]
    serve_at: datetime
    serve_low_at: datetime
    serve_high_at: datetime
    fire_since: datetime | None
    fire_assumed: bool
    calls: list[CallPublic]
    glaze_key: str = Field(description="changes when the glaze is to be fetched anew")
    gate_wants_c: float | None
    gate_rests_on: str = Field(
        "", description="what the check rests on, where that is not simply the usual temperature"
    )
    gate_failed: str
    side_due: list[str]
    sightings: int
    finished: bool


class StripPublic(PublicModel):
    """A past finish as a strip: colours at even steps up to the horizon, and when it was taken
    out.
    """

    face: list[str]
    edge: list[str]
    horizon_s: float
    pulled_s: float | None = Field(description="seconds under the heat; null where nobody told")


class CookSummary(PublicModel):
    """A cook in the list."""

    id: int
    title: str
    started_at: datetime
    ended_at: datetime | None
    planned_s: float
    actual_s: float | None
    unknown_steps: int
    strip: StripPublic
    outcome: OutcomePublic | None


class CooksPublic(PublicModel):
    """All cooks, newest first."""

    cooks: list[CookSummary]


class StageCompare(PublicModel):
    """Plan against actual of one stage [s]; actual null where nobody told."""

    key: str
    label: str
    who: str
    planned_low_s: float
    planned_s: float
    planned_high_s: float
    actual_s: float | None
    state: str


class CookPublic(PublicModel):
    """One cook, whole."""

    summary: CookSummary
    dish: dict[str, Any]
    forecast: ForecastPublic
    glaze_after: GlazePublic = Field(description="the strip after what was seen")
    stages: list[StageCompare]
    signs: list[str]


class HealthPublic(PublicModel):
    """Alive."""

    status: str
    version: str
