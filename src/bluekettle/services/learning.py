"""What was seen of an appliance, step by step: the heat it stands for, and the belief after each
sign.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from datetime import datetime
from functools import lru_cache

import numpy as np

from bluekettle.core.calibration import (
    COLOURS,
    Belief,
    CameOut,
    expected_s,
    first_belief,
    learn_from,
    learn_from_colour,
    next_cook,
    predict,
)
from bluekettle.core.calibration import SignSeen as Seen
from bluekettle.core.errors import CoreError, Fault, OutOfRange
from bluekettle.core.glaze import BEFORE, Act, Coating, Heat, bare_film
from bluekettle.core.glaze.milestones import FACE, MAHOGANY, band
from bluekettle.core.sauce import Composition, mix, sample_sauce
from bluekettle.core.stages import (
    Browning,
    Kitchen,
    appliance_kind,
    film_of,
    finish_kind,
    heat_of,
)
from bluekettle.schemas.dish import SauceDocument
from bluekettle.schemas.forecast import OpenBandPublic
from bluekettle.services.dishes import known_of
from bluekettle.services.forecasts import open_band
from bluekettle.store.tables import Appliance, Observation

# A dish's kitchen figure for each column, by type; and the finish that an appliance gives, by kind.
FIGURES = {
    "pot": {"power_w": "pot_power_w", "volume_l": "pot_volume_l", "gauge_kpa": "pot_gauge_kpa"},
    "dish": {"setting_c": "oven_c", "preheat_s": "oven_preheat_min"},
    "broiler": {
        "element_w_m2": "broiler_w_m2",
        "rack_m": "rack_m",
        "preheat_s": "broiler_preheat_min",
    },
    "air_fryer": {"setting_c": "air_fryer_c", "preheat_s": "air_fryer_preheat_min"},
    "oven": {"setting_c": "hot_oven_c", "preheat_s": "hot_oven_preheat_min"},
    "crisping_lid": {"setting_c": "lid_c", "preheat_s": "lid_preheat_min"},
    "grill": {"setting_c": "grill_c", "preheat_s": "grill_preheat_min"},
    "charcoal": {"setting_c": "charcoal_c", "preheat_s": "charcoal_preheat_min"},
    "contact": {"setting_c": "contact_c", "preheat_s": "contact_preheat_min"},
    "bath": {
        "setting_c": "bath_c",
        "power_w": "bath_power_w",
        "volume_l": "bath_volume_l",
        "preheat_s": "bath_preheat_min",
    },
    "smoker": {"setting_c": "smoke_c", "preheat_s": "smoke_preheat_min"},
    "slow": {"power_w": "slow_power_w", "volume_l": "slow_volume_l"},
    "pan": {"volume_l": "pan_volume_l"},
    "burner": {"power_w": "burner_w"},
}
USUAL = {
    "pot": "electric-pot",
    "oven": "hot-oven",
    "air_fryer": "air-fryer",
}  # what a dish assumes, by type
TYPICAL_COLUMN = {"setting_c": "air_c"}
FINISH = {
    "oven-broiler": "broiler",
    "air-fryer": "air_fryer",
    "air-fryer-two": "air_fryer",
    "hot-oven": "oven",
    "fan-oven": "oven",
    "crisping-lid": "crisping_lid",
    "gas-grill": "grill",
    "charcoal-grill": "charcoal",
    "contact-grill": "contact",
}
SAMPLE = "sample"  # a sauce that comes with the product, by its key
MOST_READ = 30  # signs of an appliance: each is an ensemble of its own (numerical)
CAME_OUT = {f"came out {colour}": colour for colour in COLOURS}  # as an observation keeps them
JUST_OUT = Seen("set", 60.0)  # food of which no more is known
RACK_NEAR_M = 0.02  # signs on another rack say less of this one
EVENING_S = 6 * 3600.0
ABSURD = 12.0  # times off what is expected: nobody saw that


def figures_of(appliance: Appliance) -> dict[str, float]:
    """What a dish's kitchen takes from an appliance: stated figures, and what is typical of its
    kind where that differs from what a dish would assume by itself (a fan oven's fan, a stove-top
    pot's pressure)."""
    kind = appliance_kind(appliance.kind)
    usual = appliance_kind(USUAL.get(kind.type, appliance.kind))
    found = {}
    for column, name in FIGURES.get(kind.type, {}).items():
        value = getattr(appliance, column)
        typical = TYPICAL_COLUMN.get(column, column)
        own = getattr(kind, typical, None)
        if value is None and own != getattr(usual, typical, None):
            value = own
        if value is not None:
            found[name] = float(value) / 60.0 if column == "preheat_s" else float(value)
    if appliance.kind == "fan-oven":
        found["hot_oven_h_w_m2_k"] = kind.figure("h_w_m2_k")
    return found


def remembered(seen: Sequence[Observation]) -> list[Observation]:
    """The newest signs that were not forgotten: older ones hardly move a belief any more."""
    return [s for s in seen if s.forgotten_at is None][-MOST_READ:]


def heat_at(kind: str, dial: float, kept: Appliance | None = None) -> Heat:
    """The heat of an appliance at a dial, as its figures say."""
    finish = FINISH[kind]
    figures = figures_of(kept) if kept else {}
    kitchen = Kitchen()
    for name, figure in {**figures, finish_kind(finish).dial: dial}.items():
        kitchen = kitchen.having(name, figure)
    return heat_of(Browning("pork-ribs", 1.4, 4, 26.0, heat=finish, kitchen=kitchen))


def dial_of(kept: Appliance) -> float:
    """Where the dial of an appliance stands: its rack distance [m] or its setting [°C]."""
    name = finish_kind(FINISH[kept.kind]).dial
    stated = figures_of(kept).get(name)
    return Kitchen().or_typical(name) if stated is None else stated


def coating_of(seen: Observation) -> Coating:
    """What lay under the heat."""
    if seen.ground == "bread":
        return bare_film((86.0, 0.0, 14.0))
    sauce: Composition
    if seen.ground == "syrup":
        sauce = mix("syrup", [("white-sugar", 0.7), ("water", 0.3)])
    elif seen.sauce is None:
        sauce = sample_sauce("bottled-sweet")
    elif SAMPLE in seen.sauce:
        sauce = sample_sauce(seen.sauce[SAMPLE])
    else:
        document = SauceDocument.model_validate(seen.sauce)
        own = known_of(document.own)
        sauce = mix(
            document.name,
            [
                (own.get(line.ingredient, line.ingredient), line.mass_g / 1e3)
                for line in document.lines
            ],
        )
    return film_of(sauce, seen.coat_mm * sauce.mass_kg / sauce.volume_l)


def steps_of(kept: Appliance, seen: Sequence[Observation]) -> list[Belief]:
    """The belief before anything was seen and after each sign, in order. Signs at other racks count
    with more doubt.
    """
    return beliefs_of(kept, seen)[0]


def belief_at(kept: Appliance, seen: Sequence[Observation], now: datetime) -> Belief:
    """The belief for a cook that begins now: signs of this evening count in full."""
    beliefs, began = beliefs_of(kept, seen)
    if seen and (now - seen[-1].made_at).total_seconds() > EVENING_S:
        return next_cook(began, beliefs[-1])
    return beliefs[-1]


def beliefs_of(kept: Appliance, seen: Sequence[Observation]) -> tuple[list[Belief], Belief]:
    """The belief before anything was seen and after each sign, and that with which the last evening
    began.
    """
    here = dial_of(kept)
    rack = finish_kind(FINISH[kept.kind]).dial == "rack_m"
    beliefs = [first_belief(heat_at(kept.kind, here, kept).spread)]
    began = beliefs[0]
    last: datetime | None = None
    for one in seen:
        before = beliefs[-1]
        if last is not None and (one.made_at - last).total_seconds() > EVENING_S:
            before = began = next_cook(began, before)
        if rack and abs(one.dial - here) > RACK_NEAR_M:
            # Another rack position has a factor of its own: near, and not the same.
            cov = before.cov.copy()
            cov[0, 0] += 0.10**2
            before = Belief(before.mean, cov, before.seen)
        try:
            beliefs.append(learnt(before, heat_at(kept.kind, one.dial, kept), coating_of(one), one))
        except CoreError:
            # Under figures changed since then it would never show, or its sauce is no more: it
            # teaches nothing now.
            beliefs.append(before)
        last = one.made_at
    return beliefs, began


def believable(kept: Appliance, seen: Sequence[Observation], one: Observation) -> None:
    """Refuse a sign that this heat never shows, or at a time that no appliance of its kind would
    show it.

    Raises OutOfRange for `sign` or `at_s`.
    """
    heat = heat_at(kept.kind, one.dial, kept)
    likely = expected_s(
        steps_of(kept, seen)[-1],
        heat,
        coating_of(one),
        Seen(one.sign, one.at_s, one.ground != "food"),
    )
    if not math.isfinite(likely):
        raise OutOfRange(
            [Fault("sign", one.sign, f"a sign that {one.sauce_name} shows under this heat")]
        )
    low, high = max(1.0, likely / ABSURD), likely * ABSURD
    if not low <= one.at_s <= high:
        raise OutOfRange(
            [
                Fault(
                    "at_s", one.at_s, f"{low:.0f} to {high:.0f} s; about {likely:.0f} s is expected"
                )
            ]
        )


def learnt(before: Belief, heat: Heat, coating: Coating, one: Observation) -> Belief:
    """One step, remembered by its figures: the log shows the same steps again and again."""
    mean, cov, seen = _learn(
        tuple(map(float, before.mean)),
        tuple(map(float, before.cov.ravel())),
        before.seen,
        heat,
        coating,
        one.sign,
        one.at_s,
        one.ground != "food",
        food_of(one),
        acts_of(one),
    )
    return Belief(np.array(mean), np.reshape(cov, (4, 4)), seen)


def food_of(one: Observation) -> tuple[float, float]:
    """The food as it went under, below its surface and on it [°C]: as it just came out, where that
    is not known.
    """
    if one.deep_c is None or one.surface_c is None:
        return JUST_OUT.deep_c, JUST_OUT.surface_c
    return one.deep_c, one.surface_c


def acts_of(one: Observation) -> tuple[Act, ...]:
    """What had been done to the food by then: its first coat, and what came after it."""
    return (BEFORE, *(Act(**act) for act in one.acts or ()))


@lru_cache(maxsize=512)
def _learn(
    mean: tuple[float, ...],
    cov: tuple[float, ...],
    seen: int,
    heat: Heat,
    coating: Coating,
    sign: str,
    at_s: float,
    scout: bool,
    food: tuple[float, float],
    acts: tuple[Act, ...],
) -> tuple[tuple[float, ...], tuple[float, ...], int]:
    before = Belief(np.array(mean), np.reshape(cov, (4, 4)), seen)
    deep_c, surface_c = food
    if sign in CAME_OUT:
        out = CameOut(CAME_OUT[sign], at_s, deep_c, surface_c, acts)
        after = learn_from_colour(before, heat, coating, out)
    else:
        told = Seen(sign, at_s, scout, deep_c, surface_c, acts)
        after = learn_from(before, heat, coating, [told])
    return tuple(map(float, after.mean)), tuple(map(float, after.cov.ravel())), after.seen


def mahogany(kept: Appliance, seen: Sequence[Observation]) -> OpenBandPublic:
    """When a sample glaze's face is mahogany under this appliance, as it is believed now."""
    return mahogany_by(kept, steps_of(kept, seen)[-1])


def mahogany_by(kept: Appliance, belief: Belief) -> OpenBandPublic:
    """The same by a belief."""
    sauce = sample_sauce("bottled-sweet")
    heat, coating = (
        heat_at(kept.kind, dial_of(kept), kept),
        film_of(sauce, 0.5 * sauce.mass_kg / sauce.volume_l),
    )
    finish, factors = predict(belief, heat, coating, 3600.0)
    return open_band(band(finish.times_s[:, FACE, MAHOGANY], np.ones(len(factors))))
