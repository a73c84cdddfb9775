"""The kitchen: settings, appliances, what was seen of them, fit, and what an assumption is
worth.
"""

from __future__ import annotations

import re
from datetime import datetime
from typing import Annotated, Any, Literal

from pydantic import AfterValidator, Field

from bluekettle.schemas.base import AsidePublic, CreateModel, Key, PublicModel
from bluekettle.schemas.dish import (
    CutKey,
    InsideDocument,
    KitchenDocument,
    LearntDocument,
    MachineDocument,
)
from bluekettle.schemas.forecast import OpenBandPublic

GEAR = (
    "thermometer",
    "leave-in thermometer",
    "wire rack",
    "lined tray",
    "heavy foil",
    "second pair of tongs",
    "trivet",
    "fat separator",
)


KindKey = Annotated[str, Key("appliances")]


HOUR = "([01][0-9]|2[0-3]):[0-5][0-9]"


def hour(given: str) -> str:
    """A time of day."""
    if not re.fullmatch(HOUR, given):
        raise ValueError("a time of day like 19:00")
    return given


def some(low: float, high: float, text: str) -> Any:
    """A figure that may be unknown: then a typical one is assumed."""
    return Field(None, ge=low, le=high, strict=True, description=text)


class SettingsDocument(CreateModel):
    """What holds for the whole kitchen."""

    altitude_m: float | None = some(-400, 4500, "height above sea level [m]")
    temperature: Literal["C", "F"] = Field("C", description="degrees shown")
    measures: Literal["metric", "us"] = Field("metric", description="units shown")
    hands: int = Field(1, ge=1, le=8, strict=True, description="people who cook")
    meal_hours: list[
        Annotated[str, AfterValidator(hour), Field(json_schema_extra={"pattern": f"^{HOUR}$"})]
    ] = Field(
        default_factory=lambda: ["19:00"],
        max_length=6,
        description="usual hours of eating, like 19:00",
    )
    price_kwh: float | None = some(0, 100, "price of a kilowatt hour, in your own money")
    gear: list[Annotated[str, Field(max_length=40)]] = Field(
        default_factory=list, max_length=40, description="small gear that is at hand"
    )


class ApplianceCreate(CreateModel):
    """One appliance. What is left out is typical for its kind, and told as assumed."""

    kind: KindKey = Field(description="a row of GET /api/v1/kitchen's kinds")
    name: str = Field(min_length=1, max_length=60, description="what you call it")
    in_use: bool = Field(True, description="whether forecasts go by it", strict=True)
    power_w: float | None = some(50, 20_000, "heating power [W]")
    volume_l: float | None = some(0.5, 50, "volume [L]")
    gauge_kpa: float | None = some(30, 110, "gauge pressure of its setting [kPa]")
    element_w_m2: float | None = some(
        0, 9000, "flux that food takes up from its element at 15 cm [W/m²]"
    )
    setting_c: float | None = some(40, 320, "setting that you use [°C]")
    top_c: float | None = some(40, 500, "highest heat [°C]")
    preheat_min: float | None = some(0, 120, "minutes to heat up [min]")
    shape: Literal["round", "box"] | None = Field(None, description="inside seen from above")
    width_mm: float | None = some(50, 1000, "inner width, or diameter [mm]")
    depth_mm: float | None = some(50, 1000, "inner depth [mm]")
    height_mm: float | None = some(20, 600, "inner height [mm]")
    racks_mm: list[Annotated[float, Field(ge=30, le=450, strict=True)]] | None = Field(
        None, max_length=10, description="distance of each rack from the element [mm]"
    )
    rack_mm: float | None = some(50, 350, "the rack you use [mm from the element]")
    body_id: int | None = Field(
        None, ge=1, le=2**53, strict=True, description="appliance whose body it shares"
    )
    buttons: dict[Annotated[str, Field(max_length=30)], Annotated[str, Field(max_length=40)]] = (
        Field(
            default_factory=dict,
            max_length=20,
            description="its own words: what the button for a job is called",
        )
    )
    display: Literal["minutes", "hours"] = Field("minutes", description="what its clock shows")
    counts_up: bool = Field(False, strict=True, description="whether it counts up after the end")
    outdoors: bool | None = Field(
        None, strict=True, description="a grill's or smoker's place; null: outdoors"
    )


class FigurePublic(PublicModel):
    """One figure of an appliance: its value, its unit, and whether it is assumed."""

    name: str
    label: str
    value: float
    unit: str
    assumed: bool
    figure: str | None = Field(
        description="figure of a dish's kitchen that it becomes; its effect is told under that name"
    )


class ObservationPublic(PublicModel):
    """One sign that was seen."""

    id: int
    ground: str
    sign: str
    at_s: float
    dial: float
    sauce: str
    made_at: datetime
    forgotten: bool
    cook_id: int | None = Field(description="the cook in which it was told; null: told here")


class StepLearnt(PublicModel):
    """The heat factor after one more observation."""

    observation_id: int | None
    factor: float
    log_sd: float


class AppliancePublic(PublicModel):
    """An appliance, its figures with what is assumed, and what was learnt of it."""

    id: int
    version: int = Field(description="the same as its ETag")
    kind: str
    kind_name: str
    type: str
    given: ApplianceCreate
    figures: list[FigurePublic]
    finish: str | None = Field(description="finish of a dish that it can give")
    instead: str = Field(
        "", description="appliance of the same job that plans reckon with in its place"
    )
    observations: list[ObservationPublic]
    history: list[StepLearnt]
    heat_says: str
    shape: str
    width_mm: float
    depth_mm: float
    height_mm: float
    racks_mm: list[float]
    inside: InsideDocument | None = Field(
        description="as it goes into POST /api/v1/fit; null: it has none"
    )
    shares: str


class KindPublic(PublicModel):
    """A kind of appliance and its typical figures."""

    key: str
    name: str
    type: str
    figures: list[FigurePublic]


class KitchenPublic(PublicModel):
    """The whole kitchen. `for_plans` stands in for what a plan leaves open itself."""

    settings: SettingsDocument
    appliances: list[AppliancePublic]
    aside: list[AsidePublic] = Field(default_factory=list)
    kinds: list[KindPublic]
    figures: dict[str, float]
    learnt: dict[str, LearntDocument]
    machines: dict[str, MachineDocument]
    gear: list[str]
    for_plans: KitchenDocument = Field(description="what a plan is cooked in, as far as it is kept")


class ObservationCreate(CreateModel):
    """A sign that was seen under an appliance's heat."""

    ground: Literal["food", "scout", "bread", "syrup"] = Field(
        description=(
            "food; the scout (tonight's glaze on damp bread); plain damp bread; sugar syrup on damp"
            " bread"
        )
    )
    sign: Literal["set", "bubbling", "amber at the edges", "amber", "dark", "burnt"] = Field(
        description="what was seen"
    )
    at_s: float = Field(ge=1, le=10_800, strict=True, description="seconds under the heat")
    sauce_id: int | None = Field(
        None, ge=1, le=2**53, strict=True, description="kept sauce, for food and scout"
    )
    coat_mm: float = Field(
        0.5, ge=0.1, le=2.0, strict=True, description="thickness of the coat [mm]"
    )


class CalibratedPublic(PublicModel):
    """What an observation taught: the heat factor and a sample glaze, before and after."""

    appliance: AppliancePublic
    before: OpenBandPublic = Field(description="mahogany of a sample glaze's face [s]")
    after: OpenBandPublic
    says: str


class LessonPublic(PublicModel):
    """What a cook taught of one appliance: its signs, and a sample glaze without and with them."""

    appliance_id: int
    appliance: str
    observations: list[ObservationPublic]
    before: OpenBandPublic = Field(description="mahogany of a sample glaze's face [s]")
    after: OpenBandPublic
    says: str = Field(description="how fierce it is by all that was seen of it")


class LessonsPublic(PublicModel):
    """What a cook taught, appliance by appliance; empty where nothing was."""

    appliances: list[LessonPublic]


class FitCreate(CreateModel):
    """A cut and a vessel."""

    cut: CutKey = Field(description="key of a cut")
    mass_kg: float = Field(ge=0.05, le=12, strict=True, description="mass as bought [kg]")
    pieces: int = Field(ge=1, le=60, strict=True, description="number of pieces")
    thickness_mm: float = Field(ge=5, le=150, strict=True, description="thickness of a piece [mm]")
    inside: InsideDocument = Field(description="the vessel")
    touching: bool = Field(False, strict=True, description="pieces may touch")
    stacked: bool = Field(False, strict=True, description="more than one layer")
    trivet_mm: float = Field(0.0, ge=0, le=200, strict=True, description="rack below the food [mm]")
    liquid_l: float | None = Field(
        None, ge=0, le=20, strict=True, description="liquid; the vessel's least when absent [L]"
    )
    swells: bool = Field(
        False, strict=True, description="food that swells or foams: the line is at a half"
    )


class PlacePublic(PublicModel):
    """One piece from above, from the middle of the vessel [m]."""

    x_m: float
    y_m: float
    width_m: float
    depth_m: float


class VerdictPublic(PublicModel):
    """One finding."""

    level: str
    message: str
    repair: str


class FitFill(PublicModel):
    """How full it gets [L]."""

    share: float
    line: float
    liquid_before_l: float
    liquid_after_l: float


class FitPublic(PublicModel):
    """How a cut lies in a vessel, drawn to scale."""

    length_mm: float
    breadth_mm: float
    height_mm: float
    places: list[PlacePublic]
    per_layer: int
    layers: int
    batches: int
    free_mm: float
    fill: FitFill | None
    verdicts: list[VerdictPublic]
    guidance: str


class EffectPublic(PublicModel):
    """What one assumption is worth."""

    name: str
    low: float
    high: float
    unit: str
    low_says: str = Field(description="the low end as a cook says it; empty where its unit does")
    high_says: str
    plate_low_min: float
    plate_high_min: float
    ask: bool


class EffectsPublic(PublicModel):
    """All of a dish's assumptions, the weightiest first."""

    effects: list[EffectPublic]
