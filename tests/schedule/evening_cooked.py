"""An evening cooked by one pair of hands: every dish is followed as its steps say, hands take what
is due first, and what drifts is planned anew.
"""

from __future__ import annotations

import random
import time
from collections.abc import Callable, Mapping
from dataclasses import dataclass, field, replace
from datetime import UTC, datetime
from functools import cache

from bluekettle.core import schedule as core
from bluekettle.core.schedule.puzzle import between_s, together
from bluekettle.core.schedule.solver import rigid
from bluekettle.core.stages import Event, StepPlan, follow, waiting_step
from bluekettle.core.stages.delaying import is_wait
from bluekettle.core.stages.told import Progress
from bluekettle.core.tables import row
from bluekettle.schemas.chain import ChainDocument
from bluekettle.services.chains import begin_chain
from tests.chain.conftest import TEMPLATES
from tests.schedule.meals import MEALS, made

TICK_S = 20.0
HANDS = ("hands", "gate")
NOW = datetime(2030, 5, 4, 16, 0, tzinfo=UTC)


@dataclass
class Cooked:
    """One line on the stove: its steps and what was told."""

    steps: tuple[StepPlan, ...]
    events: list[Event] = field(default_factory=list)

    def tell(self, kind: str, at_s: float, **more) -> None:
        """Append an event."""
        self.events.append(Event(len(self.events) + 1, kind, at_s, **more))


class Evening:
    """A plan and its lines; the clock of all begins as the plan is made.

    takes : how many times as long as likely a step really takes.
    """

    def __init__(
        self,
        plan: core.Schedule,
        steps: Mapping[str, tuple[StepPlan, ...]],
        takes: Callable[[str, StepPlan], float] = lambda _line, _step: 1.0,
        replans: bool = True,
    ) -> None:
        self.puzzle = replace(plan.puzzle, supper_s=0.0)
        self.how = {pair: how for line in plan.lines for pair, how in line.waits.items()}
        self.began_s = plan.puzzle.now_s
        self.told = core.Told(plan.found.start_s, plan.found.body, plan.supper_s)
        self.takes, self.replans = takes, replans
        self.lines = {key: Cooked(own) for key, own in steps.items()}
        self.free_s = [self.began_s] * self.puzzle.pairs
        self.busy: dict[str, float] = {}
        self.spent: list[float] = []
        self.served: dict[str, float] = {}
        self.pair: dict[str, int] = {}
        self.watches: list[tuple[int, float, float]] = []
        self.at_once = {gap.after for gap in self.puzzle.gaps if rigid(gap)}
        self.begun: dict[str, float] = {}
        self.over: dict[str, float] = {}
        self.puzzles: list[tuple[core.Puzzle, core.Found]] = []
        self.now_s = self.began_s
        self.move()

    def progress(self, line: str) -> Progress:
        """A line as it stands."""
        one = self.lines[line]
        return follow(one.steps, one.events, self.now_s - self.began_s)

    def stands(self) -> dict[str, tuple[core.Stands, ...]]:
        """All lines that are not over."""
        found = {}
        for line in self.lines:
            progress = self.progress(line)
            if not progress.finished:
                standing = core.Standing(line, progress.steps, self.began_s)
                found[line] = core.stands_of(standing, self.now_s)
        return found

    def move(self) -> None:
        """Put the waits of a plan into the lines."""
        lines = self.stands()
        holds = core.holds_of(lines, self.told.start_s, self.how, self.now_s)
        for line in lines:
            states = [s for s in self.progress(line).steps if not s.plan.beside]
            dropped = tuple(s.plan.key for s in states if is_wait(s.plan) and s.end_s is None)
            waits = [self.wait_of(hold) for hold in holds if hold.line == line]
            at = self.now_s - self.began_s
            self.lines[line].tell("moved", at, dropped=dropped, waits=tuple(waits))

    def wait_of(self, hold: core.Hold) -> tuple[str, StepPlan]:
        """A wait as a step."""
        before = hold.before.partition("/")[2]
        until = hold.until_s - self.began_s
        step = waiting_step(until)
        if hold.how:
            root = row("meal_waits", hold.how)["step"]
            moves = len(self.lines[hold.line].events)
            step = replace(step, key=f"{moves}-before-{before}.{root}", label="Wait")
        return before, replace(step, until_s=until)

    def tick(self) -> None:
        """A quarter of a minute goes by."""
        self.now_s += TICK_S
        for line in self.lines:
            self.go_on(line)
        for pair in range(self.puzzle.pairs):
            if self.is_free(pair):
                self.take(pair)
        lines = self.stands()
        if self.replans and lines and self.stale(lines):
            self.replan(lines)

    def stale(self, lines: Mapping[str, tuple[core.Stands, ...]]) -> bool:
        """Whether the rest is to be planned anew."""
        outlook = core.outlook_of(self.puzzle, lines, self.told, self.now_s)
        return core.is_stale(outlook, lines, self.told, self.now_s)

    def replan(self, lines: Mapping[str, tuple[core.Stands, ...]]) -> None:
        """The rest anew; and that is all there is to be done."""
        begin = time.perf_counter()
        plan = core.replan(self.puzzle, lines, self.told, self.now_s)
        self.spent.append(time.perf_counter() - begin)
        self.puzzles.append((plan.puzzle, plan.found))
        self.told = plan.told
        self.move()
        assert not self.stale(self.stands())

    def go_on(self, line: str) -> None:
        """A machine is done, a fire is over, or hands are done."""
        state = current(self.progress(line))
        if state is None or is_wait(state.plan):
            return
        if state.plan.who in HANDS:
            if self.busy.get(line, self.now_s + 1.0) <= self.now_s:
                del self.busy[line]
                self.done(line, state.plan)
            return
        self.begun.setdefault(f"{line}/{state.plan.key}", self.began_s + (state.begin_s or 0.0))
        takes = self.takes(line, state.plan) * state.plan.likely_s
        if self.now_s >= self.began_s + (state.begin_s or 0.0) + takes:
            self.done(line, state.plan)

    def done(self, line: str, plan: StepPlan) -> None:
        """Told."""
        told = {"tender": True, "temp_c": 95.0} if plan.who == "gate" else {}
        self.lines[line].tell("done", self.now_s - self.began_s, step=plan.key, **told)
        self.over[f"{line}/{plan.key}"] = self.now_s
        self.stand_by(line)
        if self.puzzle.ends[line] == f"{line}/{plan.key}":
            self.served[line] = self.now_s

    def stand_by(self, line: str) -> None:
        """Whoever put food under a fire stays with it; with a long one, for its last minutes."""
        state, pair = current(self.progress(line)), self.pair.get(line)
        if state is None or state.plan.who != "fire" or pair is None:
            return
        lasts = self.takes(line, state.plan) * state.plan.likely_s
        free = self.puzzle.task(f"{line}/{state.plan.key}").free_s
        self.watches.append((pair, self.now_s + free, self.now_s + lasts))

    def is_free(self, pair: int) -> bool:
        """Whether a pair of hands has nothing to do and no fire to watch."""
        watched = any(own == pair and a <= self.now_s < b for own, a, b in self.watches)
        return self.free_s[pair] <= self.now_s and not watched

    def take(self, pair: int) -> None:
        """A pair of hands takes what follows at once, else what was told to begin first."""
        waiting = []
        for line in self.lines:
            state = current(self.progress(line))
            if state is None or line in self.busy or state.plan.who not in HANDS:
                continue
            key = f"{line}/{state.plan.key}"
            if self.is_taken(key):
                continue
            told_s = self.told.start_s.get(key, self.now_s)
            waiting.append((key not in self.at_once, told_s, line, state.plan))
        if not waiting:
            return
        *_, line, plan = min(waiting, key=lambda one: one[:2])
        self.pair[line] = pair
        self.busy[line] = self.now_s + self.takes(line, plan) * plan.likely_s
        self.free_s[pair] = self.busy[line]
        self.begun[f"{line}/{plan.key}"] = self.now_s

    def is_taken(self, key: str) -> bool:
        """Whether another is still where this food is to go, or left it not ready yet."""
        for then in (use for use in self.puzzle.uses if use.first == key):
            place = self.told.bodies[then.key]
            body = next(one for one in self.puzzle.bodies if one.key == place)
            for one in self.puzzle.uses:
                same = one.line != then.line and self.told.bodies[one.key] == place
                if not same or one.first not in self.begun or together(one, then, body):
                    continue
                out_s = self.over.get(one.last)
                if out_s is None or self.now_s < out_s + between_s(one, then):
                    return True
        return False

    def past(self) -> dict[str, float]:
        """By how much limits were broken, by the task before which the food waited [s]."""
        found = {}
        for gap in self.puzzle.gaps:
            if gap.most_s is None or gap.before not in self.over:
                continue
            over = self.begun[gap.after] - self.over[gap.before] - gap.most_s
            if over > 2.0 * TICK_S:
                found[gap.after] = over
        last = max(self.served.values(), default=0.0)
        for line, at in self.served.items():
            if last - at > self.puzzle.table_s + TICK_S:
                found[line] = last - at - self.puzzle.table_s
        return found

    def cook(self, until_s: float) -> None:
        """To the end, or until then."""
        while self.now_s < until_s and self.stands():
            self.tick()


def current(progress: Progress):
    """The state of the current step; None at the end."""
    return next((s for s in progress.steps if s.plan.key == progress.current), None)


@cache
def planned(key: str) -> tuple[core.Schedule, dict[str, tuple[StepPlan, ...]]]:
    """The plan of a made meal, and the steps of each of its lines."""
    meal, kitchen, now_s = made(key)
    plan = core.schedule(meal, kitchen, now_s)
    steps = {}
    for one in MEALS[key]["meal"]["dishes"]:
        document = ChainDocument.model_validate(one.get("dish") or TEMPLATES[one["template"]])
        steps[one["id"]] = begin_chain(document, NOW)[1]
    for line in plan.lines:
        if line.key not in steps:
            steps[line.key] = tuple(
                StepPlan(
                    task.key.partition("/")[2],
                    line.who[task.key],
                    line.labels[task.key],
                    *[task.seconds] * 3,
                )
                for task in line.tasks
            )
    return plan, steps


def slowed(steps: Mapping[str, tuple[StepPlan, ...]], seed: int) -> dict[str, float]:
    """A third of all steps, drawn by chance, and how many times as long each of them takes."""
    dice = random.Random(seed)
    return {
        f"{line}/{step.key}": dice.uniform(1.3, 1.6)
        for line, own in steps.items()
        for step in own
        if dice.random() < 1.0 / 3.0
    }
