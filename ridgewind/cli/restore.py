"""The subcommand `ridgewind restore`: a library from an archive, or an archive into a library."""

from __future__ import annotations

import sys
from pathlib import Path

import click

from ridgewind.cli.common import FOLDER, SETTINGS, Refusal, Told, writing
from ridgewind.library import moving
from ridgewind.library.library import Library, LibraryBusyError
from ridgewind.services.errors import ArchiveError
from ridgewind.services.merging import Came, Choice, Difference, merge
from ridgewind.services.restoring import restore as restored
from ridgewind.store.errors import NewerSchemaError, StorageError

MOST_LISTED = 20


@click.command(context_settings=SETTINGS)
@click.argument("file", type=click.Path(path_type=Path, exists=True, dir_okay=False))
@click.argument("library", type=FOLDER)
@click.option(
    "--differing",
    type=click.Choice(["ask", "ours", "theirs"]),
    default="ask",
    show_default=True,
    help="Of things that both have, and not alike: keep the library's, or take the archive's.",
)
def restore(file: Path, library: Path, differing: str) -> None:
    """Make a LIBRARY of an archive FILE, or bring the archive into one that is in use.

    Every part is compared with its checksum first. In a folder that is empty or not there, the
    library is there whole, or not at all. Into a library comes what it lacks; what is the same
    stays, and what differs is asked. All of it comes, or nothing; Settings takes it back for a
    week.

    \b
    Examples:
      ridgewind restore ridgewind-may.zip ~/films/ridgewind
      ridgewind restore laptop.zip ~/films/ridgewind --differing ours
    """
    library = moving.where(library)
    told = Told("Restored")
    try:
        with writing():
            if (library / "library.db").is_file():
                shelf = Library(library)
                with shelf.locked():
                    shelf.wait_for_workers()
                    came = merge(
                        file, shelf,
                        choose=lambda found: _choose(found, differing, told),
                        on_progress=told.at,
                    )  # fmt: skip
                    shelf.seal()
                told.end()
                _tell(library, came)
                return
            found = restored(file, library, on_progress=told.at)
    except LibraryBusyError:
        text = f"{library}: Ridgewind is using this library; stop it, and restore then"
        raise Refusal(text) from None
    except ArchiveError as error:
        raise Refusal(f"{error.message} {error.hint}") from None
    except (StorageError, NewerSchemaError) as error:
        raise Refusal(f"{library}: the database does not serve ({error})") from None
    told.end()
    click.echo(f"{library}: {found.takes} takes, {found.films} films")
    for words, names in (("were missing", found.missing), ("had changed", found.changed)):
        if names:
            line = f"{len(names)} originals {words} when this archive was made: {', '.join(names)}"
            click.echo(f"ridgewind: {line}", err=True)


def _choose(found: list[Difference], differing: str, told: Told) -> list[Choice]:
    """What is kept of each; asked where nothing was said."""
    told.end()
    if differing != "ask":
        return ["theirs" if differing == "theirs" else "ours"] * len(found)
    if not sys.stdin.isatty():
        listed = "".join(f"\n  {_words(one)}" for one in found[:MOST_LISTED])
        more = f"\n  and {len(found) - MOST_LISTED} more" if len(found) > MOST_LISTED else ""
        raise Refusal(
            f"{_things(found)} in both, and not alike; nothing was changed. Say "
            f"--differing ours or --differing theirs, or run it in a terminal:{listed}{more}"
        )
    click.echo(f"{_things(found)} in both, and not alike.")
    chosen: list[Choice] = []
    for one in found:
        answer = click.prompt(
            f"{_words(one)}\n  keep the library's (l) or take the archive's (a); capitals for all",
            type=click.Choice(["l", "a", "L", "A"]),
            default="l",
            show_choices=False,
        )
        choice: Choice = "theirs" if answer in "aA" else "ours"
        if answer in "LA":
            return [*chosen, *([choice] * (len(found) - len(chosen)))]
        chosen.append(choice)
    return chosen


def _things(found: list[Difference]) -> str:
    return "One thing is" if len(found) == 1 else f"{len(found)} things are"


def _words(one: Difference) -> str:
    return f"{one.words} {one.name!r} differs in {', '.join(one.what)}"


def _tell(library: Path, came: Came) -> None:
    listed = ", ".join(f"{count} × {words}" for words, count in came.came.items()) or "nothing"
    click.echo(
        f"{library}: came: {listed}; {came.same} things were here alike, {came.kept} that differ "
        f"stay, {came.replaced} were replaced. Settings, Kept for good, takes it back for a week."
    )
