"""Follow what was marked in a film's picture, both ways from where it was marked."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from pathlib import Path

import numpy as np

from ridgewind.core.errors import InvalidArgumentError, require_between
from ridgewind.core.motion import pyramid
from ridgewind.core.motion.follow import Follower
from ridgewind.core.motion.pyramid import Image
from ridgewind.core.motion.subject import Mark, SubjectPath
from ridgewind.media.decode import Film, first_frame_error

LONGEST_BACK_S, LONGEST_ON_S = 30.0, 120.0
"""How far it is followed either way: what lies further is of another moment."""

HELD_PICTURES = 480
"""Working pictures that are held at once to go back through them, 62 MB."""

USUAL_HZ = 30.0

OnProgress = Callable[[float], None]
Found = list[tuple[float, float, float]]


def followed(
    path: Path,
    mark: Mark,
    *,
    rate_hz: float | None,
    length_s: float | None,
    on_progress: OnProgress = lambda _done: None,
) -> SubjectPath:
    """Where a marked thing was in a film, as far as it is followed.

    Only what is looked at is decoded, and few pictures are held, however long the film is and
    however late the mark. rate_hz, length_s: of the film, None where they are not known.
    on_progress: told the share that is done. Raises MediaError, and InvalidArgumentError for a
    mark outside the film.
    """
    require_between("x", mark.x, 0, 1)
    require_between("y", mark.y, 0, 1)
    back_s = min(mark.at_s, LONGEST_BACK_S)
    on_s = LONGEST_ON_S if length_s is None else min(max(length_s - mark.at_s, 0), LONGEST_ON_S)
    whole_s = max(back_s + on_s, 1e-3)
    with Film(path) as film:
        first = next(film.pictures(pyramid.to_working), None)
        if first is None:
            raise first_frame_error(film)
    start_s = first.t_s
    half_s = 0.5 / (rate_hz or USUAL_HZ)
    marked_s = start_s + mark.at_s - half_s
    """The first picture after this is the one that was marked."""

    found: Found = []
    follower: Follower | None = None
    luma: Image | None = None
    for t_s, picture in _between(path, marked_s, start_s + mark.at_s + LONGEST_ON_S):
        since_s = t_s - start_s
        if follower is None:
            if since_s > mark.at_s + 1.0:
                break
            luma, at = picture, _pixel(mark, picture)
            follower = Follower(picture, at)
            found.append((since_s, *_shown(at, picture)))
            continue
        found.append((since_s, *_shown(follower.next(picture), picture)))
        on_progress(min((since_s - mark.at_s) / whole_s, 1.0))
    if luma is None:
        raise InvalidArgumentError("at_s", mark.at_s, "it must lie within the film")

    back = Follower(luma, _pixel(mark, luma))
    stride_s = HELD_PICTURES / (rate_hz or USUAL_HZ)
    end_s = marked_s
    first_s = start_s + mark.at_s - back_s - half_s
    while end_s > first_s:
        begin_s = max(first_s, end_s - stride_s)
        for t_s, picture in reversed(list(_between(path, begin_s, end_s))):
            found.append((t_s - start_s, *_shown(back.next(picture), picture)))
        end_s = begin_s
        on_progress(min((on_s + marked_s - end_s) / whole_s, 1.0))
    columns = np.array(sorted(found))
    return SubjectPath(columns[:, 0], columns[:, 1], columns[:, 2])


def _between(path: Path, from_s: float, to_s: float) -> Iterator[tuple[float, Image]]:
    """Working pictures after one time, until another, s in the file."""
    with Film(path) as film:
        film.begin_at(from_s)
        for picture in film.pictures(pyramid.to_working):
            if picture.t_s > to_s:
                return
            if picture.t_s > from_s:
                yield picture.t_s, picture.luma


def _pixel(mark: Mark, luma: Image) -> tuple[float, float]:
    height, width = luma.shape
    return mark.x * (width - 1), mark.y * (height - 1)


def _shown(at: tuple[float, float] | None, luma: Image) -> tuple[float, float]:
    """From the picture's middle, percent of its long side."""
    if at is None:
        return float("nan"), float("nan")
    height, width = luma.shape
    long_side = max(width, height)
    return (
        100.0 * (at[0] - (width - 1) / 2) / long_side,
        100.0 * (at[1] - (height - 1) / 2) / long_side,
    )
