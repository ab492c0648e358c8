"""What the list shows of each take: worked out from its path, and out of date once what it was
worked out from has changed. `stale` counts how often, so that a line which goes out of date while
it is worked out stays so."""

from __future__ import annotations

import json
import sqlite3
from collections.abc import Collection
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ridgewind.core.judge.verdict import Verdict
from ridgewind.core.trials.survival import Lasting
from ridgewind.core.units import UNKNOWN_FOCAL_EQ_MM
from ridgewind.store.as_json import AsJson

Floats = NDArray[np.float64]
_VERDICT = AsJson(Verdict)


def mark_brief_stale(db: sqlite3.Connection, brief_id: int) -> int:
    """The lines of all takes under a brief are out of date; returns how many."""
    cursor = db.execute(
        "update summary set stale = stale + 1"
        " where take_id in (select id from take where brief_id = ?)",
        (brief_id,),
    )
    return cursor.rowcount


def mark_take_stale(db: sqlite3.Connection, take_id: int) -> None:
    """The line of a take is out of date."""
    db.execute("update summary set stale = stale + 1 where take_id = ?", (take_id,))


def await_judgement(db: sqlite3.Connection, take_id: int) -> None:
    """A take that is measured has no line yet; it is judged with those that are out of date."""
    db.execute("insert into summary (take_id, ridge, stale) values (?, x'', 1)", (take_id,))


def staleness(db: sqlite3.Connection, take_id: int) -> int:
    """How often a take's line went out of date since it was worked out; read before judging."""
    row = db.execute("select stale from summary where take_id = ?", (take_id,)).fetchone()
    return 0 if row is None else int(row["stale"])


def stale_ids(db: sqlite3.Connection, *, limit: int, without: Collection[int] = ()) -> list[int]:
    """Takes whose line is out of date, newest first. without: that are not asked for."""
    rows = db.execute(
        "select take_id from summary where stale > 0"
        " and take_id not in (select value from json_each(?)) order by take_id desc limit ?",
        (json.dumps(sorted(without)), limit),
    )
    return [row["take_id"] for row in rows]


def stale_count(db: sqlite3.Connection, *, without: Collection[int] = ()) -> int:
    """How many of them there are, but for those that were deleted."""
    # "cross": looked for among the few that are out of date, not among all takes.
    row = db.execute(
        "select count(*) as many from summary cross join take on take.id = summary.take_id"
        " where stale > 0 and take.deleted_at is null"
        " and take_id not in (select value from json_each(?))",
        (json.dumps(sorted(without)),),
    ).fetchone()
    return int(row["many"])


@dataclass(frozen=True)
class BodySpeed:
    """A measured take of the shooter's own. setup_id: 0 where it is not known. speed_pct_s: S of
    the picture. walks: steps were found in it."""

    take_id: int
    setup_id: int
    speed_pct_s: float
    focal_eq_mm: float
    walks: bool


def body_speeds(db: sqlite3.Connection, *, limit: int) -> list[BodySpeed]:
    """Of the newest measured takes."""
    rows = db.execute(
        "select take.id, coalesce(take.setup_id, 0) as setup_id, summary.speed_pct_s,"
        f" coalesce(take.own_focal_eq_mm, setup.focal_eq_mm, {UNKNOWN_FOCAL_EQ_MM}) as focal,"
        " json_extract(summary.figures, '$.cadence') is not null as walks"
        " from take join summary on summary.take_id = take.id"
        " left join setup on setup.id = take.setup_id"
        " where take.deleted_at is null and take.origin = 'own' and summary.speed_pct_s > 0"
        " order by take.id desc limit ?",
        (limit,),
    )
    return [
        BodySpeed(row["id"], row["setup_id"], row["speed_pct_s"], row["focal"], bool(row["walks"]))
        for row in rows
    ]


def put(
    db: sqlite3.Connection,
    take_id: int,
    *,
    gust: float | None,
    peak_gust: float | None,
    remedy: str | None,
    ridge: bytes,
    speed_pct_s: float | None,
    top_band: str | None,
    cause: str | None,
    trusted_share: float | None,
    figures: dict[str, float],
    lasting: Lasting | None,
    turning: Floats | None,
    staleness: int,
    verdict: Verdict | None = None,
) -> None:
    """Keep a take's line. figures: what many takes are compared by. lasting: until when it lasted
    at each target. turning: of its hand, (bins, 4). staleness: of before it was judged; a line
    that has gone out of date since then stays so."""
    db.execute(
        "insert into summary (take_id, gust, peak_gust, remedy, ridge, speed_pct_s, top_band,"
        " cause, trusted_share, figures, holds, turning, verdict, stale)"
        " values (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, 0)"
        " on conflict (take_id) do update set gust = excluded.gust,"
        " peak_gust = excluded.peak_gust, remedy = excluded.remedy, ridge = excluded.ridge,"
        " speed_pct_s = excluded.speed_pct_s, top_band = excluded.top_band,"
        " cause = excluded.cause, trusted_share = excluded.trusted_share,"
        " figures = excluded.figures, holds = excluded.holds,"
        " turning = excluded.turning, verdict = excluded.verdict,"
        " stale = iif(summary.stale = ?, 0, summary.stale)",
        (
            take_id,
            gust,
            peak_gust,
            remedy,
            ridge,
            speed_pct_s,
            top_band,
            cause,
            trusted_share,
            json.dumps(figures),
            _holds(lasting),
            None if turning is None else turning.astype(np.float32).tobytes(),
            None if verdict is None else _VERDICT.text(verdict),
            staleness,
        ),
    )


def verdict(db: sqlite3.Connection, take_id: int) -> Verdict | None:
    """What is kept of a take's verdict; None where that is not there, or out of date."""
    row = db.execute(
        "select verdict from summary where take_id = ? and not stale", (take_id,)
    ).fetchone()
    if row is None or row["verdict"] is None:
        return None
    return _VERDICT.read(row["verdict"])


def _holds(lasting: Lasting | None) -> str:
    """As JSON: the length, then a moment for each level; [] where nothing is known."""
    if lasting is None:
        return "[]"
    rounded = [None if one is None else round(one, 3) for one in lasting.over_s]
    return json.dumps([round(lasting.length_s, 3), *rounded])


def forget(db: sqlite3.Connection, take_id: int) -> None:
    """Drop the line of a take that has no path any more."""
    db.execute("delete from summary where take_id = ?", (take_id,))


def mark_all_stale(db: sqlite3.Connection) -> None:
    """Every line is out of date: what a verdict is weighed by has changed."""
    db.execute("update summary set stale = stale + 1")


def mark_setup_stale(db: sqlite3.Connection, setup_id: int) -> None:
    """The lines of all takes that were filmed with a set-up are out of date."""
    db.execute(
        "update summary set stale = stale + 1"
        " where take_id in (select id from take where setup_id = ?)",
        (setup_id,),
    )
