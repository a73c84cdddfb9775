"""A fierce heat: a film that is looked at, or crisped for a time; and what it does inside."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from bluekettle.core.chain.food import Food, heated, lain, piece_now, stood
from bluekettle.core.chain.heats import heat_row
from bluekettle.core.chain.passage import Fire, Passage, Step, Warmed, link
from bluekettle.core.chain.plan import Heat
from bluekettle.core.chain.slow import found_body, heating_label, run_slow, worth_waiting
from bluekettle.core.glaze import Draws, Finish, Milestones, read_milestones
from bluekettle.core.glaze.ensemble import weighted_quantile
from bluekettle.core.glaze.milestones import MILESTONES, wanted_times
from bluekettle.core.halves import in_one
from bluekettle.core.heat import Boundary, Matter, Surroundings
from bluekettle.core.sauce import Composition
from bluekettle.core.stages import Browning, cut
from bluekettle.core.stages.finishing import (
    LONGEST_S,
    SHORTEST_LOOK_S,
    Below,
    UnderFire,
    film_on,
    left_lying,
    run_dish_finish,
)
from bluekettle.core.stages.links import PREHEAT_NOTE, Link, fire_links
from bluekettle.core.stages.pulling import (
    best_minute_s,
    pull_times,
    sighting_weights,
    strip_index,
)
from bluekettle.core.stages.standing import heat_one_side
from bluekettle.core.stages.tally import Brought
from bluekettle.core.stages.tenderise import altitude_of, death_of
from bluekettle.core.stages.waiting import H_IN_FIRE, IN_ROOM, STAND_STEP_S, below_surface
from bluekettle.core.tables import value

Array = NDArray[np.float64]

FIERCE_C = 150.0  # of hot air, from which a surface is worth looking at (design)
FIERCE_MIN = 60.0  # as long as a film is looked at (design)
PAST_S = 60.0  # a film is looked at a little past a timer (numerical)


def is_fierce(stage: Heat, coated: bool = False) -> bool:
    """Whether a heat is looked at: it can be, and it ends by its look, or is short, and hot by the
    clock or with coats on the food.
    """
    row = heat_row(stage.heat)
    if row.fierce is None:
        return False
    if row.slow is None or stage.until.by == "colour" or any(a.do == "coat" for a in stage.acts):
        return True
    minutes = stage.until.minutes
    if minutes is None or minutes > FIERCE_MIN:
        return False
    hot = stage.dial is not None and row.dial_unit == "°C" and stage.dial >= FIERCE_C
    return coated or (hot and stage.until.by == "minutes")


@dataclass(frozen=True)
class Coats:
    """What lies on the food in this fire: the sauce, coats in all, those already on, [mm]."""

    sauce: Composition | None
    layer: str
    count: int
    before: int
    mm: float


def coats_of(stage: Heat, food: Food, step: Step) -> Coats:
    """The coats of a fire: what was put on before it, and those brushed on in it."""
    inside = [act.layer for act in stage.acts if act.do == "coat"]
    before = [layer for layer, _ in food.coats]
    thick = sum(mm for _, mm in food.coats)
    layer = (inside or before or [""])[0]
    # Several dressings before a fire lie on each other as one coat.
    on = 1 if before else 0
    count = on + len(inside)
    mm = (thick + len(inside) * stage.coat_mm) / count if count else stage.coat_mm
    sauce = step.plan.layer(layer).sauce if layer else food.on
    return Coats(sauce, layer, count, on, mm)


def fire_dish(stage: Heat, food: Food, step: Step) -> Browning:
    """The food and this fire, for the models of the film."""
    row = heat_row(stage.heat)
    assert row.fierce is not None  # asked only of what has a fierce model
    kitchen = step.plan.kitchen
    if stage.dial is not None:
        kitchen = kitchen.having(row.fierce.dial, stage.dial)
    coats = coats_of(stage, food, step)
    told = [act.at_min for act in stage.acts if act.do == "coat"]
    moments = None
    if any(minute is not None for minute in told) or (told and not coats.before):
        given = tuple(minute or 0.0 for minute in told)
        moments = (0.0, *given) if coats.before else given
    turns = tuple(a.at_min or 0.0 for a in stage.acts if a.do in ("turn", "stir"))
    return replace(piece_now(step.plan, food), kitchen=kitchen).under(
        Browning,
        heat=row.fierce.key,
        want=stage.until.want,
        sauce=coats.sauce,
        coats=coats.count,
        coat_mm=coats.mm,
        coats_min=moments,
        flips_min=turns,
        sightings=step.plan.sightings.get(stage.id, ()),
        told=step.plan.told.get(stage.id, ()),
    )


def dried_surface(food: Food) -> Array:
    """The bare surface as the film reads it, (members, 5): dry and half dried [m], browned,
    charred, spent [-].
    """
    crust, browned, charred, _, dry, spent = food.outside.T
    return np.column_stack([dry, np.maximum(0.0, crust - dry), browned, charred, spent])


def fire(stage: Heat, food: Food, step: Step) -> Passage:
    """A fierce heat: onto its tray, its appliance awaited, under it, and out."""
    row = heat_row(stage.heat)
    assert row.fierce is not None
    kind = row.fierce
    food, ready = made_ready(stage, food, step)
    food, surface = stood(step.plan, food, step.draws, food.waited, IN_ROOM)
    dish, found = fire_dish(stage, food, step), cut(step.plan.cut)
    deep_c, surface_c = below_surface(food.brought.profile_c, food.half_m, surface)
    below = Below(
        deep_c,
        surface_c,
        dried_surface(food),
        food.lying,
        food.rub,
        food.strands,
        food.oiled,
    )
    minutes = None if stage.ends_by == "colour" else stage.until.minutes
    look = (SHORTEST_LOOK_S, LONGEST_S)
    if minutes is not None:
        # what comes long after its timer is nobody's question
        look = (60.0 * minutes + PAST_S, 2.0 * 60.0 * minutes + PAST_S)
    told = step.more and minutes is not None
    leaves_s = np.full(food.members, 60.0 * (minutes or 0.0)) if told else None
    finish = run_dish_finish(
        dish, found, step.draws, below, least_s=look[0], most_s=look[1], leaves_s=leaves_s
    )
    weights = sighting_weights(finish, dish.sightings)
    milestones = read_milestones(finish, weights, dish.want)
    pull_s, timer_s = leaving(dish, finish, milestones, weights, minutes)
    wait, heating = awaited(stage, dish, step, ready)
    warmed = None if step.stays_from(stage) else heating
    into = step.hands("under", food)
    links = list(ready)
    if step.stays_from(stage):
        links += in_place(stage, dish, food, step)
    else:
        label = f"Wait for the {kind.name}"
        links += [
            link(
                stage,
                "heat_up",
                "preheat",
                label,
                "machine",
                wait,
                note=PREHEAT_NOTE,
                approach=True,
            ),
            link(stage, "under", "transfer", kind.into, "hands", into, approach=True),
        ]
    links += under_fire(stage, dish, step.draws, pull_s, finish)
    if not step.stays_for(stage):
        on = step.more or heat_row(stage.heat).body in step.wanted
        out = "Take out" if on else "Take out, switch off"
        links.append(link(stage, "out", "transfer", out, "hands", step.hands("out", food)))
    after = inside_after(stage, dish, food, step, pull_s)
    lying = None
    if told:
        lying = finish.lying
    elif step.more:
        lying = left_lying(dish, found, step.draws, below, finish.acts, pull_s)
    coats = coats_of(stage, food, step)
    after = replace(after, lying=lying, coats=(), rub=None, on=coats.sauce, placed=True)
    inside = [act.layer for act in stage.acts if act.do == "coat"]
    used = {layer: inside.count(layer) * dish.coat_kg_m2() * dish.surface_m2() for layer in inside}
    late = any(step.is_raw(one) for one in inside)  # it has minutes left there at most
    return Passage(
        replace(after, raw_on=after.raw_on or late),
        tuple(links),
        fire=Fire(
            stage.id,
            stage.heat,
            stage.ends_by,
            dish.want,
            finish,
            milestones,
            film_on(dish, found, below),
            weights,
            pull_s,
            timer_s,
            strip_index(finish, weights),
            coats.count,
            UnderFire(dish, below, finish.acts),
        ),
        warmed=warmed,
        body=row.body,
        dial=dish.kitchen.or_typical(kind.dial),
        sauce_kg=used,
        notes=tuple(f"raw-late:{one}" for one in sorted(set(inside))) if late else (),
    )


def leaving(
    dish: Browning, finish: Finish, read: Milestones, weights: Array, minutes: float | None
) -> tuple[Array, float]:
    """When each member leaves the fire, (members,), and its timer [s]."""
    if minutes is not None:
        return np.full(weights.size, 60.0 * minutes), 60.0 * minutes
    pull = pull_times(finish, wanted_times(finish, MILESTONES.index(dish.want)))
    likely = weighted_quantile(pull.time_s, weights, 0.5)
    return pull.time_s, best_minute_s(read, finish, likely)


def made_ready(stage: Heat, food: Food, step: Step) -> tuple[Food, list[Link]]:
    """Onto its tray or rack, and dry."""
    row = heat_row(stage.heat)
    assert row.fierce is not None
    links: list[Link] = []
    if not food.placed or stage.unforeseen:  # it stands on the tray of another heat
        seconds = step.hands("lift", food)
        links.append(link(stage, "lift", "drain", row.fierce.lift, "hands", seconds))
        food = food.waits(seconds)
    if food.wet:
        seconds = step.hands("blot", food)
        links.append(link(stage, "blot", "blot", "Blot it dry", "hands", seconds))
        food = replace(food.waits(seconds), wet=False)
    return food, links


def in_place(stage: Heat, dish: Browning, food: Food, step: Step) -> list[Link]:
    """What hands do to food that stays: the dial, a turn or a stir before it goes on. All the while
    it may be under the heat.
    """
    row = heat_row(stage.heat)
    done: list[tuple[str, str, Array]] = []
    used = step.kitchen.used.get(row.body)
    if used is not None and used.dial != dish.kitchen.or_typical(dish.kind.dial):
        says = f"Turn the {row.name} to its next setting"
        done.append(("dial", says, step.hands("dial", food)))
    for act in stage.acts:
        if act.do != "coat" and act.at_min == 0.0:
            says = "Turn it" if act.do == "turn" else "Stir it"
            done.append((act.do, says, step.hands("turn", food)))
    return [
        link(stage, key, "turn", says, "hands", seconds, approach=True)
        for key, says, seconds in done
    ]


def awaited(stage: Heat, dish: Browning, step: Step, ready: list[Link]) -> tuple[Array, Warmed]:
    """Wait for the appliance of a fire [s], (members,), and its heating up beside other work: so
    far ahead that nine times in ten it is hot when it is needed; a body that is in use only once it
    is free.
    """
    row = heat_row(stage.heat)
    kind = dish.kind
    doubt = step.draws.factor("preheat", value("spread_preheat"))
    found = found_body(row.body, dish.kitchen.or_typical(kind.dial), row, step)
    preheat = 60.0 * dish.kitchen.drawn(kind.preheat, step.draws) * found.share * doubt
    before = np.sum([one.seconds for one in ready], axis=0) if ready else step.zero()
    could = before if stage.unforeseen else step.kitchen.elapsed_s + before - found.free_s
    ahead = could
    if not found.shared:
        ahead = np.minimum(could, np.quantile(preheat, 0.9))
    wait = worth_waiting(np.maximum(0.0, preheat - ahead))
    label = heating_label(kind.name, row, dish.kitchen.or_typical(kind.dial))
    return wait, Warmed(label, f"{stage.id}.under", preheat, wait, ahead)


def under_fire(
    stage: Heat, dish: Browning, draws: Draws, pull_s: Array, finish: Finish
) -> tuple[Link, ...]:
    """The stretches under the heat and the acts out of it, by the id of this stage."""
    return tuple(
        replace(one, key=f"{stage.id}.{one.key}", fire=stage.id)
        for one in fire_links(dish, draws, pull_s, finish)
    )


def inside_after(stage: Heat, dish: Browning, food: Food, step: Step, seconds: Array) -> Food:
    """The food inside after its time under the fire. Where the slow model knows this heat as well,
    and it ends by the clock, that one speaks; else the surface stands at boiling under its film.
    """
    row = heat_row(stage.heat)
    minutes = stage.until.minutes
    if row.slow is not None and stage.until.by != "colour" and minutes is not None:
        run = run_slow(stage, food, step, 60.0 * minutes)
        return replace(heated(food, run, wet=False), strands=food.strands)
    _, boil = altitude_of(dish, step.draws)
    boil_c = float(boil[0])
    if dish.kind.sides > 1:
        around = Surroundings(H_IN_FIRE, boil_c, boil_c, 0.0, 0.0, True)
        return lain(step.plan, pressed(dish, food, step.draws), step.draws, seconds, around)[0]
    found = cut(step.plan.cut)
    half = 0.5e-3 * dish.thickness_mm  # half of it, and mm to m
    half_m = half * step.draws.factor("thickness", value("spread_thickness"))
    _, profile, sums = in_one(
        heat_one_side,
        food.brought,
        (food.half_m if food.strands else half_m, seconds),
        (
            np.array([60.0 * minute for minute in dish.flips_min]),
            0.0,
            Matter(found.food.enthalpy_j_m3, found.food.k_w_m_k),
            Boundary(H_IN_FIRE, boil_c, 0.0, 0.0, 0.0),
            Boundary(value("h_rest_w_m2_k"), value("kitchen_c"), 0.0, 0.0, 0.0),
            death_of(found, 0.0),
            STAND_STEP_S,
        ),
    )
    return replace(food, brought=Brought(profile, sums, food.brought.since_s + seconds))


def pressed(dish: Browning, food: Food, draws: Draws) -> Food:
    """The food in one layer between two hot plates; strands are as thin as they are."""
    if food.strands:
        return food
    body = dish.body(H_IN_FIRE, "single")
    half_m = body.half_m * draws.factor("thickness", value("spread_thickness"))
    return replace(food, half_m=half_m, power=body.power)
