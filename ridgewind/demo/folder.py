"""The demo's folder: made anew at each start, unless it holds anything of the shooter's own."""

from __future__ import annotations

import hashlib
import shutil
from pathlib import Path

from ridgewind.demo.mark import MARK
from ridgewind.demo.story import DEMO_TAKES
from ridgewind.library.library import Library

FILES_OF_A_START = {"lock", "workers", "key"}
"""What a start leaves in a folder before it writes the mark."""


class OtherFilesError(Exception):
    """The folder holds what the demo has not put there."""


def begin(library: Library) -> bool:
    """Make a folder ready to be filled; call with the library locked and its port taken.

    Returns False where it is a demo that holds films of the shooter's own: it stays as it is.
    Raises OtherFilesError, before anything is touched, where it is no demo and not empty.
    """
    mark = library.root / MARK
    if mark.exists():
        if _own_films(library, set(mark.read_text(encoding="utf-8").split())):
            return False
    elif {path.name for path in library.root.iterdir()} - FILES_OF_A_START:
        raise OtherFilesError(str(library.root))
    mark.write_text("\n".join(sorted(_shipped())) + "\n", encoding="utf-8")
    _empty(library)
    return True


def _own_films(library: Library, marked: set[str]) -> bool:
    known = marked | _shipped()
    folders = (folder for folder in (library.originals, library.cleared) if folder.is_dir())
    return any(path.stem not in known for folder in folders for path in folder.iterdir())


def _shipped() -> set[str]:
    return {_digest(take.file) for take in DEMO_TAKES}


def _digest(file: Path) -> str:
    return hashlib.sha256(file.read_bytes()).hexdigest()


def _empty(library: Library) -> None:
    """Clear a demo's library; the folder itself, its mark and its locks stay."""
    for folder in library.folders:
        shutil.rmtree(folder, ignore_errors=True)
    for base in (library.database, library.queue):
        for suffix in ("", "-wal", "-shm"):
            base.with_name(base.name + suffix).unlink(missing_ok=True)
