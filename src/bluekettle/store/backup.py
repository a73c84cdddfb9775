"""Backups: whole copies of the database beside it, made without stopping anything."""

from __future__ import annotations

import os
import sqlite3
from datetime import UTC, datetime, timedelta
from pathlib import Path

from bluekettle.store.folder import FolderTrouble

KEPT = 7
DAILY = timedelta(hours=24)
PATTERN = "kettle-*.sqlite3"


def backups(folder: Path) -> list[Path]:
    """Backups of a data folder, the oldest first."""
    return sorted((folder / "backups").glob(PATTERN))


def back_up(database: Path, now: datetime) -> Path | None:
    """Copy the database, and let the oldest copies go; None where there is nothing to copy.

    Raises FolderTrouble where the copy cannot be written.
    """
    if not database.exists():
        return None
    folder = database.parent / "backups"
    target = folder / f"kettle-{now.astimezone(UTC):%Y%m%dT%H%M%S%f}.sqlite3"
    part = target.with_suffix(".part")
    try:
        folder.mkdir(exist_ok=True)
        part.unlink(missing_ok=True)
        store = sqlite3.connect(database, timeout=10)
        try:
            store.execute("VACUUM INTO ?", (str(part),))
        finally:
            store.close()
        os.replace(part, target)
    except (OSError, sqlite3.Error) as error:
        part.unlink(missing_ok=True)
        raise FolderTrouble(f"no backup could be made in {folder} ({error})") from None
    for old in backups(database.parent)[:-KEPT]:
        old.unlink()
    return target


def back_up_changes(database: Path, now: datetime, age: timedelta = timedelta(0)) -> Path | None:
    """Copy the database where something was written since the newest copy, and that one is of an
    age; None where there is nothing to do.
    """
    found = backups(database.parent)
    if found:
        made = datetime.fromtimestamp(found[-1].stat().st_mtime, UTC)
        if now - made < age or not changed_since(database, found[-1]):
            return None
    return back_up(database, now)


def changed_since(database: Path, backup: Path) -> bool:
    """Whether the database was written to after a backup was made."""
    files = (database, database.with_name(database.name + "-wal"))
    moments = [file.stat().st_mtime for file in files if file.exists()]
    return bool(moments) and max(moments) > backup.stat().st_mtime
