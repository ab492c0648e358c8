"""Starting points for usual scenes: a list of shots to be filled in and changed.

Chosen here from how shots that cut together are usually gathered: the same thing wide and then
close, a change of height, something near in front, in at the start and out at the end.
"""

from __future__ import annotations

from dataclasses import dataclass, replace

from ridgewind.core.errors import InvalidArgumentError
from ridgewind.core.sequence.plain_words import read_line
from ridgewind.core.sequence.shot import PlannedShot

THING = "{it}"
"""Stands for what the scene is about."""


@dataclass(frozen=True)
class Start:
    """asks: what its subject is, for the person who fills it in. usual: said where nothing is.
    lines: its shots in plain words."""

    key: str
    name: str
    asks: str
    usual: str
    lines: tuple[str, ...]


STARTS: tuple[Start, ...] = (
    Start(
        "arriving", "Arriving at a place", "Which place?", "the place",
        (
            "wide of {it}, 6 s",
            "wide of the way to {it}, low, walk in, 6 s",
            "medium of {it}, low, tilt up, 5 s",
            "close on the entrance of {it}, something near in front, 4 s",
            "somebody, medium, walks into the frame",
            "wide of {it}, from above, pull out, leaving, 6 s",
        ),
    ),
    Start(
        "at_work", "A person at work", "Who, at what?", "the person at work",
        (
            "wide of {it} and all around",
            "medium of {it}, enters the frame",
            "close on the hands of {it}, low, 4 s",
            "detail of the tool of {it}, slide right, 4 s",
            "close on the face of {it}, answers, 4 s",
            "medium of what {it} looks at, answers",
            "wide of {it}, pull out, leaving, 6 s",
        ),
    ),
    Start(
        "thing", "A thing and its details", "Which thing?", "the thing",
        (
            "wide of {it}, push in, 6 s",
            "medium of {it}, low, orbit left, 5 s",
            "close on a part of {it}, something near in front, 4 s",
            "detail of the surface of {it}, slide left, 4 s",
            "close on {it}, from above, 4 s",
            "wide of {it}, pull out, leaving, 5 s",
        ),
    ),
    Start(
        "five", "Five shots of one action", "Which action?", "the action",
        (
            "close on the hands of {it}, 4 s",
            "close on the face of {it}, low, 4 s",
            "wide of {it}, 5 s",
            "medium of {it}, a shoulder in front, 5 s",
            "medium of {it} from an odd side, ground level, 4 s",
        ),
    ),
    Start(
        "there_and_back", "There and back", "From where to where?", "the way",
        (
            "wide of the start of {it}, 5 s",
            "close on feet, ground level, walk right, 4 s",
            "wide of {it}, slide right, something near in front, 6 s",
            "medium of the end of {it}, push in, 5 s",
            "detail of the end of {it}, 4 s",
            "wide of {it}, from above, walk out, leaving, 6 s",
        ),
    ),
)  # fmt: skip


def shots_of(key: str, about: str) -> tuple[PlannedShot, ...]:
    """The shots of a starting point about something; "" leaves its own words. Raises
    InvalidArgumentError."""
    found = next((start for start in STARTS if start.key == key), None)
    if found is None:
        raise InvalidArgumentError("start", key, f"it must be one of {', '.join(known())}")
    named = about.strip() or found.usual
    shots = [read_line(line).shot for line in found.lines]
    return tuple(replace(shot, subject=shot.subject.replace(THING, named)) for shot in shots)


def known() -> tuple[str, ...]:
    return tuple(start.key for start in STARTS)
