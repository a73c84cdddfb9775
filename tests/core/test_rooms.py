"""The smaller rooms: tables, food, sauce, tenderness, colour, units, calls."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from bluekettle.core import units
from bluekettle.core.errors import MissingData, OutOfRange
from bluekettle.core.glaze import (
    BEFORE,
    Act,
    Coating,
    Heat,
    draw_members,
    index_to_hex,
    index_to_lab,
    read_milestones,
    run_finish,
)
from bluekettle.core.glaze.colour import lab_to_hex
from bluekettle.core.ingredients import ingredient, ingredient_keys
from bluekettle.core.pressure import fill_of, quick_release_s
from bluekettle.core.sauce import mix, reduce_to, sample_sauce, sample_sauce_keys
from bluekettle.core.stages import plan_calls
from bluekettle.core.tables import check_data, constant, row
from bluekettle.core.tenderness import cook_value_min
from bluekettle.core.thermo import food_properties
from bluekettle.core.thermo.food import ice_fraction
from tests.one_cook import Dish


def test_the_data_is_sound_and_a_bad_row_would_be_found(monkeypatch):
    assert check_data() == []
    monkeypatch.setitem(row("cuts", "octopus"), "source", "hearsay")
    assert "hearsay" in check_data()[0]
    monkeypatch.setitem(row("heats", "bath"), "slow_goes_on", "flying")
    assert any("flying" in told for told in check_data())


def test_missing_rows_name_what_is_known():
    with pytest.raises(MissingData, match="octopus"):
        row("cuts", "heron")
    with pytest.raises(MissingData, match="cook_z_c"):
        constant("phlogiston")


def test_lean_meat_has_its_known_properties():
    """ASHRAE Refrigeration, thermal properties of foods: lean beef about 3.5 kJ/kgK and 0.4 to 0.5
    W/mK, frozen near 1.4 to 1.7 W/mK; about 80 % of its water is ice at -10 °C."""
    meat = food_properties({"water": 0.73, "protein": 0.21, "fat": 0.05, "ash": 0.01})
    assert 3300 < meat.specific_heat_j_kg_k(5, 60) < 3700
    assert 0.4 < np.interp(20, meat.temp_c, meat.k_w_m_k) < 0.53
    assert 1.3 < np.interp(-20, meat.temp_c, meat.k_w_m_k) < 1.9
    assert np.all(np.diff(meat.enthalpy_j_m3) > 0)
    assert 0.75 < ice_fraction(1.0, np.array([-10.0]))[0] < 0.95


@given(
    st.lists(
        st.tuples(st.sampled_from(ingredient_keys()), st.floats(0.001, 2.0)),
        min_size=1,
        max_size=12,
    )
)
def test_mixing_conserves_every_part_and_reducing_loses_only_water(lines):
    made = mix("any", [*lines, ("honey", 0.2 * sum(mass for _, mass in lines))])
    lines = [*lines, ("honey", 0.2 * sum(mass for _, mass in lines))]
    for i, part in enumerate(("water", "sucrose", "glucose", "fructose")):
        total = sum(ingredient(key).fractions[i] * mass for key, mass in lines)
        assert getattr(made, part) * made.mass_kg == pytest.approx(total, rel=0.02, abs=1e-6)
    if made.water > 0.2:
        thick = reduce_to(made, 0.8 * made.water)
        assert thick.mass_kg < made.mass_kg
        assert thick.sugars * thick.mass_kg == pytest.approx(made.sugars * made.mass_kg, rel=1e-9)
        assert thick.mass_kg - thick.water * thick.mass_kg == pytest.approx(
            made.mass_kg * (1 - made.water), rel=1e-9
        )


def test_spirits_are_known_in_a_sauce_and_simmer_off_before_its_water():
    laced = mix("laced", [("brandy", 0.05), ("honey", 0.1), ("water", 0.05)])
    assert laced.alcohol == pytest.approx(0.05 * 0.33 / 0.2)
    half = reduce_to(laced, 0.6 * laced.water)
    left = half.alcohol * half.mass_kg / (laced.alcohol * laced.mass_kg)
    water_left = half.water * half.mass_kg / (laced.water * laced.mass_kg)
    assert left == pytest.approx(water_left**2)
    assert mix("plain", [("honey", 0.1), ("water", 0.05)]).alcohol == 0.0


def test_a_seasoned_salt_counts_towards_what_salts_the_meat():
    assert ingredient("seasoned-salt").share("salt") > 0.5
    assert 0.2 < ingredient("salted-rub-blend").share("salt") < 0.5


def test_every_ingredient_adds_up_and_there_are_about_forty():
    assert len(ingredient_keys()) >= 40
    for key in ingredient_keys():
        assert sum(ingredient(key).fractions) == pytest.approx(1.0, abs=0.03), key


def test_the_sample_glazes_are_sweet_enough_to_caramelise():
    assert len(sample_sauce_keys()) == 3
    assert all(sample_sauce(key).caramelises for key in sample_sauce_keys())


def test_water_is_no_sauce_and_every_bad_line_is_named():
    tap = Dish("pork-ribs", 1.4, 4, 26.0, sauce=mix("tap", [("water", 1.0)]), coats=1)
    with pytest.raises(OutOfRange, match="5 %"):
        tap.plan.check()
    with pytest.raises(OutOfRange) as caught:
        mix("odd", [("heron", 1.0), ("honey", -1.0), ("honey", float("nan"))])
    assert [f.field for f in caught.value.faults] == [
        "lines.0.ingredient",
        "lines.1.mass_g",
        "lines.2.mass_g",
    ]


def test_cook_value_counts_minutes_at_100_and_tenfold_at_124():
    time = np.array([0.0, 600.0])
    assert cook_value_min(time, np.array([100.0, 100.0])) == pytest.approx(10.0)
    assert cook_value_min(time, np.array([124.0, 124.0])) == pytest.approx(100.0)
    with pytest.raises(OutOfRange):
        cook_value_min(time, np.array([100.0, np.nan]))


def test_lab_to_srgb_hits_known_colours():
    """CIELAB (D65) of sRGB red, green, blue, mid grey."""
    for lab, code in (
        ((53.24, 80.09, 67.20), "#ff0000"),
        ((87.73, -86.18, 83.18), "#00ff00"),
        ((32.30, 79.19, -107.86), "#0000ff"),
        ((53.59, 0.0, 0.0), "#808080"),
    ):
        ours = [int(lab_to_hex(lab)[i : i + 2], 16) for i in (1, 3, 5)]
        assert ours == pytest.approx([int(code[i : i + 2], 16) for i in (1, 3, 5)], abs=1)


def test_a_glaze_only_gets_darker_and_ends_nearly_black():
    for raw in ((34.0, 24.0, 8.0), (82.0, -1.0, 18.0)):
        light = [index_to_lab(i, raw)[0] for i in np.linspace(0, 6, 61)]
        assert np.all(np.diff(light) <= 1e-9)
        assert light[-1] < 12
    assert index_to_hex(0.0, (100.0, 0.0, 0.0)) == "#ffffff"
    with pytest.raises(OutOfRange):
        index_to_hex(float("nan"), (50.0, 0.0, 0.0))


def test_kitchen_units_convert():
    assert units.c_to_f(100) == 212
    assert units.pounds_to_kg(2.2046226) == pytest.approx(1.0)
    assert units.fingers_to_mm(2) == 36


def test_a_pot_is_judged_by_its_line_and_its_juices():
    fill = fill_of(6.0, 0.3, 1.7, 0.3)
    assert fill.share == pytest.approx(2.0 / 6.0)
    assert fill.liquid_after_l == pytest.approx(0.6)
    assert fill_of(6.0, 0.3, 1.7, 0.3, swells=True).line == 0.5
    assert quick_release_s(2.0, 16.0) == 60.0
    assert quick_release_s(50.0, 16.0) == 180.0
    with pytest.raises(OutOfRange, match=r"volume_l.*juice_l"):
        fill_of(float("nan"), 0.3, 1.7, -1.0)
    with pytest.raises(OutOfRange, match="volume_l"):
        quick_release_s(0.0, 16.0)


def test_calls_start_with_looks_get_closer_and_end_with_out_now():
    coating = Coating(0.5, 0.15, 0.12, 0.15, 0.04, 0.01, 0.01, 0.01, 0.01, 0.6)
    for heat in (
        Heat(12, 220, 220, 2650, 0.35),
        Heat(50, 200, 200, 0, 0.15),
        Heat(12, 300, 300, 9000, 0.35),
    ):
        run = run_finish(
            draw_members(), heat, coating, [BEFORE, Act(120.0, 60.0)], 80.0, 70.0, 1800
        )
        read = read_milestones(run, np.ones(128), "amber")
        calls = plan_calls(read, run.sample_s, run.acts)
        order = ["look", "closer", "full", "out"]
        levels = [order.index(c.level) for c in calls if c.level != "act"]
        assert levels == sorted(set(levels)), "each level calls once"
        assert calls[-1].says == "Out now." or calls[-1].level == "act"
        assert [c.at_s for c in calls] == sorted(c.at_s for c in calls)
        assert [c.at_s for c in calls if c.level == "act"] == [120.0]
        first = next(c for c in calls if c.level in order)
        assert first.at_s <= read.look_from_s + 1e-6
