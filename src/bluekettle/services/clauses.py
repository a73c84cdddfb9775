"""The sentence of a chain: one clause for every stage that was chosen."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from bluekettle.core.chain import (
    Beside,
    Blot,
    Cool,
    Drain,
    Dress,
    Heat,
    Hold,
    Marinate,
    PlanForecast,
    Rest,
    Season,
    Stage,
    TakeApart,
    Thaw,
    heat_row,
    stage_named,
)
from bluekettle.core.tables import row
from bluekettle.core.units import amount, percent, span_words
from bluekettle.schemas.chain_forecast import ClausePublic

RELEASED = {
    "quick": "vented at once",
    "mixed": "left a while, then vented",
    "natural": "left until the pressure has fallen",
}
DRESSED = {
    "brush": "brushed with {}",
    "toss": "tossed in {}",
    "dip": "dipped in {}",
    "pour": "{} poured over",
}


def clauses_of(f: PlanForecast) -> list[ClausePublic]:
    """The clauses in order; what inserts itself is in none of them."""
    many = f"{f.plan.pieces} pieces" if f.plan.pieces > 1 else "one piece"
    state = "from frozen" if f.plan.state == "frozen" else "from the fridge"
    opening = f"{amount(f.plan.mass_kg, 'kg')} of {f.cut.name}, {many}, {state}"
    told = [ClausePublic(stage="", text=opening)]
    firsts = tail_words(f)
    for stage in (*(one.stage for one in f.walk.passed), *f.walk.beside):
        text = firsts.get(stage.id, "") + clause(stage, f)
        told.append(ClausePublic(stage=stage.id, text=text))
    return told


def tail_words(f: PlanForecast) -> dict[str, str]:
    """What is said before the first stage of each tail of a split: "half of it ", "the rest "."""
    tails = f.walk.tails
    found = {tail.line[0].stage.id: f"{share_words(tail.share)} of it " for tail in tails[:-1]}
    return found | {tail.line[0].stage.id: "the rest " for tail in tails[-1:]}


PARTS = {2: "half", 3: "a third", 4: "a quarter"}


def share_words(share: float) -> str:
    """ "half", "a third", "a quarter", else per cent."""
    near = (word for parts, word in PARTS.items() if abs(share - 1.0 / parts) < 0.01)
    return next(near, percent(share))


def least_words(f: PlanForecast) -> str:
    """What nobody knows well, of the link with the widest band."""
    link = next(one for one in f.links if one.key == f.least_sure)
    if link.who == "fire":
        return "how fierce your heat is, so I call you early"
    if link.kind == "release" and link.who == "machine":
        return "how slowly your pot cools"
    stage = stage_named(f.plan.stages, link.key.rpartition(".")[0])
    if link.who != "machine" or not isinstance(stage, Heat) or not warms(link.key):
        return link.label
    return f"how fast your {heat_row(stage.heat).warms} heats"


def warms(key: str) -> bool:
    """Whether a link is a heating up."""
    return key.rpartition(".")[2] in ("come_up", "oven_up", "heat_up", "warm_up")


def clause(stage: Stage, f: PlanForecast) -> str:
    """The clause of one stage."""
    return CLAUSES[type(stage)](stage, f)


def heat_clause(stage: Heat, f: PlanForecast) -> str:
    """How, for how long or until when, and what is done in it."""
    heat = heat_row(stage.heat)
    fires = {fire.stage: fire for fire in f.fires}
    looked = stage.id in fires
    part = heat.fierce if looked and heat.fierce is not None else heat.slow or heat.fierce
    said = part.done if part is not None else heat.name
    dial = ""
    if stage.dial is not None and heat.dial_unit in ("°C", "m"):
        far = amount(100.0 * stage.dial, "cm") if heat.dial_unit == "m" else ""
        dial = f" {far} from the element" if far else f" at {amount(stage.dial, '°C')}"
    minutes = stage.until.minutes
    timer = f" for {span_words(60.0 * minutes)}" if minutes else ""
    bite = stage.until.bite and f.cut.bite_words(stage.until.bite)[0]
    ends = {
        "minutes": timer,
        "core": f" until {amount(stage.until.core_c or 0.0, '°C')} inside",
        "bite": f"{timer} until it {bite}",
        "colour": f" until {stage.until.want}",
    }
    inside = f", {' and '.join(done_inside(stage, f))}" if stage.acts else ""
    release = f", {RELEASED[stage.release]}" if stage.release else ""
    lies = f"{row('lying', stage.lies)['text']}, " if stage.lies else ""
    return f"{lies}{said}{dial}{ends[stage.until.by]}{inside}{release}"


def done_inside(stage: Heat, f: PlanForecast) -> list[str]:
    """What is done within a heat: "brushed twice with plum and tea", "turned once"."""
    found = []
    for layer in dict.fromkeys(act.layer for act in stage.acts if act.do == "coat"):
        times = sum(act.layer == layer for act in stage.acts)
        found.append(f"brushed {TIMES[times]} in it with {f.plan.layer(layer).name}")
    for do, said in (("turn", "turned"), ("stir", "stirred")):
        times = sum(act.do == do for act in stage.acts)
        found += [f"{said} {TIMES[times]}"] if times else []
    return found


TIMES = ("never", "once", "twice", *(f"{count} times" for count in range(3, 13)))


def apart_clause(stage: TakeApart, f: PlanForecast) -> str:
    """Shredded, boned or cut."""
    words = {"shred": "pulled into strands", "bones": "taken off the bone"}
    return words.get(stage.how, f"cut into {stage.pieces or f.plan.pieces}")


def named(f: PlanForecast, layer: str) -> str:
    """What a layer is called."""
    return f.plan.layer(layer).name


def thaw_clause(stage: Thaw, f: PlanForecast) -> str:
    """Thawed where."""
    return f"thawed in {'the fridge' if stage.where == 'fridge' else stage.where}"


def season_clause(stage: Season, f: PlanForecast) -> str:
    """Salted, or with what is patted on, and how long it sits."""
    on = "massaged in" if stage.massaged else "patted on"
    said = f"{named(f, stage.layer)} {on}" if stage.layer else "salted"
    own = [link.key for link in f.links if link.key.startswith(f"{stage.id}.")]
    pulled = any(key.endswith(".membrane") for key in own)
    said = f"membrane off, {said}" if pulled else said
    return f"{said}, left {span_words(60.0 * stage.sit_min)}" if stage.sit_min else said


def hold_clause(stage: Hold, f: PlanForecast) -> str:
    """Held how and how long."""
    return f"held {stage.how} for {span_words(60.0 * stage.minutes)}"


def rest_clause(stage: Rest, f: PlanForecast) -> str:
    """Rested how long."""
    under = " covered" if stage.covered else ""
    return f"rested{under} for {span_words(60.0 * stage.minutes)}"


# Every kind of stage has its clause; a test holds that none is missing.
CLAUSES: dict[type[Stage], Callable[[Any, PlanForecast], str]] = {
    Thaw: thaw_clause,
    Season: season_clause,
    Marinate: lambda s, f: f"marinated in {named(f, s.layer)} for {span_words(3600.0 * s.hours)}",
    Heat: heat_clause,
    Drain: lambda s, f: "drained, its juice kept",
    Blot: lambda s, f: "blotted dry",
    Rest: rest_clause,
    Cool: lambda s, f: "cooled until it can be held",
    TakeApart: apart_clause,
    Dress: lambda s, f: DRESSED[s.how].format(named(f, s.layer)),
    Hold: hold_clause,
    Beside: lambda s, f: f"beside it: {s.name[:1].lower()}{s.name[1:]}",
}
