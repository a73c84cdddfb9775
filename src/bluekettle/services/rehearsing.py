"""The simulated food of a rehearsal: what there is to see, to read and to feel of it now, and what
came of it.
"""

from __future__ import annotations

from collections.abc import Mapping
from functools import lru_cache

from bluekettle.core import chain as core
from bluekettle.core.advice import taken
from bluekettle.core.errors import CoreError
from bluekettle.core.glaze import Act
from bluekettle.core.stages import Progress, StepPlan, StepState
from bluekettle.core.stages.bite import BITE_ORDER
from bluekettle.core.stages.told import CONFIRMED, ESTIMATED
from bluekettle.core.tables import value
from bluekettle.schemas.chain import ChainDocument
from bluekettle.schemas.cook import RehearsalPublic
from bluekettle.schemas.forecast import GlazePublic
from bluekettle.services.chains import fire_strip, plan_of
from bluekettle.services.feeling import holding_now
from bluekettle.services.instructions import stopwatch_text, words_row
from bluekettle.services.loaded import Loaded, stage_of_step
from bluekettle.services.probing import IN_HEAT

BOILS_C = 100.0
NO_ANSWER = "The model has no answer for what was done here."
OVER = (CONFIRMED, ESTIMATED)
FORK, SKEWER = "A fork", "A skewer"
TRIED_EVERY_MIN = 1.0  # one member runs anew for every other time
COLOURS = ("burnt", "bitter", "mahogany", "amber")  # each from its index on

Pairs = tuple[tuple[str, float], ...]
Acts = tuple[tuple[str, tuple[Act, ...]], ...]


@lru_cache(maxsize=16)
def truth(document_json: str, seed: int, minutes: Pairs, acts: Acts) -> core.Truth:
    """The food of a document in the kitchen of a seed; a few milliseconds of one member."""
    plan = plan_of(ChainDocument.model_validate_json(document_json))
    return core.truth_of(plan, core.hidden_kitchen(seed), dict(minutes), dict(acts))


def truth_now(
    loaded: Loaded, progress: Progress, seed: int, so_far: Mapping[str, float] | None = None
) -> core.Truth:
    """The food by what was done so far. so_far : minutes of heats that are taken to end now."""
    had = {**minutes_of(loaded, progress), **(so_far or {})}
    minutes = tuple(sorted(had.items()))
    acts: dict[str, list[Act]] = {}
    for done in progress.acts:
        act = Act(done.at_s, done.away_s, "coat" in done.act, "turn" in done.act)
        acts.setdefault(done.fire, []).append(act)
    told = tuple((fire, tuple(own)) for fire, own in sorted(acts.items()))
    return truth(loaded.whole.model_dump_json(), seed, minutes, told)


def minutes_of(loaded: Loaded, progress: Progress) -> dict[str, float]:
    """What every slow heat had, or is to have [min]: a way back is more of the heat that its check
    came after.
    """
    found = {
        key: scene.timer_s / 60.0
        for key, scene in loaded.chain.scenes.items()
        if scene.glaze is None
    }
    spent: dict[str, float] = {}
    for state in progress.steps:
        stage = stage_of_step(state.plan)
        if stage in found and state.state in OVER and holds(loaded, state):
            spent[stage] = spent.get(stage, 0.0) + lasted_min(state)
    return {**found, **spent}


def holds(loaded: Loaded, state: StepState) -> bool:
    """Whether the time of a heat runs during a step: what it takes to come up is none of it."""
    if state.plan.who != "machine":
        return False
    return words_row(loaded.step_of(state.plan))["shows"] == IN_HEAT[-1]


def lasted_min(state: StepState) -> float:
    """How long a step was [min]."""
    begin = state.begin_s or 0.0
    return max(0.0, (state.end_s if state.end_s is not None else state.due_s) - begin) / 60.0


def rehearsal_now(
    loaded: Loaded, progress: Progress, plan: StepPlan | None, now_s: float
) -> RehearsalPublic | None:
    """What there is to see, read and feel; None of a cook in earnest. now_s : since its begin."""
    rehearsal = loaded.told.rehearsal
    if rehearsal is None:
        return None
    reads_c, feels, came = None, "", [NO_ANSWER]
    trying = None if progress.finished else holding_now(loaded, progress)
    try:
        food = truth_now(loaded, progress, rehearsal.seed)
        if trying is not None:
            feels = tried(loaded, progress, trying, now_s, rehearsal.seed)
        if plan is not None and plan.who == "gate":
            stage = stage_of_step(plan)
            reads_c = round(min(food.core_c(stage), BOILS_C), 1)  # opened, it boils no higher
            feels = FORK + felt(food.bite(stage), loaded.scene(plan).document.bite)
        came = verdicts(loaded, progress, food, rehearsal.seed) if progress.finished else []
    except CoreError:  # one cook without an answer may not close the page of all
        asked = trying is not None or (plan is not None and plan.who == "gate")
        feels = NO_ANSWER if asked else ""
    return RehearsalPublic(
        speed=rehearsal.speed,
        kept=rehearsal.kept,
        seed=rehearsal.seed,
        real_at=rehearsal.real_at,
        cook_at=rehearsal.cook_at,
        strip_key=strip_key(loaded, progress),
        reads_c=reads_c,
        feels=feels,
        verdicts=came if progress.finished else [],
    )


def tried(loaded: Loaded, progress: Progress, holding: StepState, now_s: float, seed: int) -> str:
    """What a skewer finds in a heat that the food is in: as if the heat ended now."""
    stage = stage_of_step(holding.plan)
    had_min = max(0.0, now_s - (holding.begin_s or 0.0)) / 60.0
    steps = max(1, round(had_min / TRIED_EVERY_MIN))
    food = truth_now(loaded, progress, seed, {stage: TRIED_EVERY_MIN * steps})
    return SKEWER + felt(food.bite(stage), loaded.scene(holding.plan).document.bite)


def felt(bite: str, wished: str) -> str:
    """What a fork or a skewer finds."""
    tender = bool(bite) and BITE_ORDER.index(bite) >= BITE_ORDER.index(wished)
    return " goes in as it should." if tender else " meets resistance."


def strip_key(loaded: Loaded, progress: Progress) -> str | None:
    """Changes when the colours of the food are to be fetched anew; None where nothing is
    browned.
    """
    stage = loaded.fire_stage(progress)
    if not stage:
        return None
    own = [f"{one.act}@{one.at_s}+{one.away_s}" for one in progress.acts if one.fire == stage]
    spent = [f"{key}={minutes:.1f}" for key, minutes in minutes_of(loaded, progress).items()]
    changed = [f"{one.sign}@{one.heat_s}" for one in progress.changes if one.fire == stage]
    return " ".join([stage, *spent, *own, *changed])


def true_strip(loaded: Loaded, progress: Progress, seed: int) -> GlazePublic:
    """How the simulated food browns under the fire of the moment."""
    food = truth_now(loaded, progress, seed)
    return fire_strip(true_fire(food, progress, loaded.fire_stage(progress), seed), ())


def true_fire(food: core.Truth, progress: Progress, stage: str, seed: int) -> core.Fire:
    """A fire of the simulated food, with the way out that was taken in it."""
    fire = food.fire(stage)
    told = [one for one in progress.changes if one.fire == stage and one.heat_s >= 1.0]
    if not told:
        return fire
    return taken(fire, core.hidden_kitchen(seed), told[-1].sign, told[-1].heat_s)


def verdicts(loaded: Loaded, progress: Progress, food: core.Truth, seed: int) -> list[str]:
    """What came of every fire of which both ends were told, in a line each."""
    found = []
    for stage, scene in loaded.chain.scenes.items():
        if scene.glaze is None:
            continue
        under = [s for s in progress.steps if s.plan.fire == stage and s.plan.who == "fire"]
        if not under or any(s.state != CONFIRMED or s.begin_s is None for s in under):
            found.append(f"Nobody told when it came out of the {scene.glaze.appliance_name}.")
            continue
        out_s = sum(float(s.end_s or 0.0) - float(s.begin_s or 0.0) for s in under)
        fire = true_fire(food, progress, stage, seed)
        found.append(verdict(fire, out_s, scene.glaze.appliance_name, scene.glaze.want))
    return found


def verdict(fire: core.Fire, out_s: float, name: str, want: str) -> str:
    """ "Out of the broiler at 4:05: face amber, edges mahogany. As it was wanted." """
    found = core.eaten(fire, out_s)
    came = f"face {colour_name(found.face)}, edges {colour_name(found.edge)}"
    judged = "As it was wanted."
    if found.burnt:
        judged = "Burnt."
    elif not found.right:
        judged = "Too pale." if found.face < value(f"{want}_index") else "Too dark."
    return f"Out of the {name} at {stopwatch_text(out_s)}: {came}. {judged}"


def colour_name(index: float) -> str:
    """The name of a browning index."""
    return next((name for name in COLOURS if index >= value(f"{name}_index")), "pale")
