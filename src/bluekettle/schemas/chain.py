"""The chain document: food, layers and a list of stages, as anyone can write it
(docs/formats.md).
"""

from __future__ import annotations

from typing import Annotated, Any, Literal

from pydantic import Discriminator, Field, Tag, model_validator

from bluekettle.schemas.base import CreateModel, Key, Moment, limited
from bluekettle.schemas.dish import (
    CutKey,
    KitchenDocument,
    SampleKey,
    SauceDocument,
    SightingDocument,
)
from bluekettle.schemas.upgrade import chain_of_dish, is_dish

HeatKey = Annotated[str, Key("heats")]
LyingKey = Annotated[str, Key("lying")]
Name = Annotated[str, Field(min_length=1, max_length=40, pattern=r"^[a-z0-9][a-z0-9-]*$")]
# A stage within rounds by the round: "broil.2".
Ref = Annotated[str, Field(min_length=1, max_length=42, pattern=r"^[a-z0-9][a-z0-9-]*(\.[1-8])?$")]
# A stage that was left for another by the ones that came for it: "broil+1".
Left = Annotated[
    str, Field(min_length=1, max_length=44, pattern=r"^[a-z0-9][a-z0-9-]*(\.[1-8])?(\+[1-9])?$")
]
Hours = Annotated[float, Field(ge=0.1, le=72, strict=True)]
Minutes = Annotated[float, Field(ge=0.5, le=4320, strict=True)]
Moment0 = Annotated[float, Field(ge=0, le=4320, strict=True)]


class FoodDocument(CreateModel):
    """What is cooked, as it is bought."""

    cut: CutKey = Field(description="key of a cut (GET /api/v1/choices)")
    mass_kg: float = limited("mass_kg", "mass as bought")
    pieces: int = limited("pieces", "number of pieces")
    thickness_mm: float = limited(
        "thickness_mm", "thickness of a piece at its thickest, or diameter"
    )
    state: Literal["fridge", "frozen"] = Field("fridge", description="where it comes from")


class LayerDocument(CreateModel):
    """Something that goes on the food: a sauce, or a dry layer with its sugar and spice.

    One portion of it: a batch that is split is two layers.
    """

    id: Name = Field(description="what stages call it")
    name: str = Field("", max_length=80, description="what it is called; its sauce's name if empty")
    sauce: SampleKey | SauceDocument | None = Field(
        None, description="key of a sample sauce, a sauce of your own; null for a dry layer"
    )
    boiled: bool = Field(
        False, strict=True, description="a boil is planned once it has touched raw food"
    )
    sugar_g: float = Field(0.0, ge=0, le=1000, strict=True, description="dry layer: sugar [g]")
    spice_g: float = Field(0.0, ge=0, le=1000, strict=True, description="dry layer: the rest [g]")
    leavening: bool = Field(False, strict=True, description="dry layer: holds baking powder")


class StageDocument(CreateModel):
    """What every stage has."""

    id: Name = Field(description="stable: signs, logs and rounds refer to it")


class ThawDocument(StageDocument):
    """Thaw until the middle is over −1 °C, or for so long."""

    kind: Literal["thaw"]
    where: Literal["fridge", "cold water"] = Field("fridge", description="in what")
    hours: Hours | None = Field(None, description="computed when absent [h]")


class SeasonDocument(StageDocument):
    """Salt, or pat a dry layer on; then it may sit."""

    kind: Literal["season"]
    layer: Name | None = Field(None, description="a dry layer; salt alone when absent")
    sit_min: Moment0 = Field(0.0, description="how long it sits; in the fridge from 30 on [min]")
    massaged: bool = Field(False, description="the layer is worked in, not patted on")
    membrane: bool = Field(False, description="it is pulled off first, where the cut has one")


class MarinateDocument(StageDocument):
    """In a layer, in the fridge. The layer has touched raw food from then on."""

    kind: Literal["marinate"]
    layer: Name = Field(description="a sauce")
    hours: Hours = Field(description="how long [h]")


class UntilDocument(CreateModel):
    """What ends a heat."""

    by: Literal["minutes", "core", "bite", "colour"] = Field(description="what is gone by")
    minutes: Minutes | None = Field(None, description="the timer; computed where it may be [min]")
    core_c: float | None = Field(
        None, ge=30, le=99, strict=True, description="temperature in the middle [°C]"
    )
    bite: Literal["sliceable", "tug", "falls", "shreds"] | None = Field(
        None, description="how tender"
    )
    want: Literal["amber", "mahogany"] = Field("amber", description="colour wanted on the face")


class ActDocument(CreateModel):
    """Something done inside a heat."""

    do: Literal["coat", "turn", "stir"] = Field(description="what")
    at_min: Moment0 | None = Field(
        None, description="minute of this heat; of a coat, once the last has set when absent"
    )
    layer: Name | None = Field(None, description="of a coat: the sauce")


class HeatDocument(StageDocument):
    """One heat: any row of the table, with its dial."""

    kind: Literal["heat"]
    heat: HeatKey = Field(description="key of a heat")
    until: UntilDocument = Field(description="what ends it")
    dial: float | None = Field(
        None, ge=0, le=6000, strict=True, description="in the unit of its heat; else the kitchen's"
    )
    release: Literal["quick", "mixed", "natural"] | None = Field(
        None, description="of a pressure pot; usual one for the cut when absent"
    )
    liquid_l: float | None = limited("liquid_l", "liquid; computed when absent", None)
    acts: list[ActDocument] = Field(
        default_factory=list, max_length=12, description="in order: coats, turns, stirs"
    )
    coat_mm: float = limited("coat_mm", "thickness of a coat brushed on in it", 0.5)
    lies: LyingKey | None = Field(None, description="how the pieces lie; as usual when absent")


class DrainDocument(StageDocument):
    """Out of its liquid, which is kept."""

    kind: Literal["drain"]


class BlotDocument(StageDocument):
    """Dry with paper."""

    kind: Literal["blot"]


class RestDocument(StageDocument):
    """Stand in the room."""

    kind: Literal["rest"]
    minutes: float = Field(ge=0, le=180, strict=True, description="how long [min]")
    covered: bool = Field(False, strict=True, description="under foil or a lid")


class CoolDocument(StageDocument):
    """Until it can be held in the hand."""

    kind: Literal["cool"]


class TakeApartDocument(StageDocument):
    """Into strands, off the bone, or into portions."""

    kind: Literal["take_apart"]
    how: Literal["shred", "bones", "portions"] = Field(description="what is done")
    pieces: int | None = Field(None, ge=1, le=60, strict=True, description="portions in all")


class DressDocument(StageDocument):
    """A layer put on outside any heat."""

    kind: Literal["dress"]
    layer: Name = Field(description="a sauce")
    how: Literal["brush", "toss", "dip", "pour"] = Field("brush", description="how")
    mm: float = limited("coat_mm", "thickness", 0.5)


class HoldDocument(StageDocument):
    """Kept until it is wanted."""

    kind: Literal["hold"]
    how: Literal["covered", "warm place", "chilled"] = Field(description="where")
    minutes: float = Field(ge=1, le=4320, strict=True, description="how long [min]")


class WorkBesideDocument(StageDocument):
    """Work beside the food, ready for another stage."""

    kind: Literal["beside"]
    name: str = Field(min_length=1, max_length=80, description="what it is")
    minutes: Minutes = Field(description="how long [min]")
    ready_for: Ref = Field(description="stage that it has to be ready for")
    hands: bool = Field(True, strict=True, description="whether it takes hands all the time")


def kind_of(given: Any) -> str:
    """Which kind of stage this says it is; empty where it says none."""
    if isinstance(given, StageDocument):
        return str(getattr(given, "kind", ""))
    kind = given.get("kind") if isinstance(given, dict) else None
    return kind if isinstance(kind, str) else ""


BY_KIND = Discriminator(kind_of)
KINDS = (
    "thaw",
    "season",
    "marinate",
    "heat",
    "drain",
    "blot",
    "rest",
    "cool",
    "take_apart",
    "dress",
    "hold",
    "beside",
    "rounds",
    "split",
)


def without_kinds(loc: tuple[int | str, ...]) -> list[int | str]:
    """A place in a document as its writer knows it: pydantic puts the kind of a stage after the
    stage's number.
    """

    def tag(place: int) -> bool:
        here = loc[place - 2 : place]
        return len(here) == 2 and here[0] == "stages" and isinstance(here[1], int)

    return [part for place, part in enumerate(loc) if not (tag(place) and part in KINDS)]


Plain = Annotated[
    Annotated[ThawDocument, Tag("thaw")]
    | Annotated[SeasonDocument, Tag("season")]
    | Annotated[MarinateDocument, Tag("marinate")]
    | Annotated[HeatDocument, Tag("heat")]
    | Annotated[DrainDocument, Tag("drain")]
    | Annotated[BlotDocument, Tag("blot")]
    | Annotated[RestDocument, Tag("rest")]
    | Annotated[CoolDocument, Tag("cool")]
    | Annotated[TakeApartDocument, Tag("take_apart")]
    | Annotated[DressDocument, Tag("dress")]
    | Annotated[HoldDocument, Tag("hold")]
    | Annotated[WorkBesideDocument, Tag("beside")],
    BY_KIND,
]


class RoundsDocument(StageDocument):
    """Stages that repeat."""

    kind: Literal["rounds"]
    times: int = Field(ge=1, le=8, strict=True, description="how often")
    stages: list[Plain] = Field(min_length=1, max_length=8, description="one round")


class ShareDocument(CreateModel):
    """One tail of a split."""

    share: float = Field(ge=0.05, le=0.95, strict=True, description="of the food [-]")
    stages: list[Plain] = Field(min_length=1, max_length=12, description="what it goes through")


class SplitDocument(StageDocument):
    """The food down tails of its own, one after the other: batches, or a heat for each."""

    kind: Literal["split"]
    shares: list[ShareDocument] = Field(
        min_length=2, max_length=4, description="the tails, in order"
    )


AnyStage = Annotated[
    Annotated[ThawDocument, Tag("thaw")]
    | Annotated[SeasonDocument, Tag("season")]
    | Annotated[MarinateDocument, Tag("marinate")]
    | Annotated[HeatDocument, Tag("heat")]
    | Annotated[DrainDocument, Tag("drain")]
    | Annotated[BlotDocument, Tag("blot")]
    | Annotated[RestDocument, Tag("rest")]
    | Annotated[CoolDocument, Tag("cool")]
    | Annotated[TakeApartDocument, Tag("take_apart")]
    | Annotated[DressDocument, Tag("dress")]
    | Annotated[HoldDocument, Tag("hold")]
    | Annotated[WorkBesideDocument, Tag("beside")]
    | Annotated[RoundsDocument, Tag("rounds")]
    | Annotated[SplitDocument, Tag("split")],
    BY_KIND,
]


class InsteadDocument(CreateModel):
    """A heat that was left for another while it was cooked. The one that comes for it is called
    "broil+1", and "broil+2" if that was left too.
    """

    stage: Left = Field(description="id of the heat that was left")
    heat: HeatKey = Field(description="key of the heat that comes for it")
    had_min: float = Field(
        0.0, ge=0, le=4320, description="what the food had of it; 0: it had not begun [min]"
    )
    acts_done: int = Field(0, ge=0, le=12, strict=True, description="coats and turns done in it")


class ChainDocument(CreateModel):
    """A whole cook: food, layers, stages, kitchen and serving time. A `kettle.dish/1` is read as
    well.
    """

    format: Literal["kettle.dish/2"] = Field(
        "kettle.dish/2", description="name and version of this format"
    )
    name: str = Field("", max_length=80, description="what you call it")
    food: FoodDocument = Field(description="what is cooked")
    layers: list[LayerDocument] = Field(
        default_factory=list, max_length=12, description="what goes on it"
    )
    stages: list[AnyStage] = Field(min_length=1, max_length=40, description="in order")
    kitchen: KitchenDocument = Field(
        default_factory=KitchenDocument, description="what is known of the kitchen"
    )
    serve_at: Moment | None = Field(
        None, description="when it should be on the table; null for as soon as possible"
    )
    seed: int = Field(1, ge=0, le=2**31, strict=True, description="seed of the ensemble")
    sightings: dict[Ref, list[SightingDocument]] = Field(
        default_factory=dict, max_length=12, description="signs seen so far, by the fire's stage"
    )
    instead: list[InsteadDocument] = Field(
        default_factory=list, max_length=24, description="heats that were left for others, in order"
    )

    @model_validator(mode="before")
    @classmethod
    def of_any_version(cls, given: Any) -> Any:
        """A dish of one first heat and one finish is read as the chain that it is."""
        return chain_of_dish(given) if is_dish(given) else given
