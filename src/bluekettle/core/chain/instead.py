"""Heats that were left for another while it was cooked: an appliance that broke or was taken, foil
that tore. The food takes along what it had; what is left is done in the other heat.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace

from bluekettle.core.chain.heats import heat_keys, heat_row
from bluekettle.core.chain.plan import (
    Heat,
    HeatAct,
    Instead,
    Plan,
    Share,
    Split,
    Stage,
    Until,
    run_through,
    stage_named,
    unrolled,
)
from bluekettle.core.errors import Ranges
from bluekettle.core.stages import cut

LEAST_ACT_MIN = 0.5  # of a coat or turn that was due already (numerical)
MOST_INSTEAD = 9  # of one stage


def id_instead(stage: str) -> str:
    """Id of the stage that stands for another: "broil+1", and "broil+2" for that one."""
    root, _, number = stage.partition("+")
    return f"{root}+{int(number or 0) + 1}"


def left_for_others(plan: Plan) -> Plan:
    """The plan with every heat that was left, and the one that came for it, as stages of their
    own; rounds lie open in it.

    Raises OutOfRange with every fault of `instead`, by its fields.
    """
    ranges = Ranges()
    stages = unrolled(plan.stages)
    for place, one in enumerate(plan.instead):
        faults = len(ranges.faults)
        check_instead(ranges, f"instead.{place}", one, stages)
        if len(ranges.faults) == faults:
            stages = put(stages, one, plan, stages)
    ranges.close()
    return replace(plan, stages=stages, instead=())


def check_instead(ranges: Ranges, at: str, one: Instead, stages: Sequence[Stage]) -> None:
    """Note what is wrong with one that was left."""
    known = [stage.id for stage in run_through(stages) if isinstance(stage, Heat)]
    ranges.one_of(f"{at}.stage", one.stage, known)
    ranges.one_of(f"{at}.heat", one.heat, heat_keys())
    ranges.within(f"{at}.had_min", one.had_min, 0.0, 60.0 * 72.0, "min")
    ranges.within(f"{at}.acts_done", one.acts_done, 0, 12, "acts")
    if one.stage not in known or one.heat not in heat_keys():
        return
    left = stage_named(stages, one.stage)
    assert isinstance(left, Heat)
    row, colour = heat_row(one.heat), browns(left, stages)
    if (row.fierce if colour else row.slow) is None:
        does = "browns" if colour else "cooks through"
        ranges.add(f"{at}.heat", one.heat, f"a heat that {does}, as {left.heat} was to")
    if int(one.stage.partition("+")[2] or 0) >= MOST_INSTEAD:
        ranges.add(f"{at}.stage", one.stage, f"up to {MOST_INSTEAD} heats one after the other")


def browns(stage: Heat, stages: Sequence[Stage]) -> bool:
    """Whether a heat of these stages is there for its colour, and not to cook through: it cannot do
    the one, ends by the other, or goes by the clock behind another heat.
    """
    row = heat_row(stage.heat)
    if row.slow is None or row.fierce is None:
        return row.slow is None
    if stage.until.by == "minutes":
        heats = [one.id for one in run_through(stages) if isinstance(one, Heat)]
        return heats[0] != stage.id
    return stage.until.by == "colour" or any(act.do == "coat" for act in stage.acts)


def put(
    stages: Sequence[Stage], one: Instead, plan: Plan, whole: Sequence[Stage]
) -> tuple[Stage, ...]:
    """Stages, a part of `whole`, with one heat left for another."""
    found: list[Stage] = []
    for stage in stages:
        if isinstance(stage, Split):
            shares = [
                Share(s.share, put(unrolled(s.stages), one, plan, whole)) for s in stage.shares
            ]
            found.append(replace(stage, shares=tuple(shares)))
        elif isinstance(stage, Heat) and stage.id == one.stage:
            found += [*had(stage, one), other(stage, one, plan, browns(stage, whole))]
        else:
            found.append(stage)
    return tuple(found)


def had(stage: Heat, one: Instead) -> tuple[Heat, ...]:
    """What the food had of the heat that was left; none where that had not begun."""
    if one.had_min <= 0.0:
        return ()
    until = replace(stage.until, minutes=one.had_min)
    return (replace(stage, until=until, acts=stage.acts[: one.acts_done], cut_short=True),)


def other(stage: Heat, one: Instead, plan: Plan, colour: bool) -> Heat:
    """The heat that comes for it, at its usual dial or that of the body which it stays in: to the
    same colour or the same bite, since so many minutes mean nothing elsewhere.
    """
    key, begun = id_instead(stage.id), one.had_min > 0.0
    rows = heat_row(stage.heat), heat_row(one.heat)
    stays = rows[0].body == rows[1].body and rows[0].dial_unit == rows[1].dial_unit
    dial = stage.dial if stays else None
    if colour:
        kind = heat_row(one.heat).fierce
        assert kind is not None  # it is checked
        left = stage.acts[one.acts_done :]
        acts = [later(act, one.had_min) for act in left if act.do == "coat" or kind.sides == 1]
        until = Until("colour", want=stage.until.want)
        browned = Heat(key, one.heat, until, dial, acts=tuple(acts), coat_mm=stage.coat_mm)
        return replace(browned, unforeseen=begun)
    until = Until("bite", bite=stage.until.bite or cut(plan.cut).usual_bite)
    if stage.until.by == "core":
        until = replace(stage.until, minutes=None)
    return Heat(key, one.heat, until, dial, unforeseen=begun)


def later(act: HeatAct, had_min: float) -> HeatAct:
    """A coat or turn that is still to come, at its minute of the other heat."""
    if act.at_min is None:
        return act
    return replace(act, at_min=max(LEAST_ACT_MIN, act.at_min - had_min))
