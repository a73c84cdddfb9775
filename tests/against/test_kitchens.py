"""The timer of a finish against what kitchens do; tests/against/kitchens.py has the rows."""

import pytest
from tests.against.kitchens import ROWS, found_for

ALL_ALONG = 0.9  # as good from the first to the last of their minutes: no timer is the better one
AMID = 1  # the middle of their minutes


@pytest.fixture(scope="module")
def found():
    return {name: found_for(dish, low, high) for name, dish, low, high in ROWS}


@pytest.mark.parametrize(("name", "low", "high"), [(r[0], r[2], r[3]) for r in ROWS])
def test_the_timer_lies_where_kitchens_take_it_out(found, name, low, high):
    one = found[name]
    timely = 0.75 * low <= one.pull_min <= high
    assert timely or min(then.right for then in one.theirs) > ALL_ALONG
    assert one.then.right > one.then.spoilt


def test_little_of_what_kitchens_do_is_told_to_burn(found):
    """They are content with all of these."""
    spoilt = [one.theirs[AMID].spoilt for one in found.values()]
    assert sum(spoilt) < 0.1 * len(spoilt)
    assert max(spoilt) < 1 / 3
