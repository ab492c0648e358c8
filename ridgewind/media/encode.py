"""Write films: H.264 in mp4, whole or not at all."""

from __future__ import annotations

import os
from fractions import Fraction
from pathlib import Path
from types import TracebackType
from typing import Protocol

import av
import cv2
import numpy as np
from numpy.typing import NDArray

from ridgewind.media.decode import Picture
from ridgewind.media.errors import translated
from ridgewind.media.formats import in_format
from ridgewind.media.planes import DEEP, SHALLOW, frame_of, planes_of
from ridgewind.media.tone import ToneMapper, is_wide
from ridgewind.media.whole import partial_of, whole_file

TIME_BASE = Fraction(1, 90_000)
"""Ticks of written films: fine enough for any frame rate."""

SOUND_BITS_S = 192_000

COPY_LONG_SIDE_PX = 1280
COPY_OPTIONS = {"preset": "superfast", "crf": "24", "bf": "0", "threads": "2"}
COPY_KEYFRAME_S = 0.5
"""Seconds between keyframes of a browser copy, so that scrubbing is quick (chosen here)."""


class SoundSource(Protocol):
    """Sound that is written as a picture goes on, see media.sound."""

    rate_hz: int

    def write(self, writer: FilmWriter, *, until_s: float) -> None: ...


class FilmWriter:
    """Writes frames under a temporary name and renames at close; an error leaves nothing.

    size: width and height in px, even. rate_hz: nominal frames a second. pixel_format: of the
    frames. sound_hz: samples a second of the sound that will be given, 0 for a silent film.
    """

    def __init__(
        self,
        path: Path,
        *,
        size: tuple[int, int],
        rate_hz: float,
        options: dict[str, str],
        metadata: dict[str, str] | None = None,
        pixel_format: str = "yuv420p",
        sound_hz: int = 0,
    ) -> None:
        self._path = path
        self._partial = partial_of(path)
        with translated():
            self._film = av.open(
                str(self._partial), "w", format="mp4", options={"movflags": "+faststart"}
            )
            rate = Fraction(rate_hz).limit_denominator(1001)
            stream = self._film.add_stream("libx264", rate=rate)
        stream.width, stream.height = size
        stream.pix_fmt = pixel_format
        stream.codec_context.time_base = TIME_BASE
        stream.options = options
        self._film.metadata.update(metadata or {})
        self._stream = stream
        self._sound = self._film.add_stream("aac", rate=sound_hz) if sound_hz else None
        if self._sound is not None:
            self._sound.codec_context.layout = "stereo"
            self._sound.codec_context.bit_rate = SOUND_BITS_S
        self._last_tick = -1

    def describe_colours(self, like: av.VideoFrame) -> None:
        """Say that the film has the colours of this frame; before the first frame is written."""
        context = self._stream.codec_context
        context.colorspace, context.color_range = like.colorspace, like.color_range
        context.color_primaries, context.color_trc = like.color_primaries, like.color_trc

    def write(self, frame: av.VideoFrame, t_s: float) -> None:
        """Add one frame, shown t_s seconds after the start."""
        tick = max(self._last_tick + 1, round(t_s / TIME_BASE))
        self._last_tick = tick
        frame.pts, frame.time_base = tick, TIME_BASE
        with translated():
            self._film.mux(self._stream.encode(frame))

    def write_image(self, image: NDArray[np.uint8], t_s: float) -> None:
        """Add a frame from an image (height, width, 3), BGR, shown t_s seconds after the start."""
        self.write(_frame_from(image), t_s)

    def write_sound(self, frame: av.AudioFrame, t_s: float) -> None:
        """Add a piece of sound, heard t_s seconds after the start."""
        assert self._sound is not None
        rate = frame.sample_rate
        frame.pts, frame.time_base = max(0, round(t_s * rate)), Fraction(1, rate)
        with translated():
            self._film.mux(self._sound.encode(frame))

    def __enter__(self) -> FilmWriter:
        return self

    def __exit__(
        self, kind: type[BaseException] | None, error: object, trace: TracebackType | None
    ) -> None:
        try:
            with translated():
                if kind is None:
                    self._film.mux(self._stream.encode(None))
                    if self._sound is not None:
                        self._film.mux(self._sound.encode(None))
                self._film.close()
            if kind is None:
                os.replace(self._partial, self._path)
        finally:
            self._partial.unlink(missing_ok=True)


def copy_size(size: tuple[int, int]) -> tuple[int, int]:
    """Even size of a browser copy, at most COPY_LONG_SIDE_PX along its long side."""
    scale = min(1.0, COPY_LONG_SIDE_PX / max(size))
    width, height = (max(2, round(side * scale / 2) * 2) for side in size)
    return width, height


class BrowserCopy:
    """A copy of a film that any browser plays and scrubs, fed during the one decode pass.

    size: of the film as displayed, px. rate_hz: nominal frames a second. sound: that goes with it,
    from the first picture's time; None for none.
    """

    def __init__(
        self, path: Path, *, size: tuple[int, int], rate_hz: float, sound: SoundSource | None
    ) -> None:
        self.size = copy_size(size)
        gop = max(1, round(rate_hz * COPY_KEYFRAME_S))
        options = {**COPY_OPTIONS, "g": str(gop)}
        self._sound, self._shown = sound, Shown()
        self._writer = FilmWriter(
            path,
            size=self.size,
            rate_hz=rate_hz,
            options=options,
            sound_hz=0 if sound is None else sound.rate_hz,
        )
        self._first_s: float | None = None

    def feed(self, picture: Picture) -> None:
        """Add a frame; the copy starts at zero whatever the first timestamp was."""
        if self._first_s is None:
            self._first_s = picture.t_s
        t_s = picture.t_s - self._first_s
        frame = self._shown.frame(picture, self.size)
        if t_s == 0.0:
            self._writer.describe_colours(frame)
        self._writer.write(frame, t_s)
        if self._sound is not None:
            self._sound.write(self._writer, until_s=t_s)

    def __enter__(self) -> BrowserCopy:
        self._writer.__enter__()
        return self

    def __exit__(
        self, kind: type[BaseException] | None, error: object, trace: TracebackType | None
    ) -> None:
        self._writer.__exit__(kind, error, trace)


class Shown:
    """Makes frames as an ordinary screen shows them: small, upright, 8-bit, BT.709 colours."""

    def __init__(self) -> None:
        self._mapper: ToneMapper | None = None

    def frame(self, picture: Picture, size: tuple[int, int]) -> av.VideoFrame:
        """A picture scaled to an even size."""
        wide = is_wide(picture.frame)
        fmt = DEEP if wide else SHALLOW
        made = frame_of(planes_of(picture, size, fmt), fmt, picture.frame)
        if not wide:
            return made
        made.pts, made.time_base = 0, TIME_BASE
        self._mapper = self._mapper or ToneMapper(made)
        return self._mapper.map(made)


def _frame_from(image: NDArray[np.generic]) -> av.VideoFrame:
    """An 8-bit frame from an image (height, width, 3), BGR."""
    return in_format(av.VideoFrame.from_ndarray(image, format="bgr24"), "yuv420p")


def write_jpeg(path: Path, image: NDArray[np.uint8]) -> None:
    """Write an image (height, width, 3) BGR as JPEG, whole or not at all."""
    done, data = cv2.imencode(".jpg", image, [cv2.IMWRITE_JPEG_QUALITY, 82])
    if not done:
        raise ValueError("the picture could not be made into a JPEG")
    with translated(), whole_file(path) as partial:
        partial.write_bytes(data.tobytes())


def still_of(picture: Picture, *, long_side_px: int) -> NDArray[np.uint8]:
    """A small upright picture (height, width, 3), BGR."""
    scale = min(1.0, long_side_px / max(picture.size))
    width, height = (max(2, round(side * scale / 2) * 2) for side in picture.size)
    frame = Shown().frame(picture, (width, height))
    image: NDArray[np.uint8] = frame.to_ndarray(format="bgr24")
    return image
