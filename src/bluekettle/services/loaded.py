"""A stored cook with everything that its state is made from."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from datetime import datetime, timedelta
from functools import cached_property

from pydantic import ValidationError

from bluekettle.core.glaze import Act
from bluekettle.core.stages import Event, Leg, Progress, StepPlan, follow, not_undone
from bluekettle.core.stages.progress import Fold, wanted_c
from bluekettle.schemas.chain import ChainDocument
from bluekettle.schemas.cook import ChainFactsDocument, HeatFactsPublic, LeftDocument
from bluekettle.schemas.forecast import GlazePublic
from bluekettle.schemas.heating import HeatingDocument
from bluekettle.services.airing import air_dials
from bluekettle.services.dials import dials_of, heat_of_plan, with_dial, with_dials
from bluekettle.services.errors import Unreadable
from bluekettle.services.instructions import Step, Words, say
from bluekettle.services.steps import event_of, plan_of
from bluekettle.services.strips import Seen
from bluekettle.store.tables import Cook, CookEvent, CookStep, Reading, Rehearsal

Seconds = tuple[float, float, float]  # low, likely, high [s]

LONGEST_FIRE_S = 10_800.0  # a sign after this is of no fire that is known


@dataclass(frozen=True)
class Scene:
    """One heat of a cook: the dish as it is then, and what its forecast knew."""

    document: HeatingDocument
    facts: HeatFactsPublic
    by_clock: bool = False


@dataclass(frozen=True)
class Told:
    """What else is kept of a cook: whether it was rated, that it is a rehearsal, and what outside
    devices read: the newest of each quantity, and what a forecast is held against.
    """

    rated: bool = False
    rehearsal: Rehearsal | None = None
    newest: Mapping[str, Reading] = field(default_factory=dict)
    marks: Sequence[Reading] = ()


class Loaded:
    """A cook with everything that its state is made from.

    Raises Unreadable where what is kept of it has no shape that is known.
    """

    def __init__(
        self, cook: Cook, steps: Sequence[CookStep], events: Sequence[CookEvent], told: Told
    ) -> None:
        self.cook, self.rows, self.told = cook, events, told
        try:
            self.plans = tuple(plan_of(step) for step in steps)
            self.events = [event_of(row, self.seconds(row.happened_at)) for row in events]
            self.left = left_of(self.events, events)
            self.chain = with_left(ChainFactsDocument.model_validate(cook.facts), self.left)
            self.planned = ChainDocument.model_validate(cook.dish)
            self.dials = dials_of(self.planned, self.events)
            whole = with_dials(self.planned, self.dials)
            self.whole = whole.model_copy(
                update={"instead": [*whole.instead, *(i for one in self.left for i in one.instead)]}
            )
            self.scenes = {
                key: Scene(
                    self.heating_at(key, one.heating),
                    self.chain.facts(key),
                    one.by not in ("", "colour"),
                )
                for key, one in self.chain.scenes.items()
            }
        except (ValidationError, AttributeError, KeyError, TypeError, ValueError) as error:
            why = str(error).splitlines()[0][:200]
            raise Unreadable("cook", self.cook_id, cook.title, why) from error

    def heating_at(self, stage: str, heating: HeatingDocument) -> HeatingDocument:
        """A heat with its dial where it was told to stand."""
        return with_dial(heating, self.dials[stage]) if stage in self.dials else heating

    @cached_property
    def aired(self) -> dict[str, float]:
        """By the id of a fire, where its dial stands by what was read beside the food."""
        marks = [m for m in self.told.marks if m.quantity == "air_c"]
        if not marks:
            return {}
        read = [(self.seconds(m.taken_at), m.value) for m in marks]
        looked_at = [key for key, one in self.chain.scenes.items() if one.glaze is not None]
        rows = {key: heat_of_plan(self.planned, key) for key in looked_at}
        fires = {
            key: (self.scenes[key].document, row) for key, row in rows.items() if row is not None
        }
        return air_dials(self.fold, self.events, fires, read)

    @cached_property
    def as_read(self) -> ChainDocument:
        """The plan as it is cooked, its fires as hot as they were read to be."""
        return with_dials(self.whole, self.aired)

    @property
    def cook_id(self) -> int:
        """The key, once stored."""
        return int(self.cook.id or 0)

    @cached_property
    def legs(self) -> dict[str, Leg]:
        """Ways back that are taken, by the key of each of their steps. Others that were there have
        steps of the same keys.
        """
        return {step.key: leg for leg in self.fold.taken.values() for step in leg.steps}

    @cached_property
    def fold(self) -> Fold:
        """The events applied in order."""
        return Fold(self.plans, self.events)

    def scene(self, plan: StepPlan | None = None) -> Scene:
        """The scene of a step: of its own stage, else of the next heat of the line, else the
        last.
        """
        if plan is None:
            return list(self.scenes.values())[-1]
        for other in self.line_from(plan):
            stage = stage_of_step(other)
            if stage in self.scenes:
                return self.scenes[stage]
        return list(self.scenes.values())[-1]

    def line_from(self, plan: StepPlan) -> list[StepPlan]:
        """A step and those after it; of one beside, the step that it has to be ready for."""
        keys = [other.key for other in self.fold.line]
        at = plan.key if plan.key in keys else plan.before
        return [plan, *self.fold.line[keys.index(at) :]] if at in keys else [plan]

    def fire_stage(self, progress: Progress) -> str:
        """The fire that the food is under, else the next, else the last; empty where none is."""
        if progress.fire is not None:
            return progress.fire.name
        fires = [s for s in progress.steps if s.plan.who == "fire"]
        ahead = [s.plan.fire for s in fires if s.state in ("current", "upcoming")]
        return next(iter([*ahead, *reversed([s.plan.fire for s in fires])]), self.last_fire)

    @property
    def last_fire(self) -> str:
        """The last heat that is looked at; empty where none is."""
        fires = [key for key, scene in self.chain.scenes.items() if scene.glaze is not None]
        return fires[-1] if fires else ""

    def planned_glaze(self, progress: Progress) -> GlazePublic | None:
        """The strip of that fire as planned; None of a cook in which nothing is looked at."""
        if not self.last_fire:
            return None
        return self.fire_scene(progress).facts.glaze

    def fire_scene(self, progress: Progress) -> Scene:
        """The scene of that fire."""
        return self.scenes[self.fire_stage(progress)]

    def progress(
        self,
        now: datetime,
        glaze: GlazePublic | None = None,
        stage: str = "",
        probed: Mapping[str, Seconds] | None = None,
    ) -> Progress:
        """Where it stands; an ended cook stands still. With another strip than the planned one, its
        stretches under the heat of this stage are as that one says. probed : steps whose seconds
        are as a probe says, by their keys.
        """
        moment = min(now, self.cook.ended_at) if self.cook.ended_at else now
        known = {} if glaze is None else stretches_of(self.every_plan, glaze, stage)
        seconds = {**known, **(probed or {})}
        return follow(self.plans, self.events, self.seconds(moment), seconds)

    @cached_property
    def every_plan(self) -> tuple[StepPlan, ...]:
        """All steps there are: those of the plan that were not left for others, and those."""
        left = [event for event in self.fold.events if event.kind == "instead"]
        gone = {key for event in left for key in event.dropped} - self.fold.done.keys()
        new = {plan.key: plan for event in left for _, plan in event.steps}
        kept = (plan for plan in self.plans if plan.key not in {*gone, *new})
        return (*kept, *new.values())

    def clock(self, now: datetime) -> datetime:
        """The moment by the clock of this cook: that of a rehearsal runs faster."""
        rehearsal = self.told.rehearsal
        if rehearsal is None:
            return now
        return rehearsal.cook_at + rehearsal.speed * (now - rehearsal.real_at)

    @property
    def speed(self) -> float:
        """How many of its seconds go by in one."""
        return self.told.rehearsal.speed if self.told.rehearsal else 1.0

    def seconds(self, moment: datetime) -> float:
        """Seconds from the start of the cook."""
        return (moment - self.cook.started_at).total_seconds()

    def moment(self, seconds: float | None) -> datetime | None:
        """A moment from seconds."""
        return None if seconds is None else self.cook.started_at + timedelta(seconds=seconds)

    def at(self, seconds: float) -> datetime:
        """A moment from seconds that are there."""
        return self.cook.started_at + timedelta(seconds=seconds)

    def asked_c(self, gate: StepPlan) -> float | None:
        """What the thermometer must read at a gate."""
        return wanted_c(self.fold.line, self.fold.events, gate)

    def seen(self, progress: Progress) -> Seen:
        """What the strip is held to: acts that were done, and signs of a certain moment."""
        stage = self.fire_stage(progress)
        done = [d for d in progress.acts if stage in ("", d.fire)]
        acts = [Act(d.at_s, d.away_s, "coat" in d.act, "turn" in d.act) for d in done]
        told = [s for s in progress.signs if s.teaches and s.heat_s <= LONGEST_FIRE_S]
        signs = [(s.sign, s.heat_s) for s in told if stage in ("", s.fire)]
        taken = [s for s in progress.changes if stage in ("", s.fire) and s.heat_s >= 1.0]
        change = (taken[-1].sign, taken[-1].heat_s) if taken else None
        dial = self.aired.get(stage, self.dials.get(stage))
        return Seen(tuple(acts), tuple(signs), stage, change, dial)

    def step_of(self, plan: StepPlan) -> Step:
        """A step with what its words need."""
        leg = self.legs.get(plan.key)
        scene = self.scene(plan)
        heat = leg.heat if leg else scene.document.slow or ""
        hold_s = scene.facts.timer_s
        if leg:
            hold_s = next(s.likely_s for s in leg.steps if s.key.endswith(".hold"))
        asked = self.asked_c(plan) if plan.who == "gate" else None
        return Step(plan, heat, hold_s, asked, self.next_act(plan), self.switches_on(plan))

    def switches_on(self, plan: StepPlan) -> bool:
        """Whether the appliance of the heat that a step comes before has no step of its own to
        switch it on.
        """
        keys = {other.key for other in self.every_plan}
        stages = (stage_of_step(other) for other in self.line_from(plan))
        heat = next((stage for stage in stages if stage in self.scenes), "")
        return f"{heat}.warm_up" not in keys

    def next_act(self, plan: StepPlan) -> str:
        """What a stretch under the heat is ended for, where that is not the end of it."""
        line = self.fold.line
        place = next((i for i, other in enumerate(line) if other.key == plan.key), -1)
        if plan.who != "fire" or place < 0 or place + 1 >= len(line):
            return ""
        after = line[place + 1]
        return f"Out: {after.label[:1].lower()}{after.label[1:]}" if after.act else ""

    def words(self, plan: StepPlan) -> Words:
        """What is said at a step."""
        key = f"{stage_of_step(plan)}.natural"
        natural = next((p.high_s for p in self.every_plan if p.key == key), 0.0)
        scene = self.scene(plan)
        return say(self.step_of(plan), scene.document, scene.facts, natural)


def stage_of_step(plan: StepPlan) -> str:
    """Id of the stage that a step belongs to; empty where to none."""
    return stage_of_key(plan.key)


def stage_of_key(key: str) -> str:
    """Id of the stage of a step's key; empty where it is of none."""
    return key.partition("~")[0].rpartition(".")[0]


def left_of(events: Sequence[Event], rows: Sequence[CookEvent]) -> list[LeftDocument]:
    """What is kept of every heat that was left for another and not gone back to, in order."""
    standing = {event.seq for event in not_undone(events) if event.kind == "instead"}
    return [LeftDocument.model_validate(row.data["left"]) for row in rows if row.seq in standing]


def with_left(chain: ChainFactsDocument, left: Sequence[LeftDocument]) -> ChainFactsDocument:
    """What a cook knows, with the heats that came for others."""
    scenes, exits = dict(chain.scenes), dict(chain.exits)
    for one in left:
        unbegun = {doc.stage for doc in one.instead if not doc.had_min}
        scenes = {key: scene for key, scene in scenes.items() if key not in unbegun}
        scenes = {key: scene for key, scene in scenes.items() if key not in one.scenes}
        scenes |= one.scenes
        exits |= one.exits
    return chain.model_copy(update={"scenes": scenes, "exits": exits})


def stretches_of(
    plans: Sequence[StepPlan], glaze: GlazePublic, stage: str = ""
) -> dict[str, Seconds]:
    """Seconds of the stretches under the fierce heat of this stage, as a strip says; empty where
    they are not as many.
    """
    if glaze.pull is None:
        return {}
    acts = sorted({c.at_s for c in glaze.coats if c.at_s > 0.0} | set(glaze.flips_s))
    pull, last = glaze.pull, acts[-1] if acts else 0.0
    inner = [after - before for before, after in zip([0.0, *acts], acts, strict=False)]
    ends = (pull.low_s - last, pull.likely_s - last, pull.high_s - last)
    low, likely, high = (max(1.0, end) for end in ends)
    seconds = [*((s, s, s) for s in inner), (low, likely, high)]
    under = [plan for plan in plans if plan.who == "fire"]
    stretches = [plan.key for plan in under if stage in ("", plan.fire)]
    if len(stretches) != len(seconds):
        return {}
    return dict(zip(stretches, seconds, strict=True))
