"""Heat in one piece of food: slab, cylinder or sphere, frozen or not, in whatever surrounds it.

Arrays in, arrays out. Knows no appliances of a kitchen, no cuts and no tenderness.
"""

from bluekettle.core.heat.air import InAir, heat_in
from bluekettle.core.heat.body import Body, equal_body
from bluekettle.core.heat.conduction import Conducted, biot_number, conduct
from bluekettle.core.heat.kernel import (
    GEOMETRY,
    Boundary,
    Cells,
    Matter,
    cell_geometry,
    step_piece,
)
from bluekettle.core.heat.surroundings import (
    Surroundings,
    element_at,
    loaded_air_c,
    surroundings,
    surroundings_keys,
)

__all__ = [
    "GEOMETRY",
    "Body",
    "Boundary",
    "Cells",
    "Conducted",
    "InAir",
    "Matter",
    "Surroundings",
    "biot_number",
    "cell_geometry",
    "conduct",
    "element_at",
    "equal_body",
    "heat_in",
    "loaded_air_c",
    "step_piece",
    "surroundings",
    "surroundings_keys",
]
