"""Fits the film's free constants to all household ranges of docs/model.md at once; prints, changes
nothing.

Run: .venv/bin/python benchmarks/fit_glaze.py
"""

from __future__ import annotations

import numpy as np
from scipy.optimize import differential_evolution

from bluekettle.core.glaze import BEFORE, Heat, draw_members, run_finish
from bluekettle.core.glaze.finish import Coating, bare_film
from bluekettle.core.glaze.kernel import film_constants
from bluekettle.core.sauce import mix

BOUNDS = {
    "brown_rate_1_s": (0.001, 0.02),
    "protein_rate_1_s": (0.0003, 0.004),
    "brown_wet_fraction": (0.03, 0.4),
    "interface_face_w_m2_k": (220.0, 330.0),
    "interface_edge_share": (0.45, 0.6),
    "edge_heat_share": (1.25, 1.35),
    "edge_coat_share": (0.77, 0.85),
    "crust_k_w_m_k": (0.11, 0.15),
    "element": (2500.0, 4500.0),
}
SAUCE = mix("tomato", [("ketchup", 0.1), ("brown-sugar", 0.02), ("cider-vinegar", 0.01)])
# heat, site (face 0, edge 1), milestone (amber 2, mahogany 3), least and most minutes
TARGETS = (
    ("broiler", 1, 2, 1.0, 4.0),
    ("broiler", 0, 3, 4.0, 8.0),
    ("oven", 0, 2, 6.0, 9.0),
    ("oven", 0, 3, 11.0, 13.0),
    ("fan", 1, 2, 4.0, 7.0),
    ("fan", 0, 2, 8.0, 14.0),
    ("fryer", 0, 2, 3.0, 7.0),
)


def misfit(point: np.ndarray) -> float:
    """Sum of squared log distances outside the ranges, a little for being near their ends, and for
    edges burning.
    """
    named = dict(zip(BOUNDS, point, strict=True))
    element = named.pop("element")
    constants = film_constants()._replace(**named)
    heats = {
        "broiler": Heat(12, 220, 220, element, 0.35),
        "oven": Heat(12, 230, 230, 0, 0.2),
        "fan": Heat(23, 200, 200, 0, 0.2),
        "fryer": Heat(50, 200, 200, 0, 0.15),
    }
    draws = draw_members().median_only()
    coating = Coating(
        SAUCE.water,
        SAUCE.sucrose,
        SAUCE.glucose,
        SAUCE.fructose,
        SAUCE.other,
        SAUCE.protein,
        SAUCE.fat,
        SAUCE.salt,
        SAUCE.acid,
        0.6,
    )
    times = {
        name: (
            run_finish(
                draws, heat, coating, [BEFORE], 80.0, 75.0, 2400, constants=constants
            ).times_s[0]
            / 60
        )
        for name, heat in heats.items()
    }
    total = 0.0
    for name, site, mark, low, high in TARGETS:
        time = min(times[name][site, mark], 60.0)
        middle, half = 0.5 * np.log(low * high), 0.5 * np.log(high / low)
        away = abs(np.log(time) - middle) / half
        total += 0.02 * away**2 + 10 * max(0.0, away - 0.9) ** 2
    for name, room in (("broiler", 1.05), ("oven", 1.1), ("fan", 1.1), ("fryer", 1.1)):
        burnt, ready = times[name][1, 5], times[name][0, 3]
        if np.isfinite(ready):
            total += 10 * max(0.0, np.log(room * ready / min(burnt, 60.0))) ** 2
        else:
            total += 5.0
    close = Heat(12, 240, 240, 6000, 0.35)
    shreds = run_finish(
        draws, close, bare_film(), [BEFORE], 80.0, 75.0, 900, shreds=True, constants=constants
    )
    crisp, burnt = shreds.times_s[0, 0, 6] / 60, shreds.times_s[0, 0, 5] / 60
    total += (
        10 * max(0.0, np.log(min(crisp, 30) / 2.0)) ** 2
        + 10 * max(0.0, np.log(min(burnt, 30) / 4.0)) ** 2
    )
    return float(total)


if __name__ == "__main__":
    found = differential_evolution(
        misfit, list(BOUNDS.values()), seed=1, maxiter=60, popsize=12, polish=False
    )
    print(f"misfit {found.fun:.4f}")
    for name, figure in zip(BOUNDS, found.x, strict=True):
        print(f"{name:28} {figure:.5g}")
