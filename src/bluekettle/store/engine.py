"""The engine, with SQLite set up for a household server, and the schema brought up to date."""

from __future__ import annotations

import json
from pathlib import Path
from typing import Any

from alembic import command
from alembic.config import Config as AlembicConfig
from sqlalchemy import Engine, event
from sqlmodel import create_engine


def make_engine(database: Path) -> Engine:
    """An engine on a file; WAL so that readers never wait, foreign keys on."""
    database.parent.mkdir(parents=True, exist_ok=True)
    engine = create_engine(
        f"sqlite:///{database}",
        connect_args={"timeout": 10},
        json_deserializer=structured,
    )

    @event.listens_for(engine, "connect")
    def _set_up(connection: Any, _record: Any) -> None:
        connection.isolation_level = None  # SQLAlchemy says BEGIN itself, below
        cursor = connection.cursor()
        cursor.execute("PRAGMA journal_mode=WAL")
        cursor.execute("PRAGMA foreign_keys=ON")
        cursor.execute("PRAGMA synchronous=FULL")  # a power cut must not lose a tap
        cursor.close()

    @event.listens_for(engine, "begin")
    def _begin(connection: Any) -> None:
        # A write that reads first takes the lock at once: two taps in the same instant then follow
        # each other.
        writes = connection.get_execution_options().get("kettle_writes", False)
        connection.exec_driver_sql("BEGIN IMMEDIATE" if writes else "BEGIN")

    return engine


def structured(text: str) -> Any:
    """JSON of a column; damaged text stays text, which no model takes: one record is then set
    aside, and its list lives."""
    try:
        return json.loads(text)
    except (ValueError, RecursionError):
        return text


def for_writing(engine: Engine) -> Engine:
    """The same engine, for transactions that will write."""
    return engine.execution_options(kettle_writes=True)


def migrate(engine: Engine) -> None:
    """Bring the schema up to date.

    Foreign keys are off meanwhile, since a table that is changed is made anew and the old one
    dropped; they are checked before the change is kept.
    """
    config = alembic_config()
    with engine.connect() as connection:
        driver = connection.connection.driver_connection
        assert driver is not None
        driver.execute("PRAGMA foreign_keys=OFF")
        try:
            with connection.begin():
                config.attributes["connection"] = connection
                command.upgrade(config, "head")
                broken = connection.exec_driver_sql("PRAGMA foreign_key_check").all()
                if broken:
                    raise DamagedStore(f"records that point nowhere: {broken[:3]}")
        finally:
            driver.execute("PRAGMA foreign_keys=ON")


def alembic_config() -> AlembicConfig:
    """Where the migrations lie."""
    config = AlembicConfig()
    config.set_main_option("script_location", str(Path(__file__).parent / "migrations"))
    return config


class DamagedStore(Exception):
    """The database is not what it should be."""
