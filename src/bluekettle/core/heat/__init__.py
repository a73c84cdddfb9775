"""Conduction inside one piece of food: slab, cylinder or sphere, frozen or not, under any boundary handed to it.

Arrays in, arrays out. Knows no appliances, no cuts and no tenderness.
"""

from bluekettle.core.heat.conduction import Conducted, biot_number, conduct
from bluekettle.core.heat.kernel import (
    GEOMETRY,
    cell_geometry,
    step_piece,
    surface_temp_c,
)

__all__ = ["GEOMETRY", "Conducted", "biot_number", "cell_geometry", "conduct", "step_piece", "surface_temp_c"]
