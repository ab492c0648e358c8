"""The subcommand `ridgewind sequence`: an outing's sequence, written without the interface."""

from __future__ import annotations

from pathlib import Path

import click

from ridgewind.cli.common import FOLDER, SETTINGS, Refusal
from ridgewind.library import moving
from ridgewind.library.library import Library
from ridgewind.services import sequencing, timelines
from ridgewind.store import database, outings

FILE = click.Path(dir_okay=False, path_type=Path)


@click.command(context_settings=SETTINGS)
@click.argument("name", required=False)
@click.option("--data", type=FOLDER, required=True, help="Folder of the library.")
@click.option("--otio", type=FILE, help="Write an OpenTimelineIO time line there.")
@click.option("--json", "json_file", type=FILE, help="Write the pieces as JSON there.")
def sequence(name: str | None, data: Path, otio: Path | None, json_file: Path | None) -> None:
    """Write the sequence of the outing NAME; without a NAME, list them, one a line.

    \b
    Examples:
      ridgewind sequence --data ~/films/ridgewind
      ridgewind sequence "Harrow Top" --data ~/films/ridgewind --otio harrow-top.otio
    """
    library = Library(moving.where(data))
    if not library.database.exists():
        raise Refusal(f"{data}: holds no library; give the folder that --data was served from")
    with database.opened(library.database) as db:
        lines = outings.lines(db)
        if name is None:
            for line in lines:
                click.echo(line.row.name)
            return
        found = next((line.row for line in lines if line.row.name == name), None)
        if found is None:
            raise Refusal(f"{name}: no such outing; `ridgewind sequence --data {data}` lists them")
        told = sequencing.sequence_of(db, found.id)
    if otio is not None:
        otio.write_text(
            timelines.as_otio(told, timelines.at_home(library.original)), encoding="utf-8"
        )
    if json_file is not None:
        json_file.write_text(timelines.as_json(told), encoding="utf-8")
    if otio is None and json_file is None:
        click.echo(timelines.as_json(told), nl=False)
