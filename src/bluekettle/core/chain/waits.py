"""Stages in which the food lies somewhere: thawing, marinating, resting, cooling, holding."""

from __future__ import annotations

from bisect import bisect_left
from dataclasses import replace

import numpy as np
from numpy.typing import NDArray

from bluekettle.core.chain.food import Food, peak_from_now, stood
from bluekettle.core.chain.passage import Passage, Step, link
from bluekettle.core.chain.plan import Cool, Hold, Marinate, Rest, Thaw
from bluekettle.core.errors import NotConverged
from bluekettle.core.heat import Surroundings, surroundings
from bluekettle.core.stages import cut
from bluekettle.core.stages.waiting import COVERED, HOLD_ABOVE_C, IN_ROOM
from bluekettle.core.units import span_words

Array = NDArray[np.float64]

THAWED_C = -1.0  # above it no ice is left that hinders (design)
HELD_C = 51.0  # of a surface that a hand can hold for a minute (burn threshold, ISO 13732-1)
COOL_MOST_MIN = 60  # (design)
THAW_STEP_H, THAW_MOST_H = 0.5, 72.0  # (numerical)
WHERE = {"fridge": "fridge", "cold water": "cold-water"}
KEPT = {"warm place": "warm-place", "chilled": "fridge"}


def place_of(how: str) -> Surroundings:
    """What food that is held lies in."""
    return COVERED if how == "covered" else surroundings(KEPT[how])


def settled(step: Step, food: Food) -> Food:
    """The food once its waits in the room are reckoned."""
    if food.waited.max() <= 0.0:
        return food
    return stood(step.plan, food, step.draws, food.waited, IN_ROOM)[0]


def thaw(stage: Thaw, food: Food, step: Step) -> Passage:
    """Conduction with latent heat, until the slowest pieces' middle is over −1 °C."""
    around = surroundings(WHERE[stage.where])
    hours = stage.hours if stage.hours is not None else thaw_hours(stage, food, step)
    seconds = np.full(food.members, 3600.0 * hours)
    after, _ = stood(step.plan, food, step.draws, seconds, around, long=True)
    label = f"Thaw in {'the fridge' if stage.where == 'fridge' else 'cold water'}"
    line = link(stage, "thaw", "thaw", label, "machine", seconds)
    share = float(np.mean(after.brought.profile_c[:, 0] > THAWED_C))
    notes = () if share > 0.95 else ("thaw-short",)  # nineteen pieces in twenty (design)
    return Passage(after, (line,), notes=notes)


def thaw_hours(stage: Thaw, food: Food, step: Step) -> float:
    """Hours until the slowest member has thawed [h], in half hours.

    Raises NotConverged where 72 h are not enough.
    """
    around = surroundings(WHERE[stage.where])
    slowest = [int(np.argmax(food.half_m))]
    draws = step.draws.picked(slowest)
    part = picked(food, slowest)

    def middle_c(steps: int) -> float:
        seconds = np.full(1, 3600.0 * THAW_STEP_H * steps)
        after, _ = stood(step.plan, part, draws, seconds, around, long=True)
        return float(after.brought.profile_c[0, 0])

    most = round(THAW_MOST_H / THAW_STEP_H)
    steps = bisect_left(range(most), True, lo=1, key=lambda n: middle_c(n) > THAWED_C)
    if steps == most and middle_c(most) <= THAWED_C:
        raise NotConverged(f"thawing in {stage.where}", THAWED_C, middle_c(most))
    return THAW_STEP_H * steps


def picked(food: Food, members: list[int]) -> Food:
    """Some members of the food; what lies on it is left out."""
    brought = food.brought
    return replace(
        food,
        half_m=food.half_m[members],
        brought=brought._replace(
            profile_c=brought.profile_c[members],
            sums=brought.sums[members],
            since_s=brought.since_s[members],
        ),
        outside=food.outside[members],
        waited=food.waited[members],
        lying=None,
    )


def marinate(stage: Marinate, food: Food, step: Step) -> Passage:
    """In the fridge, in a layer that has touched raw food from then on."""
    layer = step.plan.layer(stage.layer)
    hands = step.hands("bag", food)
    seconds = np.full(food.members, 3600.0 * stage.hours)
    after, _ = stood(step.plan, food, step.draws, seconds, surroundings("fridge"), long=True)
    links = (
        link(stage, "bag", "season", f"Into the {layer.name}, into the fridge", "hands", hands),
        link(stage, "marinate", "marinate", f"In the {layer.name}", "machine", seconds),
    )
    touched = frozenset() if cut(step.plan.cut).cooked else frozenset({stage.layer})
    return Passage(replace(after, wet=True), links, touched_raw=touched)


def rest(stage: Rest, food: Food, step: Step) -> Passage:
    """Stand in the room, open or covered."""
    seconds = np.full(food.members, 60.0 * stage.minutes)
    says = "Rest, covered" if stage.covered else "Rest"
    line = link(stage, "rest", "rest", says, "machine", seconds)
    if not stage.covered:
        return Passage(food.waits(seconds), (line,))
    after, _ = stood(step.plan, settled(step, food), step.draws, seconds, COVERED)
    return Passage(after, (line,))


def cool(stage: Cool, food: Food, step: Step) -> Passage:
    """Until the surface of the median piece can be held in the hand, an hour at most. It is
    reckoned from when the food came out: a surface that steams dries, and then cools more slowly.
    """
    median, draws = picked(food, [0]), step.draws.median_only()

    def held(minutes: int) -> bool:
        open_s = median.waited + 60.0 * minutes
        _, surface_c = stood(step.plan, median, draws, open_s, IN_ROOM)
        return bool(surface_c[0] <= HELD_C)

    minutes = bisect_left(range(COOL_MOST_MIN), True, lo=1, key=held)
    even = np.full(food.members, 60.0 * minutes)
    line = link(stage, "cool", "rest", "Cool until it can be held in the hand", "machine", even)
    return Passage(food.waits(even), (line,))


def hold(stage: Hold, food: Food, step: Step) -> Passage:
    """Kept covered, in a warm place or chilled; what is chilled is no longer a hot dish."""
    seconds = np.full(food.members, 60.0 * stage.minutes)
    long = 60.0 * stage.minutes > 1800.0  # half an hour (numerical)
    after, _ = stood(step.plan, settled(step, food), step.draws, seconds, place_of(stage.how), long)
    says = {"covered": "Covered, in hand", "warm place": "In a warm place", "chilled": "Chilled"}
    label = f"{says[stage.how]}: {span_words(60.0 * stage.minutes)}"
    line = link(stage, "kept", "hold", label, "machine", seconds)
    cold = float(np.quantile(after.brought.profile_c[:, 0], 0.05))
    late = stage.how != "chilled" and cold < HOLD_ABOVE_C
    if stage.how == "chilled" and step.more:
        # What is heated once more is checked once more.
        after = replace(peak_from_now(after), checked=False)
    return Passage(after, (line,), notes=("hold-cold",) if late else ())
