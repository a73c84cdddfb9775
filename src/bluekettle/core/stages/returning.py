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
from bluekettle.core.stages.cuts import Cut, cut
from bluekettle.core.stages.finishes import finish_kind
from bluekettle.core.stages.first_heats import first_heat, first_heat_keys
from bluekettle.core.stages.handwork import hands_s
from bluekettle.core.stages.leg_keys import leg_key
from bluekettle.core.stages.steps import Evidence, Leg, StepPlan
from bluekettle.core.stages.tendering import Tendering
from bluekettle.core.stages.tenderise import (
    Tenderised,
    cook_of,
    run_tenderise,
    safe_by,
    shortest_hold_s,
    wary_pair,
)
from bluekettle.core.tables import row, value
from bluekettle.core.thermo import boiling_point_c

Array = NDArray[np.float64]

MEMBERS = 16  # of the bands of a way back
MOST_WAYS = 3
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


def ways_back(
    dish: Tendering,
    bite: str,
    gate: StepPlan,
    failed: Failed,
    finish: str = "",
    out_of_it: bool = True,
) -> tuple[Leg, ...]:
    """Ways back from a failed gate: the same heat where it does it, else the shortest first, dry
    ones before wet for food out of a fire; three at the most, empty where none is known.

    Parameters
    ----------
    dish : Tendering
        The heat that it came out of; where `out_of_it` is false, one that it could go into.
    bite : str
        What was wished for; one of the cut's.
    gate : StepPlan
        Its key and the evidence it wants.
    failed : Failed
        `read_c` from -30 to 130 °C.
    finish : str
        The fierce heat that comes after, which is hot or soon hot; empty for none.

    Raises
    ------
    OutOfRange
    """
    ranges = Ranges()
    if failed.read_c is not None:
        ranges.within("read_c", failed.read_c, -30.0, 130.0, "°C")
    ranges.close()
    back = Back(cut(dish.cut), bite, gate, failed, start_of(dish, failed))
    found: list[Leg] = []
    for heat in dict.fromkeys((dish.heat, *heats_back(finish))):
        again = out_of_it and heat == dish.heat
        other = dish if heat == dish.heat else moved_to(dish, heat)
        leg = way_back(other, back, again)
        if leg is not None:
            found.append(leg)
        straight = out_of_it and found and goes_straight_back(found[0], dish)
        if len(found) == MOST_WAYS or straight:
            break
    # Food out of a fire stays crisp in dry heat only.
    wet = {leg.heat: not out_of_it and not first_heat(leg.heat).dry for leg in found}
    return tuple(sorted(found, key=lambda leg: (wet[leg.heat], leg.likely_s)))


@dataclass(frozen=True)
class Back:
    """What goes back: the cut, the bite that was wished, the gate it failed and how, and what it
    starts from [°C].
    """

    cut: Cut
    bite: str
    gate: StepPlan
    failed: Failed
    start_c: float


def goes_straight_back(leg: Leg, dish: Tendering) -> bool:
    """Whether the same heat does it, and not by a time that has to be proven anew."""
    evidence = leg.steps[-1].evidence
    return leg.heat == dish.heat and (evidence is None or evidence.timed_c is None)


def heats_back(finish: str) -> tuple[str, ...]:
    """Slow heats in which food might go back: that of the body it is finished in, and those that
    most kitchens have, the quickest first. finish : empty for none.
    """
    own = (finish_kind(finish).back_in,) if finish else ()
    rows = [first_heat(key) for key in first_heat_keys()]
    others = sorted((row for row in rows if row.way_back), key=lambda row: row.way_back)
    keys = (*own, *(row.key for row in others))
    return tuple(dict.fromkeys(key for key in keys if key))


def moved_to(dish: Tendering, heat: str) -> Tendering:
    """The food in another slow heat, with that one's usual liquid and release."""
    return replace(dish, heat=heat, liquid_l=None, release="quick", lies=None)


def start_of(dish: Tendering, failed: Failed) -> float:
    """What the food starts from [°C]: what was read, less a thermometer's error, all through; its
    surface is warmer in truth, so that counts on the safe side.
    """
    if failed.read_c is not None:
        return failed.read_c - READING_ERROR_K
    if dish.first.proves:  # no more than its water
        return min(UNREAD_C, dish.kitchen.or_typical(dish.first.dial)) - READING_ERROR_K
    return UNREAD_C - READING_ERROR_K


def way_back(dish: Tendering, back: Back, again: bool) -> Leg | None:
    """The way back in this heat; None where it never gets there.

    `again` : the vessel is the one it came from, and hot.
    """
    # By now no piece is frozen to another.
    frozen = bool(dish.lies) and row("lying", dish.lies or "")["needs"] == "frozen"
    lies = None if frozen else dish.lies
    dish = replace(dish, release="quick", lies=lies)
    found, failed = back.cut, back.failed
    hot_c = boiling_point_c(dish.kitchen.or_typical("altitude_m")) if again else None
    missing = found.targets[back.bite] * value("return_cook_share") if failed.tough else 0.0
    pair = wary_pair(draw_members(dish.seed, MEMBERS))

    def run(hold_s: float, draws: Draws) -> Tenderised:
        return run_tenderise(dish, found, draws, hold_s, hot_c, back.start_c)

    def enough(minutes: int) -> bool:
        tried = run(60.0 * minutes, pair)
        hot = not failed.cold or bool(safe_by(dish, found, tried)[1])
        return hot and float(cook_of(tried, found)[0]) >= missing

    try:
        hold_s = shortest_hold_s(enough, dish.first.longest_s, "way back")
    except NotConverged:
        return None
    members = run(hold_s, draw_members(dish.seed, MEMBERS))
    return leg_of(dish, back, hold_s, members, again)


def leg_of(dish: Tendering, back: Back, hold_s: float, run: Tenderised, again: bool) -> Leg:
    """The steps of a way back: in with it, wait, out, and the check once more."""
    heat, draws = dish.first, draw_members(dish.seed, MEMBERS)

    def hands(action: str) -> Array:
        return hands_s(action, dish.pieces, draws, dish.mass_kg)

    def step(key: str, who: str, label: str, seconds: Array) -> StepPlan:
        even = np.full(draws.members, 1.0 / draws.members)
        low, likely, high = weighted_quantiles(seconds, even, (0.1, 0.5, 0.9))
        return StepPlan(leg_key(back.gate.key, key), who, label, low, likely, high)

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
    check = step("check", "gate", back.gate.label, hands("check"))
    evidence = evidence_after(dish, back, hold_s, run)
    return Leg(heat.key, says, (*steps, replace(check, evidence=evidence)))


def evidence_after(dish: Tendering, back: Back, hold_s: float, run: Tenderised) -> Evidence:
    """What the check after a way back wants: as before; where it was too cold, the usual
    temperature, or what is proven by this time in the bath.
    """
    wants = back.gate.evidence or Evidence()
    if not back.failed.cold:
        return wants
    usual = Evidence(wants.tender, wants.usual_c)
    less = value("proof_less_k")
    probe_c = float(np.floor(np.quantile(run.peak_c, 0.05) - less))
    by_time = dish.first.proves and wants.usual_c is not None and probe_c < wants.usual_c
    if not by_time:
        return usual
    return replace(
        usual, timed_c=probe_c, timed_step=leg_key(back.gate.key, "hold"), timed_s=hold_s
    )
