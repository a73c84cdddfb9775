"""What a sauce is like before it meets heat: thickness, allergens, where its sugar and salt come
from, and swaps.
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass

from bluekettle.core.errors import Ranges
from bluekettle.core.ingredients import ALLERGENS, Ingredient, ingredient
from bluekettle.core.sauce.mixing import Composition
from bluekettle.core.tables import rows, value
from bluekettle.core.units import percent

Line = tuple[Ingredient, float]  # ingredient, mass [kg]
# Solids and thickeners against words; by hand and spoon, estimated.
THICKNESS = (
    (0.18, "thin as stock"),
    (0.36, "pours"),
    (0.56, "coats a spoon"),
    (0.74, "sticky"),
)
STIFFEST = "a paste"
THICKENERS = {
    "xanthan": 60.0,
    "gelatine": 8.0,  # times as thick as starch by mass (estimated)
}  # solids that one part is worth; starches and flours 6
VARIANTS = ("sugar-free", "less salt", "milder")


@dataclass(frozen=True)
class Source:
    """One ingredient's part of something: its name, the mass of that something [kg] and its share
    of the whole.
    """

    name: str
    key: str
    mass_kg: float
    share: float


def thickness_of(sauce: Composition, lines: Sequence[Line]) -> str:
    """The thickness class of a sauce, cold: by its solids without fat, with thickeners counted for
    what they bind.
    """
    body = 1.0 - sauce.water - 0.5 * sauce.fat
    total = sum(mass for _, mass in lines)
    for item, mass in lines:
        if item.group == "thickener":
            body += (THICKENERS.get(item.key, 6.0) - 1.0) * mass / total
    return next((word for most, word in THICKNESS if body < most), STIFFEST)


def allergens_of(lines: Sequence[Line]) -> dict[str, tuple[str, ...]]:
    """Allergens and the ingredients that bring them, in the usual order."""
    found: dict[str, list[str]] = {}
    for item, _ in lines:
        for allergen in item.allergens:
            found.setdefault(allergen, []).append(item.name)
    return {
        allergen: tuple(dict.fromkeys(found[allergen]))
        for allergen in ALLERGENS
        if allergen in found
    }


def sources_of(part: str, lines: Sequence[Line]) -> tuple[Source, ...]:
    """Where the sugars, the salt or the browning of a sauce come from, the largest first.

    `part` is "sugars", "salt", or "browning": sugars weighed by how fast each kind browns.
    Raises OutOfRange for another part.
    """
    ranges = Ranges()
    ranges.one_of("part", part, ("sugars", "salt", "browning"))
    ranges.close()

    def amount(item: Ingredient) -> float:
        if part == "browning":
            glucose, sucrose = value("brown_glucose_share"), value("brown_sucrose_share")
            return (
                item.share("fructose")
                + glucose * item.share("glucose")
                + sucrose * item.share("sucrose")
            )
        return item.sugars if part == "sugars" else item.share("salt")

    masses = [(item, amount(item) * mass) for item, mass in lines]
    whole = sum(mass for _, mass in masses)
    found = [Source(item.name, item.key, mass, mass / whole) for item, mass in masses if mass > 0.0]
    return tuple(sorted(found, key=lambda s: -s.mass_kg))


@dataclass(frozen=True)
class Variant:
    """A changed recipe: its lines, what was changed in words, and what could not be."""

    name: str
    lines: tuple[Line, ...]
    changes: tuple[str, ...]
    stays: tuple[str, ...] = ()


def vary(name: str, lines: Sequence[Line]) -> Variant:
    """A variant of a recipe: "sugar-free", "less salt", "milder", or "without X" for an allergen.

    Swaps come from the swaps table; salt sources are halved, pungent ones brought to a third. What
    has no swap stays and is named.

    Raises
    ------
    OutOfRange
        Another name.
    """
    ranges = Ranges()
    ranges.one_of("variant", name, (*VARIANTS, *(f"without {a}" for a in ALLERGENS)))
    ranges.close()
    if name == "less salt":
        return _less(name, lines, lambda item: 0.5 if item.share("salt") >= 0.05 else 1.0)
    if name == "milder":
        return _less(name, lines, lambda item: 1.0 / 3.0 if item.pungency >= 0.15 else 1.0)
    tag = name.removeprefix("without ")
    table = {line["from"]: line for key, line in rows("swaps").items() if key.startswith(f"{tag}:")}
    made: list[Line] = []
    changes, stays = [], []
    for item, mass in lines:
        bad = tag in item.allergens if name.startswith("without") else item.sugars >= 0.10
        swap = table.get(item.key)
        if swap and bad:
            other = ingredient(swap["to"])
            made.append((other, mass * float(swap["ratio"])))
            changes.append(
                f"{other.name} instead of {item.name}" + (f": {swap['why']}" if swap["why"] else "")
            )
            continue
        if bad:
            stays.append(f"{item.name} has no swap here")
        made.append((item, mass))
    return Variant(name, tuple(made), tuple(changes), tuple(stays))


def _less(name: str, lines: Sequence[Line], share: Callable[[Ingredient], float]) -> Variant:
    made = [(item, mass * share(item)) for item, mass in lines]
    changes = [
        f"{item.name}: {percent(share(item))} of it" for item, _ in lines if share(item) < 1.0
    ]
    return Variant(name, tuple(made), tuple(dict.fromkeys(changes)))
