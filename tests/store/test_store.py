"""SQLite as it is used: zones, foreign keys, numbers of events under load."""

from concurrent.futures import ThreadPoolExecutor
from datetime import UTC, datetime, timedelta, timezone
from pathlib import Path

import pytest
from alembic import command
from alembic.config import Config as AlembicConfig
from sqlalchemy.exc import IntegrityError
from sqlmodel import Session
from tests.conftest import SHORT_RIBS, START

from bluekettle import store
from bluekettle.schemas.chain import ChainDocument
from bluekettle.schemas.cook import CookCreate, EventCreate
from bluekettle.services import telling
from bluekettle.services.strips import Strips
from bluekettle.services.workshop import Workshop
from bluekettle.store import repositories
from bluekettle.store.engine import make_engine, migrate
from bluekettle.store.tables import Appliance, CookEvent, Observation, Plan, Sauce


@pytest.fixture
def engine(tmp_path):
    found = make_engine(tmp_path / "kettle.sqlite3")
    migrate(found)
    yield found
    found.dispose()


def test_moments_come_back_as_the_same_instant_in_utc(engine):
    kitchen_time = datetime(2030, 5, 4, 19, 30, tzinfo=timezone(timedelta(hours=2)))
    with Session(engine) as session:
        session.add(Plan(title="x", dish={}, updated_at=kitchen_time))
        session.commit()
    with Session(engine) as session:
        kept = repositories.plans(session, 1)[0].updated_at
    assert kept == kitchen_time
    assert kept.utcoffset() == timedelta(0)


def test_an_event_without_its_cook_is_refused(engine):
    with Session(engine) as session:
        session.add(
            CookEvent(cook_id=77, seq=1, kind="done", happened_at=START, recorded_at=START, data={})
        )
        with pytest.raises(IntegrityError):
            session.commit()


def test_many_taps_in_one_instant_are_all_kept_in_one_order(engine):
    """Two phones, one stove: every event gets a number of its own."""
    document = ChainDocument.model_validate(SHORT_RIBS)
    strips = Strips(Workshop())
    cook = telling.start_cook(engine, CookCreate(dish=document), START, strips)

    def tap(n):
        told = EventCreate(kind="extend", step="season.season", seconds=n)
        return telling.tell(engine, cook.id, told, START, strips)

    with ThreadPoolExecutor(8) as pool:
        list(pool.map(tap, range(1, 25)))
    with Session(engine) as session:
        found = repositories.events(session, cook.id)
    assert [e.seq for e in found] == list(range(1, 25))
    assert sorted(e.data["seconds"] for e in found) == list(range(1, 25))


def test_repositories_return_the_newest_first_and_no_more_than_asked(engine):
    with Session(engine) as session:
        for n in range(5):
            session.add(Plan(title=str(n), dish={}, updated_at=START + timedelta(minutes=n)))
        session.commit()
        assert [p.title for p in repositories.plans(session, 3)] == ["4", "3", "2"]
        assert repositories.outcomes(session, []) == {}


def test_a_store_of_the_first_version_is_brought_up_to_date_with_nothing_lost(tmp_path):
    old = make_engine(tmp_path / "old.sqlite3")
    config = AlembicConfig()
    config.set_main_option("script_location", str(Path(store.__file__).parent / "migrations"))
    with old.begin() as connection:
        config.attributes["connection"] = connection
        command.upgrade(config, "0001")
        connection.exec_driver_sql(
            "INSERT INTO plan (title, dish, updated_at) VALUES ('supper', '{}', '2030-05-04"
            " 16:00:00')"
        )
    migrate(old)
    with Session(old) as session:
        assert [p.title for p in repositories.plans(session, 5)] == ["supper"]
        session.add(Appliance(kind="hot-oven", name="oven", in_use=True, words={}))
        session.add(Sauce(name="red", document={}, updated_at=datetime.now(UTC)))
        session.commit()
        assert [a.name for a in repositories.appliances(session)] == ["oven"]
    fresh = make_engine(tmp_path / "new.sqlite3")
    migrate(fresh)
    assert tables(old) == tables(fresh)
    fresh.dispose()
    old.dispose()


def tables(engine):
    """The parts of each table and index; a table made anew has its keys in no fixed order."""
    of = "SELECT name, sql FROM sqlite_master WHERE name NOT LIKE 'sqlite_%'"
    with engine.connect() as connection:
        rows = connection.exec_driver_sql(of).fetchall()
    return {name: sorted(part.strip(" ,\n)") for part in sql.split("\n\t")) for name, sql in rows}


def test_an_observation_without_its_appliance_is_refused(engine):
    with Session(engine) as session:
        now = datetime.now(UTC)
        session.add(
            Observation(
                appliance_id=9,
                ground="food",
                sign="amber",
                at_s=60.0,
                dial=0.15,
                coat_mm=0.5,
                sauce_name="x",
                made_at=now,
            )
        )
        with pytest.raises(IntegrityError):
            session.commit()
