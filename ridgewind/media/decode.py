"""Decode a film once, in display orientation, with its own timestamps."""

from __future__ import annotations

import itertools
from collections.abc import Callable, Iterator
from dataclasses import dataclass
from fractions import Fraction
from pathlib import Path
from typing import Any

import av
import cv2
import numpy as np
from numpy.typing import NDArray

from ridgewind.media.errors import DAMAGED, NOT_FILM, UnreadableError, translated
from ridgewind.media.formats import in_format
from ridgewind.media.probe import ClipFacts, facts_in, is_indexed, open_film
from ridgewind.media.upright import rotated

THREADS = 4
"""Frames in flight; more than two cores, so that decoding goes on while a frame is measured."""

FASTEST_HZ = 1000
WIDEST_PIXEL = 4.0
"""Pixels of real films are at most about 2.4 times as wide as high; damaged headers say more."""

COMB_FRAMES, LEAST_COMBED = 6, 2
"""First frames that are looked at for lines of two moments, and how many must show them."""

COMB_RATIO, COMB_COLUMNS, LEAST_COMB_LINES, MOST_COMB_LINES = 1.12, 320, 240, 1152
"""Taller pictures are never interlaced, and six of them would fill the memory."""

MOST_DAMAGED_PACKETS = 200
"""Packets in a row that may fail before the rest of the file is given up."""

EARLIER_S = 12.0
"""How far before a wanted time a stream is entered that has no index of its keyframes: a search by
time ends between two of them, and what depends on the first is lost."""

AT_ONCE_S = 0.001
"""By which the first picture may come after the wanted time, for rounding."""

HIGH_BITS = ("p010", "p016", "p210", "p410")
"""Formats that keep fewer bits than sixteen in the upper ones."""

Shrink = Callable[[Any], Any]
"""A luma plane (height, width), uint8 or uint16, to a smaller one."""


@dataclass(frozen=True)
class Picture:
    """One frame. t_s: its own timestamp. luma: (height, width) uint8, shrunk, upright, square
    pixels. frame: as decoded. turn: quarter turns clockwise that make it upright. size: width
    and height in px as displayed. field: its lines belong to two moments, the even ones to the
    first, which is what luma shows."""

    t_s: float
    luma: NDArray[np.uint8]
    frame: av.VideoFrame
    turn: int
    size: tuple[int, int]
    field: bool = False


class Film:
    """An open film. Iterate over `pictures()` once; use as a context manager.

    plain: the pictures are only measured, and not seen. Those that no other depends on are then
    not smoothed across the blocks that they were compressed in, which spares about a twentieth of
    decoding; those that others depend on are, so that no error grows. (Leaving out all that lie
    between two others spares three times as much and hardly moves a path; but its error alternates
    from frame to frame, and a film polished by such a path shook by a quarter of a gust more.)
    """

    def __init__(self, path: Path, *, plain: bool = False) -> None:
        self._path, self._plain = path, plain
        self._open()
        self._begin_s: float | None = None
        self.damaged = 0
        """Packets that could not be decoded so far."""
        self.bytes_read = 0
        """Size of the packets of the picture so far."""
        self.interlaced = False
        """Lines belong to two moments; known once the first picture was given."""

    def __enter__(self) -> Film:
        return self

    def __exit__(self, *exc: object) -> None:
        self._film.close()

    def _open(self) -> None:
        self._film = open_film(self._path)
        try:
            self.facts: ClipFacts = facts_in(self._film)
        except BaseException:
            self._film.close()
            raise
        self._stream = next(
            s for s in self._film.streams.video if not s.disposition & s.disposition.attached_pic
        )

    def begin_at(self, t_s: float) -> None:
        """Let `pictures` begin with one that is shown at a time or before it, s in the file; where
        the file holds one, none of those after it is lost."""
        self._begin_s = t_s

    def pictures(self, shrink: Shrink) -> Iterator[Picture]:
        """Frames in order of time; shrink makes each luma plane smaller before anything else.

        Timestamps always grow: a missing or backward one is put one frame after the last.
        """
        step_s = 1.0 / believed_rate(self._stream.average_rate, self._stream.guessed_rate)
        aspect = believed_aspect(self._stream.sample_aspect_ratio)
        last_s: float | None = None
        for frame in self._looked_at(self._frames()):
            t_s = frame.time
            if t_s is None:
                t_s = 0.0 if last_s is None else last_s + step_s
            elif last_s is not None and t_s <= last_s:
                t_s = last_s + step_s
            last_s = float(t_s)
            turn = quarter_turns(frame)
            plane = luma_of(frame)
            if self.interlaced:
                plane = one_field(plane)
            luma = as_shown(shrink(plane), aspect, turn, bits=luma_bits(frame))
            size = display_size(frame.width, frame.height, aspect, turn)
            yield Picture(last_s, luma, frame, turn, size, self.interlaced)

    def _looked_at(self, frames: Iterator[av.VideoFrame]) -> Iterator[av.VideoFrame]:
        """The same frames, after the first few have told whether they are interlaced."""
        tall = (self._stream.height or 0) > MOST_COMB_LINES
        first = [] if tall else list(itertools.islice(frames, COMB_FRAMES))
        flagged = any(frame.interlaced_frame for frame in first)
        combed = sum(is_combed(luma_of(frame)) for frame in first)
        self.interlaced = flagged or combed >= LEAST_COMBED
        yield from first
        yield from frames

    def _frames(self) -> Iterator[av.VideoFrame]:
        """From the start, or from the latest place that surely gives the picture asked for."""
        if self._begin_s is None:
            yield from self._decoded()
            return
        for earlier_s in (0.0, EARLIER_S) if is_indexed(self._film) else (EARLIER_S,):
            with translated():
                entry_s = max(0.0, self._begin_s - earlier_s)
                self._film.seek(round(entry_s * av.time_base), backward=True)
            frames = self._decoded()
            first = next((frame for frame in frames if not frame.is_corrupt), None)
            if first is not None and (first.time or 0.0) <= self._begin_s + AT_ONCE_S:
                yield first
                yield from frames
                return
            # A decoder that has begun cannot be set up again.
            self._film.close()
            self._open()
        yield from self._decoded()

    def _decoded(self) -> Iterator[av.VideoFrame]:
        context = self._stream.codec_context
        context.thread_type = "AUTO"
        context.thread_count = THREADS
        if self._plain:
            context.options = {"skip_loop_filter": "noref"}
        failed = 0
        with translated():
            for packet in self._film.demux(self._stream):
                self.bytes_read += packet.size
                try:
                    frames = packet.decode()
                except (av.error.InvalidDataError, av.error.EOFError, av.error.ArgumentError):
                    self.damaged += 1
                    failed += 1
                    if failed > MOST_DAMAGED_PACKETS:
                        return
                    continue
                if frames:
                    failed = 0
                yield from frames


def believed_rate(*told: Fraction | None) -> float:
    """The first rate that a camera could have; 25 where a file says none, frames a second."""
    return next((float(rate) for rate in told if rate and 1 <= rate <= FASTEST_HZ), 25.0)


def believed_aspect(ratio: Fraction | None) -> float:
    """Width over height of a pixel; 1 where a file does not say, or says what cannot be."""
    aspect = float(ratio or 1)
    return aspect if 1.0 / WIDEST_PIXEL <= aspect <= WIDEST_PIXEL else 1.0


def first_frame_error(film: Film) -> UnreadableError:
    """What to say when not one frame came out."""
    return UnreadableError(*(DAMAGED if film.damaged else NOT_FILM))


def quarter_turns(frame: av.VideoFrame) -> int:
    """Quarter turns clockwise that bring a frame upright, from its rotation metadata."""
    # The display matrix is given as a counter-clockwise turn of the picture.
    return round(-frame.rotation / 90.0) % 4


def display_size(width: int, height: int, aspect: float, turn: int) -> tuple[int, int]:
    """Width and height in px as displayed: square pixels, upright."""
    width, height = _square_size(width, height, aspect)
    return (height, width) if turn % 2 else (width, height)


def is_combed(luma: NDArray[np.generic]) -> bool:
    """Whether neighbouring lines differ more than every other one: two moments in one picture."""
    if luma.shape[0] < LEAST_COMB_LINES:
        return False
    lines = luma[:, :: max(1, luma.shape[1] // COMB_COLUMNS)].astype(np.float32)
    beside = float(np.abs(np.diff(lines, axis=0)).mean())
    alternate = float(np.abs(lines[2:] - lines[:-2]).mean())
    return beside > COMB_RATIO * alternate + 0.1


def one_field(luma: NDArray[np.generic]) -> NDArray[np.generic]:
    """Every other line, and the width to go with it."""
    field = np.ascontiguousarray(luma[::2])
    size = (max(1, luma.shape[1] // 2), field.shape[0])
    return np.asarray(cv2.resize(field, size, interpolation=cv2.INTER_AREA))


def luma_of(frame: av.VideoFrame) -> NDArray[np.generic]:
    """Luma plane (height, width), a view where the format allows; uint8, or uint16 whose values
    have as many bits as luma_bits says."""
    shape = frame.format
    first = shape.components[0]
    plain = first.is_luma and not shape.is_rgb and (shape.is_planar or len(shape.components) == 1)
    if plain and first.bits == 8 and not shape.has_palette:
        plane = frame.planes[0]
        flat = np.frombuffer(plane, np.uint8)
        return flat.reshape(-1, plane.line_size)[: frame.height, : frame.width]
    if plain and 8 < first.bits <= 16 and not shape.is_big_endian:
        plane = frame.planes[0]
        flat = np.frombuffer(plane, np.uint16)
        return flat.reshape(-1, plane.line_size // 2)[: frame.height, : frame.width]
    gray: NDArray[np.generic] = in_format(frame, "gray").to_ndarray()
    return gray


def luma_bits(frame: av.VideoFrame) -> int:
    """How many bits the values of a frame's luma plane have, from the lowest on."""
    shape = frame.format
    return 16 if shape.name.startswith(HIGH_BITS) else shape.components[0].bits


def as_shown(
    luma: NDArray[np.generic], aspect: float, turn: int, *, bits: int
) -> NDArray[np.uint8]:
    """A shrunk plane as bytes, with square pixels, turned upright. bits: of its values."""
    if luma.dtype == np.uint16:
        luma = cv2.convertScaleAbs(luma, alpha=2.0 ** (8 - bits))
    if abs(aspect - 1.0) > 0.001:
        height, width = luma.shape
        flat = (width, height / aspect) if aspect > 1.0 else (width * aspect, height)
        size = (max(1, round(flat[0])), max(1, round(flat[1])))
        luma = cv2.resize(luma, size, interpolation=cv2.INTER_AREA)
    return rotated(luma, turn).astype(np.uint8, copy=False)


def _square_size(width: int, height: int, aspect: float) -> tuple[int, int]:
    """Size with square pixels that keeps every line and every column."""
    if aspect > 1.0:
        return max(1, round(width * aspect)), height
    return width, max(1, round(height / aspect))
