"""Run the application: one lock, one local socket, a library in order, and then its pages."""

from __future__ import annotations

import logging
import socket
import threading
from collections.abc import Iterator
from contextlib import contextmanager, suppress
from dataclasses import replace
from importlib import import_module

from ridgewind.imports import uncollected
from ridgewind.library import moving
from ridgewind.library.library import Library
from ridgewind.library.tidying import tidy
from ridgewind.moments import utc_text
from ridgewind.store import database, settings
from ridgewind.store.errors import DamagedError
from ridgewind.store.settings import MendedNote
from ridgewind.web.start import HOST, Start

PAGES = "ridgewind.web.serving"


class PortInUseError(Exception):
    """Something else listens on the port."""


class LibraryGoneError(Exception):
    """The library was moved to a disk that is not here."""


def run(start: Start) -> None:
    """Serve until interrupted; where the library is moved meanwhile, at its new place.

    Raises LibraryBusyError, LibraryGoneError, PortInUseError, StoreError, OSError or whatever
    `before` does, before anything is started.
    """
    logging.basicConfig(level=logging.WARNING, format="ridgewind: %(message)s")
    root = moving.where(start.library)
    if root != start.library and not (root / "library.db").is_file():
        raise LibraryGoneError(str(root))
    after: Start | None = replace(start, library=root)
    while after is not None:
        after = _serve(after)


def _serve(start: Start) -> Start | None:
    """Returns how it goes on where the library was moved."""
    library = Library(start.library)
    with library.locked(), _listening(start.port) as listener:
        with _imported_meanwhile(PAGES):
            library.close_to_others()
            library.key()
            library.wait_for_workers()
            start.before(library)
            _put_in_order(library, start)
        from ridgewind.web.serving import serve  # noqa: PLC0415 (only now, see there)

        return serve(start, library, listener)


@contextmanager
def _imported_meanwhile(module: str) -> Iterator[None]:
    """Import a module beside what is done in this context: one waits for the disk, the other for
    nothing. What it raises is raised where it is imported next."""
    beside = threading.Thread(target=_imported, args=(module,), daemon=True)
    beside.start()
    yield
    beside.join()


def _imported(module: str) -> None:
    with suppress(Exception), uncollected():
        import_module(module)


def _put_in_order(library: Library, start: Start) -> None:
    """What was mended is told on the console now, and on the pages until it is read."""
    mended = library.mend_if_damaged(thorough=False)
    try:
        library.prepare()
    except DamagedError:  # a large one, which was not looked through
        mended = library.mend_if_damaged()
        library.prepare()
    films = tidy(library)
    if mended is None:
        return
    note = MendedNote(utc_text(mended.made_at), films, mended.damaged.name)
    with database.opened(library.database) as db, database.atomic(db):
        settings.set_mended(db, note)
    start.announce(
        f"The database was damaged: it is the copy of {note.copied_at} again; films that came "
        f"since and were taken in anew: {films}. The damaged one is snapshots/{note.aside}."
    )


def _listening(port: int) -> socket.socket:
    listener = socket.socket(socket.AF_INET, socket.SOCK_STREAM)
    # Where two programs could share one port, this one asks for it alone.
    alone = getattr(socket, "SO_EXCLUSIVEADDRUSE", None)
    listener.setsockopt(socket.SOL_SOCKET, alone or socket.SO_REUSEADDR, 1)
    try:
        listener.bind((HOST, port))
        listener.listen(128)
    except OSError as error:
        listener.close()
        raise PortInUseError(str(port)) from error
    return listener
