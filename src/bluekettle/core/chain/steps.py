"""The steps of a live cook from a plan's forecast: its links, its gates with the evidence they
want.
"""

from __future__ import annotations

from dataclasses import replace

from bluekettle.core.chain.forecast import PlanForecast
from bluekettle.core.chain.walk import Gate
from bluekettle.core.stages import Evidence, StepPlan
from bluekettle.core.stages.steps import step_of


def plan_steps(forecast: PlanForecast) -> tuple[StepPlan, ...]:
    """All steps of a plan, in order."""
    gates = {f"{gate.after}.check": evidence_of(gate, forecast) for gate in forecast.gates}
    steps = (step_of(link) for link in forecast.links)
    return tuple(replace(step, evidence=gates.get(step.key)) for step in steps)


def evidence_of(gate: Gate, forecast: PlanForecast) -> Evidence:
    """What a gate wants to be shown: a time in a bath may stand for less than the usual figure."""
    if gate.safe_c is None:
        return Evidence(gate.tender)
    usual = forecast.cut.safe_c
    if not gate.by_time:
        return Evidence(gate.tender, usual)
    timer_s = next(slow.timer_s for slow in forecast.slows if slow.stage == gate.after)
    return Evidence(gate.tender, usual, gate.safe_c, f"{gate.after}.hold", timer_s)
