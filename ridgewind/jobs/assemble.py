"""The assembling task: a sequence's pieces in; one film, small or whole, and its gusts out."""

from __future__ import annotations

from ridgewind.core.motion.path import Motion, clipped
from ridgewind.core.sequence.piece import Piece
from ridgewind.core.sequence.shapes import delivered_px
from ridgewind.core.sequence.timeline import Placed, placed
from ridgewind.core.shake import read_motion
from ridgewind.films.assembling import Part, assemble, small_form, whole_form
from ridgewind.films.measuring import measure_film
from ridgewind.films.rendering import SAFE_PX
from ridgewind.jobs.running import KeepResult, Task, Watch, run_task
from ridgewind.jobs.sources import source_of
from ridgewind.library.library import Library
from ridgewind.media.errors import UnfitError
from ridgewind.services import sequencing
from ridgewind.services.pieces import PieceSheet
from ridgewind.services.sequencing import JoinedTakes
from ridgewind.store import sequence_films
from ridgewind.store.clips import LOG_CODEC
from ridgewind.store.database import Connection
from ridgewind.store.jobs import Fault

ASSEMBLED_SHARE = 0.9
"""Of the time; the rest goes to measuring it again."""

EDGE_S = 0.12
"""At a piece's ends that is not measured: a cut between two that are alike is found within it."""

MOST_PARTS, MOST_PART_BYTES = 400, 4_000_000_000
UNFORESEEN = Fault(
    "internal",
    "assembling it failed in a way that was not foreseen",
    "leave out the piece that was added last",
)


def assemble_one(library: Library, film_id: int) -> None:
    """Assemble one film if it is still waiting; it is there whole, or not at all."""
    run_task(library, Task("assemble", _assemble, UNFORESEEN, undo=_remove_film), film_id)
    _prune(library)


def _remove_film(library: Library, film_id: int) -> None:
    library.sequence_film_of(film_id).unlink(missing_ok=True)


def _assemble(library: Library, db: Connection, film_id: int, watch: Watch) -> KeepResult:
    row = sequence_films.by_id(db, film_id)
    found = sequencing.sequence_of(db, row.outing_id, film=row)
    look = found.look
    small = small_form(look.shape, rate_hz=look.rate_hz)
    parts = [_part(library, found, sheet, small.size) for sheet in found.pieces]
    form = small
    if row.whole:
        size = delivered_px(look.shape, found.brief.delivery_px)
        form = whole_form(size, parts, rate_hz=look.rate_hz)
        parts = [_part(library, found, sheet, form.size) for sheet in found.pieces]
    target = library.sequence_film_of(film_id)
    share = 1.0 if row.whole else ASSEMBLED_SHARE
    assemble(
        parts, target, form=form, place=library.sequence_part_of,
        on_progress=lambda done: watch.feed(share * done),
    )  # fmt: skip
    # A whole film shows what the small one does; that one is measured.
    gusts = [] if row.whole else _measured(
        library, film_id, row.pieces, look.rate_hz, look.screen_deg
    )  # fmt: skip

    def keep() -> None:
        size = target.stat().st_size
        sequence_films.assembled(db, film_id, gusts=gusts, size_bytes=size)
        for earlier in sequence_films.before(db, film_id):
            library.sequence_film_of(earlier).unlink(missing_ok=True)

    return keep


def _part(library: Library, found: JoinedTakes, sheet: PieceSheet, size: tuple[int, int]) -> Part:
    piece, frames = sheet.piece, sheet.placed.frames
    take = found.here.get(piece.take_id or 0)
    if take is None or take.clip.codec == LOG_CODEC:
        return Part(piece, frames, "", None, None)
    row = take.clip
    source = source_of(library, take, rate_hz=found.rate_hz)
    seen = take.seen(piece, found.look, drawn_in_pct=100.0 * SAFE_PX / max(size))
    recipe = take.polish_of(piece) if seen.polish is not None else None
    sound = piece.keeps_sound and bool(row.has_sound)
    return Part(piece, frames, row.sha256, source, seen, recipe, sound)


def _measured(
    library: Library,
    film_id: int,
    pieces: tuple[Piece, ...],
    rate_hz: float,
    screen_deg: float,
) -> list[float | None]:
    """The gust of every piece in the finished film, None where it cannot be told."""
    try:
        motion = measure_film(library.sequence_film_of(film_id)).motion
    except UnfitError:
        return [None] * len(pieces)
    return [_gust(motion, place, rate_hz, screen_deg) for place in placed(pieces, rate_hz=rate_hz)]


def _gust(motion: Motion, place: Placed, rate_hz: float, screen_deg: float) -> float | None:
    from_s, to_s = place.start / rate_hz + EDGE_S, (place.start + place.frames) / rate_hz - EDGE_S
    if to_s <= from_s:
        return None
    return read_motion(clipped(motion, from_s=from_s, to_s=to_s)).gust(screen_deg=screen_deg)


def _prune(library: Library) -> None:
    """Pieces that were not used for longest go."""
    parts = sorted(library.sequences.glob("part-*.mp4"), key=lambda path: -path.stat().st_mtime)
    size = 0
    for number, part in enumerate(parts):
        size += part.stat().st_size
        if number >= MOST_PARTS or size > MOST_PART_BYTES:
            part.unlink(missing_ok=True)
