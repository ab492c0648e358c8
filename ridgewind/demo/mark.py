"""The mark of a demo's folder, apart from what makes one: every start of a server takes it away."""

from __future__ import annotations

from ridgewind.library.library import Library

MARK = "made-clips-only"
"""File that says that a folder was filled by the demo; it holds the digests of the clips."""


def disown(library: Library) -> None:
    """It is served as a library of one's own from now on, and no demo empties it again."""
    (library.root / MARK).unlink(missing_ok=True)


def note(library: Library, sha256: str) -> None:
    """Remember that the demo itself puts a file there, before it does."""
    with (library.root / MARK).open("a", encoding="utf-8") as mark:
        mark.write(f"{sha256}\n")
