"""Put a library in order at start: what the last server left half done, and what has expired.

Nothing is deleted only because the store does not know it.
"""

from __future__ import annotations

import logging
import os
import shutil
from pathlib import Path

from ridgewind.library import logs
from ridgewind.library.library import KEEP_DELETED_DAYS, Library
from ridgewind.media.whole import PARTIAL_PATTERN
from ridgewind.store import briefs, bulk_changes, clips, database, jobs, kit, merging, takes
from ridgewind.store.database import Connection
from ridgewind.store.names import ORIGINAL

log = logging.getLogger(__name__)

FOUND = "Found in the library"


def tidy(library: Library) -> int:
    """Remove half-arrived and half-made files, and what was deleted or cleared too long ago; put
    originals where the store says, and take in those that it does not know. Returns how many these
    were. Call once, at start, when no worker is left."""
    for leftover in library.incoming.iterdir():
        _remove(leftover)
    take_over(library)
    for folder in library.folders:
        for leftover in folder.glob(PARTIAL_PATTERN):
            _remove(leftover)
    with database.opened(library.database) as db:
        found = _agree(library, db)
        for take in takes.deleted_before(db, days=KEEP_DELETED_DAYS):
            library.forget(db, take.id)
        for clip in clips.cleared_before(db, days=KEEP_DELETED_DAYS):
            library.let_go(clip)
        _remove_late(library, db)
        bulk_changes.forget(db, days=KEEP_DELETED_DAYS)
        merging.forget(db, days=KEEP_DELETED_DAYS)
    return found


def take_over(library: Library) -> None:
    """Move the films that a merge has made known over, with their copies and stills, and remove
    what else it has left. Call while no merge runs."""
    other = Library(library.merging)
    if other.originals.is_dir():
        with database.opened(library.database) as db:
            known = [clips.by_id(db, number) for number in clips.numbers(db)]
        for clip in known:
            for source, target in (
                (other.homes_of(clip.file)[0][0], library.homes_of(clip.file)[0][0]),
                (other.copy_of(clip.sha256), library.copy_of(clip.sha256)),
                (other.still_of(clip.sha256), library.still_of(clip.sha256)),
            ):
                if source.is_file() and not target.exists():
                    os.replace(source, target)
        _take_over_unknown(library, other)
    half = library.merging.with_name(f".{library.merging.name}.restoring")
    for leftover in (library.merging, half):
        shutil.rmtree(leftover, ignore_errors=True)


def _take_over_unknown(library: Library, other: Library) -> None:
    """Move the originals over that the other library's own store did not know; they become takes at
    the next start, as its own would have. Those of takes that were deleted there stay behind."""
    if not other.database.is_file():
        return
    with database.opened(other.database) as db:
        known = clips.originals(db)
    for file in sorted(_names(other.originals) - set(known)):
        if ORIGINAL.fullmatch(file) and not library.original(file).exists():
            os.replace(other.original(file), library.original(file))


def _remove(leftover: Path) -> None:
    """A file; a folder that somebody put here is left alone."""
    if leftover.is_file() or leftover.is_symlink():
        leftover.unlink(missing_ok=True)


def _remove_late(library: Library, db: Connection) -> None:
    """Remove from the second disk what was removed for good while it was away, unless the same film
    was brought in again."""
    if library.second_disk is not None and not library.second_disk.is_here:
        return
    removed = set(clips.removed(db))
    if not removed:
        return
    for file in removed - set(clips.originals(db)):
        for place in library.places_of(file):
            place.unlink(missing_ok=True)
    with database.atomic(db):
        clips.forget_removed(db)


def _agree(library: Library, db: Connection) -> int:
    here, aside = (_names(folder) for folder in (library.originals, library.cleared))
    known = clips.originals(db)
    taken_in = 0
    for file, cleared in known.items():
        if file in (here if cleared else aside - here):
            library.agree(file, cleared=cleared)
    for file in sorted((here | aside) - set(known)):
        if found := ORIGINAL.fullmatch(file):
            library.agree(file, cleared=False)
            taken_in += _take_in(library, db, file, found[1])
    return taken_in


def _names(folder: Path) -> set[str]:
    with os.scandir(folder) as found:
        return {one.name for one in found if one.is_file()}


def _take_in(library: Library, db: Connection, file: str, sha256: str) -> bool:
    """A film or a motion log that arrived whole, but whose take was not kept any more, or not yet.
    Returns whether it is new."""
    if clips.by_hash(db, sha256) is not None:
        return False
    name = f"{FOUND}, {sha256[:6]}"
    if logs.take_in_again(library, db, file, name):
        log.warning("the log %s was in the library without a take; it has one now", file)
        return True
    size_bytes = library.original(file).stat().st_size
    with database.atomic(db):
        clip_id = clips.add(db, sha256=sha256, file=file, size_bytes=size_bytes)
        takes.add(
            db,
            clip_id=clip_id,
            name=name,
            brief_id=briefs.usual(db).id,
            setup_id=kit.usual_setup_id(db),
        )
        jobs.enqueue(db, "measure", clip_id)
    log.warning("%s was in the library without a take; it has one now", file)
    return True
