"""A meal that is being cooked, between its row and the core (kettle.supper/1)."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace
from datetime import datetime, timedelta
from itertools import pairwise
from typing import Any, Literal

from pydantic import TypeAdapter, ValidationError

from bluekettle.core import schedule as meals
from bluekettle.core.stages import Event, Progress, StepPlan, follow, waiting_step
from bluekettle.core.stages.delaying import WAITS, is_wait, with_waits
from bluekettle.core.tables import row
from bluekettle.services.errors import Unreadable
from bluekettle.store.tables import Supper

Lines = Mapping[str, tuple[meals.Stands, ...]]


@dataclass(frozen=True)
class KeptSide:
    """A side: its steps, what was told of it, and the taps that were taken, by their numbers. was :
    the kind of body that it was planned in, where it had to leave that.
    """

    steps: tuple[StepPlan, ...]
    events: tuple[Event, ...] = ()
    taps: tuple[str, ...] = ()
    was: str = ""

    def with_event(self, kind: str, at_s: float, **more: Any) -> KeptSide:
        """The side with one more event."""
        event = Event(len(self.events) + 1, kind, at_s, **more)
        return replace(self, events=(*self.events, event))

    def tapped(self, tap: object) -> KeptSide:
        """The side with one more tap taken; as it is for one without a number."""
        return self if tap is None else replace(self, taps=(*self.taps, str(tap)))

    @property
    def last_done(self) -> int:
        """Number of the last step told that was not taken back; 0 where there is none."""
        gone = {event.undoes for event in self.events if event.kind == "undo"}
        done = [event.seq for event in self.events if event.kind == "done"]
        return max((seq for seq in done if seq not in gone), default=0)


@dataclass(frozen=True)
class Before:
    """What was told before the guests changed their mind, and the moment that was wanted then
    [s].
    """

    wanted_s: float
    told: meals.Told


@dataclass(frozen=True)
class KeptSupper:
    """What is kept of a supper. Seconds of the puzzle and of what was told count from `origin`,
    those of steps and events from `began`. how : between which tasks food waits, and how. seen :
    what the cook has seen of what was told: starts, and supper under an empty key [s]. before :
    what the guests can come back to.
    """

    name: str
    origin: datetime
    began: datetime
    puzzle: meals.Puzzle
    how: tuple[tuple[str, str, str], ...]
    names: dict[str, str]
    told: meals.Told
    seen: dict[str, float]
    sides: dict[str, KeptSide] = field(default_factory=dict)
    why: str = ""
    before: Before | None = None
    format: Literal["kettle.supper/1"] = "kettle.supper/1"

    @property
    def began_s(self) -> float:
        """When the clock of its cooks began [s from the origin]."""
        return (self.began - self.origin).total_seconds()

    def at(self, seconds: float) -> datetime:
        """A moment of the puzzle."""
        return self.origin + timedelta(seconds=seconds)

    def seconds(self, moment: datetime) -> float:
        """A moment on the clock of the puzzle [s]."""
        return (moment - self.origin).total_seconds()

    @property
    def waits(self) -> dict[tuple[str, str], str]:
        """How food waits, by the tasks that it waits between."""
        return {(before, after): how for before, after, how in self.how}


DOCUMENT: TypeAdapter[KeptSupper] = TypeAdapter(KeptSupper)


def kept_json(kept: KeptSupper) -> dict[str, Any]:
    """As it is stored."""
    found: dict[str, Any] = DOCUMENT.dump_python(kept, mode="json")
    return found


def kept_from(supper: Supper) -> KeptSupper:
    """As it was stored; Unreadable where that has no shape that is known."""
    try:
        return DOCUMENT.validate_python(supper.document)
    except ValidationError as error:
        why = str(error).splitlines()[0][:200]
        raise Unreadable("supper", int(supper.id or 0), supper.title, why) from error


def begun_supper(plan: meals.Schedule, name: str, origin: datetime, began: datetime) -> KeptSupper:
    """The plan of a meal whose cooking begins."""
    found = plan.found
    how = [(*pair, how) for line in plan.lines for pair, how in line.waits.items()]
    told = meals.Told(dict(found.start_s), dict(found.body), plan.supper_s)
    kept = KeptSupper(
        name=name,
        origin=origin,
        began=began,
        puzzle=replace(plan.puzzle, supper_s=0.0),
        how=tuple(how),
        names={line.key: line.name for line in plan.lines},
        told=told,
        seen={**found.start_s, "": plan.supper_s},
    )
    return kept


def with_line(kept: KeptSupper, line: meals.Line, keys: set[str]) -> KeptSupper:
    """The supper with what another plan of one of its dishes adds. What was there stays, so that
    the dish can come back to it; only what is on the stove counts. keys : of its tasks there.
    """
    puzzle = kept.puzzle
    uses = {(use.first, use.last): use for use in puzzle.uses}
    taken = {use.key for use in puzzle.uses}
    for use in line.uses:
        there = uses.get((use.first, use.last))
        key = there.key if there else fresh_key(use.key, taken)
        uses[use.first, use.last] = replace(use, key=key)
        taken.add(key)
    kinds = {body.kind for body in puzzle.bodies}
    new = dict.fromkeys(use.kind for use in line.uses if use.kind not in kinds)
    tasks = {task.key: task for task in (*puzzle.tasks, *line.tasks)}
    gaps = {(gap.before, gap.after): gap for gap in (*puzzle.gaps, *line.gaps)}
    both = replace(
        puzzle,
        tasks=tuple(tasks.values()),
        gaps=tuple(gaps.values()),
        uses=tuple(uses.values()),
        bodies=(*puzzle.bodies, *(meals.body_of(f"{kind}-new", kind) for kind in new)),
    )
    gone = {task.key for task in both.tasks if task.line == line.key} - keys
    start_s = {key: at for key, at in kept.told.start_s.items() if key not in gone}
    places = {use.key: both.bodies_of(use)[0].key for use in both.uses}
    told = replace(kept.told, start_s=start_s, bodies={**places, **kept.told.bodies})
    how = {**kept.waits, **line.waits}
    return replace(
        kept, puzzle=both, how=tuple((*pair, key) for pair, key in how.items()), told=told
    )


def fresh_key(key: str, taken: set[str]) -> str:
    """This key, or with marks behind it, so that no other has it."""
    while key in taken:
        key += "'"
    return key


def side_steps(line: meals.Line) -> tuple[StepPlan, ...]:
    """The steps of a side."""
    return tuple(
        StepPlan(
            task.key.partition("/")[2],
            line.who[task.key],
            line.labels[task.key],
            task.seconds,
            task.seconds,
            task.seconds,
        )
        for task in line.tasks
    )


def side_progress(kept: KeptSupper, line: str, now: datetime) -> Progress:
    """A side as it stands."""
    side = kept.sides[line]
    return follow(side.steps, side.events, (now - kept.began).total_seconds())


def standing(
    kept: KeptSupper, line: str, progress: Progress, now_s: float
) -> tuple[meals.Stands, ...]:
    """A line as the plan sees it."""
    return meals.stands_of(meals.Standing(line, progress.steps, kept.began_s), now_s)


def waits_for(
    kept: KeptSupper,
    holds: Sequence[meals.Hold],
    line: str,
    steps: Sequence[StepPlan],
    opened: Sequence[str] = (),
) -> list[tuple[str, StepPlan]]:
    """The waits of a line as steps, each with the step that it comes before. A wait that is not
    over keeps its key, so that a tap that is under way finds it. opened : keys of those.
    """
    known = {then.key: one.key for one, then in pairwise(steps) if one.key in opened}
    numbers = [number_of(plan.key) for plan in steps]
    over = [plan.key for plan in steps if is_wait(plan) and plan.key not in opened]
    found = []
    for hold in (hold for hold in holds if hold.line == line):
        before = hold.before.partition("/")[2]
        until_s = hold.until_s - kept.began_s
        seconds = max(0.0, hold.until_s - hold.begin_s)
        wait = replace(waiting_step(seconds), until_s=until_s)
        root, label = "slack", wait.label
        if hold.how:
            told = row("meal_waits", hold.how)
            root, label = told["step"], told["says"]
        if hold.how or wait.key in over:
            number = max([0, *numbers]) + 1
            numbers.append(number)
            wait = replace(wait, key=f"meal-{number}.{root}", label=label)
        same = known.get(before, "")
        if same.rpartition(".")[2] == wait.key.rpartition(".")[2]:
            wait = replace(wait, key=same)
        found.append((before, wait))
    return found


def number_of(key: str) -> int:
    """The number of a wait of the meal; 0 for any other step."""
    if not (key.startswith("meal-") and key.endswith(WAITS)):
        return 0
    return int(key.partition("-")[2].partition(".")[0])


def open_waits(progress: Progress) -> tuple[str, ...]:
    """Keys of the waits that are not over."""
    line = [state for state in progress.steps if not state.plan.beside]
    return tuple(s.plan.key for s in line if is_wait(s.plan) and s.end_s is None)


def first_steps(kept: KeptSupper, line: str, steps: Sequence[StepPlan]) -> tuple[StepPlan, ...]:
    """The steps of a line with the waits that the plan has for it."""
    progress = follow(steps, (), 0.0)
    lines = {line: standing(kept, line, progress, kept.began_s)}
    holds = meals.holds_of(lines, kept.told.start_s, kept.waits, kept.began_s)
    beside = [plan for plan in steps if plan.beside]
    serial = [plan for plan in steps if not plan.beside]
    return (*with_waits(serial, (), (), waits_for(kept, holds, line, serial)), *beside)
