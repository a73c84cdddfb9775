"""Settings, from the environment where it says so."""

from __future__ import annotations

import os
from collections.abc import Iterable
from dataclasses import dataclass, field
from pathlib import Path

LOCAL_HOSTS = frozenset({"localhost"})  # and every bare address


@dataclass(frozen=True)
class Config:
    """Where the data lies, under which names the server answers, in how many processes the model
    runs (0: in the request's own thread), how strict the answers are checked, and what a device has
    to tell first (empty: nothing).
    """

    database: Path
    testing: bool = False
    workers: int = 0
    hosts: frozenset[str] = LOCAL_HOSTS
    passcode: str = field(default="", repr=False)
    beyond: bool = False  # other devices reach it

    @classmethod
    def from_environment(
        cls, names: Iterable[str] = (), demo: bool = False, passcode: str = "", beyond: bool = False
    ) -> Config:
        """KETTLE_DATA names the folder of the database; the default lies outside the source tree's
        tracked files, and the sample scenario has one of its own. KETTLE_WORKERS is the number of
        processes for the model.
        """
        usual = Path.cwd() / "var"
        folder = Path(os.environ.get("KETTLE_DATA", usual / "demo" if demo else usual))
        workers = int(os.environ.get("KETTLE_WORKERS", usual_workers()))
        return cls(
            folder / "kettle.sqlite3",
            workers=max(0, workers),
            hosts=LOCAL_HOSTS.union(names),
            passcode=passcode,
            beyond=beyond,
        )

    @property
    def folder(self) -> Path:
        """The folder of the database, its lock and its backups."""
        return self.database.parent


def usual_workers() -> int:
    """One process for the model, two where there are more than two cores."""
    return 2 if (os.cpu_count() or 1) > 2 else 1
