"""What a meal is made of: its dishes forecast, its sides, and what there is to cook in."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from datetime import datetime
from functools import cache
from typing import Any

from sqlmodel import Session

from bluekettle.core import schedule as meals
from bluekettle.core.errors import Fault, OutOfRange
from bluekettle.core.tables import row, rows
from bluekettle.schemas.chain import ChainDocument
from bluekettle.schemas.dish import KitchenDocument
from bluekettle.schemas.meal import (
    MealBodyDocument,
    MealDishDocument,
    MealDocument,
    MealSideDocument,
)
from bluekettle.services.chains import core_forecast
from bluekettle.services.dishes import title_of
from bluekettle.services.in_kitchen import filled
from bluekettle.services.templates import templates
from bluekettle.store import repositories

ALWAYS = ("hob", "pan")  # that every kitchen has, where nobody said otherwise


@cache
def kind_of_body(appliance: str) -> str:
    """The body that an appliance is; empty for what is part of another."""
    kinds = {
        each: key for key, line in rows("bodies").items() for each in line["appliances"].split()
    }
    return kinds.get(appliance, "")


def kinds_in_use(session: Session) -> frozenset[str]:
    """Kinds of bodies that the kept kitchen has; empty where nobody told of any."""
    kinds = {kind_of_body(one.kind) for one in repositories.appliances(session) if one.in_use}
    return frozenset(kind for kind in kinds if kind)


def document_of(one: MealDishDocument) -> ChainDocument:
    """The dish of a meal whose kept plan, if it is one, was put in before.

    Raises OutOfRange for a chain that does not ship.
    """
    if one.dish is not None:
        return one.dish
    shipped = {template.key: template.document for template in templates()}
    if one.template not in shipped:
        raise OutOfRange([Fault("template", one.template, f"one of {', '.join(shipped)}")])
    return shipped[one.template]


def dish_here(one: MealDishDocument, kitchen: KitchenDocument | None) -> ChainDocument:
    """The dish as it is cooked: in this kitchen, but for what it says itself; when it is served is
    the meal's.
    """
    dish = document_of(one).model_copy(update={"serve_at": None})
    if kitchen is None:
        return dish
    return dish.model_copy(update={"kitchen": filled(dish.kitchen, kitchen)})


def side_of(one: MealSideDocument) -> meals.Side:
    """A side: the common one, with what was told of it instead."""
    told: dict[str, Any] = one.model_dump(exclude_none=True, exclude={"id", "key", "name"})
    if one.name:
        told["name"] = one.name
    known = meals.Side("", 0.0, 0.0) if one.key is None else meals.side(one.key)
    return replace(known, **told)


def forecasts_of(document: MealDocument, now: datetime) -> tuple[meals.Dish, ...]:
    """Every dish forecast; raises OutOfRange with all faults of all of them."""
    found: list[meals.Dish] = []
    faults: list[Fault] = []
    for place, one in enumerate(document.dishes):
        try:
            dish = dish_here(one, document.kitchen)
            forecast = core_forecast(dish, now)
            found.append(meals.Dish(one.id, one.name or title_of(dish), forecast))
        except OutOfRange as error:
            faults += [
                Fault(f"dishes.{place}.{f.field}", f.given, f.accepted) for f in error.faults
            ]
    if faults:
        raise OutOfRange(faults)
    return tuple(found)


def bodies_wanted(dish: meals.Dish) -> list[str]:
    """Kinds of bodies that a dish is cooked in."""
    return [use.kind for use in meals.dish_line(dish.key, dish.name, dish.forecast).uses]


def bodies_of(
    told: Sequence[MealBodyDocument] | None,
    dishes: Sequence[meals.Dish],
    sides: Sequence[meals.Side],
) -> tuple[tuple[meals.Body, ...], dict[str, str], list[str]]:
    """Bodies with their names, and the kinds that nobody named and that are assumed."""
    needed = [kind for dish in dishes for kind in bodies_wanted(dish)]
    needed += [side.body for side in sides if side.body]
    named = list(told or [])
    known = {one.kind for one in named}
    missing = [kind for kind in dict.fromkeys(needed) if kind not in known]
    assumed = missing if not named else [kind for kind in missing if kind in ALWAYS]
    named += [MealBodyDocument(kind=kind) for kind in assumed]
    bodies, names = [], {}
    for place, one in enumerate(named):
        key = f"{one.kind}-{place}"
        bodies.append(meals.body_of(key, one.kind, one.zones))
        names[key] = one.name or row("bodies", one.kind)["name"]
    return tuple(bodies), names, [row("bodies", kind)["name"] for kind in assumed]
