"""A live cook: what is known, what is assumed and what is not known, from its append-only events.

Elapsed time proves nothing happened. Machines go on as estimates, marked so. Hands never do. A gate
never passes by itself, and no later step counts before it is passed or skipped with a reason. Fire
assumes the worst: food that may be under the heat is taken to be there since the earliest moment.
Steps are judged by who does them, never by their names. All times are seconds from the start of the
cook.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Any

from bluekettle.core.stages.delaying import with_wait, with_waits
from bluekettle.core.stages.leg_keys import is_later_leg, leg_stem
from bluekettle.core.stages.steps import Evidence, Leg, StepPlan
from bluekettle.core.stages.told import (
    CONFIRMED,
    CURRENT,
    ESTIMATED,
    FAILED,
    OPEN,
    PASSED,
    RUNNING,
    SKIPPED,
    UNKNOWN,
    UPCOMING,
    Check,
    Done,
    Event,
    Fire,
    Progress,
    Sign,
    StepState,
    not_undone,
)

ASK_EVERY_S = 15.0  # design 4: asked about every 15 s
# The usual figures are round on both scales: 145 °F is 62.8 °C and stands for 63, 165 °F is 73.9.
SCALES_C = 0.25
LEEWAY_S = 60.0  # a tap is made when a hand is free


def gate_verdict(event: Event, wants: Evidence, wanted_c: float | None, heated_s: float) -> str:
    """Empty where the check is good, else what is missing.

    wanted_c : what the thermometer must read, None where none is needed. heated_s : when the heat
    before the gate ended; what was read before says nothing of it.
    """
    if wants.tender and event.tender is False:
        return "not tender yet"
    if wants.tender and event.tender is None:
        return "nobody tried whether it is tender"
    if wanted_c is None:
        return ""
    if event.temp_c is None:
        return "no thermometer reading"
    if event.at_s < heated_s:
        return "read before its time in the heat was over"
    if event.temp_c < wanted_c - SCALES_C:
        return "too cold inside"
    return ""


def held_for(plans: Sequence[StepPlan], events: Sequence[Event], step: str) -> float:
    """Seconds that a step lasted at the least, as far as somebody told: from the last confirmed
    step before it, less the longest its waits can take, to its own end or the next one told. 0
    where nobody told.
    """
    line = [plan for plan in plans if not plan.beside]
    done = {e.step: e.at_s for e in not_undone(events) if e.kind == "done"}
    place = next((i for i, plan in enumerate(line) if plan.key == step), None)
    if place is None:
        return 0.0
    before = next((i for i in reversed(range(place)) if line[i].key in done), None)
    after = next((i for i in range(place, len(line)) if line[i].key in done), None)
    if before is None or after is None:
        return 0.0
    begin = done[line[before].key]
    for plan in line[before + 1 : place]:
        begin = max(begin + plan.high_s, plan.until_s or 0.0)
    later = line[place + 1 : after + 1]
    end = done[line[after].key] - sum(plan.high_s for plan in later)
    if any(plan.until_s is not None for plan in later):  # it may have waited for longer
        end = min(end, begin + line[place].high_s)
    return max(0.0, end - begin)


def wanted_c(plans: Sequence[StepPlan], events: Sequence[Event], gate: StepPlan) -> float | None:
    """What the thermometer must read at a gate [°C]: less than usual only where its time is proven
    and was told.
    """
    wants = gate.evidence or Evidence()
    if wants.usual_c is None or wants.timed_c is None:
        return wants.usual_c
    told = held_for(plans, events, wants.timed_step) >= wants.timed_s - LEEWAY_S
    return wants.timed_c if told else wants.usual_c


class Fold:
    """Events applied in the order in which they came: which steps count, how each gate stands, and
    the line of steps with its ways back in place.
    """

    def __init__(self, plans: Sequence[StepPlan], events: Sequence[Event]) -> None:
        self.events = not_undone(events)
        self.line = [plan for plan in plans if not plan.beside]
        self.beside = [plan for plan in plans if plan.beside]
        self.gates: dict[str, str] = {}
        self.legs: dict[str, tuple[Leg, ...]] = {}  # of a failed gate, all there are
        self.taken: dict[str, Leg] = {}  # and the one that stands in the line
        self.done: dict[str, Event] = {}
        self.checks: list[Check] = []
        self.left_under: tuple[str, float, float] | None = None
        self.freed: dict[str, float] = {}  # steps whose wait was dropped, and when
        self.left: set[str] = set()  # steps of heats that were left
        for event in self.events:
            self._apply(event)

    def place(self, key: str) -> int:
        """Place of a step on the line, -1 where it is not on it."""
        return next((i for i, plan in enumerate(self.line) if plan.key == key), -1)

    def open_gate(self, before: int) -> str:
        """The first gate before a place that is neither passed nor skipped; empty where none is."""
        for plan in self.line[:before]:
            if plan.who == "gate" and self.gates.get(plan.key, OPEN) == OPEN:
                return plan.key
        return ""

    def _apply(self, event: Event) -> None:
        if event.kind == "way" and event.step in self.legs:
            self._put_leg(event.step, event.way)
            return
        if event.kind == "later":
            self.line = list(with_wait(self.line, self.done, event.seconds))
            return
        if event.kind == "moved":
            for key in event.dropped:
                self._free(key, event)
            self.line = list(with_waits(self.line, self.done, event.dropped, event.waits))
            return
        if event.kind == "instead":
            self._leave(event)
            return
        if event.kind not in ("done", "skip"):
            return
        if any(plan.key == event.step for plan in self.beside):
            self.done.setdefault(event.step, event)
            return
        place = self.place(event.step)
        if place < 0:
            return
        for gate in event.jumped:
            if self.gates.get(gate, OPEN) == OPEN:
                self.gates[gate] = SKIPPED
        if self.open_gate(place):
            return  # a step behind an open gate does not count
        plan = self.line[place]
        if plan.who == "gate":
            self._judge(plan, place, event)
        elif event.kind == "done" and event.step not in self.done:
            self.done[event.step] = event
            self.left_under = None  # hands or a machine have it now

    def _leave(self, event: Event) -> None:
        """A heat is left for another. What was told to be over stays, and so does a check for
        safety where none comes for it.
        """
        for key in event.ended:
            if self.place(key) >= 0:
                self.done.setdefault(key, event)
        comes = any(asks_heat(plan) for _, plan in event.steps)
        gone = {
            plan.key
            for plan in (*self.line, *self.beside)
            if plan.key in event.dropped
            and plan.key not in self.done
            and (comes or not asks_heat(plan))
        }
        self.line = [plan for plan in self.line if plan.key not in gone]
        self.beside = [plan for plan in self.beside if plan.key not in gone]
        for after, plan in event.steps:
            if plan.beside:
                self.beside.append(plan)
            else:
                self.line.insert(self.place(after) + 1, plan)
        self.left |= set(event.left)
        self.left_under = None

    def _free(self, wait: str, event: Event) -> None:
        """What a dropped wait was for has not begun before that."""
        place = self.place(wait)
        if place >= 0 and wait not in self.done and place + 1 < len(self.line):
            self.freed[self.line[place + 1].key] = event.at_s

    def _judge(self, gate: StepPlan, place: int, event: Event) -> None:
        """Evidence at a gate: the newest counts, and what was done after a bad one is to be done
        again.
        """
        wants = gate.evidence or Evidence()
        asked = wanted_c(self.line, self.events, gate)
        why = ""
        if event.kind == "skip":
            verdict, why = SKIPPED, event.reason
        else:
            why = gate_verdict(event, wants, asked, self._heated_s(place))
            verdict = PASSED if not why else FAILED
        self.checks.append(Check(gate.key, event.at_s, event.temp_c, event.tender, verdict, why))
        self._drop_leg(gate.key)
        self.legs.pop(gate.key, None)
        self.done[gate.key] = event
        self.gates[gate.key] = verdict
        if verdict == FAILED:
            self._take_back(place)
            self.legs[gate.key] = event.legs
            if event.legs:
                self._put_leg(gate.key, event.way)
            else:
                self.gates[gate.key] = OPEN  # no way back was found: it waits for another reading
                del self.done[gate.key]

    def _heated_s(self, place: int) -> float:
        """When the last confirmed machine step before a place ended [s]."""
        told = [
            self.done[plan.key].at_s
            for plan in self.line[:place]
            if plan.who == "machine" and plan.key in self.done
        ]
        return max(told, default=0.0)

    def _take_back(self, place: int) -> None:
        """Forget what was done behind a gate. Food that lay under the heat lies there until told
        otherwise.
        """
        running = self._under_now(place)
        for gate in [plan.key for plan in self.line[place + 1 :] if plan.who == "gate"]:
            self._drop_leg(gate)
            self.legs.pop(gate, None)
        for plan in self.line[place + 1 :]:
            self.done.pop(plan.key, None)
            self.gates.pop(plan.key, None)
        again = [plan for plan in self.line[place + 1 :] if plan.key not in self.left]
        self.line[place + 1 :] = again  # nothing goes back into a heat that was left
        self.left_under = running

    def _under_now(self, place: int) -> tuple[str, float, float] | None:
        """The heat that the food is under by what was told behind a place: its name, since when,
        and the seconds before.
        """
        before, last = 0.0, None
        for plan in self.line[place + 1 :]:
            if plan.key in self.done:
                at = self.done[plan.key].at_s
                if plan.who == "fire" and last is not None:
                    before += at - last
                last = at
            elif plan.who == "fire" and last is not None:
                return plan.fire, last, before
            else:
                return None
        return None

    def _drop_leg(self, gate: str) -> None:
        """Take a way back, and all that follows from it, out of the line."""
        stem = leg_stem(gate)
        self.line = [plan for plan in self.line if not is_later_leg(plan.key, stem)]
        self.taken.pop(gate, None)
        kept: tuple[dict[str, Any], ...] = (self.done, self.gates, self.legs, self.taken)
        for known in kept:
            for key in [k for k in known if is_later_leg(k, stem)]:
                del known[key]

    def _put_leg(self, gate: str, way: int) -> None:
        """Put a way back into the line, behind its gate."""
        self._drop_leg(gate)
        legs = self.legs[gate]
        leg = legs[min(max(way, 0), len(legs) - 1)]
        self.taken[gate] = leg
        place = self.place(gate)
        self.line[place + 1 : place + 1] = leg.steps


def asks_heat(plan: StepPlan) -> bool:
    """Whether a step is a check that asks for a temperature."""
    return plan.evidence is not None and plan.evidence.usual_c is not None


def follow(
    plans: Sequence[StepPlan],
    events: Sequence[Event],
    now_s: float,
    seconds: Mapping[str, tuple[float, float, float]] | None = None,
) -> Progress:
    """Where the cook stands at `now_s`.

    Parameters
    ----------
    plans : sequence of StepPlan
        In order; those `beside` are told when due and block nothing.
    events : sequence of Event
        Append-only, in any order of time; their numbers tell the order in which they came.
    now_s : float
        Never before the newest event: a clock that was set back stands still instead.
    seconds : mapping, optional
        Steps whose seconds (low, likely, high) are known better than planned, by their keys.
    """
    fold = Fold(plans_with(plans, seconds or {}), [with_seconds(e, seconds or {}) for e in events])
    now_s = max([now_s, 0.0, *(event.at_s for event in fold.events)])
    extra: dict[str, float] = {}
    for event in fold.events:
        if event.kind == "extend":
            extra[event.step] = extra.get(event.step, 0.0) + event.seconds
    states, current, serve_at = walk(fold, extra, now_s)
    barrier = fold.open_gate(len(fold.line))
    reached = current is not None and current == barrier
    fire = fire_now(fold, states, now_s)
    spread = [s.plan for s in states if s.end_s is None and s.state != UNKNOWN]
    doubt = sum((plan.high_s - plan.likely_s) ** 2 for plan in spread) ** 0.5
    ease = sum((plan.likely_s - plan.low_s) ** 2 for plan in spread) ** 0.5
    clock = heat_clock(states, fire)
    sides = [side_state(plan, states, fold.done, now_s) for plan in fold.beside]
    return Progress(
        tuple(states) + tuple(side for side, _ in sides),
        current,
        barrier if reached else "",
        fire,
        serve_at,
        max(now_s, serve_at - ease),
        serve_at + doubt,
        tuple(sign_of(e, clock) for e in fold.events if e.kind == "saw"),
        tuple(acts_done(states)),
        tuple(fold.checks),
        tuple(sign_of(e, clock) for e in fold.events if e.kind == "rescue"),
        tuple(side.plan.key for side, due in sides if due),
    )


def walk(
    fold: Fold, extra: Mapping[str, float], now_s: float
) -> tuple[list[StepState], str | None, float]:
    """State of each step of the line, the current one, and when the last should end."""
    line, done = fold.line, fold.done
    last_done = max((i for i, plan in enumerate(line) if plan.key in done), default=-1)
    states: list[StepState] = []
    begin, current = 0.0, None
    for i, plan in enumerate(line):
        more = extra.get(plan.key, 0.0)
        if i > last_done:
            begin = max(begin, fold.freed.get(plan.key, begin))
        due, latest = ends_of(plan, begin, more)
        gate = fold.gates.get(plan.key, OPEN) if plan.who == "gate" else ""
        if plan.key in done:
            end = max(begin, done[plan.key].at_s)
            state = UNKNOWN if gate == SKIPPED else CONFIRMED
            states.append(StepState(plan, state, begin, end, end, gate))
            begin = end
        elif gate == SKIPPED:
            states.append(StepState(plan, UNKNOWN, begin, begin, begin, gate))
        elif i < last_done:
            # Something later was confirmed: a machine has run, of hands nothing is known.
            later = min(done[p.key].at_s for p in line[i + 1 :] if p.key in done)
            end = max(begin, min(due, later))
            known = plan.who == "machine"
            state = ESTIMATED if known else UNKNOWN
            states.append(StepState(plan, state, begin, end if known else None, end, gate))
            begin = end
        elif current is not None:
            states.append(StepState(plan, UPCOMING, None, None, due, gate))
            begin = due
        elif plan.who == "machine" and now_s >= latest:
            states.append(StepState(plan, ESTIMATED, begin, latest, latest))
            begin = latest
        else:
            current = plan.key
            state = RUNNING if plan.who == "machine" else CURRENT
            states.append(StepState(plan, state, begin, None, due, gate))
            begin = max(now_s, due)
    return states, current, begin


def ends_of(plan: StepPlan, begin_s: float, more_s: float = 0.0) -> tuple[float, float]:
    """When a step that begins then is likely to end, and at the latest [s]."""
    if plan.until_s is not None:
        end = max(begin_s, plan.until_s + more_s)
        return end, end
    likely, high = begin_s + plan.likely_s + more_s, begin_s + plan.high_s + more_s
    return max(begin_s, likely), max(begin_s, high)


def fire_now(fold: Fold, states: Sequence[StepState], now_s: float) -> Fire | None:
    """The heat that the food is under, or must be taken to be under.

    With everything before it confirmed, the fire began with the last tap. With the brush or the
    transfer still open, the food may be there since that step began plus the least time the open
    steps can take. A fire is over once its last stretch is confirmed, or anything after it is.
    """
    if fold.left_under is not None:
        name, since, before = fold.left_under
        return Fire(name, since, before, False)
    place = next((i for i, s in enumerate(states) if s.end_s is None and s.state != UNKNOWN), None)
    if place is None or states[place].begin_s is None:
        return None
    ahead = next((i for i in range(place, len(states)) if states[i].plan.who == "fire"), None)
    if ahead is None:
        return None
    fire = states[ahead].plan.fire
    under = [s for s in states[:place] if s.plan.who == "fire" and s.plan.fire == fire]
    before = sum(s.due_s - (s.begin_s or 0.0) for s in under)
    begin = float(states[place].begin_s or 0.0)
    if ahead == place:
        told = [states[place - 1], *under] if place else under
        sure = all(s.state == CONFIRMED for s in told)
        return Fire(fire, begin, before, False, sure)
    between = [s.plan for s in states[place:ahead]]
    if not all(plan.approach for plan in between):
        return None
    earliest = begin + sum(plan.low_s for plan in between if plan.who == "hands")
    return Fire(fire, earliest, before, True, False) if now_s >= earliest else None


def stretches(states: Sequence[StepState]) -> list[tuple[str, float, float, bool]]:
    """Ended stretches under fierce heat: name, begin and end [s], and whether both were told."""
    found = []
    for before, state in zip([None, *states], states, strict=False):
        if state.plan.who != "fire" or state.begin_s is None or state.state in (CURRENT, UPCOMING):
            continue
        told = state.state == CONFIRMED and before is not None and before.state == CONFIRMED
        found.append((state.plan.fire, state.begin_s, state.due_s, told))
    return found


@dataclass(frozen=True)
class Stretch:
    """One stretch under a fierce heat: begin and end [s], seconds under it before, certainty."""

    fire: str
    begin_s: float
    end_s: float
    before_s: float
    told: bool


def heat_clock(states: Sequence[StepState], fire: Fire | None) -> list[Stretch]:
    """Every stretch under a fierce heat so far."""
    found: list[Stretch] = []
    before: dict[str, float] = {}
    for name, begin, end, told in stretches(states):
        had = before.get(name, 0.0)
        found.append(Stretch(name, begin, end, had, told))
        before[name] = had + end - begin
    if fire is not None:
        found.append(Stretch(fire.name, fire.since_s, float("inf"), fire.before_s, fire.sure))
    return found


def sign_of(event: Event, clock: Sequence[Stretch]) -> Sign:
    """A sign on the clock of the heat that it was seen under; while the food is out that stands
    still.
    """
    heat_s, teaches, fire = 0.0, False, ""
    for one in clock:
        if event.at_s >= one.begin_s:
            heat_s = one.before_s + min(event.at_s, one.end_s) - one.begin_s
            teaches, fire = one.told and event.at_s <= one.end_s, one.fire
    what = event.sign or event.change
    return Sign(what, event.at_s, round(heat_s, 1), teaches and heat_s >= 1.0, fire)


def acts_done(states: Sequence[StepState]) -> list[Done]:
    """Coats and turns out of a fierce heat that are done, on its own clock."""
    found: list[Done] = []
    under: dict[str, float] = {}
    for state in states:
        fire, begin = state.plan.fire, state.begin_s
        if begin is None:
            break
        if state.plan.who == "fire":
            under[fire] = under.get(fire, 0.0) + state.due_s - begin
        elif fire and state.plan.act and state.state == CONFIRMED:
            away = max(0.0, state.due_s - begin)
            found.append(Done(fire, state.plan.act, round(under.get(fire, 0.0), 1), round(away, 1)))
    return found


def side_state(
    plan: StepPlan, states: Sequence[StepState], done: Mapping[str, Event], now_s: float
) -> tuple[StepState, bool]:
    """A step beside the line, and whether it is due: its latest likely length before it is needed,
    and for hands already while a machine works.
    """
    if plan.key in done:
        end = done[plan.key].at_s
        return StepState(plan, CONFIRMED, end, end, end), False
    needed = next((s for s in states if s.plan.key == plan.before), None)
    if needed is None or needed.state not in (UPCOMING, CURRENT):
        return StepState(plan, UNKNOWN, None, None, 0.0), False
    begins = needed.begin_s if needed.begin_s is not None else needed.due_s - needed.plan.likely_s
    start = max(0.0, begins - plan.high_s)
    idle = plan.who == "hands" and any(s.state == RUNNING for s in states)
    due = now_s >= start or idle
    return StepState(plan, CURRENT if due else UPCOMING, None, None, start), due


def with_seconds(event: Event, seconds: Mapping[str, tuple[float, float, float]]) -> Event:
    """An event whose steps have other seconds where a key is named."""
    if not event.steps:
        return event
    plans = plans_with([plan for _, plan in event.steps], seconds)
    steps = tuple((after, plan) for (after, _), plan in zip(event.steps, plans, strict=True))
    return replace(event, steps=steps)


def plans_with(
    plans: Sequence[StepPlan], seconds: Mapping[str, tuple[float, float, float]]
) -> tuple[StepPlan, ...]:
    """The same steps with other seconds (low, likely, high) where a key is named."""
    found = []
    for plan in plans:
        low, likely, high = seconds.get(plan.key, (plan.low_s, plan.likely_s, plan.high_s))
        found.append(replace(plan, low_s=low, likely_s=likely, high_s=high))
    return tuple(found)
