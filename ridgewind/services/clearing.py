"""What can still be brought back, and until when: deleted takes, and originals put aside."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date, timedelta

from ridgewind.library.library import KEEP_DELETED_DAYS, Library
from ridgewind.moments import moment_of
from ridgewind.services.errors import ORIGINAL_GONE, GoneError
from ridgewind.store import clips, takes
from ridgewind.store.clips import ClipRow
from ridgewind.store.database import Connection


@dataclass(frozen=True)
class Aside:
    """An original that was put aside. gone_on: the day on which it goes for good, None where it
    is gone already."""

    clip: ClipRow
    name: str
    gone_on: date | None


@dataclass(frozen=True)
class Clearing:
    """rejected: films whose originals could be put aside. aside: those that were."""

    rejected: tuple[ClipRow, ...]
    aside: tuple[Aside, ...]

    @property
    def rejected_bytes(self) -> int:
        return sum(clip.size_bytes for clip in self.rejected)

    @property
    def aside_bytes(self) -> int:
        return sum(one.clip.size_bytes for one in self.aside if one.gone_on is not None)


def clearing(library: Library, db: Connection) -> Clearing:
    """What could be cleared from the disk, and what was."""
    return Clearing(
        tuple(clips.rejected(db)), tuple(_aside(library, db, one) for one in clips.cleared(db))
    )


@dataclass(frozen=True)
class Deleted:
    """A take that was deleted, and the day on which it goes for good."""

    take_id: int
    name: str
    gone_on: date


def deleted(db: Connection) -> list[Deleted]:
    """Takes that can still be brought back, the last deleted first."""
    found = []
    for take in takes.deleted(db):
        assert take.deleted_at is not None
        gone = moment_of(take.deleted_at) + timedelta(days=KEEP_DELETED_DAYS)
        found.append(Deleted(take.id, take.name, gone.date()))
    return found


def bring_back(library: Library, db: Connection, clip_id: int) -> None:
    """Bring an original back. Raises GoneError, NotFoundError."""
    if not library.bring_back(db, clip_id):
        raise GoneError(*ORIGINAL_GONE)


def _aside(library: Library, db: Connection, clip: ClipRow) -> Aside:
    assert clip.cleared_at is not None
    found = takes.of_clip(db, clip.id)
    gone = moment_of(clip.cleared_at) + timedelta(days=KEEP_DELETED_DAYS)
    return Aside(
        clip, found[0].name if found else clip.file, gone.date() if library.is_aside(clip) else None
    )
