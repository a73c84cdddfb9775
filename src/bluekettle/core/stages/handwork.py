"""How long hands take: table rows with provenance, per piece, with a pace that differs from cook to
cook.
"""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from bluekettle.core.errors import Ranges
from bluekettle.core.glaze import Draws
from bluekettle.core.tables import row, value

Array = NDArray[np.float64]


def hands_s(action: str, pieces: int, draws: Draws, mass_kg: float = 0.0) -> Array:
    """Seconds that an action takes, (members,); never beyond the row's bounds.

    pieces : 1 to 60 (of a sauce, its ingredients up to 300). mass_kg : 0 to 12. Raises OutOfRange.
    """
    line = row("handwork", action)
    likely = _unbounded_s(action, pieces, mass_kg)
    pace = draws.factor("hands", value("spread_hands"))
    return np.clip(likely * pace, float(line["low_s"]), float(line["high_s"]))


def likely_s(action: str, pieces: int, mass_kg: float = 0.0) -> float:
    """The likely seconds of an action; as `hands_s`."""
    return min(float(row("handwork", action)["high_s"]), _unbounded_s(action, pieces, mass_kg))


def _unbounded_s(action: str, pieces: int, mass_kg: float) -> float:
    ranges = Ranges()
    ranges.within("pieces", pieces, 1, 300)
    ranges.within("mass_kg", mass_kg, 0.0, 12.0, "kg")
    ranges.close()
    line = row("handwork", action)
    per = float(line["piece_s"]) * pieces + float(line["kg_s"]) * mass_kg
    return float(line["fixed_s"]) + per
