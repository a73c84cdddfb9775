"""What is told of a live cook, and what is known of it then. All times are seconds from the start
of the cook.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from bluekettle.core.stages.steps import Leg, StepPlan

CONFIRMED, ESTIMATED, UNKNOWN, CURRENT, RUNNING, UPCOMING = (
    "confirmed",
    "estimated",
    "unknown",
    "current",
    "running",
    "upcoming",
)
PASSED, FAILED, SKIPPED, OPEN = ("passed", "failed", "skipped", "open")


@dataclass(frozen=True)
class Event:
    """One thing the cook told: done, skip, extend, later (the guests come), saw, rescue, way,
    instead (a heat is left for another), felt (a skewer tried the food in its slow heat), dial
    (where the dial of a fire stands: the tray, the setting) or undo; or moved: the meal that it is
    part of was planned anew.

    at_s : when it happened, not when it was tapped. legs : of a failed check, the ways back as they
    were computed then. way : place of the one chosen. jumped : gates that an earlier version let
    somebody pass over. dropped, waits : of a move, waits that are no more, and new ones, each with
    the step that it comes before. dropped, ended, steps : of a heat that is left, steps that are no
    more, those that are over with it, and those that come for it, each with the step it follows;
    left : the steps that stay of it, which are not done again. dial : in the unit of the heat whose
    stage `step` is.
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
    reason: str = ""
    legs: tuple[Leg, ...] = ()
    way: int = 0
    change: str = ""
    jumped: tuple[str, ...] = ()
    dropped: tuple[str, ...] = ()
    waits: tuple[tuple[str, StepPlan], ...] = ()
    ended: tuple[str, ...] = ()
    steps: tuple[tuple[str, StepPlan], ...] = ()
    left: tuple[str, ...] = ()
    dial: float = 0.0


@dataclass(frozen=True)
class StepState:
    """A step now: its state, when it began and ended (None where not, or not known), and when it
    should end. gate : of a gate, whether it is open, passed, failed or skipped.
    """

    plan: StepPlan
    state: str
    begin_s: float | None
    end_s: float | None
    due_s: float
    gate: str = ""


@dataclass(frozen=True)
class Check:
    """What was told at a gate: when, the reading, the feel, what came of it and why."""

    step: str
    at_s: float
    temp_c: float | None
    tender: bool | None
    verdict: str
    why: str


@dataclass(frozen=True)
class Fire:
    """Food under a fierce heat now: which, since when, and the seconds it was under it before.
    assumed : nobody said that it is there. sure : all of its time so far was told.
    """

    name: str
    since_s: float
    before_s: float
    assumed: bool
    sure: bool = True

    def clock_s(self, now_s: float) -> float:
        """Seconds under the heat by now."""
        return self.before_s + max(0.0, now_s - self.since_s)


@dataclass(frozen=True)
class Sign:
    """A sign, or a way out that was taken, as it was told: when, after how many seconds under which
    heat, and whether it teaches (somebody confirmed that the food was there).
    """

    sign: str
    at_s: float
    heat_s: float
    teaches: bool
    fire: str = ""


@dataclass(frozen=True)
class Done:
    """A coat or turn that was done: of which heat, seconds under it, seconds out of it."""

    fire: str
    act: str
    at_s: float
    away_s: float


@dataclass(frozen=True)
class Progress:
    """The whole cook now. barrier : the gate that later steps wait for, once it is reached."""

    steps: tuple[StepState, ...]
    current: str | None
    barrier: str
    fire: Fire | None
    serve_at_s: float
    serve_low_s: float
    serve_high_s: float
    signs: tuple[Sign, ...] = ()
    acts: tuple[Done, ...] = ()
    checks: tuple[Check, ...] = ()
    changes: tuple[Sign, ...] = ()
    side_due: tuple[str, ...] = ()

    @property
    def finished(self) -> bool:
        """Whether nothing is left to do, and no gate stands open."""
        return self.current is None


def not_undone(events: Sequence[Event]) -> list[Event]:
    """Events that were not undone (an undo can itself be undone)."""
    gone: set[int] = set()
    for event in sorted(events, key=lambda e: -e.seq):
        if event.kind == "undo" and event.seq not in gone:
            gone.add(event.undoes)
    return [
        e for e in sorted(events, key=lambda e: e.seq) if e.seq not in gone and e.kind != "undo"
    ]
