"""A boathouse supper: three plans and three past cooks, made by telling the services what happened."""

from __future__ import annotations

from datetime import datetime, timedelta
from typing import Any

from sqlalchemy import Engine

from bluekettle.schemas.cook import CookCreate, EventCreate, OutcomeCreate
from bluekettle.schemas.dish import DishDocument
from bluekettle.services import cooks, plans

SHORT_RIBS: dict[str, Any] = {
    "cut": "beef-short-ribs", "mass_kg": 1.6, "pieces": 6, "thickness_mm": 45.0, "bite": "falls",
    "sauce": "plum-tea", "coats": 2,
}  # fmt: skip
DRUMSTICKS: dict[str, Any] = {
    "cut": "turkey-drumsticks", "mass_kg": 1.8, "pieces": 4, "thickness_mm": 60.0, "bite": "tug",
    "finish": "air_fryer", "sauce": "date-mustard", "coats": 1,
}  # fmt: skip
LAMB: dict[str, Any] = {
    "cut": "lamb-breast", "mass_kg": 1.5, "pieces": 4, "thickness_mm": 35.0, "tenderise": "braise", "bite": "falls",
    "finish": "broiler", "sauce": "plum-tea", "coats": 1,
}  # fmt: skip

# Past cooks: days ago, dish, pace of the cook against the plan, signs (word, seconds under the heat), step never
# confirmed, outcome.
PAST: tuple[tuple[int, dict[str, Any], float, tuple[tuple[str, float], ...], str, dict[str, str]], ...] = (
    (23, LAMB, 1.1, (), "season",
     {"tenderness": "falls", "crust": "sticky", "colour": "too dark", "note": "Turned my back for a minute."}),
    (12, SHORT_RIBS, 1.05, (("bubbling", 150.0), ("amber at the edges", 235.0)), "",
     {"tenderness": "falls", "crust": "sticky", "colour": "amber", "note": "Second coat went on a little late. Good."}),
    (4, DRUMSTICKS, 0.97, (("amber at the edges", 160.0),), "lift",
     {"tenderness": "tug", "crust": "crackling", "colour": "mahogany", "note": "Skin crackled. Four is enough for six."}),
)  # fmt: skip


def fill(engine: Engine, now: datetime) -> None:
    """Load the sample scenario into an empty database."""
    for days, dish, pace, signs, skipped, outcome in PAST:
        supper = now.replace(hour=17, minute=5, second=0, microsecond=0) - timedelta(days=days)
        cook_once(engine, DishDocument.model_validate(dish), supper, pace, signs, skipped, outcome)
    plans.keep_plan(engine, DishDocument.model_validate(SHORT_RIBS), now)


def cook_once(
    engine: Engine, document: DishDocument, start: datetime, pace: float, signs: tuple[tuple[str, float], ...],
    skipped: str, outcome: dict[str, str],
) -> None:  # fmt: skip
    """Cook a dish through all its steps, telling each when it ends."""
    live = cooks.start_cook(engine, CookCreate(dish=document), start)
    moment = start
    for step in [s for s in live.steps if not s.beside]:
        if step.key == "finish":
            for word, after in signs:
                seen = EventCreate.model_validate({"kind": "saw", "sign": word})
                cooks.tell(engine, live.id, seen, moment + timedelta(seconds=after))
        moment += timedelta(seconds=step.likely_s * (1.0 if step.key == "hold" else pace))
        if step.key == skipped:
            continue
        told = EventCreate(kind="done", step=step.key)
        if step.who == "gate":
            told = EventCreate(kind="done", step=step.key, tender=True, temp_c=92.0)
        cooks.tell(engine, live.id, told, moment)
    cooks.end_cook(engine, live.id, OutcomeCreate.model_validate(outcome), moment)
