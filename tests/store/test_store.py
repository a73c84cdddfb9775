"""SQLite as it is used: zones, foreign keys, numbers of events under load."""

from concurrent.futures import ThreadPoolExecutor
from datetime import datetime, timedelta, timezone

import pytest
from sqlalchemy.exc import IntegrityError
from sqlmodel import Session
from tests.conftest import SHORT_RIBS, START

from bluekettle.schemas.cook import CookCreate, EventCreate
from bluekettle.schemas.dish import DishDocument
from bluekettle.services import cooks
from bluekettle.store import repositories
from bluekettle.store.engine import make_engine, migrate
from bluekettle.store.tables import CookEvent, Plan


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
        session.add(CookEvent(cook_id=77, seq=1, kind="done", happened_at=START, recorded_at=START, data={}))
        with pytest.raises(IntegrityError):
            session.commit()


def test_many_taps_in_one_instant_are_all_kept_in_one_order(engine):
    """Two phones, one stove: every event gets a number of its own."""
    document = DishDocument.model_validate(SHORT_RIBS)
    cook = cooks.start_cook(engine, CookCreate(dish=document), START)

    def tap(n):
        return cooks.tell(engine, cook.id, EventCreate(kind="extend", step="season", seconds=n), START)

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
