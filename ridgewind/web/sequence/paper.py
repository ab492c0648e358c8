"""A sequence as a contact sheet: what of it stands on paper."""

from __future__ import annotations

import numpy as np

from ridgewind.core.sequence.joins import joined
from ridgewind.films.contact_sheet import Cell, Heading, as_pdf, as_png, picture_of
from ridgewind.jobs.sources import source_of
from ridgewind.library.library import Library
from ridgewind.services.assessing import RIDGE_COLUMNS, RIDGE_STEPS_PER_GUST
from ridgewind.services.pieces import PieceSheet
from ridgewind.services.sequencing import JoinedTakes
from ridgewind.store.clips import LOG_CODEC


def contact_sheet(library: Library, sequence: JoinedTakes, *, kind: str) -> bytes:
    """The sheet as `pdf` or `png`."""
    cuts = [None, *sequence.cuts]
    cells = [
        _cell(library, sequence, sheet, number, None if cut is None else cut.mismatch)
        for number, (sheet, cut) in enumerate(zip(sequence.pieces, cuts, strict=False), start=1)
    ]
    frames = sum(one.placed.frames for one in sequence.pieces)
    told = [
        sequence.row.place, sequence.row.day, f"{frames / sequence.rate_hz:.1f} s",
        f"{sequence.rate_hz:g} frames a second", f"{len(cells)} pieces",
        f"gust allowed {sequence.brief.target:.1f}",
    ]  # fmt: skip
    heading = Heading(
        sequence.row.name, " · ".join(one for one in told if one), sequence.look.shape,
        sequence.brief.target,
    )  # fmt: skip
    return as_pdf(heading, cells) if kind == "pdf" else as_png(heading, cells)


def _cell(
    library: Library, sequence: JoinedTakes, sheet: PieceSheet, number: int, cut: float | None
) -> Cell:
    piece, take = sheet.piece, sequence.here.get(sheet.piece.take_id or 0)
    picture, ridge = None, np.zeros((0, 5))
    if take is not None and take.clip.codec != LOG_CODEC:
        source = source_of(library, take, rate_hz=sequence.rate_hz)
        picture = picture_of(take.seen(piece, sequence.look), source)
    if sheet.ridge:
        heights = np.frombuffer(sheet.ridge, np.uint8).reshape(RIDGE_COLUMNS, -1)
        ridge = heights / RIDGE_STEPS_PER_GUST
    begun_s = sheet.placed.start / sequence.rate_hz
    told = [f"at {begun_s:.1f} s", f"{sheet.placed.frames / sequence.rate_hz:.1f} s"]
    if piece.ramp:
        told.append("ramp")
    elif piece.speed != 1.0:
        told.append(f"{100 * piece.speed:.0f} %")
    if piece.backwards:
        told.append("backwards")
    return Cell(
        number=number,
        subject="" if sheet.shot is None else sheet.shot.shot.subject,
        picture=picture,
        ridge=ridge,
        words=sheet.trouble if take is None and sheet.trouble else " · ".join(told),
        gust=None if sheet.motion is None else sheet.motion.gust,
        join="" if cut is None else f"cut {joined(cut)}",
    )
