"""Films that were written alike, spliced into one without encoding their pictures again; and the
sound that goes with them."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from fractions import Fraction
from pathlib import Path

import av
import numpy as np
from numpy.typing import NDArray

from ridgewind.media.encode import SOUND_BITS_S
from ridgewind.media.errors import MediaError, translated
from ridgewind.media.sound import CHANNELS, FORMAT, LAYOUT, USUAL_HZ, Sound
from ridgewind.media.whole import whole_file

Floats = NDArray[np.float32]

FADE_S = 0.008
"""In which sound comes and goes at a cut, so that it does not click (chosen here)."""

BLOCK = 4096
"""Samples that are written at once."""


@dataclass(frozen=True)
class Heard:
    """Where the sound of a piece comes from. start_s: s in the file."""

    path: Path
    start_s: float


def splice(
    paths: Sequence[Path],
    target: Path,
    *,
    frames: Sequence[int],
    rate: Fraction,
    heard: Sequence[Heard | None] | None = None,
) -> None:
    """Write films of the same size and settings into one, whole or not at all.

    frames: of each film; each begins where the frames before it end, so that nothing drifts. heard:
    what is heard with each, None for silence; without it the film is silent. Raises MediaError.
    """
    movflags = {"movflags": "+faststart"}
    with (
        whole_file(target) as partial,
        translated(),
        av.open(str(partial), "w", format="mp4", options=movflags) as out,
    ):
        pictures: av.VideoStream | None = None
        track: _Track | None = None
        begun = 0
        for number, (path, count) in enumerate(zip(paths, frames, strict=True)):
            with av.open(str(path)) as film:
                source = film.streams.video[0]
                if pictures is None:
                    pictures = out.add_stream_from_template(source)
                    track = None if heard is None else _Track(out)
                _copy(film, source, out, pictures, begun_s=begun / rate)
            begun += count
            if track is not None and heard is not None:
                track.add(heard[number], until_s=begun / rate)
        if track is not None:
            track.close()


def _copy(
    film: av.container.InputContainer,
    source: av.VideoStream,
    out: av.container.OutputContainer,
    pictures: av.VideoStream,
    *,
    begun_s: Fraction,
) -> None:
    first: int | None = None
    for packet in film.demux(source):
        if packet.pts is None or packet.dts is None:
            continue
        first = packet.pts if first is None else first
        shift = round(begun_s / packet.time_base) - first
        packet.pts, packet.dts = packet.pts + shift, packet.dts + shift
        packet.stream = pictures
        out.mux(packet)


class _Track:
    """The sound of the whole film, a piece after the other, to the sample."""

    def __init__(self, out: av.container.OutputContainer) -> None:
        self._out, self._written = out, 0
        self._stream = out.add_stream("aac", rate=USUAL_HZ)
        self._stream.codec_context.layout = LAYOUT
        self._stream.codec_context.bit_rate = SOUND_BITS_S

    def add(self, heard: Heard | None, *, until_s: Fraction) -> None:
        """Go on until a time of the film: with what is heard, as far as it goes, else silent."""
        count = round(until_s * USUAL_HZ) - self._written
        begun = self._written
        if heard is not None:
            try:
                for at, samples in _samples(heard, count):
                    self._silent_until(begun + at)
                    self._write(samples)
            except MediaError:
                pass  # its picture was read; a damaged sound is no reason to have no film
        self._silent_until(begun + count)

    def close(self) -> None:
        self._out.mux(self._stream.encode(None))

    def _silent_until(self, at: int) -> None:
        while self._written < at:
            self._write(np.zeros((CHANNELS, min(BLOCK, at - self._written)), np.float32))

    def _write(self, samples: Floats) -> None:
        frame = av.AudioFrame.from_ndarray(
            np.ascontiguousarray(samples), format=FORMAT, layout=LAYOUT
        )
        frame.sample_rate = USUAL_HZ
        frame.pts, frame.time_base = self._written, Fraction(1, USUAL_HZ)
        self._written += samples.shape[1]
        self._out.mux(self._stream.encode(frame))


def _samples(heard: Heard, count: int) -> Iterator[tuple[int, Floats]]:
    """Samples (channels, n) with the first one's place, in order, at most so many, faded at both
    ends."""
    end_s = heard.start_s + count / USUAL_HZ
    gone = 0
    with Sound(heard.path, start_s=heard.start_s, end_s=end_s, at_hz=USUAL_HZ) as sound:
        for at_s, samples in sound.samples():
            # Frames that begin a rounding early do not push the rest along.
            first = max(gone, round(at_s * USUAL_HZ))
            if first - round(at_s * USUAL_HZ) > BLOCK:
                continue
            part = samples[:, : max(0, count - first)]
            if part.shape[1] == 0:
                continue
            at = first + np.arange(part.shape[1])
            fade = np.minimum(at, count - 1 - at) / (FADE_S * USUAL_HZ)
            yield first, part * np.clip(fade, 0.0, 1.0).astype(np.float32)
            gone = first + part.shape[1]
