"""A meal as a puzzle: tasks, gaps between them, what they occupy, hands and a clock. Knows no food.

All times are seconds from the moment at which it is to be served; what is before it is negative.
"""

from __future__ import annotations

from collections import Counter
from dataclasses import dataclass
from functools import cached_property

from bluekettle.core.errors import Fault, OutOfRange

WITHIN_K = 10.0  # settings that two trays can share (design: within a tolerance; estimated)
COOLING_K_MIN = 5.0  # of an oven with its door ajar (estimated)
ROOM_C = 20.0  # where a cold appliance starts from (estimated)
LEAST_SHARE = 0.1  # of a preheat that a dial turned up a little still takes (estimated)
TABLE_S = 300.0  # that a dish stands on the table before the last one comes (estimated)
EMPTIED_S = 60.0  # between two uses of a vessel: it is rinsed (estimated)


@dataclass(frozen=True)
class Task:
    """One act or wait: which line it belongs to, its planned seconds, whether it takes a pair of
    hands, how long it does without at first, and how much longer they are to be kept free (a fire
    may take longer).

    start_s : where it began already. told_s : where the cook was told it begins.
    """

    key: str
    line: str
    seconds: float
    hands: bool = False
    tail_s: float = 0.0
    free_s: float = 0.0
    start_s: float | None = None
    told_s: float | None = None


@dataclass(frozen=True)
class Gap:
    """How long after the end of one task another begins: least and most [s], None for no most.

    quality : its most is a matter of quality, and kept where that can be done at all; else of
    safety, and always kept. wish_s : a wait that is kept in hand, where it costs nothing. price :
    of a minute beyond it, and `short` of a minute that lacks, both beside a minute of evening.
    """

    before: str
    after: str
    least_s: float = 0.0
    most_s: float | None = 0.0
    quality: bool = False
    wish_s: float = 0.0
    price: float = 1.0
    short: float = 0.0


@dataclass(frozen=True)
class Use:
    """A body taken from the start of one task to the end of another.

    kind : of the body. temp_c : of its setting; None where it has none. shares : whether another at
    nearly this setting fits beside it. ready_s : how long before `first` it is switched on, cold_s
    : how long it takes from cold, both [s]. body : where it is already; empty where that is open.
    """

    key: str
    line: str
    kind: str
    first: str
    last: str
    temp_c: float | None = None
    shares: bool = False
    ready_s: float = 0.0
    cold_s: float = 0.0
    body: str = ""


@dataclass(frozen=True)
class Body:
    """Something that heats: places for trays or baskets; zoned where each has a setting of its
    own.
    """

    key: str
    kind: str
    places: int = 1
    zoned: bool = False


@dataclass(frozen=True)
class Puzzle:
    """Everything that a plan of a meal has to obey.

    ends : the last task of each line. begins : tasks that begin late in a short evening. supper_s :
    when everything is to be there. table_s : how long a line may stand on the table before the last
    one comes [s]. now_s : nothing begins before. quiet : spans without any hands.
    """

    tasks: tuple[Task, ...]
    gaps: tuple[Gap, ...]
    uses: tuple[Use, ...]
    bodies: tuple[Body, ...]
    ends: dict[str, str]
    begins: tuple[str, ...]
    now_s: float
    pairs: int = 1
    supper_s: float = 0.0
    table_s: float = TABLE_S
    quiet: tuple[tuple[float, float], ...] = ()

    def check(self) -> None:
        """Raise OutOfRange for a puzzle that does not hang together."""
        faults: list[Fault] = []
        keys = Counter(task.key for task in self.tasks)
        faults += [Fault("tasks", key, "a key of its own") for key, n in keys.items() if n > 1]
        for gap in self.gaps:
            for end in (gap.before, gap.after):
                if end not in keys:
                    faults.append(Fault("gaps", end, "a task"))
            if gap.most_s is not None and gap.most_s < gap.least_s:
                faults.append(Fault("gaps", gap.most_s, f"at least {gap.least_s:g} s"))
        for use in self.uses:
            for end in (use.first, use.last):
                if end not in keys:
                    faults.append(Fault("uses", end, "a task"))
        if self.pairs < 1:
            faults.append(Fault("hands", self.pairs, "at least one pair"))
        if faults:
            raise OutOfRange(faults)

    def task(self, key: str) -> Task:
        """The task of this key; KeyError where there is none."""
        return self._by_key[key]

    @cached_property
    def _by_key(self) -> dict[str, Task]:
        return {task.key: task for task in self.tasks}

    def bodies_of(self, use: Use) -> tuple[Body, ...]:
        """What a use can be put into."""
        if use.body:
            return tuple(body for body in self.bodies if body.key == use.body)
        return tuple(body for body in self.bodies if body.kind == use.kind)


def together(one: Use, other: Use, body: Body) -> bool:
    """Whether two uses can share a body at the same time, where there is room."""
    if body.zoned:
        return True
    if not (one.shares and other.shares) or one.temp_c is None or other.temp_c is None:
        return False
    return abs(one.temp_c - other.temp_c) <= WITHIN_K


def between_s(one: Use, then: Use) -> float:
    """Seconds from the end of one use to the first task of the next in the same body: it heats on,
    or cools down, or is emptied.
    """
    if one.temp_c is None or then.temp_c is None:
        return EMPTIED_S
    if one.temp_c > then.temp_c + WITHIN_K:
        return 60.0 * (one.temp_c - then.temp_c - WITHIN_K) / COOLING_K_MIN
    if abs(one.temp_c - then.temp_c) <= WITHIN_K:
        return 0.0
    share = (then.temp_c - one.temp_c) / (then.temp_c - ROOM_C)
    return then.cold_s * max(LEAST_SHARE, share)
