"""From a chain document to the core's plan, and its forecast with clock times."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from datetime import datetime, timedelta
from typing import assert_never

from bluekettle.core import chain as core
from bluekettle.core.advice import taken
from bluekettle.core.errors import Fault, NotConverged, NotSafe, OutOfRange
from bluekettle.core.glaze import Act
from bluekettle.core.safety import USUAL_GUIDANCE, plan_watch_outs
from bluekettle.core.sauce import CLEAN
from bluekettle.core.stages import (
    Band,
    Piece,
    Sighting,
    StepPlan,
    calls_by_clock,
    cut,
    cut_keys,
)
from bluekettle.core.stages.links import Stage as Line
from bluekettle.core.tables import value
from bluekettle.core.units import amount
from bluekettle.schemas import chain as given
from bluekettle.schemas.chain_forecast import (
    ChainFirePublic,
    ChainForecastPublic,
    ChainGatePublic,
    ChainInsidePublic,
    ChainWatchOutPublic,
    JointPublic,
    LayerUsePublic,
    LinkPublic,
    MomentPublic,
    OfferPublic,
    RightPublic,
    SlowHeatPublic,
)
from bluekettle.schemas.cook import ChainFactsDocument
from bluekettle.schemas.dish import SauceDocument
from bluekettle.schemas.forecast import (
    CallPublic,
    FillPublic,
    GlazePublic,
    TendernessPublic,
)
from bluekettle.services.clauses import clauses_of, least_words
from bluekettle.services.dishes import (
    allergens_of_sauce,
    kitchen_of,
    lines_of,
    sauce_from,
    title_of,
)
from bluekettle.services.forecasts import (
    band,
    draws_of,
    serving_faults,
    strip_public,
)
from bluekettle.services.preparation import preparation_of
from bluekettle.services.scenes import facts_of_chain
from bluekettle.services.stage_rows import stage_json
from bluekettle.services.words import assumed_public

MEMORY: core.Memory[core.Known] = core.Memory()  # of this process


def plan_of(document: given.ChainDocument) -> core.Plan:
    """The core's plan.

    Raises OutOfRange with every fault of layers, stages and kitchen, by their fields.
    """
    faults: list[Fault] = []
    layers = []
    for place, layer in enumerate(document.layers):
        try:
            layers.append(layer_of(layer, document))
        except OutOfRange as error:
            faults += [
                Fault(f"layers.{place}.{f.field}", f.given, f.accepted) for f in error.faults
            ]
            layers.append(core.Layer(layer.id, layer.name or layer.id))
    plan = core.Plan(
        document.food.cut,
        document.food.mass_kg,
        document.food.pieces,
        document.food.thickness_mm,
        tuple(stage_of(stage) for stage in document.stages),
        document.food.state,
        tuple(layers),
        kitchen_of(document.kitchen),
        document.seed,
        {
            key: tuple(Sighting(one.sign, one.at_s) for one in seen)
            for key, seen in document.sightings.items()
        },
        instead=tuple(
            core.Instead(one.stage, one.heat, one.had_min, one.acts_done)
            for one in document.instead
        ),
    )
    try:
        plan.check()
    except OutOfRange as error:
        # A layer that could not be read says nothing about the stages that use it.
        faults += [f for f in error.faults if not (faults and f.accepted == "a sauce")]
    if faults:
        raise OutOfRange(faults)
    return core.left_for_others(plan) if plan.instead else plan


def layer_of(layer: given.LayerDocument, document: given.ChainDocument) -> core.Layer:
    """A layer, its sauce mixed or its grams spread over the food."""
    sauce = sauce_from(layer.sauce)
    if sauce is not None:
        own = layer.sauce if isinstance(layer.sauce, SauceDocument) else None
        return core.Layer(
            layer.id,
            layer.name or sauce.name,
            sauce,
            lines_of(layer.sauce),
            own.contact if own else CLEAN,
            layer.boiled,
            sample=layer.sauce if isinstance(layer.sauce, str) else "",
            syrup_line=syrup_line_of(own) if own else None,
        )
    area = surface_of(document.food)
    return core.Layer(
        layer.id,
        layer.name or layer.id,
        sugar_kg_m2=1e-3 * layer.sugar_g / area,
        spice_kg_m2=1e-3 * layer.spice_g / area,
        leavening=layer.leavening,
    )


def syrup_line_of(sauce: SauceDocument) -> int | None:
    """Which of its lines is broth simmered down; None for none."""
    places = (i for i, line in enumerate(sauce.lines) if line.ingredient == core.SYRUP)
    return next(places, None)


def surface_of(food: given.FoodDocument) -> float:
    """Surface that a dry layer is spread over [m²]."""
    if food.cut not in cut_keys():
        return 1.0  # the cut is told as a fault
    return Piece(food.cut, food.mass_kg, food.pieces, food.thickness_mm).surface_m2()


def stage_of(stage: given.AnyStage) -> core.Stage:
    """One stage of the core."""
    match stage:
        case given.ThawDocument():
            return core.Thaw(stage.id, stage.where, stage.hours)
        case given.SeasonDocument():
            return core.Season(
                stage.id, stage.layer or "", stage.sit_min, stage.massaged, stage.membrane
            )
        case given.MarinateDocument():
            return core.Marinate(stage.id, stage.layer, stage.hours)
        case given.HeatDocument():
            return heat_of(stage)
        case given.DrainDocument():
            return core.Drain(stage.id)
        case given.BlotDocument():
            return core.Blot(stage.id)
        case given.RestDocument():
            return core.Rest(stage.id, stage.minutes, stage.covered)
        case given.CoolDocument():
            return core.Cool(stage.id)
        case given.TakeApartDocument():
            return core.TakeApart(stage.id, stage.how, stage.pieces)
        case given.DressDocument():
            return core.Dress(stage.id, stage.layer, stage.how, stage.mm)
        case given.HoldDocument():
            return core.Hold(stage.id, stage.how, stage.minutes)
        case given.WorkBesideDocument():
            return core.Beside(stage.id, stage.name, stage.minutes, stage.ready_for, stage.hands)
        case given.RoundsDocument():
            return core.Rounds(stage.id, stage.times, tuple(map(stage_of, stage.stages)))
        case given.SplitDocument():
            tails = [core.Share(s.share, tuple(map(stage_of, s.stages))) for s in stage.shares]
            return core.Split(stage.id, tuple(tails))
        case _:
            assert_never(stage)


def heat_of(stage: given.HeatDocument) -> core.Heat:
    """One heat of the core."""
    until = stage.until
    return core.Heat(
        stage.id,
        stage.heat,
        core.Until(until.by, until.minutes, until.core_c, until.bite, until.want),
        stage.dial,
        stage.release,
        stage.liquid_l,
        tuple(core.HeatAct(act.do, act.at_min, act.layer or "") for act in stage.acts),
        stage.coat_mm,
        stage.lies,
    )


def forecast_chain(document: given.ChainDocument, now: datetime) -> ChainForecastPublic:
    """Forecast a chain document at a moment; raises as `core_forecast`."""
    return to_public(core_forecast(document, now), document, now)


def begin_chain(
    document: given.ChainDocument, now: datetime
) -> tuple[ChainForecastPublic, tuple[StepPlan, ...], ChainFactsDocument]:
    """The forecast of a chain, the steps of a cook that follows it, and what that cook keeps.

    Raises OutOfRange as `core_forecast`.
    """
    found = core_forecast(document, now)
    answer = to_public(found, document, now)
    return answer, core.plan_steps(found), facts_of_chain(found, document, answer)


def glaze_of(
    document: given.ChainDocument,
    stage: str,
    acts: tuple[Act, ...],
    signs: tuple[tuple[str, float], ...],
    change: tuple[str, float] | None = None,
) -> GlazePublic:
    """The strip of one fire after what was done and seen under it, and the way out that was taken
    at a second.
    """
    found = chain_after(document, stage, acts, signs)
    fire = next(fire for fire in found.fires if fire.stage == stage)
    if change is not None:
        fire = taken(fire, draws_of(found.plan.seed), *change)
    return fire_public(fire, found).glaze


def chain_after(
    document: given.ChainDocument,
    stage: str,
    acts: tuple[Act, ...],
    signs: tuple[tuple[str, float], ...],
) -> core.PlanForecast:
    """The forecast of a chain after what was done and seen under one of its fires."""
    plan = plan_of(document)
    seen = tuple(Sighting(sign, at_s) for sign, at_s in signs)
    told = replace(plan, told={stage: acts}, sightings={**plan.sightings, stage: seen})
    return core.forecast_plan(told, None, draws_of(plan.seed), MEMORY)


def core_forecast(document: given.ChainDocument, now: datetime) -> core.PlanForecast:
    """The core's forecast of a chain document at a moment.

    Raises
    ------
    OutOfRange
        Every field at fault; a heat that does not get there says how far it gets.
    """
    faults = serving_faults(document.serve_at, now)
    plan = None
    try:
        plan = plan_of(document)
    except OutOfRange as error:
        faults = [*error.faults, *faults]
    if plan is None or faults:
        raise OutOfRange(faults)
    available = (document.serve_at - now).total_seconds() if document.serve_at else None
    try:
        found = core.forecast_plan(plan, available, draws_of(plan.seed), MEMORY)
    except NotConverged as error:
        raise OutOfRange([out_of_reach(document, error)]) from error
    except OutOfRange as error:
        raise OutOfRange([at_its_dial(fault, plan) for fault in error.faults]) from error
    return found


def at_its_dial(fault: Fault, plan: core.Plan) -> Fault:
    """A kitchen figure that stands for the dial of a stage, told by the field of that dial: the
    model of long heats goes less far than an appliance.
    """
    name = fault.field.removeprefix("kitchen.")
    for key, path in core.paths(plan.stages).items():
        stage = core.stage_named(plan.stages, key)
        if not isinstance(stage, core.Heat) or stage.dial is None or stage.dial != fault.given:
            continue
        slow = core.heat_row(stage.heat).slow
        if slow is not None and slow.dial == name:
            field = f"{path.lstrip('/').replace('/', '.')}.dial"
            accepted = f"{fault.accepted} for so long; hotter up to an hour, or until a colour"
            return Fault(field, fault.given, accepted)
    return fault


def out_of_reach(document: given.ChainDocument, error: NotConverged) -> Fault:
    """A heat that never does what it is asked for, and how far it gets."""
    ids = [stage.id for stage in document.stages]
    key, _, what = error.what.partition(": ")
    field = f"stages.{ids.index(key)}" if key in ids else "stages"
    if what.startswith("temperature"):
        far = f"{amount(error.reached, '°C')} inside, of {amount(error.wanted, '°C')}"
        far = f"tender, but only {far} to be safe" if isinstance(error, NotSafe) else far
    else:
        far = f"a cook value of {error.reached:.0f} min (how tender), of {error.wanted:.0f}"
    return Fault(field, key, f"what this heat reaches: {far}. Thinner pieces, hotter, or another")


def to_public(
    f: core.PlanForecast, document: given.ChainDocument, now: datetime
) -> ChainForecastPublic:
    """The answer, with clock times back from serving."""
    likely = timedelta(seconds=f.total.likely_s)
    earliest = now + likely
    serve_at = earliest if document.serve_at is None else max(document.serve_at, earliest)
    start_at = serve_at - likely
    allergens, unknown = allergens_in_chain(document)
    warnings = [warning_public(w) for w in plan_watch_outs(f)]
    if document.serve_at is not None and document.serve_at < earliest:
        warnings.insert(0, too_soon(earliest))
    names = {layer.id: layer.name for layer in f.plan.layers}
    return ChainForecastPublic(
        title=title_of(document),
        sentence=clauses_of(f),
        start_at=start_at,
        serve_at=serve_at,
        serve_low_at=start_at + timedelta(seconds=f.total.low_s),
        serve_high_at=start_at + timedelta(seconds=f.total.high_s),
        total=band(f.total),
        headline_s=round(f.headline_s, 1),
        hands_s=round(f.hands.likely_s, 1),
        slack_s=round(f.slack_s, 1),
        least_sure=f.least_sure,
        least_sure_says=least_words(f),
        links=[link_public(line, serve_at) for line in f.links],
        tails=[list(keys) for keys in f.tails],
        slow_heats=[slow_public(slow, f) for slow in f.slows],
        fires=[fire_public(fire, f) for fire in f.fires],
        gates=[ChainGatePublic.model_validate(gate) for gate in f.gates],
        tenderness=None if f.tenderness is None else TendernessPublic.model_validate(f.tenderness),
        inside=ChainInsidePublic.model_validate(f.inside),
        layers=[
            LayerUsePublic(layer=key, name=names[key], grams=round(1e3 * mass, 1))
            for key, mass in f.sauce_kg.items()
        ],
        watch_outs=warnings,
        right=RightPublic(
            all_of_it=round(f.right.all_of_it, 3),
            fires={key: round(share, 3) for key, share in f.right.fires},
            bite=None if f.right.bite is None else round(f.right.bite, 3),
        ),
        course=[moment_public(m) for m in f.course],
        preparation=preparation_of(f),
        allergens=allergens,
        allergens_unknown=unknown,
        crackles_mm=1e3 * value("crackles_m"),
        energy_kwh={key: round(kwh, 2) for key, kwh in core.energy_kwh(f).items()},
        offers=offers_of(f),
        joints={key: JointPublic.model_validate(one) for key, one in core.joints(f).items()},
        assumed=[assumed_public(f.plan.kitchen, name) for name in f.assumed],
        guidance=USUAL_GUIDANCE,
    )


def offers_of(f: core.PlanForecast) -> list[OfferPublic]:
    """What can be put into this plan."""
    found = []
    for key, row in core.stages_to_put(f).items():
        fields = {name: text for name, text in row.items() if name != "text"}
        found.append(OfferPublic(key=key, text=row["text"], stage=stage_json(fields)))
    return found


def link_public(line: Line, serve_at: datetime) -> LinkPublic:
    """One link with its clock time."""
    return LinkPublic(
        key=line.key,
        stage=line.key.rsplit(".", 1)[0] if "." in line.key else "",
        kind=line.kind,
        label=line.label,
        who=line.who,
        hidden=line.hidden,
        serial=line.serial,
        band=band(line.band),
        before_serving=band(line.start),
        starts_at=serve_at - timedelta(seconds=line.start.likely_s),
        note=line.note,
        fire=line.fire,
        act=line.act,
    )


def moment_public(m: core.Moment) -> MomentPublic:
    """One moment along the way."""
    return MomentPublic(
        link=m.link,
        centre_c=round(m.centre_c, 1),
        mean_c=round(m.mean_c, 1),
        cook_min=round(m.cook_min, 2),
        crust_mm=round(1e3 * m.crust_m, 3),
    )


def holds_of(document: given.ChainDocument, stage: str) -> core.Holds:
    """How the bite comes with the hold of a slow heat; MissingData where no bite ends it."""
    return core.holds_in(plan_of(document), stage, MEMORY)


def centres_of(document: given.ChainDocument, stage: str, dial: float | None) -> core.Centres:
    """The middle of the food along one of its slow heats; MissingData where it has no such."""
    return core.centres_in(plan_of(document), stage, dial, MEMORY)


def slow_public(slow: core.SlowHeat, f: core.PlanForecast) -> SlowHeatPublic:
    """A slow heat with its traces."""
    trace = slow.run.trace
    columns = ("time_s", "vessel_c", "centre_c", "mean_c")
    whole = f.cut.food.density_kg_m3 * slow.run.half_m / (slow.run.power + 1.0)
    gained = core.gained_in(f.walk, f.cut, slow.stage)
    lost = float((slow.run.lost_kg_m2 / whole).mean())
    row = core.heat_row(slow.heat)
    liquid = row.slow is not None and row.slow.takes_liquid
    return SlowHeatPublic(
        stage=slow.stage,
        heat=slow.heat,
        name=row.name,
        timer_s=slow.timer_s,
        come_up=band(Band.of(slow.run.come_up_s, f.weights)),
        target_c=round(slow.run.target_c, 2),
        liquid_l=slow.liquid_l if liquid else None,
        fill=None if slow.fill is None else FillPublic.model_validate(slow.fill),
        lost_share=round(lost, 3),
        traces={
            **{name: [round(float(x), 1) for x in trace[:, i]] for i, name in enumerate(columns)},
            "cook_min": [round(float(x), 2) for x in core.cook_along(trace, f.cut, gained)],
        },
    )


def fire_strip(fire: core.Fire, seen: Sequence[Sighting]) -> GlazePublic:
    """The strip of a fire, with the signs that were seen."""
    row = core.heat_row(fire.heat)
    assert row.fierce is not None  # only such a heat is looked at
    return strip_public(
        fire.finish,
        fire.milestones,
        fire.coating,
        fire.strip_index,
        row.fierce.key,
        fire.want,
        fire.coats,
        seen,
        band(Band.of(fire.pull_s, fire.weights)),
    )


def fire_public(fire: core.Fire, f: core.PlanForecast) -> ChainFirePublic:
    """A fire with its strip; one that ends by the clock calls by the clock."""
    glaze = fire_strip(fire, f.plan.sightings.get(fire.stage, ()))
    if fire.by != "colour":
        calls = calls_by_clock(fire.timer_s, fire.finish.acts)
        clock = {"calls": [CallPublic.model_validate(c) for c in calls], "looks_s": []}
        glaze = glaze.model_copy(update=clock)
    return ChainFirePublic(
        stage=fire.stage, heat=fire.heat, by=fire.by, timer_s=fire.timer_s, glaze=glaze
    )


def warning_public(warning: object) -> ChainWatchOutPublic:
    """A warning as it is sent."""
    return ChainWatchOutPublic.model_validate(warning, from_attributes=True)


def too_soon(earliest: datetime) -> ChainWatchOutPublic:
    """Serving is asked for before it can be."""
    rounded = earliest + timedelta(minutes=5)
    moment = rounded.replace(minute=rounded.minute - rounded.minute % 5, second=0, microsecond=0)
    return ChainWatchOutPublic(
        id="too-soon",
        level="stop",
        stage="",
        message="It cannot be on the table by then, even starting now.",
        why="The whole chain takes longer than the time that is left; the times shown start now.",
        source="derived",
        repair=[{"op": "add", "path": "/serve_at", "value": moment.isoformat()}],
        repair_says="Serve as early as it can be",
    )


def allergens_in_chain(document: given.ChainDocument) -> tuple[list[str], list[str]]:
    """Allergens that food and layers bring, and lines of which nobody knows."""
    found = set(cut(document.food.cut).allergens)
    unknown: list[str] = []
    for layer in document.layers:
        brings, silent = allergens_of_sauce(layer.sauce)
        found |= brings
        unknown += silent
    return sorted(found), unknown
