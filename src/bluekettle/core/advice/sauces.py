"""What would calm a sauce that burns soon: changes of the recipe, each with the minutes it gains
under the broiler.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

from bluekettle.core.errors import within
from bluekettle.core.glaze.milestones import BURNT, EDGE
from bluekettle.core.ingredients import Ingredient, ingredient
from bluekettle.core.sauce import Composition, mix, reduce_to, sources_of
from bluekettle.core.stages import Kitchen, Rung, ladder

Line = tuple[Ingredient, float]


@dataclass(frozen=True)
class Calmer:
    """One change, and how much later edges burn for it [s]."""

    do: str
    later_s: float


def burnt_s(rung: Rung) -> float:
    """Time at which the edges of the first member (the median of everything) are burnt [s]; inf
    where not.
    """
    return float(rung.run.times_s[0, EDGE, BURNT])


def together(lines: Sequence[Line]) -> list[Line]:
    """One line an ingredient: a recipe of many lines stays within what can be mixed."""
    sums: dict[str, tuple[Ingredient, float]] = {}
    for item, mass in lines:
        sums[item.key] = (item, sums.get(item.key, (item, 0.0))[1] + mass)
    return list(sums.values())


def calmers(
    lines: Sequence[Line],
    kitchen: Kitchen | None = None,
    coat_mm: float = 0.5,
    water: float | None = None,
) -> tuple[Calmer, ...]:
    """Changes to a glaze that keep its edges longer, the most helpful first; those that do not help
    are left out.

    Tried: half of what browns most, plain sugar in its place (sugar for sugar), a thinner coat.
    `water` is the mass fraction that the sauce is simmered down to, 0.05 to 0.95; None where it is
    not. Raises OutOfRange for a coat outside 0.1 to 2 mm, or that water.
    """
    within("coat_mm", coat_mm, 0.1, 2.0, "mm")
    if water is not None:
        within("water", water, 0.05, 0.95)

    def made(changed: Sequence[Line]) -> Composition:
        raw = mix("trial", together(changed))
        return raw if water is None or raw.water <= water else reduce_to(raw, water)

    def broil(sauce: Composition, mm: float) -> float:
        return burnt_s(ladder(sauce, kitchen, mm, finishes=("broiler",), median=True)[0])

    browning = sources_of("browning", lines)
    if not browning:
        return ()
    worst = browning[0].key
    now = broil(made(lines), coat_mm)
    if not math.isfinite(now):
        return ()
    top = next(item for item, _ in lines if item.key == worst)
    sugar = ingredient("white-sugar")
    half = [(item, 0.5 * mass if item.key == worst else mass) for item, mass in lines]
    tried = [(f"half of the {top.name}", half, coat_mm)]
    # more than a trace, and a fifth of it fructose (design)
    if top.sugars > 0.1 and top.share("fructose") > 0.2 * top.sugars:
        plain: list[Line] = []
        for item, mass in lines:
            plain += (
                [(sugar, mass * item.sugars), (ingredient("water"), mass * (1.0 - item.sugars))]
                if item.key == worst
                else [(item, mass)]
            )
        tried.append(
            (f"white sugar for the {top.name}", [line for line in plain if line[1] > 1e-5], coat_mm)
        )
    if coat_mm > 0.35:  # thinner than the usual coat (design)
        tried.append(("a coat of 0.3 mm", list(lines), 0.3))  # a thin coat (design)
    trials = [(do, made(changed), mm) for do, changed, mm in tried]
    found = [Calmer(do, broil(sauce, mm) - now) for do, sauce, mm in trials if sauce.water <= 0.95]
    useful = [c for c in found if c.later_s > 5.0]  # what nobody would notice is not told (design)
    return tuple(
        # later than any finish takes (design)
        sorted((Calmer(c.do, min(c.later_s, 1800.0)) for c in useful), key=lambda c: -c.later_s)
    )
