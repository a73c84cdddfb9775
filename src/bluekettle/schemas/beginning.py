"""What a newcomer answers, and the chain that it comes to."""

from __future__ import annotations

from typing import Literal

from pydantic import Field

from bluekettle.schemas.base import CreateModel, Moment, PublicModel, limited
from bluekettle.schemas.chain import ChainDocument, HeatKey
from bluekettle.schemas.dish import CutKey, KitchenDocument, SampleKey, SauceDocument
from bluekettle.schemas.forecast import BitePublic

When = Literal["before", "twice", "after"]


class AnswersCreate(CreateModel):
    """What was answered so far; what was not is taken as usual for the cut."""

    cut: CutKey = Field(description="key of a cut (GET /api/v1/choices)")
    mass_kg: float | None = limited("mass_kg", "mass as bought; usual when absent", None)
    pieces: int | None = limited("pieces", "number of pieces; from the mass when absent", None)
    thickness_mm: float | None = limited("thickness_mm", "of a piece; usual when absent", None)
    state: Literal["fridge", "frozen"] = Field("fridge", description="where it comes from")
    heat: HeatKey | None = Field(None, description="heat that makes it tender")
    bite: Literal["sliceable", "tug", "falls", "shreds"] | None = Field(
        None, description="how tender"
    )
    finish: HeatKey | None = Field(None, description="heat that browns it")
    alone: bool = Field(False, strict=True, description="the one heat alone: nothing browns it")
    sauce: SampleKey | SauceDocument | None = Field(
        None, description="key of a sample sauce, a sauce of your own, or null for none"
    )
    when: When | None = Field(
        None, description="sauce before the last heat, before it and again in it, or after it"
    )
    kitchen: KitchenDocument = Field(
        default_factory=KitchenDocument, description="what is known of the kitchen"
    )
    serve_at: Moment | None = Field(None, description="null for as soon as possible")


class HeatTimesCreate(AnswersCreate):
    """Answers, and of which heat the hours are asked for."""

    of: Literal["heat", "finish"] = Field(description="the one that makes tender, or that browns")


class HeatOfferPublic(PublicModel):
    """A heat that can be answered."""

    key: str
    place: str = Field(description="what is used: a pressure pot")
    hint: str
    usual: bool = Field(description="whether kitchens mostly take it for this cut")


class BeginningPublic(PublicModel):
    """The chain that the answers come to, and what can be answered still."""

    chain: ChainDocument
    heats: list[HeatOfferPublic]
    finishes: list[HeatOfferPublic]
    bites: list[BitePublic]
    whens: list[str] = Field(description="moments for a sauce, the usual one first")


class HeatTimePublic(PublicModel):
    """From the first act to the plate with one heat."""

    key: str
    total_s: float | None = Field(description="null where it never gets there [s]")


class HeatTimesPublic(PublicModel):
    """The hours of every heat."""

    items: list[HeatTimePublic]
