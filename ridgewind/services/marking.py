"""The shooter's own word on a take: smooth enough or not, of the take or of a preview of it."""

from __future__ import annotations

from ridgewind.services.errors import NO_GUST, NotReadyError
from ridgewind.store import database, marks, renders, takes
from ridgewind.store.database import Connection
from ridgewind.store.errors import NotFoundError
from ridgewind.store.renders import RenderRow


def mark(
    db: Connection, take_id: int, *, smooth: bool | None, blind: bool, render_id: int | None
) -> None:
    """Keep a mark; None takes it back. render_id: of the preview that was marked, None for the
    take as shot. Raises NotFoundError, NotReadyError."""
    take = takes.by_id(db, take_id)
    view, gust, crop_pct = marks.AS_SHOT, take.gust, None
    if render_id is not None:
        row = renders.by_id(db, render_id)
        if row.take_id != take_id:
            raise NotFoundError("rendered film of this take", render_id)
        view, gust = view_of(row), row.gust
        crop_pct = row.recipe.crop_pct if row.recipe.corner_hz is not None else None
    with database.atomic(db):
        if smooth is None:
            marks.remove(db, take_id, view=view)
        elif gust is None:
            raise NotReadyError(*NO_GUST)
        else:
            marks.put(
                db, take_id, view=view, smooth=smooth, blind=blind, feel=take.brief.feel,
                gust=gust, crop_pct=crop_pct,
            )  # fmt: skip


def marked(db: Connection, row: RenderRow) -> bool | None:
    """Whether a preview was smooth to the shooter's eye, None where it was not marked."""
    return marks.one(db, row.take_id, view=view_of(row))


def view_of(row: RenderRow) -> str:
    """The name under which a preview is marked: the same treatment is the same view."""
    recipe = row.recipe
    return f"{recipe.kind} {recipe.rate:.3f} {recipe.corner_hz or 0:.3f} {recipe.drift or ''}"
