"""Where practitioners disagree: what of it a plan has chosen, and what else it could."""

from __future__ import annotations

from collections.abc import Callable, Iterator

from bluekettle.core.chain.broth import broth
from bluekettle.core.chain.choosing import (
    Choice,
    Patch,
    School,
    add,
    both_ways,
    browns,
    heats,
    is_juice,
    is_oiling,
    is_released,
    last_fire,
    leaves_juice,
    moistens,
    picked,
    remove,
)
from bluekettle.core.chain.forecast import PlanForecast
from bluekettle.core.chain.heats import heat_row
from bluekettle.core.chain.plan import (
    Dress,
    Heat,
    Marinate,
    Plan,
    Season,
    TakeApart,
    Thaw,
    fresh_id,
    ids_of,
)
from bluekettle.core.sauce import CLEAN
from bluekettle.core.stages import RELEASES
from bluekettle.core.tables import Row, rows

MORE_LIQUID = 1.5  # half as much again (design)
MIN_A_KG, FIXED_MIN = 40.0, 30.0  # under pressure, as many books have it (household knowledge)
LOW_C, LOW_MIN = 130.0, 20.0  # a low stretch before the hot one (household knowledge)
POWDER_G = 8.0  # of baking powder and salt on a kilogram of skin (typical, estimated)
POWDER = "baking-powder"  # id of the layer
SUGAR = "sugar"  # id of a layer of it alone
OIL, OIL_IS = "oil", "neutral-oil"  # id of the layer, and what it is
OIL_MM, OIL_G_KG = 0.1, 20.0  # a brushed film, and what is set out for it (typical, estimated)
JUICE, POT_JUICE = "own-juice", "pot-juice"  # id of the layer, and what it is
JUICE_MM, JUICE_G_KG = 0.2, 60.0  # on strands: wet, and nothing runs off (typical, estimated)
Answers = Callable[[PlanForecast], tuple[Choice, ...]]


def schools_of(f: PlanForecast) -> tuple[School, ...]:
    """The questions that this plan answers one way and could answer another, in table order; what
    stands in rounds or in a split is left alone.
    """
    found = []
    for key, answers in SCHOOLS.items():
        choices = answers(f)
        if len(choices) > 1 and sum(one.chosen for one in choices) == 1:
            found.append(School(key, choices))
    return tuple(found)


def school_rows() -> dict[str, Row]:
    """Questions and answers in words, by "question/answer"."""
    return rows("schools")


def bite(f: PlanForecast) -> tuple[Choice, ...]:
    """Of the last heat that runs to a bite."""
    asked = [(i, s) for i, s in heats(f.plan) if s.until.by == "bite" and s.until.bite]
    if not asked:
        return ()
    place, stage = asked[-1]
    options: dict[str, Patch] = {
        key: (add(f"/stages/{place}/until", {"by": "bite", "bite": key}),) for key in f.cut.targets
    }
    return picked(options, stage.until.bite or "")


def release(f: PlanForecast) -> tuple[Choice, ...]:
    """Of the last pressure pot."""
    pots = [(i, s) for i, s in heats(f.plan) if is_released(s)]
    if not pots:
        return ()
    place, stage = pots[-1]
    options: dict[str, Patch] = {key: (add(f"/stages/{place}/release", key),) for key in RELEASES}
    return picked(options, stage.release or f.cut.release)


def sauce(f: PlanForecast) -> tuple[Choice, ...]:
    """When the sauce of the last fire goes on."""
    last = last_fire(f)
    if last is None or any(place > last[0] for place, _ in heats(f.plan)):
        return ()
    place, stage, _ = last
    stages = f.plan.stages
    since = max((i for i, _ in heats(f.plan) if i < place), default=-1)
    before = [i for i in range(since + 1, place) if isinstance(stages[i], Dress)]
    before = [i for i in before if not moistens(f.plan, stages[i])]
    before = [i for i in before if not is_oiling(f.plan, stages[i])]
    after = [i for i in range(place + 1, len(stages)) if isinstance(stages[i], Dress)]
    inside = [act for act in stage.acts if act.do == "coat"]
    layers = [getattr(stages[i], "layer", "") for i in (*before, *after)]
    layers += [act.layer for act in inside]
    if not layers or len(set(layers)) != 1 or len(before) > 1 or len(after) > 1:
        return ()  # several sauces are a plan of the cook's own
    followed = (bool(before), bool(inside), bool(after))
    ways = {
        "before": (True, False, False),
        "coats": (True, True, False),
        "after": (False, False, True),
        "both": (True, False, True),
    }
    if followed not in ways.values():
        return ()
    ids = ids_of(f.plan)
    options = {
        key: tuple(moved(place, stage, layers[0], (before, after), way, ids))
        for key, way in ways.items()
    }
    return picked(options, next(key for key, way in ways.items() if way == followed))


def moved(
    place: int,
    stage: Heat,
    layer: str,
    dressed: tuple[list[int], list[int]],
    way: tuple[bool, bool, bool],
    ids: set[str],
) -> Iterator[dict[str, object]]:
    """Operations, from the last stage to the first, so that none moves another's place."""
    before, after = dressed
    wants_before, wants_inside, wants_after = way
    if wants_after and not after:
        yield add(f"/stages/{place + 1}", dress("sauce-after", layer, stage.coat_mm, ids))
    if after and not wants_after:
        yield remove(f"/stages/{after[0]}")
    acts: list[dict[str, object]] = [
        {"do": act.do, "at_min": act.at_min} for act in stage.acts if act.do != "coat"
    ]
    if wants_inside:
        acts.append({"do": "coat", "at_min": None, "layer": layer})
    yield add(f"/stages/{place}/acts", acts)
    if wants_before and not before:
        yield add(f"/stages/{place}", dress("sauce-before", layer, stage.coat_mm, ids))
    if before and not wants_before:
        yield remove(f"/stages/{before[0]}")


def dress(name: str, layer: str, mm: float, ids: set[str]) -> dict[str, object]:
    """A coat outside any heat, with an id that no other stage has."""
    return {"kind": "dress", "id": fresh_id(name, ids), "layer": layer, "mm": mm}


def frozen(f: PlanForecast) -> tuple[Choice, ...]:
    """Straight into the heat, or thawed first."""
    if f.plan.state != "frozen":
        return ()
    thaws = [i for i, stage in enumerate(f.plan.stages) if isinstance(stage, Thaw)]
    if not thaws:
        thaw = {"kind": "thaw", "id": fresh_id("thaw", ids_of(f.plan)), "where": "fridge"}
        return picked({"straight": (), "fridge": (add("/stages/0", thaw),)}, "straight")
    if thaws != [0] or getattr(f.plan.stages[0], "where", "") != "fridge":
        return ()
    return picked({"straight": (remove("/stages/0"),), "fridge": ()}, "fridge")


def turning(f: PlanForecast) -> tuple[Choice, ...]:
    """Of a fire that heats one side."""
    last = last_fire(f)
    if last is None or last[2].under.dish.kind.sides > 1:
        return ()
    place, stage, fire = last
    if fire.under.below.strands:
        return ()
    turns = [act for act in stage.acts if act.do == "turn"]
    if len(turns) > 1:
        return ()
    kept: list[dict[str, object]] = [
        {"do": act.do, "at_min": act.at_min, **({"layer": act.layer} if act.layer else {})}
        for act in stage.acts
        if act.do != "turn"
    ]
    half = max(1.0, round(fire.timer_s / 60.0) / 2.0)
    turned = sorted(
        [*kept, {"do": "turn", "at_min": half}], key=lambda act: float(str(act["at_min"] or 0.0))
    )
    options: dict[str, Patch] = {
        "never": (add(f"/stages/{place}/acts", kept),),
        "half": (add(f"/stages/{place}/acts", turned),),
    }
    return picked(options, "half" if turns else "never")


def skin(f: PlanForecast) -> tuple[Choice, ...]:
    """Of poultry that goes bare into dry heat at first."""
    first, stage = heats(f.plan)[0] if heats(f.plan) else (0, None)
    if f.cut.species != "poultry" or stage is None or not browns(stage):
        return ()
    on = [i for i in range(first) if isinstance(f.plan.stages[i], Dress | Marinate)]
    oil = [i for i in on if is_oiling(f.plan, f.plan.stages[i])]
    season = next((i for i, s in enumerate(f.plan.stages) if isinstance(s, Season)), None)
    if season is None or season > first or on != oil or len(oil) > 1:
        return ()
    layer = getattr(f.plan.stages[season], "layer", "")
    leavened = bool(layer) and f.plan.layer(layer).leavening
    if layer and not leavened:
        return ()  # a rub of the cook's own
    if leavened and oil:
        return ()  # oil keeps the powder from the skin
    powder = {
        "id": POWDER,
        "name": "baking powder",
        "sauce": None,
        "spice_g": round(POWDER_G * f.plan.mass_kg, 1),
        "leavening": True,
    }
    # One left from an earlier change of mind is taken again.
    left = next((one.id for one in f.plan.layers if one.leavening), None)
    bare: Patch = (
        add(f"/stages/{season}/massaged", False),
        add(f"/stages/{season}/layer", None),
    )
    off: Patch = tuple(remove(f"/stages/{i}") for i in oil)
    options: dict[str, Patch] = {
        "plain": (*bare, *off),
        "leavened": (
            *(() if left else (add("/layers/-", powder),)),
            add(f"/stages/{season}/layer", left or POWDER),
            *off,
        ),
        "oiled": (*bare, *oiling(f, first)),
    }
    return picked(options, "oiled" if oil else "leavened" if leavened else "plain")


def film(f: PlanForecast) -> tuple[Choice, ...]:
    """Of oil on lean food that goes bare into its last fire."""
    last = last_fire(f)
    if last is None or not f.cut.lean or f.cut.species == "poultry":
        return ()
    place, _, fire = last
    if fire.under.dish.sauce is not None or fire.under.below.strands:
        return ()
    since = max((i for i, _ in heats(f.plan) if i < place), default=-1)
    oil = [i for i in range(since + 1, place) if is_oiling(f.plan, f.plan.stages[i])]
    if len(oil) > 1 or fire.under.below.oiled != bool(oil):
        return ()  # oiled for an earlier heat: a plan of the cook's own
    options: dict[str, Patch] = {
        "none": tuple(remove(f"/stages/{i}") for i in oil),
        "oil": oiling(f, place),
    }
    return picked(options, "oil" if oil else "none")


def oiling(f: PlanForecast, place: int) -> Patch:
    """A film of oil before the stage at this place; a layer left from before is taken again."""
    left = next((one.id for one in f.plan.layers if one.sauce is not None and one.sauce.oils), "")
    layer = left or fresh_id(OIL, {one.id for one in f.plan.layers})
    line = {"ingredient": OIL_IS, "mass_g": round(OIL_G_KG * f.plan.mass_kg)}
    sauce = {"name": "oil", "lines": [line], "contact": CLEAN}
    new = () if left else (add("/layers/-", {"id": layer, "name": "oil", "sauce": sauce}),)
    return (*new, add(f"/stages/{place}", dress("oil", layer, OIL_MM, ids_of(f.plan))))


def rub(f: PlanForecast) -> tuple[Choice, ...]:
    """Of the first dry layer; a powder for the skin is dusted on, whatever the school."""
    found = rubbed(f.plan)
    if not found:
        return ()
    place = found[0][0]
    stage = f.plan.stages[place]
    options: dict[str, Patch] = {
        key: (add(f"/stages/{place}/massaged", massaged),)
        for key, massaged in (("patted", False), ("massaged", True))
    }
    massaged = isinstance(stage, Season) and stage.massaged
    return picked(options, "massaged" if massaged else "patted")


def sugar(f: PlanForecast) -> tuple[Choice, ...]:
    """Of a rub that a wet heat washes off before the food goes bare under its only fire."""
    last, own = last_fire(f), heats(f.plan)
    if last is None or len(f.fires) != 1 or last[2].under.dish.sauce is not None:
        return ()
    place, below = last[0], last[2].under.below
    first, since = own[0][0], max((i for i, _ in own if i < place), default=-1)
    sweet = [(i, layer) for i, layer in rubbed(f.plan) if f.plan.layers[layer].sugar_kg_m2 > 0.0]
    if below.strands or since < 0 or len(sweet) != 1:
        return ()
    at, layer = sweet[0]
    grams = round(1e3 * f.plan.layers[layer].sugar_kg_m2 * f.plan.piece().surface_m2(), 1)
    if at < first and below.rub is None and f.plan.layers[layer].spice_kg_m2 > 0.0:
        new = fresh_id(SUGAR, {one.id for one in f.plan.layers})
        patted = {"kind": "season", "id": fresh_id(SUGAR, ids_of(f.plan)), "layer": new}
        last_of_all: Patch = (
            add(f"/layers/{layer}/sugar_g", 0.0),
            add("/layers/-", {"id": new, "name": "sugar", "sugar_g": grams}),
            add(f"/stages/{place}", patted),
        )
        return picked({"with": (), "last": last_of_all}, "with")
    spiced = [one for i, one in rubbed(f.plan) if i < first]
    if at > since and f.plan.layers[layer].spice_kg_m2 == 0.0 and len(spiced) == 1:
        back: Patch = (
            add(f"/layers/{spiced[0]}/sugar_g", grams),
            remove(f"/stages/{at}"),
            remove(f"/layers/{layer}"),
        )
        return picked({"with": back, "last": ()}, "last")
    return ()


def rubbed(plan: Plan) -> list[tuple[int, int]]:
    """Where a dry layer without baking powder is put on, and its place among the layers."""
    places = {layer.id: i for i, layer in enumerate(plan.layers)}
    on = [(i, s.layer) for i, s in enumerate(plan.stages) if isinstance(s, Season) and s.layer]
    return [(i, places[key]) for i, key in on if not plan.layer(key).leavening]


def membrane(f: PlanForecast) -> tuple[Choice, ...]:
    """Of ribs that are bought with it, as they are first salted or rubbed; ice keeps it."""
    found = [(i, s) for i, s in enumerate(f.plan.stages) if isinstance(s, Season)]
    if not found or not f.cut.membrane:
        return ()
    first = found[0][0]
    thawed = any(isinstance(one, Thaw) for one in f.plan.stages[:first])
    if f.plan.state == "frozen" and not thawed:
        return ()
    pulled = [i for i, stage in found if stage.membrane]
    options: dict[str, Patch] = {
        "off": (add(f"/stages/{first}/membrane", True),),
        "left": tuple(add(f"/stages/{place}/membrane", False) for place in pulled),
    }
    return picked(options, "off" if pulled else "left")


def juice(f: PlanForecast) -> tuple[Choice, ...]:
    """Of strands that go bare under a fire, out of a heat that left some of it."""
    stages = f.plan.stages
    pulled = [i for i, s in enumerate(stages) if isinstance(s, TakeApart) and s.how == "shred"]
    fires = {fire.stage for fire in f.fires}
    if not pulled:
        return ()
    shred = pulled[0]
    under = next((i for i, s in heats(f.plan) if i > shred and s.id in fires), None)
    if under is None or not any(i < shred and leaves_juice(s) for i, s in heats(f.plan)):
        return ()
    on = [i for i in range(shred + 1, under) if isinstance(stages[i], Dress)]
    tossed = [i for i in on if moistens(f.plan, stages[i])]
    stage = stages[under]
    coated = isinstance(stage, Heat) and any(act.do == "coat" for act in stage.acts)
    if coated or len(on) > len(tossed) or len(tossed) > 1:
        return ()  # one fire has one sauce
    if tossed:
        return picked({"drained": (remove(f"/stages/{tossed[0]}"),), "tossed": ()}, "tossed")
    # One left from an earlier change of mind is taken again.
    named = [layer for layer in f.plan.layers if layer.id.startswith(JUICE)]
    left = next((layer.id for layer in named if is_juice(layer)), None)
    layer = left or fresh_id(JUICE, {layer.id for layer in named})
    new = () if left else (add("/layers/-", juice_of(f, layer)),)
    toss = {"kind": "dress", "id": fresh_id("juice", ids_of(f.plan)), "how": "toss"}
    put = add(f"/stages/{under}", {**toss, "layer": layer, "mm": JUICE_MM})
    return picked({"drained": (), "tossed": (*new, put)}, "drained")


def juice_of(f: PlanForecast, layer: str) -> dict[str, object]:
    """The layer of this id: what the food was cooked in."""
    line = {"ingredient": POT_JUICE, "mass_g": round(JUICE_G_KG * f.plan.mass_kg)}
    sauce = {"name": "its own juice", "lines": [line], "contact": CLEAN}
    return {"id": layer, "name": "its own juice", "sauce": sauce}


def poultry(f: PlanForecast) -> tuple[Choice, ...]:
    """To the safe minimum, or to where the joint gives."""
    pleasant = f.cut.pleasant_c
    asked = [(i, s) for i, s in heats(f.plan) if s.until.by == "core" and s.until.core_c]
    if pleasant is None or not asked:
        return ()
    place, stage = asked[-1]
    core_c = stage.until.core_c or 0.0
    if core_c < f.cut.safe_c:
        return ()  # no school: the check comes after another heat
    options: dict[str, Patch] = {
        key: (add(f"/stages/{place}/until", {"by": "core", "core_c": to_c}),)
        for key, to_c in (("safe", f.cut.safe_c), ("pleasant", pleasant))
    }
    return picked(options, "pleasant" if core_c >= pleasant else "safe")


def liquid(f: PlanForecast) -> tuple[Choice, ...]:
    """Of the last pressure pot."""
    pots = [(i, s) for i, s in heats(f.plan) if is_released(s)]
    if not pots:
        return ()
    place, stage = pots[-1]
    row = heat_row(stage.heat).slow
    assert row is not None  # a pressure pot has a slow model
    more = round(MORE_LIQUID * row.liquid_l, 2)
    options: dict[str, Patch] = {
        "least": (add(f"/stages/{place}/liquid_l", None),),
        "more": (add(f"/stages/{place}/liquid_l", more),),
    }
    if stage.liquid_l is None:
        return picked(options, "least")
    return picked(options, "more") if stage.liquid_l >= more else ()


def machine(f: PlanForecast) -> tuple[Choice, ...]:
    """Of the last fire that ends by its look; the heats that are rows of the question."""
    last = last_fire(f)
    if last is None or last[1].until.by != "colour":
        return ()
    place, stage, _ = last
    keys = [key.partition("/")[2] for key in school_rows() if key.startswith("machine/")]
    options: dict[str, Patch] = {
        key: (add(f"/stages/{place}/heat", key), add(f"/stages/{place}/dial", None)) for key in keys
    }
    return picked(options, stage.heat)


def steps(f: PlanForecast) -> tuple[Choice, ...]:
    """Of bare food in a heat that can be slow and fierce: at once, or a low stretch before it. Only
    where another heat has cooked it: else the low stretch is what cooks it, and no matter of taste.
    """
    last = last_fire(f)
    if last is None or last[1].acts or last[2].under.dish.coats:
        return ()
    place, stage, fire = last
    if not both_ways(stage) or fire.under.below.strands:
        return ()
    before = f.plan.stages[place - 1] if place else None
    low_first = isinstance(before, Heat) and before.until.by == "minutes" and both_ways(before)
    cooked = any(i < place - low_first for i, _ in heats(f.plan))
    if not cooked or (not low_first and stage.until.by != "colour"):
        return ()
    low: dict[str, object] = {
        "kind": "heat",
        "id": fresh_id("low", ids_of(f.plan)),
        "heat": stage.heat,
        "dial": LOW_C,
        "until": {"by": "minutes", "minutes": LOW_MIN},
    }
    options: dict[str, Patch] = {
        "single": (remove(f"/stages/{place - 1}"),),
        "low_high": (add(f"/stages/{place}", low),),
    }
    return picked(options, "low_high" if low_first else "single")


def timing(f: PlanForecast) -> tuple[Choice, ...]:
    """Of the last pressure pot that ends with a bite."""
    pots = [(i, s) for i, s in heats(f.plan) if is_released(s) and s.until.bite]
    if not pots:
        return ()
    place, stage = pots[-1]
    minutes = {"thickness": None, "weight": round(MIN_A_KG * f.plan.mass_kg), "fixed": FIXED_MIN}
    options: dict[str, Patch] = {
        key: (add(f"/stages/{place}/until/minutes", given),) for key, given in minutes.items()
    }
    own = stage.until.minutes
    followed = next((key for key, given in minutes.items() if given == own), "")
    return picked(options, followed)


def boil(f: PlanForecast) -> tuple[Choice, ...]:
    """Of the sauce that goes on last, where nothing raw touches it."""
    dressed = [s for s in f.plan.stages if isinstance(s, Dress) and not is_oiling(f.plan, s)]
    used = [stage.layer for stage in dressed]
    used += [act.layer for _, stage in heats(f.plan) for act in stage.acts if act.layer]
    if not used:
        return ()
    place = next(i for i, layer in enumerate(f.plan.layers) if layer.id == used[-1])
    layer = f.plan.layers[place]
    marinades = {stage.layer for stage in f.plan.stages if isinstance(stage, Marinate)}
    if layer.dry or layer.contact != CLEAN or layer.id in marinades:
        return ()
    options: dict[str, Patch] = {
        key: (add(f"/layers/{place}/boiled", key == "boiled"),) for key in ("plain", "boiled")
    }
    return picked(options, "boiled" if layer.boiled else "plain")


SCHOOLS: dict[str, Answers] = {
    "bite": bite,
    "sauce": sauce,
    "release": release,
    "frozen": frozen,
    "turning": turning,
    "skin": skin,
    "film": film,
    "rub": rub,
    "sugar": sugar,
    "membrane": membrane,
    "juice": juice,
    "broth": broth,
    "poultry": poultry,
    "liquid": liquid,
    "machine": machine,
    "steps": steps,
    "timing": timing,
    "boil": boil,
}
