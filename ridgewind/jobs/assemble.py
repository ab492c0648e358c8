"""The assembling task: a sequence's pieces in; one small film and what its pieces measure out."""

from __future__ import annotations

from ridgewind.core.motion.path import Motion, clipped
from ridgewind.core.sequence.timeline import Piece, Placed, placed
from ridgewind.core.shake import read_motion
from ridgewind.films.assembling import Part, assemble, film_size
from ridgewind.films.measuring import measure_film
from ridgewind.films.rendering import Source
from ridgewind.jobs.running import KeepResult, Task, Watch, run_task
from ridgewind.library.library import Library
from ridgewind.media.errors import UnfitError
from ridgewind.services import assessing, sequencing
from ridgewind.services.pieces import PieceSheet, measured_take
from ridgewind.store import sequence_films
from ridgewind.store.database import Connection
from ridgewind.store.jobs import Fault

ASSEMBLED_SHARE = 0.9
"""Of the time; the rest goes to measuring it again."""

EDGE_S = 0.12
"""At a piece's ends that is not measured: a cut between two that are alike is found within it."""

MOST_PARTS = 400
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
    found = sequencing.sequence_of(db, row.outing_id, pieces=row.pieces, suggest=False)
    rate_hz, brief = found.rate_hz, found.brief
    parts = [_part(library, db, sheet) for sheet in found.pieces]
    target = library.sequence_film_of(film_id)
    assemble(
        parts,
        target,
        place=library.sequence_part_of,
        size=film_size(brief.delivery_width_px / brief.delivery_height_px),
        rate_hz=rate_hz,
        on_progress=lambda done: watch.feed(ASSEMBLED_SHARE * done),
    )
    gusts = _measured(library, film_id, row.pieces, rate_hz, brief.screen_deg)

    def keep() -> None:
        size = target.stat().st_size
        sequence_films.assembled(db, film_id, gusts=gusts, size_bytes=size)
        for earlier in sequence_films.before(db, film_id):
            library.sequence_film_of(earlier).unlink(missing_ok=True)

    return keep


def _part(library: Library, db: Connection, sheet: PieceSheet) -> Part:
    piece, frames = sheet.piece, sheet.placed.frames
    take = sheet.take
    if take is None or sheet.length_s is None:
        return Part(piece, frames, "", None, None, None, None)
    measured = measured_take(db, take.id)
    if measured is None or measured.clip.codec == assessing.LOG_CODEC:
        return Part(piece, frames, "", None, None, None, None)
    row = measured.clip
    original = library.originals / row.file
    # A browser copy begins with its film; paths are of the file.
    whole = original.is_file()
    source = Source(
        original if whole else library.copy_of(row.sha256),
        0.0 if whole else -measured.first_s,
        (row.width or 1, row.height or 1),
        row.fps or 25.0,
    )
    return Part(
        piece, frames, row.sha256, source, measured.polish_of(piece), measured.analysis,
        measured.facts, measured.first_s,
    )  # fmt: skip


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
    parts = sorted(library.sequences.glob("part-*.mp4"), key=lambda path: path.stat().st_mtime)
    for old in parts[:-MOST_PARTS]:
        old.unlink(missing_ok=True)
