"""Films rendered from takes: what was asked, how far it is, and what it measured."""

from __future__ import annotations

import sqlite3
from dataclasses import dataclass

from pydantic import TypeAdapter

from ridgewind.core.judge.recipe import Recipe
from ridgewind.store.database import NOW
from ridgewind.store.errors import NotFoundError
from ridgewind.store.jobs import MOST_ATTEMPTS

_RECIPE = TypeAdapter(Recipe)

PURPOSES = ("preview", "film")


@dataclass(frozen=True)
class RenderRow:
    """purpose: preview or film. gust, peak_gust: measured again of a preview. unmeasured: why
    they are missing."""

    id: int
    take_id: int
    purpose: str
    recipe: Recipe
    made_at: str
    state: str
    progress: float | None
    attempts: int
    cancel_requested: bool
    error_code: str | None
    error_what: str | None
    error_next: str | None
    gust: float | None
    peak_gust: float | None
    unmeasured: str | None
    size_bytes: int | None


def add(db: sqlite3.Connection, *, take_id: int, purpose: str, recipe: Recipe) -> int:
    """Ask for a film; returns its id. One like it that is there or on its way is given again."""
    text = _RECIPE.dump_json(recipe).decode()
    row = db.execute(
        "select id from render where take_id = ? and purpose = ? and recipe = ?"
        " and state in ('queued', 'running', 'done') and not cancel_requested",
        (take_id, purpose, text),
    ).fetchone()
    if row is not None:
        return int(row["id"])
    cursor = db.execute(
        "insert into render (take_id, purpose, recipe, made_at, state)"
        f" values (?, ?, ?, {NOW}, 'queued')",
        (take_id, purpose, text),
    )
    assert cursor.lastrowid is not None
    return cursor.lastrowid


def by_id(db: sqlite3.Connection, render_id: int) -> RenderRow:
    row = db.execute("select * from render where id = ?", (render_id,)).fetchone()
    if row is None:
        raise NotFoundError("rendered film", render_id)
    return _row(row)


def of_take(db: sqlite3.Connection, take_id: int) -> list[RenderRow]:
    """Films of a take, the newest first."""
    rows = db.execute("select * from render where take_id = ? order by id desc", (take_id,))
    return [_row(row) for row in rows]


def numbers(db: sqlite3.Connection) -> list[int]:
    """Ids of all films."""
    return [row["id"] for row in db.execute("select id from render")]


def in_state(db: sqlite3.Connection, state: str) -> list[RenderRow]:
    """Films that wait or are being made, the oldest first."""
    rows = db.execute("select * from render where state = ? order by id", (state,))
    return [_row(row) for row in rows]


def claim(db: sqlite3.Connection, render_id: int) -> bool:
    """Take a waiting one; False where it is not waiting."""
    cursor = db.execute(
        "update render set state = 'running', attempts = attempts + 1, progress = 0"
        " where id = ? and state = 'queued'",
        (render_id,),
    )
    return cursor.rowcount == 1


def report(db: sqlite3.Connection, render_id: int, progress: float | None) -> bool:
    """Note how far it is; True where the shooter has asked to stop."""
    db.execute("update render set progress = ? where id = ?", (progress, render_id))
    row = db.execute("select cancel_requested from render where id = ?", (render_id,)).fetchone()
    return row is None or bool(row["cancel_requested"])


def request_cancel(db: sqlite3.Connection, render_id: int) -> None:
    """Ask a running one to stop; a waiting one stops at once."""
    db.execute(
        "update render set cancel_requested = 1,"
        " state = case state when 'queued' then 'cancelled' else state end"
        " where id = ? and state in ('queued', 'running')",
        (render_id,),
    )


def finish(
    db: sqlite3.Connection,
    render_id: int,
    *,
    size_bytes: int,
    gust: float | None,
    peak_gust: float | None,
    unmeasured: str | None,
) -> None:
    db.execute(
        "update render set state = 'done', progress = null, size_bytes = ?, gust = ?,"
        " peak_gust = ?, unmeasured = ? where id = ?",
        (size_bytes, gust, peak_gust, unmeasured, render_id),
    )


def stop(db: sqlite3.Connection, render_id: int) -> None:
    """End one as cancelled."""
    db.execute("update render set state = 'cancelled', progress = null where id = ?", (render_id,))


def fail(db: sqlite3.Connection, render_id: int, *, code: str, what: str, next_step: str) -> None:
    db.execute(
        "update render set state = 'failed', progress = null, error_code = ?, error_what = ?,"
        " error_next = ? where id = ?",
        (code, what, next_step, render_id),
    )


def recover(db: sqlite3.Connection, render: RenderRow) -> bool:
    """Let one that a process left running wait again, or give it up; True where it waits."""
    if render.cancel_requested:
        stop(db, render.id)
        return False
    if render.attempts >= MOST_ATTEMPTS:
        fail(
            db, render.id, code="crashed", what="rendering it ended the rendering process twice",
            next_step="try a shorter part, or another strength",
        )  # fmt: skip
        return False
    db.execute("update render set state = 'queued', progress = null where id = ?", (render.id,))
    return True


def old_previews(db: sqlite3.Connection, *, keep: int) -> list[RenderRow]:
    """Previews beyond the newest few, and what failed or was stopped beyond them."""
    rows = db.execute(
        "select * from render where purpose = 'preview' and state not in ('queued', 'running')"
        " order by id desc limit -1 offset ?",
        (keep,),
    )
    return [_row(row) for row in rows]


def remove(db: sqlite3.Connection, render_id: int) -> None:
    db.execute("delete from render where id = ?", (render_id,))


def _row(row: sqlite3.Row) -> RenderRow:
    values = {name: row[name] for name in RenderRow.__dataclass_fields__}
    values["recipe"] = _RECIPE.validate_json(row["recipe"])
    values["cancel_requested"] = bool(row["cancel_requested"])
    return RenderRow(**values)
