"""Sauces: mass through mixing, simmering, scaling and splitting; salt; swaps; the contact ledger;
ladders and fit.
"""

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from bluekettle.core.errors import OutOfRange
from bluekettle.core.ingredients import PARTS, ingredient, ingredient_keys, read_lines
from bluekettle.core.sauce import (
    Move,
    allergens_of,
    boil_minutes,
    factor_for_coats,
    factor_for_meat,
    factor_for_short,
    keep_ledger,
    meat_for,
    mix,
    reduce_to,
    salt_of,
    scale,
    shares_of,
    simmer,
    simmer_minutes,
    sources_of,
    thickness_of,
    vary,
)
from bluekettle.core.stages import (
    Inside,
    Kitchen,
    Learnt,
    cut_keys,
    fit_cut,
    ladder,
)
from bluekettle.core.stages.fit import fit_slow
from bluekettle.core.units import percent, render
from tests.one_cook import Dish, forecast

LINES = st.lists(
    st.tuples(st.sampled_from(ingredient_keys()), st.floats(0.001, 2.0)), min_size=1, max_size=20
)
TOMATO = [
    (ingredient(k), m)
    for k, m in (
        ("ketchup", 0.3),
        ("brown-sugar", 0.05),
        ("cider-vinegar", 0.03),
        ("soy-sauce", 0.03),
        ("cayenne", 0.002),
    )
]
GLAZE = mix("glaze", TOMATO)


@pytest.mark.parametrize(
    ("base", "base_kg", "too_little_kg", "enough_kg"),
    [
        ("neutral-oil", 0.13, 0.0032, 0.0038),  # ten spoons, half a teaspoon
        ("soy-sauce", 0.1, 0.004, 0.006),  # a small glass, a scant teaspoon
    ],
)
def test_a_little_honey_browns_and_a_little_less_does_not(base, base_kg, too_little_kg, enough_kg):
    """A teaspoon of honey is 7 g, three quarters of it sugar."""
    made = [mix(base, [(base, base_kg), ("honey", g)]) for g in (too_little_kg, enough_kg)]
    assert [one.caramelises for one in made] == [False, True]


def parts_kg(sauce):
    return np.array([getattr(sauce, part) * sauce.mass_kg for part in PARTS])


@settings(max_examples=60, deadline=None)
@given(LINES, st.floats(0.5, 60.0), st.floats(300.0, 3000.0))
def test_simmering_loses_water_alone_and_two_legs_are_one(lines, minutes, power):
    made = mix("any", lines)
    once = simmer(made, minutes, power)
    before, after = parts_kg(made), parts_kg(once.sauce)
    assert after[1:] == pytest.approx(before[1:], rel=1e-3, abs=1e-9)
    assert before[0] - after[0] == pytest.approx(once.gone_kg, rel=1e-3, abs=1e-9)
    assert once.sauce.mass_kg == pytest.approx(made.mass_kg - once.gone_kg, rel=1e-3)
    if not once.catches:
        halves = simmer(simmer(made, 0.5 * minutes, power).sauce, 0.5 * minutes, power)
        assert halves.sauce.mass_kg == pytest.approx(once.sauce.mass_kg, rel=1e-6)
        if once.gone_kg > 1e-6:
            assert simmer_minutes(made, once.sauce.volume_l, power) == pytest.approx(
                minutes, rel=1e-3
            )


@settings(max_examples=60, deadline=None)
@given(
    LINES,
    st.sampled_from(["rub", "marinade", "braise", "glaze", "table"]),
    st.floats(0.1, 10.0),
    st.floats(0.5, 6.0),
)
def test_scaling_is_smooth_and_monotone_and_splitting_keeps_the_mass(lines, kind, factor, liquid):
    own = [(ingredient(key), mass) for key, mass in lines]
    whole = scale(kind, own, factor, liquid if kind == "braise" else None)
    more = scale(kind, own, factor * 1.01, liquid if kind == "braise" else None)
    for a, b in zip(whole.lines, more.lines, strict=True):
        assert 1.0 - 1e-9 <= b.to_kg / a.to_kg <= 1.0101, "no cliff, and never less for more"
    same = scale(kind, own, 1.0)
    assert [x.to_kg for x in same.lines] == pytest.approx([mass for _, mass in own])
    portions = shares_of(
        min(50.0, whole.mass_kg), [("cook-in", 2.0), ("coat 1", 0.5), ("table", 1.25)]
    )
    assert sum(mass for _, mass in portions) == pytest.approx(min(50.0, whole.mass_kg), rel=1e-9)


def test_each_ingredient_follows_its_own_law():
    braise = [
        (ingredient("beef-stock"), 0.5),
        (ingredient("cloves"), 0.002),
        (ingredient("tomato-paste"), 0.1),
    ]
    twice = {x.ingredient.key: x for x in scale("braise", braise, 2.0, liquid_l=0.6).lines}
    assert twice["tomato-paste"].to_kg == pytest.approx(0.2)
    assert 0.0035 < twice["cloves"].to_kg < 0.004
    assert twice["beef-stock"].to_kg == pytest.approx(0.6 * 1.01), "the pot decides, not the meat"
    assert factor_for_meat(1.5, 2.9 * 0.4536) == pytest.approx(
        factor_for_meat(1.5, 3.0 * 0.4536), rel=0.04
    )
    assert factor_for_coats(0.3, 0.2, 2, 0.6, 0.1) == pytest.approx(1.1 * 0.34 / 0.3)
    assert factor_for_short(0.2, 0.15) == pytest.approx(0.75)
    assert meat_for(4, "hearty", 0.2, 0.2) == pytest.approx(4 * 0.27 / 0.64)
    assert meat_for(4, "light", 0.2, 0.2) < meat_for(4, "ordinary", 0.2, 0.2)


def test_salt_counts_from_every_source_and_a_marinade_gives_up_a_part_of_it():
    salted = salt_of([("rub", 0.012), ("marinade", 0.040), ("glaze", 0.002)], 1.5)
    assert salted.all_share == pytest.approx(0.036)
    assert salted.likely_share == pytest.approx((0.012 + 0.15 * 0.040 + 0.002) / 1.5)
    assert salted.verdict == "as usual"
    assert salt_of([("rub", 0.005)], 1.5).verdict.startswith("under")
    assert salt_of([("rub", 0.05)], 1.5).verdict.startswith("over")


def test_a_sauce_tells_its_thickness_allergens_and_where_it_browns_from():
    assert thickness_of(mix("s", [("stock", 1.0)]), [(ingredient("stock"), 1.0)]) == "thin as stock"
    thickened = [(ingredient("stock"), 1.0), (ingredient("xanthan"), 0.008)]
    assert thickness_of(mix("s", thickened), thickened) == "coats a spoon"
    assert thickness_of(GLAZE, TOMATO) == "coats a spoon"
    assert allergens_of(TOMATO) == {"wheat": ("soy sauce",), "soy": ("soy sauce",)}
    browning = sources_of("browning", TOMATO)
    assert browning[0].key == "ketchup", "a third of brown sugar's mass, but fructose"
    assert sum(s.share for s in browning) == pytest.approx(1.0)
    assert sources_of("salt", TOMATO)[0].key in ("ketchup", "soy-sauce")


@pytest.mark.parametrize(
    "name", ["sugar-free", "less salt", "milder", "without soy", "without wheat"]
)
def test_a_variant_changes_what_it_names_and_says_what(name):
    made = vary(name, TOMATO)
    assert made.changes
    varied = mix(name, made.lines)
    if name == "sugar-free":
        assert not varied.caramelises or varied.sugars < 0.2 * GLAZE.sugars
    elif name == "less salt":
        assert varied.salt < 0.9 * GLAZE.salt
    elif name == "milder":
        assert {i.key: m for i, m in made.lines}["cayenne"] < 0.001
    else:
        assert name.removeprefix("without ") not in allergens_of(made.lines)
    with pytest.raises(OutOfRange, match="variant"):
        vary("louder", TOMATO)


NAMES = ("bowl", "a", "b", "c")
MOVES = st.lists(
    st.builds(
        Move,
        st.sampled_from(["split", "touch", "boil", "pour", "cook", "serve"]),
        st.sampled_from(NAMES),
        st.sampled_from(NAMES),
        st.one_of(st.none(), st.floats(0.0, 0.4)),
    ),
    max_size=14,
)


def feasible(moves):
    """The longest run of the moves that the ledger accepts one by one."""
    taken = []
    for move in moves:
        try:
            keep_ledger(1.0, [*taken, move])
        except OutOfRange:
            continue
        taken.append(move)
    return taken


@settings(max_examples=300, deadline=None)
@given(MOVES)
def test_no_path_leads_a_raw_contact_portion_to_the_plate_without_a_boil(moves):
    taken = feasible(moves)
    ledger = keep_ledger(1.0, taken)
    assert sum(p.mass_kg for p in ledger.portions) + ledger.served_kg == pytest.approx(
        1.0, rel=1e-9
    )
    # An account of its own: which portions hold something raw that has not boiled since.
    tainted, stopped = set(), {s.place for s in ledger.stops}
    for place, move in enumerate(taken):
        if move.kind == "touch":
            tainted.add(move.portion)
        elif move.kind in ("boil", "cook"):
            tainted.discard(move.portion)
        elif (move.kind == "split" and move.portion in tainted) or (
            move.kind == "pour" and move.portion in tainted
        ):
            tainted.add(move.to)
        elif move.kind == "serve":
            assert (place in stopped) == (move.portion in tainted)
    assert all(f.contact != "raw-contact" for f in ledger.flows if f.target == "plate")


def test_a_stop_says_how_long_the_boil_takes_and_the_boil_makes_it_right():
    steps = [
        Move("split", "bowl", "marinade", 0.4),
        Move("touch", "marinade"),
        Move("serve", "marinade"),
    ]
    stop = keep_ledger(0.6, steps).stops[0]
    assert stop.portion == "marinade"
    assert stop.boil_min == pytest.approx(boil_minutes(0.4))
    assert boil_minutes(0.8) > boil_minutes(0.4) > 1.0
    mended = keep_ledger(0.6, [*steps[:2], Move("boil", "marinade"), steps[2]])
    assert mended.stops == ()
    assert mended.served_kg == pytest.approx(0.4)
    again = keep_ledger(
        0.6, [*steps[:2], Move("boil", "marinade"), Move("touch", "marinade"), steps[2]]
    )
    assert len(again.stops) == 1, "a boil before the last contact does not count"
    with pytest.raises(OutOfRange, match=r"moves\.0\.mass_kg"):
        keep_ledger(0.6, [Move("split", "bowl", "x", 0.7)])


def test_a_ladder_goes_up_sooner_with_more_fructose_and_never_without_sugar():
    honey = mix("h", [(ingredient("honey"), 0.2), (ingredient("soy-sauce"), 0.1)])
    sweet = mix(
        "s",
        [
            (ingredient("white-sugar"), 0.17),
            (ingredient("water"), 0.03),
            (ingredient("soy-sauce"), 0.1),
        ],
    )
    for fast, slow in zip(ladder(honey), ladder(sweet), strict=True):
        assert fast.finish == slow.finish
        assert (
            fast.milestones.bands["edge"]["amber"].likely_s
            < slow.milestones.bands["edge"]["amber"].likely_s
        )
    assert not any(
        r.run.caramelises
        for r in ladder(
            mix(
                "p",
                vary(
                    "sugar-free",
                    [(ingredient("white-sugar"), 0.1), (ingredient("wine-vinegar"), 0.1)],
                ).lines,
            )
        )
    )
    with pytest.raises(OutOfRange, match="water"):
        ladder(mix("w", [("stock", 1.0)]))


def test_simmering_a_sugar_free_sauce_makes_no_caramel_of_it_and_a_drop_of_honey_in_oil_is_none():
    bare = mix(
        "p", [("tomato-passata", 0.405), ("polyol-sweetener", 0.084), ("cider-vinegar", 0.03)]
    )
    thick = reduce_to(bare, 0.5)
    assert thick.sugars > 0.03 > bare.sugars
    assert (bare.caramelises, thick.caramelises) == (False, False)
    assert not mix("o", [("olive-oil", 0.1), ("honey", 0.001)]).caramelises
    syrup = mix("s", [("honey", 0.1), ("water", 0.1)])
    assert syrup.caramelises
    assert reduce_to(syrup, 0.2).caramelises


def test_what_calibration_learnt_moves_the_forecast_and_narrows_it():
    ribs = Dish("pork-ribs", 1.4, 4, 26.0, sauce=GLAZE, coats=1)
    plain = forecast(ribs).milestones.bands["face"]["amber"]
    cov = np.diag([0.05, 0.1, 0.1, 0.1]) ** 2
    fierce = Learnt((0.4, 0.0, 0.0, 0.0), tuple(cov.ravel()), 3)
    known = forecast(replace(ribs, kitchen=Kitchen(learnt={"broiler": fierce}))).milestones.bands[
        "face"
    ]["amber"]
    assert known.likely_s < plain.likely_s
    assert known.high_s / known.low_s < 0.75 * plain.high_s / plain.low_s
    other = forecast(replace(ribs, kitchen=Kitchen(learnt={"oven": fierce}))).milestones.bands[
        "face"
    ]["amber"]
    assert other == plain


@settings(max_examples=80, deadline=None)
@given(
    st.sampled_from(cut_keys()),
    st.floats(0.3, 4.0),
    st.integers(1, 12),
    st.sampled_from(["round", "box"]),
    st.floats(0.12, 0.5),
    st.floats(0.12, 0.5),
    st.floats(0.06, 0.3),
    st.booleans(),
)
def test_pieces_lie_inside_without_overlap_and_a_larger_vessel_never_holds_less(
    key, mass, pieces, shape, width, depth, height, touching
):
    inside = Inside(shape, width, depth, height)
    fit = fit_cut(key, mass, pieces, 30.0, inside, touching=touching)
    half_w, half_d = width / 2, (width if shape == "round" else depth) / 2
    for i, a in enumerate(fit.places):
        x, y = abs(a.x_m) + a.width_m / 2, abs(a.y_m) + a.depth_m / 2
        assert x <= half_w + 1e-9
        assert y <= half_d + 1e-9
        assert shape == "box" or x**2 + y**2 <= half_w**2 + 1e-9
        for b in fit.places[:i]:
            clear_x = abs(a.x_m - b.x_m) - (a.width_m + b.width_m) / 2
            clear_y = abs(a.y_m - b.y_m) - (a.depth_m + b.depth_m) / 2
            assert max(clear_x, clear_y) >= -1e-9
    larger = fit_cut(
        key,
        mass,
        pieces,
        30.0,
        replace(inside, width_m=width * 1.2, depth_m=depth * 1.2),
        touching=touching,
    )
    assert larger.per_layer >= fit.per_layer
    assert (fit.batches == 0) == any(v.level == "stop" for v in fit.verdicts)
    if fit.batches:
        assert (
            (fit.batches - 1) * fit.per_layer * fit.layers
            < pieces
            <= fit.batches * fit.per_layer * fit.layers
        )
    # Nobody crisps anything again in a pot.
    helps = [v.repair for v in fit.verdicts if v.about == "batches"]
    assert len(helps) == (fit.batches > 1)
    assert all(("freshens" in one) != touching for one in helps)


def test_a_pot_is_judged_by_its_line_its_least_liquid_and_its_height():
    pot = Inside("round", 0.22, 0.22, 0.15, 5.7, 0.25)
    good = fit_cut("beef-short-ribs", 1.6, 6, 45.0, pot, touching=True, stacked=True, trivet_m=0.02)
    assert good.verdicts[0].level == "fits"
    assert good.fill.liquid_after_l > good.fill.liquid_before_l == 0.25
    full = fit_cut("pork-shoulder", 4.2, 6, 60.0, pot, touching=True, stacked=True)
    assert any(f"line is at {percent(0.67)}" in v.message for v in full.verdicts)
    assert any(
        f"line is at {percent(0.5)}" in v.message
        for v in fit_cut(
            "cauliflower", 3.0, 6, 60.0, pot, touching=True, stacked=True, swells=True
        ).verdicts
    )
    dry = fit_cut("beef-short-ribs", 1.6, 6, 45.0, pot, touching=True, stacked=True, liquid_l=0.1)
    assert any("Add 0.15 L" in render(v.repair) for v in dry.verdicts)
    cup = fit_cut("beef-short-ribs", 1.6, 6, 45.0, pot, touching=True, stacked=True, liquid_l=0.237)
    assert not any(v.level == "stop" for v in cup.verdicts), "a cup stands for a quarter of a litre"
    tall = fit_cut("pork-shoulder", 1.8, 1, 110.0, Inside("box", 0.24, 0.22, 0.09))
    assert tall.batches == 0
    assert "11 cm high" in render(tall.verdicts[0].message)


def test_two_baskets_take_twice_as_much_and_a_trivet_takes_room_only_in_a_pot():
    basket = Inside("box", 0.2, 0.15, 0.09)
    one = fit_cut("beef-short-ribs", 1.6, 6, 45.0, basket)
    two = fit_cut("beef-short-ribs", 1.6, 6, 45.0, replace(basket, zones=2))
    assert one.batches == 2 * two.batches == 2
    assert two.verdicts[0].message == "6 ribs fit in one layer."
    pot = Inside("round", 0.22, 0.22, 0.15, 5.7, 0.25)
    ribs = Dish("beef-short-ribs", 1.6, 6, 45.0)
    free = {
        (heat, gear): fit_slow(
            replace(
                ribs,
                tenderise=heat,
                kitchen=Kitchen(insides={"pot": pot, "slow": pot}, gear=frozenset(gear)),
            ).slow
        ).free_m
        for heat in ("pressure", "slow")
        for gear in ((), ("trivet",))
    }
    assert free["pressure", ()] - free["pressure", ("trivet",)] == pytest.approx(0.02)
    assert free["slow", ()] == free["slow", ("trivet",)] == free["pressure", ()]


def test_racks_stand_on_edge_or_coil_in_a_pot_and_nowhere_else():
    pot = Inside("round", 0.24, 0.24, 0.25, 9.0, 0.25)
    halves = fit_cut("pork-ribs", 1.7, 2, 26.0, pot, touching=True, stacked=True)
    assert halves.verdicts[0].message == "2 portions fit standing on edge."
    assert halves.size_m[2] > 0.1
    whole = fit_cut("pork-ribs", 1.4, 1, 26.0, pot, touching=True, stacked=True)
    assert whole.verdicts[0].message == "1 portion fit coiled, standing on edge."
    stiff = fit_cut("pork-shoulder", 1.6, 1, 26.0, pot, touching=True, stacked=True)
    assert stiff.verdicts[0].level == "stop"
    low = replace(pot, height_m=0.12, volume_l=5.0)
    for refused in (
        fit_cut("pork-ribs", 1.4, 1, 26.0, low, touching=True, stacked=True),
        fit_cut("pork-ribs", 1.4, 1, 26.0, pot),
    ):
        assert refused.batches == 0
        assert refused.verdicts[0].level == "stop"


def read_line(text):
    return read_lines([text])[0]


@pytest.mark.parametrize(
    "text", ["2 tsp curing salt", "5 g nitrite salt", "1 tsp prague powder", "1 tsp saltpetre"]
)
def test_curing_salt_is_never_taken_for_table_salt(text):
    read = read_line(text)
    assert not read.usable
    assert "poisonous" in read.problem
    assert read.suggestions == ()


def test_pink_salt_is_asked_about_and_a_slip_of_the_pen_never_loses_an_allergen():
    assert "write what it is" in read_line("1 tsp pink salt").problem
    assert read_line("1 tsp himalayan pink salt").problem != read_line("1 tsp pink salt").problem
    slip = read_line("2 tbsp worcestershire sauce")
    assert slip.suggestions[0] == "dark spiced vinegar sauce"
    assert slip.suggestions.index("dark vinegar sauce without fish") > 0
    assert read_line("3 tbsp gluten free soy sauce").ingredient is None
    assert read_line("2 tbsp vegan fish sauce").ingredient is None
    assert read_line("2 tbsp fish sauce").ingredient.key == "fish-sauce"
