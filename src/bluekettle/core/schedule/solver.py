"""The search for the plan of a meal, by CP-SAT (Google OR-Tools): one worker and a fixed seed, so
that the same meal gives the same plan. Sees durations, hands, bodies and windows; no food.
"""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from contextlib import suppress
from dataclasses import dataclass, replace
from itertools import combinations
from typing import TYPE_CHECKING, Any

from bluekettle.core.errors import Infeasible, NotConverged
from bluekettle.core.schedule.puzzle import Gap, Puzzle, Use, between_s, together

if TYPE_CHECKING:
    from ortools.sat.python import cp_model

TICK_S = 30.0  # the grid of the plan (numerical)
HORIZON_S = 15 * 86_400.0  # before and after the wanted moment (design: 14 days)
LATEST_S = 86_400.0  # after the wanted moment
EFFORT = 0.2  # deterministic units of a search: about a second (design)
SHARED = 3.0  # times that is what all have together; the last one has the rest (numerical)
BELOW = 0.45  # of the effort of a search, for its try from below (numerical)
FIRST_TRY = 20  # ticks that supper is moved by first where it does not fit (numerical)
TRY_SHARE = 0.25  # of the effort of a search, for a later try (numerical)
MOST_BY_ENERGY = 100  # tasks (numerical)
CLOSE = 0.02  # to the bound is good enough (design)

# Prices of a minute, beside a minute of evening = 1 (design 3's order). What is late or past a
# limit has no price: it is made least before anything else is looked at.
TABLE, TOLD, BEGIN = 20.0, 6.0, 0.5
LATE_FIRST = 2  # a minute late, beside a minute past a limit of quality (design's order)
SCALE = 10  # prices are whole numbers for the solver (numerical)


@dataclass(frozen=True)
class Found:
    """A plan: start of every task [s], the body of every use, supper [s from the wanted moment],
    and how far its price may be from the best [-]; proven where that is no more than `CLOSE`.
    """

    start_s: dict[str, float]
    body: dict[str, str]
    supper_s: float
    price: float
    gap: float
    proven: bool


@dataclass(frozen=True)
class Aim:
    """What is asked of a plan beside obeying the puzzle.

    soonest : supper as early as can be, whatever moment is wanted. begin_late : the latest first
    act that still serves on time. limits_only : any plan that is on time and within the limits.
    within : the first supper with every limit of quality kept, however late. effort : in the
    solver's deterministic units, of one search (`SHARED`).
    """

    soonest: bool = False
    begin_late: bool = False
    limits_only: bool = False
    within: bool = False
    most_s: float = math.inf
    effort: float = EFFORT


def ticks(seconds: float) -> int:
    """Seconds on the grid of the plan, rounded up."""
    return math.ceil(seconds / TICK_S - 1e-9)


def solve(puzzle: Puzzle, aim: Aim | None = None) -> Found:
    """The cheapest plan of a puzzle: first on time, then within every limit of quality, then by its
    price (the order of design 3).

    Raises
    ------
    OutOfRange
        A puzzle that does not hang together.
    Infeasible
        No plan obeys it, however late.
    NotConverged
        None was found with this effort.
    """
    puzzle.check()
    aim = aim or Aim()
    missing = [use.kind for use in puzzle.uses if not puzzle.bodies_of(use)]
    if missing:
        raise Infeasible([f"no appliance: {kind}" for kind in dict.fromkeys(missing)])
    search = Search(puzzle, aim)
    price = search.lateness()
    if aim.within:
        search.keep_every_limit()
    search.stay_below(aim.most_s)
    first = search.look_ahead(price) or search.run(price)
    if aim.soonest or aim.within:
        return first
    if aim.begin_late and first.supper_s > puzzle.supper_s:
        raise Infeasible(["supper is late however early it begins"])
    search.fix_supper(first.supper_s)
    on_time = first.proven and first.supper_s <= search.soonest_s()
    second = first if on_time else search.run(sum(search.over))
    if aim.limits_only:
        return second
    search.keep_limits()
    third = search.run(sum(search.cost), search.left_over())
    return replace(third, proven=first.proven and second.proven and third.proven)


class Search:
    """The model of one puzzle."""

    def __init__(self, puzzle: Puzzle, aim: Aim) -> None:
        from ortools.sat.python import cp_model  # noqa: PLC0415  (slow to import)

        self.cp: Any = cp_model
        self.puzzle, self.aim = puzzle, aim
        self.model: cp_model.CpModel = cp_model.CpModel()
        self.tasks = {task.key: task for task in puzzle.tasks}
        self.root, self.offset_s = chained(puzzle)
        self.at: dict[str, Any] = {}  # by the first task of what is rigid
        self.inside: dict[tuple[str, str], Any] = {}  # whether a use is in a body
        self.cost: list[Any] = []
        self.over: list[Any] = []  # past limits of quality
        self.hint: dict[int, int] = {}
        self.spent = 0.0  # deterministic units
        self.last: Any = None  # solver of the last attempt
        self.low = ticks(puzzle.now_s)
        self.high = max(self.low, 0) + ticks(LATEST_S)
        self._starts()
        self._gaps()
        self._hands()
        self._bodies()
        self._table()

    def _starts(self) -> None:
        """One variable for what follows each other at once."""
        for head in dict.fromkeys(self.root.values()):
            began_s = self.tasks[head].start_s
            if began_s is None:
                self.at[head] = self.model.new_int_var(self.low, self.high, head)
                continue
            # What began already may lie before now, and is on no grid.
            tick = whole(began_s)
            self.at[head] = self.model.new_int_var(tick, tick, head)
            for key in (key for key, one in self.root.items() if one == head):
                self.offset_s[key] += began_s - TICK_S * tick

    def start(self, key: str) -> Any:
        """Start of a task on the grid; never later than it is."""
        return self.at[self.root[key]] + whole(self.offset_s[key])

    def end(self, key: str) -> Any:
        """End of a task on the grid; never sooner than it is."""
        return self.at[self.root[key]] + ticks(self.offset_s[key] + self.tasks[key].seconds)

    def longest(self, gap: Gap) -> Any:
        """A gap on the grid; never shorter than it is."""
        begin = self.at[self.root[gap.after]] + ticks(self.offset_s[gap.after])
        end_s = self.offset_s[gap.before] + self.tasks[gap.before].seconds
        return begin - self.at[self.root[gap.before]] - whole(end_s)

    def _gaps(self) -> None:
        for gap in self.puzzle.gaps:
            length = self.start(gap.after) - self.end(gap.before)
            if rigid(gap):
                continue  # one variable already
            self.model.add(length >= ticks(gap.least_s))
            if gap.most_s is not None and gap.quality:
                # At a price that only what cannot be helped is worth.
                self._past(length - most_of(gap), f"past {gap.after}")
            elif gap.most_s is not None:
                self.model.add(self.longest(gap) <= most_of(gap))
            wish = ticks(gap.wish_s)
            if gap.price:
                self._price(length - wish, gap.price, f"over {gap.after}")
            if gap.short and wish:
                self._price(wish - length, gap.short, f"short {gap.after}")

    def _past(self, amount: Any, name: str) -> None:
        """Count what lies past a limit of quality."""
        over = self.model.new_int_var(0, self.high - ticks(-HORIZON_S), name)
        self.model.add(over >= amount)
        self.over.append(over)

    def _price(self, amount: Any, price: float, name: str) -> None:
        """Pay for every tick of an amount above nothing."""
        over = self.model.new_int_var(0, self.high - ticks(-HORIZON_S), name)
        self.model.add(over >= amount)
        self.cost.append(over * round(SCALE * price))

    def _hands(self) -> None:
        spans, demands = [], []
        for _, head, begin_s, end_s in busy_spans(self.puzzle, self.root, self.offset_s):
            begin, size = whole(begin_s), ticks(end_s) - whole(begin_s)
            at = self.at[head] + begin
            spans.append(self.model.new_fixed_size_interval_var(at, size, f"hands {head}"))
            demands.append(1)
        for place, (begin_s, end_s) in enumerate(self.puzzle.quiet):
            begin, end = whole(begin_s), ticks(end_s)
            if end > begin:
                name = f"quiet {place}"
                spans.append(self.model.new_fixed_size_interval_var(begin, end - begin, name))
                demands.append(self.puzzle.pairs)
        if self.puzzle.pairs == 1:
            self.model.add_no_overlap(spans)
        else:
            self.model.add_cumulative(spans, demands, self.puzzle.pairs)

    def _bodies(self) -> None:
        for use in self.puzzle.uses:
            inside = []
            for body in self.puzzle.bodies_of(use):
                here = self.model.new_bool_var(f"{use.key} in {body.key}")
                self.inside[use.key, body.key] = here
                inside.append(here)
            self.model.add_exactly_one(inside)
            first = self.start(use.first)
            if not self.begun(use):
                self.model.add(first >= self.low + ticks(use.ready_s))
        for body in self.puzzle.bodies:
            uses = [use for use in self.puzzle.uses if (use.key, body.key) in self.inside]
            # A line knows its own order.
            pairs = [two for two in combinations(uses, 2) if two[0].line != two[1].line]
            apart = [two for two in pairs if not together(*two, body)]
            for one, other in apart:
                if not (self.begun(one) and self.begun(other)):
                    self._apart(one, other, body.key)
            if len(uses) > body.places and len(apart) < len(pairs):
                self._room(uses, body.key, body.places)

    def begun(self, use: Use) -> bool:
        """Whether a body is taken already, or was."""
        return self.tasks[use.first].start_s is not None

    def _apart(self, one: Use, other: Use, body: str) -> None:
        """One after the other, with the time between them."""
        first = self.model.new_bool_var(f"{one.key} before {other.key} in {body}")
        both = [self.inside[one.key, body], self.inside[other.key, body]]
        for early, late, literal in ((one, other, first), (other, one, ~first)):
            free = self.end(early.last) + ticks(between_s(early, late))
            rule = self.model.add(self.start(late.first) >= free)
            rule.only_enforce_if([*both, literal])

    def _room(self, uses: Sequence[Use], body: str, places: int) -> None:
        spans = []
        for use in uses:
            begin, end = self.start(use.first), self.end(use.last)
            size = self.model.new_int_var(0, self.high - ticks(-HORIZON_S), f"length {use.key}")
            here = self.inside[use.key, body]
            name = f"{use.key} takes {body}"
            spans.append(self.model.new_optional_interval_var(begin, size, end, here, name))
        self.model.add_cumulative(spans, [1] * len(spans), places)

    def _table(self) -> None:
        """Everything on the table together, on time."""
        self.supper = self.model.new_int_var(self.low, self.high, "supper")
        for last in self.puzzle.ends.values():
            end = self.end(last)
            self.model.add(self.supper >= end)
            self._price(self.supper - end, TABLE, f"table {last}")
            self._past(self.supper - end - ticks(self.puzzle.table_s), f"cold {last}")
        for task in self.puzzle.tasks:
            if task.told_s is not None and task.start_s is None:
                at, told = self.start(task.key), ticks(task.told_s)
                self._price(at - told, TOLD, f"later {task.key}")
                self._price(told - at, TOLD, f"sooner {task.key}")
        self._evening()

    def _evening(self) -> None:
        """The shortest evening: every line begins late; or the first of them as late as can be."""
        begins = [self.start(key) for key in self.puzzle.begins if self.tasks[key].start_s is None]
        if not self.aim.begin_late:
            self.cost += [(self.supper - begin) * round(SCALE * BEGIN) for begin in begins]
            return
        first = self.model.new_int_var(ticks(-HORIZON_S), self.high, "begin")
        for begin in begins:
            self.model.add(first <= begin)
        self.cost = [self.supper - first]

    def look_ahead(self, price: Any) -> Found | None:
        """Some plan to begin with, as early as whole tries tell: left alone, the search may stay
        hours late. Supper at a fixed moment is found, or is not, within some hundredths of a
        second; where even that is hard to tell, the search goes first. The plan itself, where none
        can be less late and less past its limits.
        """
        wanted = ticks(self.puzzle.supper_s)
        soonest = self.low if self.aim.soonest else max(wanted, self.low)
        found = self.fits(soonest, self.aim.effort)
        if found:
            least = self.within_limits(soonest)
            later = 1 if self.aim.soonest else self.no_later(soonest)
            return least if later == 0 else None
        never, late = soonest, soonest + FIRST_TRY
        if found is None:
            with suppress(NotConverged):
                late = ticks(self.run(price).supper_s)
        effort = TRY_SHARE * self.aim.effort
        while not self.hint and not self.fits(min(late, self.high), effort):
            if late >= self.high:
                return None
            never, late = late, soonest + 3 * (late - soonest)
        while late - never > FIRST_TRY:
            between = (late + never) // 2
            if self.fits(between, effort):
                late = between
            else:
                never = between
        return None

    def within_limits(self, supper: int) -> Found | None:
        """A plan with little past the limits of quality: from below, which either proves it soon or
        never does; then from above. The plan where none has less.
        """
        past = sum(self.over)
        status = self.attempt(supper, BELOW * self.aim.effort, past, from_below=True)
        if status != self.cp.OPTIMAL:
            status = self.attempt(supper, self.aim.effort, past)
        return self.read(self.last, proven=True) if status == self.cp.OPTIMAL else None

    def no_later(self, soonest: int) -> int:
        """Supper no later than is worth what the plan at hand has past the limits, and how much
        that is [ticks]: a later one that has none of it would cost as much.
        """
        past = sum(self.hint[over.index] for over in self.over)
        later = int(past // LATE_FIRST)
        self.model.add(self.supper <= soonest + later)
        return later

    def fits(self, supper: int, effort: float) -> bool | None:
        """Whether there is a plan with supper at that tick, None where that cannot be told; where
        there is, the next search begins with it.
        """
        status = self.attempt(supper, effort)
        if status in (self.cp.OPTIMAL, self.cp.FEASIBLE):
            return True
        return False if status == self.cp.INFEASIBLE else None

    def attempt(
        self, supper: int, effort: float, price: Any = 0, from_below: bool = False
    ) -> object:
        """What comes of a search with supper at that tick: the solver's status. The next search
        begins with the cheapest plan that it found by a price.
        """
        model = self.model.clone()
        model.add(model.get_int_var_from_proto_index(self.supper.index) == supper)
        model.minimize(price)
        self.begin_with_hint(model)
        solver = self.solver(effort)
        solver.parameters.use_objective_lb_search = from_below
        status = solver.solve(model)
        self.spent += solver.response_proto.deterministic_time
        if status in (self.cp.OPTIMAL, self.cp.FEASIBLE):
            self.hint = dict(enumerate(solver.response_proto.solution))
        self.last = solver
        return status

    def begin_with_hint(self, model: cp_model.CpModel) -> None:
        """A model whose search begins with what the last one found."""
        model.clear_hints()  # type: ignore[no-untyped-call]
        for index, number in self.hint.items():
            model.add_hint(model.get_int_var_from_proto_index(index), number)

    def solver(self, effort: float) -> Any:
        """A search of so many deterministic units."""
        solver = self.cp.CpSolver()
        told = solver.parameters
        told.num_workers, told.random_seed, told.linearization_level = 1, 1, 2
        told.max_deterministic_time, told.relative_gap_limit = effort, CLOSE
        told.use_strong_propagation_in_disjunctive = True
        told.use_precedences_in_disjunctive_constraint = True
        # Shelves and pairs of hands by their energy: half of the time for eight dishes, twice as
        # much where there are many more tasks (measured, make bench).
        told.use_timetable_edge_finding_in_cumulative = len(self.puzzle.tasks) <= MOST_BY_ENERGY
        return solver

    def lateness(self) -> Any:
        """What the first search makes least: minutes late, and past limits of quality."""
        if self.aim.soonest:
            return self.supper + sum(self.over)
        wanted = ticks(self.puzzle.supper_s)
        self.model.add(self.supper >= wanted)
        return (self.supper - wanted) * LATE_FIRST + sum(self.over)

    def soonest_s(self) -> float:
        """Supper where nothing is late [s]."""
        return TICK_S * max(ticks(self.puzzle.supper_s), self.low)

    def fix_supper(self, supper_s: float) -> None:
        """Supper at that moment."""
        self.model.add(self.supper == ticks(supper_s))

    def keep_limits(self) -> None:
        """No more past the limits of quality than the last search found."""
        past = sum(self.hint[over.index] for over in self.over)
        if past == 0:
            self.keep_every_limit()
        else:
            self.model.add(sum(self.over) <= past)

    def keep_every_limit(self) -> None:
        """Nothing is past a limit of quality."""
        for over in self.over:
            self.model.add(over == 0)

    def stay_below(self, most_s: float) -> None:
        """No more than so much is late and past limits together."""
        if most_s < math.inf:
            late = self.supper - ticks(self.puzzle.supper_s)
            self.model.add(late + sum(self.over) <= whole(most_s))

    def left_over(self) -> float:
        """The effort of the last search, its own at least [-]: the solver's deterministic units."""
        return max(self.aim.effort, SHARED * self.aim.effort - self.spent)

    def run(self, price: Any, effort: float | None = None) -> Found:
        """The best plan by a price that the effort finds, from the last one on; as `solve`."""
        self.model.minimize(price)
        self.begin_with_hint(self.model)
        solver = self.solver(self.aim.effort if effort is None else effort)
        status = solver.solve(self.model)
        self.spent += solver.response_proto.deterministic_time
        if status in (self.cp.OPTIMAL, self.cp.FEASIBLE):
            numbers = solver.response_proto.solution
            self.hint = dict(enumerate(numbers))
            return self.read(solver, proven=status == self.cp.OPTIMAL)
        if status == self.cp.INFEASIBLE:
            raise Infeasible(["no plan keeps every limit of safety"])
        raise NotConverged("plan of the meal", self.aim.effort, self.aim.effort)

    def _seconds(self, answer: Any) -> dict[str, float]:
        """Start of every task [s]."""
        at = {head: TICK_S * answer.value(begin) for head, begin in self.at.items()}
        return {key: at[head] + self.offset_s[key] for key, head in self.root.items()}

    def read(self, answer: Any, proven: bool) -> Found:
        """The plan that the solver holds."""
        price, bound = answer.objective_value, answer.best_objective_bound
        return Found(
            self._seconds(answer),
            {use: body for (use, body), here in self.inside.items() if answer.value(here)},
            TICK_S * answer.value(self.supper),
            price / SCALE,
            (price - bound) / max(1.0, abs(price)),
            proven,
        )


def whole(seconds: float) -> int:
    """Seconds on the grid, rounded down."""
    return math.floor(seconds / TICK_S + 1e-9)


def most_of(gap: Gap) -> int:
    """The most of a gap on the grid, rounded down."""
    return whole(gap.most_s or 0.0)


def rigid(gap: Gap) -> bool:
    """Whether one task begins the moment that the other ends, or so much later."""
    return gap.most_s is not None and gap.most_s <= gap.least_s


def chained(puzzle: Puzzle) -> tuple[dict[str, str], dict[str, float]]:
    """For every task, the first of those that follow each other at once, and how long after its
    start it begins [s].
    """
    root = {task.key: task.key for task in puzzle.tasks}
    offset = {task.key: 0.0 for task in puzzle.tasks}
    seconds = {task.key: task.seconds for task in puzzle.tasks}
    for gap in puzzle.gaps:
        if not rigid(gap):
            continue
        was, head = root[gap.after], root[gap.before]
        move = offset[gap.before] + seconds[gap.before] + gap.least_s - offset[gap.after]
        for key in [key for key, one in root.items() if one == was]:
            root[key], offset[key] = head, offset[key] + move
    return root, offset


def busy_spans(
    puzzle: Puzzle, root: Mapping[str, str], offset_s: Mapping[str, float]
) -> list[tuple[str, str, float, float]]:
    """Spans in which what is rigid takes hands: their first act, the head of what is rigid, and
    from when to when after the begin of that [s]; acts that follow each other are one.
    """
    found: list[tuple[str, str, float, float]] = []
    mine = [task for task in puzzle.tasks if task.hands]
    for task in sorted(mine, key=lambda t: (root[t.key], offset_s[t.key])):
        head, start = root[task.key], offset_s[task.key]
        begin, end = start + task.free_s, start + task.seconds + task.tail_s
        if found and found[-1][1] == head and begin - found[-1][3] < TICK_S:
            key, _, since, until = found[-1]
            found[-1] = (key, head, since, max(until, end))
        else:
            found.append((task.key, head, begin, end))
    return found


TOUCH_S = 1e-6  # (numerical)


def threads(puzzle: Puzzle, start_s: dict[str, float]) -> dict[str, int]:
    """Which pair of hands does what: the one that is free longest takes the next."""
    free = [-math.inf] * puzzle.pairs
    found: dict[str, int] = {}
    mine = [task for task in puzzle.tasks if task.hands]
    for task in sorted(mine, key=lambda t: start_s[t.key] + t.free_s):
        begin = start_s[task.key] + task.free_s
        pair = next((n for n, until in enumerate(free) if until <= begin + TOUCH_S), None)
        pair = free.index(min(free)) if pair is None else pair
        found[task.key] = pair
        free[pair] = start_s[task.key] + task.seconds
    return found


def earlier_uses(found: Found, puzzle: Puzzle) -> dict[str, list[Use]]:
    """For every use, those of other lines that begin before it in the same body."""
    earlier: dict[str, list[Use]] = {}
    for then in puzzle.uses:
        begin = found.start_s[then.first]
        earlier[then.key] = [
            one
            for one in puzzle.uses
            if one.line != then.line
            and found.body[one.key] == found.body[then.key]
            and found.start_s[one.first] < begin
        ]
    return earlier
