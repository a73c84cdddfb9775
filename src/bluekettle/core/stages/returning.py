"""Ways back from a check that failed: computed from what was read, the shape, and the heat.

A way back is only offered where it gets there: to the temperature that the gate wants on an
unfavourable piece, or in a bath to a time that is proven, and to the tenderness that was missing.
"""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from bluekettle.core.errors import NotConverged, Ranges
from bluekettle.core.glaze import Draws, draw_members, weighted_quantiles
from bluekettle.core.stages.dish import Cut, Dish
from bluekettle.core.stages.handwork import hands_s
from bluekettle.core.stages.progress import leg_key
from bluekettle.core.stages.steps import Evidence, Leg, StepPlan
from bluekettle.core.stages.tenderise import (
    Tenderised,
    cook_of,
    run_tenderise,
    safe_by,
    shortest_hold_s,
    wary_pair,
)
from bluekettle.core.tables import value
from bluekettle.core.thermo import boiling_point_c

Array = NDArray[np.float64]

MEMBERS = 16  # of the bands of a way back
MOST_WAYS = 3
# What is tried where the same heat does not get there, the quickest in most kitchens first; the
# appliance that the dish is finished in is hot or soon hot, and comes before them.
OTHERS = ("simmer", "braise", "low_oven")
OF_FINISH = {"air_fryer": "air_fry", "oven": "low_oven", "broiler": "low_oven"}
READING_ERROR_K = 1.0  # of a kitchen thermometer: the colder side counts (typical, estimated)
# Of a piece that just came out of its heat, where nobody read it (estimated); in a bath no more
# than the water.
UNREAD_C = 85.0


@dataclass(frozen=True)
class Failed:
    """What a failed check said: the temperature read [°C] or None, whether it has to get hotter and
    whether more tender.
    """

    read_c: float | None
    cold: bool
    tough: bool


def ways_back(dish: Dish, cut: Cut, gate: StepPlan, failed: Failed) -> tuple[Leg, ...]:
    """Ways back from a failed gate: the same heat where it does it, else the shortest first; three
    at the most, empty where none is known.

    Parameters
    ----------
    gate : StepPlan
        Its key and the evidence it wants.
    failed : Failed
        `read_c` from -30 to 130 °C.

    Raises
    ------
    OutOfRange
    """
    ranges = Ranges()
    if failed.read_c is not None:
        ranges.within("read_c", failed.read_c, -30.0, 130.0, "°C")
    ranges.close()
    found: list[Leg] = []
    start_c = start_of(dish, failed)
    for heat in heats_to_try(dish):
        other = dish if heat == dish.tenderise else moved_to(dish, heat)
        leg = way_back(other, cut, gate, failed, start_c, again=heat == dish.tenderise)
        if leg is not None:
            found.append(leg)
        if len(found) == MOST_WAYS or (found and goes_straight_back(found[0], dish)):
            break
    return tuple(sorted(found, key=lambda leg: leg.likely_s))


def goes_straight_back(leg: Leg, dish: Dish) -> bool:
    """Whether the same heat does it, and not by a time that has to be proven anew."""
    evidence = leg.steps[-1].evidence
    return leg.heat == dish.tenderise and (evidence is None or evidence.timed_c is None)


def heats_to_try(dish: Dish) -> tuple[str, ...]:
    """First heats in which it might go back, in order."""
    own = (OF_FINISH[dish.finish],) if dish.finish in OF_FINISH else ()
    return tuple(dict.fromkeys((dish.tenderise, *own, *OTHERS)))


def moved_to(dish: Dish, heat: str) -> Dish:
    """The dish in another first heat, with that one's usual liquid and release."""
    return replace(dish, tenderise=heat, liquid_l=None, timer_min=None, release="quick")


def start_of(dish: Dish, failed: Failed) -> float:
    """What the food starts from [°C]: what was read, less a thermometer's error, all through; its
    surface is warmer in truth, so that counts on the safe side.
    """
    if failed.read_c is not None:
        return failed.read_c - READING_ERROR_K
    bath = dish.tenderise == "bath"
    return min(UNREAD_C, dish.kitchen.or_typical("bath_c") if bath else UNREAD_C) - READING_ERROR_K


def way_back(
    dish: Dish, cut: Cut, gate: StepPlan, failed: Failed, start_c: float, again: bool
) -> Leg | None:
    """The way back in this dish's first heat; None where it never gets there.

    `again` : the vessel is the one it came from, and hot.
    """
    dish = replace(dish, release="quick")
    hot_c = boiling_point_c(dish.kitchen.or_typical("altitude_m")) if again else None
    missing = cut.targets[dish.bite] * value("return_cook_share") if failed.tough else 0.0
    pair = wary_pair(draw_members(dish.seed, MEMBERS))

    def run(hold_s: float, draws: Draws) -> Tenderised:
        return run_tenderise(dish, cut, draws, hold_s, hot_c, start_c)

    def enough(minutes: int) -> bool:
        tried = run(60.0 * minutes, pair)
        hot = not failed.cold or bool(safe_by(dish, cut, tried)[1])
        return hot and float(cook_of(tried, cut)[0]) >= missing

    try:
        hold_s = shortest_hold_s(enough, dish.first.longest_s, "way back")
    except NotConverged:
        return None
    members = run(hold_s, draw_members(dish.seed, MEMBERS))
    return leg_of(dish, cut, gate, failed, hold_s, members, again)


def leg_of(
    dish: Dish,
    cut: Cut,
    gate: StepPlan,
    failed: Failed,
    hold_s: float,
    run: Tenderised,
    again: bool,
) -> Leg:
    """The steps of a way back: in with it, wait, out, and the check once more."""
    heat, draws = dish.first, draw_members(dish.seed, MEMBERS)

    def hands(action: str) -> Array:
        return hands_s(action, dish.pieces, draws, dish.mass_kg)

    def step(key: str, who: str, label: str, seconds: Array) -> StepPlan:
        even = np.full(draws.members, 1.0 / draws.members)
        low, likely, high = weighted_quantiles(seconds, even, (0.1, 0.5, 0.9))
        return StepPlan(leg_key(gate.key, key), who, label, low, likely, high)

    says = heat.back if again else f"Into {heat.place}"
    steps = [step("load", "hands", says, hands("back" if again else heat.load))]
    if heat.preheat and not again:
        warm = 60.0 * dish.kitchen.drawn(heat.preheat, draws)
        steps.append(step("oven_up", "machine", heat.wait_says, warm))
    if heat.up_says:
        steps.append(step("come_up", "machine", heat.up_says, run.come_up_s))
    steps.append(step("hold", "machine", heat.hold_says, run.hold_s))
    if run.quick_s.max() > 0.0:
        steps.append(step("quick", "hands", "Open the valve", run.quick_s))
    steps.append(step("open", "hands", heat.open_says, hands(heat.open)))
    check = step("check", "gate", gate.label, hands("check"))
    evidence = evidence_after(dish, cut, gate, failed, hold_s, run)
    return Leg(heat.key, says, (*steps, replace(check, evidence=evidence)))


def evidence_after(
    dish: Dish, cut: Cut, gate: StepPlan, failed: Failed, hold_s: float, run: Tenderised
) -> Evidence:
    """What the check after a way back wants: as before; where it was too cold, the usual
    temperature, or what is proven by this time in the bath.
    """
    wants = gate.evidence or Evidence()
    if not failed.cold:
        return wants
    usual = Evidence(wants.tender, wants.usual_c)
    less = value("proof_less_k")
    probe_c = float(np.floor(np.quantile(run.peak_c, 0.05) - less))
    by_time = dish.tenderise == "bath" and wants.usual_c is not None and probe_c < wants.usual_c
    if not by_time:
        return usual
    return replace(usual, timed_c=probe_c, timed_step=leg_key(gate.key, "hold"), timed_s=hold_s)
