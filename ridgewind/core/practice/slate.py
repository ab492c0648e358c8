"""The slate's code: which take of which session is about to be filmed.

`RW` and two whole numbers in base 36, joined by a dash: session and take, as `RWC-1F`. Short and
in capitals and digits, so that it fits the smallest code of the kind with its strongest error
correction, and stays readable when it is small, shaken or tilted in the picture. Drill and
variation follow from the session's plan.
"""

from __future__ import annotations

import re

import cv2
import numpy as np
from numpy.typing import NDArray

from ridgewind.core.errors import InvalidArgumentError, require_between

PREFIX = "RW"
DIGITS = "0123456789ABCDEFGHIJKLMNOPQRSTUVWXYZ"
MOST_CHARACTERS = 10
"""What a code of 21 by 21 fields holds with the strongest correction (ISO/IEC 18004)."""

MOST_READ_PX = 1920.0
"""Pictures are enlarged up to this long side for reading."""


def slate_text(session_id: int, take_index: int) -> str:
    """The code of a take.

    >>> slate_text(12, 51)
    'RWC-1F'
    """
    require_between("session_id", session_id, 0, 36**4 - 1)
    require_between("take_index", take_index, 0, 36**2 - 1)
    return f"{PREFIX}{_base36(session_id)}-{_base36(take_index)}"


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


def find_slate(luma: NDArray[np.uint8]) -> tuple[int, int] | None:
    """Session and take of a code that is seen in a picture, or None.

    luma: (height, width). The code may be small, tilted and a little blurred; enlarging the
    picture helps the reader with small fields.
    """
    if luma.ndim != 2 or min(luma.shape) < 32:
        raise InvalidArgumentError("luma", luma.shape, "it must be a picture of 32 px or more")
    scale = min(2.0, MOST_READ_PX / max(luma.shape))
    for factor in (1.0, scale) if scale > 1.05 else (1.0,):
        seen = luma
        if factor != 1.0:
            size = (round(luma.shape[1] * factor), round(luma.shape[0] * factor))
            seen = np.asarray(cv2.resize(luma, size, interpolation=cv2.INTER_CUBIC), np.uint8)
        try:
            text, _, _ = cv2.QRCodeDetector().detectAndDecode(seen)
        except cv2.error:  # the reader gives up on some pictures in this way
            continue
        if text and (found := read_slate(text)) is not None:
            return found
    return None
