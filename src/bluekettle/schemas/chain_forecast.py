"""What is answered to a chain document."""

from __future__ import annotations

from datetime import datetime
from typing import Any

from pydantic import Field

from bluekettle.schemas.base import PublicModel
from bluekettle.schemas.chain import ChainDocument
from bluekettle.schemas.forecast import (
    AssumedPublic,
    BandPublic,
    FillPublic,
    GlazePublic,
    StagePublic,
    TendernessPublic,
)


class LinkPublic(StagePublic):
    """One link of the chain, with the stage that it belongs to."""

    stage: str = Field(description="id of its stage; empty where it belongs to none")


class SlowHeatPublic(PublicModel):
    """A heat that goes on for as long as it takes."""

    stage: str
    heat: str
    name: str
    timer_s: float
    come_up: BandPublic
    target_c: float
    liquid_l: float | None = Field(description="null where none goes in [L]")
    fill: FillPublic | None
    lost_share: float = Field(description="water that leaves it, of the raw mass [-]")
    traces: dict[str, list[float]] = Field(
        description="time_s, vessel_c, centre_c, mean_c, and cook_min gained in it"
    )


class ChainFirePublic(PublicModel):
    """A heat that is looked at."""

    stage: str
    heat: str
    by: str = Field(description="colour, or what its timer goes by")
    timer_s: float
    glaze: GlazePublic


class ChainGatePublic(PublicModel):
    """A check that only a person can pass."""

    after: str = Field(description="id of the stage that it comes after")
    tender: bool
    safe_c: float | None = Field(description="what the thermometer must read; null: not asked [°C]")
    by_time: bool = Field(description="whether that stands for a proven time in a bath")


class ChainInsidePublic(PublicModel):
    """What the middle of the food goes through, on the unfavourable side."""

    core_low_c: float
    core_likely_c: float
    wanted_c: float
    log_low: float
    wanted_log: float
    danger_min: float
    gate: bool


class ChainWatchOutPublic(PublicModel):
    """One warning; its repair is a JSON Patch (RFC 6902) of the document."""

    id: str
    level: str
    stage: str
    message: str
    why: str
    source: str
    repair: list[dict[str, Any]]
    repair_says: str


class LayerUsePublic(PublicModel):
    """How much of a layer goes on."""

    layer: str
    name: str
    grams: float


class ClausePublic(PublicModel):
    """One clause of the sentence."""

    stage: str = Field(description="id of its stage; empty for the food itself")
    text: str


class MomentPublic(PublicModel):
    """The median piece at the end of a link; at the very start where `link` is empty."""

    link: str
    centre_c: float = Field(description="its middle [°C]")
    mean_c: float = Field(description="all of it on the whole [°C]")
    cook_min: float = Field(description="its cook value so far, how tender [min]")
    crust_mm: float = Field(description="how thick a slow heat has dried its outside [mm]")


class RightPublic(PublicModel):
    """How often a cook comes out right: shares of evenings [-]."""

    all_of_it: float
    fires: dict[str, float] = Field(description="each fire alone, by its stage")
    bite: float | None = Field(description="null where no bite was wished")


class ChainRepairPublic(PublicModel):
    """The one change that brings most; its patch is a JSON Patch (RFC 6902) of the document."""

    says: str
    patch: list[dict[str, Any]]
    right: float = Field(description="share of evenings that come out right with it [-]")
    before: float = Field(description="and without it [-]")
    longer_s: float = Field(description="how much longer the cook takes; below 0 for shorter")


class ChainAdvicePublic(PublicModel):
    """What would make a chain come out right more often."""

    repair: ChainRepairPublic | None = Field(description="null where no change brings an evening")


class PreparationPublic(PublicModel):
    """Something to lay out before the first act."""

    kind: str = Field(description="food, layer, machine or thing")
    text: str


class OfferPublic(PublicModel):
    """A stage that can be put in. In its fields `$sauce` stands for a layer, `$stage` for the stage
    that it comes after.
    """

    key: str
    text: str
    stage: dict[str, Any]


class JointPublic(PublicModel):
    """Between two stages."""

    offers: list[str] = Field(description="keys of what makes sense there, the likeliest first")
    sauce: str = Field(description="layer that `$sauce` stands for; empty where none is in use")


class ChainForecastPublic(PublicModel):
    """Everything the model says of a chain."""

    title: str
    sentence: list[ClausePublic] = Field(description="one a stage that was chosen, in order")
    start_at: datetime
    serve_at: datetime
    serve_low_at: datetime
    serve_high_at: datetime
    total: BandPublic
    headline_s: float = Field(description="the set timers alone")
    hands_s: float
    slack_s: float
    least_sure: str
    least_sure_says: str = Field(description="the same, as what nobody knows well")
    links: list[LinkPublic]
    tails: list[list[str]] = Field(description="of a split: keys of the links of each tail")
    slow_heats: list[SlowHeatPublic]
    fires: list[ChainFirePublic]
    gates: list[ChainGatePublic]
    tenderness: TendernessPublic | None = Field(description="null where no bite was wished")
    inside: ChainInsidePublic
    layers: list[LayerUsePublic]
    watch_outs: list[ChainWatchOutPublic]
    allergens: list[str]
    allergens_unknown: list[str]
    right: RightPublic
    course: list[MomentPublic] = Field(description="how warm the food is along the way")
    preparation: list[PreparationPublic] = Field(description="what to lay out, in order of use")
    crackles_mm: float = Field(description="thickness of crust that begins to crackle [mm]")
    energy_kwh: dict[str, float] = Field(
        description="roughly, by what carries it: electricity, gas, charcoal [kWh]"
    )
    offers: list[OfferPublic] = Field(description="what can be put in somewhere")
    joints: dict[str, JointPublic] = Field(description="after each stage; '' for the start")
    assumed: list[AssumedPublic]
    guidance: str


class TemplatePublic(PublicModel):
    """A chain to begin with."""

    key: str
    hint: str
    document: ChainDocument


class TemplateList(PublicModel):
    """All templates."""

    items: list[TemplatePublic]
