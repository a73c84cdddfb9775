"""Open a database with care: it is looked through, copied before it is changed, and brought up to
date.
"""

from __future__ import annotations

import sqlite3
from datetime import datetime
from pathlib import Path

from alembic.script import ScriptDirectory
from sqlalchemy import Engine
from sqlalchemy.exc import DBAPIError

from bluekettle.store.backup import back_up
from bluekettle.store.engine import DamagedStore, alembic_config, make_engine, migrate
from bluekettle.store.folder import FolderTrouble, closing_read, look_through


def open_with_care(database: Path, now: datetime) -> Engine:
    """An engine on a database that is sound and up to date.

    Raises FolderTrouble in plain words: damaged, made by a newer version, not writable, disk full.
    """
    look_through(database)
    kept = revision_of(database)
    if kept is not None and kept not in known_revisions():
        raise FolderTrouble(
            f"{database} was made by a newer version ({kept}): update this one, or name another"
            " folder in KETTLE_DATA"
        )
    if kept is not None and kept != newest_revision():
        back_up(database, now)
    engine = make_engine(database)
    try:
        migrate(engine)
    except DamagedStore as error:
        raise FolderTrouble(f"{database} is damaged ({error}). {RESTORE}") from None
    except DBAPIError as error:
        raise FolderTrouble(f"{database} cannot be opened ({error.orig})") from None
    return engine


RESTORE = "`kettle restore` brings a backup back"


def revision_of(database: Path) -> str | None:
    """The revision of a database's schema; None where there is none yet."""
    if not database.exists():
        return None
    try:
        with closing_read(database) as store:
            found = store.execute("SELECT version_num FROM alembic_version").fetchone()
    except sqlite3.OperationalError:
        return None
    return str(found[0]) if found else None


def known_revisions() -> set[str]:
    """Revisions that this version can bring up to date."""
    scripts = ScriptDirectory.from_config(alembic_config())
    return {script.revision for script in scripts.walk_revisions()}


def newest_revision() -> str:
    """The revision that this version works with."""
    return str(ScriptDirectory.from_config(alembic_config()).get_current_head())
