"""Starting points for usual scenes: a list of shots to be filled in and changed.

Chosen here from how shots that cut together are usually gathered: the same thing wide and then
close, a change of height, something near in front, in at the start and out at the end.
"""

from __future__ import annotations

from dataclasses import dataclass, replace

from ridgewind.core.errors import InvalidArgumentError
from ridgewind.core.sequence.shot import Shot

THING = "{it}"
"""Stands for what the scene is about."""


@dataclass(frozen=True)
class Start:
    """asks: what its subject is, for the person who fills it in. usual: said where nothing is."""

    key: str
    name: str
    asks: str
    usual: str
    shots: tuple[Shot, ...]


STARTS: tuple[Start, ...] = (
    Start(
        "arriving", "Arriving at a place", "Which place?", "the place",
        (
            Shot(THING, size="wide", seconds=6, part="where"),
            Shot(f"the way to {THING}", size="wide", height="low", move="walk", heading="in",
                 seconds=6, part="where"),
            Shot(THING, size="medium", height="low", move="tilt", heading="up", part="what"),
            Shot(f"the entrance of {THING}", size="close", foreground="something near",
                 seconds=4, part="what"),
            Shot("somebody comes", size="medium", enters=True, part="who"),
            Shot(THING, size="wide", height="above", move="pull_out", heading="out", seconds=6,
                 part="leaving"),
        ),
    ),
    Start(
        "at_work", "A person at work", "Who, at what?", "the person at work",
        (
            Shot(f"{THING}, and all around", size="wide", seconds=5, part="where"),
            Shot(THING, size="medium", enters=True, part="who"),
            Shot(f"the hands of {THING}", size="close", height="low", seconds=4, part="what"),
            Shot(f"the tool of {THING}", size="detail", move="slide", heading="right", seconds=4,
                 part="detail"),
            Shot(f"the face of {THING}", size="close", seconds=4, joins="answer", part="who"),
            Shot(f"what {THING} sees", size="medium", joins="answer", part="what"),
            Shot(THING, size="wide", move="pull_out", heading="out", seconds=6, part="leaving"),
        ),
    ),
    Start(
        "thing", "A thing and its details", "Which thing?", "the thing",
        (
            Shot(THING, size="wide", move="push_in", heading="in", seconds=6, part="where"),
            Shot(THING, size="medium", height="low", move="orbit", heading="left", seconds=5,
                 part="what"),
            Shot(f"a part of {THING}", size="close", foreground="something near", seconds=4,
                 part="what"),
            Shot(f"the surface of {THING}", size="detail", move="slide", heading="left",
                 seconds=4, part="detail"),
            Shot(THING, size="close", height="above", seconds=4, part="detail"),
            Shot(THING, size="wide", move="pull_out", heading="out", seconds=5, part="leaving"),
        ),
    ),
    Start(
        "five", "Five shots of one action", "Which action?", "the action",
        (
            Shot(f"the hands of {THING}", size="close", seconds=4, part="what"),
            Shot(f"the face of {THING}", size="close", height="low", seconds=4, part="who"),
            Shot(THING, size="wide", seconds=5, part="where"),
            Shot(f"{THING}, over the shoulder", size="medium", foreground="a shoulder", seconds=5,
                 part="what"),
            Shot(f"{THING}, from an odd side", size="medium", height="ground", seconds=4,
                 part="detail"),
        ),
    ),
    Start(
        "there_and_back", "There and back", "From where to where?", "the way",
        (
            Shot(f"the start of {THING}", size="wide", seconds=5, part="where"),
            Shot("feet", size="close", height="ground", move="walk", heading="right", seconds=4,
                 part="what"),
            Shot(THING, size="wide", move="slide", heading="right", foreground="something near",
                 seconds=6, part="what"),
            Shot(f"the end of {THING}", size="medium", move="push_in", heading="in", part="what"),
            Shot(f"the end of {THING}", size="detail", seconds=4, part="detail"),
            Shot(THING, size="wide", height="above", move="walk", heading="out", seconds=6,
                 part="leaving"),
        ),
    ),
)  # fmt: skip


def shots_of(key: str, about: str) -> tuple[Shot, ...]:
    """The shots of a starting point about something; "" leaves its own words. Raises
    InvalidArgumentError."""
    found = next((start for start in STARTS if start.key == key), None)
    if found is None:
        raise InvalidArgumentError("start", key, f"it must be one of {', '.join(known())}")
    named = about.strip() or found.usual
    return tuple(replace(shot, subject=shot.subject.replace(THING, named)) for shot in found.shots)


def known() -> tuple[str, ...]:
    return tuple(start.key for start in STARTS)
