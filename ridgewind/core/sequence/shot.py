"""A shot that is planned: what it shows, how, for how long, and what it is for in the story."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from typing import Literal, get_args

from ridgewind.core.errors import InvalidArgumentError, require_between, require_choice

Size = Literal["wide", "medium", "close", "detail"]
Height = Literal["ground", "low", "eye", "above"]
ShotMove = Literal["still", "pan", "tilt", "slide", "push_in", "pull_out", "orbit", "rise", "walk"]
Heading = Literal["left", "right", "up", "down", "in", "out"]
Part = Literal["where", "who", "what", "detail", "leaving"]
Joining = Literal["cut", "motion", "sweep", "answer"]
Light = Literal["any", "morning", "noon", "evening", "night", "inside"]

SIZES: tuple[Size, ...] = get_args(Size)
HEIGHTS: tuple[Height, ...] = get_args(Height)
PARTS: tuple[Part, ...] = get_args(Part)
LIGHTS: tuple[Light, ...] = get_args(Light)

HEADINGS: dict[ShotMove, tuple[Heading, ...]] = {
    "still": (),
    "pan": ("left", "right"),
    "tilt": ("up", "down"),
    "slide": ("left", "right"),
    "push_in": ("in",),
    "pull_out": ("out",),
    "orbit": ("left", "right"),
    "rise": ("up", "down"),
    "walk": ("in", "out", "left", "right"),
}
"""Ways that each move can go, the usual one first."""

SECONDS_RANGE = (0.5, 600.0)
PLAYBACK_RANGE = (0.05, 1.0)
MOST_TAKES = 20
USUAL_S = 5.0
"""On screen, where nothing else was said (chosen here: long enough to cut into)."""

MOST_CHARACTERS = 120


@dataclass(frozen=True)
class PlannedShot:
    """What is wanted. subject: in words. heading: None where it is still. enters: the movement
    comes into a still frame. foreground: what is near in front, "" for nothing. seconds: on screen.
    playback: share of full speed at which it is shown. part: of the story. joins: how it begins
    after the shot before. ask: who or what must allow it. place: where the camera stands, "" for
    the outing's own. takes: how many are wanted."""

    subject: str
    size: Size = "medium"
    height: Height = "eye"
    move: ShotMove = "still"
    heading: Heading | None = None
    enters: bool = False
    foreground: str = ""
    seconds: float = USUAL_S
    sound: bool = False
    playback: float = 1.0
    part: Part = "what"
    joins: Joining = "cut"
    ask: str = ""
    place: str = ""
    light: Light = "any"
    takes: int = 1

    @property
    def filmed_s(self) -> float:
        """How long to film for it, s."""
        return self.seconds * self.playback


def check_shot(shot: PlannedShot) -> PlannedShot:
    """The shot, if every part of it can be. Raises InvalidArgumentError."""
    if not shot.subject.strip():
        raise InvalidArgumentError("subject", shot.subject, "it must say what is shown")
    for name in ("subject", "foreground", "ask", "place"):
        if len(getattr(shot, name)) > MOST_CHARACTERS:
            value = f"{getattr(shot, name)[:20]}…"
            raise InvalidArgumentError(
                name, value, f"it must be under {MOST_CHARACTERS} characters"
            )
    ways = HEADINGS[shot.move]
    if shot.heading is not None and shot.heading not in ways:
        raise InvalidArgumentError("heading", shot.heading, f"a {shot.move} goes no such way")
    if shot.heading is None and ways:
        raise InvalidArgumentError("heading", None, f"a {shot.move} goes {' or '.join(ways)}")
    require_choice("size", shot.size, SIZES)
    require_choice("height", shot.height, HEIGHTS)
    require_between("seconds", shot.seconds, *SECONDS_RANGE, unit="s")
    require_between("playback", shot.playback, *PLAYBACK_RANGE)
    require_between("takes", shot.takes, 1, MOST_TAKES)
    return shot


def move_name(move: str) -> str:
    """A move in words, whichever way it goes.

    >>> move_name("push_in")
    'push in'
    """
    return move.replace("_", " ")


def move_words(shot: PlannedShot) -> str:
    """The move and its way.

    >>> move_words(PlannedShot("the mill", move="pan", heading="left"))
    'pan left'
    """
    named = move_name(shot.move)
    says_way = len(HEADINGS[shot.move]) > 1 and shot.heading is not None
    return f"{named} {shot.heading}" if says_way else named


def content_words(text: str) -> frozenset[str]:
    """The words of a subject by which another is known to be the same, without articles and with
    no plural.

    >>> sorted(content_words("The sails of the mill"))
    ['mill', 'sail']
    """
    words = "".join(c if c.isalnum() else " " for c in text.lower()).split()
    return frozenset(_singular(word) for word in words if word not in LITTLE_WORDS)


LITTLE_WORDS = frozenset({
    "a", "an", "the", "of", "on", "in", "at", "to", "by", "with", "from", "for", "and", "or", "its",
    "his", "her", "their", "my", "our", "some", "this", "that", "up", "down",
})  # fmt: skip


def _singular(word: str) -> str:
    return word[:-1] if len(word) > 3 and word.endswith("s") and not word.endswith("ss") else word


def same_subject(one: PlannedShot, other: PlannedShot) -> bool:
    """Whether two shots show the same thing, as far as their words tell."""
    return bool(content_words(one.subject) & content_words(other.subject))


def total_s(shots: Iterable[PlannedShot]) -> float:
    """On screen, s."""
    return sum(shot.seconds for shot in shots)
