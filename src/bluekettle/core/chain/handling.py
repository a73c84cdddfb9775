"""Stages of hands: seasoning, draining, blotting, taking apart, dressing."""

from __future__ import annotations

from dataclasses import replace

import numpy as np

from bluekettle.core.chain.food import Food, in_strands, piece_now, stood, with_oil, with_rub
from bluekettle.core.chain.heats import heat_row
from bluekettle.core.chain.passage import Passage, Step, link, of_pieces
from bluekettle.core.chain.plan import Blot, Drain, Dress, Season, Stage, TakeApart
from bluekettle.core.chain.waits import settled
from bluekettle.core.heat import surroundings
from bluekettle.core.stages import cut
from bluekettle.core.stages.links import Link

IN_FRIDGE_S = 1800.0  # what sits longer sits in the fridge (usual guidance)
DRESSED = {
    "brush": ("brush", "Brush with {}"),
    "toss": ("toss", "Toss in {}"),
    "dip": ("brush", "Dip in {}"),
    "pour": ("pour", "Pour {} over"),
}


def season(stage: Season, food: Food, step: Step) -> Passage:
    """The membrane off, salt or a dry layer; then it may sit."""
    links: list[Link] = []
    if stage.membrane and has_membrane(food, step):
        seconds = step.hands("membrane", food)
        says = "Pull the membrane off"
        links.append(link(stage, "membrane", "season", says, "hands", seconds))
        food = replace(food, bared=True)
    action, label = salting(food, step)
    if stage.layer:
        layer = step.plan.layer(stage.layer)
        food = dried(stage, food, step, links)
        food = with_rub(food, layer.sugar_kg_m2, layer.spice_kg_m2, layer.leavening)
        action, label = "season", f"Pat the {layer.name} on"
        if stage.massaged:
            action, label = "massage", f"Massage the {layer.name} in"
    key = "rub" if stage.layer else "season"
    links.append(link(stage, key, "season", label, "hands", step.hands(action, food)))
    sit = 60.0 * stage.sit_min
    if sit > 0.0:
        seconds = np.full(food.members, sit)
        cold = sit > IN_FRIDGE_S
        says = "It sits in the fridge" if cold else "It sits"
        links.append(link(stage, "sit", "season", says, "machine", seconds))
        if cold:
            fridge = surroundings("fridge")
            food, _ = stood(step.plan, food, step.draws, seconds, fridge, long=True)
        else:
            food = food.waits(seconds)
    return Passage(food, tuple(links))


def has_membrane(food: Food, step: Step) -> bool:
    """Whether there is one to pull off: once, and of no block of ice."""
    return cut(step.plan.cut).membrane and not food.bared and not is_frozen(food)


def is_frozen(food: Food) -> bool:
    """Whether its middle is ice."""
    return float(np.median(food.brought.profile_c[:, 0])) < 0.0


def salting(food: Food, step: Step) -> tuple[str, str]:
    """Frozen food is not patted dry, nor is what goes into liquid: it is salted only."""
    row = heat_row(step.next_heat).slow if step.next_heat else None
    if is_frozen(food) or (row is not None and row.takes_liquid):
        return "salt", f"Salt {of_pieces(food)}"
    return "season", f"Dry and salt {of_pieces(food)}"


def drain(stage: Drain, food: Food, step: Step) -> Passage:
    """Out of its liquid."""
    seconds = step.hands("lift", food)
    line = link(stage, "drain", "drain", "Out of its liquid, juice kept", "hands", seconds)
    return Passage(food.waits(seconds), (line,))


def blot(stage: Blot, food: Food, step: Step) -> Passage:
    """Dry with paper."""
    seconds = step.hands("blot", food)
    line = link(stage, "blot", "blot", "Blot it dry", "hands", seconds)
    return Passage(replace(food.waits(seconds), wet=False), (line,))


def take_apart(stage: TakeApart, food: Food, step: Step) -> Passage:
    """Into strands, off the bone, or into portions."""
    if stage.how == "shred":
        seconds = step.hands("shred", food)
        line = link(stage, "shred", "shred", "Pull it into strands", "hands", seconds)
        cooled = settled(step, food.waits(seconds))
        return Passage(in_strands(cooled), (line,))
    if stage.how == "bones":
        seconds = step.hands("bones", food)
        label = "Pull the bones, and look for splinters"
        line = link(stage, "bones", "bones", label, "hands", seconds)
        left = food.mass_kg * (1.0 - cut(step.plan.cut).bone_fraction)
        return Passage(replace(food.waits(seconds), mass_kg=left), (line,))
    pieces = stage.pieces or food.pieces
    after = replace(food, pieces=pieces)
    seconds = step.hands("slice", after)
    label = f"Cut into {pieces} portions"
    line = link(stage, "portions", "portion", label, "hands", seconds)
    return Passage(after.waits(seconds), (line,))


def ready_to_dress(stage: Dress, food: Food, step: Step) -> tuple[Food, list[Link]]:
    """Onto what it goes into the next fire on, and blotted, before a coat goes on."""
    links: list[Link] = []
    row = heat_row(step.next_heat).fierce if step.next_heat else None
    if row is not None and not food.placed:
        seconds = step.hands("lift", food)
        links.append(link(stage, "lift", "drain", row.lift, "hands", seconds))
        food = replace(food.waits(seconds), placed=True)
    return dried(stage, food, step, links), links


def dried(stage: Stage, food: Food, step: Step, links: list[Link]) -> Food:
    """Blotted where it is wet, before something goes on it; that is one of the links."""
    if not food.wet:
        return food
    seconds = step.hands("blot", food)
    links.append(link(stage, "blot", "blot", "Blot it dry", "hands", seconds))
    return replace(food.waits(seconds), wet=False)


def dress(stage: Dress, food: Food, step: Step) -> Passage:
    """A layer put on outside any heat: it lies there as a coat for the next fire. Oil is no coat:
    the food under it browns as bare food does.
    """
    layer = step.plan.layer(stage.layer)
    food, links = ready_to_dress(stage, food, step)
    action, says = DRESSED[stage.how]
    seconds = step.hands(action, food)
    near = bool(step.next_heat) and heat_row(step.next_heat).fierce is not None
    label = says.format(layer.name)
    links.append(link(stage, "dress", "coat", label, "hands", seconds, approach=near))
    sauce = layer.sauce
    assert sauce is not None  # the plan is checked
    kg_m2 = stage.mm * sauce.mass_kg / sauce.volume_l
    used = kg_m2 * piece_now(step.plan, food).surface_m2()
    clean = food.checked or cut(step.plan.cut).cooked
    touched = frozenset() if clean else frozenset({stage.layer})
    raw_on = food.checked and step.is_raw(stage.layer)
    after = replace(food.waits(seconds), raw_on=food.raw_on or raw_on)
    if sauce.oils:
        after = with_oil(after)
    else:
        after = replace(after, coats=(*food.coats, (stage.layer, stage.mm)), on=sauce)
    return Passage(
        after,
        tuple(links),
        sauce_kg={stage.layer: used},
        touched_raw=touched,
        notes=(f"raw-late:{stage.layer}",) if raw_on else (),
    )
