"""The `kettle` command as a script would use it."""

import json
import socket
from pathlib import Path

import pytest
from click.testing import CliRunner
from tests.conftest import SHORT_RIBS

from bluekettle.commands import main


@pytest.fixture
def run(tmp_path, monkeypatch):
    monkeypatch.setenv("KETTLE_DATA", str(tmp_path / "data"))
    monkeypatch.chdir(tmp_path)

    def call(*words):
        return CliRunner().invoke(main, [str(word) for word in words])

    return call


@pytest.fixture
def dish_file(tmp_path) -> Path:
    file = tmp_path / "dish.json"
    file.write_text(json.dumps(SHORT_RIBS), encoding="utf-8")
    return file


def test_forecast_prints_the_json_of_the_api_or_a_table(run, dish_file):
    done = run("forecast", dish_file)
    assert done.exit_code == 0
    answer = json.loads(done.stdout)
    assert answer["total"]["likely_s"] > answer["headline_s"]
    table = run("forecast", dish_file, "--table").stdout
    for words in (
        "Pot comes up to pressure",
        "honest",
        "face: set",
        "look from",
        "local food-safety",
    ):
        assert words in table


@pytest.mark.parametrize(
    ("change", "words"),
    [({"mass_kg": 900}, "mass_kg"), ({"cut": "heron"}, "cut"), ({"coats": "many"}, "coats")],
)
def test_a_bad_document_is_told_by_field_and_fails(run, dish_file, change, words):
    dish_file.write_text(json.dumps({**SHORT_RIBS, **change}), encoding="utf-8")
    done = run("forecast", dish_file)
    assert done.exit_code == 1
    assert words in done.stderr
    assert "Traceback" not in done.output


def test_a_file_that_is_no_json_or_not_there_fails_plainly(run, dish_file, tmp_path):
    dish_file.write_bytes(b"\xff{")
    assert run("forecast", dish_file).exit_code == 1
    missing = run("forecast", tmp_path / "none.json")
    assert missing.exit_code == 2
    assert "does not exist" in missing.stderr


def test_data_database_and_documents_are_made_on_demand(run, tmp_path):
    sources = tmp_path / "sources.md"
    assert run("check-data", "--sources", sources).stdout == "data is sound\n"
    assert "FSIS" in sources.read_text(encoding="utf-8")
    assert run("init-db").exit_code == 0
    assert (tmp_path / "data" / "kettle.sqlite3").exists()
    document = json.loads(run("openapi").stdout)
    assert "/api/v1/forecasts" in document["paths"]
    refused = document["paths"]["/api/v1/forecasts"]["post"]["responses"]["422"]["content"]
    assert list(refused) == ["application/problem+json"]


def test_a_port_in_use_is_told_and_nothing_hangs(run):
    with socket.socket() as taken:
        taken.bind(("127.0.0.1", 0))
        taken.listen()
        done = run("serve", "--port", taken.getsockname()[1])
    assert done.exit_code == 1
    assert "another --port" in done.stderr
