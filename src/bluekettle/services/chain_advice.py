"""What would make a chain come out right more often, as a patch of its document."""

from __future__ import annotations

from typing import Any

from bluekettle.core.advice import plan_effects
from bluekettle.core.advice.repair import Repair, best_repair
from bluekettle.core.chain import PlanForecast, heat_row
from bluekettle.core.errors import NotConverged, OutOfRange
from bluekettle.core.safety import plan_watch_outs
from bluekettle.core.units import amount, span_words
from bluekettle.schemas.chain import ChainDocument
from bluekettle.schemas.chain_forecast import ChainAdvicePublic, ChainRepairPublic
from bluekettle.schemas.kitchen import EffectsPublic
from bluekettle.services.chains import out_of_reach, plan_of
from bluekettle.services.forecasts import draws_of, effects_public


def advise_chain(document: ChainDocument) -> ChainAdvicePublic:
    """The best one-tap change of a chain.

    Raises OutOfRange with every fault of the document.
    """
    plan = plan_of(document)
    try:
        found = best_repair(plan, draws_of(plan.seed), stops_of)
    except NotConverged:
        found = None  # the forecast tells how far it gets
    if found is None:
        return ChainAdvicePublic(repair=None)
    return ChainAdvicePublic(
        repair=ChainRepairPublic(
            says=words_of(found, document),
            patch=patch_of(found, document),
            right=round(found.right, 3),
            before=round(found.before, 3),
            longer_s=round(found.longer_s, 1),
        )
    )


def effects_of_chain(document: ChainDocument) -> EffectsPublic:
    """What each assumption of a chain's kitchen is worth in minutes."""
    try:
        return effects_public(plan_effects(plan_of(document)))
    except NotConverged as error:
        raise OutOfRange([out_of_reach(document, error)]) from error


def stops_of(forecast: PlanForecast) -> set[str]:
    """Ids of the stops that stand."""
    return {one.id for one in plan_watch_outs(forecast) if one.level == "stop"}


def words_of(repair: Repair, document: ChainDocument) -> str:
    """The change in a few words."""
    before = document.stages[repair.place]
    row = heat_row(repair.heat.heat)
    if repair.heat.heat != getattr(before, "heat", ""):
        return f"The {row.name} instead"
    minutes = repair.heat.until.minutes
    if repair.heat.until.by == "bite" and minutes is not None:
        return f"{span_words(60.0 * minutes)} in the {row.name}"
    dial = repair.heat.dial or 0.0
    if row.dial_unit == "m":
        return f"The rack {amount(100.0 * dial, 'cm')} from the element"
    return f"The {row.name} at {amount(dial, '°C')}"


def patch_of(repair: Repair, document: ChainDocument) -> list[dict[str, Any]]:
    """What changes in the document."""
    before = document.stages[repair.place]
    at = f"/stages/{repair.place}"
    told = {"heat": repair.heat.heat, "dial": repair.heat.dial}
    found: list[dict[str, Any]] = [
        {"op": "add", "path": f"{at}/{name}", "value": value}
        for name, value in told.items()
        if value != getattr(before, name)
    ]
    if repair.heat.until.by == "bite":
        minutes = repair.heat.until.minutes
        found.append({"op": "add", "path": f"{at}/until/minutes", "value": minutes})
    return found
