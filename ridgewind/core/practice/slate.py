"""The slate's code: which take of which session is about to be filmed.

`RW` and two whole numbers in base 36, joined by a dash: session and take, as `RWC-1F`. Short and
in capitals and digits, so that it fits the smallest code of the kind with its strongest error
correction, and stays readable when it is small, shaken or tilted in the picture. Drill and
variation follow from the session's plan.
"""

from __future__ import annotations

import itertools
import re
from collections.abc import Sequence
from dataclasses import dataclass

import cv2
import numpy as np
from numpy.typing import NDArray

from ridgewind.core.errors import InvalidArgumentError, require_between

PREFIX = "RW"
DIGITS = "0123456789ABCDEFGHIJKLMNOPQRSTUVWXYZ"
MOST_CHARACTERS = 10
"""What a code of 21 by 21 fields holds with the strongest correction (ISO/IEC 18004)."""

ENLARGED, MOST_READ_PX = (2.0, 3.0, 1.5), 2880.0
"""By how much a picture is enlarged for reading, in this order, and up to which long side: whether
the reader makes out small fields hangs on how they meet the grid of pixels."""

SHORTEST_PART_S = 4.0
"""What comes before a film's first slate is a part of its own where it is this long."""


@dataclass(frozen=True)
class SlateSeen:
    """A slate within a film. slate: session and take of its code. from_s, until_s: when it is
    seen, s from the film's first frame."""

    slate: tuple[int, int]
    from_s: float
    until_s: float


@dataclass(frozen=True)
class FilmPart:
    """One take within a film. slate: what begins it, None where none does. from_s, to_s:
    seconds from the film's first frame, the slate included."""

    slate: tuple[int, int] | None
    slate_until_s: float
    from_s: float
    to_s: float


def slate_text(session_id: int, take_index: int) -> str:
    """The code of a take.

    >>> slate_text(12, 51)
    'RWC-1F'
    """
    require_between("session_id", session_id, 0, 36**4 - 1)  # from OUTINGS_FROM on outings'
    require_between("take_index", take_index, 0, 36**2 - 1)
    return f"{PREFIX}{_base36(session_id)}-{_base36(take_index)}"


OUTINGS_FROM = 35 * 36**3
"""First numbers from here on are outings', so that one kind of code names either."""


def outing_slate_text(outing_id: int, shot_number: int) -> str:
    """The code of an outing's shot.

    >>> outing_slate_text(3, 11)
    'RWZ003-B'
    """
    require_between("outing_id", outing_id, 0, 36**3 - 1)
    return slate_text(OUTINGS_FROM + outing_id, shot_number)


def outing_of(slate: tuple[int, int]) -> tuple[int, int] | None:
    """Outing and number of the shot that a slate names; None where it names a session's take.

    >>> outing_of(read_slate('RWZ003-B')), outing_of((12, 51))
    ((3, 11), None)
    """
    return (slate[0] - OUTINGS_FROM, slate[1]) if slate[0] >= OUTINGS_FROM else None


def read_slate(text: str) -> tuple[int, int] | None:
    """Session and take of a code; None where it is another one.

    >>> read_slate('RWC-1F')
    (12, 51)
    """
    match = re.fullmatch(rf"{PREFIX}([0-9A-Z]{{1,4}})-([0-9A-Z]{{1,2}})", text.strip())
    return None if match is None else (int(match[1], 36), int(match[2], 36))


def _base36(number: int) -> str:
    if number < 0:
        raise InvalidArgumentError("number", number, "it must not be negative")
    out = ""
    while number or not out:
        number, digit = divmod(number, 36)
        out = DIGITS[digit] + out
    return out


def parts_between(slates: Sequence[SlateSeen], *, length_s: float) -> tuple[FilmPart, ...]:
    """The takes of a film of length_s: each from its slate to the next one.

    slates: in the order of the film. A slate that is filmed twice begins the take once more;
    the part before it is then what was broken off.

    >>> one, two = SlateSeen((1, 0), 0.4, 1.2), SlateSeen((1, 1), 30.0, 31.0)
    >>> [(part.from_s, part.to_s) for part in parts_between([one, two], length_s=60)]
    [(0.0, 30.0), (30.0, 60)]
    """
    if any(after.from_s < before.until_s for before, after in itertools.pairwise(slates)):
        raise InvalidArgumentError("slates", len(slates), "they must be in the film's order")
    if slates and slates[-1].from_s > length_s:
        raise InvalidArgumentError("length_s", length_s, "the film must reach its last slate")
    found: list[FilmPart] = []
    for index, seen in enumerate(slates):
        from_s = seen.from_s
        if index == 0 and from_s < SHORTEST_PART_S:
            from_s = 0.0
        elif index == 0:
            found.append(FilmPart(None, 0.0, 0.0, from_s))
        to_s = slates[index + 1].from_s if index + 1 < len(slates) else length_s
        found.append(FilmPart(seen.slate, seen.until_s, from_s, to_s))
    return tuple(found)


def looks_like_slate(luma: NDArray[np.uint8]) -> bool:
    """Whether a picture holds the corner marks of a code at all; quicker than reading it."""
    try:
        found, _ = _detector().detect(luma)
    except cv2.error:  # as in _read
        return False
    return bool(found)


def find_slate(luma: NDArray[np.uint8]) -> tuple[int, int] | None:
    """Session and take of a code that is seen in a picture, or None.

    luma: (height, width). The code may be small, tilted and a little blurred. Only where marks of
    a code are seen is it enlarged and read again, which most pictures are spared. Of 180 made
    slates of 30 to 140 px on frames of the demo, 108 are read so in one look, all of those of
    90 px and more; on 58 frames without one no marks were seen.
    """
    if luma.ndim != 2 or min(luma.shape) < 32:
        raise InvalidArgumentError("luma", luma.shape, "it must be a picture of 32 px or more")
    seen, found = _read(luma)
    for factor in ENLARGED if seen else ():
        if found is not None or factor * max(luma.shape) > MOST_READ_PX:
            continue
        size = (round(luma.shape[1] * factor), round(luma.shape[0] * factor))
        _, found = _read(
            np.asarray(cv2.resize(luma, size, interpolation=cv2.INTER_CUBIC), np.uint8)
        )
    return found


def _read(luma: NDArray[np.uint8]) -> tuple[bool, tuple[int, int] | None]:
    """Whether marks of a code are seen, and what it says where it is a slate."""
    try:
        text, marks, _ = _detector().detectAndDecode(luma)
    except cv2.error:  # the reader gives up on some pictures in this way
        return True, None
    return marks is not None, read_slate(text) if text else None


def _detector() -> cv2.QRCodeDetectorAruco:
    """Finds the marks as square outlines: on filmed slates it reads smaller and more tilted ones
    than the library's plain reader, in a third of the time."""
    return cv2.QRCodeDetectorAruco()
