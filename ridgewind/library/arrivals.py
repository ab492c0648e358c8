"""Films that arrive in a folder: which of them are whole.

A film is whole when its size and date have stood still for a while and its index can be read; one
that stands still for long is taken as it is, so that its fault is told.
"""

from __future__ import annotations

import stat
from collections.abc import Collection, Sequence
from pathlib import Path

from ridgewind.library import folders
from ridgewind.media.errors import MediaError
from ridgewind.store.watched import FilmFile

STILL_S, GIVEN_UP_S = 2.0, 30.0
"""For so long a file stands still before it is tried, and before it is taken whatever it is (chosen
here: recorders and syncs write at least once a second)."""


def films_in(root: Path) -> list[FilmFile]:
    """Plain files that are films by their name, below a folder."""
    found = []
    for path in folders.films_below(root):
        name = str(path.relative_to(root))
        try:
            about = path.lstat()
            name.encode()
        except (OSError, ValueError):  # gone meanwhile, or no readable name
            continue
        if stat.S_ISREG(about.st_mode):
            found.append(FilmFile(name, about.st_size, about.st_mtime_ns))
    return found


class Stillness:
    """Remembers since when each file has stood still."""

    def __init__(self) -> None:
        self._since: dict[FilmFile, float] = {}

    def whole(
        self, root: Path, found: Sequence[FilmFile], settled: Collection[FilmFile], *, now_s: float
    ) -> list[FilmFile]:
        """Of the films of a folder, those that are whole and not settled yet. now_s: of a clock
        that only goes on."""
        fresh = [one for one in found if one not in settled and one.size_bytes > 0]
        self._since = {one: self._since.get(one, now_s) for one in fresh}
        return [one for one in fresh if self._is_whole(root, one, now_s - self._since[one])]

    def _is_whole(self, root: Path, film: FilmFile, still_s: float) -> bool:
        if still_s < STILL_S:
            return False
        return still_s >= GIVEN_UP_S or _readable(root / film.file)


def _readable(path: Path) -> bool:
    """Whether its index can be read: of most containers that is written last."""
    # The decoder, without which a server starts.
    from ridgewind.media.probe import open_film  # noqa: PLC0415

    try:
        with open_film(path):
            return True
    except MediaError:
        return False
