"""The data folder: one kettle at a time has it, and what is wrong with it is said plainly."""

from __future__ import annotations

import os
import sqlite3
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from filelock import FileLock, Timeout


class FolderTrouble(Exception):
    """The data folder cannot be used; the message says why and what can be done."""


@contextmanager
def held(folder: Path) -> Iterator[None]:
    """Have a data folder alone; FolderTrouble where another kettle has it, or it cannot be
    written.
    """
    lock = FileLock(folder / "kettle.lock")
    try:
        folder.mkdir(parents=True, exist_ok=True)
        lock.acquire(timeout=0)
    except Timeout:
        raise FolderTrouble(
            f"another kettle is running on {folder}: stop it first, or name another folder in"
            " KETTLE_DATA"
        ) from None
    except OSError as error:
        raise FolderTrouble(f"{folder} cannot be written ({error.strerror})") from None
    try:
        yield
    finally:
        lock.release()


def writable(folder: Path) -> None:
    """Try to write a file; FolderTrouble where that is refused or the disk is full."""
    trial = folder / f".trial-{os.getpid()}"
    try:
        trial.write_bytes(b"x" * 65_536)
    except OSError as error:
        raise FolderTrouble(f"{folder} cannot be written ({error.strerror})") from None
    finally:
        trial.unlink(missing_ok=True)


def look_through(database: Path) -> None:
    """Look through a database; FolderTrouble where it is damaged or none."""
    found = faults_of(database) if database.exists() else []
    if found:
        raise FolderTrouble(
            f"{database} is damaged ({found[0]}). `kettle restore FILE` brings a backup back; they"
            f" lie in {database.parent / 'backups'}"
        )


def faults_of(database: Path) -> list[str]:
    """What SQLite finds wrong with a file."""
    try:
        with closing_read(database) as store:
            told = [row[0] for row in store.execute("PRAGMA quick_check(5)")]
            broken = store.execute("PRAGMA foreign_key_check").fetchall()
    except sqlite3.DatabaseError as error:
        return [str(error)]
    lost = [
        f"{table} {row} points at a {parent} that is not there" for table, row, parent, *_ in broken
    ]
    return [line for line in told if line != "ok"] + lost[:5]


@contextmanager
def closing_read(database: Path) -> Iterator[sqlite3.Connection]:
    """A connection that only reads, closed afterwards."""
    store = sqlite3.connect(f"file:{database}?mode=ro", uri=True)
    try:
        yield store
    finally:
        store.close()
