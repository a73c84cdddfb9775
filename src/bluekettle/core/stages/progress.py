"""A live cook: what is known, what is assumed and what is not known, from its append-only events.

Elapsed time proves nothing happened. Machines go on as estimates, marked so. Hands never do. A gate
never passes by itself. Fire assumes the worst: food that may be under the heat is taken to be there
since the earliest moment. All times are seconds from the start of the cook.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field

from bluekettle.core.errors import Ranges

CONFIRMED, ESTIMATED, UNKNOWN, CURRENT, RUNNING, UPCOMING = (
    "confirmed",
    "estimated",
    "unknown",
    "current",
    "running",
    "upcoming",
)
ASK_EVERY_S = 15.0
# the usual figures are round on both scales: 145 °F is 62.8 °C and stands for 63, 165 °F is 73.9
SCALES_C = 0.25


@dataclass(frozen=True)
class StepPlan:
    """One step as planned: who does it and its seconds (low, likely, high). `beside` runs beside
    the others.
    """

    key: str
    who: str
    label: str
    low_s: float
    likely_s: float
    high_s: float
    beside: bool = False


@dataclass(frozen=True)
class Event:
    """One thing the cook told: done, extend, saw or undo. `at_s` is when it happened, not when it
    was tapped.
    """

    seq: int
    kind: str
    at_s: float
    step: str = ""
    seconds: float = 0.0
    sign: str = ""
    undoes: int = 0
    temp_c: float | None = None
    tender: bool | None = None


@dataclass(frozen=True)
class StepState:
    """A step now: its state, when it began and ended (None where not, or not known), and when it
    should end.
    """

    plan: StepPlan
    state: str
    begin_s: float | None
    end_s: float | None
    due_s: float
    passed: bool = False  # gates only: somebody checked and it was good


@dataclass(frozen=True)
class Progress:
    """The whole cook now. `fire_since_s` is when the food is taken to be under the heat;
    `fire_assumed` if nobody said.
    """

    steps: tuple[StepState, ...]
    current: str | None
    fire_since_s: float | None
    fire_assumed: bool
    serve_at_s: float
    serve_low_s: float
    serve_high_s: float
    sightings: tuple[tuple[str, float], ...] = ()
    gate_failed: str = ""
    finished: bool = False
    side_due: tuple[str, ...] = field(default_factory=tuple)


def standing(events: Sequence[Event]) -> list[Event]:
    """Events that were not undone (an undo can itself be undone)."""
    gone: set[int] = set()
    for event in sorted(events, key=lambda e: -e.seq):
        if event.kind == "undo" and event.seq not in gone:
            gone.add(event.undoes)
    return [
        e for e in sorted(events, key=lambda e: e.seq) if e.seq not in gone and e.kind != "undo"
    ]


def gate_verdict(event: Event, safe_c: float | None) -> str:
    """Empty where the check is good, else what is missing. A gate with a thermometer wants a
    reading.
    """
    if event.tender is False:
        return "not tender yet"
    if event.tender is None:
        return "nobody tried whether it is tender"
    if safe_c is not None:
        if event.temp_c is None:
            return "no thermometer reading"
        if event.temp_c < safe_c - SCALES_C:
            return f"{round(event.temp_c, 1):g} °C is under {safe_c:g} °C"
    return ""


def held_for(plans: Sequence[StepPlan], events: Sequence[Event], step: str = "hold") -> float:
    """Seconds that a step lasted at the least, as far as somebody told: from the last confirmed
    step before it, less the longest its waits can take, to its own end or the next one told. 0
    where nobody told."""
    line = [plan for plan in plans if not plan.beside]
    done = {e.step: e.at_s for e in standing(events) if e.kind == "done"}
    place = next((i for i, plan in enumerate(line) if plan.key == step), None)
    if place is None:
        return 0.0
    before = next((i for i in reversed(range(place)) if line[i].key in done), None)
    after = next((i for i in range(place, len(line)) if line[i].key in done), None)
    if before is None or after is None:
        return 0.0
    begin = done[line[before].key] + sum(plan.high_s for plan in line[before + 1 : place])
    end = done[line[after].key] - sum(plan.high_s for plan in line[place + 1 : after + 1])
    return max(0.0, end - begin)


def follow(
    plans: Sequence[StepPlan], events: Sequence[Event], now_s: float, safe_c: float | None
) -> Progress:
    """Where the cook stands at `now_s`.

    Parameters
    ----------
    plans : sequence of StepPlan
        In order; those `beside` are told when due and block nothing.
    events : sequence of Event
    now_s : float
    safe_c : float or None
        Temperature the gate wants; None where no thermometer is needed.
    """
    ranges = Ranges()
    ranges.within("now_s", now_s, -86_400.0, 31 * 86_400.0, "s")
    if safe_c is not None:
        ranges.within("safe_c", safe_c, 40.0, 100.0, "°C")
    ranges.close()
    known = standing(events)
    done = {e.step: e for e in known if e.kind == "done"}
    extra: dict[str, float] = {}
    for event in known:
        if event.kind == "extend":
            extra[event.step] = extra.get(event.step, 0.0) + event.seconds
    line = [plan for plan in plans if not plan.beside]
    failed = ""
    for plan in line:
        if plan.who == "gate" and plan.key in done:
            verdict = gate_verdict(done[plan.key], safe_c)
            if verdict:
                failed = verdict
                del done[plan.key]
    last_done = max((i for i, plan in enumerate(line) if plan.key in done), default=-1)
    states: list[StepState] = []
    begin, current = 0.0, None
    for i, plan in enumerate(line):
        more = extra.get(plan.key, 0.0)
        if plan.key in done:
            end = max(begin, done[plan.key].at_s)
            states.append(StepState(plan, CONFIRMED, begin, end, end, plan.who == "gate"))
            begin = end
        elif i < last_done:
            # Something later was confirmed: a machine has run, of hands and gates nothing is known.
            state = ESTIMATED if plan.who == "machine" else UNKNOWN
            later = min(done[p.key].at_s for p in line[i + 1 :] if p.key in done)
            end = min(begin + plan.likely_s + more, later)
            states.append(StepState(plan, state, begin, end if state == ESTIMATED else None, end))
            begin = end
        elif current is not None:
            states.append(StepState(plan, UPCOMING, None, None, begin + plan.likely_s + more))
            begin += plan.likely_s + more
        elif plan.who == "machine" and now_s >= begin + plan.high_s + more:
            end = begin + plan.high_s + more
            states.append(StepState(plan, ESTIMATED, begin, end, end))
            begin = end
        else:
            current = plan.key
            due = begin + plan.likely_s + more
            states.append(
                StepState(plan, RUNNING if plan.who == "machine" else CURRENT, begin, None, due)
            )
            begin = max(now_s, due)
    since, assumed = fire_since(states, now_s)
    doubt = (
        sum(
            (s.plan.high_s - s.plan.likely_s) ** 2
            for s in states
            if s.end_s is None and s.state != UNKNOWN
        )
        ** 0.5
    )
    ease = (
        sum(
            (s.plan.likely_s - s.plan.low_s) ** 2
            for s in states
            if s.end_s is None and s.state != UNKNOWN
        )
        ** 0.5
    )
    sides = tuple(side_due(plan, states, done, now_s) for plan in plans if plan.beside)
    return Progress(
        tuple(states) + tuple(side for side, _ in sides),
        current,
        since,
        assumed,
        begin,
        max(now_s, begin - ease),
        begin + doubt,
        tuple((e.sign, e.at_s) for e in known if e.kind == "saw"),
        failed,
        current is None,
        tuple(side.plan.key for side, due in sides if due),
    )


def fire_since(states: Sequence[StepState], now_s: float) -> tuple[float | None, bool]:
    """Since when the food is, or must be taken to be, under the heat; and whether that is an
    assumption.

    With everything before it confirmed, the fire began with the last tap. With the brush or the
    transfer still open, the food may be there since that step began plus the least time the open
    steps can take. A gate is never jumped.
    """
    place = next((i for i, s in enumerate(states) if s.plan.who == "fire"), None)
    if place is None:
        return None, False
    fire = states[place]
    if fire.state == CURRENT or fire.end_s is not None:
        return fire.begin_s, False
    if fire.state == UNKNOWN:
        return None, False
    open_from = next((i for i, s in enumerate(states) if s.state in (CURRENT, RUNNING)), None)
    if open_from is None or open_from > place:
        return None, False
    between = states[open_from:place]
    if any(s.plan.who == "gate" for s in between) or between[0].begin_s is None:
        return None, False
    if between[0].plan.key not in ("brush", "heat_up", "under"):
        return None, False
    earliest = between[0].begin_s + sum(s.plan.low_s for s in between if s.plan.who == "hands")
    return (earliest, True) if now_s >= earliest else (None, False)


def side_due(
    plan: StepPlan, states: Sequence[StepState], done: dict[str, Event], now_s: float
) -> tuple[StepState, bool]:
    """A step beside the line: the appliance must be switched on its latest likely preheat before it
    is needed.
    """
    if plan.key in done:
        end = done[plan.key].at_s
        return StepState(plan, CONFIRMED, end, end, end), False
    needed = next((s for s in states if s.plan.key == "under"), None)
    if needed is None or needed.state not in (UPCOMING, CURRENT):
        return StepState(plan, UNKNOWN, None, None, 0.0), False
    start = (
        needed.begin_s if needed.begin_s is not None else needed.due_s - needed.plan.likely_s
    ) - plan.high_s
    due = now_s >= start
    return StepState(plan, CURRENT if due else UPCOMING, None, None, max(start, 0.0)), due
