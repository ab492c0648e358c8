"""The sound of a stretch of a film, for a film that keeps its speed."""

from __future__ import annotations

from collections.abc import Iterator
from pathlib import Path
from types import TracebackType

import av
import numpy as np

from ridgewind.media.errors import translated
from ridgewind.media.probe import open_film

FORMAT, LAYOUT = "fltp", "stereo"


class Sound:
    """Sound from start_s to end_s of a film, decoded piece by piece; use as a context manager.

    rate_hz: samples a second, 0 where the film has no sound that can be read.
    """

    def __init__(self, path: Path, *, start_s: float, end_s: float) -> None:
        self._film = open_film(path)
        self._start_s, self._end_s = start_s, end_s
        streams = self._film.streams.audio
        self._stream = streams[0] if streams and streams[0].codec_context else None
        self.rate_hz = self._stream.rate or 0 if self._stream else 0

    def __enter__(self) -> Sound:
        return self

    def __exit__(
        self, kind: type[BaseException] | None, error: object, trace: TracebackType | None
    ) -> None:
        self._film.close()

    def frames(self) -> Iterator[tuple[float, av.AudioFrame]]:
        """Pieces with the time at which each begins, s after start_s; cut to the sample."""
        if self._stream is None or not self.rate_hz:
            return
        resampler = av.AudioResampler(format=FORMAT, layout=LAYOUT, rate=self.rate_hz)
        with translated():
            for packet in self._film.demux(self._stream):
                try:
                    decoded = packet.decode()
                except (av.error.InvalidDataError, av.error.EOFError, av.error.ArgumentError):
                    continue
                for frame in decoded:
                    if frame.time is None:
                        continue
                    if frame.time > self._end_s:
                        return
                    for even in resampler.resample(frame):
                        yield from self._cut(float(frame.time), even)

    def _cut(self, at_s: float, frame: av.AudioFrame) -> Iterator[tuple[float, av.AudioFrame]]:
        values = frame.to_ndarray()
        first = max(0, round((self._start_s - at_s) * self.rate_hz))
        last = min(values.shape[1], round((self._end_s - at_s) * self.rate_hz))
        if last <= first:
            return
        kept = np.ascontiguousarray(values[:, first:last])
        made = av.AudioFrame.from_ndarray(kept, format=FORMAT, layout=LAYOUT)
        made.sample_rate = self.rate_hz
        yield at_s + first / self.rate_hz - self._start_s, made
