"""The middle of the food along one slow heat, for every member: what a probe's readings are held
against.
"""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from bluekettle.core.chain.heats import heat_row
from bluekettle.core.chain.memory import Memory
from bluekettle.core.chain.plan import Heat, Plan
from bluekettle.core.chain.slow import run_slow
from bluekettle.core.chain.waits import settled
from bluekettle.core.chain.walk import Known, Passed, as_begun, walk
from bluekettle.core.errors import MissingData, Ranges
from bluekettle.core.glaze import Draws, draw_members

Array = NDArray[np.float64]

# Of the planned time, and so many seconds more: what may turn out slow (design).
LONGER, AND_S = 1.6, 1200.0


@dataclass(frozen=True)
class Centres:
    """The middle of every member [°C], (members, n), at seconds from the begin of the heat (n,);
    and how long each needs to come up and to fall by itself [s], (members,).
    """

    time_s: Array
    centre_c: Array
    come_up_s: Array
    natural_s: Array


def centres_in(
    plan: Plan,
    stage: str,
    dial: float | None = None,
    memory: Memory[Known] | None = None,
    draws: Draws | None = None,
) -> Centres:
    """The middle of the food along a slow heat, well past its planned end.

    Parameters
    ----------
    plan : Plan
    stage : str
        Id of a slow heat that all of the food goes through.
    dial : float, optional
        What the appliance really holds, in the unit of its dial; as planned when absent.
    memory : Memory, optional
        Stages that were run before.
    draws : Draws, optional
        Three members or more; the plan's own ensemble when absent.

    Raises
    ------
    MissingData
        No such slow heat on the common way.
    OutOfRange
        A dial that this heat does not have.
    """
    draws = draws or draw_members(plan.seed)
    way = walk(plan, draws, memory)
    slows = [one.stage.id for one in way.line if one.passage.slow is not None]
    if stage not in slows:
        raise MissingData("slow heat of all the food", stage, slows)
    food, step = as_begun(plan, way, stage, draws)
    heat = asked_heat(next(one for one in way.line if one.stage.id == stage), dial)
    planned_s = 60.0 * (heat.until.minutes or 0.0)
    run = run_slow(heat, settled(step, food), step, LONGER * planned_s + AND_S)
    times = run.every_s * np.arange(run.centres.shape[1])
    known = ~np.isnan(run.centres).any(axis=0)
    time_s = np.asarray(times[known], dtype=np.float64)
    return Centres(time_s, run.centres[:, known], run.come_up_s, run.natural_s)


def asked_heat(one: Passed, dial: float | None) -> Heat:
    """The heat of a stage, at what its appliance really holds."""
    assert isinstance(one.stage, Heat)  # it has a slow heat's passage
    if dial is None:
        return one.stage
    row = heat_row(one.stage.heat)
    ranges = Ranges()
    ranges.within("dial", dial, row.dial_low, row.dial_high, row.dial_unit)
    ranges.close()
    return replace(one.stage, dial=dial)
