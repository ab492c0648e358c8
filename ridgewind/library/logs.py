"""Motion logs that are takes without a picture: how their paths are worked out and kept, and
how one is known among the originals when the store has forgotten it."""

from __future__ import annotations

import itertools
from collections.abc import Iterator
from datetime import datetime
from pathlib import Path

import numpy as np

from ridgewind.core.errors import CoreError
from ridgewind.core.motion.path import Motion
from ridgewind.core.motion.turn_rates import (
    NO_RATES,
    SECONDS,
    LogError,
    LogMapping,
    LogTable,
    TurnRates,
    cut_rates,
    guess_mapping,
    path_of_rates,
    read_table,
    turn_rates,
)
from ridgewind.library.library import Library
from ridgewind.moments import utc_text
from ridgewind.store import briefs, clips, database, jobs, kit, motion_logs, summaries, takes
from ridgewind.store.clips import LOG_CODEC
from ridgewind.store.database import Connection

METHOD = "turning-rates-1"
SIZE_PX = (1920, 1080)
"""Picture that a log without a film is judged for."""

LONGEST_KEPT_S = 900.0
"""Of a log that becomes one take: its path is judged where its page is opened, as a film's is, and
of a day's the server would hold a gigabyte. Of so much it is some fifty megabytes."""

LONGEST_LINE = 10_000
"""Characters; no row of a log has as many."""

HEAD_LINES = 200
"""Of a file, from which it is seen whether it is a log."""


def lines_of(log: Path) -> Iterator[str]:
    """The lines of a file, in bounded memory whatever it holds. Raises LogError at one that no log
    has."""
    with log.open(encoding="utf-8-sig", errors="replace") as file:
        while line := file.readline(LONGEST_LINE):
            if len(line) == LONGEST_LINE:
                raise LogError(*NO_RATES)
            yield line


def path_at(rates: TurnRates, focal_eq_mm: float) -> Motion:
    """The path that turning rates give the picture of a lens."""
    aspect = SIZE_PX[1] / SIZE_PX[0]
    return path_of_rates(rates, focal_eq_mm=focal_eq_mm, aspect=aspect)


def facts_of(
    motion: Motion, size: tuple[int, int], codec: str, filmed_at: datetime | None = None
) -> clips.ClipFactsRow:
    """Facts of a clip whose path comes from a log. filmed_at: aware of its zone."""
    recorded = None if filmed_at is None else utc_text(filmed_at)
    step_s = float(np.median(np.diff(motion.t_s)))
    return clips.ClipFactsRow(
        width=max(size[0], 1), height=max(size[1], 1), fps=round(1.0 / step_s, 3),
        variable_rate=False, duration_s=float(motion.t_s[-1] - motion.t_s[0]) + step_s,
        claimed_s=None, frames=len(motion.t_s), codec=codec, has_sound=False, recorded_at=recorded,
        file_focal_mm=None, file_focal_eq_mm=None, file_capture_fps=None,
        interlaced=False, bits_per_pixel=1.0,
    )  # fmt: skip


def keep_path(
    db: Connection,
    clip_id: int,
    motion: Motion,
    *,
    focal_eq_mm: float,
    filmed_at: datetime | None = None,
) -> None:
    """Keep the path that turning rates gave, for a lens, as that of a clip without a picture. Call
    in a transaction."""
    facts = facts_of(motion, SIZE_PX, LOG_CODEC, filmed_at)
    clips.store_measurement(db, clip_id, facts=facts, motion=motion, method=METHOD)
    clips.set_log_focal(db, clip_id, focal_eq_mm)
    jobs.enqueue(db, "measure", clip_id)
    jobs.finish(db, "measure", clip_id)


def cut_lines(
    log: Path, table: LogTable, mapping: LogMapping, stretch: tuple[float, float]
) -> Iterator[str]:
    """The lines of a log's heading and of the rows within a stretch, s from its first sample, as
    they came. table: of the whole log."""
    t_s = table.values[:, table.names.index(mapping.time)] * SECONDS[mapping.time_unit]
    t_s = t_s - np.nanmin(t_s)
    inside = (t_s >= stretch[0]) & (t_s <= stretch[1])

    def told() -> Iterator[str]:
        return (line for line in lines_of(log) if line.strip() and not line.startswith("#"))

    heading = sum(1 for _ in told()) - len(inside)
    for row, line in enumerate(told(), start=-heading):
        if row < 0 or inside[row]:
            yield line


def is_log(path: Path) -> bool:
    """Whether a file holds a motion log, by what is in it; no film does."""
    with path.open("rb") as file:
        if b"\0" in file.read(4096):
            return False
    try:
        table = read_table(itertools.islice(lines_of(path), HEAD_LINES))
        turn_rates(table, guess_mapping(table))
    except (CoreError, StopIteration):
        return False
    return True


def take_in_again(library: Library, db: Connection, file: str, name: str) -> bool:
    """Make a take of a log among the originals that the store does not know; False where the file
    is no log."""
    path = library.original(file)
    if not is_log(path):
        return False
    try:
        table = read_table(lines_of(path))
        mapping = motion_logs.remembered(db, table.names) or guess_mapping(table)
        rates = turn_rates(table, mapping)
    except CoreError:
        return False
    rates = cut_rates(rates, 0.0, LONGEST_KEPT_S) or rates
    setup_id = kit.usual_setup_id(db)
    focal_eq_mm = kit.focal_of(db, setup_id)
    motion = path_at(rates, focal_eq_mm)
    with database.atomic(db):
        clip_id = clips.add(
            db, sha256=file.partition(".")[0], file=file, size_bytes=path.stat().st_size
        )
        take_id = takes.add(
            db, clip_id=clip_id, name=name, brief_id=briefs.usual(db).id, setup_id=setup_id
        )
        keep_path(db, clip_id, motion, focal_eq_mm=focal_eq_mm)
        motion_logs.remember(db, table.names, mapping)
        summaries.await_judgement(db, take_id)
    return True
