"""Rehearsals: evenings whose truths are drawn anew, held against what the forecast had said.

Run: .venv/bin/python -m tests.against.rehearsals
prints the table of docs/model.md.
"""

from __future__ import annotations

from dataclasses import replace
from typing import NamedTuple

import numpy as np
from tests.one_cook import Dish, forecast

from bluekettle.core.glaze import MILESTONES, Draws, draw_members
from bluekettle.core.sauce import sample_sauce

EVENINGS = 1500
SITES = ("face", "edge")
FIRES = ("broiler", "oven", "air_fryer", "crisping_lid", "grill")
BARE = Dish("pork-ribs", 1.4, 4, 26.0, release="quick", bite="tug", sauce=None, coats=0)
KINDS = {
    "bare ribs": BARE,
    "ribs, one coat": replace(BARE, sauce=sample_sauce("plum-tea"), coats=1),
    "short ribs, two coats, dark": Dish(
        "beef-short-ribs",
        1.6,
        6,
        45.0,
        release="mixed",
        sauce=sample_sauce("plum-tea"),
        coats=2,
        want="mahogany",
    ),
    "smoked ribs, one coat": replace(
        BARE, tenderise="smoke", release=None, sauce=sample_sauce("plum-tea"), coats=1
    ),
}


class Rehearsed(NamedTuple):
    """Share of milestones inside their 80 % bands, the worst one, and the chance "right at this
    pull": as printed, and as it came.
    """

    inside: float
    worst: float
    said: float
    came: float


def evenings(seed: int) -> Draws:
    """Truths drawn one by one, not spread evenly as the forecast's members are."""
    rng = np.random.default_rng(seed)
    names = draw_members().normal
    return Draws({name: rng.standard_normal(EVENINGS) for name in names})


def rehearse(dish: Dish, seed: int = 7) -> Rehearsed:
    """Forecast a dish, cook it on many evenings, and compare."""
    told = forecast(dish)
    dish = replace(dish, timer_min=told.timer_s / 60.0)
    truth = forecast(dish, draws=evenings(seed))
    shares = []
    for s, site in enumerate(SITES):
        for m, mark in enumerate(MILESTONES):
            band = told.milestones.bands[site][mark]
            when = truth.finish.times_s[:, s, m]
            # A band whose end was not reached within the time looked at is open there.
            if band.reached < 0.95 or band.low_s is None or band.high_s is None:
                continue
            shares.append(float(np.mean((when >= band.low_s) & (when <= band.high_s))))
    pull = told.finish_timer_s
    said = np.interp(pull, told.finish.sample_s, told.milestones.wanted)
    came = np.interp(pull, truth.finish.sample_s, truth.milestones.wanted)
    worst = max(shares, key=lambda share: abs(share - 0.8))
    return Rehearsed(float(np.mean(shares)), worst, float(said), float(came))


def main() -> None:
    """Print the table."""
    print("| dish | fire | inside 80 % bands | worst | right at this pull: said | came |")
    print("|---|---|---|---|---|---|")
    for kind, dish in KINDS.items():
        for fire in FIRES:
            r = rehearse(replace(dish, finish=fire))
            figures = " | ".join(f"{100 * x:.0f} %" for x in r)
            print(f"| {kind} | {fire} | {figures} |")


if __name__ == "__main__":
    main()
