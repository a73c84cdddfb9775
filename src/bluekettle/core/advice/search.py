"""The widest pull window over appliance, heat or rack, coats, their thickness and minutes, and
turns.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np

from bluekettle.core.glaze import Draws, Milestones, draw_members, read_milestones
from bluekettle.core.stages import LIMITS, Browning, FinishKind, Kitchen, cut, finish_kind
from bluekettle.core.stages.finishing import STEP_S, Below, UnderFire, run_dish_finish
from bluekettle.core.units import amount, percent, span_words, times_in_ten

ALWAYS = ("broiler", "air_fryer", "oven")  # looked at whatever the dish names
DIALS = 6  # steps of each appliance's dial, from gentle to fierce
LATE = (0.3, 0.55, 0.8)  # a first coat at these shares of the time to the colour
TURNS = (0.4, 0.5, 0.6)  # one turn at these shares of it
COAT_MM = (0.3, 0.5, 0.8)  # thin, usual, thick (design)
MEMBERS = 32
FEW = 8  # members of the first, coarse look at every setting
COARSE_S = 4.0  # its step (numerical)
FILMED = 6  # leading settings of each appliance that are tried with other films
FINALISTS = 4  # of each appliance, and of all moments tried: looked at closely


@dataclass(frozen=True)
class Setting:
    """One way to finish. dial: rack distance [m] or air [°C]. width_s: from the median of the
    wanted colour to 5 % risk [s], below 0 where the window by the clock is empty; hit: best chance
    of a pull by the clock; possible: share in which the colour comes at all before burning; reason:
    one sentence made from these numbers.
    """

    finish: str
    dial: float
    coats: int
    coat_mm: float
    coats_min: tuple[float, ...] | None
    flips_min: tuple[float, ...]
    width_s: float
    opens_s: float
    hit: float
    possible: float
    reason: str


Pair = tuple[Setting, Browning]


@dataclass(frozen=True)
class Advice:
    """The choice, two runners-up, how the dish stands now, and what to say when nothing is safe."""

    now: Setting
    choice: Setting
    runners: tuple[Setting, ...]
    none_safe: str


def candidates(dish: Browning, finish: str) -> list[Browning]:
    """Dishes that differ from this one in appliance, its dial, and number of coats; of the usual
    thickness.
    """
    kind = finish_kind(finish)
    base = replace(dish, heat=finish, coats_min=None, flips_min=(), sightings=())
    coats = (1, 2, 3) if dish.sauce is not None else (0,)
    film = COAT_MM[1] if dish.sauce is not None else dish.coat_mm
    return [
        replace(base, coats=n, coat_mm=film, kitchen=dish.kitchen.having(kind.dial, dial))
        for n in coats
        for dial in dials(kind, dish.kitchen)
    ]


def films(dish: Browning) -> list[Browning]:
    """The same setting with thinner and with thicker coats."""
    if dish.sauce is None:
        return []
    return [replace(dish, coat_mm=mm) for mm in COAT_MM if mm != dish.coat_mm]


def leading(pairs: list[Pair]) -> list[Pair]:
    """The best setting of each place of the dial, as far as the best few."""
    best: dict[float, Pair] = {}
    for pair in pairs:
        best.setdefault(pair[0].dial, pair)
    return list(best.values())[:FINALISTS]


def dials(kind: FinishKind, kitchen: Kitchen) -> list[float]:
    """Places of the dial from gentle to fierce: the racks that there are, or steps of 5 °C up to
    its end.
    """
    if kind.dial == "rack_m":
        low, high, _ = LIMITS["rack_m"]
        own = sorted((rack for rack in kitchen.racks_m if low <= rack <= high), reverse=True)
        return own or [
            round(float(rack), 2) for rack in np.linspace(kind.gentle, kind.fierce, DIALS)
        ]
    fierce = max(kind.gentle, min(kind.fierce, kitchen.tops_c.get(kind.key, kind.fierce)))
    return list(
        dict.fromkeys(
            # dials go in steps of 5 °C (typical)
            5.0 * round(float(heat) / 5.0)
            for heat in np.linspace(kind.gentle, fierce, DIALS)
        )
    )


def timed(dish: Browning, opens_s: float) -> list[Browning]:
    """The same setting with a later first coat, and with a turn, at shares of the time to the
    colour [s].
    """

    def minute(share: float) -> float:
        return min(LIMITS["coats_min"][1], max(1.0, round(2.0 * share * opens_s / 60.0) / 2.0))

    turns = (
        [replace(dish, flips_min=(minute(share),)) for share in TURNS]
        if dish.kind.sides == 1
        else []
    )
    if dish.coats != 1:
        return turns
    # One late coat; more of them would only crowd the end.
    return turns + [replace(dish, coats_min=(minute(share),)) for share in LATE]


@dataclass(frozen=True)
class Judge:
    """How closely settings are looked at: for which members, in which step [s]; the food below is
    that of the fire.
    """

    below: Below
    draws: Draws
    step_s: float = STEP_S

    def all(self, dishes: Sequence[Browning]) -> list[Pair]:
        """Every dish with its setting, the best first."""
        pairs = [(judge(dish, self.below, self.draws, self.step_s), dish) for dish in dishes]
        return ranked(pairs)


def ranked(pairs: list[Pair]) -> list[Pair]:
    """Settings with their dishes, the best first."""
    return sorted(pairs, key=lambda pair: order(pair[0]))


def judge(dish: Browning, below: Below, draws: Draws, step_s: float = STEP_S) -> Setting:
    """How wide the pull window of one setting is, over the food of the median evening."""
    members = draws.members
    finish = run_dish_finish(dish, cut(dish.cut), draws, below.alike(members), step_s)
    read = read_milestones(finish, np.full(members, 1.0 / members), dish.want)
    opens, closes = read.window.opens_s, read.window.closes_s
    end = float(finish.sample_s[-1])
    width = (closes if closes is not None else end) - (opens if opens is not None else 2.0 * end)
    return Setting(
        dish.heat,
        dish.kitchen.or_typical(dish.kind.dial),
        dish.coats,
        dish.coat_mm,
        dish.coats_min,
        dish.flips_min,
        float(width),
        opens if opens is not None else end,
        best_hit(read),
        read.possible,
        "",
    )


def best_hit(read: Milestones) -> float:
    """Best chance of a pull by the clock."""
    return float(read.wanted.max())


FILMS = ((0.4, "thin "), (0.75, ""), (9.0, "thick "))  # names of films: up to so many mm (design)


def describe(setting: Setting) -> str:
    """The setting in words."""
    name = finish_kind(setting.finish).name
    where = f"{name} at {amount(setting.dial, '°C')}"
    if finish_kind(setting.finish).dial == "rack_m":
        where = f"{amount(setting.dial * 100.0, 'cm')} below the broiler"
    film = f", {coats_words(setting)}" if setting.coats else ""
    turns = (
        f", turned at {' and '.join(f'{m:g}' for m in setting.flips_min)} min"
        if setting.flips_min
        else ""
    )
    return where + film + turns


def coats_words(setting: Setting) -> str:
    """ "one thin coat", "two coats, the first after 6 min"."""
    many = ("no", "one", "two", "three", "four", "five", "six")[setting.coats]
    thick = next(word for most, word in FILMS if setting.coat_mm <= most)
    text = f"{many} {thick}coat{'' if setting.coats == 1 else 's'}"
    late = setting.coats_min[0] if setting.coats_min else 0.0
    return f"{text}, the first after {late:g} min" if late > 0.0 else text


def window_words(setting: Setting) -> str:
    """How long there is to take it out, or how often the clock alone is right."""
    if setting.width_s > 0.0:
        return f"{span_words(setting.width_s)} to take it out"
    return f"by the clock alone {times_in_ten(setting.hit)}"


def now_words(now: Setting) -> str:
    """The same of the dish as it is, with what is wrong with it."""
    name = finish_kind(now.finish).name
    if now.possible < 0.5:
        return f"Now, with the {name}, the edges burn first."
    return f"Now: {window_words(now)}."


def reason_for(setting: Setting, now: Setting) -> str:
    """Two sentences, from the numbers."""
    text = describe(setting)
    longer = setting.opens_s - now.opens_s
    pace = ""
    if now.possible >= 0.5 and abs(longer) >= 30.0:  # half a minute is worth telling (design)
        pace = f", {span_words(abs(longer))} {'later' if longer > 0.0 else 'sooner'}"
    return f"{text[0].upper()}{text[1:]}: {window_words(setting)}{pace}. {now_words(now)}"


def order(setting: Setting) -> tuple[bool, float, float]:
    """Colour before burning in nine of ten first, then the widest window, then the soonest."""
    return (setting.possible < 0.9, -setting.width_s, setting.opens_s)


def advise(fire: UnderFire) -> Advice:
    """Search appliances, their heat, coats and moments for the widest pull window.

    Parameters
    ----------
    fire : UnderFire
        The dish with its finish, and the food below the film.

    Returns
    -------
    Advice
        Ordered by the window by the clock; among settings whose colour comes before burning in nine
        of ten members first. The runners-up are the best of the other appliance and the best at
        another heat of the same one.

    Notes
    -----
    Every candidate is glanced at with eight members, the leading ones are judged with 32, of the
    same seed, so that settings are compared on the same evenings. Moments (a later first coat, a
    turn) are tried on the leading settings of each appliance. A turn asks for colour on both sides.
    """
    dish, below = fire.dish, fire.below
    closely = Judge(below, draw_members(dish.seed, MEMBERS))
    coarsely = Judge(below, draw_members(dish.seed, FEW), COARSE_S)
    now, _ = closely.all([replace(dish, sightings=())])[0]
    finalists: list[Browning] = []
    moved: list[Browning] = []
    for finish in dict.fromkeys((*ALWAYS, dish.heat)):
        usual = coarsely.all(candidates(dish, finish))
        other_films = [film for _, first in usual[:FILMED] for film in films(first)]
        own = ranked([*usual, *coarsely.all(other_films)])
        finalists += [other for _, other in leading(own)]
        single = [pair for pair in own if pair[1].coats == 1]
        for setting, leader in (*own[:1], *single[:1]):
            moved += timed(leader, setting.opens_s)
    if dish.flips_min:
        # A cook who turns the food wants both sides brown: only settings with a turn can stand for
        # it.
        finalists, moved = [], [other for other in moved if other.flips_min]
    finalists += [other for _, other in coarsely.all(moved)[:FINALISTS]]
    found = [setting for setting, _ in closely.all(finalists)]
    told = [replace(s, reason=reason_for(s, now)) for s in found]
    choice = told[0]
    others = [s for s in told if s.finish != choice.finish]
    same = [s for s in told if s.finish == choice.finish and s.dial != choice.dial]
    runners = (*others[:1], *same[:1])
    none_safe = ""
    if choice.possible < 0.9:
        none_safe = (
            f"No setting here brings the face to {dish.want} before the edges burn in nine of ten"
            f" evenings; the best does in {percent(choice.possible)}. Foil over the edges, a lower"
            " wish or a sauce with less sugar would make one."
        )
    return Advice(now, choice, runners, none_safe)
