"""The colour ladder of a sauce: what a coat of it does under each of a kitchen's finishes, on hot
moist food.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import cache, cached_property

import numpy as np

from bluekettle.core.errors import Ranges
from bluekettle.core.glaze import (
    BEFORE,
    Coating,
    Draws,
    Finish,
    Milestones,
    draw_members,
    read_milestones,
    run_finish,
)
from bluekettle.core.sauce import Composition
from bluekettle.core.stages.browning import Browning
from bluekettle.core.stages.finishing import film_of, heat_of, log_factors_of
from bluekettle.core.stages.kitchen import Kitchen

DEEP_C, SURFACE_C = 80.0, 70.0  # braised or pressured food a few minutes after it was opened
MEMBERS = 16
HORIZON_S = 1800.0  # half an hour under the heat (design)
SPREADABLE = 0.95  # water above this runs off


@dataclass(frozen=True)
class Rung:
    """One appliance: its finish, its dial, the run, and what is read from it towards a wanted
    colour.
    """

    finish: str
    name: str
    dial: float
    coating: Coating
    run: Finish
    want: str

    @cached_property
    def milestones(self) -> Milestones:
        """Read when asked for: where only one moment of a run is wanted, its bands are not."""
        members = self.run.times_s.shape[0]
        return read_milestones(self.run, np.full(members, 1.0 / members), self.want)


@cache
def members_of(median: bool) -> Draws:
    """The ensemble of every ladder, drawn once."""
    draws = draw_members(1, MEMBERS)
    return draws.median_only() if median else draws


def ladder(
    sauce: Composition,
    kitchen: Kitchen | None = None,
    coat_mm: float = 0.5,
    want: str = "amber",
    finishes: tuple[str, ...] = ("broiler", "oven", "air_fryer"),
    median: bool = False,
) -> tuple[Rung, ...]:
    """Run one coat under each finish: 16 members, or the median one alone.

    Raises OutOfRange for a coat outside 0.1 to 2 mm, or a sauce of over 95 % water, which no coat
    can be made of.
    """
    ranges = Ranges()
    ranges.within("coat_mm", coat_mm, 0.1, 2.0, "mm")
    ranges.within("water", sauce.water, 0.0, SPREADABLE)
    ranges.close()
    found = []
    draws = members_of(median)
    for finish in finishes:
        dish = Browning(
            "pork-ribs",
            1.4,  # kg of food, for the drawing of a sauce alone
            4,
            26.0,  # mm of it
            sauce=sauce,
            coats=1,
            coat_mm=coat_mm,
            heat=finish,
            want=want,
            kitchen=kitchen or Kitchen(),
        )
        coating = film_of(sauce, dish.coat_kg_m2())
        run = run_finish(
            draws,
            heat_of(dish),
            coating,
            [BEFORE],
            DEEP_C,
            SURFACE_C,
            HORIZON_S,
            dish.kitchen.or_typical("altitude_m"),
            every_s=20.0,  # (numerical)
            log_factors=log_factors_of(dish, draws),
        )
        found.append(
            Rung(
                finish, dish.kind.name, dish.kitchen.or_typical(dish.kind.dial), coating, run, want
            )
        )
    return tuple(found)
