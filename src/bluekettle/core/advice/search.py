"""The widest pull window over heat, rack, coats and their thickness."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np

from bluekettle.core.glaze import Milestones, draw_members, read_milestones
from bluekettle.core.stages import Dish, Forecast, cut
from bluekettle.core.stages.finishing import run_dish_finish

RACKS_M = (0.08, 0.12, 0.15, 0.20, 0.26, 0.32)
FRYER_C = (160.0, 170.0, 180.0, 190.0, 200.0, 215.0)
COAT_MM = (0.3, 0.5, 0.8)
MEMBERS = 32


@dataclass(frozen=True)
class Setting:
    """One way to finish. width_s: from the median of the wanted colour to 5 % risk [s], below 0 where the window by the
    clock is empty; hit: best chance of a pull by the clock; possible: share in which the colour comes at all before
    burning; change: fields of the dish document that differ; reason: one sentence made from these numbers."""

    finish: str
    rack_m: float
    air_c: float
    coats: int
    coat_mm: float
    width_s: float
    opens_s: float
    hit: float
    possible: float
    change: dict[str, object]
    reason: str


@dataclass(frozen=True)
class Advice:
    """The choice, two runners-up, how the dish stands now, and what to say when nothing is safe."""

    now: Setting
    choice: Setting
    runners: tuple[Setting, ...]
    none_safe: str


def candidates(dish: Dish) -> list[Dish]:
    """Dishes that differ from this one only in how they are finished."""
    found = []
    coats = (1, 2, 3) if dish.sauce is not None else (0,)
    films = [(n, mm) for n in coats for mm in (COAT_MM if n else (dish.coat_mm,))]
    for n, mm in films:
        base = replace(dish, coats=n, coat_mm=mm, sightings=())
        found += [replace(base, finish="broiler", kitchen=replace(dish.kitchen, rack_m=r)) for r in RACKS_M]
        found += [replace(base, finish="air_fryer", kitchen=replace(dish.kitchen, air_fryer_c=t)) for t in FRYER_C]
    return found


def judge(dish: Dish, forecast: Forecast) -> Setting:
    """How wide the pull window of one setting is; the food below is that of the forecast."""
    draws = draw_members(dish.seed, MEMBERS)
    finish = run_dish_finish(dish, cut(dish.cut), draws, np.full(MEMBERS, forecast.deep_c), forecast.surface_c)
    read = read_milestones(finish, np.full(MEMBERS, 1.0 / MEMBERS), dish.want)
    opens, closes = read.window.opens_s, read.window.closes_s
    end = float(finish.sample_s[-1])
    width = (closes if closes is not None else end) - (opens if opens is not None else 2.0 * end)
    return Setting(
        dish.finish, dish.kitchen.or_typical("rack_m"), dish.kitchen.or_typical("air_fryer_c"), dish.coats,
        dish.coat_mm, float(width), opens if opens is not None else end, best_hit(read), read.possible,
        change_of(dish), "",
    )  # fmt: skip


def best_hit(read: Milestones) -> float:
    """Best chance of a pull by the clock."""
    return float(read.wanted.max())


def change_of(dish: Dish) -> dict[str, object]:
    """The fields of a dish document that make this setting."""
    change: dict[str, object] = {"finish": dish.finish, "coats": dish.coats, "coat_mm": dish.coat_mm}
    name = "rack_m" if dish.finish == "broiler" else "air_fryer_c"
    return {**change, "kitchen": {name: getattr(dish.kitchen, name)}}


def describe(setting: Setting) -> str:
    """The setting in words."""
    where = (
        f"{setting.rack_m * 100:.0f} cm below the broiler"
        if setting.finish == "broiler"
        else f"the air fryer at {setting.air_c:.0f} °C"
    )
    film = (
        f", {setting.coats} coat{'' if setting.coats == 1 else 's'} of {setting.coat_mm:g} mm" if setting.coats else ""
    )
    return where + film


def clock(seconds: float) -> str:
    """Minutes and seconds."""
    return f"{int(abs(seconds) // 60)}:{int(abs(seconds) % 60):02d}"


def reason_for(setting: Setting, now: Setting) -> str:
    """One sentence, from the numbers."""

    def window(s: Setting) -> str:
        return (
            f"open for {clock(s.width_s)}"
            if s.width_s > 0
            else f"shut, as burning gets likely {clock(s.width_s)} before the colour does"
        )

    longer = setting.opens_s - now.opens_s
    pace = f"{clock(longer)} {'later' if longer > 0 else 'sooner'}"
    text = describe(setting)
    return (
        f"{text[0].upper()}{text[1:]}: by the clock the window is {window(setting)}, now it is {window(now)}; a pull on "
        f"time is right {setting.hit:.0%} of the time instead of {now.hit:.0%}, and the colour comes {pace}."
    )


def advise(dish: Dish, forecast: Forecast) -> Advice:
    """Search the settings of both appliances for the widest pull window.

    Parameters
    ----------
    dish, forecast : Dish, Forecast
        The dish and its forecast (for the food below the film).

    Returns
    -------
    Advice
        Ordered by the window by the clock; among settings whose colour comes before burning in nine of ten members
        first. The runners-up are the best of the other appliance and the best at another heat of the same one.

    Notes
    -----
    32 members of the same seed for every candidate, so that settings are compared on the same evenings.
    """
    now = judge(replace(dish, sightings=()), forecast)
    judged = [judge(candidate, forecast) for candidate in candidates(dish)]
    ranked = sorted(judged, key=lambda s: (s.possible < 0.9, -s.width_s, s.opens_s))
    ranked = [replace(s, reason=reason_for(s, now)) for s in ranked]
    choice = ranked[0]
    others = [s for s in ranked if s.finish != choice.finish]
    same = [s for s in ranked if s.finish == choice.finish and (s.rack_m, s.air_c) != (choice.rack_m, choice.air_c)]
    runners = (*others[:1], *same[:1])
    none_safe = ""
    if choice.possible < 0.9:
        none_safe = (
            f"No setting here brings the face to {dish.want} before the edges burn in nine of ten evenings; the best does "
            f"in {choice.possible:.0%}. Foil over the edges, a lower wish or a sauce with less sugar would make one."
        )
    return Advice(now, choice, runners, none_safe)
