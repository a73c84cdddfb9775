"""A meal of several dishes and sides (kettle.meal/1), and its plan."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Literal

from pydantic import Field, model_validator

from bluekettle.schemas.base import AsidePublic, CreateModel, Key, Moment, PublicModel
from bluekettle.schemas.chain import ChainDocument, Name
from bluekettle.schemas.cook import AcceptedDocument, RehearsalCreate
from bluekettle.schemas.dish import KitchenDocument

BodyKey = Annotated[str, Key("bodies")]
SideKey = Annotated[str, Key("sides")]
MOST_DISHES, MOST_SIDES = 10, 6


class MealDishDocument(CreateModel):
    """A dish of a meal: one of a shipped chain, a kept plan, or a document."""

    id: Name = Field(description="stable: tasks and exports refer to it")
    name: str = Field("", max_length=80, description="what it is called; the dish's own if empty")
    template: str | None = Field(None, max_length=60, description="key of a shipped chain")
    plan_id: int | None = Field(None, ge=1, le=2**53, description="number of a kept plan")
    dish: ChainDocument | None = Field(None, description="a dish of your own")

    @model_validator(mode="after")
    def one_of_them(self) -> MealDishDocument:
        """Exactly one way to say what it is."""
        told = [one for one in (self.template, self.plan_id, self.dish) if one is not None]
        if len(told) != 1:
            raise ValueError("one of template, plan_id and dish")
        return self


class MealSideDocument(CreateModel):
    """A side: a common one by its key, or one of your own."""

    id: Name = Field(description="stable: tasks and exports refer to it")
    key: SideKey | None = Field(None, description="a common side; its figures are taken from it")
    name: str = Field("", max_length=80, description="what it is called")
    prepare_min: float | None = Field(None, ge=0, le=240, description="hands before it cooks [min]")
    cook_min: float | None = Field(None, ge=0, le=480, description="it cooks [min]")
    body: BodyKey | None = Field(None, description="in what")
    temp_c: float | None = Field(None, ge=30, le=300, description="at which setting [°C]")
    cook_hands: bool | None = Field(None, strict=True, description="whether somebody stirs")
    finish_min: float | None = Field(None, ge=0.5, le=30, description="hands after that [min]")
    holds_min: float | None = Field(None, ge=0, le=720, description="how long it holds [min]")

    @model_validator(mode="after")
    def known_or_told(self) -> MealSideDocument:
        """A common side, or a name of its own."""
        if self.key is None and not self.name:
            raise ValueError("the key of a common side, or a name")
        return self


class MealBodyDocument(CreateModel):
    """Something to cook in."""

    kind: BodyKey = Field(description="what it is")
    name: str = Field("", max_length=80, description="what it is called")
    zones: int = Field(1, ge=1, le=4, strict=True, description="baskets with settings of their own")


class QuietDocument(CreateModel):
    """A span in which nobody is at work."""

    start: Moment = Field(description="from")
    end: Moment = Field(description="to")

    @model_validator(mode="after")
    def goes_forward(self) -> QuietDocument:
        """It ends after it begins."""
        if self.end <= self.start:
            raise ValueError("an end after its start")
        return self


class MealDocument(CreateModel):
    """Several dishes and sides, one supper."""

    format: Literal["kettle.meal/1"] = Field(
        "kettle.meal/1", description="name and version of this format"
    )
    name: str = Field("", max_length=80, description="what you call it")
    serve_at: Moment | None = Field(
        None, description="when it should be on the table; null for as soon as possible"
    )
    dishes: list[MealDishDocument] = Field(
        max_length=MOST_DISHES, description="what is cooked; none where it is begun only"
    )
    sides: list[MealSideDocument] = Field(
        default_factory=list, max_length=MOST_SIDES, description="what goes with it"
    )
    guests: int | None = Field(
        None, ge=1, le=60, strict=True, description="how many eat; null for nobody knows"
    )
    appetite: Literal["light", "ordinary", "hearty"] = Field(
        "ordinary", description="how much they eat"
    )
    hands: int = Field(1, ge=1, le=6, strict=True, description="pairs of hands")
    appliances: list[MealBodyDocument] | None = Field(
        None, max_length=20, description="what there is; null for the kept kitchen"
    )
    kitchen: KitchenDocument | None = Field(
        None, description="what dishes leave open of their kitchen; null for the kept one"
    )
    quiet: list[QuietDocument] = Field(
        default_factory=list, max_length=8, description="spans without any hands"
    )

    @model_validator(mode="after")
    def hangs_together(self) -> MealDocument:
        """Each with an id of its own."""
        ids = [one.id for one in self.dishes] + [one.id for one in self.sides]
        twice = sorted({one for one in ids if ids.count(one) > 1})
        if twice:
            raise ValueError(f"an id of its own for each: {', '.join(twice)} is there twice")
        return self


class MealTaskPublic(PublicModel):
    """One act or wait of the plan."""

    key: str = Field(description="stable: dish/stage.step")
    line: str = Field(description="id of its dish or side")
    label: str
    who: Literal["hands", "machine", "gate", "fire"]
    start_at: datetime
    end_at: datetime
    hands_at: datetime = Field(description="from when hands are needed")
    pair: int | None = Field(description="which pair of hands; null for a machine")


class MealWaitPublic(PublicModel):
    """Food that waits."""

    line: str
    after: str = Field(description="key of the task before it")
    before: str = Field(description="key of the task after it")
    how: str = Field(description="how it waits: key of a wait")
    says: str = Field(description="the same in words")
    start_at: datetime
    end_at: datetime
    most_s: float | None = Field(description="how long it may; null for no limit [s]")


class MealAheadPublic(PublicModel):
    """An appliance that is switched on, or set anew."""

    line: str
    label: str
    body: str = Field(description="name of the appliance")
    start_at: datetime
    ready_at: datetime


class MealUsePublic(PublicModel):
    """An appliance that is taken."""

    line: str
    kind: str
    body: str = Field(description="name of the appliance")
    temp_c: float | None = Field(description="its setting; null where it has none [°C]")
    start_at: datetime
    end_at: datetime


class MealLinePublic(PublicModel):
    """A dish or a side of the plan."""

    id: str
    name: str
    kind: Literal["dish", "side"]
    plan_id: int | None = Field(description="number of the kept plan, where it is one")


class MealSpanPublic(PublicModel):
    """When a limit is not kept, or two want the same."""

    line: str = Field(description="id of the dish or side; empty where it is about all")
    start_at: datetime
    end_at: datetime


class MealTroublePublic(PublicModel):
    """A limit that is not kept, or why."""

    line: str = Field(description="id of the dish; empty where it is about all")
    says: str
    spans: list[MealSpanPublic] = Field(default_factory=list, description="where, in the evening")


class MealRepairPublic(PublicModel):
    """What would mend it: a new moment, more hands, or dishes to put in place by their ids."""

    says: str
    serve_at: datetime | None = None
    hands: int | None = None
    dishes: dict[str, ChainDocument] = Field(default_factory=dict)


class ShoppingPublic(PublicModel):
    """Something to buy, added up over all dishes."""

    name: str
    amount: str = Field(description="in words; empty for as much as is needed")
    users: list[str] = Field(description="dishes that want it")


class MealPreparePublic(PublicModel):
    """What hands make ready before its dish is under any heat."""

    key: str = Field(description="of its task")
    line: str = Field(description="id of its dish or side")
    label: str
    start_at: datetime = Field(description="when the plan has it")
    seconds: float = Field(description="how long it takes [s]")
    earliest_at: datetime | None = Field(
        description="from when on it keeps until it is wanted; null where it keeps for days"
    )


class HelpingsPublic(PublicModel):
    """What everybody gets of the dishes, cooked and without bones."""

    head_g: float = Field(description="a head [g]")
    wanted_g: float = Field(description="what the appetite asks for, a head [g]")
    enough: bool = Field(description="whether nobody misses anything")
    line: str = Field(description="id of the dish of which there is most")
    more_g: float = Field(description="of that dish, as bought, that would be enough [g]")


class SchedulePublic(PublicModel):
    """The plan of a meal.

    feasible : whether everything can be cooked at all; where it cannot, `reasons` tell why and
    there are no tasks. first : only what was found first, without what would mend it; a better plan
    may follow.
    """

    name: str
    first: bool = Field(False, description="whether it is a first plan only")
    feasible: bool
    serve_at: datetime = Field(description="the wanted moment")
    ready_at: datetime = Field(description="when everything is on the table, likely")
    ready_low_at: datetime
    ready_high_at: datetime
    late: float = Field(description="chance of more than five minutes after serve_at [-]")
    first_at: datetime = Field(description="the first act")
    latest_first_at: datetime | None = Field(
        description="the latest first act that still serves on time; null where none does"
    )
    soonest_at: datetime | None = Field(description="the earliest supper from now")
    hands_s: float = Field(description="work of hands in all [s]")
    proven: bool = Field(description="whether it is the best plan, to within 2 in 100")
    lines: list[MealLinePublic]
    tasks: list[MealTaskPublic]
    waits: list[MealWaitPublic]
    aheads: list[MealAheadPublic]
    uses: list[MealUsePublic]
    past: list[MealTroublePublic] = Field(description="limits of quality that it does not keep")
    reasons: list[MealTroublePublic] = Field(description="the smallest set of reasons")
    repairs: list[MealRepairPublic] = Field(description="each was tried")
    assumed: list[str] = Field(description="appliances that nobody named")
    shopping: list[ShoppingPublic] = Field(description="what to buy, over all dishes")
    prepare: list[MealPreparePublic] = Field(description="in the order of the plan")
    helpings: HelpingsPublic | None = Field(
        description="what everybody gets; null where nobody told how many eat"
    )
    guidance: str


class ScheduleQuery(CreateModel):
    """How long it may take."""

    effort: Literal["first", "full"] = Field(
        "full", description="first: what is found first, without what would mend it"
    )


class SidePublic(PublicModel):
    """A common side."""

    key: str
    name: str
    prepare_min: float
    cook_min: float
    body: str
    holds_min: float


class MadeMealPublic(PublicModel):
    """A made meal to begin with."""

    key: str
    hours: float = Field(description="how long before supper it is begun [h]")
    meal: MealDocument


class MealChoicesPublic(PublicModel):
    """What a meal can be made of."""

    sides: list[SidePublic]
    bodies: dict[str, str] = Field(description="names of what can be cooked in, by key")
    made: list[MadeMealPublic]


class MealCreate(CreateModel):
    """A meal to keep."""

    meal: MealDocument


class MealPublic(PublicModel):
    """A kept meal. missing : ids of its dishes whose plan is no longer there."""

    id: int
    title: str
    meal: MealDocument
    version: int = Field(description="the same as its ETag")
    updated_at: datetime
    missing: list[str] = Field(default_factory=list)


class MealStartCreate(CreateModel):
    """Begin to cook a meal: each dish as a cook of its own, by the plan of the meal."""

    accepted: list[AcceptedDocument] = Field(
        default_factory=list, max_length=20, description="a reason for every stop that stands"
    )
    rehearsal: RehearsalCreate | None = Field(None, description="null: it is cooked in earnest")


class MealStartedPublic(PublicModel):
    """Cooks that began."""

    supper: int = Field(description="number of the supper that they are dishes of")
    cooks: list[int] = Field(description="their numbers, in the order of the dishes")


class MealsPublic(PublicModel):
    """A page of kept meals, newest first."""

    meals: list[MealPublic]
    aside: list[AsidePublic] = Field(default_factory=list)
    more: str = Field("", description="put this into `after` for the next page; empty on the last")
