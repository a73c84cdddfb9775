"""Last exits: until when one can still change course and serve on time."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from bluekettle.core.chain import Heat, PlanForecast, heat_row, plan_steps
from bluekettle.core.chain.slow import slow_dish
from bluekettle.core.chain.walk import Passed
from bluekettle.core.glaze import draw_members
from bluekettle.core.stages import (
    Failed,
    FinishKind,
    Stage,
    StepPlan,
    finish_kind,
    serial,
    ways_back,
)
from bluekettle.core.tables import value

BOIL_C = 100.0  # no piece is hotter once it is out
CAREFUL = 0.9  # nine evenings in ten take no longer (design)


@dataclass(frozen=True)
class Exit:
    """What can still be done, up to how many seconds before serving, and why then."""

    do: str
    before_serving_s: float
    why: str


def plan_exits(forecast: PlanForecast, fire: str) -> tuple[Exit, ...]:
    """The exits that are left before and under the fire of this stage, the earliest first; all on
    the careful (P90) side. Empty where no link of it is known.
    """
    line = [link for link in serial(forecast.links) if not link.key.endswith("slack")]
    under = next((i for i, link in enumerate(line) if link.fire == fire), None)
    if under is None:
        return ()
    found = [back_in_the_heat(forecast, line, under, fire), elsewhere(forecast, line, under, fire)]
    found.append(without_rest(line, under))
    return tuple(sorted((e for e in found if e is not None), key=lambda e: -e.before_serving_s))


def careful_from(line: list[Stage], place: int) -> float:
    """Seconds from the start of a link to the plate that nine evenings in ten do not exceed."""
    rest = np.sum([link.seconds for link in line[place:]], axis=0)
    return float(np.quantile(rest, CAREFUL))


def back_in_the_heat(
    forecast: PlanForecast, line: list[Stage], under: int, fire: str
) -> Exit | None:
    """Cook it longer after the last check before this fire; None where there is no such check."""
    gates = [i for i, link in enumerate(line[:under]) if link.who == "gate"]
    if not gates:
        return None
    key = line[gates[-1]].key
    step = next(one for one in plan_steps(forecast) if one.key == key)
    passed = next(one for one in forecast.walk.passed if key == f"{one.stage.id}.check")
    leg_s = leg_of(forecast, passed, step, fire)
    if leg_s is None:
        return None
    onward_s = careful_from(line, gates[-1])
    return Exit(
        "cook it longer",
        leg_s + onward_s,
        f"{leg_s / 60:.0f} min back in the heat and {onward_s / 60:.0f} min from the check to the"
        " plate",
    )


def leg_of(forecast: PlanForecast, passed: Passed, gate: StepPlan, fire: str) -> float | None:
    """Minutes back in its heat for food that is not tender yet [s]; None where none is known."""
    stage = passed.stage
    if not isinstance(stage, Heat) or heat_row(stage.heat).slow is None:
        return None
    likely_c = min(forecast.inside.core_likely_c, BOIL_C)
    dish = slow_dish(stage, passed.passage.food, forecast.plan)
    bite = stage.until.bite or next(iter(forecast.cut.targets))
    finish = kind_of(forecast, fire).key
    back = ways_back(dish, bite, gate, Failed(likely_c, cold=False, tough=True), finish)
    return back[0].likely_s if back else None


def kind_of(forecast: PlanForecast, fire: str) -> FinishKind:
    """The row of the heat of this fire."""
    return next(one for one in forecast.fires if one.stage == fire).under.dish.kind


def elsewhere(forecast: PlanForecast, line: list[Stage], under: int, fire: str) -> Exit:
    """Finish it in another appliance, which has to heat up first."""
    other = finish_kind(kind_of(forecast, fire).elsewhere)
    draws = draw_members(forecast.plan.seed)
    doubt = draws.factor("preheat", value("spread_preheat"))
    heating = 60.0 * forecast.plan.kitchen.drawn(other.preheat, draws) * doubt
    heat_s = float(np.quantile(heating, CAREFUL))
    onward_s = careful_from(line, under)
    return Exit(
        f"finish it in {other.place}",
        heat_s + onward_s,
        f"{heat_s / 60:.0f} min to heat it and {onward_s / 60:.0f} min from there to the plate",
    )


def without_rest(line: list[Stage], under: int) -> Exit | None:
    """Begin the fire, and go without the rest after it; None where none is planned."""
    rest = next((link for link in line[under:] if link.kind == "rest"), None)
    if rest is None:
        return None
    left_s = careful_from(line, under) - rest.band.likely_s
    return Exit(
        "begin this fire and skip the rest",
        left_s,
        f"the rest gives {rest.band.likely_s / 60:.0f} min back; a thermometer must still agree",
    )
