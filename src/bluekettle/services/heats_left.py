"""Other heats for a plan of which one has to be left: what each comes to, as steps and scenes.
Nothing is kept.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import UTC, datetime

from bluekettle.core import chain as core
from bluekettle.core import schedule as meals
from bluekettle.core.errors import CoreError
from bluekettle.core.safety import plan_watch_outs
from bluekettle.core.stages import StepPlan
from bluekettle.schemas.chain import ChainDocument, InsteadDocument
from bluekettle.schemas.cook import ExitFact, SceneDocument
from bluekettle.services.chains import core_forecast, to_public
from bluekettle.services.scenes import facts_of_chain

MOST_WAYS = 3
MOST_TRIED = 5


@dataclass(frozen=True)
class Asked:
    """A heat that has to be left: what the food had of it, the acts done, and the heats it could
    go to, the likeliest first. also : heats after it in the same body, each with the one that comes
    for it; empty for the one that comes for the first. line : of the meal, where it is of one.
    """

    stage: str
    had_min: float
    acts_done: int
    also: tuple[tuple[str, str], ...]
    heats: tuple[str, ...]
    line: str = ""


@dataclass(frozen=True)
class Found:
    """Another heat: the plan with it as steps, what its forecast knows of every heat, the chance of
    the colours wanted (None where nothing is browned in it); and what each link of the plan that is
    left was.
    """

    heat: str
    instead: tuple[InsteadDocument, ...]
    steps: tuple[StepPlan, ...]
    scenes: dict[str, SceneDocument]
    exits: dict[str, list[ExitFact]]
    right: float | None
    kinds: dict[str, str]
    line: meals.Line


def others_for(document: ChainDocument, asked: Asked, most: int) -> tuple[Found, ...]:
    """Heats that do it without a stop that the plan did not have, as many as are wanted."""
    document = document.model_copy(update={"serve_at": None})
    now = datetime.now(UTC)  # of a plan without a moment: no figure hangs on it
    before = core_forecast(document, now)
    stood = stops_of(before)
    kinds = {link.key: link.kind for link in before.links}
    found: list[Found] = []
    for heat in asked.heats[:MOST_TRIED]:
        one = other(document, asked, heat, now, stood, kinds)
        if one is not None:
            found.append(one)
        if len(found) == most:
            break
    return tuple(found)


def stops_of(forecast: core.PlanForecast) -> frozenset[str]:
    """Warnings of a plan at which it is not to be cooked; what a heat did that was left is done."""
    done = {
        stage.id
        for stage in core.run_through(forecast.plan.stages)
        if isinstance(stage, core.Heat) and stage.cut_short
    }
    warnings = plan_watch_outs(forecast)
    return frozenset(w.id for w in warnings if w.level == "stop" and w.stage not in done)


def other(
    document: ChainDocument,
    asked: Asked,
    heat: str,
    now: datetime,
    stood: frozenset[str],
    kinds: dict[str, str],
) -> Found | None:
    """The plan in another heat; None where that heat does not do it, or not safely."""
    instead = [
        InsteadDocument(
            stage=asked.stage, heat=heat, had_min=asked.had_min, acts_done=asked.acts_done
        )
    ]
    instead += [InsteadDocument(stage=stage, heat=own or heat) for stage, own in asked.also]
    changed = document.model_copy(update={"instead": [*document.instead, *instead]})
    try:
        forecast = core_forecast(changed, now)
    except CoreError:
        return None
    if stops_of(forecast) - stood:
        return None
    facts = facts_of_chain(forecast, changed, to_public(forecast, changed, now))
    new = core.id_instead(asked.stage)
    news = [new, *(core.id_instead(stage) for stage, _ in asked.also)]
    return Found(
        heat=heat,
        instead=tuple(instead),
        steps=core.plan_steps(forecast),
        scenes=scenes_from(facts.scenes, news),
        exits=facts.exits,
        right=dict(forecast.right.fires).get(new),
        kinds=kinds,
        line=meals.dish_line(asked.line, "", forecast),
    )


def scenes_from(scenes: dict[str, SceneDocument], new: Sequence[str]) -> dict[str, SceneDocument]:
    """The scenes from the first new heat on: what the food is before it did not change."""
    keys = list(scenes)
    first = min(keys.index(key) for key in new)
    return {key: scenes[key] for key in keys[first:]}
