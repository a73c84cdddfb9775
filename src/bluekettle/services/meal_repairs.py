"""A meal that does not come out in its appliances: its fires moved to others, and tried."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import datetime

from bluekettle.core import chain as core
from bluekettle.core import schedule as meals
from bluekettle.core.errors import OutOfRange
from bluekettle.schemas.chain import ChainDocument, HeatDocument
from bluekettle.schemas.meal import (
    MealDocument,
    MealRepairPublic,
)
from bluekettle.services.meal_parts import document_of, forecasts_of
from bluekettle.services.meal_words import Clock


def elsewhere(
    document: MealDocument,
    meal: meals.Meal,
    kitchen: meals.MealKitchen,
    clock: Clock,
    now: datetime,
    kinds: Sequence[str],
) -> list[MealRepairPublic]:
    """The fires that want these bodies, moved to where each could go as well: where the meal comes
    out then.
    """
    there = {body.kind for body in kitchen.bodies}
    changed: dict[str, ChainDocument] = {}
    for one in document.dishes:
        moved = moved_fires(document_of(one), kinds, there)
        if moved is not None:
            changed[one.id] = moved
    if not changed:
        return []
    dishes = [
        one.model_copy(update={"template": None, "plan_id": None, "dish": changed[one.id]})
        if one.id in changed
        else one
        for one in document.dishes
    ]
    try:
        found = forecasts_of(document.model_copy(update={"dishes": dishes}), now)
    except OutOfRange:
        return []
    lines = meals.lines_of(meals.Meal(found, meal.sides))
    if meals.comes_out(meals.puzzle_of(lines, kitchen, clock.seconds(now))) is None:
        return []
    names = {dish.key: dish.name for dish in meal.dishes}
    told = [f"{names[key]}: {finished_in(one)}" for key, one in changed.items()]
    return [MealRepairPublic(says="; ".join(told), dishes=changed)]


def moved_fires(
    document: ChainDocument, kinds: Sequence[str], there: set[str]
) -> ChainDocument | None:
    """The dish with every fire in such a body moved elsewhere; None where there is none to move."""
    stages, moved = [], False
    for stage in document.stages:
        if isinstance(stage, HeatDocument) and core.heat_row(stage.heat).body in kinds:
            other = other_fire(stage.heat, there - set(kinds))
            if other:
                stage = stage.model_copy(update={"heat": other, "dial": None})
                moved = True
        stages.append(stage)
    return document.model_copy(update={"stages": stages}) if moved else None


def other_fire(heat: str, there: set[str]) -> str:
    """Another fire that these bodies have, the usual one first; empty for what is no fire, or where
    there is none.
    """
    fierce = core.heat_row(heat).fierce
    if fierce is None:
        return ""
    usual = [fierce.elsewhere, *core.fierce_keys()]
    return next((key for key in usual if key and core.heat_row(key).body in there), "")


def finished_in(document: ChainDocument) -> str:
    """Where a dish is finished, in words."""
    last = [stage for stage in document.stages if isinstance(stage, HeatDocument)][-1]
    fierce = core.heat_row(last.heat).fierce
    return f"finished in {fierce.place}" if fierce is not None else "finished elsewhere"
