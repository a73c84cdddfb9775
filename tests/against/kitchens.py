"""Finishes as kitchens do them: minutes under the heat until cooks take them out and are content
(household knowledge). No fit has seen them.

Run: .venv/bin/python -m tests.against.kitchens
prints the table of docs/model.md.
"""

from __future__ import annotations

from dataclasses import replace

import numpy as np
from tests.one_cook import Dish, Told, forecast

from bluekettle.core.glaze import draw_members
from bluekettle.core.sauce import mix
from bluekettle.core.stages import Kitchen

TOMATO = mix("tomato", [("ketchup", 0.1), ("brown-sugar", 0.02), ("cider-vinegar", 0.01)])
HONEY = mix("honey", [("honey", 0.06), ("soy-sauce", 0.04), ("lemon-juice", 0.01)])
SWEET = mix("ham", [("brown-sugar", 0.12), ("honey", 0.06), ("mustard", 0.02)])
BARE = Dish(
    "pork-ribs",
    1.4,
    4,
    26.0,
    release="quick",
    sauce=None,
    coats=0,
    bite="tug",
    want="mahogany",
)
GLAZED = replace(BARE, sauce=TOMATO, coats=1, want="amber")
FOIL = {"tenderise": "foil", "release": None}
SHOULDER = replace(
    BARE,
    cut="pork-shoulder",
    mass_kg=1.8,
    pieces=5,
    thickness_mm=60.0,
    release="mixed",
    bite="shreds",
    want="amber",
)
THIGHS = Dish(
    "chicken-thighs", 1.2, 6, 28.0, release="quick", bite="tug", sauce=HONEY, coats=1, want="amber"
)
WINGS = Dish(
    "chicken-wings",
    1.0,
    11,
    28.0,
    tenderise="low_oven",
    sauce=None,
    coats=0,
    bite="tug",
    finish="air_fryer",
    want="mahogany",
    kitchen=Kitchen(air_fryer_c=204.0),
)
BELLY = Dish(
    "pork-belly",
    1.4,
    4,
    45.0,
    tenderise="braise",
    sauce=None,
    coats=0,
    bite="falls",
    finish="oven",
    want="mahogany",
)
BATH = Dish(
    "beef-short-ribs",
    1.6,
    6,
    45.0,
    tenderise="bath",
    sauce=TOMATO,
    coats=1,
    bite="tug",
    want="amber",
    kitchen=Kitchen(bath_c=75.0),
)
HAM = Dish(
    "cooked-ham",
    2.0,
    1,
    100.0,
    tenderise="foil",
    sauce=SWEET,
    coats=3,
    coats_min=(0.0, 8.0, 16.0),
    bite="sliceable",
    finish="air_fryer",
    want="amber",
    kitchen=Kitchen(air_fryer_c=190.0),
)
# Told too early or too dark: what follows a dry stage, and a ham that kitchens glaze while it is
# still cold inside (here it comes hot from its foil).
OUTSIDE = ("bare wings after", "sweet glaze on a warmed ham")
FAN = Kitchen(hot_oven_c=200.0, hot_oven_h_w_m2_k=23.0)
STILL = Kitchen(hot_oven_c=200.0)

ROWS: tuple[tuple[str, Dish, float, float], ...] = (
    (
        "bare ribs, 204 °C fryer",
        replace(BARE, finish="air_fryer", kitchen=Kitchen(air_fryer_c=204.0)),
        8,
        12,
    ),
    ("bare ribs, crisping lid", replace(BARE, finish="crisping_lid"), 7, 12),
    (
        "bare ribs from foil, hot grill, two turns",
        replace(BARE, **FOIL, finish="grill", want="amber", flips_min=(3.0, 6.0)),
        8,
        12,
    ),
    ("bare ribs, 230 °C oven", replace(BARE, finish="oven"), 12, 22),
    ("bare ribs, broiler", replace(BARE, finish="broiler"), 6, 12),
    ("bare wings after a low oven, 204 °C fryer", WINGS, 12, 20),
    (
        "bare shoulder, crisping lid, one turn",
        replace(SHOULDER, finish="crisping_lid", flips_min=(5.0,)),
        8,
        12,
    ),
    ("bare braised belly, 230 °C oven", BELLY, 15, 30),
    ("tomato on ribs, broiler", replace(GLAZED, finish="broiler"), 4, 7),
    ("tomato on ribs, two coats, 230 °C oven", replace(GLAZED, finish="oven", coats=2), 10, 16),
    ("tomato on ribs, 200 °C fan oven", replace(GLAZED, finish="oven", kitchen=FAN), 8, 15),
    ("tomato on ribs, 200 °C fryer", replace(GLAZED, finish="air_fryer"), 4, 8),
    ("tomato on ribs, crisping lid", replace(GLAZED, finish="crisping_lid"), 4, 8),
    (
        "tomato on foil ribs, two coats, grill, four turns",
        replace(GLAZED, **FOIL, finish="grill", coats=2, flips_min=(2.0, 4.0, 6.0, 8.0)),
        4,
        10,
    ),
    (
        "tomato on smoked ribs, 200 °C oven",
        replace(GLAZED, tenderise="smoke", release=None, finish="oven", kitchen=STILL),
        8,
        20,
    ),
    ("tomato on short ribs from a 75 °C bath, broiler", replace(BATH, finish="broiler"), 4, 8),
    ("honey and soy on thighs, fryer", replace(THIGHS, finish="air_fryer"), 3, 7),
    ("honey and soy on thighs, broiler", replace(THIGHS, finish="broiler"), 3, 6),
    ("sweet glaze on a warmed ham, three coats, 190 °C fryer", HAM, 20, 28),
)


def told(dish: Dish) -> Told:
    """The forecast by 64 members."""
    return forecast(dish, draws=draw_members(1, 64))


def at_pull(found: Told) -> tuple[float, float, float]:
    """Minutes until it is taken out, and the chances then: right, and burnt or bitter."""
    pull, samples = found.finish_timer_s, found.finish.sample_s
    right = float(np.interp(pull, samples, found.milestones.wanted))
    spoilt = float(np.interp(pull, samples, found.milestones.risk))
    return pull / 60.0, right, spoilt


def main() -> None:
    """Print the table."""
    print("| finish | kitchens, min | forecast | right then | spoilt then |")
    print("|---|---|---|---|---|")
    for name, dish, low, high in ROWS:
        pull, right, spoilt = at_pull(told(dish))
        print(f"| {name} | {low} to {high} | {pull:.0f} | {right:.0%} | {spoilt:.0%} |")


if __name__ == "__main__":
    main()
