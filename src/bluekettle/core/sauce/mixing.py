"""Mixing ingredient lines into one composition."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np

from bluekettle.core.errors import Ranges, within
from bluekettle.core.ingredients import MOST_LINES, PARTS, Ingredient, ingredient, ingredient_keys
from bluekettle.core.sauce.tint import colour_of
from bluekettle.core.tables import row, rows, value

OILS_FROM = 0.8  # mass fraction of fat (typical, estimated)
Line = tuple[str | Ingredient, float]  # ingredient or its key, mass [kg]


@dataclass(frozen=True)
class Composition:
    """A sauce: name, total mass [kg], volume [L], mass fractions [-], and its raw colour
    (CIELAB).
    """

    name: str
    mass_kg: float
    volume_l: float
    water: float
    sucrose: float
    glucose: float
    fructose: float
    other: float
    protein: float
    fat: float
    salt: float
    acid: float
    raw_lab: tuple[float, float, float] = (45.0, 18.0, 26.0)  # a dark red glaze (typical)
    alcohol: float = 0.0  # mass fraction, among "other"

    @property
    def sugars(self) -> float:
        """Mass fraction of sugars [-]."""
        return self.sucrose + self.glucose + self.fructose

    @property
    def caramelises(self) -> bool:
        """Whether it holds enough sugar for caramel milestones, by its share of what is neither
        water nor fat.
        """
        return enough_sugar(self.sugars, self.water, self.fat)

    @property
    def oils(self) -> bool:
        """Whether it is oil, or as good as oil: melted butter is, an emulsion is not."""
        return self.fat >= OILS_FROM and not self.caramelises


def enough_sugar(sugars: float, water: float, fat: float) -> bool:
    """Whether mass fractions leave enough sugar in the dry film for caramel; simmering water off
    changes nothing.
    """
    dry = 1.0 - water
    return sugars >= max(
        value("caramel_least_share") * (dry - fat), value("caramel_least_dry") * dry, 1e-6
    )


def mix(
    name: str,
    lines: Sequence[Line],
    raw_lab: tuple[float, float, float] | None = None,
) -> Composition:
    """Mix ingredient lines into one sauce; mass is conserved, volumes are added. Its colour is that
    of its parts, unless `raw_lab` says it.

    Parameters
    ----------
    lines : sequence of (ingredient or its key, mass [kg])
        1 to 300 lines, each above 0 and up to 50 kg.

    Raises
    ------
    OutOfRange
        Names every unusable line: unknown ingredient, mass out of range.
    """
    ranges = Ranges()
    ranges.within("lines", len(lines), 1, MOST_LINES, "lines")
    for place, (item, mass_kg) in enumerate(lines):
        if isinstance(item, str):
            ranges.one_of(f"lines.{place}.ingredient", item, ingredient_keys())
        ranges.within(f"lines.{place}.mass_g", mass_kg * 1e3, 0.01, 50_000, "g")
    ranges.close()
    masses = np.array([mass for _, mass in lines])
    parts = [ingredient(item) if isinstance(item, str) else item for item, _ in lines]
    total = float(masses.sum())
    volume = float((masses / np.array([part.density_kg_l for part in parts])).sum())
    sums = masses @ np.array([part.fractions for part in parts])
    shares = sums / sums.sum()
    alcohol = float(masses @ np.array([part.alcohol for part in parts])) / total
    return Composition(
        name,
        total,
        volume,
        **dict(zip(PARTS, map(float, shares), strict=True)),
        raw_lab=raw_lab or colour_of(parts, [mass for _, mass in lines]),
        alcohol=alcohol,
    )


def reduce_to(sauce: Composition, water: float) -> Composition:
    """The sauce after simmering down to a water fraction [-]; only water leaves.

    Raises OutOfRange where `water` is not between 0.02 and the sauce's own water fraction.
    """
    ranges = Ranges()
    ranges.within("water", water, 0.02, sauce.water)
    ranges.close()
    return without_water(sauce, sauce.mass_kg * (sauce.water - water) / (1.0 - water))


def without_water(sauce: Composition, gone_kg: float) -> Composition:
    """The sauce when some of its water is gone [kg]; every other part stays, the volume falls by
    that of the water. Of alcohol there is less: it leaves about twice as fast as water in
    proportion (typical, estimated).

    Raises OutOfRange for more water than 99 % of the sauce's mass, or than it holds.
    """
    within("gone_kg", gone_kg, 0.0, min(sauce.mass_kg * sauce.water, 0.99 * sauce.mass_kg), "kg")
    mass = sauce.mass_kg - gone_kg
    gain = sauce.mass_kg / mass
    parts = {part: getattr(sauce, part) * gain for part in PARTS if part != "water"}
    water = (sauce.mass_kg * sauce.water - gone_kg) / mass
    kept = (1.0 - gone_kg / (sauce.mass_kg * sauce.water)) ** 2 if gone_kg > 0.0 else 1.0
    return replace(
        sauce,
        mass_kg=mass,
        volume_l=sauce.volume_l - gone_kg,
        water=water,
        alcohol=sauce.alcohol * gain * kept,
        **parts,
    )


def sample_sauce(key: str) -> Composition:
    """One of the sauces that ship with the product; MissingData names them."""
    line = row("sauces", key)
    lab = (float(line["lab_l"]), float(line["lab_a"]), float(line["lab_b"]))
    return mix(line["name"], sample_sauce_lines(key), lab)


def sample_sauce_lines(key: str) -> list[tuple[str, float]]:
    """Ingredient keys and masses [kg] of a shipped sauce; MissingData names them."""
    pairs = (item.split(":") for item in row("sauces", key)["lines"].split(";"))
    return [(name, float(grams) / 1e3) for name, grams in pairs]


def sample_sauce_keys() -> tuple[str, ...]:
    """Keys of the shipped sauces, in table order."""
    return tuple(rows("sauces"))
