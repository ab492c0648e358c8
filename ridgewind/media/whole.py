"""Files that are there whole, or not at all."""

from __future__ import annotations

import os
import re
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

PARTIAL_PATTERN = ".*.part"
"""Names of files that were left half-written by a process that died."""


def partial_of(path: Path) -> Path:
    """Where a file of this process is written until it is whole."""
    return path.with_name(f".{path.name}.{os.getpid()}.part")


def own_only(path: str, flags: int) -> int:
    """Opens a file that no other user of the computer can read; an opener of `open`."""
    return os.open(path, flags, 0o600)


def sweep_partials(folder: Path, ending: str) -> None:
    """Remove what processes that died have left half-written of files with an ending."""
    left = re.compile(rf"\..+{re.escape(ending)}\.(\d+)\.part")
    for path in folder.glob(PARTIAL_PATTERN):
        found = left.fullmatch(path.name)
        if found is not None and not is_alive(int(found[1])):
            path.unlink(missing_ok=True)


def is_alive(pid: int) -> bool:
    """Whether a process runs."""
    try:
        os.kill(pid, 0)
    except ProcessLookupError:
        return False
    except (PermissionError, OverflowError):
        return True
    return True


@contextmanager
def whole_file(path: Path) -> Iterator[Path]:
    """A path to write to; it becomes `path` at the end, and an error leaves nothing.

    Raises OSError as the file system gives it.
    """
    partial = partial_of(path)
    try:
        yield partial
        os.replace(partial, path)
    finally:
        partial.unlink(missing_ok=True)
