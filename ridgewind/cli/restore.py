"""The subcommand `ridgewind restore`: a library from an archive."""

from __future__ import annotations

from pathlib import Path

import click

from ridgewind.cli.common import FOLDER, SETTINGS, Refusal, Told, writing
from ridgewind.services.errors import ArchiveError
from ridgewind.services.restoring import restore as restored
from ridgewind.store.errors import StorageError


@click.command(context_settings=SETTINGS)
@click.argument("file", type=click.Path(path_type=Path, exists=True, dir_okay=False))
@click.argument("library", type=FOLDER)
def restore(file: Path, library: Path) -> None:
    """Make a LIBRARY of an archive FILE, in a folder that is empty or not there.

    Every part is compared with its checksum first; the library is there whole, or not at all.

    \b
    Example:
      ridgewind restore ridgewind-may.zip ~/films/ridgewind
    """
    told = Told("Restored")
    try:
        with writing():
            found = restored(file, library, on_progress=told.at)
    except ArchiveError as error:
        raise Refusal(f"{error.message} {error.hint}") from None
    except StorageError as error:
        raise Refusal(f"{library}: the database does not serve ({error})") from None
    told.end()
    click.echo(f"{library}: {found.takes} takes, {found.films} films")
