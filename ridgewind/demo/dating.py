"""Give the demo's clips the days before the one on which it is started: a made film says when it
was filmed in its header, which nothing else in it depends on."""

from __future__ import annotations

import struct
from datetime import UTC, date, datetime, timedelta

EPOCH = datetime(1904, 1, 1, tzinfo=UTC)
"""From which the header counts its seconds (ISO/IEC 14496-12, movie header box)."""

STORY_ENDS = date(2026, 10, 8)
"""Day of the last clip, as the story tells it; it becomes yesterday."""


def moment_of(recorded_at: str, *, today: date) -> datetime:
    """When a clip of the story was filmed, told from today."""
    told = datetime.fromisoformat(recorded_at)
    return told + (today - timedelta(days=1) - STORY_ENDS)


def dated(film: bytes, moment: datetime) -> bytes:
    """The same film, filmed at another moment. Raises ValueError where it has no such header."""
    at = film.index(b"mvhd") + 4
    if film[at] != 0:
        raise ValueError("the movie header must count in 32 bits")
    seconds = int((moment - EPOCH).total_seconds())
    return film[: at + 4] + struct.pack(">II", seconds, seconds) + film[at + 12 :]
