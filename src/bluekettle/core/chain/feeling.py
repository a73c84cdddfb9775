"""A skewer that tried the food while its slow heat went on: what it tells of how long it takes."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from bluekettle.core.chain.memory import Memory
from bluekettle.core.chain.plan import Heat, Plan
from bluekettle.core.chain.slow import run_slow, slow_dish
from bluekettle.core.chain.waits import settled
from bluekettle.core.chain.walk import Known, as_begun, walk
from bluekettle.core.errors import MissingData, Ranges
from bluekettle.core.glaze import Draws, draw_members
from bluekettle.core.stages import cut
from bluekettle.core.stages.bite import share_over
from bluekettle.core.stages.tenderise import cooked_of

Array = NDArray[np.float64]

LOOKED_AT = 14  # holds between the shortest and the longest (numerical)
SHORTER, LONGER = 0.4, 2.5  # of the planned hold (design)


@dataclass(frozen=True)
class Holds:
    """The share of pieces that have the bite that was wished [-], (n,), once they were held for so
    long [s], (n,), and taken out then.
    """

    hold_s: Array
    tender: Array


@dataclass(frozen=True)
class Held:
    """How long the hold takes in all [s]: one in ten, half, and nine in ten are tender by then."""

    low_s: float
    likely_s: float
    high_s: float


def holds_in(
    plan: Plan, stage: str, memory: Memory[Known] | None = None, draws: Draws | None = None
) -> Holds:
    """How the bite comes with the hold of a slow heat.

    Parameters
    ----------
    plan : Plan
    stage : str
        Id of a slow heat that all of the food goes through and that ends with a bite.
    memory : Memory, optional
        Stages that were run before.
    draws : Draws, optional
        Members; the plan's own ensemble when absent.

    Raises
    ------
    MissingData
        No such heat on the common way.
    """
    draws = draws or draw_members(plan.seed)
    way = walk(plan, draws, memory)
    ended = {
        one.stage.id: one.stage
        for one in way.line
        if isinstance(one.stage, Heat) and one.passage.slow is not None and one.stage.until.bite
    }
    if stage not in ended:
        raise MissingData("slow heat that ends with a bite", stage, tuple(ended))
    food, step = as_begun(plan, way, stage, draws)
    heat, found, food = ended[stage], cut(plan.cut), settled(step, food)
    planned_s = 60.0 * (heat.until.minutes or 0.0)
    longest_s = min(LONGER * planned_s, slow_dish(heat, food, plan).first.longest_s)
    hold_s = np.geomspace(SHORTER * planned_s, longest_s, LOOKED_AT)
    bar = found.targets[heat.until.bite or ""]
    shares = []
    for seconds in hold_s:
        run = run_slow(heat, food, step, float(seconds))
        shares.append(share_over(cooked_of(run, found), bar))
    return Holds(hold_s, np.maximum.accumulate(shares))


def held_after(holds: Holds, felt_s: float, tender: bool) -> Held:
    """How long the hold takes once the food was tried in it after so many seconds: over where a
    skewer slid in; else by those pieces that are not tender by then.

    Raises OutOfRange for a moment before the hold.
    """
    ranges = Ranges()
    ranges.within("felt_s", felt_s, 0.0, float("inf"), "s")
    ranges.close()
    if tender:
        return Held(felt_s, felt_s, felt_s)
    had = float(np.interp(felt_s, holds.hold_s, holds.tender, left=0.0))

    def by_then(share: float) -> float:
        wanted = had + share * (1.0 - had)
        rising = np.flatnonzero(np.diff(holds.tender, prepend=-1.0) > 0.0)
        s = np.interp(wanted, holds.tender[rising], holds.hold_s[rising])
        return max(felt_s, float(s))

    return Held(by_then(0.1), by_then(0.5), by_then(0.9))  # band of eight in ten (design)
