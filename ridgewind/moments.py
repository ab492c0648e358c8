"""Moments as text, all of them ISO 8601 in UTC once they are kept.

A camera's clock often says no zone. It shows the time of where its owner is, so that such a moment
is read in this machine's own zone, here and nowhere else.
"""

from __future__ import annotations

import re
from datetime import UTC, datetime

EARLIEST_YEAR = 1990
"""Before which no digital camera filmed: a clock that was never set begins at 1904 or 1970."""

_COLONS = re.compile(r"^(\d{4}):(\d\d):(\d\d)")


def moment_of(text: str) -> datetime:
    """An ISO 8601 moment, aware of its zone; one that names none is of this machine's own. Raises
    ValueError."""
    try:
        # Of a naive moment it is this machine's zone that is added; of others nothing changes.
        return datetime.fromisoformat(text.strip()).astimezone()
    except OverflowError as error:
        raise ValueError(f"{text!r} is no moment of these times") from error


def utc_text(when: datetime) -> str:
    """A moment, aware of its zone, as it is kept: with milliseconds, in UTC."""
    return f"{when.astimezone(UTC).isoformat(timespec='milliseconds')[:-6]}Z"


def normalised(told: str | None) -> str | None:
    """What a file says of when it was made, as it is kept. Returns None if that says nothing.

    >>> normalised("2026:05:03 14:00:00+02:00")
    '2026-05-03T12:00:00.000Z'
    >>> normalised("Sunday") is None
    True
    """
    if told is None:
        return None
    try:
        when = moment_of(_COLONS.sub(r"\1-\2-\3", told.strip()))
    except ValueError:
        return None
    return utc_text(when) if when.year >= EARLIEST_YEAR else None
