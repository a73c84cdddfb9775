"""A slow heat and the food in it, as the models of slow heat are asked."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from bluekettle.core.glaze import Draws
from bluekettle.core.heat import Body
from bluekettle.core.stages.cuts import cut
from bluekettle.core.stages.first_heats import FirstHeat, first_heat
from bluekettle.core.stages.piece import Piece
from bluekettle.core.tables import value

Array = NDArray[np.float64]

RELEASES = ("quick", "mixed", "natural")


@dataclass(frozen=True, kw_only=True)
class Tendering(Piece):
    """heat : key of its row. release, liquid_l [L], lies (how the pieces lie) : None for the usual
    one. browns : how fast its bare surface browns against meat as it is [-].
    """

    heat: str
    release: str | None = None
    liquid_l: float | None = None
    lies: str | None = None
    browns: float = 1.0

    @property
    def first(self) -> FirstHeat:
        """The row of its heat."""
        return first_heat(self.heat)

    @property
    def release_kind(self) -> str:
        """The release asked for, or the usual one for this cut."""
        return self.release or cut(self.cut).release

    @property
    def liquid(self) -> float:
        """Liquid [L]: as asked, or the usual of its heat (a pressure pot's least and a little
        over).
        """
        if self.liquid_l is not None:
            return self.liquid_l
        return round(self.first.liquid_l + self.first.liquid_l_kg * self.mass_kg, 2)

    @property
    def vessel_l(self) -> float:
        """Volume of its vessel [L]."""
        name = next((name for name in self.first.figures if name.endswith("_volume_l")), "")
        if name:
            return self.kitchen.or_typical(name)
        return self.first.appliance.figure("volume_l")

    def lying(self, h_w_m2_k: float) -> Body:
        """One piece as it lies in this heat, at this exchange [W/m²K]."""
        return self.body(h_w_m2_k, self.lies or self.first.lies)


def preheat_first_s(dish: Tendering, draws: Draws) -> Array:
    """Heating up of its appliance [s], (members,); of one that is set low, as far as it
    has to go.
    """
    full = 60.0 * dish.kitchen.drawn(dish.first.preheat, draws)
    if not dish.first.full_dial:
        return full
    room = value("kitchen_c")
    rise = dish.kitchen.or_typical(dish.first.dial) - room
    return full * min(1.0, rise / (dish.kitchen.or_typical(dish.first.full_dial) - room))


def come_up_note(dish: Tendering) -> str:
    """What decides the come-up, in words."""
    frozen = "from frozen" if dish.state == "frozen" else "from the fridge"
    return f"{dish.mass_kg:g} kg {frozen} and {dish.liquid:g} L of liquid"
