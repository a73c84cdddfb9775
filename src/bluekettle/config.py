"""Settings, from the environment where it says so."""

from __future__ import annotations

import os
from dataclasses import dataclass
from pathlib import Path

LOCAL_HOSTS = frozenset({"127.0.0.1", "localhost", "[::1]", "::1"})


@dataclass(frozen=True)
class Config:
    """Where the data lies, under which names the server answers, in how many processes the model
    runs (0: in the request's own thread), and how strict the answers are checked.
    """

    database: Path
    testing: bool = False
    workers: int = 0
    hosts: frozenset[str] = LOCAL_HOSTS

    @classmethod
    def from_environment(cls, host: str = "127.0.0.1") -> Config:
        """KETTLE_DATA names the folder of the database; the default lies outside the source tree's
        tracked files. KETTLE_WORKERS is the number of processes for the model.
        """
        folder = Path(os.environ.get("KETTLE_DATA", Path.cwd() / "var"))
        workers = int(os.environ.get("KETTLE_WORKERS", usual_workers()))
        return cls(folder / "kettle.sqlite3", workers=max(0, workers), hosts=LOCAL_HOSTS | {host})

    @property
    def folder(self) -> Path:
        """The folder of the database, its lock and its backups."""
        return self.database.parent


def usual_workers() -> int:
    """One process for the model, two where there are more than two cores."""
    return 2 if (os.cpu_count() or 1) > 2 else 1
