"""A sequence as one film: every piece of its take as its remedy shows it, at its speed or along its
ramp, its way round, through its window, in whole frames, with its sound where it keeps its speed.

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

import cv2
import numpy as np
from numpy.typing import NDArray

from ridgewind.core.judge.recipe import Recipe
from ridgewind.core.sequence.piece import Piece
from ridgewind.core.sequence.seen import Seen
from ridgewind.core.sequence.timeline import SAME_S, times_of
from ridgewind.films.rendering import FILM_OPTIONS, PREVIEW_OPTIONS, Source
from ridgewind.media.decode import Film, Picture
from ridgewind.media.encode import FilmWriter, Shown
from ridgewind.media.errors import DAMAGED, UnreadableError
from ridgewind.media.planes import (
    SHALLOW,
    Planes,
    VideoFrame,
    frame_of,
    grey_frame,
    in_video_range,
    view_of,
)
from ridgewind.media.splice import Heard, splice
from ridgewind.media.warp import GREY, warped

Floats = NDArray[np.float64]

METHOD = "assembled-2"
LONG_SIDE_PX = 640
BACKWARDS_BYTES, FEWEST_BACKWARDS = 160_000_000, 8
"""Of the frames of a piece that runs backwards which are held at once."""

CARD_LUMA, STRIPE_LUMA, STRIPE_PX = 90, 110, 24
"""Of the striped card that stands where a take is missing."""

Progress = Callable[[float], None]


@dataclass(frozen=True)
class Part:
    """A piece and where its frames come from. frames: of the finished film. sha256: of its take's
    film. source, seen: None where the take is missing, and a card stands in its place. recipe: by
    which it is polished, None for as filmed. sound: what was heard can be heard with it."""

    piece: Piece
    frames: int
    sha256: str
    source: Source | None
    seen: Seen | None
    recipe: Recipe | None = None
    sound: bool = False

    def key(self, form: Form) -> str:
        """Names all that its picture depends on."""
        recipe = None if self.recipe is None else asdict(self.recipe)
        marks = None
        if self.source is not None and self.source.subject is not None:
            marks = [asdict(mark) for mark in self.source.subject.marks]
        told = [
            METHOD, asdict(self.piece) if self.source else None, self.frames, self.sha256, recipe,
            marks, asdict(form),
        ]  # fmt: skip
        text = json.dumps(told, default=str)
        return hashlib.sha256(text.encode()).hexdigest()[:24]


@dataclass(frozen=True)
class Form:
    """What a film is written as. size: even, px. options: of its encoder."""

    size: tuple[int, int]
    rate_hz: float
    options: dict[str, str]


def small_form(shape: float, *, rate_hz: float) -> Form:
    """To be seen at once. shape: width over height."""
    short = round(LONG_SIDE_PX * min(shape, 1 / shape) / 2) * 2
    size = (LONG_SIDE_PX, short) if shape >= 1 else (short, LONG_SIDE_PX)
    return Form(size, rate_hz, PREVIEW_OPTIONS)


def whole_form(size: tuple[int, int], parts: Sequence[Part], *, rate_hz: float) -> Form:
    """To be kept: as it is delivered, but no larger than the piece of most pixels. size: as
    delivered, px."""
    widths = [
        part.seen.window.width * part.source.size[0]
        for part in parts
        if part.seen is not None and part.source is not None
    ]
    scale = min(1.0, max(widths, default=size[0]) / size[0])
    width, height = (max(2, round(side * scale / 2) * 2) for side in size)
    return Form((width, height), rate_hz, FILM_OPTIONS)


def assemble(
    parts: Sequence[Part],
    target: Path,
    *,
    form: Form,
    place: Callable[[str], Path],
    on_progress: Progress,
) -> int:
    """Write the film; returns how many pieces were rendered anew. place: where a piece of a key is
    kept. Raises MediaError."""
    cv2.setNumThreads(1)
    paths, rendered = [], 0
    total, done = sum(part.frames for part in parts), 0
    for part in parts:
        path = place(part.key(form))
        if not path.is_file():
            share = partial(_tell, on_progress, done, total)
            _render(part, path, form, share)
            rendered += 1
        done += part.frames
        on_progress(done / total)
        paths.append(path)
    rate = Fraction(form.rate_hz).limit_denominator(1001)
    counts = [part.frames for part in parts]
    splice(paths, target, frames=counts, rate=rate, heard=_heard(parts, form.rate_hz))
    return rendered


def _heard(parts: Sequence[Part], rate_hz: float) -> list[Heard | None] | None:
    """The sound of each piece, None for silence; None where nothing is heard at all."""
    out = [
        Heard(part.source.path, part.piece.in_s + part.seen.first_s + part.source.shift_s)
        if part.sound and part.source is not None and part.seen is not None
        else None
        for part in parts
    ]
    return out if any(out) else None


def _tell(on_progress: Progress, done: int, total: int, count: int) -> None:
    on_progress((done + count) / total)


def _render(part: Part, path: Path, form: Form, told: Callable[[int], None]) -> None:
    with FilmWriter(path, size=form.size, rate_hz=form.rate_hz, options=form.options) as writer:
        count = 0
        for frame in _frames(part, form):
            writer.write(frame, count / form.rate_hz)
            count += 1
            told(count)
        if count != part.frames:
            raise UnreadableError(*DAMAGED)


def _frames(part: Part, form: Form) -> Iterator[VideoFrame]:
    """The frames of a piece in order."""
    if part.source is None or part.seen is None:
        yield from _card(part.frames, form.size)
        return
    shift_s = part.seen.first_s + part.source.shift_s
    times = times_of(part.piece, part.frames, rate_hz=form.rate_hz) + shift_s
    order = np.arange(part.frames)
    glass = _Glass(part.source, part.seen, form.size)
    if not part.piece.backwards:
        yield from _forwards(part.source, times, order, glass)
        return
    chunk = max(FEWEST_BACKWARDS, int(BACKWARDS_BYTES / (1.5 * form.size[0] * form.size[1])))
    for first in range(0, part.frames, chunk):
        some = slice(first, first + chunk)
        found = list(_forwards(part.source, times[some][::-1], order[some][::-1], glass))
        yield from found[::-1]


def _forwards(
    source: Source, times: Floats, order: NDArray[np.intp], glass: _Glass
) -> Iterator[VideoFrame]:
    """The picture that was the newest at each of some growing times, s in the file, as it is seen.
    order: which frame of the piece each is."""
    with Film(source.path) as film:
        film.begin_at(float(times[0]))
        last: Picture | None = None
        at = 0
        for picture in itertools.chain(film.pictures(lambda plane: plane[::16, ::16]), [None]):
            while at < len(times) and (picture is None or picture.t_s > times[at] + SAME_S):
                shown = last or picture
                if shown is None:
                    return
                yield glass.seen(shown, int(order[at]))
                at += 1
            if at == len(times):
                return
            last = picture


class _Glass:
    """What a picture is seen through: the polish of its take, and the sequence's window."""

    def __init__(self, source: Source, seen: Seen, size: tuple[int, int]) -> None:
        self._source, self._seen, self._size = source, seen, size
        window = seen.window
        self._inner = (
            max(size[0], round(size[0] / window.width / 2) * 2),
            max(size[1], round(size[1] / window.height / 2) * 2),
        )
        self._mapper, self._like = Shown(), grey_frame(size)

    def seen(self, picture: Picture, number: int) -> VideoFrame:
        """The frame of the finished film that shows a picture. number: of it in its piece."""
        frame = self._mapper.frame(picture, self._inner)
        planes = in_video_range((view_of(frame, 0), view_of(frame, 1), view_of(frame, 2)), frame)
        room = (np.array(self._inner) - np.array(self._size)) / 2.0
        # The window's middle is told in percent of the picture's long side.
        corner = room + self._seen.middles[number] * max(self._inner) / 100.0
        polish = self._seen.polish
        if polish is None and not self._seen.piece.framing.follows:
            return frame_of(self._cut(planes, corner), SHALLOW, self._like)
        matrix = np.array([[1.0, 0.0, corner[0]], [0.0, 1.0, corner[1]]])
        if polish is not None:
            at_s = np.array([picture.t_s - self._source.shift_s])
            own = polish.at(at_s).matrices(self._inner)[0]
            matrix = np.column_stack([own[:, :2], own[:, :2] @ corner + own[:, 2]])
        found = warped(planes, matrix, deep=False, size=self._size)
        return frame_of(found, SHALLOW, self._like)

    def _cut(self, planes: Planes, corner: Floats) -> Planes:
        """The planes from a corner on, at a whole pixel of the colours: nothing is blurred."""
        left, top = (
            int(np.clip(round(at / 2), 0, (inner - side) // 2))
            for at, inner, side in zip(corner, self._inner, self._size, strict=True)
        )
        width, height = self._size
        luma, blue, red = planes
        half = np.s_[top : top + height // 2, left : left + width // 2]
        whole = np.s_[2 * top : 2 * top + height, 2 * left : 2 * left + width]
        return luma[whole], blue[half], red[half]


def _card(frames: int, size: tuple[int, int]) -> Iterator[VideoFrame]:
    """Stripes that stand still, for a shot that has no take."""
    rows, columns = np.mgrid[: size[1], : size[0]]
    stripes = (rows + columns) // STRIPE_PX % 2
    luma = np.where(stripes, STRIPE_LUMA, CARD_LUMA).astype(np.uint8)
    grey = np.full((size[1] // 2, size[0] // 2), GREY, np.uint8)
    like = grey_frame(size)
    for _ in range(frames):
        yield frame_of((luma, grey, grey), SHALLOW, like)
