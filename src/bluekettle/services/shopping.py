"""What a meal needs, over all its dishes: the same thing added up."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field

from bluekettle.core.ingredients import ingredient, ingredient_keys
from bluekettle.core.sauce import sample_sauce_keys, sample_sauce_lines
from bluekettle.core.stages import cut, cut_keys
from bluekettle.core.units import amount
from bluekettle.schemas.chain import ChainDocument
from bluekettle.schemas.dish import SauceDocument
from bluekettle.schemas.meal import ShoppingPublic

KILO_G = 1000.0
NOT_BOUGHT = ("water", "pot-juice", "reduced-juice")
STEP_G = 5.0  # to which the grams of an ingredient are rounded up


@dataclass
class Wanted:
    """A thing with its grams, None for as much as is needed, and the dishes that want it."""

    name: str
    grams: float | None
    users: list[str] = field(default_factory=list)


def shopping_of(
    dishes: Sequence[tuple[str, ChainDocument]], sides: Sequence[str]
) -> list[ShoppingPublic]:
    """What to buy for dishes, by their names, and for sides: the food first, then what sauces and
    rubs are made of.
    """
    found: dict[str, Wanted] = {}
    for name, dish in dishes:
        for key, what, grams in food_of(dish):
            add(found, key, what, grams, name)
    for name, dish in dishes:
        for key, what, grams in layers_of(dish):
            if key not in NOT_BOUGHT:
                add(found, key, what, grams, name)
    for name in sides:
        add(found, f"side {name}", f"for {name.lower()}", None, name)
    return [
        ShoppingPublic(name=one.name, amount=shown(one.grams), users=one.users)
        for one in found.values()
    ]


def add(found: dict[str, Wanted], key: str, name: str, grams: float | None, user: str) -> None:
    """Add a thing to what is wanted of it already."""
    one = found.setdefault(key, Wanted(name, None if grams is None else 0.0))
    if grams is not None:
        one.grams = (one.grams or 0.0) + grams
    if user not in one.users:
        one.users.append(user)


def food_of(dish: ChainDocument) -> Iterator[tuple[str, str, float]]:
    """The food of a dish, as it is bought."""
    key = dish.food.cut
    name = cut(key).name if key in cut_keys() else key
    yield f"cut {key} {dish.food.state}", name, KILO_G * dish.food.mass_kg


def layers_of(dish: ChainDocument) -> Iterator[tuple[str, str, float]]:
    """What the sauces and rubs of a dish are made of."""
    for layer in dish.layers:
        sauce = layer.sauce
        if isinstance(sauce, SauceDocument):
            own = {one.key: one.name for one in sauce.own}
            for line in sauce.lines:
                name = own.get(line.ingredient)
                key = line.ingredient if name is None else f"own {name}"
                yield key, name or named(line.ingredient), line.mass_g
        elif sauce in sample_sauce_keys():
            for key, mass in sample_sauce_lines(str(sauce)):
                yield key, named(key), KILO_G * mass
        elif layer.sugar_g or layer.spice_g:
            yield f"rub {layer.name}", layer.name or layer.id, layer.sugar_g + layer.spice_g


def named(key: str) -> str:
    """An ingredient by its name; by its key where nobody knows it."""
    return ingredient(key).name if key in ingredient_keys() else key.replace("-", " ")


def shown(grams: float | None) -> str:
    """An amount as it is bought; empty for as much as is needed."""
    if grams is None:
        return ""
    if grams >= KILO_G:
        return amount(math.ceil(grams / 100.0) / 10.0, "kg")
    return amount(STEP_G * math.ceil(grams / STEP_G), "g")
