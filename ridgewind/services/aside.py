"""What would take much memory, in a process of its own that ends with it.

A motion log of a day is a hundred megabytes of text, and several times that while it is read: the
server, which is one process for all that is asked, never holds it.
"""

from __future__ import annotations

from collections.abc import Callable
from concurrent.futures import ProcessPoolExecutor
from concurrent.futures.process import BrokenProcessPool
from multiprocessing import get_context
from pathlib import Path
from typing import Any, TypeVar

from ridgewind.core.motion.turn_rates import LogError
from ridgewind.library.library import Library
from ridgewind.store import database
from ridgewind.store.database import Connection

LARGE_BYTES = 4 << 20
"""Five minutes of turning rates: read in a tenth of a second, in some forty megabytes."""

T = TypeVar("T")


def work_on(
    library: Library, db: Connection, work: Callable[..., T], log: Path, **told: object
) -> T:
    """What a function of the library, a connection, a log and what is told returns or raises; of a
    large log in another process. Raises LogError where that process comes to an end."""
    if log.stat().st_size <= LARGE_BYTES:
        return work(library, db, log, **told)
    with ProcessPoolExecutor(1, mp_context=get_context("spawn")) as pool:
        try:
            done, fault = pool.submit(_outcome, library.root, work, log, told).result()
        except BrokenProcessPool:
            wants = "cut it to the stretch that belongs to the take"
            raise LogError("there was not enough memory to read the log", wants) from None
    if fault is not None:
        raise fault.rebuilt()
    return done  # type: ignore[no-any-return]


class _Fault:
    """An exception on its way to another process; its own way calls it with what it never had."""

    def __init__(self, error: Exception) -> None:
        self._kind, self._args, self._told = type(error), error.args, vars(error)

    def rebuilt(self) -> Exception:
        error = self._kind.__new__(self._kind, *self._args)
        vars(error).update(self._told)
        return error


def _outcome(
    root: Path, work: Callable[..., Any], log: Path, told: dict[str, Any]
) -> tuple[Any, _Fault | None]:
    library = Library(root)
    try:
        with database.opened(library.database) as db:
            return work(library, db, log, **told), None
    except Exception as error:  # raised where it was asked for
        return None, _Fault(error)
