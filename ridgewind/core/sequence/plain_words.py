"""A line of plain words, read into a shot: quick to write outdoors, corrected afterwards.

What is understood is taken out of the line; the rest is what the shot shows.
"""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Any

from ridgewind.core.errors import InvalidArgumentError
from ridgewind.core.sequence.shot import (
    HEADINGS,
    PLAYBACK_RANGE,
    SECONDS_RANGE,
    Heading,
    Part,
    PlannedShot,
    ShotMove,
    Size,
)

SLOW = 0.5
"""Of full speed, where a line only says slow (chosen here: middle rates are usually enough)."""

NUMBERS = {"one": 1, "once": 1, "two": 2, "twice": 2, "three": 3, "four": 4, "five": 5}

PART_OF_SIZE: dict[Size, Part] = {
    "wide": "where",
    "medium": "who",
    "close": "what",
    "detail": "detail",
}
"""The usual order of a story: where we are, who, what exactly, a detail."""


@dataclass(frozen=True)
class ReadLine:
    """What a line says. understood: the words that were taken for something, and for what."""

    shot: PlannedShot
    understood: tuple[tuple[str, str], ...]


@dataclass(frozen=True)
class _Phrase:
    """Words that stand for a value of a field; value may be worked out of what was matched."""

    pattern: str
    field: str
    value: Any


def _few(match: re.Match[str]) -> int:
    text = match[1].lower()
    return int(text) if text.isdecimal() else NUMBERS[text]


def _seconds(match: re.Match[str]) -> float:
    low, high = SECONDS_RANGE
    return min(max(float(match[1].replace(",", ".")), low), high)


def _text(match: re.Match[str]) -> str:
    return match[1].strip()


_MANY = "|".join(NUMBERS)
_WAYS = r"(?:\s+(?:to\s+(?:the\s+)?)?(left|right|up|down|in|out))?"
_END = r"(?=\s*(?:,|;|\.|$))"

PHRASES: tuple[_Phrase, ...] = (
    _Phrase(rf"\bask(?:ing)?\s+(.+?){_END}", "ask", _text),
    _Phrase(rf"\bif\s+(.+?)\s+(?:allows?|agrees?)\b{_END}", "ask", _text),
    _Phrase(rf"\bwith\s+([^,;]+?)\s+in\s+(?:front|the\s+foreground){_END}", "foreground", _text),
    _Phrase(rf"[,;]\s*([^,;]+?)\s+in\s+(?:front|the\s+foreground){_END}", "foreground", _text),
    _Phrase(rf"\b(?:past|through|over)\s+(.+?){_END}", "foreground", _text),
    _Phrase(r"\b(\d+(?:[.,]\d+)?)\s*(?:s|sec|secs|seconds?)\b", "seconds", _seconds),
    _Phrase(rf"\b(\d+|{_MANY})\s+(?:takes|times)\b", "takes", _few),
    _Phrase(r"\b(twice|once)\b", "takes", _few),
    _Phrase(r"\b(?:extreme\s+close|detail|macro)\b", "size", "detail"),
    _Phrase(r"\b(?:close(?:\s*-?\s*up)?|tight)\b", "size", "close"),
    _Phrase(r"\b(?:medium|half(?:\s+figure)|waist\s+up)\b", "size", "medium"),
    _Phrase(r"\b(?:very\s+)?(?:wide|whole\s+view)\b", "size", "wide"),
    _Phrase(r"\b(?:from\s+|on\s+|at\s+)?(?:the\s+)?ground(?:\s+level)?\b", "height", "ground"),
    _Phrase(r"\b(?:from\s+below|low(?:\s+down)?|knee\s+height|hip\s+height)\b", "height", "low"),
    _Phrase(r"\bfrom\s+(?:above|high\s+up)|\bhigh\s+up\b|\boverhead\b", "height", "above"),
    _Phrase(r"\b(?:at\s+)?eye(?:\s+level|\s+height)\b", "height", "eye"),
    _Phrase(r"\b(?:walks?|comes?|moves?|steps?)\s+in(?:to)?(?:\s+(?:the\s+)?(?:frame|picture))?\b",
            "enters", True),
    _Phrase(r"\benters?(?:\s+the\s+(?:frame|picture))?\b", "enters", True),
    _Phrase(r"\b(?:with\s+)?(?:sound|speech)\b|\b(?:speaks|talks|says)\b", "sound", True),
    _Phrase(r"\b(?:in\s+)?slow(?:ed)?(?:\s+(?:motion|down))?\b", "playback", SLOW),
    _Phrase(r"\bmatch(?:ed|es|ing)?(?:\s+(?:the\s+)?(?:motion|move))?\b", "joins", "motion"),
    _Phrase(r"\bsweep\b", "joins", "sweep"),
    _Phrase(r"\b(?:what\s+(?:they|he|she)\s+sees?|answers?)\b", "joins", "answer"),
    _Phrase(r"\b(?:at\s+)?(?:dawn|morning|sunrise)\b", "light", "morning"),
    _Phrase(r"\b(?:at\s+)?(?:noon|midday)\b", "light", "noon"),
    _Phrase(r"\b(?:at\s+)?(?:dusk|evening|sunset)\b", "light", "evening"),
    _Phrase(r"\b(?:at\s+)?night\b", "light", "night"),
    _Phrase(r"\b(?:inside|indoors)\b", "light", "inside"),
    _Phrase(r"\b(?:arriving|opening|where\s+we\s+are)\b", "part", "where"),
    _Phrase(r"\b(?:leaving|ending)\b", "part", "leaving"),
)  # fmt: skip
"""In the order in which they are looked for: longer phrases come before what stands in them."""

MOVES: tuple[tuple[str, ShotMove], ...] = (
    (r"push(?:es|ing)?(?:\s*-?\s*in)?", "push_in"),
    (r"pull(?:s|ing)?(?:\s*-?\s*(?:out|back))?", "pull_out"),
    (r"pan(?:s|ning)?", "pan"),
    (r"tilt(?:s|ing)?", "tilt"),
    (r"slid(?:e|es|ing)", "slide"),
    (r"orbit(?:s|ing)?", "orbit"),
    (r"ris(?:e|es|ing)", "rise"),
    (r"walk(?:ing)?", "walk"),
    (r"still|locked(?:\s+off)?", "still"),
)
_FROM = re.compile(r"\bfrom\s+(?:the\s+)?(left|right)(?:\s+to\s+(?:the\s+)?(?:left|right))?\b")
_LEFTOVER = re.compile(
    r"^(?:\s|\.|\b(?:of|on|shot|in|across|around|round|from|along|and)\b)+|(?:\s|\.|\band\b)+$"
)
_LINKS = re.compile(r"\s*[,;]\s*(?:[,;]\s*)*")


def read_line(text: str) -> ReadLine:
    """Read a line such as "wide of the mill, low, pan left 6 s, gate in front, twice".

    >>> read_line("close on the millstones, push in 4 s, slow").shot.move
    'push_in'

    Raises InvalidArgumentError where it does not say what is shown.
    """
    found: dict[str, Any] = {}
    understood: list[tuple[str, str]] = []
    rest = f" {text.strip()} "
    rest, move = _take_move(rest, understood)
    for phrase in PHRASES:
        if phrase.field in found:
            continue
        match = re.search(phrase.pattern, rest, re.IGNORECASE)
        if match is None:
            continue
        value = phrase.value(match) if callable(phrase.value) else phrase.value
        found[phrase.field] = value
        understood.append((match[0].strip(" ,;."), phrase.field))
        rest = f"{rest[: match.start()]},{rest[match.end() :]}"
    subject = _subject(rest)
    if not subject:
        raise InvalidArgumentError("line", text, "it must say what is shown")
    shot = PlannedShot(subject, move=move[0], heading=move[1])
    shot = replace(shot, **found)
    if "part" not in found:
        shot = replace(shot, part=PART_OF_SIZE[shot.size])
    low, high = PLAYBACK_RANGE
    return ReadLine(replace(shot, playback=min(max(shot.playback, low), high)), tuple(understood))


def _take_move(
    text: str, understood: list[tuple[str, str]]
) -> tuple[str, tuple[ShotMove, Heading | None]]:
    """The line without its move, and the move with its way."""
    for pattern, move in MOVES:
        match = re.search(rf"\b(?:{pattern})\b{_WAYS}", text, re.IGNORECASE)
        if match is None:
            continue
        rest = f"{text[: match.start()]},{text[match.end() :]}"
        ways = HEADINGS[move]
        heading: Heading | None = next(
            (way for way in ways if way == (match[1] or "").lower()), None
        )
        told = [match[0].strip()]
        since = _FROM.search(rest)
        if heading is None and since is not None and "left" in ways:
            heading = "right" if since[1].lower() == "left" else "left"
            told.append(since[0])
            rest = f"{rest[: since.start()]},{rest[since.end() :]}"
        understood.append((" ".join(told), "move"))
        return rest, (move, heading or (ways[0] if ways else None))
    return text, ("still", None)


def _subject(rest: str) -> str:
    parts: Sequence[str] = [part.strip() for part in _LINKS.split(rest)]
    kept = [_LEFTOVER.sub("", part).strip() for part in parts]
    return ", ".join(part for part in kept if part and part.lower() not in {"with", "a", "the"})
