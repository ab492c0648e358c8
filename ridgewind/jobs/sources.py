"""Where the frames of a measured take come from: its original, or the browser copy of one that was
put aside."""

from __future__ import annotations

from ridgewind.films.rendering import Source
from ridgewind.library.library import Library
from ridgewind.services.pieces import MeasuredTake


def source_of(library: Library, take: MeasuredTake, *, rate_hz: float) -> Source:
    """rate_hz: of a film whose own is not known."""
    row = take.clip
    original = library.original(row.file)
    # A browser copy begins with its film; paths are of the file.
    whole = original.is_file()
    return Source(
        original if whole else library.copy_of(row.sha256),
        0.0 if whole else -take.footage.first_s,
        (row.width or 1, row.height or 1),
        row.fps or rate_hz,
        take.footage.subject,
    )
