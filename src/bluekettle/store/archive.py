"""A whole database as one JSON document (kettle.export/1), and back: every column of every record,
readable without this program.
"""

from __future__ import annotations

import json
import sqlite3
from pathlib import Path
from typing import Any

from alembic import command
from sqlalchemy import create_engine

from bluekettle.store.engine import alembic_config, structured
from bluekettle.store.folder import FolderTrouble, closing_read
from bluekettle.store.opening import known_revisions, revision_of

FORMAT = "kettle.export/1"
OWN = ("alembic_version",)


def export(database: Path) -> dict[str, Any]:
    """Every record of a database, by table; JSON columns as JSON."""
    with closing_read(database) as store:
        store.row_factory = sqlite3.Row
        tables = {name: records(store, name) for name in table_names(store)}
    return {"format": FORMAT, "revision": revision_of(database), "tables": tables}


def table_names(store: sqlite3.Connection) -> list[str]:
    """Tables with records of the kitchen."""
    asked = "SELECT name FROM sqlite_master WHERE type = 'table' ORDER BY name"
    names = [row[0] for row in store.execute(asked)]
    return [name for name in names if not name.startswith("sqlite_") and name not in OWN]


def records(store: sqlite3.Connection, table: str) -> list[dict[str, Any]]:
    """Rows of a table as they are."""
    columns = json_columns(store, table)
    found = []
    for row in store.execute(f'SELECT * FROM "{table}"'):
        values = dict(row)
        for column in columns & values.keys():
            if isinstance(values[column], str):
                values[column] = structured(values[column])
        found.append(values)
    return found


def json_columns(store: sqlite3.Connection, table: str) -> set[str]:
    """Columns that hold JSON."""
    columns = store.execute(f'PRAGMA table_info("{table}")')
    return {column[1] for column in columns if column[2] == "JSON"}


def build(document: dict[str, Any], database: Path) -> None:
    """Write a new database from an export, with the schema that it was made with.

    Raises FolderTrouble for what is no export, or one of a newer version.
    """
    if document.get("format") != FORMAT or not isinstance(document.get("tables"), dict):
        raise FolderTrouble(f"this is no export ({FORMAT})")
    revision = str(document.get("revision"))
    if revision not in known_revisions():
        raise FolderTrouble(f"the export was made by a newer version ({revision})")
    make_schema(database, revision)
    store = sqlite3.connect(database)
    try:
        with store:
            for table, rows in document["tables"].items():
                insert(store, table, rows)
    except (sqlite3.Error, AttributeError, TypeError) as error:
        raise FolderTrouble(f"the export cannot be read ({error})") from None
    finally:
        store.close()


def make_schema(database: Path, revision: str) -> None:
    """An empty database of a revision."""
    engine = create_engine(f"sqlite:///{database}")
    config = alembic_config()
    with engine.begin() as connection:
        config.attributes["connection"] = connection
        command.upgrade(config, revision)
    engine.dispose()


def insert(store: sqlite3.Connection, table: str, rows: list[dict[str, Any]]) -> None:
    """Rows into a table that the schema knows."""
    if table not in table_names(store):
        raise FolderTrouble(f"the export has a table that is not known: {table}")
    in_json = json_columns(store, table)
    known = [column[1] for column in store.execute(f'PRAGMA table_info("{table}")')]
    store.execute(f'DELETE FROM "{table}"')
    for row in rows:
        names = [name for name in known if name in row]
        values = [json.dumps(row[n]) if n in in_json else row[n] for n in names]
        columns = ", ".join(f'"{name}"' for name in names)
        marks = ", ".join("?" for _ in names)
        store.execute(f'INSERT INTO "{table}" ({columns}) VALUES ({marks})', values)
