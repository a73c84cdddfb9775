"""The forecast as it is answered. Times in seconds, moments as clock times with zone."""

from __future__ import annotations

from datetime import datetime
from typing import Any, Literal

from pydantic import Field, RootModel

from bluekettle.schemas.base import PublicModel


class BandPublic(PublicModel):
    """P10, P50 and P90 [s]."""

    low_s: float
    likely_s: float
    high_s: float


class OpenBandPublic(PublicModel):
    """P10, P50 and P90 [s], null where that quantile of the ensemble never gets there."""

    low_s: float | None
    likely_s: float | None
    high_s: float | None
    reached: float = Field(description="share of the ensemble that gets there at all")


class StagePublic(PublicModel):
    """One link of the chain."""

    key: str
    kind: str
    label: str
    who: str = Field(description="hands, machine, gate or fire")
    hidden: bool = Field(description="a wait or act nobody sets a timer for")
    serial: bool = Field(description="false where it runs beside others and adds nothing")
    band: BandPublic
    before_serving: BandPublic = Field(description="seconds before serving at which it begins")
    starts_at: datetime
    note: str
    fire: str = Field("", description="the fierce heat it belongs to")
    act: str = Field("", description="what is done out of that heat: coat, turn, coat and turn")


class GapPublic(PublicModel):
    """By sight: from a sign to the wanted colour, and from there to burning."""

    sign: str
    to_wanted: OpenBandPublic
    wanted_to_burnt: OpenBandPublic


class WindowPublic(PublicModel):
    """By the clock: seconds under the heat. `empty` is a state of its own: there is no moment that
    is both late enough for the colour and early enough not to burn.
    """

    opens_s: float | None
    closes_s: float | None
    empty: bool
    hit: float


class SeenPublic(PublicModel):
    """A sign as it was seen [s under the heat], and the site it was seen at."""

    sign: str
    at_s: float
    site: str


class CoatPublic(PublicModel):
    """A coat: when it goes on [s under the heat; 0 is before it], and how long the food is out of
    the heat for it [s].
    """

    at_s: float
    away_s: float


class CallPublic(PublicModel):
    """When to call the cook [s under the heat]."""

    at_s: float
    level: str
    says: str


class ColourPublic(PublicModel):
    """A named colour of a glaze."""

    word: str
    colour: str


class GlazePublic(PublicModel):
    """The glaze strip: colours of face and edge over time under the heat, coats, milestones,
    windows, risk.
    """

    appliance_name: str = Field(description="what the appliance is called")
    appliance: str
    want: str
    caramelises: bool
    horizon_s: float
    sample_s: list[float]
    face: list[str] = Field(description="sRGB of the face at each sample")
    edge: list[str] = Field(description="sRGB of the edge at each sample")
    crust_mm: list[float] = Field(
        default_factory=list, description="dried crust of the face at each sample, likely [mm]"
    )
    risk: list[float] = Field(description="chance of burning by each sample")
    wanted: list[float] = Field(description="chance of the wanted colour at each sample")
    coats: list[CoatPublic]
    flips_s: list[float] = Field(
        description="moments at which the food is turned [s under the heat]"
    )
    back: list[str] | None = Field(
        description="colours of the side that faces away at first; null without a turn"
    )
    milestones: dict[str, dict[str, OpenBandPublic]]
    window: WindowPublic
    gaps: list[GapPublic]
    look_from_s: float
    look_every_s: float
    looks_s: list[float] = Field(description="moments to look [s under the heat]; they do not ring")
    seen: list[SeenPublic] = Field(description="signs that the strip is held to")
    possible: float
    pull: BandPublic | None = Field(
        None, description="when it is taken out, by the colour wanted [s under the heat]"
    )
    calls: list[CallPublic]
    legend: list[ColourPublic] = Field(description="named colours of this glaze")


class TendernessPublic(PublicModel):
    """Cook value [min at 100 °C], its target and chances."""

    low: float
    likely: float
    high: float
    target: float
    enough: float
    overdone: float
    site: str


class SafetyPublic(PublicModel):
    """Core temperature on the unfavourable side [°C] and what it is held against."""

    core_low_c: float
    core_likely_c: float
    wanted_c: float
    log_low: float
    danger_min: float
    gate: bool
    rests_on: Literal["temperature", "time"] = Field(
        "temperature", description="time: proven at less than wanted_c"
    )
    probe_c: float | None = Field(
        None, description="what the check must read for that; null: wanted_c [°C]"
    )


class FillPublic(PublicModel):
    """How full the vessel is."""

    share: float
    liquid_before_l: float
    liquid_after_l: float
    line: float


class AssumedPublic(PublicModel):
    """A figure of the kitchen that nobody stated."""

    name: str
    label: str = Field(description="what it is called")
    value: float
    unit: str
    known: str = Field(description="what it is of, in a list of what is known; empty: not listed")


class BitePublic(PublicModel):
    """How tender a cut can be wished."""

    key: str
    text: str = Field(description="falls off the bone")
    hint: str = Field(description="what that means")


class LyingPublic(PublicModel):
    """How the pieces of a cut can lie in a heat."""

    key: str
    text: str = Field(description="in one layer")
    frozen: bool = Field(description="only where they are frozen")


class CutPublic(PublicModel):
    """A cut that can be chosen, with its usual figures."""

    key: str
    name: str
    piece: str
    species: str
    shape: str
    mass_kg: float
    pieces: int
    thickness_mm: float
    thin_mm: float
    thick_mm: float
    bites: list[BitePublic]
    default_bite: str
    release: str
    safe_c: float
    bones: int = Field(description="in a piece, where it is counted by them; else 0")
    lies: list[LyingPublic] = Field(description="ways in which its pieces can lie")


class SaucePublic(PublicModel):
    """A sample sauce."""

    key: str
    name: str
    colour: str
    sugars: float
    water: float
    caramelises: bool


class LimitPublic(PublicModel):
    """Accepted range of a number."""

    low: float
    high: float
    unit: str


class IngredientPublic(PublicModel):
    """An ingredient that a sauce may hold."""

    key: str
    name: str


class SchemaPublic(RootModel[dict[str, Any]]):
    """A JSON Schema."""


class ChainHeatPublic(PublicModel):
    """One row of the heats table: what a stage of a chain may be."""

    key: str
    name: str
    dial_low: float
    dial_high: float
    dial_unit: str
    slow: bool = Field(description="it goes on for as long as it takes: minutes, core or bite")
    fierce: bool = Field(description="it is looked at: minutes or colour")
    released: bool = Field(description="its pressure has to be let go before it is opened")


class ChoicesPublic(PublicModel):
    """All that can be chosen."""

    cuts: list[CutPublic]
    sauces: list[SaucePublic]
    heats: list[ChainHeatPublic]
    ingredients: list[IngredientPublic]
    limits: dict[str, LimitPublic]
    typical: list[AssumedPublic]
