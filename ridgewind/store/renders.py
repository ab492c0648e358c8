"""Films rendered from takes: what was asked, what it measured, and how far it is."""

from __future__ import annotations

import sqlite3
from dataclasses import dataclass

from ridgewind.core.judge.recipe import Recipe
from ridgewind.store import jobs
from ridgewind.store.as_json import AsJson
from ridgewind.store.database import NOW
from ridgewind.store.errors import NotFoundError

_RECIPE = AsJson(Recipe)
_SELECT = """
select render.*, job.state, job.progress, job.error_code, job.error_what, job.error_next
  from render
  join job on job.kind = 'render' and job.subject_id = render.id
"""

PURPOSES = ("preview", "film")


@dataclass(frozen=True)
class RenderRow:
    """purpose: preview or film. gust, peak_gust: measured again of a preview. unmeasured: why
    they are missing. edge_gust: by the edges of its picture alone. subject_gust: of the subject
    that it holds. state, progress, error_...: of
    its work, see jobs."""

    id: int
    take_id: int
    purpose: str
    recipe: Recipe
    made_at: str
    gust: float | None
    peak_gust: float | None
    unmeasured: str | None
    edge_gust: float | None
    subject_gust: float | None
    size_bytes: int | None
    state: str
    progress: float | None
    error_code: str | None
    error_what: str | None
    error_next: str | None


def add(db: sqlite3.Connection, *, take_id: int, purpose: str, recipe: Recipe) -> int:
    """Ask for a film; returns its id. One like it that is there or on its way is given again."""
    text = _RECIPE.text(recipe)
    row = db.execute(
        f"{_SELECT} where take_id = ? and purpose = ? and recipe = ?"
        " and state in ('queued', 'running', 'done') and not cancel_requested",
        (take_id, purpose, text),
    ).fetchone()
    if row is not None:
        return int(row["id"])
    cursor = db.execute(
        f"insert into render (take_id, purpose, recipe, made_at) values (?, ?, ?, {NOW})",
        (take_id, purpose, text),
    )
    assert cursor.lastrowid is not None
    jobs.enqueue(db, "render", cursor.lastrowid)
    return cursor.lastrowid


def by_id(db: sqlite3.Connection, render_id: int) -> RenderRow:
    row = db.execute(f"{_SELECT} where render.id = ?", (render_id,)).fetchone()
    if row is None:
        raise NotFoundError("rendered film", render_id)
    return _row(row)


def of_take(db: sqlite3.Connection, take_id: int) -> list[RenderRow]:
    """Films of a take, the newest first."""
    rows = db.execute(f"{_SELECT} where take_id = ? order by render.id desc", (take_id,))
    return [_row(row) for row in rows]


def numbers(db: sqlite3.Connection) -> list[int]:
    """Ids of all films."""
    return [row["id"] for row in db.execute("select id from render")]


def store_result(
    db: sqlite3.Connection,
    render_id: int,
    *,
    size_bytes: int,
    gust: float | None,
    peak_gust: float | None,
    unmeasured: str | None,
    edge_gust: float | None,
    subject_gust: float | None,
) -> None:
    """Keep what a film that was made measures."""
    db.execute(
        "update render set size_bytes = ?, gust = ?, peak_gust = ?, unmeasured = ?,"
        " edge_gust = ?, subject_gust = ? where id = ?",
        (size_bytes, gust, peak_gust, unmeasured, edge_gust, subject_gust, render_id),
    )


def old_previews(db: sqlite3.Connection, *, keep: int) -> list[RenderRow]:
    """Previews beyond the newest few, and what failed or was stopped beyond them."""
    rows = db.execute(
        f"{_SELECT} where purpose = 'preview' and state not in {jobs.UNFINISHED}"
        " order by render.id desc limit -1 offset ?",
        (keep,),
    )
    return [_row(row) for row in rows]


def remove(db: sqlite3.Connection, render_id: int) -> None:
    jobs.forget(db, "render", render_id)
    db.execute("delete from render where id = ?", (render_id,))


def _row(row: sqlite3.Row) -> RenderRow:
    values = {name: row[name] for name in RenderRow.__dataclass_fields__}
    values["recipe"] = _RECIPE.read(row["recipe"])
    return RenderRow(**values)
