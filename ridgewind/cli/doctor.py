"""The subcommand `ridgewind doctor`: what a machine is and can, as text that can be sent."""

from __future__ import annotations

import os
import platform
import shutil
import socket
import sys
import webbrowser
from collections.abc import Iterator
from importlib import metadata
from pathlib import Path

import click
from platformdirs import user_data_path

from ridgewind import __version__
from ridgewind.cli.common import FOLDER, PORT, SETTINGS
from ridgewind.library import moving, newest_error, snapshots
from ridgewind.library.library import Library
from ridgewind.media import codecs
from ridgewind.store import clips, database
from ridgewind.store.errors import StorageError

PACKAGES = ("numpy", "scipy", "opencv-python-headless", "flask", "waitress", "huey")
HOST = "127.0.0.1"


@click.command(context_settings=SETTINGS)
@click.option("--data", type=FOLDER, help="Folder of the library.")
@click.option("--port", type=PORT, default=8421, show_default=True)
def doctor(data: Path | None, port: int) -> None:
    """Tell what this machine has and can, to be sent with a question.

    It names no film, no person and no folder of yours.
    """
    root = data or user_data_path("ridgewind", appauthor=False)
    wrong = False
    for name, value, well in told(Library(moving.where(root)), port):
        wrong = wrong or not well
        click.echo(f"{' ' if well else '!'} {name:<9} {value}")
    if wrong:
        click.echo("Lines with ! say what does not serve.")
    sys.exit(1 if wrong else 0)


def told(library: Library, port: int) -> Iterator[tuple[str, str, bool]]:
    """Lines: what is told of, what is so, and whether it is well."""
    system = f"{platform.system()} {platform.release()} {platform.machine()}"
    yield "Ridgewind", f"{__version__}, Python {platform.python_version()}", True
    yield "Machine", f"{system}, {os.cpu_count()} cores", True
    versions = [f"{name} {metadata.version(name)}" for name in PACKAGES]
    yield "Packages", ", ".join([codecs.versions(), *versions]), True
    lacking = codecs.lacking()
    yield "Codecs", f"lacks {', '.join(lacking)}" if lacking else "all that are used", not lacking
    yield "Port", *_port(port)
    yield "Browser", *_browser()
    yield from _library(library)


def _port(port: int) -> tuple[str, bool]:
    with socket.socket() as probe:
        probe.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        try:
            probe.bind((HOST, port))
        except OSError:
            return f"{port} is taken (by Ridgewind itself, where it runs)", True
    return f"{port} is free", True


def _browser() -> tuple[str, bool]:
    try:
        webbrowser.get()
    except webbrowser.Error:
        return "none that can be opened from here; any of the last two years will do", True
    return "one can be opened", True


def _library(library: Library) -> Iterator[tuple[str, str, bool]]:
    place = next(one for one in (library.root, *library.root.parents) if one.exists())
    usage = shutil.disk_usage(place)
    free = f"{usage.free / 1e9:.1f} GB free of {usage.total / 1e9:.0f}"
    yield "Disk", free, usage.free > 1e9
    if not library.database.exists():
        yield "Library", "none yet; the first start makes it", True
        return
    may = os.access(library.root, os.R_OK | os.W_OK | os.X_OK)
    own = (library.root.stat().st_mode & 0o077) == 0
    rights = f"{'can' if may else 'cannot'} be read and written"
    yield "Library", f"{rights}, {'yours alone' if own else 'open to other users'}", may
    yield "Database", *_database(library)
    copies = snapshots.snapshots(library.snapshots)
    newest = f"{len(copies)}, the newest of {copies[0].made_at:%Y-%m-%d}" if copies else "none yet"
    yield "Copies", newest, True
    error = newest_error.newest(library.root)
    if error is None:
        yield "Error", "none that was not foreseen", True
        return
    yield "Error", f"{error.number} at {error.at}, version {error.version}: {error.kind}", True
    for where in error.where:
        yield "", where, True


def _database(library: Library) -> tuple[str, bool]:
    faults = database.faults(library.database)
    if faults:
        return "damaged; it is mended from its newest copy at the next start", False
    try:
        missing = database.missing(library.database)
        with database.opened(library.database) as db:
            films = len(clips.originals(db))
    except StorageError:
        return "cannot be read", False
    schema = "of this version" if not missing else f"{len(missing)} migrations behind"
    size = library.database.stat().st_size / 1e6
    return f"whole, {schema}, {films} films, {size:.1f} MB", True
