"""How often a chain comes out right, and the one change that helps most."""

from dataclasses import dataclass, field
from datetime import UTC, datetime
from types import SimpleNamespace

import numpy as np
import pytest

from bluekettle.core.advice.repair import candidates
from bluekettle.core.chain import forecast_plan
from bluekettle.core.chain.right import right_of
from bluekettle.core.glaze import draw_members
from bluekettle.core.glaze.milestones import MILESTONES
from bluekettle.schemas.chain import ChainDocument
from bluekettle.services.chain_advice import advise_chain
from bluekettle.services.chains import forecast_chain, plan_of
from tests.chain.conftest import TEMPLATES, patched

NOW = datetime(2026, 11, 20, 12, 0, tzinfo=UTC)
EVEN = np.full(4, 0.25)


@dataclass
class Film:
    """A fire whose milestones are written by hand, seconds for four members."""

    stage: str
    by: str = "colour"
    want: str = "amber"
    timer_s: float = 300.0
    face: dict = field(default_factory=dict)
    edge: dict = field(default_factory=dict)

    @property
    def finish(self):
        times = np.full((4, 2, 7), np.inf)
        times[:, 0, MILESTONES.index("set")] = 10.0
        for site, told in enumerate((self.face, self.edge)):
            for name, seconds in told.items():
                times[:, site, MILESTONES.index(name)] = seconds
        return SimpleNamespace(times_s=times)


def bite(enough, overdone):
    return SimpleNamespace(enough=enough, overdone=overdone)


def test_by_sight_it_is_right_where_the_face_comes_before_the_edge_burns():
    film = Film("a", face={"amber": [200, 200, 200, np.inf]}, edge={"burnt": [300, 199, 201, 900]})
    found = right_of([film], None, EVEN)
    assert found.fires == (("a", 0.5),)
    assert (found.all_of_it, found.bite) == (0.5, None)
    heavy = np.array([0.7, 0.1, 0.1, 0.1])  # what was seen speaks for the first
    assert right_of([film], None, heavy).all_of_it == pytest.approx(0.8)


def test_by_the_clock_it_is_right_where_nothing_is_spoilt_when_it_is_over():
    film = Film("a", by="minutes", face={"bitter": [299, 301, 900, 900]}, edge={"burnt": 400.0})
    assert right_of([film], None, EVEN).all_of_it == 0.75
    film.edge = {"burnt": [900, 300, 300, 301]}
    assert right_of([film], None, EVEN).all_of_it == 0.25


def test_all_of_it_is_right_only_where_every_fire_and_the_bite_are():
    first = Film("a", face={"amber": 200.0}, edge={"burnt": [300, 100, 300, 300]})
    last = Film("b", face={"amber": 200.0}, edge={"burnt": [300, 300, 100, 300]})
    found = right_of([first, last], bite(0.9, 0.1), EVEN)
    assert found.fires == (("a", 0.75), ("b", 0.75))
    assert found.bite == pytest.approx(0.8)
    assert found.all_of_it == pytest.approx(0.5 * 0.8)
    assert right_of([], None, EVEN).all_of_it == 1.0
    assert right_of([], bite(0.2, 0.5), EVEN).all_of_it == 0.0


@pytest.mark.parametrize(
    ("key", "offered"),
    [
        ("strands-broiled", "in the pressure pot"),
        ("sugar-crust", "The air fryer at"),
        ("marinated-fried-tray", "The open oven at"),
        ("cooked-ham", None),
        ("long-smoke", None),
    ],
)
def test_the_repair_does_what_it_says_and_brings_no_stop(key, offered):
    document = TEMPLATES[key]
    before = forecast_chain(ChainDocument.model_validate(document), NOW)
    repair = advise_chain(ChainDocument.model_validate(document)).repair
    if offered is None:
        assert repair is None
        return
    assert offered in repair.says
    after = forecast_chain(ChainDocument.model_validate(patched(document, repair.patch)), NOW)
    assert repair.before == before.right.all_of_it
    assert repair.right == after.right.all_of_it >= before.right.all_of_it + 0.1
    assert repair.longer_s == pytest.approx(after.total.likely_s - before.total.likely_s, abs=0.2)
    assert stops(after) <= stops(before)


def test_what_is_tried_for_the_weakest_fire_and_for_the_bite():
    document = patched(TEMPLATES["portions-broiled"], [])
    places = [one["id"] for one in document["stages"]]
    document["stages"][places.index("broil")]["dial"] = 0.07
    plan = plan_of(ChainDocument.model_validate(document))
    found = forecast_plan(plan, None, draw_members(1, 16))
    tried = list(candidates(found))
    fires = {(h.heat, h.dial) for place, h in tried if places[place] == "broil"}
    # The rack no nearer than the oven has it; pots and charcoal are no way out of a broiler.
    others = {(key, None) for key in ("oven", "air_fryer", "grill", "contact")}
    assert fires == {("broiler", 0.12), ("broiler", 0.05), *others}
    assert all(h.until.by == "colour" and h.until.want == "amber" for _, h in tried[:6])
    likely = found.slows[0].timer_s / 60.0
    longer = [h.until.minutes for place, h in tried if places[place] == "pot"]
    assert longer == [round(1.15 * likely), round(1.35 * likely)]
    assert len(tried) == 8
    usual = patched(TEMPLATES["portions-broiled"], [])  # the rack at 15 cm
    plan = plan_of(ChainDocument.model_validate(usual))
    moved = {h.dial for _, h in candidates(forecast_plan(plan, None, draw_members(1, 16)))}
    assert moved >= {0.2, 0.11}


def stops(found):
    return {one.id for one in found.watch_outs if one.level == "stop"}
