"""The explorer's map, advice, rescue and calibration."""

from __future__ import annotations

from typing import Any, Literal

from pydantic import Field

from bluekettle.schemas.base import CreateModel, PublicModel
from bluekettle.schemas.chain import ChainDocument
from bluekettle.schemas.forecast import ColourPublic, OpenBandPublic


class FireCreate(CreateModel):
    """One fire of a plan."""

    chain: ChainDocument
    stage: str = Field("", max_length=40, description="id of the fire; empty for the last one")


class ExplorerPublic(PublicModel):
    """Regions of face and edge over time (across) and heat (up)."""

    stage: str = Field(description="the fire that this is the map of")
    axis: str = Field(description="kitchen figure that sets the heat: rack_m, air_fryer_c, ...")
    unit: str
    heats: list[float]
    times_s: list[float]
    regions: list[str]
    colours: list[ColourPublic]
    face: list[list[int]] = Field(description="index into regions, a row per heat")
    edge: list[list[int]]
    present: float = Field(description="the dish's own heat on this axis")
    pull_s: float | None = Field(
        description="likely moment of the wanted colour at the present heat"
    )


class SettingPublic(PublicModel):
    """One way to finish, its window and its reason."""

    heat: str = Field(description="a row of the heats")
    dial: float = Field(description="rack distance [m] or air [°C]")
    coats: int
    coat_mm: float
    coats_min: list[float] | None
    flips_min: list[float]
    width_s: float
    opens_s: float
    hit: float
    possible: float
    patch: list[dict[str, Any]] = Field(description="JSON Patch of the chain that makes it so")
    reason: str


class ExitPublic(PublicModel):
    """What can still be done until how many seconds before serving."""

    do: str
    before_serving_s: float
    why: str


class AdvicePublic(PublicModel):
    """The choice, two runners-up, and the last exits."""

    stage: str = Field(description="the fire that is advised")
    now: SettingPublic
    choice: SettingPublic
    runners: list[SettingPublic]
    none_safe: str
    exits: list[ExitPublic]


class RescueCreate(FireCreate):
    """Food under a fire, now; what was seen stands in the chain's sightings."""

    at_s: float = Field(ge=1, le=3600, strict=True, description="seconds under the heat")


class RescueWay(PublicModel):
    """One way out. key : as it is told once it is taken."""

    key: str
    do: str
    more_s: float | None
    chance: float
    risk: float
    reason: str


class RescuePublic(PublicModel):
    """Ways out, the best first."""

    stage: str
    ways: list[RescueWay]


class EveningSign(CreateModel):
    """A sign seen on an evening, on the dish or on a scout of damp bread under the same heat."""

    sign: Literal["set", "bubbling", "amber at the edges", "amber", "dark", "burnt"]
    at_s: float = Field(ge=1, le=10_800, strict=True, description="seconds under the heat")
    scout: bool = Field(False, description="on damp bread with the same glaze")


class CalibrationCreate(FireCreate):
    """Signs of one appliance with one glaze, in the order of the evenings."""

    observations: list[EveningSign] = Field(min_length=1, max_length=30)


class FactorPublic(PublicModel):
    """One unknown: likely factor and its log sd."""

    name: str
    factor: float
    log_sd: float


class CalibrationPublic(PublicModel):
    """What the signs taught: factors before and after, and what is expected of the face before and
    after.
    """

    stage: str
    before: list[FactorPublic]
    after: list[FactorPublic]
    mahogany_before: OpenBandPublic
    mahogany_after: OpenBandPublic
