"""Start a cook, and tell what happens: every tap is exact, and none passes an open gate."""

from __future__ import annotations

import secrets
from collections.abc import Sequence
from dataclasses import dataclass, replace
from datetime import datetime, timedelta

from sqlalchemy import Engine
from sqlmodel import Session

from bluekettle.core.errors import Fault, OutOfRange
from bluekettle.core.stages import (
    Event,
    Evidence,
    Failed,
    Leg,
    Progress,
    StepPlan,
    finish_kind,
    heats_back,
    not_undone,
    waiting_step,
    ways_back,
)
from bluekettle.core.stages.progress import gate_verdict
from bluekettle.core.units import amount
from bluekettle.schemas.chain_forecast import ChainForecastPublic
from bluekettle.schemas.cook import (
    AcceptedDocument,
    AcceptedPublic,
    CookCreate,
    EventCreate,
    LivePublic,
    RehearsalCreate,
)
from bluekettle.services.dials import dial_faults
from bluekettle.services.dishes import tendering_of
from bluekettle.services.errors import Conflict, NotFound, Stopped
from bluekettle.services.feeling import felt_faults
from bluekettle.services.live import last_standing, live
from bluekettle.services.loaded import LONGEST_FIRE_S, Loaded
from bluekettle.services.log import load, summarise
from bluekettle.services.steps import leg_json, row_of
from bluekettle.services.strips import Strips
from bluekettle.store import repositories
from bluekettle.store.engine import for_writing
from bluekettle.store.tables import Cook, Plan, Rehearsal

MOST_EVENTS = 2000
MOST_SEED = 2**31
BOILS_C = 100.0  # no food is hotter inside, whatever a thermometer is set to
MOST_LONGER_S = {"extend": 3600.0, "later": 7200.0}
LONGEST_LOOK_S = 3600.0  # as far as a film is looked at
LEAST_LATER_S = 60.0
SHORTEST_WAIT_S = 120.0  # a start that is nearer than this is now


def start_cook(engine: Engine, request: CookCreate, now: datetime, strips: Strips) -> LivePublic:
    """Start cooking, now or at the planned start. The plan of this moment is kept beside it.

    Raises
    ------
    Stopped
        A stop stands that is neither repaired nor given a reason for.
    NotFound
        The plan it came from is not there.
    """
    forecast, steps, facts = strips.workshop.run("begin", request.dish, now)
    document = request.dish.model_dump(mode="json")
    begun = Begun(forecast, steps, document, facts.model_dump(mode="json"))
    return keep_begun(engine, begun, request, now, strips)


@dataclass(frozen=True)
class Begun:
    """A cook about to begin: its forecast, its steps, its document and what it keeps of the
    forecast, as plain JSON.
    """

    forecast: ChainForecastPublic
    steps: tuple[StepPlan, ...]
    document: dict[str, object]
    facts: dict[str, object]


def keep_begun(
    engine: Engine,
    begun: Begun,
    request: CookCreate,
    now: datetime,
    strips: Strips,
) -> LivePublic:
    """Keep a cook that begins, with the reasons for its stops."""
    forecast, steps = begun.forecast, begun.steps
    accepted = accepted_stops(forecast, request.accepted)
    if request.when == "planned":
        steps = after_wait(steps, (forecast.serve_at - now).total_seconds())
    with Session(for_writing(engine)) as session:
        plan_id = request.plan_id
        if plan_id is not None and session.get(Plan, plan_id) is None:
            raise NotFound("plan", plan_id)
        cook = add_cook(session, replace(begun, steps=steps), accepted, request.rehearsal, now)
        cook.plan_id = plan_id
        session.flush()
        loaded = load(session, int(cook.id or 0))
        summarise(loaded)
        answer = live(loaded, now, strips)
        session.commit()
        return answer


def add_cook(
    session: Session,
    begun: Begun,
    accepted: Sequence[AcceptedPublic],
    rehearsal: RehearsalCreate | None,
    now: datetime,
    begins: datetime | None = None,
) -> Cook:
    """Put a cook with its steps, and the reasons for its stops, into a session. begins : by its own
    clock, where that of a rehearsal is set to another moment than now.
    """
    began = begins or now
    cook = Cook(
        title=begun.forecast.title,
        dish=begun.document,
        facts=begun.facts,
        started_at=began,
        planned_s=begun.forecast.total.likely_s,
        unknown_steps=0,
        strip={},
    )
    session.add(cook)
    session.flush()
    key = int(cook.id or 0)
    session.add_all(row_of(step, key, place) for place, step in enumerate(begun.steps))
    if rehearsal is not None:
        session.add(rehearsal_of(key, rehearsal, now, began))
    for stop in accepted:
        repositories.append_event(session, key, "accept", began, began, stop.model_dump())
    session.flush()
    return cook


def rehearsal_of(
    cook_id: int, wanted: RehearsalCreate, now: datetime, began: datetime
) -> Rehearsal:
    """A rehearsal that begins now, in a kitchen that nobody knows where no seed is given. began :
    what its clock shows now.
    """
    seed = any_seed() if wanted.seed is None else wanted.seed
    return Rehearsal(
        cook_id=cook_id, speed=wanted.speed, real_at=now, cook_at=began, seed=seed, kept=False
    )


def any_seed() -> int:
    """A kitchen that nobody knows."""
    return secrets.randbelow(MOST_SEED)


def after_wait(steps: tuple[StepPlan, ...], until_plate_s: float) -> tuple[StepPlan, ...]:
    """The steps behind a wait for the planned start, so that their likely times end at the plate's;
    without one where there is nothing to wait for.
    """
    wait_s = until_plate_s - sum(step.likely_s for step in steps if not step.beside)
    return (waiting_step(wait_s), *steps) if wait_s >= SHORTEST_WAIT_S else steps


def accepted_stops(
    forecast: ChainForecastPublic, accepted: Sequence[AcceptedDocument]
) -> list[AcceptedPublic]:
    """The stops that stand, each with the reason for starting all the same.

    Raises Stopped where one has none: a stop has to stop until it is repaired or answered for.
    """
    reasons = {one.stop: one.reason for one in accepted}
    stops = [watch for watch in forecast.watch_outs if watch.level == "stop"]
    unanswered = [(watch.id, watch.message) for watch in stops if watch.id not in reasons]
    if unanswered:
        raise Stopped(unanswered)
    return [
        AcceptedPublic(stop=watch.id, message=watch.message, reason=reasons[watch.id])
        for watch in stops
    ]


def tell(
    engine: Engine, cook_id: int, told: EventCreate, now: datetime, strips: Strips
) -> LivePublic:
    """Append what the cook tells.

    The same tap sent again changes nothing and has the first answer's event. Raises Conflict for
    what comes too late: the page has not seen what happened meanwhile, or a check stands open.
    """
    with Session(for_writing(engine)) as session:
        loaded = load(session, cook_id)
        now = loaded.clock(now)
        known = next((row for row in loaded.rows if told.id and row.uid == str(told.id)), None)
        if known is not None:
            return live(loaded, now, strips)
        if loaded.cook.ended_at is not None:
            raise Conflict("this cook has ended; nothing can be added to it")
        happened = moment_of(told, loaded, now)
        progress = loaded.progress(now)
        check_told(loaded, told, progress, happened)
        data = data_of(loaded, told, progress, loaded.seconds(happened))
        uid = None if told.id is None else str(told.id)
        repositories.append_event(session, cook_id, told.kind, happened, now, data, uid)
        session.flush()
        after = load(session, cook_id)
        summarise(after)
        answer = live(after, now, strips)
        session.commit()
        return answer


def moment_of(told: EventCreate, loaded: Loaded, now: datetime) -> datetime:
    """When it happened: as long before now as the device says, never before the cook began."""
    waited = 0.0
    if told.tapped_at is not None and told.sent_at is not None:
        waited = loaded.speed * max(0.0, (told.sent_at - told.tapped_at).total_seconds())
    latest = max(now, loaded.cook.started_at)
    since_start = (latest - loaded.cook.started_at).total_seconds()
    return latest - timedelta(seconds=min(told.ago_s + waited, since_start))


def check_told(loaded: Loaded, told: EventCreate, progress: Progress, happened: datetime) -> None:
    """Refuse what cannot be: field by field as OutOfRange, what came too late as Conflict."""
    faults = field_faults(loaded, told, progress, happened)
    if len(loaded.rows) >= MOST_EVENTS:
        faults.append(Fault("kind", told.kind, f"up to {MOST_EVENTS} events in one cook"))
    if faults:
        raise OutOfRange(faults)
    if told.kind == "later" and loaded.cook.supper_id is not None:
        raise Conflict("it is a dish of a supper: tell the supper when the guests come")
    if told.kind == "undo":
        newest = last_standing(loaded.events)
        if told.undoes is not None and told.undoes != newest:
            raise Conflict(f"something else was told meanwhile: {last_words(loaded)}")
    if told.kind in ("done", "skip"):
        check_turn(loaded, told, progress)


def check_turn(loaded: Loaded, told: EventCreate, progress: Progress) -> None:
    """A step is told in its turn: not behind an open gate, and not on an old picture."""
    state = next(s for s in progress.steps if s.plan.key == told.step)
    if state.plan.beside:
        if state.state == "confirmed":
            raise Conflict(f"told already: {state.plan.label}")
        return
    place = loaded.fold.place(told.step)
    gate = loaded.fold.open_gate(place)
    if gate:
        label = next(plan.label for plan in loaded.fold.line if plan.key == gate)
        raise Conflict(f"“{label}” stands open: pass it, or skip it with a reason, first")
    is_gate = state.plan.who == "gate"
    if state.state == "confirmed" and not is_gate:
        raise Conflict(f"told already: {state.plan.label}")
    newest = max((row.seq for row in loaded.rows if row.kind != "moved"), default=0)
    if told.seen is not None and told.seen < newest and told.step != progress.current:
        raise Conflict(f"something else was told meanwhile: {last_words(loaded)}")


def last_words(loaded: Loaded) -> str:
    """The newest thing that was told and holds, in words."""
    known = [event for event in not_undone(loaded.events) if event.kind != "moved"]
    if not known:
        return "it was taken back"
    last = known[-1]
    labels = {plan.key: plan.label for plan in (*loaded.fold.line, *loaded.fold.beside)}
    if last.kind == "dial":
        return "where the dial stands"
    if last.kind == "felt":
        return "how it feels"
    return labels.get(last.step, last.sign or last.kind)


def field_faults(
    loaded: Loaded, told: EventCreate, progress: Progress, happened: datetime
) -> list[Fault]:
    """What is wrong with an event, field by field."""
    faults = []
    plans = {plan.key: plan for plan in (*loaded.fold.line, *loaded.fold.beside)}
    plan = plans.get(told.step)
    if told.kind in ("done", "extend", "skip", "way") and plan is None:
        faults.append(Fault("step", told.step, "one of " + ", ".join(plans)))
    if told.kind == "saw":
        faults += sign_faults(told, progress, loaded.seconds(happened))
    if told.kind in MOST_LONGER_S and not told.seconds <= MOST_LONGER_S[told.kind]:
        most = MOST_LONGER_S[told.kind]
        faults.append(Fault("seconds", told.seconds, f"up to {most:g} s"))
    if told.kind == "later" and told.seconds < LEAST_LATER_S:
        faults.append(Fault("seconds", told.seconds, f"from {LEAST_LATER_S:g} s"))
    if told.kind == "later" and progress.finished:
        faults.append(Fault("kind", "later", "while there is something left to do"))
    if told.kind == "later" and progress.fire is not None and progress.fire.assumed:
        faults.append(Fault("kind", "later", "once it is told whether it is under the heat"))
    if told.kind == "dial":
        faults += dial_faults(loaded.planned, progress, told.step, told.dial)
    if told.kind == "felt":
        faults += felt_faults(loaded, progress, told.step, told.tender)
    if told.kind == "rescue":
        faults += rescue_faults(loaded, told, progress, loaded.seconds(happened))
    if told.kind == "undo" and last_standing(loaded.events) == 0:
        faults.append(Fault("kind", "undo", "an undo while there is something to undo"))
    if told.kind == "skip" and plan is not None:
        if plan.who != "gate":
            faults.append(Fault("step", told.step, "the key of a check; other steps are told done"))
        if len(told.reason.strip()) < 3:
            faults.append(Fault("reason", told.reason, "why the check is left out, in a few words"))
    if told.kind == "way":
        legs = loaded.fold.legs.get(told.step, ())
        if not told.way < max(1, len(legs)) or not legs:
            faults.append(Fault("way", told.way, f"one of the {len(legs)} ways back of that check"))
    if told.temp_c is not None and told.temp_c > BOILS_C:
        meant = amount((told.temp_c - 32.0) / 1.8, "°C")
        accepted = f"up to {BOILS_C:g} °C inside food: did you mean °F ({meant})?"
        faults.append(Fault("temp_c", told.temp_c, accepted))
    return faults


def sign_faults(told: EventCreate, progress: Progress, at_s: float) -> list[Fault]:
    """A sign wants a name, and food under the heat for no longer than a finish can take."""
    if not told.sign:
        return [Fault("sign", told.sign, "nothing yet, bubbling, amber at the edges or dark")]
    if progress.fire is None:
        return [Fault("sign", told.sign, "a sign seen while the food is under the heat")]
    if progress.fire.clock_s(at_s) > LONGEST_FIRE_S:
        return [Fault("sign", told.sign, "a sign within three hours under the heat")]
    return []


def rescue_faults(
    loaded: Loaded, told: EventCreate, progress: Progress, at_s: float
) -> list[Fault]:
    """A way out wants a key that this heat has, and food under it that is certain to be there, no
    longer than a film is looked at.
    """
    if not told.change:
        return [Fault("change", told.change, "calmer or foil")]
    fire = progress.fire
    if fire is None or fire.assumed or not 1.0 <= fire.clock_s(at_s) <= LONGEST_LOOK_S:
        accepted = "a way out of a heat that the food is under, within an hour"
        return [Fault("change", told.change, accepted)]
    kind = finish_kind(loaded.fire_scene(progress).document.fire)
    if told.change == "foil" and kind.sides > 1:
        return [Fault("change", told.change, f"calmer: no foil goes into {kind.place}")]
    return []


def data_of(
    loaded: Loaded, told: EventCreate, progress: Progress, at_s: float
) -> dict[str, object]:
    """What is kept of an event; with a failed check, the ways back as they are computed now."""
    left_out = {"id", "kind", "ago_s", "tapped_at", "sent_at", "seen"}
    data: dict[str, object] = told.model_dump(mode="json", exclude=left_out)
    if told.kind == "undo":
        data["undoes"] = told.undoes or last_standing(loaded.events)
    plan = next((p for p in loaded.fold.line if p.key == told.step), None)
    if told.kind == "done" and plan is not None and plan.who == "gate":
        data["legs"] = [leg_json(leg) for leg in legs_after(loaded, told, plan, at_s)]
    return data


def legs_after(loaded: Loaded, told: EventCreate, gate: StepPlan, at_s: float) -> tuple[Leg, ...]:
    """Ways back where this evidence fails the gate; none where it passes, or where only a reading
    is missing.
    """
    wants = gate.evidence or Evidence()
    asked = loaded.asked_c(gate)
    event = Event(0, "done", at_s, gate.key, temp_c=told.temp_c, tender=told.tender)
    why = gate_verdict(event, wants, asked, 0.0)
    cold = asked is not None and told.temp_c is not None and why == "too cold inside"
    cold = cold or (asked is not None and told.temp_c is not None and told.temp_c < asked - 0.25)
    tough = wants.tender and told.tender is False
    if not (cold or tough):
        return ()
    heating = loaded.scene(gate).document
    finish = heating.fierce or ""
    slow = heating.slow or heats_back(finish)[0]
    dish = tendering_of(heating, slow)
    failed = Failed(told.temp_c, cold, tough)
    return ways_back(dish, heating.bite, gate, failed, finish, out_of_it=heating.slow is not None)
