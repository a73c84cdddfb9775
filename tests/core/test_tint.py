"""The raw colour of a sauce from its parts: near what the eye gave the sauces that ship, and darker
with what is dark.
"""

import numpy as np
import pytest

from bluekettle.core.errors import MissingData
from bluekettle.core.ingredients import Ingredient, ingredient, ingredient_keys
from bluekettle.core.sauce import (
    colour_of,
    mix,
    sample_sauce,
    sample_sauce_keys,
    sample_sauce_lines,
)
from bluekettle.core.sauce.tint import tint_of


@pytest.mark.parametrize("key", sample_sauce_keys())
def test_a_sauce_that_ships_looks_as_it_was_seen(key):
    made, seen = mix(key, sample_sauce_lines(key)).raw_lab, sample_sauce(key).raw_lab
    assert np.linalg.norm(np.subtract(made, seen)) < 20.0


def test_every_ingredient_has_a_colour_and_an_unknown_group_has_none():
    for key in ingredient_keys():
        assert 0.0 < float(tint_of(ingredient(key))["lab_l"]) <= 100.0
    odd = Ingredient("odd", "odd", (1.0,) + (0.0,) * 8, 1.0, "estimated", "gravel")
    with pytest.raises(MissingData, match="gravel"):
        colour_of([odd], [1.0])


def test_a_spoon_of_soy_darkens_and_a_spoon_of_water_hardly_does_anything():
    def lightness(*lines):
        return mix("x", list(lines)).raw_lab[0]

    honey = ("honey", 0.1)
    assert lightness(honey, ("soy-sauce", 0.015)) < lightness(honey) - 15.0
    assert lightness(honey, ("water", 0.015)) == pytest.approx(lightness(honey), abs=1.0)
    red = mix("red", [("ketchup", 0.1)]).raw_lab
    yellow = mix("yellow", [("mustard", 0.1)]).raw_lab
    assert red[1] > yellow[1] + 20.0
    assert yellow[2] > red[2] + 20.0
