"""What workers send back, piece by piece, until it is whole."""

from __future__ import annotations

import hashlib
import shutil
from pathlib import Path

from ridgewind.films.orders import MeasureResult, RenderResult
from ridgewind.jobs.remote import believable, wire
from ridgewind.jobs.remote.wire import Result
from ridgewind.library.library import SPARE_BYTES, Library
from ridgewind.media.errors import DISK_FULL, MediaError
from ridgewind.store.jobs import Fault, Kind

MOST_PIECE_BYTES = 8 << 20
MOST_PART_BYTES = 200 << 30
MOST_RESULT_BYTES = 256 << 20
"""Read at once; an hour at 60 frames a second is 40 MB."""

PARTS: dict[Kind, tuple[str, ...]] = {
    "measure": ("result", "copy", "still"),
    "render": ("result", "film"),
}
"""What a worker sends back; of a film that cannot be done, the result alone."""

PART_NAMES = sorted({name for names in PARTS.values() for name in names})


class PartError(Exception):
    """What was sent back is not what was told of it."""


class Parts:
    """Of all leases of a library; one thread at a time for each lease."""

    def __init__(self, library: Library) -> None:
        self._library = library

    def path(self, lease: str, part: str) -> Path:
        """Where a part arrives: emptied with everything that had half arrived at a start. Raises
        PartError for one that there is not."""
        if part not in PART_NAMES:
            raise PartError
        named = hashlib.sha256(lease.encode()).hexdigest()[:24]
        return self._library.incoming / f"lease-{named}-{part}"

    def received(self, lease: str, part: str) -> int:
        """Bytes that are here. Raises PartError."""
        path = self.path(lease, part)
        return path.stat().st_size if path.exists() else 0

    def append(self, lease: str, part: str, offset: int, piece: bytes) -> int:
        """Returns how much is here; a piece that begins elsewhere changes nothing. Raises
        PartError, and MediaError where the disk is full."""
        here = self.received(lease, part)
        if offset != here:
            return here
        if here + len(piece) > MOST_PART_BYTES:
            raise PartError
        if shutil.disk_usage(self._library.root).free < len(piece) + SPARE_BYTES:
            raise MediaError(*DISK_FULL)
        with self.path(lease, part).open("ab") as file:
            file.write(piece)
        return here + len(piece)

    def result(self, lease: str, kind: Kind, digests: dict[str, str]) -> Result:
        """What came of the work, where all parts are here and are what was told of them. digests:
        SHA-256 of each. Raises PartError."""
        names = set(digests)
        if "result" not in names or not names <= set(PARTS[kind]):
            raise PartError
        for name, digest in digests.items():
            if sha256_of(self.path(lease, name)) != digest:
                self.path(lease, name).unlink(missing_ok=True)
                raise PartError
        if not all(believable.is_believable(name, self.path(lease, name)) for name in names):
            raise PartError
        told = self.path(lease, "result")
        if told.stat().st_size > MOST_RESULT_BYTES:
            raise PartError
        try:
            result = wire.result_read(told.read_text(encoding="utf-8"))
        except (wire.WireError, UnicodeDecodeError) as error:
            raise PartError from error
        wanted = MeasureResult if kind == "measure" else RenderResult
        whole = isinstance(result, wanted) and names == set(PARTS[kind])
        if not (whole or isinstance(result, Fault)):
            raise PartError
        return result

    def remove(self, lease: str) -> None:
        """Nothing more comes."""
        for part in PART_NAMES:
            self.path(lease, part).unlink(missing_ok=True)


def sha256_of(path: Path) -> str:
    """Of a file, "" where there is none."""
    if not path.is_file():
        return ""
    with path.open("rb") as file:
        return hashlib.file_digest(file, "sha256").hexdigest()
