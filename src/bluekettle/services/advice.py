"""The explorer, advice, rescue and calibration of a dish document; nothing is kept."""

from __future__ import annotations

import numpy as np

from bluekettle.core.advice import REGIONS, advise, explore, last_exits, rescue
from bluekettle.core.calibration import (
    NAMES,
    Belief,
    SignSeen,
    first_belief,
    learn_from,
    predict,
)
from bluekettle.core.glaze import index_to_hex
from bluekettle.core.glaze.milestones import FACE, MAHOGANY, band
from bluekettle.core.stages import LIMITS, cut
from bluekettle.core.stages.finishing import coating_of, heat_of
from bluekettle.schemas.advice import (
    AdvicePublic,
    CalibrationCreate,
    CalibrationPublic,
    ExitPublic,
    ExplorerPublic,
    FactorPublic,
    RescueCreate,
    RescuePublic,
    RescueWay,
    SettingPublic,
)
from bluekettle.schemas.dish import DishDocument
from bluekettle.schemas.forecast import ColourPublic
from bluekettle.services.dishes import dish_of
from bluekettle.services.forecasts import forecast_core, open_band

# Browning index in the middle of each region of the map, for its colour.
REGION_INDEX = (0.0, 0.1, 0.55, 1.4, 3.3, 5.5)
LONGEST_S = 2400.0


def explore_dish(document: DishDocument) -> ExplorerPublic:
    """The map of a dish's glaze over time and heat."""
    dish = dish_of(document)
    forecast = forecast_core(dish, None)
    goal = forecast.milestones.bands["face"][dish.want].likely_s
    time_s = min(LONGEST_S, max(480.0, 60.0 * round((goal or LONGEST_S) * 2.2 / 60.0)))
    found = explore(dish, forecast, time_s)
    raw = forecast.coating.raw_lab
    return ExplorerPublic(
        axis=found.axis,
        unit=LIMITS[found.axis][2],
        heats=[round(float(h), 4) for h in found.heats],
        times_s=[float(t) for t in found.times_s],
        regions=list(REGIONS),
        colours=[
            ColourPublic(word=word, colour=index_to_hex(index, raw))
            for word, index in zip(REGIONS, REGION_INDEX, strict=True)
        ],
        face=found.face.tolist(),
        edge=found.edge.tolist(),
        present=dish.kitchen.or_typical(found.axis),
        pull_s=goal,
    )


def advise_dish(document: DishDocument) -> AdvicePublic:
    """The widest window for a dish, two runners-up and the last exits."""
    dish = dish_of(document)
    forecast = forecast_core(dish, None)
    found = advise(dish, forecast)
    return AdvicePublic(
        now=SettingPublic.model_validate(found.now),
        choice=SettingPublic.model_validate(found.choice),
        runners=[SettingPublic.model_validate(s) for s in found.runners],
        none_safe=found.none_safe,
        exits=[ExitPublic.model_validate(e) for e in last_exits(forecast)],
    )


def rescue_dish(request: RescueCreate) -> RescuePublic:
    """Ways out for a dish under the heat."""
    dish = dish_of(request.dish)
    ways = rescue(dish, forecast_core(dish, None), request.at_s)
    return RescuePublic(ways=[RescueWay.model_validate(w) for w in ways])


def calibrate(request: CalibrationCreate) -> CalibrationPublic:
    """What signs teach about an appliance, a hand and a glaze."""
    dish = dish_of(request.dish)
    heat, coating = heat_of(dish), coating_of(dish, cut(dish.cut))
    before = first_belief(heat.spread)
    seen = [SignSeen(o.sign, o.at_s, o.scout) for o in request.observations]
    after = learn_from(before, heat, coating, seen, another_evening=len(seen) > 1)
    bands = []
    for belief in (before, after):
        finish, factors = predict(belief, heat, coating, 3600.0)
        bands.append(open_band(band(finish.times_s[:, FACE, MAHOGANY], np.ones(len(factors)))))
    return CalibrationPublic(
        before=factors_of(before),
        after=factors_of(after),
        mahogany_before=bands[0],
        mahogany_after=bands[1],
    )


def factors_of(belief: Belief) -> list[FactorPublic]:
    """A belief, name by name."""
    return [
        FactorPublic(
            name=name, factor=round(belief.factor(name), 3), log_sd=round(belief.sd(name), 3)
        )
        for name in NAMES
    ]
