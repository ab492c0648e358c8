"""A library from an archive: everything is looked at before anything is made, and the library is
there whole, or not at all."""

from __future__ import annotations

import errno
import hashlib
import json
import os
import re
import shutil
import struct
import zipfile
import zlib
from collections.abc import Callable, Collection, Iterator
from dataclasses import dataclass
from pathlib import Path
from typing import Any

from ridgewind.library.library import SPARE_BYTES, Library
from ridgewind.media.whole import own_only
from ridgewind.services.archiving import CHUNK_BYTES, FORMAT, MANIFEST, VERSION
from ridgewind.services.errors import ArchiveError
from ridgewind.store import archived, database

FILE = re.compile(r"(films|copies|stills)/([0-9a-f]{64}(\.[a-z0-9]{1,5}))")
ENDINGS = {"copies": ".mp4", "stills": ".jpg"}
"""Of what is made of films; their own is what they came with."""

PART = re.compile(r"(tables|paths|sequences|films|copies|stills)/[0-9A-Za-z._-]+")
MOST_MANIFEST_BYTES = 64 << 20

UNREADABLE = (
    zipfile.BadZipFile, zipfile.LargeZipFile, EOFError, zlib.error, struct.error, RuntimeError,
    OverflowError, ValueError, KeyError,
)  # fmt: skip
"""What the library of ZIP files says of a damaged one; NotImplementedError is a RuntimeError."""

Progress = Callable[[float], None]


@dataclass(frozen=True)
class Restored:
    """takes: that it has. films: originals that came with it. missing, changed: names of those that
    the archive says were missing when it was made, or were not what they had been."""

    takes: int
    films: int
    missing: tuple[str, ...] = ()
    changed: tuple[str, ...] = ()


def restore(
    file: Path,
    root: Path,
    *,
    leave_out: Collection[str] = (),
    on_progress: Progress = lambda done: None,
) -> Restored:
    """Make a library of an archive in a folder that is empty, or not there.

    leave_out: names of films that are not wanted. on_progress: share done, 0 to 1; may raise to
    stop. Raises ArchiveError, StorageError, OSError.
    """
    if root.exists() and any(root.iterdir()):
        raise ArchiveError(
            f"{root} is not empty.",
            "Restore into a new folder; what is in this one stays as it is.",
        )
    try:
        with zipfile.ZipFile(file) as opened:
            manifest = _manifest(opened)
            size = sum(part["bytes"] for part in manifest["parts"].values())
            _verify(opened, manifest, lambda done: on_progress(0.5 * done / max(size, 1)))
            files = {
                name: found
                for name in manifest["parts"]
                if (found := FILE.fullmatch(name))
                and found[2] not in leave_out
                and found[3] == ENDINGS.get(found[1], found[3])
            }
            return _build(opened, manifest, root, files, lambda done: on_progress(0.5 + 0.5 * done))
    except UNREADABLE as error:
        raise _damaged(f"it is no whole ZIP file ({error})") from error
    except OSError as error:
        if error.errno == errno.EINVAL:  # it points to a place that no file has
            raise _damaged(f"it is no whole ZIP file ({error})") from error
        raise


def _damaged(why: str) -> ArchiveError:
    return ArchiveError(
        f"This archive is damaged, or none: {why}.",
        "Nothing was changed. Restore another copy of it.",
    )


def _manifest(opened: zipfile.ZipFile) -> dict[str, Any]:
    try:
        about = opened.getinfo(MANIFEST)
        if about.file_size > MOST_MANIFEST_BYTES:
            raise _damaged("its manifest is too large")
        found = json.loads(opened.read(about))
        fit = found["format"] == FORMAT and isinstance(found["version"], int)
        names, parts = found["schema"], found["parts"]
        fit = fit and all(PART.fullmatch(name) for name in parts)
        fit = fit and all(isinstance(part["bytes"], int) for part in parts.values())
        fit = fit and all(isinstance(name, str) for name in names)
        fit = fit and all(
            isinstance(name, str) for key in ("missing", "changed") for name in found.get(key, ())
        )
    except (*UNREADABLE, TypeError) as error:
        raise _damaged("it has no manifest that can be read") from error
    if not fit:
        raise _damaged("its manifest is another program's")
    newer = set(names) - {name for name, _ in database.migrations()}
    if found["version"] > VERSION or newer:
        raise ArchiveError(
            f"This archive was made by a newer Ridgewind ({found.get('program', 'of no name')}).",
            "Update Ridgewind, and restore it then.",
        )
    result: dict[str, Any] = found
    return result


def _verify(opened: zipfile.ZipFile, manifest: dict[str, Any], on_bytes: Progress) -> None:
    """Every part is there, and is what it was; every film is the one that its name says, unless the
    archive itself says that it was not."""
    there = {info.filename for info in opened.infolist()}
    if wanted := set(manifest["parts"]) - there:
        raise _damaged(f"it lacks {len(wanted)} of its parts, such as {min(wanted)}")
    done = 0
    for name, part in manifest["parts"].items():
        digest, size = hashlib.sha256(), 0
        for piece in _pieces(opened, name):
            digest.update(piece)
            size += len(piece)
            done += len(piece)
            if size > part["bytes"]:
                break  # however much more there is
            on_bytes(done)
        if digest.hexdigest() != part["sha256"] or size != part["bytes"]:
            raise _damaged(f"{name} is not what it was")
        found = FILE.fullmatch(name)
        is_film = found is not None and found[1] == "films"
        if is_film and name.partition("/")[2] not in manifest.get("changed", ()):
            _require_own_name(name, part["sha256"])


def _require_own_name(name: str, sha256: str) -> None:
    if not name.startswith(f"films/{sha256}."):
        raise _damaged(f"{name} holds another film than its name says")


def _pieces(opened: zipfile.ZipFile, name: str) -> Iterator[bytes]:
    try:
        with opened.open(name) as entry:
            while piece := entry.read(CHUNK_BYTES):
                yield piece
    except UNREADABLE as error:
        raise _damaged(f"{name} cannot be read") from error


def _build(
    opened: zipfile.ZipFile,
    manifest: dict[str, Any],
    root: Path,
    files: dict[str, re.Match[str]],
    on_progress: Progress,
) -> Restored:
    """In a folder beside the one that is wanted, which it becomes at the end."""
    root.parent.mkdir(parents=True, exist_ok=True)
    size = sum(manifest["parts"][name]["bytes"] for name in files)
    if shutil.disk_usage(root.parent).free < size + SPARE_BYTES:
        raise ArchiveError(
            f"There is no room beside {root}: it needs {size / 1e9:.1f} GB.",
            "Free some space, or restore onto another disk.",
        )
    beside = root.with_name(f".{root.name}.restoring")
    shutil.rmtree(beside, ignore_errors=True)
    try:
        library = Library(beside)
        beside.mkdir(mode=0o700)
        for folder in library.folders:
            folder.mkdir()
        rows = _fill(opened, manifest, library)
        library.prepare()
        places = {
            "films": library.originals, "copies": library.copies, "stills": library.stills,
        }  # fmt: skip
        done = 0
        for name, found in files.items():
            with open(places[found[1]] / found[2], "xb", opener=own_only) as target:
                for piece in _pieces(opened, name):
                    target.write(piece)
                    done += len(piece)
                    on_progress(done / max(size, 1))
                target.flush()
                os.fsync(target.fileno())
        library.seal()
        if root.exists():
            root.rmdir()
        os.replace(beside, root)
    finally:
        shutil.rmtree(beside, ignore_errors=True)
    return Restored(
        rows["take"],
        sum(found[1] == "films" for found in files.values()),
        tuple(manifest.get("missing", ())),
        tuple(manifest.get("changed", ())),
    )


def _fill(opened: zipfile.ZipFile, manifest: dict[str, Any], library: Library) -> dict[str, int]:
    """The tables as the archive has them, in the schema that it was made with."""
    counts = dict.fromkeys(archived.ARCHIVED, 0)
    with database.opened(library.database) as db:
        if manifest["schema"]:
            database.migrate(db, up_to=max(manifest["schema"]))
        there = set(archived.tables_of(db))
        try:
            with database.referring_later(db), database.atomic(db):
                for table in archived.ARCHIVED:
                    name = f"tables/{table}.jsonl"
                    if name in manifest["parts"] and table in there:
                        counts[table] = archived.put_rows(db, table, _rows(opened, name))
                if broken := archived.broken_references(db):
                    raise _damaged(f"{broken} of its rows point at nothing")
        except (ValueError, KeyError, TypeError) as error:
            raise _damaged(str(error)) from error
    for table, count in manifest.get("rows", {}).items():
        if counts.get(table) != count:
            raise _damaged(f"{table} has {counts.get(table)} rows of {count}")
    return counts


def _rows(opened: zipfile.ZipFile, name: str) -> Iterator[dict[str, Any]]:
    with opened.open(name) as entry:
        for line in entry:
            row = json.loads(line)
            if not isinstance(row, dict):
                raise _damaged(f"{name} holds something that is no row")
            yield row
