"""Where a cook stands at a moment, as the Stove page reads it."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta
from functools import cached_property

from pydantic import ValidationError

from bluekettle.core.glaze import Act
from bluekettle.core.stages import (
    Event,
    Evidence,
    Leg,
    Progress,
    StepPlan,
    StepState,
    finish_kind,
    follow,
    not_undone,
    plans_with,
)
from bluekettle.core.stages.progress import FAILED, Fold, wanted_c
from bluekettle.core.units import amount
from bluekettle.schemas.chain import ChainDocument
from bluekettle.schemas.cook import (
    ChainFactsDocument,
    CheckPublic,
    FirePublic,
    GatePublic,
    HeatFactsPublic,
    LivePublic,
    OutPublic,
    ReturnPublic,
    SignPublic,
    StepPublic,
    WayPublic,
)
from bluekettle.schemas.dish import DishDocument
from bluekettle.schemas.forecast import GlazePublic
from bluekettle.services.alarms import alarms_of
from bluekettle.services.errors import Unreadable
from bluekettle.services.instructions import Step, Words, minutes_text, say, stopwatch_text
from bluekettle.services.steps import event_of, plan_of
from bluekettle.services.strips import Seen, Strips
from bluekettle.store.tables import Cook, CookEvent, CookStep

UNDOABLE = ("done", "skip", "extend", "saw", "way")
LONGEST_FIRE_S = 10_800.0  # a sign after this is of no fire that is known
ROOM_LIMIT_S = 2 * 3600.0  # usual guidance: food in the danger zone, at room temperature


@dataclass(frozen=True)
class Scene:
    """One heat of a cook: the dish as it is then, and what its forecast knew."""

    document: DishDocument
    facts: HeatFactsPublic
    by_clock: bool = False


class Loaded:
    """A cook with everything that its state is made from.

    Raises Unreadable where what is kept of it has no shape that is known.
    """

    def __init__(
        self, cook: Cook, steps: Sequence[CookStep], events: Sequence[CookEvent], rated: bool
    ) -> None:
        self.cook, self.rows, self.rated = cook, events, rated
        try:
            self.plans = tuple(plan_of(step) for step in steps)
            self.chain = ChainFactsDocument.model_validate(cook.facts)
            self.whole = ChainDocument.model_validate(cook.dish)
            self.scenes = {
                key: Scene(
                    DishDocument.model_validate(one.dish),
                    self.chain.facts(key),
                    one.by not in ("", "colour"),
                )
                for key, one in self.chain.scenes.items()
            }
            self.events = [event_of(row, self.seconds(row.happened_at)) for row in events]
        except (ValidationError, KeyError, TypeError, ValueError) as error:
            why = str(error).splitlines()[0][:200]
            raise Unreadable("cook", self.cook_id, cook.title, why) from error

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
        self, now: datetime, glaze: GlazePublic | None = None, stage: str = ""
    ) -> Progress:
        """Where it stands; an ended cook stands still. With another strip than the planned one, its
        stretches under the heat of this stage are as that one says.
        """
        moment = min(now, self.cook.ended_at) if self.cook.ended_at else now
        plans = self.plans if glaze is None else refit(self.plans, glaze, stage)
        return follow(plans, self.events, self.seconds(moment))

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
        return Seen(tuple(acts), tuple(signs), stage)

    def step_of(self, plan: StepPlan) -> Step:
        """A step with what its words need."""
        leg = self.legs.get(plan.key)
        scene = self.scene(plan)
        heat = leg.heat if leg else scene.document.tenderise
        hold_s = scene.facts.timer_s
        if leg:
            hold_s = next(s.likely_s for s in leg.steps if s.key.endswith(".hold"))
        asked = self.asked_c(plan) if plan.who == "gate" else None
        return Step(plan, heat, hold_s, asked, self.next_act(plan), self.switches_on(plan))

    def switches_on(self, plan: StepPlan) -> bool:
        """Whether the appliance of the heat that a step comes before has no step of its own to
        switch it on.
        """
        keys = {other.key for other in self.plans}
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
        return f"Out: {after.label.lower()}" if after.act else ""

    def words(self, plan: StepPlan) -> Words:
        """What is said at a step."""
        key = f"{stage_of_step(plan)}.natural"
        natural = next((p.high_s for p in self.plans if p.key == key), 0.0)
        scene = self.scene(plan)
        return say(self.step_of(plan), scene.document, scene.facts, natural)


def stage_of_step(plan: StepPlan) -> str:
    """Id of the stage that a step belongs to; empty where to none."""
    return plan.key.partition("~")[0].rpartition(".")[0]


def refit(plans: Sequence[StepPlan], glaze: GlazePublic, stage: str = "") -> tuple[StepPlan, ...]:
    """Steps whose stretches under the fierce heat of this stage are those of a strip."""
    if glaze.pull is None:
        return tuple(plans)
    acts = sorted({c.at_s for c in glaze.coats if c.at_s > 0.0} | set(glaze.flips_s))
    pull, last = glaze.pull, acts[-1] if acts else 0.0
    inner = [after - before for before, after in zip([0.0, *acts], acts, strict=False)]
    ends = (pull.low_s - last, pull.likely_s - last, pull.high_s - last)
    seconds = [(s, s, s) for s in inner] + [tuple(max(1.0, end) for end in ends)]
    under = [plan for plan in plans if plan.who == "fire"]
    stretches = [plan.key for plan in under if stage in ("", plan.fire)]
    if len(stretches) != len(seconds):
        return tuple(plans)
    return plans_with(plans, dict(zip(stretches, seconds, strict=True)))  # type: ignore[arg-type]


def live(loaded: Loaded, now: datetime, strips: Strips) -> LivePublic:
    """The state as the Stove page reads it."""
    told = loaded.progress(now)
    seen = loaded.seen(told)
    planned = loaded.planned_glaze(told)
    glaze, ready = (None, True)
    if planned is not None:
        glaze, ready = strips.now(loaded.whole, planned, seen)
    progress = loaded.progress(now, glaze, seen.stage) if seen else told
    facts = loaded.scene().facts
    plan = next((s.plan for s in progress.steps if s.plan.key == progress.current), None)
    words = loaded.words(plan) if plan else Words("All done. How was it?", "", "")
    out = out_between(glaze, progress) if progress.fire and glaze else None
    words = said_now(words, progress, glaze, out, loaded)
    gate = gate_public(loaded, progress, plan)
    serve_at = loaded.at(progress.serve_at_s)
    return LivePublic(
        id=loaded.cook_id,
        title=loaded.cook.title,
        now=now,
        started_at=loaded.cook.started_at,
        ended_at=loaded.cook.ended_at,
        rated=loaded.rated,
        last_event=loaded.rows[-1].seq if loaded.rows else 0,
        undoable=last_standing(loaded.events),
        current=progress.current,
        says=words.says,
        button=words.button,
        detail=words.detail,
        caution=standing_caution(loaded, progress, loaded.seconds(now)),
        eat_by=eat_by(loaded, progress, loaded.seconds(now)),
        steps=[step_public(loaded, s) for s in progress.steps],
        serve_at=serve_at,
        serve_low_at=loaded.at(progress.serve_low_s),
        serve_high_at=loaded.at(progress.serve_high_s),
        planned_serve_at=facts.serve_at,
        fire=fire_public(loaded, progress),
        out=out,
        alarms=[] if loaded.cook.ended_at else alarms_of(loaded, progress, glaze, now),
        looks_s=glaze.looks_s if progress.fire and glaze else [],
        glaze_key=seen.key if glaze else None,
        glaze_ready=ready,
        gate=gate,
        back=back_public(loaded, progress, now),
        checks=checks_public(loaded, progress),
        side_due=[] if loaded.cook.ended_at else list(progress.side_due),
        signs=[SignPublic(sign=s.sign, heat_s=s.heat_s, teaches=s.teaches) for s in progress.signs],
        allergens=facts.allergens,
        allergens_unknown=facts.allergens_unknown,
        waits_s=waits_s(progress, loaded.seconds(now)),
        finished=progress.finished,
    )


def waits_s(progress: Progress, now_s: float) -> float:
    """Seconds until the planned start; 0 once it is begun."""
    first = progress.steps[0] if progress.steps else None
    if first is None or first.plan.key != "wait" or progress.current != "wait":
        return 0.0
    return max(0.0, first.due_s - now_s)


def last_standing(events: Sequence[Event]) -> int:
    """Number of the newest event that is neither undone nor an undo; 0 where there is none."""
    return max((e.seq for e in not_undone(events) if e.kind in UNDOABLE), default=0)


def said_now(
    words: Words,
    progress: Progress,
    glaze: GlazePublic | None,
    out: OutPublic | None,
    loaded: Loaded,
) -> Words:
    """The words of the moment: under the heat what was seen counts, and a failed check says so."""
    fire = progress.fire
    if fire is not None and fire.assumed:
        where = finish_kind(loaded.fire_scene(progress).document.finish).where
        assumed = "Nobody told me, so I count from the earliest moment it could be."
        return Words(f"It may be {where} already.", words.button, assumed)
    plan = next((s.plan for s in progress.steps if s.plan.key == progress.current), None)
    if plan is not None and plan.who == "fire" and glaze is not None:
        return Words(
            words.says, words.button, out_text(out) if out else under_text(loaded, plan, glaze)
        )
    failed = progress.checks[-1] if progress.checks else None
    first_back = plan is not None and plan.key.endswith(".load")
    if failed is not None and failed.verdict == FAILED and plan is not None:
        same = failed.step == plan.key or first_back
        why = failure_text(failed.temp_c, failed.why, loaded, failed.step)
        if same and failed.step == plan.key:
            return Words(words.says, words.button, f"{why} {words.detail}")
        if same:
            hold = loaded.step_of(plan).hold_s
            return Words(f"{why} {plan.label} for {minutes_text(hold)}.", "It is back in", "")
    return words


def failure_text(read_c: float | None, why: str, loaded: Loaded, gate: str) -> str:
    """Why a check failed, with the reading and what is wanted."""
    if why != "too cold inside" or read_c is None:
        return f"{why[0].upper()}{why[1:]}."
    plan = next((p for p in loaded.fold.line if p.key == gate), None)
    asked = loaded.asked_c(plan) if plan else None
    wanted = f", {amount(asked, '°C')} wanted" if asked is not None else ""
    return f"{amount(read_c, '°C')} inside{wanted}."


SIGN_WORDS = {"bubbling": "Bubbling", "amber at the edges": "Amber edges", "dark": "Dark"}


def out_between(glaze: GlazePublic, progress: Progress) -> OutPublic | None:
    """When to take it out by the last sign that teaches: from its moment to the colour wanted."""
    signs = [s for s in progress.signs if s.teaches and s.sign in SIGN_WORDS]
    if not signs:
        return None
    last = signs[-1]
    gap = next((g for g in glaze.gaps if g.sign == last.sign), None)
    wanted = gap.to_wanted if gap else None
    if wanted is None or wanted.low_s is None or wanted.high_s is None:
        pull = glaze.pull
        if last.sign != "dark" or pull is None:
            return None
        return OutPublic(sign=last.sign, seen_s=last.heat_s, from_s=last.heat_s, to_s=last.heat_s)
    return OutPublic(
        sign=last.sign,
        seen_s=last.heat_s,
        from_s=round(last.heat_s + wanted.low_s, 1),
        to_s=round(last.heat_s + wanted.high_s, 1),
    )


def out_text(out: OutPublic) -> str:
    """ "Amber edges at 1:08. Out between 1:55 and 2:14." """
    seen = f"{SIGN_WORDS[out.sign]} at {stopwatch_text(out.seen_s)}."
    if out.from_s == out.to_s == out.seen_s:
        return f"{seen} Out now."
    return f"{seen} Out between {stopwatch_text(out.from_s)} and {stopwatch_text(out.to_s)}."


def under_text(loaded: Loaded, plan: StepPlan, glaze: GlazePublic) -> str:
    """What the food under the heat waits for: a look, or the clock."""
    scene = loaded.scene(plan)
    if scene.by_clock:
        return f"{minutes_text(scene.facts.timer_s)} in all, by the clock. I call you."
    return by_sight(glaze)


def by_sight(glaze: GlazePublic) -> str:
    """What the cook has left once a sign is seen, or why to look."""
    gap = next((g for g in glaze.gaps if g.sign.startswith("amber")), None)
    if gap is None or gap.to_wanted.low_s is None or gap.to_wanted.high_s is None:
        return "Look often: the right colour may not come before the edges burn."
    low, high = (stopwatch_text(s) for s in (gap.to_wanted.low_s, gap.to_wanted.high_s))
    return f"Edges first; the rest follows {low} to {high} later."


def step_public(loaded: Loaded, state: StepState) -> StepPublic:
    """One step with clock times."""
    plan = state.plan
    checks = [c for c in loaded.fold.checks if c.step == plan.key]
    return StepPublic(
        key=plan.key,
        label=plan.label,
        who=plan.who,
        state=state.state,
        beside=plan.beside,
        begin_at=loaded.moment(state.begin_s),
        end_at=loaded.moment(state.end_s),
        due_at=loaded.at(state.due_s),
        likely_s=plan.likely_s,
        fire=plan.fire,
        act=plan.act,
        gate=state.gate,
        note=checks[-1].why if checks else "",
        check=check_of(loaded, plan) if plan.who == "gate" else None,
    )


def fire_public(loaded: Loaded, progress: Progress) -> FirePublic | None:
    """The fierce heat that the food is under now."""
    fire = progress.fire
    if fire is None or loaded.cook.ended_at is not None:
        return None
    return FirePublic(
        name=fire.name,
        appliance=finish_kind(loaded.fire_scene(progress).document.finish).name,
        since=loaded.at(fire.since_s),
        before_s=round(fire.before_s, 1),
        assumed=fire.assumed,
    )


def gate_public(loaded: Loaded, progress: Progress, plan: StepPlan | None) -> GatePublic | None:
    """The check that is to be passed now."""
    if plan is None or plan.who != "gate" or not progress.barrier:
        return None
    return check_of(loaded, plan)


def check_of(loaded: Loaded, gate: StepPlan) -> GatePublic:
    """What a gate wants to be shown."""
    wants = gate.evidence or Evidence()
    asked = loaded.asked_c(gate)
    bath_c = loaded.scene(gate).facts.target_c
    return GatePublic(
        step=gate.key, tender=wants.tender, wants_c=asked, rests_on=rests_on(bath_c, wants, asked)
    )


def rests_on(target_c: float, wants: Evidence, asked_c: float | None) -> str:
    """What a gate rests on, where a time in the bath could stand for the usual temperature."""
    if wants.timed_c is None or wants.usual_c is None:
        return ""
    if asked_c == wants.timed_c:
        bath = amount(target_c, "°C")
        return f"Rests on time: {minutes_text(wants.timed_s)} in the bath at {bath}."
    usual = amount(wants.usual_c, "°C")
    return f"Its time in the bath was not confirmed, so {usual} counts."


def back_public(loaded: Loaded, progress: Progress, now: datetime) -> ReturnPublic | None:
    """The way back that is being taken, and the others there are."""
    current = progress.current or ""
    if "~" not in current or not progress.checks:
        return None
    failed = [c for c in progress.checks if c.verdict == FAILED]
    gate = failed[-1].step if failed else ""
    legs = loaded.fold.legs.get(gate, ())
    if not legs:
        return None
    way = legs.index(loaded.fold.taken[gate])
    serve_at = loaded.at(progress.serve_at_s)
    return ReturnPublic(
        step=gate,
        why=failed[-1].why,
        way=way,
        ways=[
            WayPublic(
                heat=leg.heat,
                says=leg.says,
                minutes=round(leg.likely_s / 60.0, 1),
                eat_at=serve_at + timedelta(seconds=leg.likely_s - legs[way].likely_s),
            )
            for leg in legs
        ],
    )


def checks_public(loaded: Loaded, progress: Progress) -> list[CheckPublic]:
    """Every check that was told, in order."""
    labels = {plan.key: plan.label for plan in loaded.plans}
    return [
        CheckPublic(
            step=check.step,
            label=labels.get(check.step.partition("~")[0], check.step),
            at=loaded.at(check.at_s),
            temp_c=check.temp_c,
            tender=check.tender,
            verdict=check.verdict,
            why=check.why,
        )
        for check in progress.checks
    ]


def standing_caution(loaded: Loaded, progress: Progress, now_s: float) -> str:
    """Food that stands out of its heat: when it has cooled into the danger zone, and when it has
    been there too long.
    """
    warm_s = loaded.scene().facts.warm_s
    since = stands_since(progress)
    if warm_s is None or since is None or not loaded.scene().facts.safety.gate:
        return ""
    stood = now_s - since
    if stood > warm_s + ROOM_LIMIT_S:
        return (
            "It has stood over two hours at room warmth: usual guidance is not to eat it any more."
        )
    if stood > warm_s:
        return f"It is cooling: on with it, or hold it above {amount(60.0, '°C')}."
    return ""


def eat_by(loaded: Loaded, progress: Progress, now_s: float) -> datetime | None:
    """Until when food that stands has to be eaten or chilled."""
    warm_s, since = loaded.scene().facts.warm_s, stands_since(progress)
    if warm_s is None or since is None or not standing_caution(loaded, progress, now_s):
        return None
    return loaded.at(since + warm_s + ROOM_LIMIT_S)


def stands_since(progress: Progress) -> float | None:
    """Since when the food is out of every heat and still on its way to the plate [s]."""
    if progress.fire is not None or progress.current is None:
        return None
    line = [s for s in progress.steps if not s.plan.beside]
    place = next(i for i, s in enumerate(line) if s.plan.key == progress.current)
    hot = [i for i, s in enumerate(line[:place]) if s.plan.who in ("fire",) or heats(s.plan)]
    if not hot or heats(line[place].plan):
        return None
    return line[hot[-1]].due_s


def heats(plan: StepPlan) -> bool:
    """Whether the food is in a heat during a step: a machine has it that is no rest or wait."""
    root = plan.key.rpartition(".")[2].partition("-")[0]
    return plan.who == "machine" and root in ("come_up", "hold", "natural")
