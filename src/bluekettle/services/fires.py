"""What else could be done with one fire of a plan: its map, its advice, its ways out, and what
signs seen under it teach. Nothing is kept.
"""

from __future__ import annotations

from collections.abc import Sequence
from datetime import UTC, datetime
from typing import Any

import numpy as np

from bluekettle.core import chain as core
from bluekettle.core.advice import REGIONS, Setting, advise, explore, plan_exits, rescue
from bluekettle.core.calibration import (
    NAMES,
    Belief,
    SignSeen,
    first_belief,
    learn_from,
    predict,
)
from bluekettle.core.errors import Fault, OutOfRange
from bluekettle.core.glaze import Act, index_to_hex
from bluekettle.core.glaze.milestones import FACE, MAHOGANY, band
from bluekettle.core.stages import LIMITS, cut, finish_kind
from bluekettle.core.stages.finishing import film_on, heat_of
from bluekettle.schemas.advice import (
    AdvicePublic,
    CalibrationCreate,
    CalibrationPublic,
    ExitPublic,
    ExplorerPublic,
    FactorPublic,
    FireCreate,
    RescueCreate,
    RescuePublic,
    RescueWay,
    SettingPublic,
)
from bluekettle.schemas.chain import ChainDocument
from bluekettle.schemas.forecast import ColourPublic
from bluekettle.services.chains import chain_after, core_forecast
from bluekettle.services.forecasts import draws_of, open_band

Json = dict[str, Any]
# Browning index in the middle of each region of the map, for its colour.
REGION_INDEX = (0.0, 0.1, 0.55, 1.4, 3.3, 5.5)
SHORTEST_S, LONGEST_S = 480.0, 3600.0  # of the map
PAST_S = 120.0  # that it goes on after the last coat or turn


def asked_fire(given: FireCreate) -> tuple[core.PlanForecast, core.Fire]:
    """The forecast of a plan whenever it is served, and the fire that is asked about; the last one
    where none is named.

    Raises OutOfRange with every fault of the plan, or for `stage`.
    """
    always = given.chain.model_copy(update={"serve_at": None})
    found = core_forecast(always, datetime.now(UTC))
    fires = {fire.stage: fire for fire in found.fires}
    if not fires:
        raise OutOfRange(
            [Fault("stage", given.stage, "a plan with a fire: nothing is browned here")]
        )
    if given.stage and given.stage not in fires:
        raise OutOfRange([Fault("stage", given.stage, f"the id of a fire: {', '.join(fires)}")])
    return found, fires[given.stage or found.fires[-1].stage]


def explore_fire(given: FireCreate) -> ExplorerPublic:
    """The map of a fire's film over time and heat."""
    _, fire = asked_fire(given)
    dish = fire.under.dish
    goal = fire.milestones.bands["face"][fire.want].likely_s
    minutes = round((goal or 0.0) * 2.2 / 60.0)
    time_s = max(SHORTEST_S, 60.0 * minutes, fire.finish.last_act_s + PAST_S)
    found = explore(fire.under, min(LONGEST_S, time_s))
    return ExplorerPublic(
        stage=fire.stage,
        axis=found.axis,
        unit=LIMITS[found.axis][2],
        heats=[round(float(h), 4) for h in found.heats],
        times_s=[float(t) for t in found.times_s],
        regions=list(REGIONS),
        colours=[
            ColourPublic(word=word, colour=index_to_hex(index, fire.coating.raw_lab))
            for word, index in zip(REGIONS, REGION_INDEX, strict=True)
        ],
        face=found.face.tolist(),
        edge=found.edge.tolist(),
        present=dish.kitchen.or_typical(found.axis),
        pull_s=goal,
    )


def advise_fire(given: FireCreate) -> AdvicePublic:
    """The widest window for a fire, two runners-up and the last exits."""
    forecast, fire = asked_fire(given)
    found = advise(fire.under)

    def public(setting: Setting) -> SettingPublic:
        patch = patch_of(setting, given.chain, forecast, fire)
        return SettingPublic(
            heat=heat_of_finish(setting.finish),
            dial=setting.dial,
            coats=setting.coats,
            coat_mm=setting.coat_mm,
            coats_min=None if setting.coats_min is None else list(setting.coats_min),
            flips_min=list(setting.flips_min),
            width_s=setting.width_s,
            opens_s=setting.opens_s,
            hit=setting.hit,
            possible=setting.possible,
            patch=patch,
            reason=setting.reason,
        )

    return AdvicePublic(
        stage=fire.stage,
        now=public(found.now),
        choice=public(found.choice),
        runners=[public(setting) for setting in found.runners],
        none_safe=found.none_safe,
        exits=[ExitPublic.model_validate(e) for e in plan_exits(forecast, fire.stage)],
    )


def heat_of_finish(finish: str) -> str:
    """The heat whose fierce model is this finish."""
    return heat_row_of(finish).key


def heat_row_of(finish: str) -> core.HeatRow:
    """The row of the heat whose fierce model is this finish."""
    kind = finish_kind(finish)
    rows = (core.heat_row(key) for key in core.fierce_keys())
    return next(row for row in rows if row.fierce is kind)


def patch_of(
    setting: Setting, document: ChainDocument, forecast: core.PlanForecast, fire: core.Fire
) -> list[Json]:
    """What changes in the document for this setting: the heat, its dial and its acts, and whether
    a first coat goes on before it.
    """
    way = core.paths(forecast.plan.stages)[fire.stage]
    *parent, last = way.split("/")
    stages = within(document, parent)
    stage, place = stages[int(last)], int(last)
    own = fire.under.dish.heat
    heat = stage.heat if setting.finish == own else heat_of_finish(setting.finish)
    dressed = coat_before(stages, place)
    first_inside = setting.coats_min is not None and setting.coats_min[0] > 0.0
    before = setting.coats > 0 and not first_inside
    layer = layer_of(stages, place)
    told: dict[str, object] = {
        "heat": heat,
        "dial": setting.dial,
        "coat_mm": setting.coat_mm,
        "acts": acts_of(setting, layer, before, fire.under.below.strands),
    }
    if stage.until.by != "colour":
        told["until"] = {"by": "colour", "want": fire.want}
    patch: list[Json] = [
        {"op": "add", "path": f"{way}/{name}", "value": value} for name, value in told.items()
    ]
    if before and dressed is None:
        fresh = core.fresh_id("brush", core.ids_of(forecast.plan))
        coat = {"kind": "dress", "id": fresh, "layer": layer, "mm": setting.coat_mm}
        patch.append({"op": "add", "path": way, "value": coat})
    elif before:
        path = "/".join([*parent, str(dressed)])
        patch.append({"op": "add", "path": f"{path}/mm", "value": setting.coat_mm})
    elif dressed is not None:
        patch.append({"op": "remove", "path": "/".join([*parent, str(dressed)])})
    return patch


def within(document: ChainDocument, parent: Sequence[str]) -> Sequence[Any]:
    """The list of stages that a JSON Pointer's parts lead to."""
    at: Any = document
    for part in parent[1:]:
        at = at[int(part)] if part.isdigit() else getattr(at, part)
    found: Sequence[Any] = at
    return found


def coat_before(stages: Sequence[Any], place: int) -> int | None:
    """Place of the coat that is put on since the heat before; None where there is none."""
    for at in range(place - 1, -1, -1):
        if stages[at].kind == "heat":
            return None
        if stages[at].kind == "dress":
            return at
    return None


def layer_of(stages: Sequence[Any], place: int) -> str:
    """The layer of this fire's coats; empty where it has none."""
    inside = [act.layer for act in stages[place].acts if act.do == "coat"]
    if inside:
        return str(inside[0])
    dressed = coat_before(stages, place)
    return "" if dressed is None else str(stages[dressed].layer)


def acts_of(setting: Setting, layer: str, before: bool, strands: bool) -> list[Json]:
    """Coats and turns in this fire, in order."""
    moments: list[float | None] = [None] * setting.coats
    if setting.coats_min is not None:
        moments = list(setting.coats_min)
    coats = moments[1:] if before else moments
    acts: list[Json] = [{"do": "coat", "at_min": minute, "layer": layer} for minute in coats]
    turn = "stir" if strands else "turn"
    acts += [{"do": turn, "at_min": minute} for minute in setting.flips_min]
    return sorted(acts, key=lambda act: act["at_min"] or 0.0)


def rescue_fire(given: RescueCreate) -> RescuePublic:
    """Ways out for food under a fire."""
    forecast, fire = asked_fire(given)
    ways = rescue(fire.under, draws_of(forecast.plan.seed), given.at_s)
    return RescuePublic(stage=fire.stage, ways=[RescueWay.model_validate(w) for w in ways])


def rescue_live(
    document_json: str,
    acts: tuple[Act, ...],
    signs: tuple[tuple[str, float], ...],
    stage: str,
    at_s: float,
) -> RescuePublic:
    """Ways out for food that is under this fire now, after all that was done and seen there."""
    found = chain_after(ChainDocument.model_validate_json(document_json), stage, acts, signs)
    fire = next((fire for fire in found.fires if fire.stage == stage), None)
    if fire is None:
        return RescuePublic(stage=stage, ways=[])  # a heat of which nothing is looked at
    ways = rescue(fire.under, draws_of(found.plan.seed), at_s)
    return RescuePublic(stage=stage, ways=[RescueWay.model_validate(w) for w in ways])


def calibrate(given: CalibrationCreate) -> CalibrationPublic:
    """What signs teach about an appliance, a hand and a glaze."""
    _, fire = asked_fire(given)
    dish = fire.under.dish
    heat, coating = heat_of(dish), film_on(dish, cut(dish.cut), fire.under.below)
    before = first_belief(heat.spread)
    seen = [SignSeen(o.sign, o.at_s, o.scout) for o in given.observations]
    after = learn_from(before, heat, coating, seen, another_evening=len(seen) > 1)
    bands = []
    for belief in (before, after):
        finish, factors = predict(belief, heat, coating, 3600.0)
        bands.append(open_band(band(finish.times_s[:, FACE, MAHOGANY], np.ones(len(factors)))))
    return CalibrationPublic(
        stage=fire.stage,
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
