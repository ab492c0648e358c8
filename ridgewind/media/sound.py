"""The sound of a stretch of a film, for a film that keeps its speed."""

from __future__ import annotations

import math
from collections.abc import Iterator
from contextlib import suppress
from pathlib import Path
from types import TracebackType

import av
import numpy as np
from numpy.typing import NDArray

from ridgewind.media.encode import FilmWriter
from ridgewind.media.probe import is_indexed, open_film

Floats = NDArray[np.float32]

FORMAT, LAYOUT, CHANNELS = "fltp", "stereo", 2
USUAL_HZ = 48_000
AAC_HZ = {8_000, 11_025, 12_000, 16_000, 22_050, 24_000, 32_000, 44_100, 48_000, 64_000, 88_200,
          96_000}  # fmt: skip
"""Samples a second that AAC knows (ISO/IEC 14496-3)."""

SKIPPED_S, EARLIER_S = 10.0, 2.0
"""Sound that is read for nothing at most, and how far before the stretch it is read then."""


class Sound:
    """Sound from start_s to end_s of a film, s in the file, decoded piece by piece and written as
    the picture goes on; use as a context manager.

    rate_hz: samples a second, 0 where the stretch has no sound that can be read. Raises MediaError
    where the file cannot be opened. at_hz: at which it is given, 0 for as it is where that can be
    written.
    """

    def __init__(
        self, path: Path, *, start_s: float, end_s: float = math.inf, at_hz: int = 0
    ) -> None:
        self._film = open_film(path)
        self._start_s, self._end_s = start_s, end_s
        streams = self._film.streams.audio
        self._stream = streams[0] if streams and streams[0].codec_context else None
        told = self._stream.rate or 0 if self._stream else 0
        self.rate_hz = told if told in AAC_HZ or not told else USUAL_HZ
        if at_hz and told:
            self.rate_hz = at_hz
        try:
            self._pieces = self._decoded()
            self._next = next(self._pieces, None)
        except BaseException:
            self._film.close()
            raise
        if self._next is None:
            self.rate_hz = 0

    def __enter__(self) -> Sound:
        return self

    def __exit__(
        self, kind: type[BaseException] | None, error: object, trace: TracebackType | None
    ) -> None:
        self._film.close()

    def write(self, writer: FilmWriter, *, until_s: float = math.inf) -> None:
        """Write what is heard until a time, s after start_s."""
        while self._next is not None and self._next[0] <= until_s:
            at_s, piece = self._next
            writer.write_sound(piece, max(0.0, at_s))
            self._next = next(self._pieces, None)

    def samples(self) -> Iterator[tuple[float, Floats]]:
        """Its pieces as samples (channels, n), with the time at which each begins, s after
        start_s."""
        while self._next is not None:
            yield self._next[0], self._next[1].to_ndarray()
            self._next = next(self._pieces, None)

    def _decoded(self) -> Iterator[tuple[float, av.AudioFrame]]:
        """Pieces with the time at which each begins, s after start_s; cut to the sample. Damaged
        ones are left out, and the sound ends where the file can be read no further."""
        if self._stream is None or not self.rate_hz:
            return
        resampler = av.AudioResampler(format=FORMAT, layout=LAYOUT, rate=self.rate_hz)
        with suppress(av.error.FFmpegError):
            if self._start_s > SKIPPED_S and is_indexed(self._film):
                self._film.seek(round((self._start_s - EARLIER_S) * av.time_base), backward=True)
            for frame in self._frames(self._stream):
                if frame.time is None:
                    continue
                if frame.time > self._end_s:
                    return
                try:
                    even = resampler.resample(frame)
                except ValueError:  # the layout changes within the film
                    resampler = av.AudioResampler(format=FORMAT, layout=LAYOUT, rate=self.rate_hz)
                    even = resampler.resample(frame)
                for piece in even:
                    yield from self._cut(float(frame.time), piece)

    def _frames(self, stream: av.AudioStream) -> Iterator[av.AudioFrame]:
        for packet in self._film.demux(stream):
            with suppress(av.error.InvalidDataError, av.error.EOFError, av.error.ArgumentError):
                yield from packet.decode()

    def _cut(self, at_s: float, frame: av.AudioFrame) -> Iterator[tuple[float, av.AudioFrame]]:
        values = frame.to_ndarray()
        first = max(0, round((self._start_s - at_s) * self.rate_hz))
        left_s = min(self._end_s - at_s, values.shape[1] / self.rate_hz)
        last = min(values.shape[1], round(left_s * self.rate_hz))
        if last <= first:
            return
        kept = np.ascontiguousarray(values[:, first:last])
        made = av.AudioFrame.from_ndarray(kept, format=FORMAT, layout=LAYOUT)
        made.sample_rate = self.rate_hz
        yield at_s + first / self.rate_hz - self._start_s, made
