"""The ensemble in two halves: the same figures, bit for bit, and every member once."""

import numpy as np
import pytest

from bluekettle.core import halves
from bluekettle.core.chain import forecast_plan
from bluekettle.core.glaze import draw_members
from bluekettle.core.halves import in_halves, joined
from bluekettle.core.sauce import sample_sauce
from bluekettle.core.stages import cut
from bluekettle.core.stages.tenderise import run_tenderise
from bluekettle.core.stages.vessel import CELLS
from bluekettle.schemas.chain import ChainDocument
from bluekettle.services.chains import plan_of
from tests.chain.conftest import TEMPLATES
from tests.one_cook import Dish, forecast

GLAZE = sample_sauce("plum-tea")
VESSEL = Dish("beef-short-ribs", 1.6, 6, 45.0, sauce=GLAZE, coats=2)
AIR = Dish("pork-shoulder", 2.0, 1, 90.0, tenderise="smoke", finish="oven", sauce=GLAZE, coats=1)


@pytest.mark.parametrize("members", [1, 31, 32, 33, 256])
def test_every_member_is_run_once_and_in_order(members: int, monkeypatch) -> None:
    monkeypatch.setattr(halves, "CORES", 2)
    asked: list[slice] = []

    def run(part: slice) -> tuple[np.ndarray]:
        asked.append(part)
        return (np.arange(members)[part],)

    assert list(joined(in_halves(members, run), 0)) == list(range(members))
    assert len(asked) == (2 if members >= halves.FEWEST else 1)


def test_a_fault_in_the_second_half_is_not_lost(monkeypatch) -> None:
    monkeypatch.setattr(halves, "CORES", 2)

    def run(part: slice) -> tuple[np.ndarray]:
        if part.start:
            raise ZeroDivisionError
        return (np.zeros(1),)

    with pytest.raises(ZeroDivisionError):
        in_halves(64, run)


@pytest.mark.parametrize("dish", [VESSEL, AIR], ids=["vessel", "air"])
def test_two_cores_give_the_figures_of_one(dish: Dish, monkeypatch) -> None:
    found = []
    for cores in (1, 2):
        monkeypatch.setattr(halves, "CORES", cores)
        run = run_tenderise(dish.slow, cut(dish.cut), draw_members(7), 5400.0)
        finish = forecast(dish).finish
        found.append({**vars(run), **vars(finish), **finish.lying._asdict()})
    one, two = found
    arrays = [name for name, figure in one.items() if isinstance(figure, np.ndarray)]
    assert len(arrays) > 20
    for name in arrays:
        assert np.array_equal(one[name], two[name], equal_nan=True), name


@pytest.mark.parametrize("key", ["portions-broiled", "lid-stir-lid", "frozen-split"])
def test_two_cores_hand_on_the_same_food(key: str, monkeypatch) -> None:
    """It stands, has a fire on one side or on both, and waits for its other half."""
    plan = plan_of(ChainDocument.model_validate(TEMPLATES[key]))
    found = []
    for cores in (1, 2):
        monkeypatch.setattr(halves, "CORES", cores)
        found.append(forecast_plan(plan, None, draw_members(7, 64)))
    one, two = found
    assert one.total == two.total
    for passed, other in zip(one.walk.passed, two.walk.passed, strict=True):
        brought, same = passed.passage.food.brought, other.passage.food.brought
        assert brought.profile_c.shape == (64, CELLS)
        for figures, others in zip(brought, same, strict=True):
            assert np.array_equal(figures, others), passed.stage.id
