"""What a list of shots does not have yet, so that it cuts together; said once each, with why.

Rules of the craft, not laws: each can be waved away.
"""

from __future__ import annotations

import itertools
from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass
from typing import Literal

from ridgewind.core.errors import InvalidArgumentError
from ridgewind.core.sequence.shot import Heading, PlannedShot, move_name, same_subject

Rule = Literal[
    "no_close", "no_wide", "one_height", "same_move", "direction_flips", "no_way_in",
    "no_way_out", "nothing_near", "all_slowed", "wanted_again", "no_title",
]  # fmt: skip

FEW = 3
"""Shots under which a list is too short to be said to lack variety (chosen here)."""

ENDS_FROM = 4
"""Shots from which a list has a start and an end (chosen here)."""

RUN = 3
"""The same move so many times running tires (craft)."""

TITLE_S = 3.0
"""Least seconds of a frame on which words can be read (chosen here)."""

AGAINST: dict[Heading, Heading] = {"left": "right", "right": "left"}
NEAR, FAR = frozenset({"close", "detail"}), frozenset({"wide", "medium"})


@dataclass(frozen=True)
class Gap:
    """Something that is missing. key: by which it is waved away. positions: of the shots that it is
    about, from 0."""

    rule: Rule
    key: str
    text: str
    why: str
    positions: tuple[int, ...]


Rules = Callable[[Sequence[PlannedShot]], Iterator[Gap]]


def missing(
    shots: Sequence[PlannedShot], *, filmed: Sequence[int] | None = None
) -> tuple[Gap, ...]:
    """What is missing from shots in the order on screen.

    filmed: of each, how many takes were got, None before anything was filmed. Raises
    InvalidArgumentError where it has another length.
    """
    if filmed is not None and len(filmed) != len(shots):
        raise InvalidArgumentError("filmed", len(filmed), f"there are {len(shots)} shots")
    found = [gap for rule in RULES for gap in rule(shots)]
    if filmed is not None:
        found += _wanted_again(shots, filmed)
    return tuple(found)


def _no_close(shots: Sequence[PlannedShot]) -> Iterator[Gap]:
    for position, shot in enumerate(shots):
        seen_before = any(same_subject(shot, one) for one in shots[:position] if one.size == "wide")
        if shot.size != "wide" or seen_before:
            continue
        if not any(one.size in NEAR and same_subject(shot, one) for one in shots):
            yield Gap(
                "no_close", f"no_close {shot.subject}",
                f"Shown wide and never close: {shot.subject}.",
                "The same thing wide and then close cuts well.", (position,),
            )  # fmt: skip


def _no_wide(shots: Sequence[PlannedShot]) -> Iterator[Gap]:
    for position, shot in enumerate(shots):
        before = shots[:position]
        seen_before = any(same_subject(shot, one) for one in before if one.size in NEAR)
        if shot.size not in NEAR or seen_before:
            continue
        led_to = any(one.size in FAR and one.place == shot.place for one in before)
        if not led_to and not any(one.size in FAR and same_subject(shot, one) for one in shots):
            yield Gap(
                "no_wide", f"no_wide {shot.subject}",
                f"Shown close and never where it is: {shot.subject}.",
                "Nobody knows where a close shot is without a wider one.", (position,),
            )  # fmt: skip


def _one_height(shots: Sequence[PlannedShot]) -> Iterator[Gap]:
    heights = {shot.height for shot in shots}
    if len(shots) >= FEW and len(heights) == 1:
        yield Gap(
            "one_height", "one_height",
            f"All {len(shots)} shots are {HEIGHT_WORDS[heights.pop()]}.",
            "Eye level is what everybody sees all day; one change of height wakes the viewer.",
            tuple(range(len(shots))),
        )  # fmt: skip


def _same_move(shots: Sequence[PlannedShot]) -> Iterator[Gap]:
    start = 0
    for position in range(1, len(shots) + 1):
        goes_on = position < len(shots) and shots[position].move == shots[start].move
        if goes_on:
            continue
        if position - start >= RUN and shots[start].move != "still":
            move = move_name(shots[start].move)
            run = tuple(range(start, position))
            yield Gap(
                "same_move", f"same_move {move}", f"A {move}, {len(run)} times running.",
                "A technique stands out when it is sparing; hold one of them still.", run,
            )  # fmt: skip
        start = position


def _direction_flips(shots: Sequence[PlannedShot]) -> Iterator[Gap]:
    moving = [k for k, shot in enumerate(shots) if shot.heading in AGAINST]
    for before, after in itertools.pairwise(moving):
        if after - before > 1 and any(shots[k].move == "still" for k in range(before + 1, after)):
            continue  # what stands still between them lets the eye turn round
        one, other = shots[before], shots[after]
        if AGAINST[one.heading or "left"] == other.heading and other.joins != "answer":
            yield Gap(
                "direction_flips", f"direction_flips {before} {after}",
                f"{_named(one)} goes {one.heading}, then {other.subject} goes {other.heading}.",
                "Keep the direction from shot to shot, or put a still one between.",
                (before, after),
            )  # fmt: skip


def _ends(shots: Sequence[PlannedShot]) -> Iterator[Gap]:
    if len(shots) < ENDS_FROM:
        return
    if shots[0].heading != "in" and shots[1].heading != "in":
        yield Gap(
            "no_way_in", "no_way_in", "Nothing moves in at the start.",
            "A move towards the thing takes the viewer along.", (0,),
        )  # fmt: skip
    if shots[-1].heading != "out":
        yield Gap(
            "no_way_out", "no_way_out", "Nothing moves out at the end.",
            "Moving away says that it is over.", (len(shots) - 1,),
        )  # fmt: skip


def _nothing_near(shots: Sequence[PlannedShot]) -> Iterator[Gap]:
    if len(shots) >= FEW and not any(shot.foreground for shot in shots):
        yield Gap(
            "nothing_near", "nothing_near", "Nothing is near in front in any shot.",
            "Something near gives depth, and makes a small move seen.", (),
        )  # fmt: skip


def _all_slowed(shots: Sequence[PlannedShot]) -> Iterator[Gap]:
    if len(shots) >= FEW and all(shot.playback < 1 for shot in shots):
        yield Gap(
            "all_slowed", "all_slowed", "Every shot is slowed.",
            "What is always slow drags; slow the one that deserves it.", tuple(range(len(shots))),
        )  # fmt: skip


def _no_title(shots: Sequence[PlannedShot]) -> Iterator[Gap]:
    def holds(shot: PlannedShot) -> bool:
        return shot.move == "still" and not shot.enters and shot.seconds >= TITLE_S

    if len(shots) >= FEW and not any(holds(shot) for shot in shots):
        yield Gap(
            "no_title", "no_title", f"No frame stands still for {TITLE_S:.0f} s, for a title.",
            "Words are read on a still picture.", (),
        )  # fmt: skip


def _wanted_again(shots: Sequence[PlannedShot], filmed: Sequence[int]) -> Iterator[Gap]:
    for position, (shot, got) in enumerate(zip(shots, filmed, strict=True)):
        if 0 < got < shot.takes:
            yield Gap(
                "wanted_again", f"wanted_again {shot.subject} {position}",
                f"{_named(shot)} was wanted {_times(shot.takes)} and filmed {_times(got)}.",
                "Two or three takes of a move leave one to choose.", (position,),
            )  # fmt: skip


RULES: tuple[Rules, ...] = (
    _no_close, _no_wide, _one_height, _same_move, _direction_flips, _ends, _nothing_near,
    _all_slowed, _no_title,
)  # fmt: skip

HEIGHT_WORDS = {
    "ground": "from the ground", "low": "from low", "eye": "at eye level", "above": "from above",
}  # fmt: skip


def _named(shot: PlannedShot) -> str:
    return shot.subject[:1].upper() + shot.subject[1:]


def _times(count: int) -> str:
    return {1: "once", 2: "twice"}.get(count, f"{count} times")
