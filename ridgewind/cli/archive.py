"""The subcommand `ridgewind archive`: a whole library in one file of open parts."""

from __future__ import annotations

from datetime import UTC, datetime
from pathlib import Path

import click

from ridgewind.cli.common import FILE, FOLDER, SETTINGS, Refusal, Told, writing
from ridgewind.library import moving
from ridgewind.library.library import Library
from ridgewind.media.whole import whole_file
from ridgewind.services import archiving
from ridgewind.services.errors import ArchiveError
from ridgewind.store.errors import StorageError


@click.command(context_settings=SETTINGS)
@click.argument("library", type=FOLDER)
@click.argument("file", type=FILE)
@click.option("--without-films", is_flag=True, help="Only what was measured and said.")
def archive(library: Path, file: Path, without_films: bool) -> None:
    """Write the LIBRARY into one ZIP FILE: tables, paths, sequences and films as they came.

    It can be done while Ridgewind runs. `ridgewind restore` makes a library of it again.

    \b
    Examples:
      ridgewind archive ~/films/ridgewind ridgewind-may.zip
      ridgewind archive ~/films/ridgewind notes.zip --without-films
    """
    source = Library(moving.where(library))
    if not source.database.exists():
        raise Refusal(f"{library}: holds no library; give the folder that --data was served from")
    made_at = datetime.now(UTC).isoformat(timespec="seconds")
    told = Told("Archived")
    try:
        with writing(), whole_file(file) as partial, partial.open("xb") as target:
            pieces = archiving.archive(
                source,
                films=not without_films,
                made_at=made_at,
                on_progress=lambda done: told.at(done.done / max(done.total, 1)),
            )
            for piece in pieces:
                target.write(piece)
    except ArchiveError as error:
        raise Refusal(f"{error.message} {error.hint}") from None
    except StorageError as error:
        raise Refusal(f"{library}: the database does not serve ({error})") from None
    told.end()
    click.echo(f"{file}: {file.stat().st_size / 1e6:.1f} MB")
