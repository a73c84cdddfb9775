"""Sauces: lines in, what they come to out; scaling, variants, the contact ledger, and kept
sauces.
"""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Literal

from pydantic import AfterValidator, Field

from bluekettle.schemas.base import AsidePublic, CreateModel, PublicModel
from bluekettle.schemas.dish import IngredientDocument, KitchenDocument
from bluekettle.schemas.forecast import GlazePublic

Text = Annotated[str, Field(max_length=20_000)]
SauceKind = Literal["rub", "marinade", "braise", "glaze", "table"]


class SimmerDocument(CreateModel):
    """Simmering before use."""

    minutes: float = Field(ge=0, le=240, strict=True, description="at the simmer [min]")
    power_w: float = Field(900.0, ge=100, le=6000, strict=True, description="the burner as set [W]")


class RecipeCreate(CreateModel):
    """A recipe as people write it."""

    name: str = Field("sauce", min_length=1, max_length=80, description="what it is called")
    kind: SauceKind = Field("glaze", description="rub, marinade, braise, glaze or table")
    lines: list[Text] = Field(max_length=300, description="ingredient lines, as people write them")
    own: list[IngredientDocument] = Field(
        default_factory=list, max_length=100, description="ingredients of one's own"
    )


class BesideDocument(RecipeCreate):
    """Another recipe on the same meat; its salt counts too."""

    for_kg: float | None = Field(
        None, ge=0.05, le=50, strict=True, description="meat it is written for [kg]; null: as it is"
    )


class AnalyseCreate(RecipeCreate):
    """A recipe and the kitchen it will meet."""

    simmer: SimmerDocument | None = Field(None, description="simmered down first")
    kitchen: KitchenDocument = Field(
        default_factory=KitchenDocument, description="what is known of the kitchen"
    )
    coat_mm: float = Field(0.5, ge=0.1, le=2.0, strict=True, description="thickness of a coat [mm]")
    want: Literal["amber", "mahogany"] = Field("amber", description="colour wanted on the face")
    meat_kg: float | None = Field(
        None, ge=0.05, le=50, strict=True, description="meat it is for; gives the salt share"
    )
    beside: list[BesideDocument] = Field(
        default_factory=list,
        max_length=10,
        description="other recipes on the same meat: their salt counts too",
    )


class RangePublic(PublicModel):
    """Low, likely and high."""

    low: float
    likely: float
    high: float


class LinePublic(PublicModel):
    """One line as it was read. A line that could not be read stays, with its problem and
    suggestions.
    """

    text: str
    key: str | None
    name: str | None
    mass_g: RangePublic | None
    problem: str
    suggestions: list[str]
    unknown: str = Field(description="the words that name no ingredient; empty where it is read")


class SharePublic(PublicModel):
    """An ingredient's part of something."""

    key: str
    name: str
    mass_g: float
    share: float


class AllergenPublic(PublicModel):
    """An allergen and what brings it."""

    name: str
    brought_by: list[str]


class SimmeredPublic(PublicModel):
    """What simmering makes of it."""

    yield_g: float
    yield_ml: float
    heat_up_min: float
    gone_g: float
    catches: bool = Field(description="so thick that it would catch before the minutes are over")


class SaltByPublic(PublicModel):
    """One recipe's part of it."""

    name: str
    likely_share: float


class SaltPublic(PublicModel):
    """Salt as a share of the meat."""

    all_share: float
    likely_share: float
    usual_low: float
    usual_high: float
    verdict: str
    by: list[SaltByPublic] = Field(description="each recipe's part, in the order asked")


class CalmerPublic(PublicModel):
    """A change that keeps the edges longer."""

    do: str
    later_s: float


class AnalysisPublic(PublicModel):
    """What a recipe comes to."""

    name: str
    lines: list[LinePublic]
    gap: str = Field(description="what is not counted; empty where every line is")
    yield_g: float
    yield_low_g: float
    yield_high_g: float
    yield_ml: float
    parts: dict[str, float] = Field(description="mass fraction of each part, after simmering [-]")
    sugars: float
    thickness: str
    allergens: list[AllergenPublic]
    allergens_unknown: list[str] = Field(
        description="lines that are not known: their allergens are not either"
    )
    sugars_from: list[SharePublic]
    salt_from: list[SharePublic]
    browning_from: list[SharePublic]
    simmered: SimmeredPublic | None
    salt: SaltPublic | None
    ladder: list[GlazePublic] = Field(
        description="one coat under each of the kitchen's finishes; empty where it runs off"
    )
    dials: list[str] = Field(description="the setting of each rung, in words")
    burns_first: str
    calm: list[CalmerPublic]


class VariantCreate(AnalyseCreate):
    """A recipe and the variant wanted."""

    variant: str = Field(
        max_length=40, description='sugar-free, less salt, milder, or "without" an allergen'
    )


class VariantPublic(PublicModel):
    """A variant, what it changes, and its own analysis."""

    variant: str
    changes: list[str]
    stays: list[str]
    lines: list[str]
    analysis: AnalysisPublic


class ScaleCreate(RecipeCreate):
    """A recipe and what it should be enough for; the fields that belong to `by` are needed."""

    by: Literal["meat", "coats", "servings", "short", "factor"] = Field(description="what decides")
    for_kg: float | None = Field(
        None, ge=0.05, le=50, strict=True, description="meat: what it is written for [kg]"
    )
    meat_kg: float | None = Field(
        None, ge=0.05, le=50, strict=True, description="meat: what there is [kg]"
    )
    surface_m2: float | None = Field(
        None, ge=0.001, le=20, strict=True, description="coats: whole surface [m²]"
    )
    coats: int | None = Field(None, ge=0, le=6, strict=True, description="coats: how many")
    coat_mm: float = Field(
        0.5, ge=0.1, le=2.0, strict=True, description="coats: thickness of one [mm]"
    )
    table_g: float = Field(
        0.0, ge=0, le=20_000, strict=True, description="coats: for the table besides [g]"
    )
    for_servings: float | None = Field(
        None, ge=0.5, le=200, strict=True, description="servings: what it is written for"
    )
    servings: float | None = Field(
        None, ge=0.5, le=200, strict=True, description="servings: what is wanted"
    )
    line: int | None = Field(
        None, ge=0, le=299, strict=True, description="short: place of the line that is short"
    )
    have: str | None = Field(
        None, max_length=60, description='short: what there is of it, like "3 tbsp"'
    )
    factor: float | None = Field(
        None, ge=0.01, le=100, strict=True, description="factor: the factor itself"
    )
    liquid_l: float | None = Field(
        None, ge=0, le=20, strict=True, description="braise: what the pot needs [L]"
    )


class ScaledLinePublic(PublicModel):
    """One scaled line."""

    text: str = Field(description="the new amount as one would write it")
    spoons: str = Field(description="the same in cups or spoons, to a quarter")
    name: str
    from_g: float
    to_g: float
    law: str


class ScaledPublic(PublicModel):
    """A scaled recipe."""

    factor: float
    lines: list[ScaledLinePublic]
    total_g: float
    gap: str


PortionUse = Literal["raw", "rub", "cook-in", "coat", "table"]


class MoveDocument(CreateModel):
    """One step of a sauce on its way from bowl to plate."""

    kind: Literal["split", "touch", "boil", "pour", "cook", "serve"] = Field(
        description="what is done"
    )
    portion: str = Field(max_length=40, description='which portion; the bowl is "bowl"')
    to: str = Field("", max_length=40, description="the new portion, or the one poured into")
    mass_g: float | None = Field(None, ge=0, le=50_000, strict=True, description="how much [g]")
    use: PortionUse | None = Field(None, description="of a split: what the portion is for")


def with_uses(moves: list[MoveDocument]) -> list[MoveDocument]:
    """The same steps, every portion with what it is for. An older version did not keep it: then it
    is told from what is done to the portion, and from its name.
    """
    done: dict[str, set[str]] = {}
    for move in moves:
        done.setdefault(move.portion, set()).add(move.kind)
    return [
        move.model_copy(update={"use": use_of(move.to, done.get(move.to, set()))})
        if move.kind == "split" and move.use is None
        else move
        for move in moves
    ]


def use_of(name: str, kinds: set[str]) -> PortionUse:
    """What a portion is for, from its name and from what is done to it."""
    if "touch" in kinds:
        return "rub" if "rub" in name.lower() else "raw"
    if "cook" in kinds:
        return "cook-in"
    return "table" if "table" in name.lower() else "coat"


class LedgerCreate(CreateModel):
    """A batch and its steps."""

    batch_g: float = Field(ge=1, le=50_000, strict=True, description="what is in the bowl [g]")
    moves: list[MoveDocument] = Field(max_length=100, description="steps in order")


class PortionPublic(PublicModel):
    """A portion at the end."""

    name: str
    mass_g: float
    contact: str


class FlowPublic(PublicModel):
    """One arrow of the drawing."""

    place: int
    source: str
    target: str
    mass_g: float
    contact: str


class StopPublic(PublicModel):
    """A step that must not be taken, and what makes it right."""

    place: int
    portion: str
    why: str
    boil_min: float


class LedgerPublic(PublicModel):
    """The contact ledger."""

    portions: list[PortionPublic]
    flows: list[FlowPublic]
    served_g: float
    stops: list[StopPublic]
    guidance: str


class SauceCreate(CreateModel):
    """A kept sauce (kettle.sauce/1)."""

    format: Literal["kettle.sauce/1"] = Field(
        "kettle.sauce/1", description="name and version of this format"
    )
    name: str = Field(min_length=1, max_length=80, description="what it is called")
    kind: SauceKind = Field("glaze", description="rub, marinade, braise, glaze or table")
    lines: list[Annotated[str, Field(max_length=200)]] = Field(
        max_length=300, description="ingredient lines"
    )
    own: list[IngredientDocument] = Field(
        default_factory=list, max_length=100, description="ingredients of one's own"
    )
    for_kg: float | None = Field(
        None, ge=0.05, le=50, strict=True, description="meat it is written for [kg]"
    )
    simmer: SimmerDocument | None = Field(None, description="simmered down first")
    moves: Annotated[list[MoveDocument], AfterValidator(with_uses)] = Field(
        default_factory=list, max_length=100, description="from bowl to plate"
    )


class OnDishCreate(SauceCreate):
    """A sauce that goes on a dish."""

    sauce_id: int | None = Field(
        None, ge=1, le=2**53, description="kept sauce that it is a copy of"
    )


class SauceKept(PublicModel):
    """A kept sauce with its number."""

    id: int
    version: int = Field(description="the same as its ETag")
    updated_at: datetime
    document: SauceCreate
    used_by: list[str] = Field(description="titles of plans that hold a copy of it")
    colour: str = Field(description="sRGB of it raw; empty where no line of it counts")


class SaucesKept(PublicModel):
    """A page of kept sauces, by name."""

    sauces: list[SauceKept]
    aside: list[AsidePublic] = Field(default_factory=list)
    more: str = Field("", description="put this into `after` for the next page; empty on the last")


class LinesCreate(CreateModel):
    """An ingredient list as plain text or CSV."""

    format: Literal["text", "csv"] = Field(
        description="text: a line each; csv: columns amount and ingredient"
    )
    content: str = Field(max_length=100_000, description="the list")


class LinesPublic(PublicModel):
    """The lines of a list, and the same as CSV."""

    lines: list[str]
    csv: str


class LabelCreate(CreateModel):
    """An ingredient of one's own, from a bottle's label or by hand."""

    name: str = Field(min_length=1, max_length=80, description="what it is called")
    serving_g: float = Field(ge=1, le=500, strict=True, description="serving size [g]")
    sugars_g: float = Field(ge=0, le=500, strict=True, description="sugars in a serving [g]")
    sodium_mg: float = Field(ge=0, le=200_000, strict=True, description="sodium in a serving [mg]")
    protein_g: float = Field(0.0, ge=0, le=500, strict=True, description="protein in a serving [g]")
    fat_g: float = Field(0.0, ge=0, le=500, strict=True, description="fat in a serving [g]")
    carbohydrate_g: float | None = Field(
        None, ge=0, le=500, strict=True, description="all carbohydrate [g]"
    )
    order: list[Annotated[str, Field(max_length=80)]] = Field(
        default_factory=list, max_length=60, description="ingredients, the heaviest first"
    )
    density_kg_l: float = Field(1.15, ge=0.2, le=2.0, strict=True, description="density [kg/L]")


class OwnPublic(PublicModel):
    """An ingredient of one's own, as it would stand in a recipe."""

    ingredient: IngredientDocument
    says: str


class KnownIngredient(PublicModel):
    """An ingredient of the table."""

    key: str
    name: str
    group: str
    sugars: float
    water: float
    salt: float
    density_kg_l: float
    each: str
    allergens: list[str]


class KnownIngredients(PublicModel):
    """The table of ingredients."""

    ingredients: list[KnownIngredient]
