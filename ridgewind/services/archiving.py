"""A library as one file of open parts: everything that was filmed, measured and said.

manifest.json        what it is, of which version, and a checksum of every other part
tables/NAME.jsonl    the rows of each table, one a line, as they are restored
paths/NAME.csv       every measured path, for people and other programs
sequences/NAME.otio  each outing's joined takes, as a desk reads them
stills/NAME          pictures of the list
films/NAME           films and motion logs as they came
copies/NAME          what a browser plays of them

It is made as it is read: no part is held in memory or written down twice. Whatever should be in it
and is not, or is not what it was, is named: in the manifest, and to whoever asked.
"""

from __future__ import annotations

import hashlib
import io
import json
import math
import os
import re
import secrets
import zipfile
from collections.abc import Callable, Generator, Iterator
from dataclasses import dataclass, replace
from fnmatch import fnmatch
from pathlib import Path
from typing import Any

from ridgewind import __version__
from ridgewind.core.motion.path import Motion
from ridgewind.library.library import Library
from ridgewind.library.uploads import Uploads
from ridgewind.media.whole import PARTIAL_PATTERN, is_alive
from ridgewind.services import sequencing, timelines
from ridgewind.services.errors import ArchiveError
from ridgewind.store import archived, clips, database, outings
from ridgewind.store.database import Connection
from ridgewind.store.names import ORIGINAL

FORMAT, VERSION = "ridgewind-archive", 1
MANIFEST = "manifest.json"
CHUNK_BYTES = 1 << 20
EPOCH = (1980, 1, 1, 0, 0, 0)
"""Time of every entry: when a film was filmed stands in its row."""

PATH_COLUMNS = ("t_s", "pan_pct", "tilt_pct", "roll_deg", "zoom_pct", "trust")


@dataclass(frozen=True)
class Named:
    """An original. file: its name in the library; name: of its take."""

    file: str
    name: str


@dataclass(frozen=True)
class Report:
    """What an archive has. files: originals in it. missing: that are in no folder. changed: whose
    content is not what their name says; they are in it as they are. strays: files and folders
    beside the originals that are none of the library's, and stay behind. uploads: films that are
    still arriving."""

    files: int
    missing: tuple[Named, ...] = ()
    changed: tuple[Named, ...] = ()
    strays: tuple[str, ...] = ()
    uploads: int = 0

    @property
    def whole(self) -> bool:
        """Whether every original is in it, as it came."""
        return not (self.missing or self.changed)


@dataclass(frozen=True)
class Done:
    """How far an archive is. done, total: bytes of films and rows of tables, together."""

    done: int
    total: int


class _Pipe(io.RawIOBase):
    """Takes what is written until it is fetched."""

    def __init__(self) -> None:
        self._held: list[bytes] = []
        self._at = 0

    def writable(self) -> bool:
        return True

    def write(self, data: Any, /) -> int:
        piece = bytes(data)
        self._held.append(piece)
        self._at += len(piece)
        return len(piece)

    def fetched(self) -> bytes:
        out = b"".join(self._held)
        self._held.clear()
        return out


class _Writer:
    """Adds parts to the file, and keeps their checksums."""

    def __init__(self) -> None:
        self.pipe = _Pipe()
        self.zip = zipfile.ZipFile(self.pipe, "w", allowZip64=True)
        self.parts: dict[str, dict[str, object]] = {}

    def add(self, name: str, pieces: Iterator[bytes], *, packed: bool) -> Iterator[bytes]:
        about = zipfile.ZipInfo(name, EPOCH)
        about.compress_type = zipfile.ZIP_DEFLATED if packed else zipfile.ZIP_STORED
        about.external_attr = 0o600 << 16
        digest, size = hashlib.sha256(), 0
        with self.zip.open(about, "w", force_zip64=True) as entry:
            for piece in pieces:
                digest.update(piece)
                size += len(piece)
                entry.write(piece)
                yield self.pipe.fetched()
        self.parts[name] = {"sha256": digest.hexdigest(), "bytes": size}
        yield self.pipe.fetched()


def archive(
    library: Library,
    *,
    films: bool,
    made_at: str,
    on_progress: Callable[[Done], None] | None = None,
    on_report: Callable[[Report], None] = lambda _report: None,
) -> Generator[bytes]:
    """The archive, piece by piece, of the library as it is now; others may go on writing to it.
    on_report: called once it is whole.

    Raises ArchiveError where films are on a disk that is not here, StorageError, and OSError where
    a film cannot be read; what was given so far is then no archive, since its manifest comes last.
    """
    if films:
        _require_here(library)
    _sweep(library)
    copy = library.incoming / f"archive-{os.getpid()}-{secrets.token_hex(8)}.db"
    try:
        database.back_up(library.database, copy)
        with database.opened(copy) as db:
            yield from _pieces(
                library, db, films, made_at, on_progress or (lambda done: None), on_report
            )
    finally:
        _remove(copy)


def _remove(copy: Path) -> None:
    for side in ("", "-wal", "-shm", ".seal"):
        copy.with_name(copy.name + side).unlink(missing_ok=True)


def _sweep(library: Library) -> None:
    """Remove the database copies of archives whose process died."""
    for left in library.incoming.glob("archive-*.db"):
        found = re.fullmatch(r"archive-(\d+)-[0-9a-f]+\.db", left.name)
        if found is None or not is_alive(int(found[1])):
            _remove(left)


def _pieces(
    library: Library,
    db: Connection,
    films: bool,
    made_at: str,
    on_progress: Callable[[Done], None],
    on_report: Callable[[Report], None],
) -> Iterator[bytes]:
    writer = _Writer()
    report, originals = look(library, db) if films else (Report(0), [])
    large = [(path, "films") for path in originals]
    if films:
        large += [(path, "copies") for path in _copies(library, db)]
    total = sum(path.stat().st_size for path, _ in large)
    done = 0
    counts = {}
    for table in archived.ARCHIVED:
        counts[table] = 0
        lines = _counted(_lines(db, table), counts, table)
        yield from writer.add(f"tables/{table}.jsonl", lines, packed=True)
    for name, motion in clips.motions(db):
        yield from writer.add(f"paths/{name}.csv", _csv(motion), packed=True)
    for name, text in _sequences(db):
        yield from writer.add(f"sequences/{name}", iter([text.encode()]), packed=True)
    for still in sorted(library.stills.glob("*.jpg")):
        yield from writer.add(f"stills/{still.name}", _read(still), packed=False)
    for path, folder in large:
        for piece in writer.add(f"{folder}/{path.name}", _read(path), packed=False):
            done += len(piece)
            on_progress(Done(min(done, total), total))
            yield piece
    names = clips.take_names(db)
    changed = tuple(
        Named(path.name, names.get(path.name, path.name))
        for path in originals
        if writer.parts[f"films/{path.name}"]["sha256"] != path.name.partition(".")[0]
    )
    report = replace(report, changed=changed)
    manifest = {
        "format": FORMAT, "version": VERSION, "program": __version__, "made_at": made_at,
        "schema": archived.applied(db), "rows": counts, "with_films": films,
        "missing": [one.file for one in report.missing],
        "changed": [one.file for one in report.changed],
        "parts": writer.parts,
    }  # fmt: skip
    told = json.dumps(manifest, indent=1).encode()
    yield from writer.add(MANIFEST, iter([told]), packed=True)
    writer.zip.close()
    yield writer.pipe.fetched()
    on_report(report)


def _require_here(library: Library) -> None:
    with database.opened(library.database) as db:
        away = sum(library.is_away(file) for file in clips.originals(db))
    if away:
        raise ArchiveError(
            f"{away} {'film is' if away == 1 else 'films are'} on the second disk, which is not "
            "here.",
            "Connect it, or make an archive without films.",
        )


def look(library: Library, db: Connection) -> tuple[Report, list[Path]]:
    """What an archive would have, without reading a film, and where its originals are: all that the
    store knows, and all that lie in the folders, films and motion logs, put aside or not."""
    known, names = clips.originals(db), clips.take_names(db)
    found: dict[str, Path] = {}
    strays: list[str] = []
    for folder in (place for home in library.homes for place in home):
        for path in sorted(folder.iterdir()) if folder.is_dir() else ():
            if path.is_file() and ORIGINAL.fullmatch(path.name):
                found.setdefault(path.name, path)
            elif folder in (library.originals, library.cleared) and not _is_partial(path):
                strays.append(path.relative_to(library.root).as_posix())
    # What was put aside may be gone for good: that was said when it was.
    missing = [file for file, cleared in known.items() if not cleared and file not in found]
    report = Report(
        files=len(found),
        missing=tuple(Named(file, names.get(file, file)) for file in missing),
        strays=tuple(strays),
        uploads=Uploads(library).arriving(),
    )
    return report, [found[file] for file in sorted(found)]


def _is_partial(path: Path) -> bool:
    return fnmatch(path.name, PARTIAL_PATTERN)


def _copies(library: Library, db: Connection) -> Iterator[Path]:
    for file in clips.originals(db):
        copy = library.copy_of(file.partition(".")[0])
        if copy.is_file():
            yield copy


def _lines(db: Connection, table: str) -> Iterator[bytes]:
    for row in archived.rows_of(db, table):
        yield json.dumps(row, ensure_ascii=False).encode() + b"\n"


def _counted(lines: Iterator[bytes], counts: dict[str, int], table: str) -> Iterator[bytes]:
    for line in lines:
        counts[table] += 1
        yield line


def _csv(motion: Motion) -> Iterator[bytes]:
    """A path as a table, every figure to its last digit; a frame that was not measured is empty."""
    yield (",".join(PATH_COLUMNS) + "\n").encode()
    columns = [getattr(motion, name) for name in PATH_COLUMNS]
    for first in range(0, len(motion.t_s), 1000):
        rows = zip(*(column[first : first + 1000].tolist() for column in columns), strict=True)
        text = "\n".join(",".join(_figure(one) for one in row) for row in rows)
        yield f"{text}\n".encode()


def _figure(value: float) -> str:
    return "" if math.isnan(value) else repr(value)


def _in_archive(file: str) -> str:
    """From a sequence's place in the archive: nothing of this computer's folders goes along."""
    return f"../films/{file}"


def _sequences(db: Connection) -> Iterator[tuple[str, str]]:
    for line in outings.lines(db):
        found = sequencing.sequence_of(db, line.row.id)
        if found.pieces:
            yield f"{line.row.id}.otio", timelines.as_otio(found, _in_archive)
            yield f"{line.row.id}.json", timelines.as_json(found)


def _read(path: Path) -> Iterator[bytes]:
    with path.open("rb") as file:
        while piece := file.read(CHUNK_BYTES):
            yield piece
