"""Scaling a recipe: to a meat mass, a surface with coats, servings, or the one ingredient that is
short.

Every ingredient has its own law. None has a step: nearly the same question gets nearly the same
answer.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from bluekettle.core.errors import Fault, OutOfRange, Ranges
from bluekettle.core.ingredients import Ingredient
from bluekettle.core.tables import value

KINDS = ("rub", "marinade", "braise", "glaze", "table")
# strong spices in a liquid: twice the pot wants less than twice the cloves (typical, estimated)
AROMA_POWER = 0.9
APPETITES = {
    "light": 0.13,  # kg of cooked food (household, estimated)
    "ordinary": 0.19,  # the same
    "hearty": 0.27,  # the same
}  # cooked, boneless kg a head (typical, estimated)
Line = tuple[Ingredient, float]  # ingredient, mass [kg]


@dataclass(frozen=True)
class ScaledLine:
    """One line: what it was and is [kg], and by which law."""

    ingredient: Ingredient
    from_kg: float
    to_kg: float
    law: str


@dataclass(frozen=True)
class Scaled:
    """A scaled recipe: its factor against the old one, its lines, its mass [kg], and notes in
    words.
    """

    factor: float
    lines: tuple[ScaledLine, ...]
    mass_kg: float
    notes: tuple[str, ...] = ()


def scale(kind: str, lines: Sequence[Line], factor: float, liquid_l: float | None = None) -> Scaled:
    """Scale the lines of a recipe.

    Parameters
    ----------
    kind : {"rub", "marinade", "braise", "glaze", "table"}
    factor : float
        How much more of it is wanted, 0.01 to 100.
    liquid_l : float, optional
        Braise only: what the pot needs (its least, and what evaporates). The thin liquids together
        come to this, and do not grow with the meat.

    Notes
    -----
    Straight: most things. Aroma: spices and herbs in a liquid, by `factor ** 0.9`. Liquid: by the
    vessel.

    Raises
    ------
    OutOfRange
    """
    ranges = Ranges()
    ranges.one_of("kind", kind, KINDS)
    ranges.within("factor", factor, 0.01, 100.0)
    if liquid_l is not None:
        ranges.within("liquid_l", liquid_l, 0.0, 20.0, "L")
    if not lines:
        ranges.add("lines", 0, "at least one line with a mass")
    ranges.close()
    wet = kind in ("marinade", "braise")
    thin = sum(mass / item.density_kg_l for item, mass in lines if item.group == "liquid")
    found = []
    for item, mass in lines:
        if kind == "braise" and liquid_l is not None and item.group == "liquid":
            found.append(ScaledLine(item, mass, mass * liquid_l / thin, "liquid, by the pot"))
        elif wet and item.group in ("spice", "herb"):
            found.append(
                ScaledLine(
                    item, mass, mass * factor**AROMA_POWER, "aroma, a little less than straight"
                )
            )
        else:
            found.append(ScaledLine(item, mass, mass * factor, "straight"))
    return Scaled(factor, tuple(found), sum(line.to_kg for line in found))


def factor_for_meat(for_kg: float, meat_kg: float) -> float:
    """Factor [-] from the meat a recipe is written for to the meat there is, 0.05 to 50 kg each."""
    ranges = Ranges()
    ranges.within("for_kg", for_kg, 0.05, 50.0, "kg")
    ranges.within("meat_kg", meat_kg, 0.05, 50.0, "kg")
    ranges.close()
    return meat_kg / for_kg


def factor_for_coats(
    mass_kg: float, surface_m2: float, coats: int, coat_kg_m2: float, table_kg: float
) -> float:
    """Factor [-] that makes a batch enough for so many coats and so much for the table.

    A tenth is added for what stays in bowl and brush (typical, estimated). Raises OutOfRange for a
    batch outside 1 g to 50 kg, a surface of 0.001 to 20 m², 0 to 6 coats, 0.02 to 4 kg/m².
    """
    ranges = Ranges()
    ranges.within("mass_kg", mass_kg, 1e-3, 50.0, "kg")
    ranges.within("surface_m2", surface_m2, 1e-3, 20.0, "m²")
    ranges.within("coats", coats, 0, 6, "coats")
    ranges.within("coat_kg_m2", coat_kg_m2, 0.02, 4.0, "kg/m²")
    ranges.within("table_kg", table_kg, 0.0, 20.0, "kg")
    if coats == 0 and table_kg == 0.0:
        ranges.add("coats", 0, "a coat or a table portion")
    ranges.close()
    # a tenth stays in bowl and brush (estimated)
    return 1.1 * (surface_m2 * coats * coat_kg_m2 + table_kg) / mass_kg


def factor_for_short(mass_kg: float, have_kg: float) -> float:
    """Factor [-] that uses up what is there of the one ingredient that is short.

    OutOfRange for nothing of either.
    """
    ranges = Ranges()
    ranges.within("mass_kg", mass_kg, 1e-6, 50.0, "kg")
    ranges.within("have_kg", have_kg, 1e-6, 50.0, "kg")
    ranges.close()
    return have_kg / mass_kg


def meat_for(servings: float, appetite: str, shrink: float, bone: float) -> float:
    """Raw meat [kg] for so many servings: cooked and boneless mass a head over what shrinking and
    bones leave.

    Raises OutOfRange for servings outside 0.5 to 200, an unknown appetite, or shares outside 0 to
    0.8.
    """
    ranges = Ranges()
    ranges.within("servings", servings, 0.5, 200.0, "servings")
    ranges.one_of("appetite", appetite, tuple(APPETITES))
    ranges.within("shrink", shrink, 0.0, 0.8)
    ranges.within("bone", bone, 0.0, 0.8)
    ranges.close()
    return servings * APPETITES[appetite] / ((1.0 - shrink) * (1.0 - bone))


@dataclass(frozen=True)
class Salted:
    """Salt as a share of the meat: all that touches it, and what is likely to end up in it, with
    the usual range.
    """

    all_share: float
    likely_share: float
    usual_low: float
    usual_high: float
    verdict: str


def salt_of(sources: Sequence[tuple[str, float]], meat_kg: float) -> Salted:
    """Salt of the meat from every source.

    Parameters
    ----------
    sources : sequence of (kind, salt [kg])
        Kind of the recipe it is in; a marinade gives up only a part of its salt.
    meat_kg : float
        0.05 to 50 kg.

    Raises
    ------
    OutOfRange
    """
    ranges = Ranges()
    ranges.within("meat_kg", meat_kg, 0.05, 50.0, "kg")
    for place, (kind, salt_kg) in enumerate(sources):
        ranges.one_of(f"sources.{place}.kind", kind, KINDS)
        ranges.within(f"sources.{place}.salt_kg", salt_kg, 0.0, 5.0, "kg")
    ranges.close()
    uptake = {"marinade": value("marinade_uptake"), "braise": value("marinade_uptake")}
    every = sum(salt for _, salt in sources) / meat_kg
    likely = sum(salt * uptake.get(kind, 1.0) for kind, salt in sources) / meat_kg
    low, high = value("salt_low_share"), value("salt_high_share")
    verdict = (
        "under the usual range"
        if likely < low
        else "over the usual range"
        if likely > high
        else "as usual"
    )
    return Salted(every, likely, low, high, verdict)


def shares_of(
    total_kg: float, wanted: Sequence[tuple[str, float]]
) -> tuple[tuple[str, float], ...]:
    """Split a batch into portions [kg] in proportion to what is wanted of each.

    Raises OutOfRange where nothing is wanted, or a portion is below 0.
    """
    ranges = Ranges()
    ranges.within("total_kg", total_kg, 1e-4, 50.0, "kg")
    for name, mass in wanted:
        ranges.within(name, mass, 0.0, 50.0, "kg")
    ranges.close()
    whole = sum(mass for _, mass in wanted)
    if not whole > 0.0:
        raise OutOfRange([Fault("portions", whole, "at least one portion above 0 kg")])
    return tuple((name, total_kg * mass / whole) for name, mass in wanted)
