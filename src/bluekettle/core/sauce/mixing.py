"""Mixing ingredient lines into one composition."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

from bluekettle.core.errors import Fault, OutOfRange, Ranges
from bluekettle.core.ingredients import PARTS, ingredient, ingredient_keys
from bluekettle.core.tables import row, rows

Line = tuple[str, float]  # ingredient key, mass [kg]


@dataclass(frozen=True)
class Composition:
    """A sauce: name, total mass [kg], volume [L], mass fractions [-], and its raw colour (CIELAB)."""

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
    raw_lab: tuple[float, float, float] = (45.0, 18.0, 26.0)

    @property
    def sugars(self) -> float:
        """Mass fraction of sugars [-]."""
        return self.sucrose + self.glucose + self.fructose

    @property
    def caramelises(self) -> bool:
        """Whether it holds enough sugar for caramel milestones (3 % and more of its mass)."""
        return self.sugars >= 0.03


def mix(name: str, lines: Sequence[Line], raw_lab: tuple[float, float, float] = (45.0, 18.0, 26.0)) -> Composition:
    """Mix ingredient lines into one sauce; mass is conserved, volumes are added.

    Parameters
    ----------
    lines : sequence of (ingredient key, mass [kg])
        1 to 200 lines, each above 0 and up to 50 kg.

    Raises
    ------
    OutOfRange
        Names every unusable line: unknown ingredient, mass out of range; or a mixture with under 5 % of solids.
    """
    ranges = Ranges()
    ranges.within("lines", len(lines), 1, 200, "lines")
    for place, (key, mass_kg) in enumerate(lines):
        ranges.one_of(f"lines.{place}.ingredient", key, ingredient_keys())
        ranges.within(f"lines.{place}.mass_g", mass_kg * 1e3, 0.01, 50_000, "g")
    ranges.close()
    parts = [ingredient(key) for key, _ in lines]
    total = sum(mass for _, mass in lines)
    volume = sum(mass / part.density_kg_l for part, (_, mass) in zip(parts, lines, strict=True))
    sums = [
        sum(part.fractions[i] * mass for part, (_, mass) in zip(parts, lines, strict=True)) / total
        for i in range(len(PARTS))
    ]
    norm = sum(sums)
    made = Composition(
        name, total, volume, **{part: share / norm for part, share in zip(PARTS, sums, strict=True)}, raw_lab=raw_lab
    )
    if made.water > 0.95:
        raise OutOfRange([Fault("lines", f"{made.water:.0%} water", "a sauce with at least 5 % that is not water")])
    return made


def reduce_to(sauce: Composition, water: float) -> Composition:
    """The sauce after simmering down to a water fraction [-]; only water leaves.

    Raises OutOfRange where `water` is not between 0.02 and the sauce's own water fraction.
    """
    ranges = Ranges()
    ranges.within("water", water, 0.02, sauce.water)
    ranges.close()
    mass = sauce.mass_kg * (1.0 - sauce.water) / (1.0 - water)
    gain = sauce.mass_kg / mass
    solids = {part: getattr(sauce, part) * gain for part in PARTS if part != "water"}
    volume = sauce.volume_l - (sauce.mass_kg - mass)
    return replace(sauce, mass_kg=mass, volume_l=volume, water=water, **solids)


def sample_sauce(key: str) -> Composition:
    """One of the sauces that ship with the product; MissingData names them."""
    line = row("sauces", key)
    pairs = (item.split(":") for item in line["lines"].split(";"))
    lab = (float(line["lab_l"]), float(line["lab_a"]), float(line["lab_b"]))
    return mix(line["name"], [(name, float(grams) / 1e3) for name, grams in pairs], lab)


def sample_sauce_keys() -> tuple[str, ...]:
    """Keys of the shipped sauces, in table order."""
    return tuple(rows("sauces"))
