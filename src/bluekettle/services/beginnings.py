"""The chain that a newcomer answers to, and the hours of each heat that could be answered."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from bluekettle.core import chain as core
from bluekettle.core.errors import NotConverged, OutOfRange
from bluekettle.core.glaze import draw_members
from bluekettle.core.stages import cut
from bluekettle.schemas.beginning import (
    AnswersCreate,
    BeginningPublic,
    HeatOfferPublic,
    HeatTimePublic,
    HeatTimesCreate,
    HeatTimesPublic,
)
from bluekettle.schemas.chain import ChainDocument
from bluekettle.services.chains import plan_of
from bluekettle.services.choices import bites_of
from bluekettle.services.stage_rows import stage_json

GLANCE = 64  # members that tell an hour from two (numerical)
SAUCE = "sauce"
MEMORY: core.Memory[core.Known] = core.Memory()  # of this process


def answers_of(given: AnswersCreate) -> core.Answers:
    """The answers with what is usual for the cut in place of what was not told."""
    found = cut(given.cut)
    finish = None if given.alone else given.finish or found.usual_finish
    mass_kg = given.mass_kg or found.mass_kg
    told = core.Answers(
        found.key,
        mass_kg,
        given.pieces or max(1, round(found.pieces * mass_kg / found.mass_kg)),
        given.state,
        given.heat or found.usual_heat,
        given.bite or found.usual_bite,
        finish,
        given.sauce is not None,
        given.when or "",
    )
    return told if given.when else told.having_usual_when()


def begin_with(given: AnswersCreate) -> BeginningPublic:
    """The chain that the answers come to.

    Raises OutOfRange with every answer that does not go with the others.
    """
    answers = answers_of(given)
    found = cut(given.cut)
    return BeginningPublic(
        chain=chain_of(given, answers),
        heats=offers(core.slow_keys(), found.usual_heat, lambda row: row.slow),
        finishes=offers(core.fierce_keys(), found.usual_finish, lambda row: row.fierce),
        bites=bites_of(found),
        whens=list(core.whens(answers)),
    )


def offers(
    keys: tuple[str, ...], usual: str, model: Callable[[core.HeatRow], Any]
) -> list[HeatOfferPublic]:
    """Heats with the words of the model that is asked for."""
    parts = ((key, model(core.heat_row(key))) for key in keys)
    return [
        HeatOfferPublic(key=key, place=part.place, hint=part.hint, usual=key == usual)
        for key, part in parts
    ]


def chain_of(given: AnswersCreate, answers: core.Answers) -> ChainDocument:
    """The document of checked or unchecked answers; raises OutOfRange."""
    found = cut(given.cut)
    food = {
        "cut": found.key,
        "mass_kg": answers.mass_kg,
        "pieces": answers.pieces,
        "thickness_mm": given.thickness_mm or found.thickness_mm,
        "state": given.state,
    }
    told = given.model_dump(mode="json")
    layers = [{"id": SAUCE, "sauce": told["sauce"]}] if given.sauce is not None else []
    return ChainDocument.model_validate(
        {
            "format": "kettle.dish/2",
            "food": food,
            "layers": layers,
            "stages": [stage_json(row) for row in core.beginning(answers)],
            "kitchen": told["kitchen"],
            "serve_at": told["serve_at"],
        }
    )


def heat_times(given: HeatTimesCreate) -> HeatTimesPublic:
    """From the first act to the plate with each heat in the place that is asked for, all else as
    it was answered.

    Raises OutOfRange for answers that cannot be planned with any of them.
    """
    plain = given.model_copy(update={"sauce": None, "when": None})
    slow = given.of == "heat"
    keys = core.slow_keys() if slow else core.fierce_keys()
    faults = []
    items = []
    for key in keys:
        change = {"heat": key} if slow else {"finish": key, "alone": False}
        try:
            total_s = total_of(plain.model_copy(update=change))
        except OutOfRange as error:
            faults.append(error)
            total_s = None
        items.append(HeatTimePublic(key=key, total_s=total_s))
    if len(faults) == len(keys):
        raise faults[0]
    return HeatTimesPublic(items=items)


def total_of(given: AnswersCreate) -> float | None:
    """Likely seconds from the first act to the plate; None where the heat never gets there."""
    plan = plan_of(chain_of(given, answers_of(given)))
    try:
        found = core.forecast_plan(plan, None, draw_members(plan.seed, GLANCE), MEMORY)
    except NotConverged:
        return None
    return round(found.total.likely_s, 1)
