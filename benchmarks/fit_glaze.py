"""Fits the free constants of film and bare surface to household ranges at once; prints, changes
nothing. tests/against/test_household_ranges.py holds other ranges, which no fit has seen.

Run: .venv/bin/python benchmarks/fit_glaze.py
"""

from __future__ import annotations

from typing import NamedTuple

import numpy as np
from scipy.optimize import differential_evolution

from bluekettle.core.glaze import BEFORE, MILESTONES, Act, Heat, draw_members, run_finish
from bluekettle.core.glaze.finish import Coating, bare_film
from bluekettle.core.glaze.records import FilmConstants, film_constants
from bluekettle.core.sauce import mix
from bluekettle.core.stages.finishing import film_of

BOUNDS = {
    "brown_rate_1_s": (0.001, 0.02),
    "protein_rate_1_s": (0.001, 0.006),
    "char_rate_1_s": (0.0003, 0.03),
    "char_ea_j_mol": (150_000.0, 220_000.0),
    "brown_sugar_most": (4.0, 9.0),
    "brown_wet_fraction": (0.03, 0.4),
    "interface_face_w_m2_k": (220.0, 350.0),
    "interface_edge_share": (0.45, 0.65),
    "edge_heat_share": (1.15, 1.35),
    "crust_k_w_m_k": (0.11, 0.16),
    "juice_share": (0.3, 0.65),
}
# As dishes arrive: 10 mm down, and under the surface, after two minutes of lifting and brushing.
DEEP_C, SURFACE_C = 93.0, 74.0
TOMATO = film_of(
    mix("tomato", [("ketchup", 0.1), ("brown-sugar", 0.02), ("cider-vinegar", 0.01)]), 0.6
)
BROILER, OVEN = Heat(12, 220, 220, 2650, 0.35), Heat(12, 230, 230, 0, 0.2)
FAN, FRYER = Heat(23, 200, 200, 0, 0.2), Heat(50, 200, 200, 0, 0.15)
HOT_FRYER, CLOSE = Heat(50, 204, 204, 0, 0.15), Heat(12, 240, 240, 6000, 0.35)
GRILL = Heat(22, 230, 270, 2600, 0.35, away=0.8)
TURNS = (BEFORE, *(Act(60.0 * at, 30.0, coat=False, turn=True) for at in (3, 6)))


class Target(NamedTuple):
    """A finish, a site of it, a milestone, and the least and most minutes; `shreds` are strands."""

    heat: Heat
    film: Coating
    site: str
    mark: str
    low: float
    high: float
    acts: tuple[Act, ...] = (BEFORE,)
    shreds: bool = False


MEDIAN = draw_members().median_only()
LATER = 60.0  # never, within the hour
TARGETS = (
    Target(BROILER, TOMATO, "face", "mahogany", 4.0, 8.0),
    Target(OVEN, TOMATO, "face", "mahogany", 11.0, 13.0),
    Target(OVEN, TOMATO, "edge", "burnt", 19.0, 28.0),
    Target(BROILER, TOMATO, "edge", "burnt", 7.0, 12.0),
    Target(FAN, TOMATO, "face", "amber", 8.0, 14.0),
    Target(FRYER, TOMATO, "face", "amber", 3.0, 7.0),
    Target(HOT_FRYER, bare_film(), "face", "crisp", 2.0, 6.0),
    Target(HOT_FRYER, bare_film(), "face", "mahogany", 7.5, 12.0),
    Target(HOT_FRYER, bare_film(), "edge", "bitter", 14.0, LATER),
    Target(GRILL, bare_film(), "face", "mahogany", 6.0, 12.0, TURNS),
    Target(GRILL, bare_film(), "back", "amber", 4.0, 9.0, TURNS),
    Target(GRILL, bare_film(), "edge", "bitter", 12.5, 20.0, TURNS),
    Target(CLOSE, bare_film(), "face", "crisp", 0.8, 2.0, shreds=True),
    Target(CLOSE, bare_film(), "face", "burnt", 3.0, 5.0, shreds=True),
)


def minutes(target: Target, constants: FilmConstants) -> float:
    """When the median member gets there [min under the heat], at most `LATER`."""
    times = run_finish(
        MEDIAN,
        target.heat,
        target.film,
        target.acts,
        DEEP_C,
        SURFACE_C,
        60.0 * LATER,
        shreds=target.shreds,
        constants=constants,
    ).times_s
    site = ("face", "edge", "back").index(target.site)
    return float(min(LATER, times[0, site, MILESTONES.index(target.mark)] / 60.0))


def named(point: np.ndarray) -> FilmConstants:
    """The constants at a point of the bounds."""
    return film_constants()._replace(**dict(zip(BOUNDS, point, strict=True)))


def misfit(point: np.ndarray) -> float:
    """Sum of squared log distances outside the ranges, and a little for being near their ends."""
    constants, total = named(point), 0.0
    for target in TARGETS:
        time = max(minutes(target, constants), 0.05)
        middle = 0.5 * np.log(target.low * target.high)
        half = 0.5 * np.log(target.high / target.low)
        away = abs(np.log(time) - middle) / half
        total += 10.0 * (half * max(0.0, away - 0.9)) ** 2
        total += 0.01 * away**2 if target.high < LATER else 0.0
    return float(total)


def main() -> None:
    """Fit, print the constants, which of them end on a bound, and each target's time."""
    found = differential_evolution(
        misfit, list(BOUNDS.values()), seed=1, maxiter=40, popsize=10, polish=False
    )
    print(f"misfit {found.fun:.4f}")
    for (name, (low, high)), figure in zip(BOUNDS.items(), found.x, strict=True):
        near = min(figure - low, high - figure) < 0.03 * (high - low)
        print(f"{name:28} {figure:.5g}{'  on its bound' if near else ''}")
    for target in TARGETS:
        time = minutes(target, named(found.x))
        told = f"{target.low:g} to {target.high:g}"
        print(f"{target.site:5} {target.mark:9} {time:5.1f} min, wanted {told}")


if __name__ == "__main__":
    main()
