"""How long hands take: table rows with provenance, per piece, with a pace that differs from cook to
cook.
"""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from bluekettle.core.errors import within
from bluekettle.core.glaze import Draws
from bluekettle.core.tables import row, value

Array = NDArray[np.float64]


def hands_s(action: str, pieces: int, draws: Draws) -> Array:
    """Seconds that an action takes with 1 to 60 pieces, (members,); never beyond the row's
    bounds.
    """
    within("pieces", pieces, 1, 60)
    line = row("handwork", action)
    likely = float(line["fixed_s"]) + float(line["piece_s"]) * pieces
    return np.clip(
        likely * draws.factor("hands", value("spread_hands")),
        float(line["low_s"]),
        float(line["high_s"]),
    )


def likely_s(action: str, pieces: int) -> float:
    """The likely seconds of an action with 1 to 60 pieces; OutOfRange otherwise."""
    within("pieces", pieces, 1, 60)
    line = row("handwork", action)
    return min(float(line["high_s"]), float(line["fixed_s"]) + float(line["piece_s"]) * pieces)
