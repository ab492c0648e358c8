"""A sequence as one small film: every piece of its take as its remedy shows it, at its speed, its
way round, in whole frames.

Each piece is a file of its own, named by all that it depends on, so that only what has changed is
rendered again; the film is the pieces spliced.
"""

from __future__ import annotations

import hashlib
import itertools
import json
from collections.abc import Callable, Iterator, Sequence
from dataclasses import asdict, dataclass
from fractions import Fraction
from functools import partial
from pathlib import Path
from typing import Any

import cv2
import numpy as np
from numpy.typing import NDArray

from ridgewind.core.clip import Clip
from ridgewind.core.judge.analysis import Analysis
from ridgewind.core.judge.recipe import Recipe, WindowMaker
from ridgewind.core.sequence.timeline import Piece
from ridgewind.films.rendering import PREVIEW_OPTIONS, SAFE_PX, Source
from ridgewind.media.decode import Film, Picture
from ridgewind.media.encode import FilmWriter
from ridgewind.media.errors import DAMAGED, UnreadableError
from ridgewind.media.planes import SHALLOW, Planes, frame_of, grey_frame, planes_of
from ridgewind.media.splice import splice
from ridgewind.media.warp import BLACK_LUMA, GREY, warped

METHOD = "assembled-1"
LONG_SIDE_PX = 640
BACKWARDS_CHUNK = 48
"""Frames of a piece that runs backwards which are held at once."""

CARD_LUMA, STRIPE_LUMA, STRIPE_PX = 90, 110, 24
"""Of the striped card that stands where a take is missing."""

SAME_S = 1e-6
"""A frame that begins at a moment is seen at it."""

Progress = Callable[[float], None]


@dataclass(frozen=True)
class Part:
    """A piece and where its frames come from. frames: of the finished film. sha256: of its take's
    film. recipe, analysis, clip: by which its windows are moved, None for as filmed. source: None
    where the take is missing, and a card stands in its place. first_s: of the take's path, which a
    piece's times count from."""

    piece: Piece
    frames: int
    sha256: str
    source: Source | None
    recipe: Recipe | None
    analysis: Analysis | None
    clip: Clip | None
    first_s: float = 0.0

    def key(self, *, size: tuple[int, int], rate_hz: float) -> str:
        """Names all that its picture depends on."""
        recipe = None if self.recipe is None else asdict(self.recipe)
        told = [
            METHOD, asdict(self.piece) if self.source else None, self.frames, self.sha256, recipe,
            size, rate_hz,
        ]  # fmt: skip
        text = json.dumps(told, default=str)
        return hashlib.sha256(text.encode()).hexdigest()[:24]


def film_size(aspect: float) -> tuple[int, int]:
    """Even size of the film, px. aspect: width over height as delivered."""
    long, short = LONG_SIDE_PX, round(LONG_SIDE_PX / max(aspect, 1 / aspect) / 2) * 2
    return (long, short) if aspect >= 1 else (short, long)


def assemble(
    parts: Sequence[Part],
    target: Path,
    *,
    place: Callable[[str], Path],
    size: tuple[int, int],
    rate_hz: float,
    on_progress: Progress,
) -> int:
    """Write the film; returns how many pieces were rendered anew. place: where a piece of a key is
    kept. Raises MediaError."""
    cv2.setNumThreads(1)
    paths, rendered = [], 0
    total, done = sum(part.frames for part in parts), 0
    for part in parts:
        path = place(part.key(size=size, rate_hz=rate_hz))
        if not path.is_file():
            share = partial(_tell, on_progress, done, total)
            _render(part, path, size, rate_hz, share)
            rendered += 1
        done += part.frames
        on_progress(done / total)
        paths.append(path)
    rate = Fraction(rate_hz).limit_denominator(1001)
    splice(paths, target, frames=[part.frames for part in parts], rate=rate)
    return rendered


def _tell(on_progress: Progress, done: int, total: int, count: int) -> None:
    on_progress((done + count) / total)


def _render(
    part: Part, path: Path, size: tuple[int, int], rate_hz: float, told: Callable[[int], None]
) -> None:
    with FilmWriter(path, size=size, rate_hz=rate_hz, options=PREVIEW_OPTIONS) as writer:
        count = 0
        for planes, like in _frames(part, size, rate_hz):
            writer.write(frame_of(planes, SHALLOW, like), count / rate_hz)
            count += 1
            told(count)
        if count != part.frames:
            raise UnreadableError(*DAMAGED)


def times_of(piece: Piece, frames: int, *, rate_hz: float) -> NDArray[np.float64]:
    """When each frame of a piece was filmed, s from the film's first frame: (frames,)."""
    steps = (np.arange(frames) + 0.5) / rate_hz * piece.speed
    found = piece.out_s - steps if piece.backwards else piece.in_s + steps
    out: NDArray[np.float64] = np.clip(found, piece.in_s, piece.out_s)
    return out


def _frames(part: Part, size: tuple[int, int], rate_hz: float) -> Iterator[tuple[Planes, Any]]:
    """Planes of each frame in order, and a frame whose colours they have."""
    if part.source is None:
        yield from _card(part.frames, size)
        return
    shift_s = part.first_s + part.source.shift_s
    times = times_of(part.piece, part.frames, rate_hz=rate_hz) + shift_s
    windows = None
    if part.recipe is not None and part.analysis is not None and part.clip is not None:
        windows = WindowMaker(
            part.recipe, part.analysis, upright=part.clip.upright,
            drawn_in_pct=100.0 * SAFE_PX / max(size), subject=part.source.subject,
        )  # fmt: skip
    if not part.piece.backwards:
        yield from _forwards(part.source, times, size, windows)
        return
    for first in range(0, part.frames, BACKWARDS_CHUNK):
        chunk = times[first : first + BACKWARDS_CHUNK][::-1]
        yield from list(_forwards(part.source, chunk, size, windows))[::-1]


def _forwards(
    source: Source,
    times: NDArray[np.float64],
    size: tuple[int, int],
    windows: WindowMaker | None,
) -> Iterator[tuple[Planes, Any]]:
    """The picture that was the newest at each of some growing times, s in the file."""
    with Film(source.path) as film:
        film.begin_at(float(times[0]))
        last: Picture | None = None
        at = 0
        for picture in itertools.chain(film.pictures(lambda plane: plane[::16, ::16]), [None]):
            while at < len(times) and (picture is None or picture.t_s > times[at] + SAME_S):
                shown = last or picture
                if shown is None:
                    return
                yield _seen(shown, size, windows, source), shown.frame
                at += 1
            if at == len(times):
                return
            last = picture


def _seen(
    picture: Picture, size: tuple[int, int], windows: WindowMaker | None, source: Source
) -> Planes:
    """A picture as it is shown, with bars where its shape is another."""
    width, height = picture.size
    scale = min(size[0] / width, size[1] / height)
    inner = (
        min(size[0], round(width * scale / 2) * 2),
        min(size[1], round(height * scale / 2) * 2),
    )
    planes = planes_of(picture, inner, SHALLOW)
    if windows is not None:
        matrix = windows.at(np.array([picture.t_s - source.shift_s])).matrices(inner)[0]
        planes = warped(planes, matrix, deep=False)
    if inner == size:
        return planes
    return tuple(  # type: ignore[return-value]
        _padded(plane, (size[0] // by, size[1] // by), level)
        for plane, by, level in zip(planes, (1, 2, 2), (BLACK_LUMA, GREY, GREY), strict=True)
    )


def _padded(plane: NDArray[np.uint8], size: tuple[int, int], level: int) -> NDArray[np.uint8]:
    out = np.full((size[1], size[0]), level, np.uint8)
    top, left = (size[1] - plane.shape[0]) // 2, (size[0] - plane.shape[1]) // 2
    out[top : top + plane.shape[0], left : left + plane.shape[1]] = plane
    return out


def _card(frames: int, size: tuple[int, int]) -> Iterator[tuple[Planes, Any]]:
    """Stripes that stand still, for a shot that has no take."""
    rows, columns = np.mgrid[: size[1], : size[0]]
    stripes = (rows + columns) // STRIPE_PX % 2
    luma = np.where(stripes, STRIPE_LUMA, CARD_LUMA).astype(np.uint8)
    grey = np.full((size[1] // 2, size[0] // 2), GREY, np.uint8)
    like = grey_frame(size)
    for _ in range(frames):
        yield (luma, grey, grey), like
