"""Amounts and ingredient lines as people write them, labels, and the table behind them."""

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from bluekettle.core.errors import OutOfRange
from bluekettle.core.ingredients import (
    ALLERGENS,
    GROUPS,
    PARTS,
    Label,
    find,
    from_label,
    ingredient,
    ingredient_keys,
    parse_amount,
    read_line,
    read_lines,
)
from bluekettle.core.sauce import mix
from bluekettle.core.tables import rows

CUP_L, TBSP_L, TSP_L = 0.2365882365, 0.01478676478125, 0.00492892159375  # US customary, exact


@pytest.mark.parametrize(
    ("text", "kind", "low", "high"),
    [
        ("1 3/4 cups", "volume", 1.75 * CUP_L, 1.75 * CUP_L),
        ("½ tsp", "volume", TSP_L / 2, TSP_L / 2),
        ("2-3 tbsp", "volume", 2 * TBSP_L, 3 * TBSP_L),
        ("1½ – 2 cups", "volume", 1.5 * CUP_L, 2 * CUP_L),
        ("200 g", "mass", 0.2, 0.2),
        ("1,5 dl", "volume", 0.15, 0.15),
        ("0.5 l", "volume", 0.5, 0.5),
        ("1,000 g", "mass", 1.0, 1.0),
        ("0,125 l", "volume", 0.125, 0.125),
        ("1,250 kg", "mass", 1.25, 1.25),
        ("12,500 mg", "mass", 0.0125, 0.0125),
        ("1 lb 4 oz", "mass", 0.5669904625, 0.5669904625),
        ("12 fl oz", "volume", 0.35488235475, 0.35488235475),
        ("half a cup", "volume", CUP_L / 2, CUP_L / 2),
        ("one and a half cups", "volume", 1.5 * CUP_L, 1.5 * CUP_L),
        ("a knob", "mass", 0.010, 0.025),
        ("two pinches", "volume", 0.0004, 0.0012),
        ("3", "count", 3, 3),
        ("to taste", "taste", 0.001, 0.01),
    ],
)
def test_an_amount_is_read_as_it_is_written(text, kind, low, high):
    found = parse_amount(text)
    assert found.kind == kind
    assert (found.low, found.high) == (pytest.approx(low, rel=1e-6), pytest.approx(high, rel=1e-6))
    assert found.low <= found.likely <= found.high


@pytest.mark.parametrize(
    "text",
    ["", "soon", "1/0 cup", "-2 cups", "500 kg", "3-2 tbsp", "x" * 300, "2 cups of what", "😀"],
)
def test_what_is_no_amount_is_refused_with_what_is_accepted(text):
    with pytest.raises(OutOfRange) as caught:
        parse_amount(text)
    assert caught.value.faults[0].accepted


@settings(max_examples=60, deadline=None)
@given(
    st.floats(0.01, 4000.0), st.sampled_from(["g", "ml", "tbsp", "cups", "oz", "lb", "kg", "tsp"])
)
def test_an_amount_survives_the_round_trip_through_its_own_unit(number, unit):
    one = parse_amount(f"1 {unit}").likely
    try:
        back = parse_amount(f"{number:.4f} {unit}").likely / one
    except OutOfRange:
        assert number * one > 49.9
        return
    assert back == pytest.approx(number, rel=1e-3, abs=1e-4)


@pytest.mark.parametrize(
    ("line", "key", "grams"),
    [
        ("1 3/4 cups ketchup", "ketchup", 1.75 * CUP_L * 1140),
        ("3 cloves of garlic, crushed", "garlic", 15),
        ("5 cloves", "cloves", 0.5),
        ("ketchup 200 g", "ketchup", 200),
        ("juice of half a lemon", "lemon-juice", 22.5),
        ("2 large onions", "onion", 220),
        ("1 stick cinnamon", "cinnamon", 3),
        ("1 stick of butter", "butter", 113.4),
        ("2 tsp freshly ground black pepper", "black-pepper", 2 * TSP_L * 500),
        ("2 x 400 g tins tomatoes", "tinned-tomato", 800),
        ("1 14-oz can of chopped tomatoes", "tinned-tomato", 396.9),
        ("2 (400 g) jars of anchovies", "anchovy", 800),
        ("2 tomatoes", "tomato", 240),
        ("half a dozen eggs", "egg", 300),
        ("a few eggs", "egg", 150),
        ("2 tbsp honey (from the jar) or sugar", "honey", 2 * TBSP_L * 1420),
        ("100 g smooth dark plum jam", "plum-jam", 100),
        ("a knob of butter", "butter", 15),
        ("2 bay leaves", "bay-leaf", 0.4),
        ("1 tbsp smooth mustard (sharp)", "dijon-type-mustard", TBSP_L * 1070),
    ],
)
def test_a_line_is_read_with_its_ingredient_and_mass(line, key, grams):
    read = read_line(line)
    assert read.problem == ""
    assert read.ingredient.key == key
    assert read.mass_kg.likely * 1e3 == pytest.approx(grams, rel=2e-3)


@pytest.mark.parametrize(
    ("line", "word", "near"),
    [
        ("2 tbsp hony", "hony", "honey"),
        ("2 tbsp honey\n3 tbsp soy sauce", "on its own", None),
        ("2 tbsp honey and soy sauce", "is known", None),
        ("2 frobs of zorgle", "zorgle", None),
        ("honey", "no amount", "100 g honey"),
        ("3 ketchup", "pieces", None),
        ("200 g", "no ingredient", None),
        ("-2 cups honey", "0 or more", None),
        ("x" * 10_000, "10000 characters", None),
        ("😀 2 cups", "😀", None),
        ("1e9 g honey", "is known", "honey"),
        ("999999999999 g honey", "50 kg", None),
    ],
)
def test_a_line_that_cannot_be_read_stays_with_its_reason(line, word, near):
    read = read_line(line)
    assert not read.usable
    assert word in read.problem
    assert len(read.text) <= 200
    assert near is None or near in read.suggestions


@settings(max_examples=150, deadline=None)
@given(st.text(max_size=220))
def test_no_text_at_all_breaks_the_reader(text):
    read = read_line(text)
    assert read.usable or read.problem
    if read.usable:
        assert 0 <= read.mass_kg.low <= read.mass_kg.likely <= read.mass_kg.high <= 50.0 * 1.5


def test_to_taste_is_a_share_of_the_rest_and_too_many_lines_are_refused():
    read = read_lines(["900 g tomato passata", "100 g honey", "salt to taste"])
    assert read[2].mass_kg.likely == pytest.approx(0.004)
    assert read[2].mass_kg.low < read[2].mass_kg.likely < read[2].mass_kg.high
    with pytest.raises(OutOfRange, match="300 lines"):
        read_lines(["1 g honey"] * 500)


def test_the_table_holds_enough_and_every_row_is_whole():
    assert len(ingredient_keys()) >= 150
    for key in ingredient_keys():
        item = ingredient(key)
        assert sum(item.fractions) == pytest.approx(1.0, abs=0.004), key
        assert min(item.fractions) >= 0.0, key
        assert 0.05 <= item.density_kg_l <= 1.6, key
        assert item.group in GROUPS, key
        assert set(item.allergens) <= set(ALLERGENS), key
        assert find(item.name)[0] == key, "found by its own name"
        for alias in item.aliases:
            assert find(alias)[0] == key, (alias, find(alias))


def test_every_swap_takes_away_what_it_is_for():
    for key, line in rows("swaps").items():
        tag = key.split(":")[0]
        old, new = ingredient(line["from"]), ingredient(line["to"])
        if tag == "sugar-free":
            assert new.sugars * float(line["ratio"]) < 0.35 * old.sugars, key
        else:
            assert tag in old.allergens, key
            assert tag not in new.allergens, key


def test_a_spoon_of_dense_coarse_salt_holds_1_7_times_the_flaky_one():
    """The customary figure for two coarse salts (design 5.3)."""
    flaky, dense = (
        read_line(f"1 tbsp {name}").mass_kg.likely
        for name in ("coarse salt flakes", "coarse dense salt")
    )
    assert dense / flaky == pytest.approx(1.7, rel=0.03)


def test_a_ketchup_type_sauce_comes_near_its_label_and_a_label_gives_its_own_figures_back():
    """Usual labels of tomato ketchup: 20 to 25 g of sugars and 1.8 to 3 g of salt in 100 g."""
    ketchup = mix("k", [("ketchup", 0.1)])
    assert 0.20 <= ketchup.sugars <= 0.25
    assert 0.018 <= ketchup.salt <= 0.03
    own = from_label(
        "mine",
        "My bottle",
        Label(30.0, 10.2, 300.0, 0.3, 0.1, 11.5),
        ("brown sugar", "tomato paste", "vinegar", "honey", "smoke"),
    )
    assert own.sugars == pytest.approx(10.2 / 30.0)
    assert own.share("salt") == pytest.approx(0.0254, rel=0.01)
    assert own.share("protein") == pytest.approx(0.01)
    assert sum(own.fractions) == pytest.approx(1.0)
    assert own.share("sucrose") > own.share("fructose") > 0, "brown sugar comes first"
    syrup = from_label("s", "Syrup", Label(30.0, 10.2, 300.0), ("agave syrup", "water"))
    assert syrup.share("fructose") > syrup.share("sucrose")
    assert read_line("2 tbsp my bottle", {"mine": own}).ingredient is own
    assert PARTS[0] == "water"


@pytest.mark.parametrize(
    "label",
    [
        Label(0.0, 1, 1),
        Label(30, 31, 0),
        Label(30, 20, 0, 8, 8),
        Label(30, 1, 1e6),
        Label(float("nan"), 1, 1),
    ],
)
def test_a_label_that_does_not_add_up_is_refused(label):
    with pytest.raises(OutOfRange):
        from_label("x", "x", label)
