"""Where everything of a library is, on its own disk and on the second one.

library.db   the store              originals/   films as they came, named by content
queue.db     the waiting work       copies/      browser copies, can be made again
lock         held by the server     stills/      pictures for the list
workers/     held by them, each     previews/    planned moves, can be made again
key          opens the pages        renders/     films made from takes
network/     TLS keys, private      sequences/   joined takes, can be made again
snapshots/   copies of the store    cleared/     originals put aside, gone after a week
second-disk  where originals may    incoming/    half-arrived files, emptied at start
             stay beside it         uploads/     films on their way, for a day
damaged      the store was found    .merging/    another library on its way into this one
             to be so
"""

from __future__ import annotations

from pathlib import Path

from ridgewind.library import second_disk
from ridgewind.library.second_disk import SecondDisk
from ridgewind.media.errors import AWAY, UnreadableError
from ridgewind.store.names import require_digest, require_original


class Places:
    """Paths of one library folder; nothing is made or changed."""

    def __init__(self, root: Path) -> None:
        self.root = root = root.absolute()  # whatever folder the program is started from
        self.database = root / "library.db"
        self.queue = root / "queue.db"
        self.originals = root / "originals"
        self.copies = root / "copies"
        self.stills = root / "stills"
        self.previews = root / "previews"
        self.renders = root / "renders"
        self.sequences = root / "sequences"
        self.cleared = root / "cleared"
        self.incoming = root / "incoming"
        self.uploads = root / "uploads"
        self.network = root / "network"
        self.snapshots = root / "snapshots"
        self.merging = root / ".merging"
        self.second_disk_note = root / "second-disk"
        self.damaged_mark = root / "damaged"
        self.lock = root / "lock"
        self.workers = root / "workers"

    @property
    def second_disk(self) -> SecondDisk | None:
        """Where originals may stay beside this disk; None where there is none."""
        return second_disk.read(self.second_disk_note)

    # Every path of a film, or of what is made of it, comes from here and from a checked name.

    def original(self, file: str) -> Path:
        """Where an original is: on this disk, or on the second one, whether that is here or not.
        Raises UnsafeNameError, as all that take a name."""
        here, disk = self.originals / require_original(file), self.second_disk
        return here if disk is None or here.is_file() else disk.folder / file

    def homes_of(self, file: str) -> list[tuple[Path, Path]]:
        """Where an original may be, and where it may be put aside, on each disk."""
        require_original(file)
        return [(home / file, put_aside / file) for home, put_aside in self.homes]

    def places_of(self, file: str) -> list[Path]:
        """Wherever an original may be, put aside or not."""
        return [place for home in self.homes_of(file) for place in home]

    def is_away(self, file: str) -> bool:
        """Whether an original is on a disk that is not here now."""
        disk = self.second_disk
        here = self.originals / require_original(file)
        return not (disk is None or disk.is_here or here.is_file())

    def film(self, file: str) -> Path:
        """Where an original is, to be read, also where it is put aside. Raises UnreadableError
        where it is on a disk that is away."""
        found = next((place for place in self.places_of(file) if place.is_file()), None)
        if found is None and self.is_away(file):
            raise UnreadableError(*AWAY)
        return found or self.original(file)

    @property
    def homes(self) -> tuple[tuple[Path, Path], ...]:
        """Folders of originals, and of those that are put aside, on each disk."""
        disk = self.second_disk
        own = (self.originals, self.cleared)
        return (own,) if disk is None else (own, (disk.folder, disk.cleared))

    @property
    def folders(self) -> tuple[Path, ...]:
        """All folders that hold files."""
        return (
            self.originals, self.copies, self.stills, self.previews, self.renders,
            self.sequences, self.cleared, self.incoming, self.uploads, self.snapshots,
        )  # fmt: skip

    def aside(self, file: str) -> Path:
        """Where an original is that was put aside, or would be."""
        places = [put_aside for _, put_aside in self.homes_of(file)]
        return next((place for place in places if place.is_file()), places[0])

    def copy_of(self, sha256: str) -> Path:
        return self.copies / f"{require_digest(sha256)}.mp4"

    def still_of(self, sha256: str) -> Path:
        return self.stills / f"{require_digest(sha256)}.jpg"

    def preview_of(self, name: str) -> Path:
        return self.previews / f"{name}.mp4"

    def sequence_film_of(self, film_id: int) -> Path:
        """Where a sequence that was assembled is kept."""
        return self.sequences / f"{film_id}.mp4"

    def sequence_part_of(self, key: str) -> Path:
        """Where a piece of sequences is kept, to be used again."""
        return self.sequences / f"part-{key}.mp4"

    def render_of(self, render_id: int) -> Path:
        return self.renders / f"{render_id}.mp4"
