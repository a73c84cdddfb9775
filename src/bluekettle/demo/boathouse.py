"""A boathouse supper: its kitchen, sauces, a plan and four past cooks, made by telling the services
what happened.
"""

from __future__ import annotations

from datetime import datetime, timedelta
from typing import Any

from sqlalchemy import Engine

from bluekettle.schemas.chain import ChainDocument
from bluekettle.schemas.cook import CookCreate, EventCreate, OutcomeCreate
from bluekettle.schemas.kitchen import ApplianceCreate, ObservationCreate, SettingsDocument
from bluekettle.schemas.meal import MealDocument
from bluekettle.schemas.sauce import SauceCreate
from bluekettle.services import kept_meals, kitchen, log, plans, samples, sauces, telling
from bluekettle.services.strips import Strips
from bluekettle.services.templates import templates
from bluekettle.services.workshop import Workshop

Json = dict[str, Any]


def glazed(food: Json, heat: str, bite: str, fire: str, sauce: str | Json, coats: int = 1) -> Json:
    """A dish that is cooked to a bite, brushed and browned; more coats go on under the fire."""
    more = [{"do": "coat", "layer": "glaze"} for _ in range(coats - 1)]
    until = {"by": "bite", "bite": bite}
    return {
        "format": "kettle.dish/2",
        "food": food,
        "layers": [{"id": "glaze", "sauce": sauce}],
        "stages": [
            {"kind": "season", "id": "season"},
            {"kind": "heat", "id": "cook", "heat": heat, "until": until},
            {"kind": "dress", "id": "dress", "layer": "glaze"},
            {"kind": "heat", "id": "finish", "heat": fire, "until": {"by": "colour"}, "acts": more},
            {"kind": "rest", "id": "rest", "minutes": 3.0, "covered": True},
        ],
    }


SHORT_RIBS = glazed(
    {"cut": "beef-short-ribs", "mass_kg": 1.6, "pieces": 6, "thickness_mm": 45.0},
    "pressure",
    "falls",
    "broiler",
    "plum-tea",
    coats=2,
)
DRUMSTICKS = glazed(
    {"cut": "turkey-drumsticks", "mass_kg": 1.8, "pieces": 4, "thickness_mm": 60.0},
    "bath",
    "tug",
    "air_fryer",
    "date-mustard",
)
LAMB = glazed(
    {"cut": "lamb-breast", "mass_kg": 1.5, "pieces": 4, "thickness_mm": 35.0},
    "oven",
    "falls",
    "oven",
    {
        "name": "pomegranate",
        "lines": [
            {"ingredient": "pomegranate-molasses", "mass_g": 90.0},
            {"ingredient": "honey", "mass_g": 25.0},
            {"ingredient": "lemon-juice", "mass_g": 10.0},
        ],
    },
)
OCTOPUS = glazed(
    {"cut": "octopus", "mass_kg": 1.4, "pieces": 8, "thickness_mm": 35.0},
    "simmer",
    "falls",
    "grill",
    {
        "name": "quince and smoked paprika",
        "lines": [
            {"ingredient": "quince-paste", "mass_g": 90.0},
            {"ingredient": "sherry-vinegar", "mass_g": 45.0},
            {"ingredient": "olive-oil", "mass_g": 14.0},
            {"ingredient": "smoked-paprika", "mass_g": 5.0},
        ],
    },
)

# Past cooks: days ago, dish, pace of the cook against the plan, signs (word, seconds under the
# heat), step never confirmed, outcome.
PAST: tuple[tuple[int, Json, float, tuple[tuple[str, float], ...], str, dict[str, str]], ...] = (
    (
        23,
        LAMB,
        1.1,
        (),
        "season.season",
        {
            "tenderness": "falls",
            "crust": "sticky",
            "colour": "amber",
            "note": "Bark like crackling. Start an hour earlier.",
        },
    ),
    (
        17,
        OCTOPUS,
        1.02,
        (("bubbling", 60.0), ("amber at the edges", 105.0)),
        "",
        {
            "tenderness": "falls",
            "crust": "sticky",
            "colour": "amber",
            "note": "Blot it longer next time.",
        },
    ),
    (
        12,
        SHORT_RIBS,
        1.05,
        (("bubbling", 82.0), ("amber at the edges", 118.0)),
        "",
        {
            "tenderness": "falls",
            "crust": "sticky",
            "colour": "amber",
            "note": "Second coat went on a little late. Good.",
        },
    ),
    (
        4,
        DRUMSTICKS,
        0.97,
        (("amber at the edges", 160.0),),
        "dress.lift",
        {
            "tenderness": "tug",
            "crust": "crackling",
            "colour": "amber",
            "note": "Skin crackled. Four is enough for six.",
        },
    ),
)


APPLIANCES: tuple[dict[str, Any], ...] = (
    {
        "kind": "hot-oven",
        "name": "boathouse oven",
        "width_mm": 440.0,
        "depth_mm": 370.0,
        "height_mm": 330.0,
    },
    {
        "kind": "oven-broiler",
        "name": "its broiler",
        "racks_mm": [70.0, 140.0, 210.0, 280.0],
        "rack_mm": 140.0,
        "buttons": {"broiler": "Upper heat, full"},
    },
    {
        "kind": "electric-pot",
        "name": "the tall pot",
        "power_w": 1100.0,
        "volume_l": 6.0,
        "buttons": {"pressure": "Hi pressure"},
        "display": "hours",
        "counts_up": True,
    },
    {"kind": "air-fryer-two", "name": "two-basket fryer", "buttons": {"air_fryer": "Crisp"}},
    {"kind": "water-bath", "name": "water bath"},
    {"kind": "gas-grill", "name": "grill on the jetty"},
    {"kind": "burner", "name": "front burner", "power_w": 1800.0},
)
SCOUT_DAYS = 16  # ago: the glaze on damp bread under the broiler
SCOUT = {"ground": "scout", "sign": "bubbling", "at_s": 84.0}
SAUCES: tuple[dict[str, Any], ...] = (
    {
        "name": "Plum and black tea",
        "kind": "glaze",
        "for_kg": 1.6,
        "simmer": {"minutes": 6.0, "power_w": 900.0},
        "lines": [
            "180 g plum jam",
            "1/3 cup strong tea",
            "2 tbsp soy sauce",
            "1 tbsp cider vinegar",
            "a thumb of ginger",
            "1/2 tsp black pepper",
        ],
    },
    {
        "name": "Date and mustard",
        "kind": "glaze",
        "for_kg": 1.8,
        "lines": [
            "120 g date syrup",
            "60 g wholegrain mustard",
            "2 tbsp cider vinegar",
            "a knob of butter",
            "2 tbsp water",
        ],
    },
    {
        "name": "Jetty rub",
        "kind": "rub",
        "for_kg": 1.5,
        "lines": [
            "2 tbsp coarse salt flakes",
            "1 tbsp brown sugar",
            "2 tsp smoked paprika",
            "1 tsp garlic powder",
            "a pinch of cloves",
        ],
    },
    {
        "name": "Smoked paprika and quince",
        "kind": "glaze",
        "for_kg": 1.4,
        "lines": [
            "150 g quince paste",
            "3 tbsp sherry vinegar",
            "1 tbsp olive oil",
            "2 tsp smoked paprika",
            "2 cloves garlic",
            "salt to taste",
        ],
    },
)


SUPPER_HOUR, LEAST_AHEAD = 19, timedelta(hours=10)


def fill(engine: Engine, now: datetime) -> None:
    """Load the sample scenario into an empty database."""
    samples.mark_sample(engine, "boathouse supper")
    for given in SAUCES:
        sauces.keep_sauce(engine, SauceCreate.model_validate(given), now)
    settings = {
        "hands": 2,
        "meal_hours": ["19:30"],
        "price_kwh": 0.31,
        "gear": ["thermometer", "wire rack", "lined tray", "trivet"],
    }
    kitchen.keep_settings(engine, SettingsDocument.model_validate(settings), now)
    bodies: dict[str, int] = {}
    for appliance in APPLIANCES:
        body = bodies.get("hot-oven") if appliance["kind"] == "oven-broiler" else None
        kept = kitchen.keep_appliance(
            engine, ApplianceCreate.model_validate({**appliance, "body_id": body})
        )
        bodies[kept.kind] = kept.id
    first = sauces.list_sauces(engine).sauces
    plum = next(s.id for s in first if s.document.name.startswith("Plum"))
    scout = ObservationCreate.model_validate({**SCOUT, "sauce_id": plum})
    kitchen.observe(engine, bodies["oven-broiler"], scout, now - timedelta(days=SCOUT_DAYS))
    for days, dish, pace, signs, skipped, outcome in PAST:
        begin = now.replace(hour=17, minute=5, second=0, microsecond=0) - timedelta(days=days)
        here = kitchen.get_kitchen(engine, begin).for_plans
        document = ChainDocument.model_validate({**dish, "kitchen": here.model_dump()})
        cook_once(engine, document, begin, pace, signs, skipped, outcome)
    ribs = ChainDocument.model_validate(SHORT_RIBS)
    named = ribs.model_copy(update={"name": "Short ribs for the boathouse"})
    planned = plans.keep_plan(engine, named, now)
    keep_own_chain(engine, now)
    keep_supper(engine, planned.id, now)


def keep_supper(engine: Engine, ribs: int, now: datetime) -> None:
    """The supper itself: three dishes, two sides, one pair of hands."""
    evening = now.replace(hour=SUPPER_HOUR, minute=0, second=0, microsecond=0)
    serve_at = evening if evening - now > LEAST_AHEAD else evening + timedelta(days=1)
    supper = {
        "name": "The boathouse supper",
        "serve_at": serve_at,
        "dishes": [
            {"id": "ribs", "name": "Short ribs", "plan_id": ribs},
            {"id": "drumsticks", "name": "Drumsticks", "dish": DRUMSTICKS},
            {"id": "cauliflower", "name": "Whole cauliflower", "template": "cauliflower-oven"},
        ],
        "sides": [
            {"id": "potatoes", "key": "potatoes-boiled"},
            {"id": "slaw", "key": "slaw"},
        ],
    }
    kept_meals.keep_meal(engine, MealDocument.model_validate(supper), now)


def keep_own_chain(engine: Engine, now: datetime) -> None:
    """A chain of the cook's own: one that ships, changed a day later."""
    shipped = next(one.document for one in templates() if one.key == "portions-broiled")
    named = shipped.model_copy(update={"name": "Boathouse ribs, brushed twice"})
    kept = plans.keep_plan(engine, named, now - timedelta(days=1))
    food = named.food.model_copy(update={"mass_kg": 2.4, "pieces": 3})
    plans.keep_plan(engine, named.model_copy(update={"food": food}), now, kept.id)


def cook_once(
    engine: Engine,
    document: ChainDocument,
    start: datetime,
    pace: float,
    signs: tuple[tuple[str, float], ...],
    skipped: str,
    outcome: dict[str, str],
) -> None:
    """Cook it through all its steps, telling each when it ends."""
    strips = Strips(Workshop())
    live = latest = telling.start_cook(engine, CookCreate(dish=document), start, strips)
    moment = start
    for step in [s for s in live.steps if not s.beside]:
        if step.key == "finish.finish":
            for word, after in signs:
                seen = EventCreate.model_validate({"kind": "saw", "sign": word})
                telling.tell(engine, live.id, seen, moment + timedelta(seconds=after), strips)
        moment += timedelta(seconds=step.likely_s * (1.0 if step.key == "cook.hold" else pace))
        if step.key == skipped:
            continue
        told = EventCreate(kind="done", step=step.key)
        if step.who == "gate":
            # A good reading: a degree and a half over what the check rests on.
            asked = latest.gate.wants_c if latest.gate and latest.gate.wants_c else 63.0
            told = EventCreate(kind="done", step=step.key, tender=True, temp_c=asked + 1.5)
        latest = telling.tell(engine, live.id, told, moment, strips)
    log.end_cook(engine, live.id, OutcomeCreate.model_validate(outcome), moment, strips)
