"""Cooks looked back on: lists, one cook with plan against actual, outcomes, and letting one go."""

from __future__ import annotations

from datetime import datetime

from sqlalchemy import Engine
from sqlmodel import Session

from bluekettle.core.chain import Heat, heat_row, run_through
from bluekettle.core.stages import StepState
from bluekettle.schemas.advice import RescuePublic
from bluekettle.schemas.base import AsidePublic
from bluekettle.schemas.chain import ChainDocument
from bluekettle.schemas.cook import (
    AcceptedPublic,
    CookPublic,
    CooksPublic,
    CookSummary,
    LivePublic,
    OutcomeCreate,
    OutcomePublic,
    RehearsalChange,
    StageCompare,
    StripPublic,
)
from bluekettle.schemas.dish import KitchenDocument
from bluekettle.schemas.forecast import GlazePublic
from bluekettle.schemas.upgrade import strip_of_glaze
from bluekettle.services.chains import plan_of
from bluekettle.services.errors import Conflict, NotFound, Unreadable
from bluekettle.services.in_kitchen import as_its_own
from bluekettle.services.instructions import stopwatch_text
from bluekettle.services.kitchen import public
from bluekettle.services.live import checks_public, live
from bluekettle.services.loaded import Loaded, Told
from bluekettle.services.paging import make_place, read_place
from bluekettle.services.rehearsing import true_strip
from bluekettle.services.strips import Strips
from bluekettle.services.teaching import teach, teach_colour
from bluekettle.store import repositories
from bluekettle.store.engine import for_writing
from bluekettle.store.tables import Cook, Outcome, Rehearsal

PAGE = 50


def load(session: Session, cook_id: int) -> Loaded:
    """A cook with its steps and events; NotFound, Unreadable."""
    cook = session.get(Cook, cook_id)
    if cook is None or cook.deleted_at is not None:
        raise NotFound("cook", cook_id)
    steps, events = repositories.steps(session, cook_id), repositories.events(session, cook_id)
    return Loaded(cook, steps, events, told_of(session, cook))


def told_of(session: Session, cook: Cook) -> Told:
    """What else is kept of a cook; of an ended one nobody asks what was read."""
    key = int(cook.id or 0)
    newest = {} if cook.ended_at else repositories.newest_readings(session, key)
    return Told(
        rated=session.get(Outcome, key) is not None,
        rehearsal=session.get(Rehearsal, key),
        newest=newest,
        marks=repositories.marks(session, key) if newest else (),
    )


def summarise(loaded: Loaded) -> None:
    """Bring the summary that lists read in step with the events."""
    end = loaded.cook.ended_at or (
        loaded.rows[-1].recorded_at if loaded.rows else loaded.cook.started_at
    )
    states = loaded.progress(end).steps
    served = next((s for s in states if s.plan.key == "serve"), None)
    told = served is not None and served.state == "confirmed"
    loaded.cook.actual_s = served.end_s if served is not None and told else None
    loaded.cook.unknown_steps = sum(s.state == "unknown" and not s.plan.beside for s in states)
    glaze = loaded.scene().facts.glaze
    loaded.cook.strip = {}  # nothing was looked at
    if glaze is not None:
        pulled = pulled_s(states, loaded.last_fire)
        loaded.cook.strip = strip_of_glaze(glaze.model_dump(mode="json"), pulled)


def pulled_s(states: tuple[StepState, ...], stage: str = "") -> float | None:
    """Seconds under the fierce heat in all (of a chain, of this stage's), where both ends of every
    stretch were told.
    """
    fires = [s for s in states if s.plan.who == "fire" and stage in ("", s.plan.fire)]
    if not fires or any(s.state != "confirmed" or s.begin_s is None for s in fires):
        return None
    return round(sum(float(s.end_s or 0.0) - float(s.begin_s or 0.0) for s in fires), 1)


def refresh_summaries(engine: Engine) -> int:
    """Summaries of cooks that an earlier version kept without; how many there were."""
    with Session(for_writing(engine)) as session:
        found = repositories.unsummarised(session)
        for cook in found:
            try:
                summarise(load(session, int(cook.id or 0)))
            except Unreadable:
                cook.unknown_steps = 0
        session.commit()
        return len(found)


def live_cook(engine: Engine, cook_id: int, now: datetime, strips: Strips) -> LivePublic:
    """Where a cook stands at this moment."""
    with Session(engine) as session:
        loaded = load(session, cook_id)
        return live(loaded, loaded.clock(now), strips)


def end_cook(
    engine: Engine, cook_id: int, outcome: OutcomeCreate, now: datetime, strips: Strips
) -> CookPublic:
    """End a cook with what it was like; told again, the outcome is corrected."""
    with Session(for_writing(engine)) as session:
        loaded = load(session, cook_id)
        if loaded.cook.ended_at is None:
            loaded.cook.ended_at = loaded.clock(now)
        found = session.get(Outcome, cook_id)
        row = found or Outcome(
            cook_id=cook_id, recorded_at=now, tenderness="", crust="", colour="", note=""
        )
        for name, value in outcome.model_dump().items():
            setattr(row, name, value or "")
        row.recorded_at = now
        session.add(loaded.cook)
        session.add(row)
        summarise(loaded)
        teach(session, loaded, now)
        teach_colour(session, loaded, now, row.colour)
        session.flush()
        answer = cook_public(loaded, row, public(session, now).for_plans, strips)
        session.commit()
        return answer


def stop_cook(engine: Engine, cook_id: int, now: datetime, strips: Strips) -> CookPublic:
    """End a cook without a word on how it was."""
    with Session(for_writing(engine)) as session:
        loaded = load(session, cook_id)
        if loaded.cook.ended_at is None:
            loaded.cook.ended_at = loaded.clock(now)
        session.add(loaded.cook)
        summarise(loaded)
        teach(session, loaded, now)
        session.flush()
        here = public(session, now).for_plans
        answer = cook_public(loaded, session.get(Outcome, cook_id), here, strips)
        session.commit()
        return answer


def get_cook(engine: Engine, cook_id: int, now: datetime, strips: Strips) -> CookPublic:
    """One cook with plan against actual."""
    with Session(engine) as session:
        loaded = load(session, cook_id)
        outcome = session.get(Outcome, cook_id)
        here = public(session, now).for_plans
    return cook_public(loaded, outcome, here, strips, wait=True)


def cook_public(
    loaded: Loaded,
    outcome: Outcome | None,
    here: KitchenDocument,
    strips: Strips,
    wait: bool = False,
) -> CookPublic:
    """One cook, whole. here : the kept kitchen. Only with `wait` its strip is waited for."""
    end = loaded.cook.ended_at or (
        loaded.rows[-1].recorded_at if loaded.rows else loaded.cook.started_at
    )
    progress = loaded.progress(end)
    seen = loaded.seen(progress)
    planned, after = loaded.planned_glaze(progress), None
    if planned is not None:
        known = (loaded.as_read, planned, seen)
        after = strips.settled(*known) if wait else strips.now(*known)[0]
    accepted = [row.data for row in loaded.rows if row.kind == "accept"]
    return CookPublic(
        summary=summary(loaded.cook, outcome),
        dish=loaded.cook.dish,
        cooked=loaded.whole.model_dump(mode="json"),
        again=as_its_own(loaded.planned, here).model_dump(mode="json"),
        facts=loaded.scene().facts,
        glaze_after=after,
        stages=[compare(s) for s in progress.steps if not s.plan.beside],
        checks=checks_public(loaded, progress),
        accepted=[AcceptedPublic.model_validate(one) for one in accepted],
        signs=[f"{sign} after {stopwatch_text(at)}" for sign, at in seen.signs],
        moved=moved_words(loaded),
    )


def heats_of(loaded: Loaded) -> dict[str, str]:
    """The heat of every stage of a cook, those that were left and those that came too."""
    planned = ChainDocument.model_validate(loaded.cook.dish)
    stages = [
        stage for doc in (planned, loaded.whole) for stage in run_through(plan_of(doc).stages)
    ]
    return {stage.id: stage.heat for stage in stages if isinstance(stage, Heat)}


def moved_words(loaded: Loaded) -> list[str]:
    """Which heat was left when, and for which."""
    if not loaded.left:
        return []
    names = {key: heat_row(heat).name for key, heat in heats_of(loaded).items()}
    found = []
    for left in loaded.left:
        for one in left.instead:
            had = (
                f"after {stopwatch_text(60.0 * one.had_min)}" if one.had_min else "before it began"
            )
            to = heat_row(one.heat).name
            found.append(f"The {names.get(one.stage, one.stage)} was left {had}, for the {to}.")
    return found


def compare(state: StepState) -> StageCompare:
    """Plan against actual: an actual only where both ends are known."""
    actual = None
    if state.state == "confirmed" and state.begin_s is not None and state.end_s is not None:
        actual = round(state.end_s - state.begin_s, 1)
    told = "not reached" if state.state in ("upcoming", "current", "running") else state.state
    if state.gate in ("failed", "skipped"):
        told = state.gate
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


def summary(cook: Cook, outcome: Outcome | None) -> CookSummary:
    """A cook in one line, from what is stored beside it."""
    return CookSummary(
        id=int(cook.id or 0),
        title=cook.title,
        started_at=cook.started_at,
        ended_at=cook.ended_at,
        planned_s=cook.planned_s,
        actual_s=cook.actual_s,
        unknown_steps=max(0, cook.unknown_steps),
        strip=StripPublic.model_validate(cook.strip) if cook.strip else None,
        outcome=OutcomePublic.model_validate(outcome) if outcome else None,
    )


def list_cooks(engine: Engine, search: str = "", after: str = "", most: int = PAGE) -> CooksPublic:
    """A page of cooks, newest first: from summaries alone, however many there are."""
    place = read_place(after)
    with Session(engine) as session:
        rows = repositories.cooks(session, search, place, most + 1)
        shown = rows[:most]
        outcomes = repositories.outcomes(session, [int(row.id or 0) for row in shown])
        cooks, aside = [], []
        for row in shown:
            key = int(row.id or 0)
            try:
                cooks.append(summary(row, outcomes.get(key)))
            except ValueError as error:
                why = str(error).splitlines()[0][:200]
                aside.append(AsidePublic(id=key, title=row.title, why=why))
        more = ""
        if len(rows) > most:
            more = make_place(shown[-1].started_at.isoformat(), int(shown[-1].id or 0))
        return CooksPublic(cooks=cooks, aside=aside, more=more)


def drop_cook(engine: Engine, cook_id: int, now: datetime) -> None:
    """Delete a cook; it can be brought back for thirty days."""
    with Session(for_writing(engine)) as session:
        cook = session.get(Cook, cook_id)
        if cook is None or cook.deleted_at is not None:
            raise NotFound("cook", cook_id)
        cook.deleted_at = now
        session.add(cook)
        session.commit()


def bring_back(engine: Engine, cook_id: int) -> CookSummary:
    """Undo a deletion."""
    with Session(for_writing(engine)) as session:
        cook = session.get(Cook, cook_id)
        if cook is None:
            raise NotFound("cook", cook_id)
        cook.deleted_at = None
        session.add(cook)
        session.flush()
        answer = summary(cook, session.get(Outcome, cook_id))
        session.commit()
        return answer


def change_rehearsal(
    engine: Engine, cook_id: int, wanted: RehearsalChange, now: datetime, strips: Strips
) -> LivePublic:
    """Let the clock of a rehearsal run faster or slower from now on, or keep it in the log.

    Raises NotFound for no such cook, Conflict for one that is cooked in earnest.
    """
    with Session(for_writing(engine)) as session:
        loaded = load(session, cook_id)
        rehearsal = loaded.told.rehearsal
        if rehearsal is None:
            raise Conflict("this cook is no rehearsal")
        at = loaded.clock(now)
        if wanted.speed is not None:
            for one in (rehearsal, *rehearsed_beside(session, loaded)):
                one.cook_at, one.real_at, one.speed = at, now, wanted.speed
                session.add(one)
        if wanted.kept is not None:
            rehearsal.kept = wanted.kept
        session.add(rehearsal)
        session.flush()
        answer = live(loaded, at, strips)
        session.commit()
        return answer


def rehearsed_beside(session: Session, loaded: Loaded) -> list[Rehearsal]:
    """The other dishes of a rehearsed supper: all go by one clock."""
    if loaded.cook.supper_id is None:
        return []
    others = repositories.cooks_of_supper(session, loaded.cook.supper_id)
    found = [session.get(Rehearsal, other.id) for other in others if other.id != loaded.cook_id]
    return [one for one in found if one is not None]


def true_strip_of(engine: Engine, cook_id: int, now: datetime) -> GlazePublic:
    """How the simulated food of a rehearsal browns; Conflict for a cook in earnest, NotFound where
    nothing is browned.
    """
    with Session(engine) as session:
        loaded = load(session, cook_id)
        rehearsal = loaded.told.rehearsal
        if rehearsal is None:
            raise Conflict("this cook is no rehearsal")
        progress = loaded.progress(loaded.clock(now))
        if not loaded.fire_stage(progress):
            raise NotFound("strip of cook", cook_id)
        return true_strip(loaded, progress, rehearsal.seed)


def ways_out(engine: Engine, cook_id: int, now: datetime, strips: Strips) -> RescuePublic:
    """Ways out for the food of a cook that is under a fire now, by what was done and seen; Conflict
    where none is.
    """
    with Session(engine) as session:
        loaded = load(session, cook_id)
        now = loaded.clock(now)
        progress = loaded.progress(now)
        seen, fire = loaded.seen(progress), progress.fire
        heat_s = fire.clock_s(loaded.seconds(now)) if fire else 0.0
    if fire is None or loaded.cook.ended_at is not None:
        raise Conflict("nothing is under a fierce heat now")
    if seen.change is not None:
        return RescuePublic(stage=seen.stage, ways=[])  # the heat is no longer that of the plan
    at_s = min(max(1.0, heat_s), 3600.0)  # as far as a film is looked at
    found: RescuePublic = strips.workshop.run(
        "rescue_live",
        loaded.as_read.model_dump_json(),
        seen.acts,
        seen.signs,
        loaded.fire_stage(progress),
        at_s,
    )
    return found


def cook_glaze(engine: Engine, cook_id: int, now: datetime, strips: Strips) -> GlazePublic:
    """The glaze strip of a cook after all that was seen; NotFound where nothing is looked at."""
    with Session(engine) as session:
        loaded = load(session, cook_id)
        now = loaded.clock(now)
        progress = loaded.progress(now)
        seen = loaded.seen(progress)
        planned = loaded.planned_glaze(progress)
    if planned is None:
        raise NotFound("strip of cook", cook_id)
    return strips.exactly(loaded.as_read, planned, seen)
