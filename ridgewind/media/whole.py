"""Files that are there whole, or not at all."""

from __future__ import annotations

import os
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

PARTIAL_PATTERN = ".*.part"
"""Names of files that were left half-written by a process that died."""


def partial_of(path: Path) -> Path:
    """Where a file of this process is written until it is whole."""
    return path.with_name(f".{path.name}.{os.getpid()}.part")


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
