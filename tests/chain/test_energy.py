"""What a cook takes in energy: by what carries it, by minutes, and against meters of kitchens."""

import pytest

from bluekettle.core import chain
from bluekettle.core.errors import MissingData
from bluekettle.core.glaze import draw_members
from bluekettle.core.tables import row, rows
from bluekettle.schemas.chain import ChainDocument
from bluekettle.services.chains import plan_of
from tests.chain.conftest import TEMPLATES

DRAWS = draw_members(3, 16)


def forecast(document):
    return chain.forecast_plan(plan_of(ChainDocument.model_validate(document)), None, DRAWS)


def chain_of(*stages, **food):
    told = {"cut": "pork-ribs", "mass_kg": 1.4, "pieces": 4, "thickness_mm": 26.0, **food}
    return {"format": "kettle.dish/2", "food": told, "stages": list(stages)}


def by_clock(heat, minutes, **more):
    until = {"by": "minutes", "minutes": float(minutes)}
    return {"kind": "heat", "id": "cook", "heat": heat, "until": until, **more}


def test_every_heat_has_its_row():
    assert set(rows("energy")) == set(chain.heat_keys())
    assert {line["carrier"] for line in rows("energy").values()} == {
        "electricity",
        "gas",
        "charcoal",
    }


def test_an_hour_more_takes_an_hour_of_holding_more():
    one, two = (
        chain.energy_kwh(forecast(chain_of(by_clock("foil", minutes)))) for minutes in (90, 150)
    )
    assert two["electricity"] - one["electricity"] == pytest.approx(
        float(row("energy", "foil")["hold_w"]) / 1000.0, rel=0.01
    )


# Meters of kitchens at an hour of use, and for a pot of beans: household knowledge [kWh].
METERS = {
    "an air fryer for 20 minutes": (chain_of(by_clock("air_fryer", 20.0)), 0.2, 0.6),
    "a pressure pot for 40 minutes": (chain_of(by_clock("pressure", 40.0)), 0.2, 0.5),
    "an oven for two hours": (chain_of(by_clock("foil", 120.0)), 1.5, 2.8),
    "a slow cooker for six hours": (chain_of(by_clock("slow_cooker", 360.0)), 0.8, 1.5),
}


@pytest.mark.parametrize(("document", "least", "most"), METERS.values(), ids=METERS)
def test_a_heat_takes_what_meters_of_kitchens_say(document, least, most):
    assert least < chain.energy_kwh(forecast(document))["electricity"] < most


def test_gas_and_charcoal_are_told_apart_from_what_comes_out_of_the_wall():
    assert set(chain.energy_kwh(forecast(TEMPLATES["octopus-grill"]))) == {"electricity", "gas"}
    assert "electricity" not in chain.energy_kwh(forecast(TEMPLATES["long-smoke"]))


def test_a_heat_of_which_nothing_is_known_is_refused(monkeypatch):
    found = forecast(chain_of(by_clock("foil", 90.0)))

    def nothing(table, key):
        raise MissingData(table, key, ())

    monkeypatch.setattr("bluekettle.core.chain.energy.row", nothing)
    with pytest.raises(MissingData, match="foil"):
        chain.energy_kwh(found)
