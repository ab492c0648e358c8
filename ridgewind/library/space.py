"""Where the space of a library goes, and what of it can be made again."""

from __future__ import annotations

from dataclasses import dataclass
from pathlib import Path

from ridgewind.library.library import Library


@dataclass(frozen=True)
class Kind:
    """Files of one kind. made: all of them can be made again whenever they are wanted."""

    key: str
    bytes: int
    files: int
    made: bool


def kinds(library: Library) -> tuple[Kind, ...]:
    """What a library holds on its disk, and on the second one where that is here, in the order in
    which it matters."""
    found = [
        ("films", _files(library.originals), False),
        ("second", _on_second(library), False),
        ("rejected", _files(library.cleared), False),
        ("arriving", [*_files(library.uploads), *_files(library.incoming)], False),
        ("copies", [*_files(library.copies), *_files(library.stills)], False),
        ("renders", [*_files(library.renders), *_whole(library)], False),
        ("database", [path for path in _files(library.root) if _is_database(path)], False),
        ("snapshots", _files(library.snapshots), False),
        ("parts", _again(library), True),
    ]
    return tuple(
        Kind(key, sum(_size(path) for path in paths), len(paths), made)
        for key, paths, made in found
    )


def free(library: Library) -> int:
    """Take away what can be made again at once; returns the bytes that this frees."""
    freed = 0
    for path in _again(library):
        size = _size(path)
        path.unlink(missing_ok=True)
        freed += size
    return freed


def _again(library: Library) -> list[Path]:
    """Pieces of sequences, and moves that were looked at before they were filmed."""
    parts = [path for path in _files(library.sequences) if path.name.startswith("part-")]
    return [*parts, *_files(library.previews)]


def _whole(library: Library) -> list[Path]:
    return [path for path in _files(library.sequences) if not path.name.startswith("part-")]


def _on_second(library: Library) -> list[Path]:
    disk = library.second_disk
    if disk is None or not disk.is_here:
        return []
    return [path for path in _files(disk.folder) if not path.name.startswith(".")]


def _is_database(path: Path) -> bool:
    return path.name.startswith(("library.db", "queue.db"))


def _files(folder: Path) -> list[Path]:
    if not folder.is_dir():
        return []
    return [path for path in folder.iterdir() if path.is_file()]


def _size(path: Path) -> int:
    try:
        return path.stat().st_size
    except FileNotFoundError:
        return 0
