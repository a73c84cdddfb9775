"""Nothing in the model moves unseen: every first heat and finish against the figures on record."""

import json

import pytest

from bluekettle.core.stages import FINISHES, TENDERISE
from tests.core.golden import ADVISED, DISHES, FILE, advice, figures, limits, moved, returns

RECORD = json.loads(FILE.read_text(encoding="utf-8"))


def far(name, told):
    """Figures that are not the recorded ones."""
    assert told.keys() == RECORD[name].keys()
    return {
        key: (was, told[key])
        for key, was in RECORD[name].items()
        if moved(was, told[key], key) > 1.0
    }


@pytest.mark.parametrize("name", DISHES)
def test_a_dish_has_the_figures_on_record(name):
    assert far(name, figures(name) | returns(name)) == {}


@pytest.mark.parametrize("name", ADVISED)
def test_advice_and_effects_are_those_on_record(name):
    assert far(f"advice, {name}", advice(name)) == {}


def test_limits_are_those_on_record():
    assert far("limits", limits()) == {}


def test_the_record_holds_every_first_heat_and_every_finish():
    assert {d.get("tenderise", "pressure") for d in DISHES.values()} == set(TENDERISE)
    assert {d.get("finish", "broiler") for d in DISHES.values()} == set(FINISHES)
