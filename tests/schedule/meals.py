"""The meals that ship, as the core's; forecasts are run once."""

import json
from functools import cache
from pathlib import Path

import bluekettle
from bluekettle.core.chain import forecast_plan
from bluekettle.core.schedule import Dish, Meal, MealKitchen, body_of, side
from bluekettle.schemas.chain import ChainDocument
from bluekettle.services.chains import plan_of
from tests.chain.conftest import TEMPLATES

FOLDER = Path(bluekettle.__file__).parent / "meals"
MEALS = {
    raw["key"]: raw
    for raw in (json.loads(f.read_text(encoding="utf-8")) for f in sorted(FOLDER.glob("*.json")))
}


@cache
def forecast_of(text):
    return forecast_plan(plan_of(ChainDocument.model_validate_json(text)))


def dish_of(one):
    document = one.get("dish") or TEMPLATES[one["template"]]
    return Dish(one["id"], one["id"], forecast_of(json.dumps(document)))


def kitchen_of(appliances, hands, quiet_h=()):
    bodies = [
        body_of(f"{one['kind']}-{n}", one["kind"], one.get("zones", 1))
        for n, one in enumerate(appliances)
    ]
    quiet = tuple((3600.0 * begin, 3600.0 * end) for begin, end in quiet_h)
    return MealKitchen(tuple(bodies), hands, quiet)


def made(key):
    """A shipped meal, its kitchen, and now [s from serving]."""
    raw = MEALS[key]
    meal = raw["meal"]
    dishes = tuple(dish_of(one) for one in meal["dishes"])
    sides = tuple((one["id"], side(one["key"])) for one in meal["sides"])
    kitchen = kitchen_of(meal["appliances"], meal["hands"], raw["quiet_h"])
    return Meal(dishes, sides), kitchen, -3600.0 * raw["hours"]
