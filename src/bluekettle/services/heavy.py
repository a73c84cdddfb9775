"""Tasks that run the model for longer than a tap may take: plain values in, plain results out, so
that another process can do them.
"""

from __future__ import annotations

import multiprocessing
import os
import signal
import threading
from collections.abc import Callable
from datetime import UTC, datetime
from typing import Any

from bluekettle.core.chain import Centres, Holds
from bluekettle.core.glaze import Act
from bluekettle.core.schedule import Puzzle, Replanned, Schedule, Stands, Told
from bluekettle.core.schedule import replan as replan_rest
from bluekettle.core.stages import StepPlan
from bluekettle.schemas.advice import (
    AdvicePublic,
    CalibrationCreate,
    CalibrationPublic,
    ExplorerPublic,
    FireCreate,
    RescueCreate,
    RescuePublic,
)
from bluekettle.schemas.beginning import HeatTimesCreate, HeatTimesPublic
from bluekettle.schemas.chain import ChainDocument
from bluekettle.schemas.chain_forecast import ChainAdvicePublic, ChainForecastPublic
from bluekettle.schemas.cook import ChainFactsDocument
from bluekettle.schemas.forecast import GlazePublic
from bluekettle.schemas.kitchen import EffectsPublic
from bluekettle.schemas.meal import MealDocument, SchedulePublic
from bluekettle.schemas.sauce import AnalyseCreate, AnalysisPublic, VariantCreate, VariantPublic
from bluekettle.schemas.school import SchoolsPublic
from bluekettle.services import (
    beginnings,
    chain_advice,
    chains,
    fires,
    heats_left,
    meals,
    recipes,
)
from bluekettle.services import schools as school_service
from bluekettle.services.heats_left import Asked, Found


def warming(heat: str) -> ChainDocument:
    """Food from a slow heat, coated twice under a broiler: most of what there is to run."""
    coat = {"do": "coat", "layer": "glaze"}
    browned = {"heat": "broiler", "until": {"by": "colour"}, "acts": [coat]}
    document = {
        "food": {"cut": "beef-short-ribs", "mass_kg": 1.6, "pieces": 6, "thickness_mm": 45.0},
        "layers": [{"id": "glaze", "sauce": "plum-tea"}],
        "stages": [
            {"kind": "heat", "id": "cook", "heat": heat, "until": {"by": "bite", "bite": "falls"}},
            {"kind": "dress", "id": "dress", "layer": "glaze"},
            {"kind": "heat", "id": "finish", **browned},
        ],
    }
    return ChainDocument.model_validate(document)


def forecast(document: ChainDocument, now: datetime) -> ChainForecastPublic:
    """The forecast of a chain."""
    return chains.forecast_chain(document, now)


def begin(
    document: ChainDocument, now: datetime
) -> tuple[ChainForecastPublic, tuple[StepPlan, ...], ChainFactsDocument]:
    """The forecast of a chain, the steps of its cook, and what that cook keeps."""
    return chains.begin_chain(document, now)


def glaze(
    document_json: str,
    acts: tuple[Act, ...],
    signs: tuple[tuple[str, float], ...],
    stage: str,
    change: tuple[str, float] | None = None,
) -> GlazePublic:
    """The strip of one fire of a chain after what was done and seen."""
    document = ChainDocument.model_validate_json(document_json)
    return chains.glaze_of(document, stage, tuple(acts), signs, change)


def centres(document_json: str, stage: str, dial: float | None) -> Centres:
    """The middle of the food along a slow heat."""
    return chains.centres_of(ChainDocument.model_validate_json(document_json), stage, dial)


def holds(document_json: str, stage: str) -> Holds:
    """How the bite comes with the hold of a slow heat."""
    return chains.holds_of(ChainDocument.model_validate_json(document_json), stage)


def schools(document: ChainDocument) -> SchoolsPublic:
    """Where practitioners disagree about a plan."""
    return school_service.schools_for(document)


def explore(given: FireCreate) -> ExplorerPublic:
    """The map of time against heat."""
    return fires.explore_fire(given)


def advise(given: FireCreate) -> AdvicePublic:
    """The widest window."""
    return fires.advise_fire(given)


def repair(document: ChainDocument) -> ChainAdvicePublic:
    """The one change of a chain that brings most."""
    return chain_advice.advise_chain(document)


def heat_times(request: HeatTimesCreate) -> HeatTimesPublic:
    """The hours of every heat for a newcomer's answers."""
    return beginnings.heat_times(request)


def effects(document: ChainDocument) -> EffectsPublic:
    """What each assumption of a chain is worth."""
    return chain_advice.effects_of_chain(document)


def rescue(request: RescueCreate) -> RescuePublic:
    """Ways out under the heat."""
    return fires.rescue_fire(request)


def rescue_live(
    document_json: str,
    acts: tuple[Act, ...],
    signs: tuple[tuple[str, float], ...],
    stage: str,
    at_s: float,
) -> RescuePublic:
    """Ways out for food that is under a fire now."""
    return fires.rescue_live(document_json, acts, signs, stage, at_s)


def calibrate(request: CalibrationCreate) -> CalibrationPublic:
    """What signs teach."""
    return fires.calibrate(request)


def analyse(request: AnalyseCreate) -> AnalysisPublic:
    """What a recipe comes to, with its ladder."""
    return recipes.analyse(request)


def vary(request: VariantCreate) -> VariantPublic:
    """A variant of a recipe, with its ladder."""
    return recipes.variant(request)


def schedule(document: MealDocument, now: datetime) -> SchedulePublic:
    """The plan of a meal."""
    return meals.schedule_meal(document, now)


def first_schedule(document: MealDocument, now: datetime) -> SchedulePublic:
    """What is found first for a meal."""
    return meals.first_plan(document, now)


def supper(
    document: MealDocument, now: datetime
) -> tuple[SchedulePublic, tuple[Schedule, datetime] | None]:
    """The plan of a meal, and what the cooking of it needs; None where it cannot be."""
    return meals.planned_meal(document, now)


def replan(
    puzzle: Puzzle, lines: dict[str, tuple[Stands, ...]], told: Told, at: float
) -> Replanned:
    """The rest of a supper."""
    return replan_rest(puzzle, lines, told, at)


def others_for(document: ChainDocument, asked: Asked, most: int) -> tuple[Found, ...]:
    """Other heats for one that has to be left."""
    return heats_left.others_for(document, asked, most)


def warm() -> None:
    """One forecast in a pot and one in hot air, so that the first request is not the slow one."""
    for heat in ("pressure", "oven"):
        chains.forecast_chain(warming(heat), datetime.now(UTC))


def warm_beside() -> None:
    """The same where meals are planned: its solver too."""
    warm()
    dish = {"id": "a", "dish": warming("pressure")}
    first_schedule(MealDocument.model_validate({"name": "", "dishes": [dish]}), datetime.now(UTC))


def start_worker(nice: int) -> None:
    """A worker lets taps go first, leaves Ctrl-C to the server, and goes when that was killed."""
    os.nice(nice)
    signal.signal(signal.SIGINT, signal.SIG_IGN)
    server = multiprocessing.parent_process()
    if server is not None:
        threading.Thread(target=leave_with, args=(server,), daemon=True).start()


def leave_with(server: Any) -> None:
    """Wait for the end of the server, and end with it."""
    server.join()
    os._exit(0)


TASKS: dict[str, Callable[..., Any]] = {
    task.__name__: task
    for task in (
        begin,
        forecast,
        glaze,
        centres,
        holds,
        effects,
        explore,
        advise,
        repair,
        heat_times,
        schools,
        rescue,
        rescue_live,
        calibrate,
        analyse,
        vary,
        first_schedule,
        schedule,
        supper,
        replan,
        others_for,
        warm,
        warm_beside,
    )
}
# What nobody waits for with a tap: it must not stand in the way of a forecast.
BESIDE = frozenset(
    {
        "advise",
        "repair",
        "effects",
        "heat_times",
        "schools",
        "first_schedule",
        "schedule",
        "supper",
        "warm_beside",
    }
)
