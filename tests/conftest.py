"""Fixtures that every room of tests may use."""

from __future__ import annotations

import sqlite3
from collections.abc import Iterator
from dataclasses import dataclass, field
from datetime import UTC, datetime, timedelta
from pathlib import Path
from typing import Any

import pytest
from flask.testing import FlaskClient
from hypothesis import settings

from bluekettle.app import create_app
from bluekettle.config import Config

settings.register_profile("kettle", deadline=None, max_examples=25, derandomize=True)
settings.load_profile("kettle")

START = datetime(2030, 5, 4, 16, 0, tzinfo=UTC)

SHORT_RIBS: dict[str, Any] = {
    "cut": "beef-short-ribs",
    "mass_kg": 1.6,
    "pieces": 6,
    "thickness_mm": 45.0,
    "sauce": "plum-tea",
    "coats": 2,
}

# A shoulder that its middle's temperature ends.
ROAST: dict[str, Any] = {
    "format": "kettle.dish/2",
    "food": {"cut": "pork-shoulder", "mass_kg": 2.0, "pieces": 1, "thickness_mm": 90},
    "stages": [
        {
            "kind": "heat",
            "id": "low",
            "heat": "oven",
            "dial": 130,
            "until": {"by": "core", "core_c": 80},
        }
    ],
}


@dataclass
class Kitchen:
    """A client of the application with a clock of its own."""

    client: FlaskClient
    database: Path
    now: datetime = field(default=START)

    def wait(self, seconds: float) -> None:
        self.now += timedelta(seconds=seconds)

    def get(self, path: str, status: int = 200) -> Any:
        answer = self.client.get("/api/v1" + path)
        assert answer.status_code == status, answer.text[:600]
        return answer.get_json()

    def post(self, path: str, body: Any, status: int = 201) -> Any:
        answer = self.client.post("/api/v1" + path, json=body)
        assert answer.status_code == status, answer.text[:600]
        return answer.get_json()

    def tell(self, cook: int, **event: Any) -> Any:
        return self.post(f"/cooks/{cook}/events", event)

    def spoil(self, table: str, column: str, key: int) -> None:
        """Damage one kept record, as a faulty version or a disk might."""
        with sqlite3.connect(self.database) as store:
            store.execute(f"update {table} set {column} = '{{}}' where id = ?", (key,))

    def press(self, live: Any, **gate: Any) -> Any:
        """Press the wide button of what is current; a check is good where nothing else is said."""
        told: dict[str, Any] = {"kind": "done", "step": live["current"], **gate}
        if live["gate"] is not None and not gate:
            told |= {"tender": True, "temp_c": (live["gate"]["wants_c"] or 60.0) + 15.0}
        return self.tell(live["id"], **told)

    def press_until(self, live: Any, step: str, seconds: float = 60.0) -> Any:
        """Press on until a step is current."""
        while live["current"] != step:
            assert live["current"], f"{step} never came"
            self.wait(seconds)
            live = self.press(live)
        return live


def open_kitchen(database: Path, now: datetime = START) -> Kitchen:
    """A kitchen on a database file; opening it twice is what a restart of the server is."""
    app = create_app(Config(database, testing=True))
    kitchen = Kitchen(app.test_client(), database, now)
    app.extensions["kettle_clock"] = lambda: kitchen.now
    return kitchen


@pytest.fixture
def kitchen(tmp_path: Path) -> Iterator[Kitchen]:
    found = open_kitchen(tmp_path / "kettle.sqlite3")
    yield found
    found.client.application.extensions["kettle_engine"].dispose()
