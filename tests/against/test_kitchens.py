"""The timer of a finish against what kitchens do; tests/against/kitchens.py has the rows."""

import pytest
from tests.against.kitchens import OUTSIDE, ROWS, at_pull, told


@pytest.mark.parametrize(
    ("name", "dish", "low", "high"), [r for r in ROWS if not r[0].startswith(OUTSIDE)]
)
def test_the_timer_lies_where_kitchens_take_it_out(name, dish, low, high):
    pull, right, spoilt = at_pull(told(dish))
    assert 0.75 * low <= pull <= high
    assert right > spoilt
