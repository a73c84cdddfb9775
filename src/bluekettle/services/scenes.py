"""The scenes of a chain: the food at every heat, for the words, ways back and strips of a live
cook.
"""

from __future__ import annotations

from collections.abc import Sequence

from bluekettle.core.advice import plan_exits
from bluekettle.core.chain import Dress, Heat, PlanForecast, heat_row
from bluekettle.core.chain.walk import Passed
from bluekettle.core.stages import LIMITS
from bluekettle.schemas.chain import ChainDocument
from bluekettle.schemas.chain_forecast import ChainForecastPublic
from bluekettle.schemas.cook import ChainFactsDocument, ExitFact, FilmDocument, SceneDocument
from bluekettle.schemas.dish import KitchenDocument
from bluekettle.schemas.forecast import SafetyPublic
from bluekettle.schemas.heating import HeatingDocument


def facts_of_chain(
    f: PlanForecast, document: ChainDocument, answer: ChainForecastPublic
) -> ChainFactsDocument:
    """What a cook of this chain keeps of its forecast."""
    proven = next((gate for gate in f.gates if gate.by_time), None)
    return ChainFactsDocument(
        total=answer.total,
        headline_s=answer.headline_s,
        hands_s=answer.hands_s,
        safety=SafetyPublic(
            core_low_c=f.inside.core_low_c,
            core_likely_c=f.inside.core_likely_c,
            wanted_c=f.inside.wanted_c,
            log_low=f.inside.log_low,
            danger_min=f.inside.danger_min,
            gate=f.inside.gate,
            rests_on="time" if proven else "temperature",
            probe_c=proven.safe_c if proven else None,
        ),
        serve_at=answer.serve_at,
        warm_s=f.warm_s,
        allergens=answer.allergens,
        allergens_unknown=answer.allergens_unknown,
        exits={
            fire.stage: [ExitFact.model_validate(one) for one in plan_exits(f, fire.stage)]
            for fire in f.fires
        },
        scenes=scenes_of(f, document, answer),
    )


def scenes_of(
    f: PlanForecast, document: ChainDocument, answer: ChainForecastPublic
) -> dict[str, SceneDocument]:
    """Every heat's scene, by the id of its stage."""
    fires = {fire.stage: fire for fire in answer.fires}
    slows = {slow.stage: slow for slow in answer.slow_heats}
    passed = f.walk.passed
    found = {}
    for place, one in enumerate(passed):
        if not isinstance(one.stage, Heat):
            continue
        stage = one.stage
        fire, slow = fires.get(stage.id), slows.get(stage.id)
        found[stage.id] = SceneDocument(
            heating=heating_at(f, document, passed, place),
            timer_s=slow.timer_s if slow else fire.timer_s if fire else 0.0,
            target_c=slow.target_c if slow else 0.0,
            liquid_l=(slow.liquid_l or 0.0) if slow else 0.0,
            sauce_g=1e3 * sauce_at(passed, place),
            glaze=fire.glaze if fire else None,
            by=fire.by if fire else "",
            film=film_at(f, passed, place),
        )
    return found


def film_at(f: PlanForecast, passed: Sequence[Passed], place: int) -> FilmDocument | None:
    """The first sauce on moist food as a fire begins; None of all else."""
    fire = next((one for one in f.fires if one.stage == passed[place].stage.id), None)
    mm = sum(one.mm for one in dressed(passed, place))
    if fire is None or not mm or not fire.under.below.moist:
        return None
    likely = fire.under.below.median()
    return FilmDocument(
        deep_c=round(float(likely.deep_c), 2), surface_c=round(likely.surface_c, 2), mm=mm
    )


def heating_at(
    f: PlanForecast, document: ChainDocument, passed: Sequence[Passed], place: int
) -> HeatingDocument:
    """The food as it is at one heat, and that heat."""
    stage = passed[place].stage
    assert isinstance(stage, Heat)
    food = passed[place].passage.food
    row = heat_row(stage.heat)
    before = [heat_row(p.stage.heat).slow for p in passed[:place] if isinstance(p.stage, Heat)]
    after = [heat_row(p.stage.heat).fierce for p in passed[place:] if isinstance(p.stage, Heat)]
    slow = row.slow or next((one for one in reversed(before) if one), None)
    fierce = row.fierce or next((one for one in after if one), None)
    coats = coats_at(stage, passed, place)
    sauces = {layer.id: layer.sauce for layer in document.layers}
    sauce = next((sauces[layer] for layer in coats if sauces.get(layer) is not None), None)
    return HeatingDocument(
        cut=document.food.cut,
        mass_kg=food.mass_kg,
        pieces=food.pieces,
        thickness_mm=document.food.thickness_mm,
        state=document.food.state,
        slow=slow.key if slow else None,
        fierce=fierce.key if fierce else None,
        bite=stage.until.bite or next(iter(f.cut.targets)),
        release=stage.release,
        liquid_l=stage.liquid_l,
        sauce=sauce,
        coats=len(coats) if sauce is not None else 0,
        kitchen=kitchen_at(stage, document.kitchen),
    )


def kitchen_at(stage: Heat, kitchen: KitchenDocument) -> KitchenDocument:
    """The kitchen with the dial of a heat where the stage has it."""
    row = heat_row(stage.heat)
    if stage.dial is None:
        return kitchen
    figures = {}
    for part in (row.slow, row.fierce):
        if part is not None:
            low, high, _ = LIMITS[part.dial]
            figures[part.dial] = min(max(stage.dial, low), high)
    return kitchen.model_copy(update=figures)


def sauce_at(passed: Sequence[Passed], place: int) -> float:
    """What is brushed on for a heat [kg]: since the heat before, and in it."""
    found = sum(passed[place].passage.sauce_kg.values())
    for one in reversed(passed[:place]):
        if isinstance(one.stage, Heat):
            break
        if isinstance(one.stage, Dress):
            found += sum(one.passage.sauce_kg.values())
    return found


def coats_at(stage: Heat, passed: Sequence[Passed], place: int) -> list[str]:
    """Layers of the coats of a heat: put on since the heat before, and in it."""
    before = [one.layer for one in dressed(passed, place)]
    return before + [act.layer for act in stage.acts if act.do == "coat"]


def dressed(passed: Sequence[Passed], place: int) -> list[Dress]:
    """What was put on since the heat before, in order."""
    found: list[Dress] = []
    for one in reversed(passed[:place]):
        if isinstance(one.stage, Heat):
            break
        if isinstance(one.stage, Dress):
            found.insert(0, one.stage)
    return found
