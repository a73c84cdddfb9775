"""Commands about what is kept: look through it, copy it out, bring it back."""

from __future__ import annotations

import json
import os
import shutil
import tempfile
from datetime import UTC, datetime
from pathlib import Path

import click

from bluekettle.config import Config
from bluekettle.services.records import unreadable
from bluekettle.store.archive import build, export
from bluekettle.store.backup import back_up, backups
from bluekettle.store.engine import make_engine
from bluekettle.store.folder import FolderTrouble, faults_of, held, look_through
from bluekettle.store.opening import newest_revision, open_with_care, revision_of


def plainly(error: FolderTrouble) -> click.ClickException:
    """A trouble as the command tells it."""
    return click.ClickException(str(error))


@click.command()
def check() -> None:
    """Look through the database, and name every record that cannot be read."""
    config = Config.from_environment()
    if not config.database.exists():
        raise click.ClickException(f"there is no {config.database}")
    found = faults_of(config.database)
    if not found and revision_of(config.database) == newest_revision():
        found = unreadable(make_engine(config.database))
    for line in found:
        click.echo(line)
    copies = backups(config.folder)
    click.echo(f"{len(copies)} backups" + (f", the newest {copies[-1]}" if copies else ""))
    if found:
        raise click.ClickException(f"{config.database}: {len(found)} findings")
    click.echo(f"{config.database} is sound")


@click.command("export")
@click.argument("file", type=click.Path(dir_okay=False, path_type=Path))
def export_command(file: Path) -> None:
    """Write every record to FILE, as JSON (kettle.export/1)."""
    config = Config.from_environment()
    if not config.database.exists():
        raise click.ClickException(f"there is no {config.database}")
    try:
        look_through(config.database)
        document = export(config.database)
        file.write_text(json.dumps(document, ensure_ascii=False, indent=1), encoding="utf-8")
    except FolderTrouble as error:
        raise plainly(error) from None
    except OSError as error:
        raise click.ClickException(f"{file} cannot be written ({error.strerror})") from None
    count = sum(len(rows) for rows in document["tables"].values())
    click.echo(f"{count} records are in {file}")


@click.command()
@click.argument("file", type=click.Path(exists=True, dir_okay=False, path_type=Path))
def restore(file: Path) -> None:
    """Put a backup (.sqlite3) or an export (.json) in the place of the database.

    What was there before is kept beside the backups.
    """
    config = Config.from_environment()
    now = datetime.now(UTC)
    try:
        with held(config.folder), tempfile.TemporaryDirectory(dir=config.folder) as folder:
            part = Path(folder) / "restored.sqlite3"
            copy_in(file, part)
            open_with_care(part, now).dispose()
            kept = set_aside(config.database, now)
            os.replace(part, config.database)
    except FolderTrouble as error:
        raise plainly(error) from None
    except OSError as error:
        raise click.ClickException(f"{config.folder}: {error.strerror}") from None
    click.echo(f"{file} is restored" + (f"; what was there is {kept}" if kept else ""))


def copy_in(file: Path, part: Path) -> None:
    """A backup or an export as a database file."""
    if file.suffix == ".json":
        try:
            document = json.loads(file.read_text(encoding="utf-8"))
        except (UnicodeDecodeError, json.JSONDecodeError) as error:
            raise FolderTrouble(f"{file} is no export ({error})") from None
        if not isinstance(document, dict):
            raise FolderTrouble(f"{file} is no export")
        build(document, part)
    else:
        shutil.copyfile(file, part)
    if revision_of(part) is None:
        raise FolderTrouble(f"{file} is no database of this program")


def set_aside(database: Path, now: datetime) -> Path | None:
    """Keep what is there, as a backup where it is sound, else as it is."""
    if not database.exists():
        return None
    if not faults_of(database):
        kept = back_up(database, now)
    else:
        kept = database.with_name(f"damaged-{now:%Y%m%dT%H%M%S}.sqlite3")
        shutil.copyfile(database, kept)
    for file in database.parent.glob(database.name + "*"):
        file.unlink()
    return kept
