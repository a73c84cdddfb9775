"""What stands in for a strip while it is computed: never less than what was seen allows."""

from bluekettle.core.glaze import Act
from bluekettle.services.strips import Seen

SIGNS = (("bubbling", 60.0), ("amber at the edges", 100.0))
ACTS = (Act(30.0),)


def test_a_sign_fewer_stands_in_and_then_another():
    found = Seen(ACTS, SIGNS, "broil").less()
    assert [one.signs for one in found] == [SIGNS[:1], ()]
    assert {(one.acts, one.stage, one.change) for one in found} == {(ACTS, "broil", None)}


def test_a_changed_heat_is_first_itself_with_less_and_then_the_plain_one_with_every_sign():
    """Never the plan, that knows of no sign: it would call later than the eye did."""
    found = Seen(ACTS, SIGNS, "broil", ("calmer", 110.0)).less()
    assert [(one.change, one.signs) for one in found] == [
        (("calmer", 110.0), SIGNS[:1]),
        (("calmer", 110.0), ()),
        (None, SIGNS),
        (None, SIGNS[:1]),
        (None, ()),
    ]
