"""A bottle's label: from serving size, sugars, sodium, protein, fat and the order of ingredients to
a composition.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from bluekettle.core.errors import Ranges
from bluekettle.core.ingredients.table import PARTS, Ingredient, find, ingredient

SALT_PER_SODIUM = 2.542  # 58.44 / 22.99


@dataclass(frozen=True)
class Label:
    """What a label says of one serving: its mass [g], carbohydrate, sugars, protein, fat [g],
    sodium [mg].
    """

    serving_g: float
    sugars_g: float
    sodium_mg: float
    protein_g: float = 0.0
    fat_g: float = 0.0
    carbohydrate_g: float | None = None


def from_label(
    key: str,
    name: str,
    label: Label,
    order: Sequence[str] = (),
    density_kg_l: float = 1.15,  # of a bottled sauce (typical)
) -> Ingredient:
    """An ingredient as its label tells it.

    Parameters
    ----------
    order : sequence of str
        Ingredients as the label lists them, the heaviest first; those that are known give the kinds
        of sugar and the acid. Each is taken to weigh two thirds of the one before it (typical,
        estimated). Unknown ones are passed over.

    Raises
    ------
    OutOfRange
        A serving outside 1 to 500 g, or parts that weigh more than it does.
    """
    ranges = Ranges()
    ranges.within("serving_g", label.serving_g, 1.0, 500.0, "g")
    ranges.within("density_kg_l", density_kg_l, 0.2, 2.0, "kg/L")
    serving = max(label.serving_g, 1.0) if label.serving_g == label.serving_g else 1.0
    for field in ("sugars_g", "protein_g", "fat_g"):
        ranges.within(field, getattr(label, field), 0.0, serving, "g")
    ranges.within("sodium_mg", label.sodium_mg, 0.0, 393.0 * serving, "mg")
    carbs = label.sugars_g if label.carbohydrate_g is None else label.carbohydrate_g
    ranges.within("carbohydrate_g", carbs, 0.0, serving, "g")
    ranges.close()
    salt_g = label.sodium_mg * SALT_PER_SODIUM / 1e3
    solids = max(carbs, label.sugars_g) + label.protein_g + label.fat_g + salt_g
    ranges.within("sugars_g + protein_g + fat_g + salt", solids, 0.0, serving, "g, the serving")
    ranges.close()
    found = [
        (ingredient(k), (2.0 / 3.0) ** i) for i, k in enumerate(find(n)[0] for n in order) if k
    ]
    sweet = [
        sum(item.share(kind) * weight for item, weight in found)
        for kind in ("sucrose", "glucose", "fructose")
    ]
    total = sum(sweet)
    split = [s / total for s in sweet] if total > 0.0 else [1.0 / 3.0] * 3
    weight = sum(w for _, w in found)
    # acid of a bottled sauce (typical, estimated)
    acid = sum(item.share("acid") * w for item, w in found) / weight if weight else 0.005
    sugars = label.sugars_g / serving
    parts = {
        "sucrose": sugars * split[0],
        "glucose": sugars * split[1],
        "fructose": sugars * split[2],
        "other": max(0.0, carbs - label.sugars_g) / serving,
        "protein": label.protein_g / serving,
        "fat": label.fat_g / serving,
        "salt": salt_g / serving,
    }
    room = 1.0 - sum(parts.values())
    parts["acid"] = min(acid, room)
    parts["water"] = room - parts["acid"]
    allergens = tuple(dict.fromkeys(a for item, _ in found for a in item.allergens))
    fractions = tuple(parts[part] for part in PARTS)
    return Ingredient(key, name, fractions, density_kg_l, "estimated", "sauce", allergens=allergens)
