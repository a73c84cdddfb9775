"""Finishes as kitchens do them: minutes under the heat until cooks take them out and are content
(household knowledge). No fit has seen them.

Run: .venv/bin/python -m tests.against.kitchens
prints the table of docs/model.md.
"""

from __future__ import annotations

from dataclasses import replace
from typing import NamedTuple

import numpy as np
from tests.one_cook import Dish

from bluekettle.core.chain import Fire, forecast_plan
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
# Kitchens glaze a ham while it warms: it goes into the fryer as it comes out of the fridge.
FROM_COLD = (HAM,)
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
    ("sweet glaze on a ham from the fridge, three coats, 190 °C fryer", HAM, 20, 28),
)


class Then(NamedTuple):
    """Chances at one moment: the wanted colour, and burnt or bitter."""

    right: float
    spoilt: float


class Found(NamedTuple):
    """Minutes until the forecast takes it out, and the chances then and in the middle and at the
    ends of the minutes that kitchens take.
    """

    pull_min: float
    then: Then
    theirs: tuple[Then, Then, Then]


def fire_of(dish: Dish) -> Fire:
    """The finish by 64 members."""
    plan = dish.plan
    if dish in FROM_COLD:
        plan = replace(plan, stages=tuple(one for one in plan.stages if one.id != "cook"))
    return forecast_plan(plan, None, draw_members(1, 64)).fires[-1]


def found_for(dish: Dish, low: float, high: float) -> Found:
    """What the forecast says of a row."""
    fire = fire_of(dish)

    def at(minutes: float) -> Then:
        marks, samples = fire.milestones, fire.finish.sample_s
        right, spoilt = (np.interp(60.0 * minutes, samples, m) for m in (marks.wanted, marks.risk))
        return Then(float(right), float(spoilt))

    pull = fire.timer_s / 60.0
    return Found(pull, at(pull), (at(low), at(float(np.sqrt(low * high))), at(high)))


def main() -> None:
    """Print the table."""
    print("| finish | kitchens, min | forecast | right, spoilt then | right, spoilt amid theirs |")
    print("|---|---|---|---|---|")
    for name, dish, low, high in ROWS:
        pull, then, (_, mid, _) = found_for(dish, low, high)
        chances = f"{then.right:.0%}, {then.spoilt:.0%} | {mid.right:.0%}, {mid.spoilt:.0%}"
        print(f"| {name} | {low} to {high} | {pull:.0f} | {chances} |")


if __name__ == "__main__":
    main()
