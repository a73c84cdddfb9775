"""The dish document: one dish in one kitchen, as anyone can write it (docs/formats.md)."""

from __future__ import annotations

from typing import Annotated, Any, Literal

from pydantic import Field, create_model

from bluekettle.core.stages import figures
from bluekettle.schemas.base import CreateModel, Key, Moment, limited

CutKey = Annotated[str, Key("cuts")]
SampleKey = Annotated[str, Key("sauces")]
Log = Annotated[float, Field(strict=True)]
Share = Annotated[float, Field(ge=0, le=1, strict=True)]
Minute = Annotated[float, Field(ge=0, le=55, strict=True)]


class SauceLine(CreateModel):
    """One ingredient of a sauce."""

    ingredient: str = Field(max_length=60, description="key of an ingredient (GET /api/v1/choices)")
    mass_g: float = Field(ge=0.01, le=50_000, strict=True, description="mass [g]")


class IngredientDocument(CreateModel):
    """An ingredient of the cook's own: mass fractions, density and allergens."""

    key: str = Field(
        min_length=1,
        max_length=60,
        pattern=r"^[a-z0-9-]+$",
        description="small letters, digits, hyphens",
    )
    name: str = Field(min_length=1, max_length=80, description="what it is called")
    fractions: dict[str, Share] = Field(
        max_length=9, description="mass fraction of each part; together 1 [-]"
    )
    density_kg_l: float = Field(1.0, ge=0.05, le=2.0, strict=True, description="density [kg/L]")
    group: str = Field("sauce", max_length=20, description="sweet, sour, sauce, spice, ...")
    allergens: list[Annotated[str, Field(max_length=20)]] = Field(
        default_factory=list, max_length=12, description="of the usual twelve"
    )


class SauceDocument(CreateModel):
    """A sauce of the cook's own."""

    name: str = Field(min_length=1, max_length=80, description="what it is called")
    lines: list[SauceLine] = Field(min_length=1, max_length=300, description="what is in it")
    own: list[IngredientDocument] = Field(
        default_factory=list, max_length=50, description="ingredients of one's own"
    )
    sauce_id: int | None = Field(
        None, ge=1, le=2**53, description="kept sauce that this is a copy of"
    )
    contact: Literal["clean", "raw-contact", "boiled"] = Field(
        "clean", description="what its portion touched on the way; boiled: a boil is planned"
    )
    uncounted: list[Annotated[str, Field(max_length=200)]] = Field(
        default_factory=list,
        max_length=300,
        description="lines that could not be read; their allergens are not known",
    )


class LearntDocument(CreateModel):
    """What calibration says of one finish: logarithms of heat, coat, interface and browning
    factors.
    """

    mean: list[Log] = Field(min_length=4, max_length=4, description="means [-]")
    cov: list[Log] = Field(min_length=16, max_length=16, description="covariances by rows [-]")
    seen: int = Field(0, ge=0, le=10_000, strict=True, description="signs it rests on")


class InsideDocument(CreateModel):
    """The inside of a vessel."""

    shape: Literal["round", "box"] = Field(description="seen from above")
    width_mm: float = Field(
        ge=50, le=1000, strict=True, description="inner width, or diameter [mm]"
    )
    depth_mm: float = Field(
        200.0, ge=50, le=1000, strict=True, description="inner depth, of a box [mm]"
    )
    height_mm: float = Field(ge=20, le=600, strict=True, description="inner height [mm]")
    volume_l: float | None = Field(
        None, ge=0.5, le=50, strict=True, description="volume, where it is stated [L]"
    )
    least_liquid_l: float = Field(
        0.0, ge=0, le=20, strict=True, description="least liquid; 0 for basket or tray [L]"
    )
    zones: int = Field(
        1, ge=1, le=4, strict=True, description="how many there are of it: two baskets"
    )


class MachineDocument(CreateModel):
    """A machine's own words, for the instructions."""

    name: str = Field("", max_length=60, description="what you call it")
    button: str = Field("", max_length=40, description="its button or preset for the job")
    display: Literal["minutes", "hours"] = Field("minutes", description="what its clock shows")
    counts_up: bool = Field(False, strict=True, description="whether it counts up after the end")
    inside: InsideDocument | None = Field(
        None, description="its inside; null: not known, then nothing is said of fit"
    )
    outdoors: bool | None = Field(
        None, description="a grill's or smoker's place; null: outdoors, as they have to be"
    )
    top_c: float | None = Field(
        None, ge=40, le=500, strict=True, description="highest its dial goes [°C]"
    )
    racks_m: list[Annotated[float, Field(ge=0.03, le=0.45, strict=True)]] = Field(
        default_factory=list, max_length=10, description="a broiler's racks [m below the element]"
    )


# Every figure of the table, with its words and bounds.
OF_TABLE: dict[str, Any] = {
    key: (float | None, limited(key, one.describes, None)) for key, one in figures().items()
}
KitchenFigures = create_model("KitchenFigures", __base__=CreateModel, **OF_TABLE)


class KitchenDocument(KitchenFigures):  # type: ignore[valid-type, misc]
    """What is known of the kitchen; what is left out is taken as typical and reported as
    assumed.
    """

    gear: list[Annotated[str, Field(max_length=40)]] | None = Field(
        None,
        max_length=40,
        description="small things at hand (GET /api/v1/kitchen lists them); null: nobody said",
    )
    learnt: dict[str, LearntDocument] = Field(
        default_factory=dict, max_length=10, description="by finish: what calibration says"
    )
    machines: dict[str, MachineDocument] = Field(
        default_factory=dict,
        max_length=20,
        description="by finish or by what the first heat goes into: the machine's own words",
    )


class SightingDocument(CreateModel):
    """A sign seen on the food, and when."""

    sign: Literal["nothing yet", "bubbling", "amber at the edges", "dark"] = Field(
        description="what was seen"
    )
    at_s: float = Field(ge=1, le=10_800, strict=True, description="seconds under the heat")


class DishDocument(CreateModel):
    """One dish: food, first heat, finish, sauce, kitchen and serving time."""

    format: Literal["kettle.dish/1"] = Field(
        "kettle.dish/1", description="name and version of this format"
    )
    cut: CutKey = Field(description="key of a cut (GET /api/v1/choices)")
    mass_kg: float = limited("mass_kg", "mass as bought")
    pieces: int = limited("pieces", "number of pieces")
    thickness_mm: float = limited(
        "thickness_mm", "thickness of a piece at its thickest, or diameter"
    )
    state: Literal["fridge", "frozen"] = Field("fridge", description="where it comes from")
    tenderise: Literal[
        "pressure", "braise", "foil", "low_oven", "air_fry", "smoke", "bath", "simmer", "slow"
    ] = Field("pressure", description="the first heat")
    bite: Literal["sliceable", "tug", "falls", "shreds"] = Field(
        "falls", description="how it should eat"
    )
    release: Literal["quick", "mixed", "natural"] | None = Field(
        None, description="usual one for the cut when absent"
    )
    liquid_l: float | None = limited(
        "liquid_l", "liquid in the pot; computed when absent, null where none goes in", None
    )
    timer_min: float | None = limited(
        "timer_min", "the first heat's timer; computed when absent", None
    )
    finish: Literal[
        "broiler", "air_fryer", "oven", "crisping_lid", "grill", "charcoal", "contact"
    ] = Field("broiler", description="the second heat")
    want: Literal["amber", "mahogany"] = Field("amber", description="colour wanted on the face")
    sauce: SampleKey | SauceDocument | None = Field(
        None, description="key of a sample sauce, a sauce of your own, or null for none"
    )
    coats: int = limited("coats", "number of coats", 0)
    coat_mm: float = limited("coat_mm", "thickness of one coat", 0.5)
    coats_min: list[Minute] | None = Field(
        None,
        max_length=6,
        description="minute under the heat of each coat; computed when absent [min]",
    )
    flips_min: list[Minute] = Field(
        default_factory=list,
        max_length=4,
        description="minutes under the heat at which the food is turned [min]",
    )
    kitchen: KitchenDocument = Field(
        default_factory=KitchenDocument, description="what is known of the kitchen"
    )
    serve_at: Moment | None = Field(
        None, description="when it should be on the table; null for as soon as possible"
    )
    seed: int = Field(1, ge=0, le=2**31, strict=True, description="seed of the ensemble")
    sightings: list[SightingDocument] = Field(
        default_factory=list, max_length=20, description="signs seen so far"
    )
