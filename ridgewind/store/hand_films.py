"""Films of a made scene in the shooter's own hand: what was asked for, and the take it became."""

from __future__ import annotations

import json
import sqlite3
from dataclasses import asdict, dataclass

from ridgewind.core.trials.own_hand import Prediction
from ridgewind.store import jobs
from ridgewind.store.database import NOW
from ridgewind.store.errors import NotFoundError
from ridgewind.store.jobs import JobRow


@dataclass(frozen=True)
class HandFilmAsk:
    """technique: drill/variation. name: of the film. fps: to film at. predicted: what it should
    read as filmed."""

    technique: str
    name: str
    focal_eq_mm: float
    fps: float
    predicted: Prediction


@dataclass(frozen=True)
class HandFilmRow:
    """take_id: None until it is filmed."""

    id: int
    ask: HandFilmAsk
    take_id: int | None
    job: JobRow


def add(db: sqlite3.Connection, ask: HandFilmAsk) -> int:
    """Ask for a film; returns its id."""
    cursor = db.execute(
        "insert into hand_film (technique, name, focal_eq_mm, fps, predicted, asked_at)"
        f" values (?, ?, ?, ?, ?, {NOW})",
        (ask.technique, ask.name, ask.focal_eq_mm, ask.fps, json.dumps(asdict(ask.predicted))),
    )
    assert cursor.lastrowid is not None
    jobs.enqueue(db, "film", cursor.lastrowid)
    return cursor.lastrowid


def by_id(db: sqlite3.Connection, film_id: int) -> HandFilmRow:
    row = db.execute("select * from hand_film where id = ?", (film_id,)).fetchone()
    job = jobs.one(db, "film", film_id)
    if row is None or job is None:
        raise NotFoundError("film", film_id)
    ask = HandFilmAsk(
        row["technique"],
        row["name"],
        row["focal_eq_mm"],
        row["fps"],
        Prediction(**json.loads(row["predicted"])),
    )
    return HandFilmRow(row["id"], ask, row["take_id"], job)


def filmed(db: sqlite3.Connection, film_id: int, take_id: int) -> None:
    """It has become a take."""
    db.execute("update hand_film set take_id = ? where id = ?", (take_id, film_id))
