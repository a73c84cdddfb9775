"""What does not lie in its vessel or its fire, and what waits while the next batch is in."""

from __future__ import annotations

from collections.abc import Iterator

import numpy as np

from bluekettle.core.chain import Heat, PlanForecast, heat_row, in_batches
from bluekettle.core.chain.food import Food, piece_now
from bluekettle.core.chain.slow import slow_dish
from bluekettle.core.safety.plan_base import Found, Patch, PlanWatchOut, Rule
from bluekettle.core.stages.fit import Fit, Verdict, fit_fierce, fit_slow
from bluekettle.core.units import span_words

STANDS_FROM_S = 120.0  # a shorter wait between two batches is not told (design)
LONGEST_S = 3600.0  # of one batch (design)
COUNTED = ("no", "one", "two", "three", "four")


def does_it_fit(f: PlanForecast) -> Found:
    """What does not fit is found out before anything is hot, where the kitchen's insides are
    known; once where several heats say the same.
    """
    told: set[str] = set()
    for one in f.walk.passed:
        stage, food = one.stage, one.passage.food
        if not isinstance(stage, Heat) or food.strands:
            continue
        for fit in fits_of(f, stage, food):
            for verdict in fit.verdicts:
                if verdict.level == "fits" or verdict.about == "fill":
                    continue  # line and liquid have rules of their own
                says = f"In the {heat_row(stage.heat).name}: {small(verdict.message)}"
                if says in told:
                    continue
                told.add(says)
                yield PlanWatchOut(
                    f"fit-{verdict.about}",
                    verdict.level,
                    stage.id,
                    says,
                    verdict.repair or "Try it with a cold tray before anything is hot.",
                    "estimated",
                    *batches(f, stage, fit, verdict),
                )


def small(sentence: str) -> str:
    """A sentence as it goes on after a colon."""
    return f"{sentence[0].lower()}{sentence[1:]}"


def fits_of(f: PlanForecast, stage: Heat, food: Food) -> Iterator[Fit]:
    """How food lies in a heat; a fryer that is slow and fierce is one basket."""
    heat = heat_row(stage.heat)
    fits = {}
    if heat.slow is not None:
        fits[heat.slow.job] = fit_slow(slow_dish(stage, food, f.plan))
    if heat.fierce is not None:
        fits[heat.fierce.key] = fit_fierce(piece_now(f.plan, food), heat.fierce.key)
    yield from (fit for fit in fits.values() if fit is not None)


def batches(f: PlanForecast, stage: Heat, fit: Fit, verdict: Verdict) -> tuple[Patch, str]:
    """Where a heat does not take all of it in one layer: in batches, one after the other; not where
    each would take hours.
    """
    takes_s = sum(link.band.likely_s for link in f.links if link.key.startswith(f"{stage.id}."))
    if verdict.about != "batches" or takes_s > LONGEST_S:
        return (), ""
    patch = in_batches(f, stage.id, fit.batches)
    if not patch:
        return (), ""
    return patch, f"In {COUNTED[fit.batches]} batches, one after the other"


def stands(f: PlanForecast) -> Found:
    """What is done first waits for the rest."""
    for tail in f.walk.tails[:-1]:
        seconds = float(np.median(tail.waits_s))
        if seconds < STANDS_FROM_S:
            continue
        yield PlanWatchOut(
            "batch-waits",
            "careful",
            tail.line[-1].stage.id,
            f"These wait about {span_words(seconds)} for the rest.",
            "Open, on a rack, it stays crisp; under a cover its crust goes soft. A warm oven keeps"
            " it hot, and a minute under the heat again freshens it.",
            "estimated",
        )


FIT_RULES: tuple[Rule, ...] = (does_it_fit, stands)
