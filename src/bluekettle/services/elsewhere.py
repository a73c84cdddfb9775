"""A live cook whose appliance broke, was taken, or whose foil tore: where the food can go, and its
way there.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from datetime import datetime
from typing import Any

from sqlalchemy import Engine
from sqlmodel import Session

from bluekettle.core import chain as core
from bluekettle.core.errors import Fault, OutOfRange
from bluekettle.core.stages import Event, Progress, StepPlan, StepState, follow
from bluekettle.core.stages.told import UPCOMING
from bluekettle.schemas.cook import LivePublic
from bluekettle.schemas.elsewhere import (
    ElsewhereCreate,
    ElsewherePublic,
    ElsewhereQuery,
    ElsewhereWayPublic,
    Gone,
)
from bluekettle.services import suppers
from bluekettle.services.chains import plan_of
from bluekettle.services.errors import Conflict
from bluekettle.services.heats_left import MOST_WAYS, Asked, Found
from bluekettle.services.leaving import OPEN, Place, in_heat, places
from bluekettle.services.live import live, looked
from bluekettle.services.loaded import Loaded, stage_of_step
from bluekettle.services.log import load, summarise
from bluekettle.services.meal_parts import ALWAYS, kinds_in_use
from bluekettle.services.steps import plain
from bluekettle.services.strips import Strips
from bluekettle.services.telling import MOST_EVENTS, last_words
from bluekettle.store import repositories
from bluekettle.store.engine import for_writing

TRIES = 3  # while taps come (estimated)
READYING = ("drain", "blot")  # kinds of links that make food ready for any fire
Data = dict[str, Any]


def ways(
    engine: Engine, cook_id: int, query: ElsewhereQuery, now: datetime, strips: Strips
) -> ElsewherePublic:
    """Where the food of a cook can go.

    Raises
    ------
    NotFound, Unreadable
    OutOfRange
        A stage that is no heat that is left to do.
    Conflict
        It has ended, or nobody told whether the food is under the fire.
    """
    with Session(engine) as session:
        at = Moment(load(session, cook_id), now, strips)
        usual = kinds_in_use(session)
    asked = asked_of(at, query, usual)
    found: Sequence[Found] = strips.workshop.run("others_for", at.loaded.whole, asked, MOST_WAYS)
    told = [way_public(at, query, one) for one in found]
    return ElsewherePublic(
        stage=query.stage,
        gone=query.gone,
        ways=sorted((way for way in told if way is not None), key=lambda way: way.eat_at),
    )


class Moment:
    """A cook at a moment of its own clock; Conflict where nothing can be left any more."""

    def __init__(self, loaded: Loaded, now: datetime, strips: Strips) -> None:
        self.loaded = loaded
        self.now = loaded.clock(now)
        self.progress = looked(loaded, self.now, strips).progress
        if loaded.cook.ended_at is not None:
            raise Conflict("this cook has ended; nothing can be added to it")
        if self.progress.fire is not None and self.progress.fire.assumed:
            raise Conflict("tell first whether the food is under the heat")

    @property
    def now_s(self) -> float:
        """Seconds from its start."""
        return self.loaded.seconds(self.now)


def asked_of(at: Moment, query: ElsewhereQuery, usual: frozenset[str]) -> Asked:
    """What has to be left, and what may come for it; OutOfRange for a stage that is none."""
    left = places(at.loaded, at.progress, at.now_s)
    place = next((one for one in left if one.stage.id == query.stage), None)
    if place is None:
        known = ", ".join(one.stage.id for one in left) or "none is left to do"
        raise OutOfRange([Fault("stage", query.stage, f"a heat that is not over: {known}")])
    if query.gone == "cover" and not (place.wrapped and place.begun):
        accepted = "appliance: no foil is around the food"
        raise OutOfRange([Fault("gone", query.gone, accepted)])
    also: list[tuple[str, str]] = []
    later = left[left.index(place) + 1 :] if query.gone == "appliance" else []
    for one in later:
        if one.row.body == place.row.body:
            same = one.browns == place.browns
            others = candidates(one, "appliance", usual)
            if not same and not others:
                return Asked(place.stage.id, 0.0, 0, (), ())
            also.append((one.stage.id, "" if same else others[0]))
    done = sum(one.fire == place.stage.id for one in at.progress.acts)
    had_min = place.had_s / 60.0 if place.begun else 0.0
    heats = candidates(place, query.gone, usual)
    line = at.loaded.cook.line or ""
    return Asked(place.stage.id, had_min, done, tuple(also), heats, line)


def candidates(place: Place, gone: Gone, usual: frozenset[str]) -> tuple[str, ...]:
    """Heats that may come for another, the likeliest first: of those in the kitchen, where anybody
    told what is in it; a fire in the open only there.
    """
    own = place.row
    if gone == "cover":  # the oven is there: in new foil, or without any
        open_too = [key for key in core.slow_keys() if core.heat_row(key).body == own.body]
        return tuple(sorted(open_too, key=lambda key: key != own.key))
    keys = core.fierce_keys() if place.browns else core.slow_keys()
    known = [core.heat_row(key) for key in keys]
    fit = [row for row in known if row.body != own.body]
    if gone == "choice":  # its appliance is there
        fit = [row for row in known if row.key != own.key]
    here = [row for row in fit if row.body in usual or (usual and row.body in ALWAYS)]
    chosen = here or [row for row in fit if not row.outdoors]
    return tuple(row.key for row in sorted(chosen, key=lambda row: rank(row, place)))


def rank(row: core.HeatRow, place: Place) -> int:
    """How near a heat is to be thought of: the one that food is usually moved to, then those that
    most kitchens have.
    """
    if place.browns:
        usual = place.row.fierce.elsewhere if place.row.fierce else ""
        return 0 if row.fierce is not None and row.fierce.key == usual else 1
    back = row.slow.way_back if row.slow else 0
    return int(back) if back else 99


def way_public(at: Moment, query: ElsewhereQuery, one: Found) -> ElsewhereWayPublic | None:
    """A way as it is told; None where its steps do not go together with what is left."""
    data = data_of(at, query, one)
    if data is None:
        return None
    then = at.loaded.at(after(at, data).serve_at_s)
    before = at.loaded.at(at.progress.serve_at_s)
    name, says = told_as(one)
    again = query.gone == "cover" and one.heat == heat_of(at, query.stage)
    return ElsewhereWayPublic(
        heat=one.heat,
        name=name,
        says="Wrap it again" if again else says,
        eat_at=then,
        later_s=round((then - before).total_seconds(), 1),
        right=None if one.right is None else round(one.right, 3),
    )


def told_as(one: Found) -> tuple[str, str]:
    """The name of a heat, and how food goes there."""
    row = core.heat_row(one.heat)
    if one.right is not None and row.fierce is not None:
        return row.fierce.name, row.fierce.into
    return (row.slow.name, f"Into {row.slow.place}") if row.slow else (row.name, row.name)


def heat_of(at: Moment, stage: str) -> str:
    """The heat of a stage."""
    found = core.stage_named(plan_of(at.loaded.whole).stages, stage)
    return found.heat if isinstance(found, core.Heat) else ""


def after(at: Moment, data: Data) -> Progress:
    """Where the cook would stand with this."""
    told = Event(
        seq=1 + max((event.seq for event in at.loaded.events), default=0),
        kind="instead",
        at_s=at.now_s,
        dropped=tuple(data["dropped"]),
        ended=tuple(data["ended"]),
        left=tuple(data["still"]),
        steps=data["plans"],
    )
    return follow(at.loaded.plans, [*at.loaded.events, told], at.now_s)


def data_of(at: Moment, query: ElsewhereQuery, one: Found) -> Data | None:
    """What changes on the line: steps that are no more, that are over, and that come, each with the
    one it follows. None where a check would be lost, or its place is not known.
    """
    sorting = Sorting(at, one)
    line = with_gates(sorting.line(), one, at.progress)
    if line is None or loses_gate(at.progress, sorting.dropped, line):
        return None
    known = {state.plan.key: state.plan for state in at.progress.steps}
    plans: list[tuple[str, StepPlan]] = []
    for place, plan in enumerate(line):
        if known.get(plan.key) != plan:
            plans.append((line[place - 1].key if place else "", plan))
    changed = [plan.key for _, plan in plans if plan.key in known]
    plans += [("", plan) for plan in sorting.beside]
    return {
        "stage": query.stage,
        "heat": one.heat,
        "gone": query.gone,
        "dropped": [*sorting.dropped, *changed],
        "ended": sorting.ended,
        "still": sorting.kept,
        "plans": tuple(plans),
    }


class Sorting:
    """The steps of a line sorted: what stays, what is over, what goes and what comes."""

    def __init__(self, at: Moment, one: Found) -> None:
        self.at, self.one = at, one
        self.states = {s.plan.key: s for s in at.progress.steps}
        self.left = {doc.stage: doc for doc in one.instead}
        self.first = one.instead[0].stage
        self.ended = self._ended()
        self.kept = [key for key, s in self.states.items() if self._stays(s)]
        self.dropped = [
            key
            for key, s in self.states.items()
            if stage_of_step(s.plan) in self.left and key not in self.kept
        ]
        new = [self.new_of(stage) for stage in self.left]
        self.beside = [plan for plans in new for plan in plans if plan.beside]

    def _ended(self) -> list[str]:
        """The step in the heat that is over with it."""
        current = self.states.get(self.at.progress.current or "")
        if current is None or self.left[self.first].had_min <= 0.0:
            return []
        return [current.plan.key] if in_heat(self.at.loaded, current, self.first) else []

    def _stays(self, state: StepState) -> bool:
        """Whether a step of a heat that is left is over, or still to be done: food that is in it
        has to come out.
        """
        plan = state.plan
        if stage_of_step(plan) not in self.left or plan.key in self.ended:
            return plan.key in self.ended
        if state.state not in OPEN:
            return True
        kind = self.one.kinds.get(plan.key, "")
        if plan.beside or stage_of_step(plan) != self.first or "~" in plan.key:
            return False
        if self.left[self.first].had_min > 0.0:
            fired = self.at.progress.fire is not None
            return kind == "release" or (kind == "transfer" and fired)
        return kind == "release" and plan.who == "hands" and self._loaded()

    def _loaded(self) -> bool:
        """Whether the food is in the vessel that is left."""
        mine = [s for s in self.states.values() if stage_of_step(s.plan) == self.first]
        return any(s.state not in OPEN and not s.plan.beside for s in mine)

    def line(self) -> list[StepPlan]:
        """The line as it is to be."""
        found: list[StepPlan] = []
        put: set[str] = set()
        line = [self._as_now(s) for s in self.states.values() if not s.plan.beside]
        last = {stage_of_step(plan): plan.key for plan in line if plan.key in self.kept}
        for plan in line:
            stage = stage_of_step(plan)
            if plan.key not in self.dropped:
                found.append(plan)
            if stage not in self.left or stage in put:
                continue
            if plan.key == last.get(stage) or (stage not in last and plan.key in self.dropped):
                put.add(stage)
                found += [new for new in self.new_of(stage) if not new.beside]
        return found

    def _as_now(self, state: StepState) -> StepPlan:
        """A step of the plan as it is from now on; what goes on or is over stays as it was."""
        now = {plan.key: plan for plan in self.one.steps if not plan.beside}
        return now.get(state.plan.key, state.plan) if state.state == UPCOMING else state.plan

    def new_of(self, stage: str) -> list[StepPlan]:
        """The steps that come for a heat; what was done for the one that is left is not done
        again, and where it comes next, its appliance is cold.
        """
        key = core.id_instead(stage)
        mine = [plan for plan in self.one.steps if stage_of_step(plan) == key]
        if self.left[stage].had_min <= 0.0:
            mine = [plan for plan in mine if not self._done_before(plan, stage)]
        return heating(mine, key, self.one, self.at.now_s) if stage == self.first else mine

    def _done_before(self, plan: StepPlan, stage: str) -> bool:
        """Whether hands did this step for the heat that is left."""
        root = plan.key.rpartition(".")[2]
        then = self.states.get(f"{stage}.{root}")
        over = then is not None and then.state not in OPEN
        return over and plan.who == "hands" and self.one.kinds.get(f"{stage}.{root}") in READYING


def heating(plans: Sequence[StepPlan], stage: str, one: Found, now_s: float) -> list[StepPlan]:
    """Steps of a heat whose appliance is switched on now and not before: it is waited for until it
    is hot nine times in ten, however late the food comes.
    """
    warm = next((plan for plan in plans if plan.beside and plan.before.startswith(stage)), None)
    if warm is None:
        return list(plans)
    until_s = now_s + warm.high_s
    waits = (f"{stage}.heat_up", f"{stage}.oven_up")
    if any(plan.key in waits for plan in plans):
        return [replace(p, until_s=until_s) if p.key in waits else p for p in plans]
    fierce = one.right is not None
    key = waits[0] if fierce else waits[1]
    wait = StepPlan(key, "machine", waiting_label(one), 0.0, 0.0, 0.0, approach=fierce)
    wait = replace(wait, until_s=until_s)
    at = next(n for n, plan in enumerate(plans) if plan.key == warm.before)
    at = at if fierce else at + 1
    return [*plans[:at], wait, *plans[at:]]


def waiting_label(one: Found) -> str:
    """What is waited for."""
    row = core.heat_row(one.heat)
    if one.right is not None and row.fierce is not None:
        return f"Wait for the {row.fierce.name}"
    return row.slow.wait_says if row.slow and row.slow.wait_says else f"Wait for the {row.name}"


def with_gates(line: list[StepPlan], one: Found, progress: Progress) -> list[StepPlan] | None:
    """The line with checks that the plan has now and had not before, each behind the step that it
    follows; None where that is not there.
    """
    found = list(line)
    steps = [plan for plan in one.steps if not plan.beside]
    for place, plan in enumerate(steps):
        keys = [other.key for other in found]
        if plan.who != "gate" or plan.key in keys:
            continue
        before = [step.key for step in steps[:place] if step.key in keys]
        if not before:
            return None
        found.insert(keys.index(before[-1]) + 1, plan)
    return found


def loses_gate(progress: Progress, dropped: Sequence[str], line: Sequence[StepPlan]) -> bool:
    """Whether a check for safety goes without another one to come for it."""
    states = {state.plan.key: state for state in progress.steps}
    gone = [states[key].plan for key in dropped if states[key].plan.who == "gate"]
    if not any(plan.evidence is not None and plan.evidence.usual_c for plan in gone):
        return False
    keys = {state.plan.key for state in progress.steps if state.state not in OPEN}
    return not any(
        plan.who == "gate"
        and plan.key not in keys
        and plan.evidence is not None
        and plan.evidence.usual_c
        for plan in line
    )


def leave(
    engine: Engine, cook_id: int, told: ElsewhereCreate, now: datetime, strips: Strips
) -> LivePublic:
    """Leave a heat for another; as `ways`, and Conflict for a heat that does not do it, or where
    taps kept coming meanwhile.
    """
    for _ in range(TRIES):
        with Session(engine) as session:
            at = Moment(load(session, cook_id), now, strips)
            if was_told(at.loaded, told):
                return live(at.loaded, at.now, strips)
            if len(at.loaded.rows) >= MOST_EVENTS:
                accepted = f"up to {MOST_EVENTS} events in one cook"
                raise OutOfRange([Fault("stage", told.stage, accepted)])
            check_seen(at.loaded, told)
            asked = asked_of(at, told, kinds_in_use(session))
        if told.heat not in asked.heats:
            accepted = "one of " + ", ".join(asked.heats) if asked.heats else "none is known"
            raise OutOfRange([Fault("heat", told.heat, accepted)])
        asked = replace(asked, heats=(told.heat,))
        found = strips.workshop.run("others_for", at.loaded.whole, asked, 1)
        data = data_of(at, told, found[0]) if found else None
        if data is None:
            raise Conflict(f"no safe way was found with the {core.heat_row(told.heat).name}")
        answer = keep_left(engine, at, told, found[0], data, now, strips)
        if answer is not None:
            return answer
    raise Conflict("taps came while it was looked for: it is as it was, tell it again")


def was_told(loaded: Loaded, told: ElsewhereCreate) -> bool:
    """Whether this very tap was told before."""
    return told.id is not None and any(row.uid == str(told.id) for row in loaded.rows)


def check_seen(loaded: Loaded, told: ElsewhereCreate) -> None:
    """Conflict on an old picture."""
    newest = max((row.seq for row in loaded.rows if row.kind != "moved"), default=0)
    if told.seen is not None and told.seen < newest:
        raise Conflict(f"something else was told meanwhile: {last_words(loaded)}")


def lost_body(at: Moment, told: ElsewhereCreate) -> str:
    """The kind of body that is there no more; empty where none is."""
    heat = heat_of(at, told.stage)
    return core.heat_row(heat).body if told.gone == "appliance" and heat else ""


def keep_left(
    engine: Engine,
    at: Moment,
    told: ElsewhereCreate,
    one: Found,
    data: Data,
    now: datetime,
    strips: Strips,
) -> LivePublic | None:
    """Keep it, and what the supper that it is a dish of knows of it; None where something was told
    meanwhile.
    """
    cook_id = at.loaded.cook_id
    kept = {
        **{name: data[name] for name in ("stage", "heat", "gone", "dropped", "ended", "still")},
        "steps": [[after_key, plain(plan)] for after_key, plan in data["plans"]],
        "left": {
            "instead": [doc.model_dump(mode="json") for doc in one.instead],
            "scenes": {key: scene.model_dump(mode="json") for key, scene in one.scenes.items()},
            "exits": {k: [e.model_dump(mode="json") for e in v] for k, v in one.exits.items()},
            "lost": lost_body(at, told),
        },
    }
    uid = None if told.id is None else str(told.id)
    with Session(for_writing(engine)) as session:
        if len(load(session, cook_id).rows) != len(at.loaded.rows):
            return None
        repositories.append_event(session, cook_id, "instead", at.now, at.now, kept, uid)
        session.flush()
        loaded = load(session, cook_id)
        summarise(loaded)
        if loaded.cook.supper_id is not None:
            suppers.replace_line(session, loaded, one.line, now, strips)
        answer = live(loaded, at.now, strips)
        session.commit()
        return answer
