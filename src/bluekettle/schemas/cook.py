"""Live cooks, their events and outcomes."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Any, Literal
from uuid import UUID

from pydantic import Field, model_validator

from bluekettle.schemas.alarm import AlarmPublic
from bluekettle.schemas.base import AsidePublic, CreateModel, Moment, PublicModel
from bluekettle.schemas.chain import ChainDocument, InsteadDocument
from bluekettle.schemas.elsewhere import LeavablePublic
from bluekettle.schemas.forecast import BandPublic, GlazePublic, SafetyPublic
from bluekettle.schemas.heating import HeatingDocument, heating_of_dish
from bluekettle.schemas.reading import DeviceDonePublic, DevicePublic, ProbePublic
from bluekettle.schemas.supper import SupperPublic

MOST_AGO_S = 31 * 86_400.0
Reason = Annotated[str, Field(min_length=3, max_length=300)]


class AcceptedDocument(CreateModel):
    """A stop that somebody starts in spite of, and why."""

    stop: str = Field(max_length=60, description="id of the watch-out")
    reason: Reason = Field(description="why it is started all the same; logged")


class AcceptedPublic(PublicModel):
    """A stop that a cook was started in spite of."""

    stop: str
    message: str = Field(description="what the stop said")
    reason: str = Field(description="why it was started all the same")


class RehearsalCreate(CreateModel):
    """A rehearsal: simulated food in a kitchen that is not told, on a clock of its own."""

    speed: float = Field(20.0, ge=1, le=60, description="how many of its seconds go by in one")
    seed: int | None = Field(
        None, ge=0, le=2**31, description="of the kitchen; null: any, so that nobody knows it"
    )


class RehearsalChange(CreateModel):
    """What of a rehearsal is to be changed."""

    speed: float | None = Field(None, ge=1, le=60, description="null: as it is")
    kept: bool | None = Field(None, description="whether it stands in the log; null: as it is")


class CookCreate(CreateModel):
    """Start cooking. A `kettle.dish/1` is cooked as the chain that it is."""

    dish: ChainDocument
    plan_id: int | None = Field(None, ge=1, le=2**53, description="the plan it came from")
    when: Literal["now", "planned"] = Field(
        "now", description="planned: wait for the start that the serving time asks for"
    )
    accepted: list[AcceptedDocument] = Field(
        default_factory=list, max_length=20, description="a reason for every stop that stands"
    )
    rehearsal: RehearsalCreate | None = Field(None, description="null: it is cooked in earnest")


class EventCreate(CreateModel):
    """Something that happened. It happened `ago_s` before the tap; the tap was made at `tapped_at`
    and sent at `sent_at`, both by the device's own clock, so only their difference counts.
    """

    id: UUID | None = Field(None, description="made by the device: the same tap is told once")
    kind: Literal[
        "done", "skip", "extend", "later", "saw", "felt", "rescue", "way", "dial", "undo"
    ] = Field(
        description="what is told; later: the guests come later; felt: a skewer tried the food in"
        " its slow heat; rescue: a way out is taken; dial: where the dial of the fire stands, or"
        " its tray hangs, since it began"
    )
    step: str = Field(
        "", max_length=60, description="key of the step, but for later, saw, rescue and undo"
    )
    ago_s: float = Field(
        0.0, ge=0, le=MOST_AGO_S, description="how long before the tap it happened [s]"
    )
    tapped_at: Moment | None = Field(None, description="when it was tapped, by the device's clock")
    sent_at: Moment | None = Field(None, description="when it was sent, by the device's clock")
    seen: int | None = Field(
        None, ge=0, le=2**53, description="number of the last event that the page had seen"
    )
    seconds: float = Field(
        0.0, ge=-3600, le=7200, description="for extend and later: how much longer [s]"
    )
    sign: Literal["", "nothing yet", "bubbling", "amber at the edges", "dark"] = Field(
        "", description="for saw"
    )
    dial: float | None = Field(
        None, ge=0.01, le=400, description="for dial: rack distance [m] or setting [°C]"
    )
    change: Literal["", "calmer", "foil"] = Field("", description="for rescue: its key")
    undoes: int | None = Field(
        None, ge=1, le=2**53, description="for undo: number of the event, the newest when absent"
    )
    temp_c: float | None = Field(
        None, ge=-30, le=230, description="for a gate: the thermometer's reading [°C]"
    )
    tender: bool | None = Field(None, description="for a gate and for felt: whether it is tender")
    reason: str = Field("", max_length=300, description="for skip: why the check is left out")
    way: int = Field(0, ge=0, le=9, description="for way: place of the way back that is taken")


class OutcomeCreate(CreateModel):
    """What it was like. Null where nobody says."""

    tenderness: Literal["tough", "sliceable", "tug", "falls", "shreds", "mushy"] | None = None
    crust: Literal["soft", "sticky", "crackling", "hard"] | None = None
    colour: Literal["pale", "amber", "mahogany", "bitter", "burnt"] | None = None
    note: str = Field("", max_length=2000)


class OutcomePublic(PublicModel):
    """What it was like; empty where nobody said."""

    tenderness: str
    crust: str
    colour: str
    note: str
    recorded_at: datetime


class HeatFactsPublic(PublicModel):
    """What a cook's plan knew of one heat when it began."""

    timer_s: float
    target_c: float
    liquid_l: float
    sauce_g: float
    total: BandPublic
    headline_s: float
    hands_s: float
    safety: SafetyPublic
    glaze: GlazePublic | None
    warm_s: float | None = Field(
        None, description="how long the food may stand in the room; null: not known [s]"
    )
    serve_at: datetime | None = Field(None, description="when it was planned for the table")
    allergens: list[str] = Field(default_factory=list)
    allergens_unknown: list[str] = Field(default_factory=list)


class FilmDocument(PublicModel):
    """A first sauce on whole moist food as a fire begins: what it lies on, and how thick."""

    deep_c: float
    surface_c: float
    mm: float


class SceneDocument(PublicModel):
    """One heat of a chain as a live cook needs it: the food as it is then, that heat, and what its
    forecast knew. glaze : of a heat that is looked at. by : what that one ends by.
    film : where signs under it tell of its appliance; null elsewhere, and in what was kept before.
    """

    heating: HeatingDocument
    timer_s: float
    target_c: float
    liquid_l: float
    sauce_g: float
    glaze: GlazePublic | None
    by: str = ""
    film: FilmDocument | None = None

    @model_validator(mode="before")
    @classmethod
    def as_kept_before(cls, raw: Any) -> Any:
        """A scene as an older version kept it."""
        if isinstance(raw, dict) and "heating" not in raw and isinstance(raw.get("dish"), dict):
            rest = {name: value for name, value in raw.items() if name != "dish"}
            return {**rest, "heating": heating_of_dish(raw["dish"])}
        return raw


class ExitFact(PublicModel):
    """What can still be done, until how many seconds before serving, and why then."""

    do: str
    before_serving_s: float
    why: str


class LeftDocument(PublicModel):
    """What is kept of a heat that was left for another: as the chain says it, and what the forecast
    then knew of the heats from there on. lost : the kind of body that broke or was taken.
    """

    instead: list[InsteadDocument]
    scenes: dict[str, SceneDocument]
    exits: dict[str, list[ExitFact]] = Field(default_factory=dict)
    lost: str = ""


class ChainFactsDocument(PublicModel):
    """What a chain's cook knew when it began (kettle.cook/2): scenes by the id of their stage, in
    order.
    """

    format: Literal["kettle.cook/2"] = "kettle.cook/2"
    total: BandPublic
    headline_s: float
    hands_s: float
    safety: SafetyPublic
    serve_at: datetime | None = None
    warm_s: float | None = Field(
        None, description="how long the food may stand in the room; null: not known [s]"
    )
    allergens: list[str] = Field(default_factory=list)
    allergens_unknown: list[str] = Field(default_factory=list)
    exits: dict[str, list[ExitFact]] = Field(
        default_factory=dict, description="last exits before a fire, by its stage"
    )
    scenes: dict[str, SceneDocument]

    def facts(self, stage: str) -> HeatFactsPublic:
        """What is known of one heat. The strip of a heat that
        is not looked at is that of the next one that is; null where none is.
        """
        scene = self.scenes[stage]
        keys = list(self.scenes)
        later = [self.scenes[key].glaze for key in keys[keys.index(stage) :]]
        every = [one.glaze for one in self.scenes.values()]
        glaze = next((one for one in (*later, *reversed(every)) if one is not None), None)
        return HeatFactsPublic(
            timer_s=scene.timer_s,
            target_c=scene.target_c,
            liquid_l=scene.liquid_l,
            sauce_g=scene.sauce_g,
            total=self.total,
            headline_s=self.headline_s,
            hands_s=self.hands_s,
            safety=self.safety,
            glaze=glaze,
            warm_s=self.warm_s,
            serve_at=self.serve_at,
            allergens=self.allergens,
            allergens_unknown=self.allergens_unknown,
        )


class GatePublic(PublicModel):
    """The check that later steps wait for."""

    step: str
    tender: bool = Field(description="somebody has to try whether it is tender")
    wants_c: float | None = Field(description="what the thermometer must read; null: none needed")
    rests_on: str = Field(description="where that is not simply the usual temperature")
    reads_c: float | None = Field(None, description="what a probe reads now; it passes nothing")
    read_by: str = Field("", description="which device")
    read_at: datetime | None = None


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
    fire: str
    act: str
    gate: str = Field(description="open, passed, failed or skipped; empty where it is no gate")
    note: str = Field(description="why a gate was skipped or failed")
    check: GatePublic | None = Field(None, description="what a gate wants to be shown")


class FeelPublic(PublicModel):
    """Food in a slow heat that a skewer can try, and what was told of that."""

    step: str
    tender: bool | None = Field(description="as it was felt last; null: nobody tried")
    says: str = Field(description="what follows from it; empty where nobody tried")
    ready: bool = Field(description="false while that is being computed")


class DialPublic(PublicModel):
    """The dial of a heat, or the distance of its rack from the element."""

    value: float
    unit: str = Field(description="m or °C")
    low: float
    high: float
    usual: list[float] = Field(description="where it may stand, of those that are known")
    read: float | None = Field(
        description="where it stands by a thermometer beside the food, and the strip is reckoned"
        " with; null where that is as told"
    )


class FirePublic(PublicModel):
    """Food under a fierce heat. Its clock is `before_s` plus the time since `since`."""

    name: str
    appliance: str
    since: datetime
    before_s: float
    assumed: bool
    put_by: str = Field(description="where it is assumed: key of the step that puts it there")
    dial: DialPublic | None = Field(
        description="where its dial stands; null: it cannot be told of this one"
    )


class SignPublic(PublicModel):
    """A sign that was told: seconds under the heat, and whether it narrows the forecast."""

    sign: str
    heat_s: float
    teaches: bool


class WayPublic(PublicModel):
    """A way back from a failed check."""

    heat: str
    says: str
    minutes: float
    eat_at: datetime


class CheckPublic(PublicModel):
    """What was told at a check, and what came of it."""

    step: str
    label: str
    at: datetime
    temp_c: float | None
    tender: bool | None
    verdict: str
    why: str


class ReturnPublic(PublicModel):
    """The way back that a failed check opened, and the others there are."""

    step: str = Field(description="the gate that failed")
    why: str
    way: int
    ways: list[WayPublic]


class OutPublic(PublicModel):
    """When to take it out, by what was seen: seconds under the heat."""

    sign: str
    seen_s: float
    from_s: float
    to_s: float


class RehearsalPublic(PublicModel):
    """That a cook is a rehearsal: simulated food, on a clock of its own."""

    speed: float = Field(description="how many of its seconds go by in one")
    kept: bool = Field(description="whether it stands in the log")
    seed: int = Field(description="of the kitchen that it hides")
    real_at: datetime = Field(description="a moment by the clock on the wall")
    cook_at: datetime = Field(description="the same moment by the clock of the rehearsal")
    strip_key: str | None = Field(
        description="changes when the colours of the food are to be fetched anew; null: none"
    )
    reads_c: float | None = Field(description="at a check: what a thermometer reads")
    feels: str = Field(
        description="at a check, what a fork finds; in a heat that can be tried, a skewer"
    )
    verdicts: list[str] = Field(description="at the end: what came of every fire")


class LastExitPublic(PublicModel):
    """What can still be done and be on time, and until when."""

    do: str
    why: str
    closes_at: datetime


class ScoutPublic(PublicModel):
    """A trial of a heat that nobody has watched yet, offered while a machine works."""

    appliance: str
    says: str


class PicturePublic(PublicModel):
    """What the kitchen looks like now, to be drawn."""

    shows: str = Field(
        description="board, brush, cold, covered, check, rest or plate; of a vessel empty, open,"
        " warming, holding, falling, venting or under (its fire)"
    )
    vessel: str = Field(description="key of the slow or the fierce heat; empty where there is none")
    cut: str
    pieces: int
    strands: bool
    cooked: bool = Field(description="whether it has been in a heat")
    coats: int = Field(description="that have been put on")
    heat_s: float = Field(description="seconds under the fire whose strip is shown")
    rack_mm: float | None = Field(description="from the element down to the food; null: no rack")


class LivePublic(PublicModel):
    """The state of a cook at one moment."""

    id: int
    supper: int | None = Field(description="number of the supper that it is a dish of; null: none")
    title: str
    now: datetime
    started_at: datetime
    ended_at: datetime | None
    rated: bool
    last_event: int
    undoable: int = Field(description="number of the event that undo would take back; 0: none")
    current: str | None
    says: str = Field(description="the one thing to do now")
    button: str = Field(description="what the wide button says, empty where there is nothing")
    detail: str
    caution: str = Field(description="of food that stands; empty where there is none")
    eat_by: datetime | None = Field(description="until when such food is eaten or chilled")
    steps: list[StepPublic]
    serve_at: datetime
    serve_low_at: datetime
    serve_high_at: datetime
    planned_serve_at: datetime | None
    feel: FeelPublic | None = Field(description="null where no skewer can try the food now")
    fire: FirePublic | None
    out: OutPublic | None
    alarms: list[AlarmPublic]
    looks_s: list[float]
    glaze_key: str | None = Field(
        description="changes when the glaze is to be fetched anew; null where there is none"
    )
    glaze_ready: bool = Field(description="false while the strip is being computed anew")
    gate: GatePublic | None
    back: ReturnPublic | None
    checks: list[CheckPublic]
    side_due: list[str]
    signs: list[SignPublic]
    allergens: list[str]
    allergens_unknown: list[str]
    picture: PicturePublic
    waits_s: float = Field(description="seconds until the planned start; 0 once it is begun")
    probe: ProbePublic | None = Field(description="what a probe in the food says; null: none")
    devices: list[DevicePublic] = Field(description="the newest reading of each quantity")
    offer: DeviceDonePublic | None = Field(
        description="a step of which a device says that it is done"
    )
    rehearsal: RehearsalPublic | None = Field(description="null where it is a real cook")
    exits: list[LastExitPublic] = Field(description="what can still be done and be on time")
    scout: ScoutPublic | None = Field(description="a trial of the next heat; null where none fits")
    leavable: list[LeavablePublic] = Field(
        description="heats that are not over, and what may fail there"
    )
    finished: bool


class LiveListPublic(PublicModel):
    """All cooks that are under way."""

    cooks: list[LivePublic]
    suppers: list[SupperPublic] = Field(description="meals of which one of these is a dish")
    aside: list[AsidePublic] = Field(default_factory=list)


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
    strip: StripPublic | None = Field(description="null where nothing was looked at")
    outcome: OutcomePublic | None


class CooksPublic(PublicModel):
    """A page of cooks, newest first."""

    cooks: list[CookSummary]
    aside: list[AsidePublic] = Field(default_factory=list)
    more: str = Field("", description="put this into `after` for the next page; empty on the last")


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
    dish: dict[str, Any] = Field(description="as it was planned")
    cooked: dict[str, Any] = Field(
        description="as it is cooked: with heats that came for others, and dials where they stand"
    )
    again: dict[str, Any] = Field(
        description="the plan to be cooked anew: what the kept kitchen knows itself is left open"
    )
    facts: HeatFactsPublic
    glaze_after: GlazePublic | None = Field(
        description="the strip after what was seen; null where nothing was looked at"
    )
    stages: list[StageCompare]
    checks: list[CheckPublic]
    accepted: list[AcceptedPublic]
    signs: list[str]
    moved: list[str] = Field(description="heats that were left for others, in words")


class HealthPublic(PublicModel):
    """Alive."""

    status: str
    version: str
