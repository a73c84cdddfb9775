"""Live cooks: start, tell what happened, where it stands, end, and look back."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import datetime, timedelta
from functools import lru_cache

from sqlalchemy import Engine
from sqlmodel import Session

from bluekettle.core.errors import Fault, OutOfRange
from bluekettle.core.stages import (
    Event,
    Progress,
    StepPlan,
    StepState,
    cut,
    follow,
    held_for,
    return_leg_s,
)
from bluekettle.schemas.cook import (
    CookCreate,
    CookPublic,
    CooksPublic,
    CookSummary,
    EventCreate,
    LivePublic,
    OutcomeCreate,
    OutcomePublic,
    StageCompare,
    StepPublic,
    StripPublic,
)
from bluekettle.schemas.dish import DishDocument, SightingDocument
from bluekettle.schemas.forecast import ForecastPublic, GlazePublic
from bluekettle.services.dishes import dish_of
from bluekettle.services.errors import Conflict, NotFound
from bluekettle.services.forecasts import forecast_core as run_core
from bluekettle.services.forecasts import forecast_dish, glaze
from bluekettle.services.instructions import degrees_text, minutes_text, say
from bluekettle.store import repositories
from bluekettle.store.engine import for_writing
from bluekettle.store.tables import Cook, CookEvent, Outcome

MOST = 200
MOST_EVENTS = 2000
LEEWAY_S = 60.0  # a tap is made when a hand is free


class Loaded:
    """A cook with everything that its state is made from."""

    def __init__(self, cook: Cook, events: Sequence[CookEvent]) -> None:
        self.cook = cook
        self.events = events
        self.document = DishDocument.model_validate(cook.dish)
        self.forecast = ForecastPublic.model_validate(cook.forecast)

    @property
    def cook_id(self) -> int:
        """The key, once stored."""
        return int(self.cook.id or 0)

    @property
    def time_told(self) -> bool:
        """Whether somebody told that the food was held for all of its time."""
        held = held_for(self.plans(), [self.event(e) for e in self.events])
        return held >= self.forecast.timer_s - LEEWAY_S

    @property
    def safe_c(self) -> float | None:
        """What the gate's thermometer must read: less than usual only where its time is proven and
        was told.
        """
        safety = self.forecast.safety
        if not safety.gate:
            return None
        if safety.rests_on == "time" and safety.probe_c is not None and self.time_told:
            return safety.probe_c
        return safety.wanted_c

    @property
    def rests_on(self) -> str:
        """What the gate rests on, in words; empty where it is the usual temperature and nothing
        else was planned.
        """
        safety = self.forecast.safety
        if not safety.gate or safety.rests_on != "time":
            return ""
        if self.time_told:
            return (
                f"Rests on time: {minutes_text(self.forecast.timer_s)} in the bath at"
                f" {degrees_text(self.forecast.target_c)}."
            )
        return (
            "Rests on temperature: nobody told me that it had all of its time, so the usual"
            f" {degrees_text(safety.wanted_c)} counts."
        )

    def plans(self) -> list[StepPlan]:
        """Its steps as planned."""
        return [
            StepPlan(
                s.key, s.who, s.label, s.band.low_s, s.band.likely_s, s.band.high_s, not s.serial
            )
            for s in self.forecast.stages
        ]

    def progress(self, now: datetime) -> Progress:
        """Where it stands; an ended cook stands still."""
        moment = min(now, self.cook.ended_at) if self.cook.ended_at else now
        return follow(
            self.plans(), [self.event(e) for e in self.events], self.seconds(moment), self.safe_c
        )

    def event(self, row: CookEvent) -> Event:
        """An event in seconds from the start."""
        data = row.data
        return Event(
            row.seq,
            row.kind,
            self.seconds(row.happened_at),
            data.get("step", ""),
            data.get("seconds", 0.0),
            data.get("sign", ""),
            data.get("undoes", 0),
            data.get("temp_c"),
            data.get("tender"),
        )

    def seconds(self, moment: datetime) -> float:
        """Seconds from the start of the cook."""
        return (moment - self.cook.started_at).total_seconds()

    def moment(self, seconds: float | None) -> datetime | None:
        """A moment from seconds."""
        return None if seconds is None else self.cook.started_at + timedelta(seconds=seconds)

    def sightings(self, progress: Progress) -> tuple[tuple[str, float], ...]:
        """Signs with their seconds under the heat; only where somebody confirmed that it is
        there.
        """
        since = progress.fire_since_s
        if since is None:
            since = next(
                (
                    s.begin_s
                    for s in progress.steps
                    if s.plan.who == "fire" and s.state == "confirmed"
                ),
                None,
            )
        if since is None or progress.fire_assumed:
            return ()
        return tuple(
            (sign, round(at - since, 1)) for sign, at in progress.sightings if at - since >= 1.0
        )


def start_cook(engine: Engine, request: CookCreate, now: datetime) -> LivePublic:
    """Start cooking: the forecast of this moment is kept beside the dish."""
    forecast = forecast_dish(request.dish, now)
    with Session(for_writing(engine)) as session:
        cook = Cook(
            title=forecast.title,
            dish=request.dish.model_dump(mode="json"),
            forecast=forecast.model_dump(mode="json"),
            started_at=now,
        )
        session.add(cook)
        session.commit()
        session.refresh(cook)
        return live(Loaded(cook, []), now)


def live_cook(engine: Engine, cook_id: int, now: datetime) -> LivePublic:
    """Where a cook stands at this moment."""
    with Session(engine) as session:
        return live(_load(session, cook_id), now)


def tell(engine: Engine, cook_id: int, told: EventCreate, now: datetime) -> LivePublic:
    """Append what the cook tells. A second tap on a step that is confirmed already changes
    nothing.
    """
    with Session(for_writing(engine)) as session:
        loaded = _load(session, cook_id)
        if loaded.cook.ended_at is not None:
            raise Conflict("this cook has ended; nothing can be added to it")
        happened = now - timedelta(seconds=told.ago_s)
        faults = check_event(loaded, told, happened, now)
        if faults:
            raise OutOfRange(faults)
        progress = loaded.progress(now)
        states = {s.plan.key: s.state for s in progress.steps}
        if not (told.kind == "done" and states[told.step] == "confirmed"):
            data = told.model_dump(exclude={"kind", "ago_s"})
            if told.kind == "undo":
                data["undoes"] = last_standing(loaded.events)
            repositories.append_event(session, cook_id, told.kind, happened, now, data)
            session.commit()
        return live(_load(session, cook_id), now)


def check_event(
    loaded: Loaded, told: EventCreate, happened: datetime, now: datetime
) -> list[Fault]:
    """What is wrong with an event, field by field."""
    faults = []
    keys = [s.key for s in loaded.forecast.stages]
    progress = loaded.progress(now)
    if told.kind in ("done", "extend") and told.step not in keys:
        faults.append(Fault("step", told.step, "one of " + ", ".join(keys)))
    if told.kind == "saw":
        if not told.sign:
            faults.append(
                Fault("sign", told.sign, "nothing yet, bubbling, amber at the edges or dark")
            )
        if progress.fire_since_s is None:
            faults.append(Fault("sign", told.sign, "a sign seen while the food is under the heat"))
    if told.kind == "undo" and last_standing(loaded.events) == 0:
        faults.append(Fault("kind", "undo", "an undo while there is something to undo"))
    if happened < loaded.cook.started_at:
        most = (now - loaded.cook.started_at).total_seconds()
        faults.append(Fault("ago_s", told.ago_s, f"0 to {most:.0f} s, since the cook began"))
    if len(loaded.events) >= MOST_EVENTS:
        faults.append(Fault("kind", told.kind, f"up to {MOST_EVENTS} events in one cook"))
    return faults


def last_standing(events: Sequence[CookEvent]) -> int:
    """Number of the newest event that is neither undone nor an undo; 0 where there is none."""
    gone = {e.data.get("undoes") for e in events if e.kind == "undo"}
    return max((e.seq for e in events if e.kind != "undo" and e.seq not in gone), default=0)


def live(loaded: Loaded, now: datetime) -> LivePublic:
    """The state as the Stove page reads it."""
    progress = loaded.progress(now)
    says, button, detail = (
        say(progress.current, loaded.document, loaded.forecast)
        if progress.current
        else ("All done. How was it?", "", "")
    )
    sightings = loaded.sightings(progress)
    shown = glaze_for(loaded, sightings)
    if progress.fire_assumed:
        says, detail = (
            "It may be under the heat.",
            "Nobody told me, so I count from the earliest moment it could be.",
        )
    if progress.current == "finish":
        detail = by_sight(shown)
    if progress.gate_failed:
        says, detail = f"Not yet: {progress.gate_failed}.", back_again(loaded)
    return LivePublic(
        id=loaded.cook_id,
        title=loaded.cook.title,
        now=now,
        started_at=loaded.cook.started_at,
        ended_at=loaded.cook.ended_at,
        last_event=loaded.events[-1].seq if loaded.events else 0,
        current=progress.current,
        says=says,
        button=button,
        detail=detail,
        steps=[step(loaded, s) for s in progress.steps],
        serve_at=loaded.moment(progress.serve_at_s) or now,
        serve_low_at=loaded.moment(progress.serve_low_s) or now,
        serve_high_at=loaded.moment(progress.serve_high_s) or now,
        fire_since=loaded.moment(progress.fire_since_s),
        fire_assumed=progress.fire_assumed,
        calls=shown.calls,
        glaze_key=repr(sightings),
        gate_wants_c=loaded.safe_c,
        gate_rests_on=loaded.rests_on,
        gate_failed=progress.gate_failed,
        side_due=list(progress.side_due),
        sightings=len(sightings),
        finished=progress.finished,
    )


def by_sight(shown: GlazePublic) -> str:
    """What the cook has left once a sign is seen, or why to look."""
    gap = next((g for g in shown.gaps if g.sign.startswith("amber")), None)
    if gap is None or gap.to_wanted.low_s is None or gap.to_wanted.high_s is None:
        return "Look often: the right colour may not come before the edges burn."
    low, high = (
        f"{s // 60:.0f}:{s % 60:02.0f}" for s in (gap.to_wanted.low_s, gap.to_wanted.high_s)
    )
    sign = "turn amber" if shown.caramelises else "brown"
    return f"Once the edges {sign} you have {low} to {high}."


def back_again(loaded: Loaded) -> str:
    """What to do when a check fails: the return leg in minutes."""
    dish = dish_of(loaded.document)
    come_up_s, hold_s = return_leg_s(dish, cut(dish.cut), loaded.forecast.safety.core_likely_c)
    total = minutes_text(come_up_s + hold_s)
    return (
        f"{dish.first.back} for {minutes_text(max(60.0, hold_s))}: about {total} with heating up."
        " Then check again."
    )


def step(loaded: Loaded, state: StepState) -> StepPublic:
    """One step with clock times."""
    return StepPublic(
        key=state.plan.key,
        label=state.plan.label,
        who=state.plan.who,
        state=state.state,
        beside=state.plan.beside,
        begin_at=loaded.moment(state.begin_s),
        end_at=loaded.moment(state.end_s),
        due_at=loaded.cook.started_at + timedelta(seconds=state.due_s),
        likely_s=state.plan.likely_s,
        passed=state.passed,
    )


def cook_glaze(engine: Engine, cook_id: int, now: datetime) -> GlazePublic:
    """The glaze strip of a cook after all that was seen."""
    with Session(engine) as session:
        loaded = _load(session, cook_id)
        return glaze_for(loaded, loaded.sightings(loaded.progress(now)))


def glaze_for(loaded: Loaded, sightings: tuple[tuple[str, float], ...]) -> GlazePublic:
    """The planned strip, or the re-weighted one."""
    if not sightings:
        return loaded.forecast.glaze
    return _reweighted(loaded.document.model_dump_json(), sightings)


@lru_cache(maxsize=64)
def _reweighted(document_json: str, sightings: tuple[tuple[str, float], ...]) -> GlazePublic:
    document = DishDocument.model_validate_json(document_json)
    seen = [SightingDocument.model_validate({"sign": sign, "at_s": at}) for sign, at in sightings]
    return glaze(run_core(dish_of(document.model_copy(update={"sightings": seen})), None))


def end_cook(engine: Engine, cook_id: int, outcome: OutcomeCreate, now: datetime) -> CookPublic:
    """End a cook with what it was like; told again, the outcome is corrected."""
    with Session(for_writing(engine)) as session:
        loaded = _load(session, cook_id)
        if loaded.cook.ended_at is None:
            loaded.cook.ended_at = now
        found = session.get(Outcome, cook_id)
        row = found or Outcome(
            cook_id=cook_id, recorded_at=now, tenderness="", crust="", colour="", note=""
        )
        for name, value in outcome.model_dump().items():
            setattr(row, name, value)
        row.recorded_at = now
        session.add(loaded.cook)
        session.add(row)
        session.commit()
    return get_cook(engine, cook_id)


def get_cook(engine: Engine, cook_id: int) -> CookPublic:
    """One cook with plan against actual."""
    with Session(engine) as session:
        loaded = _load(session, cook_id)
        end = loaded.cook.ended_at or (
            loaded.events[-1].recorded_at if loaded.events else loaded.cook.started_at
        )
        progress = loaded.progress(end)
        outcome = session.get(Outcome, cook_id)
        sightings = loaded.sightings(progress)
        return CookPublic(
            summary=summary(loaded, outcome),
            dish=loaded.cook.dish,
            forecast=loaded.forecast,
            glaze_after=glaze_for(loaded, sightings),
            stages=[compare(s) for s in progress.steps if not s.plan.beside],
            signs=[f"{sign} after {at // 60:.0f}:{at % 60:02.0f}" for sign, at in sightings],
        )


def compare(state: StepState) -> StageCompare:
    """Plan against actual: an actual only where both ends are known."""
    actual = None
    if state.state == "confirmed" and state.begin_s is not None and state.end_s is not None:
        actual = round(state.end_s - state.begin_s, 1)
    told = "not reached" if state.state in ("upcoming", "current", "running") else state.state
    plan = state.plan
    return StageCompare(
        key=plan.key,
        label=plan.label,
        who=plan.who,
        planned_low_s=plan.low_s,
        planned_s=plan.likely_s,
        planned_high_s=plan.high_s,
        actual_s=actual,
        state=told,
    )


def list_cooks(engine: Engine) -> CooksPublic:
    """All cooks, newest first."""
    with Session(engine) as session:
        rows = repositories.cooks(session, MOST)
        outcomes = repositories.outcomes(session, [int(row.id or 0) for row in rows])
        return CooksPublic(
            cooks=[
                summary(
                    Loaded(row, repositories.events(session, int(row.id or 0))),
                    outcomes.get(int(row.id or 0)),
                )
                for row in rows
            ]
        )


def summary(loaded: Loaded, outcome: Outcome | None) -> CookSummary:
    """A cook in one line."""
    end = loaded.cook.ended_at or (
        loaded.events[-1].recorded_at if loaded.events else loaded.cook.started_at
    )
    progress = loaded.progress(end)
    served = next((s for s in progress.steps if s.plan.key == "serve"), None)
    actual = served.end_s if served and served.state == "confirmed" else None
    return CookSummary(
        id=loaded.cook_id,
        title=loaded.cook.title,
        started_at=loaded.cook.started_at,
        ended_at=loaded.cook.ended_at,
        planned_s=loaded.forecast.total.likely_s,
        actual_s=actual,
        strip=strip(loaded, progress),
        unknown_steps=sum(s.state == "unknown" and not s.plan.beside for s in progress.steps),
        outcome=OutcomePublic.model_validate(outcome) if outcome else None,
    )


def strip(loaded: Loaded, progress: Progress) -> StripPublic:
    """Forty colours of the finish as planned, and when it was taken out where both ends were told.

    The plan's own strip: a log of hundreds of cooks may not run the model for each of them.
    """
    shown = loaded.forecast.glaze
    every = max(1, len(shown.face) // 40)
    fire = next((s for s in progress.steps if s.plan.who == "fire"), None)
    pulled = None
    if fire and fire.state == "confirmed" and fire.begin_s is not None and fire.end_s is not None:
        pulled = round(fire.end_s - fire.begin_s, 1)
    return StripPublic(
        face=shown.face[::every],
        edge=shown.edge[::every],
        horizon_s=shown.horizon_s,
        pulled_s=pulled,
    )


def _load(session: Session, cook_id: int) -> Loaded:
    cook = session.get(Cook, cook_id)
    if cook is None:
        raise NotFound("cook", cook_id)
    return Loaded(cook, repositories.events(session, cook_id))
