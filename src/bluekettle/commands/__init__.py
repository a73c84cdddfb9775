"""The `kettle` command."""

from __future__ import annotations

import json
import sys
from datetime import UTC, datetime
from pathlib import Path

import click
from pydantic import ValidationError

from bluekettle.api.openapi import with_problems
from bluekettle.app import create_app
from bluekettle.commands.data import check, export_command, plainly, restore
from bluekettle.commands.serve import serve
from bluekettle.commands.simulate import simulate_probe
from bluekettle.config import Config
from bluekettle.core.errors import CoreError
from bluekettle.core.tables import check_data, sources
from bluekettle.core.units import render
from bluekettle.schemas.chain import ChainDocument, without_kinds
from bluekettle.schemas.chain_forecast import ChainForecastPublic
from bluekettle.schemas.meal import MealDocument, SchedulePublic
from bluekettle.services.calendar import calendar_of
from bluekettle.services.chains import forecast_chain
from bluekettle.services.heavy import warm
from bluekettle.services.meals import schedule_meal
from bluekettle.store.folder import FolderTrouble
from bluekettle.store.opening import open_with_care


@click.group()
def main() -> None:
    """Plans, times and guides food made tender by one heat and finished by another."""


for command in (serve, check, export_command, restore, simulate_probe):
    main.add_command(command)


@main.command("warm-up")
def warm_up_command() -> None:
    """Compile the kernels into their cache (done once, by make)."""
    warm()


@main.command()
@click.argument("file", type=click.Path(exists=True, dir_okay=False, path_type=Path))
@click.option("--table", is_flag=True, help="for people instead of programs")
def forecast(file: Path, table: bool) -> None:
    """Forecast the document FILE: a plan (kettle.dish/2), or a dish of earlier versions
    (kettle.dish/1)."""
    now, text = datetime.now(UTC), file.read_bytes()
    try:
        answer = forecast_chain(ChainDocument.model_validate_json(text), now)
    except ValidationError as error:
        raise click.ClickException(faults_in(error)) from None
    except CoreError as error:
        raise click.ClickException(str(error)) from None
    click.echo(as_table(answer) if table else answer.model_dump_json(indent=2))


@main.command()
@click.argument("file", type=click.Path(exists=True, dir_okay=False, path_type=Path))
@click.option("--table", is_flag=True, help="for people instead of programs")
@click.option("--calendar", is_flag=True, help="as iCalendar (RFC 5545)")
def schedule(file: Path, table: bool, calendar: bool) -> None:
    """Plan the meal FILE (kettle.meal/1) for one supper."""
    now, text = datetime.now(UTC), file.read_bytes()
    try:
        document = MealDocument.model_validate_json(text)
        if any(one.plan_id is not None for one in document.dishes):
            raise click.ClickException("dishes: a kept plan is known to the server only")
        answer = schedule_meal(document, now)
    except ValidationError as error:
        raise click.ClickException(faults_in(error)) from None
    except CoreError as error:
        raise click.ClickException(str(error)) from None
    if calendar:
        click.echo(calendar_of(answer, now), nl=False)
    else:
        click.echo(run_sheet(answer) if table else answer.model_dump_json(indent=2))


def run_sheet(plan: SchedulePublic) -> str:
    """The plan of a meal as text."""
    called = {line.id: line.name for line in plan.lines}
    lines = [plan.name or "A meal", f"supper {plan.serve_at:%H:%M} UTC, late {plan.late:.0%}"]
    lines += [one.says for one in (*plan.past, *plan.reasons)]
    lines += [f"would mend it: {one.says}" for one in plan.repairs]
    rows = [(one.start_at, one.end_at, one.label, one.line) for one in plan.tasks]
    rows += [(one.start_at, one.ready_at, one.label, one.line) for one in plan.aheads]
    for start, end, label, line in sorted(rows):
        lines.append(f"{start:%H:%M} to {end:%H:%M}  {label:44} {called[line]}")
    return render("\n".join([*lines, plan.guidance]))


def faults_in(error: ValidationError) -> str:
    """What is wrong with a document, a line each."""
    found = error.errors()
    return "\n".join(f"{'.'.join(map(str, without_kinds(e['loc'])))}: {e['msg']}" for e in found)


def as_table(answer: ChainForecastPublic) -> str:
    """The chain and the windows as text."""

    def minutes(time_s: float | None) -> str:
        return "never" if time_s is None else f"{int(time_s // 60)}:{int(time_s % 60):02d}"

    lines = [
        answer.title,
        (
            f"start {answer.start_at:%H:%M}, serve {answer.serve_at:%H:%M} UTC "
            f"({answer.serve_low_at:%H:%M} to {answer.serve_high_at:%H:%M})"
        ),
        f"your timers {minutes(answer.headline_s)}, honest {minutes(answer.total.likely_s)}",
        "",
    ]
    for link in answer.links:
        mark = "~" if link.hidden else " "
        beside = "" if link.serial else "  (beside)"
        span = f"{minutes(link.band.low_s)} to {minutes(link.band.high_s)}"
        lines.append(
            f"{link.starts_at:%H:%M} {mark} {link.label:34} {minutes(link.band.likely_s):>8}  "
            f" {span}{beside}"
        )
    for fire in answer.fires:
        glaze = fire.glaze
        lines += ["", f"under the {glaze.appliance_name} ({fire.stage})"]
        for site, found in glaze.milestones.items():
            marks = ", ".join(f"{name} {minutes(band.likely_s)}" for name, band in found.items())
            lines.append(f"{site}: {marks}")
        lines.append(f"look from {minutes(glaze.look_from_s)}, every {glaze.look_every_s:.0f} s")
    for warning in answer.watch_outs:
        lines.append(f"[{warning.level}] {warning.message}")
    lines.append(answer.guidance)
    return "\n".join(lines)


@main.command("init-db")
def init_db() -> None:
    """Create the database or bring it up to date."""
    config = Config.from_environment()
    try:
        config.folder.mkdir(parents=True, exist_ok=True)
        open_with_care(config.database, datetime.now(UTC))
    except FolderTrouble as error:
        raise plainly(error) from None
    click.echo(f"{config.database} is up to date")


@main.command()
@click.argument("file", type=click.Path(dir_okay=False, path_type=Path), required=False)
def openapi(file: Path | None) -> None:
    """Write the OpenAPI document to FILE or standard output."""
    import tempfile

    with tempfile.TemporaryDirectory() as folder:
        document = with_problems(create_app(Config(Path(folder) / "none.sqlite3")).api_doc)
    text = json.dumps(document, indent=1, ensure_ascii=False) + "\n"
    if file is None:
        sys.stdout.write(text)
    else:
        file.write_text(text, encoding="utf-8")


@main.command("check-data")
@click.option(
    "--sources",
    "write_sources",
    type=click.Path(dir_okay=False, path_type=Path),
    help="write the list of sources",
)
def check_data_command(write_sources: Path | None) -> None:
    """Check the data tables: known sources and kinds, values within their bounds."""
    found = check_data()
    if found:
        raise click.ClickException("\n".join(found))
    if write_sources:
        write_sources.write_text(sources_page(), encoding="utf-8")
    click.echo("data is sound")


def sources_page() -> str:
    """docs/sources.md, made from the data."""
    from bluekettle.core.tables import TABLES, constants, rows

    used: dict[str, list[str]] = {key: [] for key in sources()}
    for table in TABLES:
        for key, line in rows(table).items():
            used[line["source"]].append(f"{table}/{key}")
    for item in constants().values():
        used[item.source].append(f"constants/{item.name}")
    lines = [
        "# Sources",
        "",
        "Made by `kettle check-data --sources docs/sources.md`; do not edit.",
        "",
    ]
    for key, source in sources().items():
        lines += [
            f"## {key}",
            "",
            source["title"] + ".",
            "",
            f"Rows: {len(used[key])}. " + ", ".join(used[key]),
            "",
        ]
    return "\n".join(lines)
