"""The fold: the food walked through its stages, with the gates that place themselves."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from bluekettle.core.chain.fire import fire, is_fierce
from bluekettle.core.chain.food import Food, hottest, raw_food, stood
from bluekettle.core.chain.handling import blot, drain, dress, season, take_apart
from bluekettle.core.chain.heats import heat_row
from bluekettle.core.chain.memory import Memory, first_key, next_key
from bluekettle.core.chain.passage import Kitchen, Passage, Run, Step, Used, link
from bluekettle.core.chain.plan import (
    Beside,
    Blot,
    Cool,
    Drain,
    Dress,
    Heat,
    Hold,
    Marinate,
    Plan,
    Rest,
    Season,
    Share,
    Split,
    Stage,
    TakeApart,
    Thaw,
    unrolled,
)
from bluekettle.core.chain.slow import found_minutes, slow
from bluekettle.core.chain.waits import cool, hold, marinate, rest, thaw
from bluekettle.core.errors import MissingData
from bluekettle.core.glaze import Draws
from bluekettle.core.lethality import NO_CREDIT_BELOW_C, kill_for
from bluekettle.core.stages import Cut, cut
from bluekettle.core.stages.tenderise import wary_pair
from bluekettle.core.stages.waiting import IN_ROOM
from bluekettle.core.tables import value

Array = NDArray[np.float64]

OPEN_ENDS = ("core", "bite")


def heat(stage: Heat, food: Food, step: Step) -> Passage:
    """A heat by the model that knows it."""
    coated = bool(food.coats) or food.on is not None
    return fire(stage, food, step) if is_fierce(stage, coated) else slow(stage, food, step)


# Every kind of stage that the food goes through, and what runs it.
RUNS: dict[type[Stage], Run] = {
    Thaw: thaw,
    Season: season,
    Marinate: marinate,
    Heat: heat,
    Drain: drain,
    Blot: blot,
    Rest: rest,
    Cool: cool,
    TakeApart: take_apart,
    Dress: dress,
    Hold: hold,
}


def run_stage(stage: Stage, food: Food, step: Step) -> Passage:
    """One stage; MissingData for a kind that nothing runs."""
    run = RUNS.get(type(stage))
    if run is None:
        known = [kind.__name__ for kind in RUNS]
        raise MissingData("kind of stage", type(stage).__name__, known)
    return run(stage, food, step)


@dataclass(frozen=True)
class Gate:
    """A check that only a person can pass: after a stage, for its tenderness, its temperature or
    both.

    safe_c : what the thermometer must read, None where only tenderness is asked. by_time : that
    figure stands for a proven time in a bath.
    """

    after: str
    tender: bool
    safe_c: float | None
    by_time: bool = False


@dataclass(frozen=True)
class Passed:
    """One stage as it was run, and the check that belongs after it."""

    stage: Stage
    passage: Passage
    gate: Gate | None = None


@dataclass(frozen=True)
class Tail:
    """One share of a split: how much of the food [-], what was done to it, and how long it stands
    until the last share is done [s], (members,).
    """

    share: float
    line: tuple[Passed, ...]
    food: Food
    waits_s: Array


@dataclass(frozen=True)
class Walk:
    """The whole way: stages in order, what lies beside them, the tails of a split, and the food at
    the end of the common part.
    """

    line: tuple[Passed, ...]
    beside: tuple[Beside, ...]
    tails: tuple[Tail, ...]
    food: Food

    @property
    def passed(self) -> tuple[Passed, ...]:
        """Every stage as it was run, those of the tails too."""
        return (*self.line, *(one for tail in self.tails for one in tail.line))


@dataclass(frozen=True)
class State:
    """Between two stages: the food, its median and unfavourable members, and the kitchen for
    each.
    """

    food: Food
    pair: Food
    kitchen: Kitchen
    pair_kitchen: Kitchen


@dataclass(frozen=True)
class Ahead:
    """What a stage has to know of those that follow: the heat that comes at once; whether any heat
    is still to come, and for all of the food; strands to be pulled; a timer to be found, for which
    the unfavourable members are walked along; and the bodies that other shares still want.
    """

    next_heat: str
    more: bool
    sure: bool
    strands: bool
    pair: bool
    wanted: tuple[str, ...]


@dataclass(frozen=True)
class Known:
    """A stage as it was run, and the state after it."""

    passed: Passed
    state: State


@dataclass(frozen=True)
class Party:
    """Who walks: all members, the unfavourable pair, and what is remembered of earlier walks."""

    plan: Plan
    draws: Draws
    pair_draws: Draws
    memory: Memory[Known]


def walk(plan: Plan, draws: Draws, memory: Memory[Known] | None = None) -> Walk:
    """The food through all stages; those that `memory` knows from an earlier walk are not run anew.

    Raises
    ------
    NotConverged
        A heat that never does what it is asked for; names its stage.
    """
    pair_draws = wary_pair(draws)
    party = Party(plan, draws, pair_draws, memory or Memory())
    stages = unrolled(plan.stages)
    beside = tuple(stage for stage in stages if isinstance(stage, Beside))
    line = [stage for stage in stages if not isinstance(stage, Beside | Split)]
    split = next((stage for stage in stages if isinstance(stage, Split)), None)
    state = State(
        raw_food(plan, draws),
        raw_food(plan, pair_draws),
        Kitchen(np.zeros(draws.members)),
        Kitchen(np.zeros(2)),
    )
    follows = [has_heat(share.stages) for share in split.shares] if split else []
    key = first_key(plan, draws)
    passed, state, key = along(party, line, state, key, follows)
    tails: list[Tail] = []
    ends: list[Array] = []
    none = np.zeros(draws.members)
    begun, pair_begun = state.kitchen.elapsed_s, state.pair_kitchen.elapsed_s
    kitchen, pair_kitchen = state.kitchen, state.pair_kitchen
    for place, share in enumerate(split.shares if split else ()):
        # One after the other: a fire wants all of one pair of hands, and the next share waits.
        part = State(
            shared_out(state.food.waits(kitchen.elapsed_s - begun), share.share),
            shared_out(state.pair.waits(pair_kitchen.elapsed_s - pair_begun), share.share),
            kitchen,
            pair_kitchen,
        )
        key += repr(share.share).encode()
        wanted = bodies_of(split.shares[place + 1 :]) if split else ()
        tail, end, key = along(party, unrolled(share.stages), part, key, [], wanted)
        tails.append(Tail(share.share, tuple(tail), end.food, none))
        ends.append(end.kitchen.elapsed_s)
        kitchen, pair_kitchen = end.kitchen, end.pair_kitchen
    done = tuple(
        until_done(party, *one, kitchen.elapsed_s) for one in zip(tails, ends, strict=True)
    )
    return Walk(tuple(passed), beside, done, state.food)


def until_done(party: Party, tail: Tail, end_s: Array, last_s: Array) -> Tail:
    """A share that was done at `end_s` on the clock, and stands until the last one is."""
    waits_s = last_s - end_s
    if waits_s.max() <= 0.0:
        return tail
    seconds = tail.food.waited + waits_s
    food, _ = stood(party.plan, tail.food, party.draws, seconds, IN_ROOM)
    return replace(tail, food=food, waits_s=waits_s)


def has_heat(stages: Sequence[Stage]) -> bool:
    """Whether any of these stages is a heat."""
    return any(isinstance(stage, Heat) for stage in unrolled(stages))


def bodies_of(shares: Sequence[Share]) -> tuple[str, ...]:
    """The bodies that some shares are heated in."""
    heats = (stage for one in shares for stage in unrolled(one.stages) if isinstance(stage, Heat))
    return tuple(dict.fromkeys(heat_row(stage.heat).body for stage in heats))


def shared_out(food: Food, share: float) -> Food:
    """A share of the food."""
    return replace(food, mass_kg=food.mass_kg * share, pieces=max(1, round(food.pieces * share)))


def along(
    party: Party,
    stages: Sequence[Stage],
    state: State,
    key: bytes,
    tails: Sequence[bool],
    wanted: tuple[str, ...] = (),
) -> tuple[list[Passed], State, bytes]:
    """The food along some stages, one after the other; `key` is that of the state, before and
    after. tails : of a split that follows, whether each share is heated in it: a check waits for a
    later heat only where all of the food has one. wanted : bodies that later shares go into.
    """
    passed: list[Passed] = []
    for place, stage in enumerate(stages):
        before = stages[place - 1] if place else None
        ahead = ahead_of(stages[place + 1 :], tails, wanted)
        key = next_key(key, party.plan, stage, ahead)
        known = party.memory.find(key)
        if known is None:
            known = party.memory.keep(key, one_stage(party, stage, state, before, ahead))
        passed.append(known.passed)
        state = known.state
    return passed, state, key


def ahead_of(
    rest_of: Sequence[Stage], tails: Sequence[bool], wanted: tuple[str, ...] = ()
) -> Ahead:
    """What the stage before these has to know of them."""
    after = rest_of[0] if rest_of else None
    heats = has_heat(rest_of)
    timers = any(isinstance(one, Heat) and one.until.by in OPEN_ENDS for one in rest_of)
    return Ahead(
        after.heat if isinstance(after, Heat) else "",
        heats or any(tails),
        heats or (bool(tails) and all(tails)),
        any(isinstance(one, TakeApart) and one.how == "shred" for one in rest_of),
        timers or any(tails),
        wanted,
    )


def one_stage(
    party: Party, stage: Stage, state: State, before: Stage | None, ahead: Ahead
) -> Known:
    """One stage run, with the check that belongs after it."""
    found = cut(party.plan.cut)
    step = Step(
        party.plan,
        party.draws,
        state.kitchen,
        before,
        ahead.next_heat,
        ahead.more,
        frozenset(ahead.wanted),
    )
    pair_step = replace(step, draws=party.pair_draws, kitchen=state.pair_kitchen)
    if isinstance(stage, Heat):
        stage = timed(stage, state.pair, pair_step)
    passage = run_stage(stage, state.food, step)
    gate = gate_after(stage, passage, found, ahead)
    if gate is not None:
        passage = with_gate(stage, passage, gate, found, step)
    pair = run_stage(stage, state.pair, pair_step) if ahead.pair else None
    after = State(
        passage.food,
        state.pair if pair is None else pair.food,
        kitchen_after(state.kitchen, stage, passage),
        state.pair_kitchen if pair is None else kitchen_after(state.pair_kitchen, stage, pair),
    )
    return Known(Passed(stage, passage, gate), after)


def timed(stage: Heat, pair: Food, step: Step) -> Heat:
    """The heat with its timer: the cook's own, or the shortest that ends it as it is asked."""
    until = stage.until
    if until.by not in OPEN_ENDS or until.minutes is not None:
        return stage
    minutes = found_minutes(stage, pair, step)
    return replace(stage, until=replace(until, minutes=minutes))


def kitchen_after(kitchen: Kitchen, stage: Stage, passage: Passage) -> Kitchen:
    """The kitchen once a stage is over."""
    elapsed = kitchen.elapsed_s + np.sum([one.seconds for one in passage.links], axis=0)
    used, last = dict(kitchen.used), kitchen.last_heat
    if isinstance(stage, Heat):
        held = sum(one.seconds for one in passage.links if one.kind == "check")
        used[passage.body] = Used(stage.heat, passage.dial, elapsed - held)
        last = stage.heat
    raw = kitchen.raw_layers | passage.touched_raw
    return Kitchen(elapsed, used, raw, last)


def as_begun(plan: Plan, way: Walk, stage: str, draws: Draws) -> tuple[Food, Step]:
    """The food as a stage of the common way begins, and what that stage is run with. `stage` is on
    that way.
    """
    food, kitchen = raw_food(plan, draws), Kitchen(np.zeros(draws.members))
    before: Stage | None = None
    for one in way.line:
        if one.stage.id == stage:
            break
        food, kitchen = one.passage.food, kitchen_after(kitchen, one.stage, one.passage)
        before = one.stage
    return food, Step(plan, draws, kitchen, before)


def gate_after(stage: Stage, passage: Passage, found: Cut, ahead: Ahead) -> Gate | None:
    """The check that belongs after a stage: tenderness where a bite was wished, the temperature
    where the food first has it or no heat is left, and once more where raw sauce went on.
    """
    food = passage.food
    if isinstance(stage, Heat) and stage.cut_short:
        return None
    if not isinstance(stage, Heat):
        late = food.raw_on and not ahead.sure and found.gate
        return Gate(stage.id, False, found.safe_c) if late else None
    more = ahead.sure
    slow_heat = passage.slow is not None
    wished = stage.until.by == "bite" or stage.until.bite is not None
    tender = slow_heat and (wished or ahead.strands)
    if not found.gate:
        return Gate(stage.id, True, None) if tender else None
    probe_c = proven_c(stage, food, found)
    safe = hottest(food) >= found.safe_c or probe_c is not None
    due = not food.checked and (safe or not more)
    again = food.raw_on and not more
    if due and probe_c is not None:
        return Gate(stage.id, tender, probe_c, by_time=True)
    if due or again:
        return Gate(stage.id, tender, found.safe_c)
    return Gate(stage.id, True, None) if tender else None


def proven_c(stage: Heat, food: Food, found: Cut) -> float | None:
    """What the thermometer must read [°C] where a water bath has proven a time at less than the
    usual temperature; None where it has not.
    """
    if not heat_row(stage.heat).proves:
        return None
    log = float(np.quantile(food.log_reduction, 0.05))
    probe_c = float(np.floor(hottest(food) - value("proof_less_k")))
    if log < kill_for(found.species).wanted_log:
        return None
    return probe_c if NO_CREDIT_BELOW_C <= probe_c < found.safe_c else None


def with_gate(stage: Stage, passage: Passage, gate: Gate, found: Cut, step: Step) -> Passage:
    """The stage with its check; the food stands while it is looked at."""
    again = passage.food.checked and gate.safe_c is not None
    action = "check" if gate.tender or not again else "probe"
    label = "Is it tender? Is it hot enough?"
    if gate.safe_c is None:
        label = "Is it tender?"
    elif again:
        label = "Hot enough again? Raw sauce went on"
    elif not gate.tender:
        label = "Is it hot enough?"
    seconds = step.hands(action, passage.food)
    line = link(stage, "check", "check", label, "gate", seconds)
    food = replace(
        passage.food.waits(seconds),
        checked=passage.food.checked or gate.safe_c is not None,
        raw_on=passage.food.raw_on and gate.safe_c is None,
    )
    return replace(passage, food=food, links=(*passage.links, line))
