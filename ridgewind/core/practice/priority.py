"""How much a drill is wanted today, and why: goals, shot, lens, what is due and what is weak."""

from __future__ import annotations

import re
from collections.abc import Iterable, Mapping

from ridgewind.core.practice.drill import Drill
from ridgewind.core.practice.due import Due

NEW_SHARE, WEAKEST_SHARE, GOAL_SHARE, MOST_OVERDUE = 0.6, 1.2, 2.0, 2.0
SHOT_SHARE, LENS_SHARE = 3.0, 1.5
"""What makes a drill wanted, in the same measure as intervals overdue (chosen here)."""

LONG_FROM_MM, WIDE_TO_MM = 70.0, 28.0
"""Equivalent focal lengths from which tremor rules the picture, and up to which travel does
(chosen here)."""

SHOT_MATCH_SHARE = 0.6
"""A drill serves a shot that it matches at least so well as the best one does."""

NAME_WORD, TEXT_WORD = 1.0, 0.25
"""What a word of the shot counts in a drill's name, and in its texts."""

FILLERS = frozenset({
    "a", "across", "along", "an", "and", "are", "around", "as", "at", "be", "by", "camera", "down",
    "for", "from", "go", "i", "in", "into", "is", "it", "its", "my", "of", "off", "on", "one", "or",
    "our", "out", "over", "past", "round", "shot", "so", "take", "that", "the", "their", "then",
    "this", "through", "to", "two", "under", "up", "was", "while", "with",
})  # fmt: skip
ENDINGS = ("ing", "ed", "es", "s", "e")


def priority_of(
    drill: Drill,
    *,
    goals: Iterable[str],
    shot: Mapping[str, tuple[str, ...]],
    focal_eq_mm: float | None,
    due: Mapping[tuple[str, str], Due],
    weakest: str | None,
    today: int,
) -> tuple[float, tuple[str, ...]]:
    """How much a drill is wanted, and the reasons, the strongest first.

    shot: see `drills_for_shot`. due: by drill and variation key.
    """
    found: list[tuple[float, str]] = []
    chosen = set(goals)
    if drill.key in shot:
        found.append((SHOT_SHARE, f"for your shot: {', '.join(shot[drill.key])}"))
    if drill.key in chosen:
        found.append((GOAL_SHARE + 1.0, "your goal"))
    elif drill.measures in chosen:
        found.append((GOAL_SHARE, f"your goal: {drill.measures}"))
    elif drill.family in chosen:
        found.append((GOAL_SHARE, f"your goal: {drill.family}"))
    if focal_eq_mm is not None and (why := _lens_reason(drill, focal_eq_mm)):
        found.append((LENS_SHARE, why))
    if weakest is not None and drill.measures == weakest:
        found.append((WEAKEST_SHARE, f"weakest: {weakest} band"))
    found.append(_due_reason(drill, due, today))
    found.sort(key=lambda one: -one[0])
    return sum(score for score, _ in found), tuple(why for _, why in found)


def drills_for_shot(shot: str, drills: Iterable[Drill]) -> dict[str, tuple[str, ...]]:
    """Which drills serve a shot that is described in words, by key, and the words that say so.

    A word counts most in a drill's name and family; endings are left aside. Empty where nothing
    of it is known.
    """
    said = {stem: word for word in _words(shot) if (stem := _stem(word)) not in FILLERS}
    scores: dict[str, tuple[float, tuple[str, ...]]] = {}
    for drill in drills:
        named = {_stem(word) for word in _words(f"{drill.name} {drill.family} {drill.key}")}
        told = {_stem(word) for word in _words(f"{drill.purpose} {drill.use} {drill.move}")}
        score = sum(NAME_WORD if stem in named else TEXT_WORD if stem in told else 0.0
                    for stem in said)  # fmt: skip
        if any(stem in named for stem in said):
            words = tuple(word for stem, word in said.items() if stem in named | told)
            scores[drill.key] = (score, words)
    best = max((score for score, _ in scores.values()), default=0.0)
    return {
        key: words for key, (score, words) in scores.items() if score >= SHOT_MATCH_SHARE * best
    }


def _words(text: str) -> list[str]:
    return [word for word in re.findall(r"[a-z]+", text.lower()) if word not in FILLERS]


def _stem(word: str) -> str:
    """A word without its ending, so that `walks` and `walking` are one.

    >>> _stem("walking") == _stem("walk") == _stem("walks")
    True
    """
    for ending in ENDINGS:
        if word.endswith(ending) and len(word) - len(ending) >= 3:
            return word.removesuffix(ending)
    return word


def _lens_reason(drill: Drill, focal_eq_mm: float) -> str | None:
    """Why a drill suits a lens, or None: a long one shows tremor, a wide one travel."""
    if focal_eq_mm >= LONG_FROM_MM:
        suits = drill.family in ("leaning", "monopod", "strap", "weight") or (
            drill.family == "standing" and drill.measures == "jitter"
        )
        return f"for {focal_eq_mm:.0f} mm: a long lens shows tremor" if suits else None
    if focal_eq_mm <= WIDE_TO_MM:
        suits = drill.family in ("walking", "planted")
        return f"for {focal_eq_mm:.0f} mm: a wide lens shows travel" if suits else None
    return None


def _due_reason(drill: Drill, due: Mapping[tuple[str, str], Due], today: int) -> tuple[float, str]:
    known = [due[drill.key, one.key] for one in drill.variations if (drill.key, one.key) in due]
    done = [one for one in known if one.last_day is not None]
    if not done:
        return NEW_SHARE, "new to you"
    worst = max(done, key=lambda one: one.overdue)
    if worst.overdue >= 0 and worst.last_day is not None:
        days = today - worst.last_day
        how = "passed" if worst.last_passed else "failed"
        said = "today" if days == 0 else "1 day ago" if days == 1 else f"{days} days ago"
        return 1.0 + min(MOST_OVERDUE, worst.overdue), f"due again: last {how} {said}"
    return -1.0, f"not due for {max(0, worst.due_day - today)} days"
