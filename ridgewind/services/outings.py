"""Outings: planned as a list of shots, noted on the spot, with what is still missing."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from ridgewind.core.errors import InvalidArgumentError, require_between
from ridgewind.core.kit.moving import USUAL_CROSSING_S, unhurried_pct
from ridgewind.core.practice.slate import outing_slate_text
from ridgewind.core.sequence import plain_words, starts
from ridgewind.core.sequence.coverage import Gap, missing
from ridgewind.core.sequence.order import FilmingOrder, filming_order
from ridgewind.core.sequence.shot import PlannedShot, check_shot
from ridgewind.services import codes
from ridgewind.store import briefs, database, outings
from ridgewind.store.database import Connection
from ridgewind.store.outings import OutingFacts, OutingRow, ShotRow, ShotState

MOST_SHOTS = 200


@dataclass(frozen=True)
class OutingSheet:
    """Everything that is said of an outing. order: to film in, see FilmingOrder."""

    row: OutingRow
    shots: tuple[ShotRow, ...]
    gaps: tuple[Gap, ...]
    order: FilmingOrder
    delivery_fps: float

    def unhurried_pct(self, shot: ShotRow) -> float | None:
        """How far a shot's move may go without a hurry, percent of the picture; None where it is
        still, or where what goes is not the picture."""
        if shot.shot.move not in ACROSS:
            return None
        return unhurried_pct(
            shot.shot.seconds, delivery_fps=self.delivery_fps, crossing_s=USUAL_CROSSING_S
        )


ACROSS = frozenset({"pan", "tilt", "slide", "rise", "walk"})
"""Moves that take a thing across the picture."""


def sheet(db: Connection, outing_id: int) -> OutingSheet:
    """Raises NotFoundError."""
    row = outings.by_id(db, outing_id)
    shots = tuple(outings.shots(db, outing_id))
    planned = [one.shot for one in shots]
    begun = any(one.state != "open" for one in shots)
    gaps = missing(planned, filmed=[one.got for one in shots] if begun else None)
    brief = briefs.usual(db) if row.brief_id is None else briefs.by_id(db, row.brief_id)
    order = filming_order(planned, here=row.place)
    return OutingSheet(row, shots, gaps, order, brief.brief.delivery_fps)


def begin(db: Connection, facts: OutingFacts, *, start: str | None, about: str) -> int:
    """Keep an outing, of a starting point's shots or none; returns its id. Raises
    InvalidArgumentError."""
    shots = () if start is None else starts.shots_of(start, about)
    _check_facts(facts)
    with database.atomic(db):
        outing_id = outings.add(db, facts)
        outings.add_shots(db, outing_id, shots)
    return outing_id


def change(db: Connection, outing_id: int, facts: OutingFacts) -> None:
    """Raises NotFoundError and InvalidArgumentError."""
    _check_facts(facts)
    with database.atomic(db):
        outings.change(db, outing_id, facts)


def _check_facts(facts: OutingFacts) -> None:
    if not facts.name.strip():
        raise InvalidArgumentError("name", facts.name, "an outing has a name")


def add_line(db: Connection, outing_id: int, text: str) -> int:
    """Read a line of plain words into a shot at the end; returns the shot's id. Raises
    NotFoundError and InvalidArgumentError."""
    return add_shots(db, outing_id, [plain_words.read_line(text).shot])[0]


def add_shots(db: Connection, outing_id: int, shots: Sequence[PlannedShot]) -> list[int]:
    """Put shots at the end; returns their ids. Raises NotFoundError and InvalidArgumentError."""
    checked = [check_shot(shot) for shot in shots]
    with database.atomic(db):
        require_between("shots", len(outings.shots(db, outing_id)) + len(checked), 0, MOST_SHOTS)
        return outings.add_shots(db, outing_id, checked)


def add_start(db: Connection, outing_id: int, *, start: str, about: str) -> list[int]:
    """Put a starting point's shots at the end. Raises NotFoundError and InvalidArgumentError."""
    return add_shots(db, outing_id, starts.shots_of(start, about))


def change_shot(db: Connection, shot_id: int, shot: PlannedShot) -> None:
    """Raises NotFoundError and InvalidArgumentError."""
    with database.atomic(db):
        outings.change_shot(db, shot_id, check_shot(shot))


def put_order(db: Connection, outing_id: int, ids: Sequence[int], *, base: Sequence[int]) -> bool:
    """Show these shots in this order; those of base that are left out are taken out, and can be
    put back. base: the order that was seen; returns False, and changes nothing, where it is
    another one now. Raises NotFoundError and InvalidArgumentError."""
    if len(set(ids)) != len(ids):
        raise InvalidArgumentError("ids", list(ids), "a shot stands in one place")
    with database.atomic(db):
        outings.by_id(db, outing_id)
        if [one.id for one in outings.shots(db, outing_id)] != list(base):
            return False
        for shot_id in ids:
            if outings.shot_by_id(db, shot_id).outing_id != outing_id:
                raise InvalidArgumentError("ids", shot_id, "it is another outing's shot")
        outings.put_order(db, outing_id, ids)
    return True


def note(
    db: Connection,
    shot_id: int,
    *,
    state: ShotState | None = None,
    got: int | None = None,
    text: str | None = None,
) -> None:
    """Keep what became of a shot. Raises NotFoundError."""
    with database.atomic(db):
        outings.note_shot(db, shot_id, state=state, got=got, note=text)


def wave(db: Connection, outing_id: int, key: str, *, waved: bool) -> None:
    """Let something that is missing not matter, or matter again. Raises NotFoundError."""
    with database.atomic(db):
        kept = [one for one in outings.by_id(db, outing_id).waved if one != key]
        outings.wave(db, outing_id, [*kept, key] if waved else kept)


def slate_svg(db: Connection, shot_id: int) -> bytes:
    """A shot's code as a drawing that fills any screen. Raises NotFoundError."""
    shot = outings.shot_by_id(db, shot_id)
    number = outings.numbers(db, shot.outing_id)[shot_id]
    return codes.svg_of(outing_slate_text(shot.outing_id, number), error="h")
