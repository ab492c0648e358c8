"""Times and places in a row in words, as every sentence of a verdict tells them."""

from __future__ import annotations

import math

HALF_FRAME = 0.5
"""A moment within half a frame of a frame is that frame."""

LONGEST_IN_SECONDS = 90.0
"""From here on minutes are told; nobody reads 499.4 s off a player."""


def time_words(seconds: float) -> str:
    """A length, or a moment of a film.

    >>> [time_words(s) for s in (4.04, 89.94, 499.4, 3723.0)]
    ['4.0 s', '89.9 s', '8:19 min', '1:02:03 h']
    """
    if seconds < LONGEST_IN_SECONDS:
        return f"{seconds:.1f} s"
    return f"{_clock(seconds)} {'min' if seconds < 3600 else 'h'}"


def timecode(seconds: float, *, fps: float) -> str:
    """A moment of a film as hours, minutes, seconds and frames, none dropped: its frame's number at
    the whole rate that is nearest to the film's.

    >>> timecode(83.5, fps=25.0), timecode(1.0, fps=29.97)
    ('00:01:23:13', '00:00:01:00')
    """
    whole = max(1, round(fps))
    rest, frame = divmod(math.floor(seconds * fps + HALF_FRAME), whole)
    minutes, second = divmod(rest, 60)
    hours, minute = divmod(minutes, 60)
    return f"{hours:02}:{minute:02}:{second:02}:{frame:02}"


def ordinal(number: int) -> str:
    """A place in a row.

    >>> [ordinal(n) for n in (2, 3, 4, 11, 12, 13, 21, 22, 33, 112)]
    ['second', 'third', '4th', '11th', '12th', '13th', '21st', '22nd', '33rd', '112th']
    """
    if number in (2, 3):
        return {2: "second", 3: "third"}[number]
    ends = {1: "st", 2: "nd", 3: "rd"}
    return f"{number}{'th' if number // 10 % 10 == 1 else ends.get(number % 10, 'th')}"


def span_words(start_s: float, end_s: float) -> str:
    """From one moment to another.

    >>> span_words(1.25, 4.5), span_words(80.0, 499.4)
    ('1.2 to 4.5 s', '1:20 to 8:19 min')
    """
    if end_s < LONGEST_IN_SECONDS:
        return f"{start_s:.1f} to {end_s:.1f} s"
    return f"{_clock(start_s)} to {time_words(end_s)}"


def _clock(seconds: float) -> str:
    minutes, rest = divmod(int(seconds), 60)
    hours, minutes = divmod(minutes, 60)
    return f"{hours}:{minutes:02}:{rest:02}" if hours else f"{minutes}:{rest:02}"
