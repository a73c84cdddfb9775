"""What is left in the pot: poured off, or simmered down into the sauce while the food waits."""

from __future__ import annotations

import math

from bluekettle.core.chain.choosing import (
    Choice,
    Patch,
    add,
    heats,
    is_juice,
    is_oiling,
    leaves_juice,
    picked,
    remove,
)
from bluekettle.core.chain.forecast import PlanForecast
from bluekettle.core.chain.passage import SlowHeat
from bluekettle.core.chain.plan import (
    Beside,
    Drain,
    Dress,
    Heat,
    Layer,
    Marinate,
    Plan,
    Rounds,
    Split,
    Stage,
    fresh_id,
    ids_of,
    run_through,
)
from bluekettle.core.sauce import (
    CLEAN,
    mix,
    most_gone_kg,
    reduce_to,
    sample_sauce_lines,
    simmer_minutes,
)

BROTH = "broth"  # ids of what the simmering brings into a plan begin so
SYRUP = "reduced-juice"  # what is left of it, an ingredient
SYRUP_WATER = 0.5  # of its mass: it coats a spoon (typical, estimated)
LONGEST_MIN = 90.0  # nobody waits longer for it (estimated)


def broth(f: PlanForecast) -> tuple[Choice, ...]:
    """Of the last heat in liquid, where one clean sauce goes on after it."""
    wet = [(i, stage) for i, stage in heats(f.plan) if leaves_juice(stage)]
    if not wet or f.cut.salted or not f.cut.is_meat:
        return ()  # brine, or water: nothing that thickens a sauce
    pot, stage = wet[-1]
    first = first_sauced(f.plan, pot)
    if first is None:
        return ()
    place, layer = first
    simmers = any(isinstance(one, Beside) and one.id.startswith(BROTH) for one in f.plan.stages)
    if simmers and layer.syrup_line is not None:
        return picked({"poured": poured(f.plan, layer), "reduced": ()}, "reduced")
    if simmers or layer.syrup_line is not None:
        return ()  # half of it is there, or the sauce has such a syrup of its own
    if any(
        is_juice(f.plan.layer(name))
        for one in run_through(f.plan.stages)
        for name in layers_of(one)
    ):
        return ()  # some of it is measured back
    slow = next(one for one in f.slows if one.stage == stage.id)
    found = simmered(f, slow)
    if found is None:
        return ()
    return picked({"poured": (), "reduced": reduced(f.plan, pot, place, *found)}, "poured")


def first_sauced(plan: Plan, pot: int) -> tuple[int, Layer] | None:
    """The stage after the pot that puts a sauce on, and the sauce: one that is in nothing before,
    and that nothing raw has touched.
    """
    before = {name for one in run_through(plan.stages[: pot + 1]) for name in layers_of(one)}
    for place, stage in enumerate(plan.stages[pot + 1 :], start=pot + 1):
        if isinstance(stage, Rounds | Split):
            return None  # what is in there stands where no wait can be put before it
        if isinstance(stage, Dress) and is_oiling(plan, stage):
            continue
        for name in layers_of(stage):
            layer = plan.layer(name)
            if layer.sauce is None or is_juice(layer):
                continue
            fits = layer.contact == CLEAN and name not in before
            return (place, layer) if fits else None
    return None


def layers_of(stage: Stage) -> tuple[str, ...]:
    """The layers that a stage puts on the food."""
    if isinstance(stage, Dress | Marinate):
        return (stage.layer,)
    if isinstance(stage, Heat):
        return tuple(act.layer for act in stage.acts if act.layer)
    return ()


def simmered(f: PlanForecast, slow: SlowHeat) -> tuple[float, float] | None:
    """Minutes until all that the pot holds is a syrup, and how much that is [g]; None where so
    little is in it that the pan would be dry before, or nobody would wait for it.
    """
    juice_kg = f.plan.mass_kg * f.cut.juice_fraction
    whole = mix("broth", [("pot-juice", juice_kg), ("water", slow.liquid_l)])
    left = reduce_to(whole, SYRUP_WATER)
    if whole.mass_kg - left.mass_kg > most_gone_kg(whole):
        return None
    power_w = f.plan.kitchen.or_typical("burner_w")
    minutes = math.ceil(simmer_minutes(whole, left.volume_l, power_w))
    return None if minutes > LONGEST_MIN else (minutes, round(1e3 * left.mass_kg))


def reduced(plan: Plan, pot: int, place: int, minutes: float, grams: float) -> Patch:
    """The food out of the pot and covered, the broth on the stove, what is left in the sauce."""
    ids = ids_of(plan)
    user = plan.stages[place]
    at = next(i for i, one in enumerate(plan.layers) if one.id in layers_of(user) and one.sauce)
    out = any(isinstance(stage, Drain) for stage in plan.stages[pot + 1 : place])
    drain = {"kind": "drain", "id": fresh_id(f"{BROTH}-out", ids)}
    hold = {"kind": "hold", "id": fresh_id(f"{BROTH}-wait", ids), "how": "covered"}
    beside = {"kind": "beside", "id": fresh_id(BROTH, ids), "ready_for": user.id, "hands": False}
    beside |= {"name": "Simmer the broth down; stir towards the end", "minutes": minutes}
    return (
        *syrup(plan, at, grams),
        add(f"/stages/{place}", beside),
        add(f"/stages/{place}", {**hold, "minutes": minutes}),
        *(() if out else (add(f"/stages/{place}", drain),)),
    )


def syrup(plan: Plan, at: int, grams: float) -> Patch:
    """The broth as one more line of the layer at this place; a sample sauce becomes its lines."""
    layer = plan.layers[at]
    line = {"ingredient": SYRUP, "mass_g": grams}
    if not layer.sample:
        return (add(f"/layers/{at}/sauce/lines/-", line),)
    lines = [
        {"ingredient": key, "mass_g": round(1e3 * mass_kg, 1)}
        for key, mass_kg in sample_sauce_lines(layer.sample)
    ]
    assert layer.sauce is not None  # a sample sauce is one
    own = {"name": layer.sauce.name, "lines": [*lines, line], "contact": layer.contact}
    return (add(f"/layers/{at}/sauce", own),)


def poured(plan: Plan, layer: Layer) -> Patch:
    """All of that gone again, from the last stage to the first."""
    at = next(i for i, one in enumerate(plan.layers) if one.id == layer.id)
    brought = [i for i, one in enumerate(plan.stages) if one.id.startswith(BROTH)]
    return (
        *(remove(f"/stages/{i}") for i in reversed(brought)),
        remove(f"/layers/{at}/sauce/lines/{layer.syrup_line}"),
    )
