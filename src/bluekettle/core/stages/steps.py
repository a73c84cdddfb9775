"""The steps of a live cook: what a person follows, from a forecast's links; and the ways back from
a check that failed.
"""

from __future__ import annotations

from dataclasses import dataclass, replace

from bluekettle.core.errors import within
from bluekettle.core.stages.chain import Stage
from bluekettle.core.stages.forecast import Forecast


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
    : as in `Stage`. evidence : of a gate.
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


def steps_of(forecast: Forecast) -> tuple[StepPlan, ...]:
    """All steps of a forecast, its gates with the evidence they want."""
    gates = evidence_of(forecast)
    steps = (step_of(stage) for stage in forecast.stages)
    return tuple(replace(step, evidence=gates.get(step.key)) for step in steps)


def evidence_of(forecast: Forecast) -> dict[str, Evidence]:
    """What each gate of a forecast wants, by key."""
    safety = forecast.safety
    usual = safety.wanted_c if safety.gate else None
    first = Evidence(True, usual)
    if safety.gate and safety.rests_on == "time":
        first = Evidence(True, usual, safety.probe_c, "hold", forecast.timer_s)
    # After raw sauce on ready food only a temperature counts, and it is tender by then.
    return {"check": first, "check-again": Evidence(False, usual)}


def waiting_step(seconds: float) -> StepPlan:
    """The wait for a planned start, up to a month; OutOfRange otherwise."""
    within("seconds", seconds, 0.0, 31 * 86_400.0, "s")
    return StepPlan("wait", "machine", "Wait for the start", seconds, seconds, seconds)
