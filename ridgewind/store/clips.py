"""Clips: films on disk, and the path measured from each."""

from __future__ import annotations

import io
import json
import sqlite3
from collections.abc import Iterator
from dataclasses import asdict, dataclass
from typing import Any

import numpy as np
from numpy.typing import NDArray

from ridgewind.core.motion.path import Motion, RivalPath, Shot
from ridgewind.core.motion.readout import Readout
from ridgewind.core.motion.sighting import Sighting
from ridgewind.store import jobs, names
from ridgewind.store.database import DAYS_AGO, NOW, days_ago
from ridgewind.store.errors import NotFoundError


@dataclass(frozen=True)
class ClipRow:
    """A film. Facts are None until it has been measured. file_focal_mm, file_focal_eq_mm: true and
    equivalent focal length, where the file's metadata holds it; file_capture_fps: frames a second
    at which it was filmed, where that does. log_focal_eq_mm: that its path was worked out for,
    where it comes from turning rates. cleared_at: when its original was put aside to free space."""

    id: int
    sha256: str
    file: str
    size_bytes: int
    width: int | None
    height: int | None
    fps: float | None
    variable_rate: bool | None
    duration_s: float | None
    claimed_s: float | None
    frames: int | None
    codec: str | None
    has_sound: bool | None
    recorded_at: str | None
    file_focal_mm: float | None
    file_focal_eq_mm: float | None
    file_capture_fps: float | None
    interlaced: bool | None
    bits_per_pixel: float | None
    log_focal_eq_mm: float | None
    cleared_at: str | None = None


@dataclass(frozen=True)
class ClipFactsRow:
    """Facts that measuring finds out."""

    width: int
    height: int
    fps: float
    variable_rate: bool
    duration_s: float
    claimed_s: float | None
    frames: int
    codec: str
    has_sound: bool
    recorded_at: str | None
    file_focal_mm: float | None
    file_focal_eq_mm: float | None
    file_capture_fps: float | None
    interlaced: bool
    bits_per_pixel: float


LOG_CODEC = "motion log"
"""What stands for the codec of a take that is a motion log alone."""

COLUMNS = (
    "id, sha256, file, size_bytes, width, height, fps, variable_rate, duration_s, claimed_s,"
    " frames, codec, has_sound, recorded_at, file_focal_mm, file_focal_eq_mm, file_capture_fps,"
    " interlaced, bits_per_pixel, log_focal_eq_mm, cleared_at"
)


def add(db: sqlite3.Connection, *, sha256: str, file: str, size_bytes: int) -> int:
    """Record a film; returns its id. file: its name, see `names`. Raises UnsafeNameError."""
    names.require_pair(sha256, file)
    cursor = db.execute(
        "insert into clip (sha256, file, size_bytes) values (?, ?, ?)", (sha256, file, size_bytes)
    )
    assert cursor.lastrowid is not None
    return cursor.lastrowid


def by_hash(db: sqlite3.Connection, sha256: str) -> ClipRow | None:
    row = db.execute(f"select {COLUMNS} from clip where sha256 = ?", (sha256,)).fetchone()
    return None if row is None else _row(row)


def by_id(db: sqlite3.Connection, clip_id: int) -> ClipRow:
    row = db.execute(f"select {COLUMNS} from clip where id = ?", (clip_id,)).fetchone()
    if row is None:
        raise NotFoundError("clip", clip_id)
    return _row(row)


def numbers(db: sqlite3.Connection) -> list[int]:
    """Ids of all films."""
    return [row["id"] for row in db.execute("select id from clip order by id")]


def sizes_by_month(db: sqlite3.Connection) -> list[tuple[str, int]]:
    """Months in which films were filmed, or else came, as YYYY-MM, and their bytes; the oldest
    first."""
    rows = db.execute(
        "select substr(coalesce(clip.recorded_at, min(take.imported_at)), 1, 7) as month,"
        " clip.size_bytes from clip join take on take.clip_id = clip.id"
        " where clip.cleared_at is null group by clip.id"
    )
    months: dict[str, int] = {}
    for row in rows:
        months[row["month"]] = months.get(row["month"], 0) + row["size_bytes"]
    return sorted(months.items())


def originals(db: sqlite3.Connection) -> dict[str, bool]:
    """File of each film and of each motion log that is a take, and whether it was put aside."""
    rows = db.execute("select file, cleared_at from clip order by id")
    return {row["file"]: row["cleared_at"] is not None for row in rows}


def take_names(db: sqlite3.Connection) -> dict[str, str]:
    """Name of the first take of each film, by the film's file."""
    rows = db.execute(
        "select clip.file, take.name from clip join take on take.clip_id = clip.id"
        " order by take.id desc"
    )
    return {row["file"]: row["name"] for row in rows}


def remove(db: sqlite3.Connection, clip_id: int) -> None:
    """Forget a film whose take is gone, with its path and job."""
    for table in ("measurement", "import_source", "motion_log", "motion_log_away"):
        db.execute(f"delete from {table} where clip_id = ?", (clip_id,))
    jobs.forget(db, "measure", clip_id)
    db.execute("delete from whose_motion where clip_id = ?", (clip_id,))
    db.execute("delete from clip where id = ?", (clip_id,))


def store_measurement(
    db: sqlite3.Connection, clip_id: int, *, facts: ClipFactsRow, motion: Motion, method: str
) -> None:
    """Keep what measuring found, replacing an earlier measurement."""
    columns = list(ClipFactsRow.__dataclass_fields__)
    assignments = ", ".join(f"{name} = ?" for name in columns)
    values = [getattr(facts, name) for name in columns]
    db.execute(f"update clip set {assignments} where id = ?", (*values, clip_id))
    db.execute(
        "insert into measurement (clip_id, method, measured_at, path)"
        f" values (?, ?, {NOW}, ?)"
        " on conflict (clip_id) do update set method = excluded.method,"
        " measured_at = excluded.measured_at, path = excluded.path",
        (clip_id, method, pack(motion)),
    )


def sources(db: sqlite3.Connection) -> set[tuple[str, int, int]]:
    """Name, size in bytes and date in s of every file that was brought in from a folder."""
    rows = db.execute("select name, size_bytes, modified_s from import_source")
    return {(row["name"], row["size_bytes"], row["modified_s"]) for row in rows}


def mark_source(
    db: sqlite3.Connection, name: str, size_bytes: int, modified_s: int, clip_id: int
) -> None:
    """Remember where a film came from."""
    db.execute(
        "insert or replace into import_source (name, size_bytes, modified_s, clip_id)"
        " values (?, ?, ?, ?)",
        (name, size_bytes, modified_s, clip_id),
    )


def set_log_focal(db: sqlite3.Connection, clip_id: int, focal_eq_mm: float) -> None:
    """The path of a clip comes from turning rates, worked out for this focal length."""
    db.execute("update clip set log_focal_eq_mm = ? where id = ?", (focal_eq_mm, clip_id))


def set_cleared(db: sqlite3.Connection, clip_id: int, *, cleared: bool) -> None:
    """The original was put aside to free space, or is back."""
    now = NOW if cleared else "null"
    db.execute(f"update clip set cleared_at = {now} where id = ?", (clip_id,))


def rejected(db: sqlite3.Connection) -> list[ClipRow]:
    """Films of which every take that is not deleted was rejected, and that still have their
    original."""
    rows = db.execute(
        f"select {COLUMNS} from clip where cleared_at is null and log_focal_eq_mm is null"
        " and exists (select 1 from take where clip_id = clip.id and deleted_at is null)"
        " and not exists (select 1 from take where clip_id = clip.id and deleted_at is null"
        " and choice is not 'reject') order by id"
    )
    return [_row(row) for row in rows]


def cleared(db: sqlite3.Connection) -> list[ClipRow]:
    """Films whose original was put aside, the longest ago first."""
    rows = db.execute(
        f"select {COLUMNS} from clip where cleared_at is not null order by cleared_at, id"
    )
    return [_row(row) for row in rows]


def cleared_before(db: sqlite3.Connection, *, days: int) -> list[ClipRow]:
    """Films whose original was put aside more than some days ago."""
    rows = db.execute(
        f"select {COLUMNS} from clip where cleared_at < {DAYS_AGO}",
        (days_ago(days),),
    )
    return [_row(row) for row in rows]


def motion_of(db: sqlite3.Connection, clip_id: int) -> Motion | None:
    row = db.execute("select path from measurement where clip_id = ?", (clip_id,)).fetchone()
    return None if row is None else unpack(row["path"])


def motions(db: sqlite3.Connection) -> Iterator[tuple[str, Motion]]:
    """Digest and path of every film that is measured, one after the other."""
    ids = db.execute("select clip_id from measurement order by clip_id").fetchall()
    for row in ids:
        motion = motion_of(db, row["clip_id"])
        if motion is not None:
            yield by_id(db, row["clip_id"]).sha256, motion


def measured_stamp(db: sqlite3.Connection, clip_id: int) -> str | None:
    """What tells one measurement of a clip from another; None where there is none."""
    row = db.execute(
        "select method || ' ' || measured_at as stamp from measurement where clip_id = ?",
        (clip_id,),
    ).fetchone()
    return None if row is None else str(row["stamp"])


def pack(motion: Motion) -> bytes:
    """A path as bytes: one array of columns, and the shots as JSON."""
    columns = np.column_stack(
        [
            motion.t_s,
            motion.pan_pct,
            motion.tilt_pct,
            motion.roll_deg,
            motion.zoom_pct,
            motion.trust,
            motion.error,
        ]
    )
    shots = [
        [
            shot.start,
            shot.stop,
            shot.reason,
            shot.doubt,
            [_about(one) for one in shot.rivals],
            # What a shot is worked out from is its first rival's, where it has any.
            [_moments(one.seen) for one in shot.rivals or (shot,)],
        ]
        for shot in motion.shots
    ]
    places = [
        one.places
        for shot in motion.shots
        for owner in shot.rivals or (shot,)
        for one in owner.seen
    ]
    rivals = [
        np.column_stack([one.path, one.trust]) for shot in motion.shots for one in shot.rivals
    ]
    about = json.dumps(
        {
            "aspect": motion.aspect,
            "shots": shots,
            "outlier_share": motion.outlier_share,
            "repeated": motion.repeated,
            "readout": None if motion.readout is None else asdict(motion.readout),
            "held": [] if motion.held is None else np.flatnonzero(motion.held).tolist(),
        }
    )
    buffer = io.BytesIO()
    np.savez(
        buffer,
        columns=columns,
        about=np.frombuffer(about.encode(), np.uint8),
        rivals=np.concatenate(rivals) if rivals else np.zeros((0, 5)),
        places=np.concatenate(places) if places else np.zeros((0, 2), np.int16),
    )
    return buffer.getvalue()


def unpack(data: bytes) -> Motion:
    """The path that `pack` made bytes of."""
    with np.load(io.BytesIO(data), allow_pickle=False) as arrays:
        columns = arrays["columns"]
        rivals = arrays["rivals"] if "rivals" in arrays else np.zeros((0, 5))
        places = arrays["places"] if "places" in arrays else np.zeros((0, 2), np.int16)
        about = json.loads(arrays["about"].tobytes().decode())
    held = np.zeros(len(columns), np.bool_)
    held[about.get("held", [])] = True
    return Motion(
        t_s=columns[:, 0],
        pan_pct=columns[:, 1],
        tilt_pct=columns[:, 2],
        roll_deg=columns[:, 3],
        zoom_pct=columns[:, 4],
        trust=columns[:, 5],
        error=columns[:, 6:10],
        aspect=float(about["aspect"]),
        shots=_shots(about["shots"], rivals, places),
        outlier_share=float(about.get("outlier_share", about.get("apart", 0.0))),
        repeated=float(about.get("repeated", 0.0)),
        held=held if held.any() else None,
        readout=Readout(**about["readout"]) if about.get("readout") else None,
    )


def _about(rival: RivalPath) -> list[float | bool]:
    return [rival.x, rival.y, rival.points, rival.reach, rival.still]


def _moments(seen: tuple[Sighting, ...]) -> list[tuple[float, int]]:
    return [(one.t_s, len(one.places)) for one in seen]


def _shots(
    kept: list[list[Any]], rivals: NDArray[np.float64], places: NDArray[np.int16]
) -> tuple[Shot, ...]:
    """Shots with their rivals, whose rows (n, 5) follow one another, and the places (m, 2) of their
    points, which do too. Older paths have neither."""
    shots, row, place = [], 0, 0
    for start, stop, reason, *more in kept:
        defaults: list[Any] = [None, [], []]
        doubt, about, moments = more + defaults[len(more) :]
        seen = []
        for owner in moments:
            sightings = []
            for t_s, count in owner:
                sightings.append(Sighting(t_s, places[place : place + count]))
                place += count
            seen.append(tuple(sightings))
        paths = []
        for number, (x, y, points, reach, still) in enumerate(about):
            columns = rivals[row : row + stop - start]
            row += stop - start
            own = seen[number] if seen else ()
            paths.append(
                RivalPath(columns[:, :4], columns[:, 4], x, y, points, reach, bool(still), own)
            )
        first = seen[0] if seen else ()
        shots.append(Shot(int(start), int(stop), reason, doubt, tuple(paths), first))
    return tuple(shots)


def _row(row: sqlite3.Row) -> ClipRow:
    values = {name: row[name] for name in ClipRow.__dataclass_fields__}
    for flag in ("variable_rate", "has_sound", "interlaced"):
        if values[flag] is not None:
            values[flag] = bool(values[flag])
    return ClipRow(**values)


def note_removed(db: sqlite3.Connection, file: str) -> None:
    """An original is to be removed once the disk that it is on is here again."""
    db.execute(
        f"insert or replace into removed_original (file, removed_at) values (?, {NOW})", (file,)
    )


def removed(db: sqlite3.Connection) -> list[str]:
    """Originals that are to be removed from a disk that was away."""
    return [row["file"] for row in db.execute("select file from removed_original order by file")]


def forget_removed(db: sqlite3.Connection) -> None:
    """All of them are gone."""
    db.execute("delete from removed_original")
