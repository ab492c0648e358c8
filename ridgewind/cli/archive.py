"""The subcommand `ridgewind archive`: a whole library in one file of open parts."""

from __future__ import annotations

from datetime import UTC, datetime
from pathlib import Path

import click

from ridgewind.cli.common import FILE, FOLDER, SETTINGS, Refusal, Told, writing
from ridgewind.library import moving
from ridgewind.library.library import Library
from ridgewind.media.whole import own_only, sweep_partials, whole_file
from ridgewind.services import archiving
from ridgewind.services.archiving import Report
from ridgewind.services.errors import ArchiveError
from ridgewind.store.errors import StorageError

NOT_WHOLE = 3
"""Exit status where an original is missing or has changed."""


@click.command(context_settings=SETTINGS)
@click.argument("library", type=FOLDER)
@click.argument("file", type=FILE)
@click.option("--without-films", is_flag=True, help="Only what was measured and said.")
def archive(library: Path, file: Path, without_films: bool) -> None:
    """Write the LIBRARY into one ZIP FILE: tables, paths, sequences and films as they came.

    It can be done while Ridgewind runs. `ridgewind restore` makes a library of it again. The exit
    status is 3 if an original is missing or has changed: the archive is made all the same, and
    those are named.

    \b
    Examples:
      ridgewind archive ~/films/ridgewind ridgewind-may.zip
      ridgewind archive ~/films/ridgewind notes.zip --without-films
    """
    source = Library(moving.where(library))
    if not source.database.exists():
        raise Refusal(f"{library}: holds no library; give the folder that --data was served from")
    made_at = datetime.now(UTC).isoformat(timespec="seconds")
    told, reports = Told("Archived"), list[Report]()
    sweep_partials(file.absolute().parent, file.suffix)
    try:
        with writing(), whole_file(file) as partial, open(partial, "xb", opener=own_only) as target:
            pieces = archiving.archive(
                source,
                films=not without_films,
                made_at=made_at,
                on_progress=lambda done: told.at(done.done / max(done.total, 1)),
                on_report=reports.append,
            )
            for piece in pieces:
                target.write(piece)
    except ArchiveError as error:
        raise Refusal(f"{error.message} {error.hint}") from None
    except StorageError as error:
        raise Refusal(f"{library}: the database does not serve ({error})") from None
    told.end()
    click.echo(f"{file}: {file.stat().st_size / 1e6:.1f} MB, {reports[0].files} originals")
    for line in lines_of(reports[0]):
        click.echo(f"ridgewind: {line}", err=True)
    if not reports[0].whole:
        raise SystemExit(NOT_WHOLE)


def lines_of(report: Report) -> list[str]:
    """What an archive lacks, in words."""
    lines = [f"missing: {one.name} ({one.file})" for one in report.missing]
    lines += [
        f"changed since it was taken in: {one.name} ({one.file}); it is in the archive as it is now"
        for one in report.changed
    ]
    if report.strays:
        lines.append(
            f"not in the archive, because they are not Ridgewind's: {', '.join(report.strays)}"
        )
    if report.uploads:
        lines.append(f"not in the archive, because they are still arriving: {report.uploads} films")
    if not report.whole:
        count = len(report.missing) + len(report.changed)
        lines.append(f"{count} originals are missing or changed; bring them in again if you can")
    return lines
