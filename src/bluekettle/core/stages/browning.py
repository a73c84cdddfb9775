"""A fierce heat and the food under it, as the models of the film are asked."""

from __future__ import annotations

from dataclasses import dataclass

from bluekettle.core.glaze import Act
from bluekettle.core.sauce import Composition
from bluekettle.core.stages.finishes import FinishKind, finish_kind
from bluekettle.core.stages.piece import Piece
from bluekettle.core.tables import value

WANTS = ("amber", "mahogany")
SIGNS = ("nothing yet", "bubbling", "amber at the edges", "dark")


@dataclass(frozen=True)
class Sighting:
    """What the cook saw, and when: seconds under the heat."""

    sign: str
    at_s: float


@dataclass(frozen=True, kw_only=True)
class Browning(Piece):
    """heat : key of its row. want : colour of the face.

    coats_min : minute under the heat of each coat, in order; None: the first before the heat, each
    later one when the last has set. flips_min : minutes at which the food is turned; with any, both
    broad sides have to brown. told : coats and turns that were done, by seconds under the heat.
    """

    heat: str
    want: str = "amber"
    sauce: Composition | None = None
    coats: int = 0
    coat_mm: float = 0.5
    coats_min: tuple[float, ...] | None = None
    flips_min: tuple[float, ...] = ()
    sightings: tuple[Sighting, ...] = ()
    told: tuple[Act, ...] = ()

    @property
    def kind(self) -> FinishKind:
        """The row of its heat."""
        return finish_kind(self.heat)

    def coat_kg_m2(self) -> float:
        """Mass of one coat [kg/m²] from its thickness and the sauce's density."""
        if self.sauce is None:
            return value("bare_juice_kg_m2")
        return self.coat_mm * self.sauce.mass_kg / self.sauce.volume_l
