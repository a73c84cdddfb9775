"""What a thermometer beside the food says of a fire: where its dial really stands."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from statistics import fmean

from bluekettle.core.chain import HeatRow
from bluekettle.core.stages import Event, dial_that_holds, finish_kind, not_undone
from bluekettle.core.stages.browning import Browning
from bluekettle.core.stages.progress import Fold
from bluekettle.schemas.heating import HeatingDocument
from bluekettle.services.dials import dial_of
from bluekettle.services.dishes import kitchen_of

Mark = tuple[float, float]  # seconds of the cook, and what was read then [°C]
Fire = tuple[HeatingDocument, HeatRow]

AFTER_S = 120.0  # of a fire, or of a dial that was turned: the door was open (estimated)
LATELY_S = 300.0  # an oven swings, and is turned up: the mean of so long counts (estimated)
STEP_C = 5.0  # of what an oven is taken for (design)
FURTHEST_C = 60.0  # from its dial: further off it lies elsewhere (design)


def air_dials(
    fold: Fold, events: Sequence[Event], fires: Mapping[str, Fire], marks: Sequence[Mark]
) -> dict[str, float]:
    """By the id of a fire, where its dial stands by what was read beside the food while it was
    under it; those alone of which that is not where it was told to stand.
    """
    told_s = {one.step: one.at_s for one in not_undone(events) if one.kind == "dial"}
    found = {}
    for stage, (dish, row) in fires.items():
        if not finish_kind(dish.fire).air:
            continue
        begin_s, end_s = under(fold, stage)
        since_s = max(begin_s, told_s.get(stage, -math.inf)) + AFTER_S
        dial = air_dial(dish, [one for one in marks if since_s <= one[0] <= end_s])
        if dial is not None:
            found[stage] = min(max(dial, row.dial_low), row.dial_high)
    return found


def under(fold: Fold, stage: str) -> tuple[float, float]:
    """Since when [s] the food is under a fire, and until when; never where it was not put there."""
    places = [i for i, one in enumerate(fold.line) if one.who == "fire" and one.fire == stage]
    put = fold.done.get(fold.line[places[0] - 1].key) if places and places[0] > 0 else None
    if put is None:
        return math.inf, math.inf
    out = fold.done.get(fold.line[places[-1]].key)
    return put.at_s, math.inf if out is None else out.at_s


def air_dial(dish: HeatingDocument, marks: Sequence[Mark]) -> float | None:
    """Where the dial stands by these readings; None where that is where it was told to stand, and
    where they cannot be of this heat.
    """
    if not marks:
        return None
    stated = dial_of(dish)
    read_c = fmean(value for at_s, value in marks if at_s >= marks[-1][0] - LATELY_S)
    if abs(read_c - stated) > FURTHEST_C:
        return None
    kitchen = kitchen_of(dish.kitchen)
    food = (dish.cut, dish.mass_kg, dish.pieces, dish.thickness_mm)
    held = dial_that_holds(Browning(*food, heat=dish.fire, kitchen=kitchen), read_c)
    near = STEP_C * round(held / STEP_C)
    return None if abs(near - stated) < STEP_C else near
