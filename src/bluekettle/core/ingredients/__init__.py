"""What each ingredient is made of: water, sugars by kind, other solids, protein, fat, salt, acid, density.

Knows the table; knows nothing of mixing.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import cache

from bluekettle.core.tables import row, rows

__all__ = ["PARTS", "Ingredient", "ingredient", "ingredient_keys"]

PARTS = ("water", "sucrose", "glucose", "fructose", "other", "protein", "fat", "salt", "acid")


@dataclass(frozen=True)
class Ingredient:
    """One ingredient: mass fractions [-] of PARTS, density [kg/L], and how well the row is founded."""

    key: str
    name: str
    fractions: tuple[float, ...]
    density_kg_l: float
    kind: str


@cache
def ingredient(key: str) -> Ingredient:
    """The ingredient of this key; MissingData names the known ones.

    Examples
    --------
    >>> round(sum(ingredient("honey").fractions), 2)
    1.0
    """
    line = row("ingredients", key)
    return Ingredient(
        key, line["name"], tuple(float(line[part]) for part in PARTS), float(line["density_kg_l"]), line["kind"]
    )


def ingredient_keys() -> tuple[str, ...]:
    """All keys, in table order."""
    return tuple(rows("ingredients"))
