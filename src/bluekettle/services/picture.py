"""What the kitchen looks like at a step, so that it can be drawn: facts, no drawing."""

from __future__ import annotations

from bluekettle.core.stages import Progress, StepPlan, StepState, finish_kind
from bluekettle.core.stages.told import CONFIRMED, ESTIMATED, UNKNOWN
from bluekettle.schemas.cook import PicturePublic
from bluekettle.schemas.heating import HeatingDocument
from bluekettle.services.dials import dial_of
from bluekettle.services.instructions import Step, words_row
from bluekettle.services.loaded import Loaded

PAST = (CONFIRMED, ESTIMATED, UNKNOWN)
COOKS = ("slow/holding", "fierce/under")


def picture_of(loaded: Loaded, progress: Progress, now_s: float) -> PicturePublic:
    """The vessel, the heat and the food at the current step. Food that may be under a fire is drawn
    there. A finished cook is a plate.
    """
    plan = next((s.plan for s in progress.steps if s.plan.key == progress.current), None)
    past = [s for s in progress.steps if s.state in PAST and not s.plan.beside]
    shows = "plate" if plan is None else shown(loaded.step_of(plan))
    if progress.fire is not None:
        shows = "fierce/under"
    side, _, state = shows.rpartition("/")
    scene = loaded.scene(plan) if progress.fire is None else loaded.fire_scene(progress)
    dish = scene.document
    return PicturePublic(
        shows=state,
        vessel=vessel_of(side, loaded, plan, scene.document),
        cut=dish.cut,
        pieces=dish.pieces,
        strands=any(s.plan.key.endswith(".shred") for s in past),
        cooked=any(shown(loaded.step_of(s.plan)) in COOKS for s in past),
        coats=sum(brushed(loaded, s) for s in past),
        heat_s=round(heat_s(loaded, progress, past, now_s), 1),
        rack_mm=rack_mm(loaded, progress) if side == "fierce" else None,
    )


def shown(step: Step) -> str:
    """What a step shows, by its row."""
    return words_row(step)["shows"]


def vessel_of(side: str, loaded: Loaded, plan: StepPlan | None, heating: HeatingDocument) -> str:
    """What the food is in: the fire, the slow heat of its step, or nothing."""
    if side == "fierce":
        return heating.fire
    return loaded.step_of(plan).heat if side == "slow" and plan is not None else ""


def brushed(loaded: Loaded, state: StepState) -> bool:
    """Whether a step put a coat on the food."""
    root = state.plan.key.rpartition(".")[2]
    return "coat" in state.plan.act or root in ("brush", "dress")


def heat_s(loaded: Loaded, progress: Progress, past: list[StepState], now_s: float) -> float:
    """Seconds that the food has had under the fire whose strip is shown."""
    if progress.fire is not None:
        return progress.fire.clock_s(now_s)
    stage = loaded.fire_stage(progress)
    ours = [s for s in past if s.plan.who == "fire" and s.plan.fire == stage]
    return sum(
        s.plan.likely_s if s.begin_s is None or s.end_s is None else s.end_s - s.begin_s
        for s in ours
    )


def rack_mm(loaded: Loaded, progress: Progress) -> float | None:
    """How far the food is from the element; None where nothing is set so."""
    dish = loaded.fire_scene(progress).document
    hangs = finish_kind(dish.fire).dial == "rack_m"
    return round(1000.0 * dial_of(dish), 1) if hangs else None
