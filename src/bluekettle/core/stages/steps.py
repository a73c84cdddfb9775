"""The steps of a live cook: what a person follows, from a forecast's links; and the ways back from
a check that failed.
"""

from __future__ import annotations

from dataclasses import dataclass

from bluekettle.core.errors import within
from bluekettle.core.stages.links import Stage


@dataclass(frozen=True)
class Evidence:
    """What a gate wants to be shown.

    tender : somebody has to try it. usual_c : what a thermometer must read [°C]; None where none is
    needed. timed_c : what is enough where the food had all of `timed_s` in the step `timed_step`,
    and somebody told so.
    """

    tender: bool = True
    usual_c: float | None = None
    timed_c: float | None = None
    timed_step: str = ""
    timed_s: float = 0.0


@dataclass(frozen=True)
class StepPlan:
    """One step as planned: who does it and its seconds (low, likely, high).

    beside : it runs beside the others and has to be done for the step `before`. fire, act, approach
    : as in `Stage`. evidence : of a gate. until_s : of a wait that ends at a moment, however early
    it begins: that one [s from the start of the cook].
    """

    key: str
    who: str
    label: str
    low_s: float
    likely_s: float
    high_s: float
    beside: bool = False
    before: str = ""
    fire: str = ""
    act: str = ""
    approach: bool = False
    evidence: Evidence | None = None
    until_s: float | None = None


@dataclass(frozen=True)
class Leg:
    """A way back from a failed check: which heat, in words, its steps in order (the last a gate),
    and its likely seconds.
    """

    heat: str
    says: str
    steps: tuple[StepPlan, ...]

    @property
    def likely_s(self) -> float:
        """Seconds until the next check is done."""
        return sum(step.likely_s for step in self.steps)


def step_of(stage: Stage) -> StepPlan:
    """A link as a step."""
    band = stage.band
    return StepPlan(
        stage.key,
        stage.who,
        stage.label,
        band.low_s,
        band.likely_s,
        band.high_s,
        not stage.serial,
        stage.before,
        stage.fire,
        stage.act,
        stage.approach,
    )


def waiting_step(seconds: float) -> StepPlan:
    """The wait for a planned start, up to a month; OutOfRange otherwise."""
    within("seconds", seconds, 0.0, 31 * 86_400.0, "s")
    return StepPlan("wait", "machine", "Wait for the start", seconds, seconds, seconds)
