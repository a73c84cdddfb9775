"""The door of a kettle that is served beyond this machine."""

import re
import stat

import pytest
from click.testing import CliRunner

from bluekettle.app import create_app
from bluekettle.commands import main
from bluekettle.config import Config

PASSCODE = "plum and black tea"


@pytest.fixture
def kettle(tmp_path):
    """An application with a passcode; `device` makes a client of its own cookies."""
    made = []

    def serve(passcode=PASSCODE, beyond=True):
        file = tmp_path / "kettle.sqlite3"
        app = create_app(Config(file, testing=True, passcode=passcode, beyond=beyond))
        made.append(app)
        return app

    yield serve
    for app in made:
        app.extensions["kettle_engine"].dispose()


def tell(device, passcode, address="127.0.0.1"):
    body = {"passcode": passcode}
    told = device.post("/api/v1/session", json=body, environ_base={"REMOTE_ADDR": address})
    return told.status_code


def test_without_the_passcode_nothing_is_told_and_nothing_is_taken(kettle):
    device = kettle().test_client()
    for rule in device.application.url_map.iter_rules():
        if not rule.rule.startswith("/api/v1") or rule.rule == "/api/v1/session":
            continue
        path = re.sub(r"<[^>]+>", "1", rule.rule)
        for method in rule.methods - {"HEAD", "OPTIONS"}:
            answer = device.open(path, method=method, json={})
            assert answer.status_code == 401, (method, path)
            assert answer.get_json()["title"] == "Passcode wanted"
    with device.get("/") as page:  # the page itself is no secret
        assert page.status_code == 200
    told = device.get("/api/v1/session").get_json()
    assert told == {"needed": True, "inside": False, "address": "", "code_svg": ""}


def test_who_tells_it_is_in_until_it_changes(kettle):
    app = kettle()
    device, other = app.test_client(), app.test_client()
    assert tell(device, "plum and green tea") == 403
    assert device.get("/api/v1/kitchen").status_code == 401
    assert tell(device, PASSCODE) == 204
    assert device.get("/api/v1/kitchen").status_code == 200
    assert other.get("/api/v1/kitchen").status_code == 401, "a session is one device's own"
    told = device.get("/api/v1/session").get_json()
    assert told["inside"]
    assert re.fullmatch(r"http://[\w.:]+/", told["address"])
    assert told["code_svg"].startswith("<svg")
    cookie = device.get_cookie("kettle")
    assert cookie.http_only
    assert cookie.same_site == "Strict"

    def later(passcode):
        """The same device after a restart of the server."""
        found = kettle(passcode).test_client()
        found.set_cookie("kettle", cookie.value)
        return found.get("/api/v1/kitchen").status_code

    assert later(PASSCODE) == 200
    assert later("quince and paprika") == 401


def test_guesses_are_slowed_down_by_address_and_in_all(kettle):
    device = kettle().test_client()
    for _ in range(5):
        assert tell(device, "guess") == 403
    assert tell(device, "guess") == 429
    assert tell(device, PASSCODE) == 429, "not even the right one, so that it is no oracle"
    assert tell(device, PASSCODE, "192.0.2.7") == 204, "another address is not held up"
    fresh = kettle().test_client()
    tries = [tell(fresh, "guess", f"192.0.2.{number // 4}") for number in range(80)]
    assert tries[:60] == [403] * 60
    assert set(tries[60:]) == {429}


def test_the_key_is_this_users_own_and_a_bad_body_is_told(kettle, tmp_path):
    device = kettle().test_client()
    assert stat.S_IMODE((tmp_path / "session.key").stat().st_mode) == 0o600
    wrong = device.post("/api/v1/session", json={"passcode": ""})
    assert wrong.status_code == 422
    assert wrong.get_json()["errors"][0]["field"] == "passcode"


def test_a_key_that_was_cut_short_is_made_anew(kettle, tmp_path):
    """Else every cookie would be signed with what is known of an empty file."""
    (tmp_path / "session.key").write_bytes(b"")
    kettle()
    assert len((tmp_path / "session.key").read_bytes()) == 32


def test_an_address_is_told_only_where_another_device_reaches_it(kettle):
    device = kettle(beyond=False).test_client()
    assert tell(device, PASSCODE) == 204
    told = device.get("/api/v1/session").get_json()
    assert (told["inside"], told["address"], told["code_svg"]) == (True, "", "")
    far = "http://192.0.2.9:8740"
    named = kettle().test_client()
    body = {"passcode": PASSCODE}
    assert named.post("/api/v1/session", json=body, base_url=far).status_code == 204
    assert named.get("/api/v1/session", base_url=far).get_json()["address"] == f"{far}/"


def test_a_kettle_of_this_machine_alone_asks_for_nothing(kettle):
    device = kettle("").test_client()
    assert device.get("/api/v1/session").get_json()["needed"] is False
    assert device.get("/api/v1/kitchen").status_code == 200
    assert tell(device, PASSCODE) == 409


@pytest.mark.parametrize(
    ("options", "why"),
    [
        (["--host", "0.0.0.0"], "give them a --passcode"),
        (["--host", "kitchen.local"], "give them a --passcode"),
        (["--host", "0.0.0.0", "--passcode", "short"], "5 characters long"),
        (["--passcode", "short"], "use 8 or more"),
    ],
)
def test_it_refuses_to_listen_beyond_this_machine_without_a_passcode(options, why):
    told = CliRunner().invoke(main, ["serve", *options])
    assert told.exit_code == 1
    assert why in told.output
