"""The raw colour of a sauce, from what it is made of."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np

from bluekettle.core.errors import MissingData
from bluekettle.core.ingredients import Ingredient
from bluekettle.core.tables import Row, rows

Lab = tuple[float, float, float]


def tint_of(item: Ingredient) -> Row:
    """The row of an ingredient's colour, or that of its group; MissingData where neither is
    known.
    """
    table = rows("tints")
    found = table.get(item.key) or table.get(f"group/{item.group}")
    if found is None:
        raise MissingData("tints", item.group, tuple(table))
    return found


def colour_of(parts: Sequence[Ingredient], masses: Sequence[float]) -> Lab:
    """CIELAB of a mixture: the mean of its parts by their mass and by how strongly each colours, a
    spoon of soy sauce far more than a spoon of honey. By eye, to about 20 units of colour
    difference against the sauces that ship.

    masses : any unit, one a part, not all 0.
    """
    table = [tint_of(item) for item in parts]
    labs = np.array([[float(row[name]) for name in ("lab_l", "lab_a", "lab_b")] for row in table])
    weights = np.asarray(masses) * np.array([float(row["strength"]) for row in table])
    lightness, redness, yellowness = weights @ labs / weights.sum()
    return (float(lightness), float(redness), float(yellowness))
