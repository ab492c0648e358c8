"""Motion logs: read, looked at before they are kept, kept by themselves or with a film."""

from __future__ import annotations

import secrets
from dataclasses import dataclass, replace
from datetime import datetime
from pathlib import Path

import numpy as np
from numpy.typing import NDArray

from ridgewind.core.motion.log_match import SURE, LogMatch, match_log
from ridgewind.core.motion.path import Motion, clipped
from ridgewind.core.motion.turn_rates import (
    LogError,
    LogMapping,
    LogTable,
    Offset,
    TurnRates,
    cut_rates,
    guess_mapping,
    read_table,
    turn_rates,
)
from ridgewind.core.shake import read_motion
from ridgewind.core.units import pct_to_deg
from ridgewind.core.words import time_words
from ridgewind.library.library import Library
from ridgewind.library.logs import (
    LONGEST_KEPT_S,
    METHOD,
    cut_lines,
    facts_of,
    keep_path,
    lines_of,
    path_at,
)
from ridgewind.media.decode import Film
from ridgewind.services import assessing, whose
from ridgewind.services.errors import NO_LOG, GoneError
from ridgewind.store import clips, database, jobs, kit, motion_logs, takes, whose_motion
from ridgewind.store.database import Connection
from ridgewind.store.motion_logs import LogRow
from ridgewind.store.takes import TakeRow

AROUND_S = 2.0
"""Of a log that is kept before and after the film to which it belongs."""

DRAWN_POINTS, BESIDE_POINTS = 600, 900

Floats = NDArray[np.float64]


@dataclass(frozen=True)
class LogPreview:
    """What would come of a log. t_s, deg_s: thinned for drawing; deg_s (m, 3) right, up and
    clockwise. gust: at the focal length asked for, None where too little can be read."""

    names: tuple[str, ...]
    mapping: LogMapping
    seconds: float
    rate_hz: float
    gaps: int
    gust: float | None
    t_s: Floats
    deg_s: Floats


def preview(
    library: Library,
    db: Connection,
    log: Path,
    *,
    mapping: LogMapping | None,
    focal_eq_mm: float,
) -> LogPreview:
    """Read a log with a mapping, the remembered one, or a guess. Raises LogError."""
    del library  # as all have it that `aside` calls
    table, mapping = _read(db, log, mapping)
    rates = turn_rates(table, mapping)
    motion = path_at(rates, focal_eq_mm)
    step = max(1, len(rates.t_s) // DRAWN_POINTS)
    return LogPreview(
        names=table.names,
        mapping=mapping,
        seconds=float(rates.t_s[-1]),
        rate_hz=rates.rate_hz,
        gaps=len(rates.gaps),
        gust=read_motion(motion).gust(),
        t_s=rates.t_s[::step],
        deg_s=rates.deg_s[::step],
    )


def add_alone(
    library: Library,
    db: Connection,
    log: Path,
    *,
    name: str,
    mapping: LogMapping,
    stretch: tuple[float, float] | None = None,
    filmed_at: datetime | None = None,
) -> int:
    """Keep a log as a take without a picture; returns the take's id. stretch: of it alone, s from
    its first sample; None for all of it. filmed_at: aware of its zone; None where nobody knows.
    Raises LogError."""
    table = read_table(lines_of(log))
    rates = _within(turn_rates(table, mapping), stretch)
    kept = log if stretch is None else library.incoming / f"{secrets.token_hex(8)}.csv"
    try:
        if stretch is not None:
            # What is kept is the stretch, row by row, so that another one of the same log is
            # another original, and another take.
            with kept.open("x", encoding="utf-8") as file:
                file.writelines(cut_lines(log, table, mapping, stretch))
        take = _kept(library, db, kept, name, rates, filmed_at)
    finally:
        if stretch is not None:
            kept.unlink(missing_ok=True)
    remember(db, table.names, mapping)
    assessing.summarise(db, take.id)
    return take.id


def _kept(
    library: Library,
    db: Connection,
    log: Path,
    name: str,
    rates: TurnRates,
    filmed_at: datetime | None,
) -> TakeRow:
    """A log as a take, all in one, so that no worker takes it for a film; what takes long is done
    before the write begins."""
    setup_id = kit.usual_setup_id(db)
    focal_eq_mm = kit.focal_of(db, setup_id)
    motion = path_at(rates, focal_eq_mm)
    with library.received(log) as arrived, database.atomic(db):
        take = library.keep(
            db, arrived.path, sha256=arrived.sha256, size_bytes=arrived.size_bytes,
            file_name=f"{name}.csv", name=name, setup_id=setup_id,
        ).take  # fmt: skip
        if take.focal_eq_mm != focal_eq_mm:  # it was here before, with a lens of its own
            motion, focal_eq_mm = path_at(rates, take.focal_eq_mm), take.focal_eq_mm
        keep_path(db, take.clip_id, motion, focal_eq_mm=focal_eq_mm, filmed_at=filmed_at)
    return take


def attach(
    library: Library,
    db: Connection,
    log: Path,
    *,
    take_id: int,
    name: str,
    mapping: LogMapping,
) -> None:
    """Keep a log with a take's film, and find where in it it belongs: where that is sure, what is
    around the film is kept, of a log of hours too. A film whose picture could not be measured takes
    the log's path as its own. Raises LogError, MediaError."""
    table = read_table(lines_of(log))
    rates = turn_rates(table, mapping)
    take = takes.by_id(db, take_id)
    clip = clips.by_id(db, take.clip_id)
    picture = clips.motion_of(db, clip.id)
    if picture is not None and clip.log_focal_eq_mm is None:
        match = match_log(picture, path_at(rates, take.focal_eq_mm))
        if match.offset.certainty >= SURE:
            begun_s, ended_s = picture.t_s[[0, -1]] - match.offset.seconds
            rates = cut_rates(rates, begun_s - AROUND_S, ended_s + AROUND_S) or rates
        elif _seconds(rates) > LONGEST_KEPT_S:
            raise LogError(
                "the film shows too little motion to find its place in it",
                "cut it to the stretch that belongs to the take",
            )
        keep_beside(
            db, take_id, name=name, rates=rates, mapping=mapping, offset=match.offset, match=match
        )
    else:
        keep_instead(library, db, take_id, name=name, rates=rates, mapping=mapping)
    remember(db, table.names, mapping)


def _within(rates: TurnRates, stretch: tuple[float, float] | None) -> TurnRates:
    """The stretch of turning rates that is kept. Raises LogError where it is too long or short."""
    if stretch is not None:
        from_s, to_s = (float(rates.t_s[0]) + end_s for end_s in stretch)
        found = cut_rates(rates, from_s, to_s)
        if found is None:
            raise LogError("there is next to nothing of it in that stretch", "choose a longer one")
        rates = found
    if _seconds(rates) > LONGEST_KEPT_S:
        lasts, most = time_words(_seconds(rates)), time_words(LONGEST_KEPT_S)
        raise LogError(f"it lasts {lasts}, and a take {most} at most", "choose which of it to keep")
    return rates


def _seconds(rates: TurnRates) -> float:
    return float(rates.t_s[-1] - rates.t_s[0])


def remember(db: Connection, names: tuple[str, ...], mapping: LogMapping) -> None:
    """What columns of these names are, for the next log."""
    with database.atomic(db):
        motion_logs.remember(db, names, mapping)


def keep_beside(
    db: Connection,
    take_id: int,
    *,
    name: str,
    rates: TurnRates,
    mapping: LogMapping,
    offset: Offset | None,
    match: LogMatch | None = None,
) -> None:
    """Keep turning rates with a take's film. offset: where in them it belongs. match: what they say
    of whose motion its shots show."""
    take = takes.by_id(db, take_id)
    with database.atomic(db):
        motion_logs.put(
            db, take.clip_id, name=name, mapping=mapping, rate_hz=rates.rate_hz,
            focal_eq_mm=take.focal_eq_mm, offset=offset, motion=path_at(rates, take.focal_eq_mm),
        )  # fmt: skip
        whose_motion.remove_logs(db, take.clip_id)
        picture = clips.motion_of(db, take.clip_id)
        if match is not None and picture is not None:
            _settle(db, take_id, match, picture)
        assessing.film_changed(db, take.clip_id)
    assessing.summarise_film(db, take.clip_id)


def take_away(db: Connection, take_id: int) -> None:
    """Take a film's log away, and what it said of whose motion the film shows."""
    clip_id = takes.by_id(db, take_id).clip_id
    with database.atomic(db):
        motion_logs.put_away(db, clip_id)
        whose_motion.remove_logs(db, clip_id)
        assessing.film_changed(db, clip_id)
    assessing.summarise_film(db, clip_id)


def bring_back(db: Connection, take_id: int) -> None:
    """Bring back the log that was taken away, and what it says. Raises GoneError."""
    clip_id = takes.by_id(db, take_id).clip_id
    picture = clips.motion_of(db, clip_id)
    with database.atomic(db):
        if not motion_logs.put_back(db, clip_id):
            raise GoneError(*NO_LOG)
        log = motion_logs.of_clip(db, clip_id)
        if log is not None and log.offset is not None and picture is not None:
            _settle(db, take_id, match_log(picture, log.motion), picture)
        assessing.film_changed(db, clip_id)
    assessing.summarise_film(db, clip_id)


def _settle(db: Connection, take_id: int, match: LogMatch, picture: Motion) -> None:
    """Let a log say whose motion a film's shots show."""
    for shot, rival in match.settled:
        whose.say(db, take_id, shot=shot, rival=rival, motion=picture, by_log=True)


def keep_instead(
    library: Library,
    db: Connection,
    take_id: int,
    *,
    name: str,
    rates: TurnRates,
    mapping: LogMapping,
) -> None:
    """Keep turning rates as the path of a film whose picture could not be measured; they begin with
    it. Raises MediaError."""
    take = takes.by_id(db, take_id)
    motion = path_at(rates, take.focal_eq_mm)
    with database.atomic(db):
        _measure_by_log(library, db, clips.by_id(db, take.clip_id), motion, take.focal_eq_mm)
    first_s, lasts_s = float(rates.t_s[0]), clips.by_id(db, take.clip_id).duration_s
    if lasts_s is not None:
        rates = cut_rates(rates, first_s, first_s + lasts_s + AROUND_S) or rates
    keep_beside(db, take_id, name=name, rates=rates, mapping=mapping, offset=None)


@dataclass(frozen=True)
class Shaken:
    """How much one source says that the camera shook."""

    gust: float
    body_deg_s: float


@dataclass(frozen=True)
class LogBeside:
    """A film's log beside its picture, for drawing. offset: None where the picture could not be
    measured; start_s: of the film's first frame, s in the file. picture_s, log_s: (m,), s of the
    browser copy; picture_pan, log_pan: (m,), percent of the long side a second."""

    log: LogRow
    of_picture: Shaken | None
    of_log: Shaken | None
    start_s: float
    picture_s: Floats
    picture_pan: Floats
    log_s: Floats
    log_pan: Floats


def beside_picture(db: Connection, take_id: int) -> LogBeside:
    """A film's log beside its picture. Raises GoneError where there is none."""
    judged = assessing.judge(db, take_id)
    clip_id = judged.take.clip_id
    log = motion_logs.of_clip(db, clip_id)
    if log is None:
        raise GoneError(*NO_LOG)
    picture, none = clips.motion_of(db, clip_id), np.zeros(0)
    start_s = 0.0 if picture is None else float(picture.t_s[0])
    shown = (none, none) if picture is None or log.offset is None else _pan_speed(picture)
    lag_s = 0.0 if log.offset is None else log.offset.seconds
    log_s, log_pan = _pan_speed(log.motion)
    of_picture = of_log = None
    screen_deg = judged.take.brief.screen_deg
    if picture is not None:
        if judged.motion is not None and all(shot.doubt is None for shot in judged.motion.shots):
            of_picture = _shaken(judged.motion, judged.take.focal_eq_mm, screen_deg)
        of_log = _shaken(_during(log.motion, picture, lag_s), log.focal_eq_mm, screen_deg)
    return LogBeside(
        log, of_picture, of_log, start_s,
        shown[0] - start_s, shown[1], log_s + lag_s - start_s, log_pan,
    )  # fmt: skip


def _during(log: Motion, picture: Motion, lag_s: float) -> Motion | None:
    """The part of a log in which the film was filmed; None where it is not in it."""
    begun_s = float(picture.t_s[0]) - lag_s - float(log.t_s[0])
    ended_s = begun_s + float(picture.t_s[-1] - picture.t_s[0])
    return clipped(log, from_s=max(begun_s, 0.0), to_s=ended_s) if ended_s > 0.5 else None


def _shaken(motion: Motion | None, focal_eq_mm: float, screen_deg: float) -> Shaken | None:
    reading = None if motion is None else read_motion(motion)
    gust = None if reading is None else reading.gust(screen_deg=screen_deg)
    speed = None if reading is None else reading.speed_pct_s
    if gust is None or speed is None:
        return None
    return Shaken(gust, pct_to_deg(speed, focal_eq_mm=focal_eq_mm))


def _pan_speed(motion: Motion) -> tuple[Floats, Floats]:
    """Times (m,) and pan's speed (m,), thinned, where it is known."""
    good = motion.trusted
    t_s, pan = motion.t_s[good], motion.pan_pct[good]
    speed = np.gradient(pan, t_s) if len(t_s) > 1 else np.zeros(len(t_s))
    step = max(1, len(t_s) // BESIDE_POINTS)
    return t_s[::step], speed[::step]


def _measure_by_log(
    library: Library,
    db: Connection,
    clip: clips.ClipRow,
    motion: Motion,
    focal_eq_mm: float,
) -> None:
    with Film(library.film(clip.file)) as film:
        facts = film.facts
        picture = next(iter(film.pictures(lambda plane: plane)), None)
    size = (facts.width, facts.height) if picture is None else picture.size
    long_s = float(motion.t_s[-1])
    part = clipped(motion, from_s=0.0, to_s=min(facts.duration_s or long_s, long_s))
    part = replace(part, aspect=min(size) / max(size))
    found = facts_of(part, size, facts.codec)
    clips.store_measurement(db, clip.id, facts=found, motion=part, method=METHOD)
    clips.set_log_focal(db, clip.id, focal_eq_mm)
    jobs.enqueue(db, "measure", clip.id)  # forgets the fault
    jobs.finish(db, "measure", clip.id)


def _read(db: Connection, log: Path, mapping: LogMapping | None) -> tuple[LogTable, LogMapping]:
    table = read_table(lines_of(log))
    return table, mapping or motion_logs.remembered(db, table.names) or guess_mapping(table)
