"""The stand-ins for a probe, an oven thermometer and a pot, and the command that plays them."""

import threading
from datetime import UTC, datetime, timedelta

import numpy as np
import pytest
from click.testing import CliRunner
from tests.conftest import ROAST, SHORT_RIBS
from tests.served import Server

from bluekettle.commands import main
from bluekettle.core.chain import alike, centres_in, hidden_kitchen
from bluekettle.schemas.chain import ChainDocument
from bluekettle.services.chains import plan_of
from bluekettle.services.devices import Devices, Running, moments_until, running_of

BEGUN = datetime(2030, 5, 4, 16, 0, tzinfo=UTC)
ROASTING = ChainDocument.model_validate(ROAST)


def read_all(devices, running, minutes):
    moments = [running.heat_at + timedelta(minutes=m) for m in minutes]
    told = [one for at in moments for one in devices.read(running, at)]
    return {
        q: [(datetime.fromisoformat(o["at"]), o["value"]) for o in told if o["quantity"] == q]
        for q in ("core_c", "air_c", "pin")
    }


def test_they_read_the_hidden_kitchen_with_noise_gaps_and_a_loose_while():
    devices = Devices(ROASTING, seed=4)
    running = Running("low", "hold", BEGUN, BEGUN)
    told = read_all(devices, running, range(1, 420))
    holds = 130.0 + devices.oven_off_k
    kitchen = alike(hidden_kitchen(4), 3)
    truth = centres_in(plan_of(ROASTING), "low", holds, draws=kitchen)
    since = np.array([(at - BEGUN).total_seconds() for at, _ in told["core_c"]])
    off = np.array([v for _, v in told["core_c"]])
    off = off - np.interp(since, truth.time_s, truth.centre_c[0])
    assert 0.01 < 1.0 - len(since) / 419 < 0.12
    assert np.median(np.abs(off)) < 0.5
    assert off.std() > 0.2
    assert np.sum(off > 8.0) > 5
    air = [value for _, value in told["air_c"]]
    assert np.mean(air) == pytest.approx(holds, abs=1.0)
    assert max(air) - min(air) > 8.0
    assert told["pin"] == []


def test_food_that_went_elsewhere_is_read_there_from_what_it_had():
    """An hour of its oven, then the fryer: warm in the middle, and hotter round about."""
    moved = {"stage": "low", "heat": "air_fryer", "had_min": 60.0, "acts_done": 0}
    assert not Devices(ROASTING, seed=4).knows("low+1")
    devices = Devices(ChainDocument.model_validate({**ROAST, "instead": [moved]}), seed=4)
    assert devices.knows("low+1")
    told = read_all(devices, Running("low+1", "hold", BEGUN, BEGUN), range(1, 10))
    first = read_all(Devices(ROASTING, seed=4), Running("low", "hold", BEGUN, BEGUN), range(1, 10))
    assert told["core_c"][0][1] > first["core_c"][0][1] + 3.0
    assert np.mean([value for _, value in told["air_c"]]) > 145.0


def test_a_pin_comes_up_once_and_an_act_by_hand_is_not_read():
    devices = Devices(ChainDocument.model_validate(SHORT_RIBS), seed=4)
    told = read_all(devices, Running("cook", "come_up", BEGUN, BEGUN), np.arange(0.5, 40, 0.5))
    values = [value for _, value in told["pin"]]
    assert set(values) == {0.0, 1.0}
    assert values == sorted(values)
    step = {"key": "cook.open", "who": "hands", "begin_at": BEGUN.isoformat()}
    assert running_of({"current": "cook.open", "steps": [step]}) is None


def test_nothing_is_told_of_the_future():
    now = BEGUN + timedelta(seconds=47)
    moments = moments_until(BEGUN, now, 10.0, 100)
    assert moments == [BEGUN + timedelta(seconds=s) for s in (10, 20, 30, 40)]
    assert moments_until(BEGUN, now, 10.0, 2) == moments[:2]
    assert moments_until(now, BEGUN, 10.0, 100) == []


def test_the_command_plays_a_rehearsal_until_it_is_over(tmp_path):
    server = Server(tmp_path)
    server.start()
    try:
        live = server.ask("/cooks", {"dish": ROAST, "rehearsal": {"speed": 1, "seed": 9}})
        cook = live["id"]
        while live["current"] != "low.hold":
            live = server.ask(f"/cooks/{cook}/events", {"kind": "done", "step": live["current"]})
        over = threading.Timer(12.0, lambda: server.ask(f"/cooks/{cook}/stop", {}))
        over.start()
        options = ["--cook", str(cook), "--speed", "60", "--address", server.address]
        ran = CliRunner().invoke(main, ["simulate-probe", *options])
        over.join()
        assert ran.exit_code == 0, ran.output
        told = int(ran.stdout.split()[0])
        assert told > 60
        after = server.ask(f"/cooks/{cook}/live")
        assert after["rehearsal"]["speed"] == 60
        gone = CliRunner().invoke(
            main, ["simulate-probe", "--cook", "77", "--address", server.address]
        )
        assert gone.exit_code == 1
        assert "there is no cook 77" in gone.output
    finally:
        server.kill()
    away = CliRunner().invoke(main, ["simulate-probe", "--cook", "1", "--address", server.address])
    assert away.exit_code == 1
    assert "nothing answers" in away.output
