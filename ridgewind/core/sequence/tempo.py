"""Cuts on the beat of a piece of music."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace

import numpy as np

from ridgewind.core.errors import require_between
from ridgewind.core.sequence.piece import SHORTEST_S, Piece, lasting

TEMPO_RANGE = (20.0, 300.0)
"""Beats a minute."""

FIT_ROUNDS = 4
"""Of finding where a piece ends so that it has a number of frames: ends are kept in thousandths."""


def beat_frame(beat: int, *, beats_per_min: float, rate_hz: float) -> int:
    """The frame of the film, from 0, that begins nearest to a beat, which count from 0.

    >>> [beat_frame(k, beats_per_min=100, rate_hz=24) for k in range(4)]
    [0, 14, 29, 43]
    """
    require_between("beats_per_min", beats_per_min, *TEMPO_RANGE)
    return int(np.floor(beat * 60.0 / beats_per_min * rate_hz + 0.5))


def is_on_beat(frame: int, *, beats_per_min: float, rate_hz: float) -> bool:
    """Whether a cut before a frame falls on a beat."""
    beat = round(frame / rate_hz * beats_per_min / 60.0)
    return beat_frame(beat, beats_per_min=beats_per_min, rate_hz=rate_hz) == frame


def on_beats(
    pieces: Sequence[Piece],
    lengths_s: Sequence[float | None],
    *,
    beats_per_min: float,
    rate_hz: float,
) -> tuple[Piece, ...]:
    """The pieces, each made a little longer or shorter so that every cut falls on the beat nearest
    to where it was; on an earlier one where a film does not go on so long.

    lengths_s: of each piece's film, None where it has none. No piece lasts less than a beat, but
    one whose film is too short for that stays as it is.
    """
    require_between("beats_per_min", beats_per_min, *TEMPO_RANGE)
    beat_s = 60.0 / beats_per_min
    out: list[Piece] = []
    begun, wanted_s = 0, 0.0
    for piece, length_s in zip(pieces, lengths_s, strict=True):
        wanted_s += piece.seconds
        room_s = np.inf if length_s is None else _longest_s(piece, length_s)
        beat = max(1, round(wanted_s / beat_s))
        while _frames_to(beat, begun, beats_per_min, rate_hz) < 1:
            beat += 1
        while beat > 1 and _frames_to(beat, begun, beats_per_min, rate_hz) > room_s * rate_hz:
            beat -= 1
        frames = _frames_to(beat, begun, beats_per_min, rate_hz)
        fits = 1 <= frames <= room_s * rate_hz + 0.5
        found = _of_frames(piece, frames, length_s, rate_hz) if fits else piece
        out.append(found if found.out_s - found.in_s >= SHORTEST_S else piece)
        begun += max(1, int(np.floor(out[-1].seconds * rate_hz + 0.5)))
    return tuple(out)


def _frames_to(beat: int, begun: int, beats_per_min: float, rate_hz: float) -> int:
    return beat_frame(beat, beats_per_min=beats_per_min, rate_hz=rate_hz) - begun


def _longest_s(piece: Piece, length_s: float) -> float:
    """On screen, of all of its film."""
    return replace(piece, in_s=0.0, out_s=max(length_s, piece.out_s)).seconds


def _of_frames(piece: Piece, frames: int, length_s: float | None, rate_hz: float) -> Piece:
    """The piece with so many frames."""
    seconds = frames / rate_hz
    if length_s is None:
        return replace(piece, out_s=round(piece.in_s + seconds * piece.speed, 3))
    found = lasting(piece, seconds, length_s=max(length_s, piece.out_s))
    found = replace(found, in_s=round(found.in_s, 3), out_s=round(found.out_s, 3))
    for _ in range(FIT_ROUNDS):
        off = frames - int(np.floor(found.seconds * rate_hz + 0.5))
        if off == 0:
            break
        nudge_s = 0.25 * off / rate_hz * found.speed
        in_s, out_s = (found.in_s - nudge_s, found.out_s) if piece.backwards else (
            found.in_s, found.out_s + nudge_s
        )  # fmt: skip
        found = replace(found, in_s=round(max(0.0, in_s), 3), out_s=round(out_s, 3))
    return found
