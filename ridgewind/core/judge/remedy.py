"""A remedy, a decision, and the words of a verdict."""

from __future__ import annotations

from dataclasses import dataclass

from ridgewind.core.brief import Brief
from ridgewind.core.judge.hold import Hold
from ridgewind.core.words import span_words


@dataclass(frozen=True)
class Remedy:
    """One way on, and what comes of it.

    kind: keep, lee, slow, polish, polish_lee, slow_polish, hold or retake. passes: it meets the
    brief. gust, peak: after it, None where it does not apply. start_s, end_s: part of the file
    that it uses. rate, step: of playback, 1 for as shot, and frames filmed for each one that is
    shown. plays_s:
    seconds on screen. crop_pct, corner_hz: of the polish, 0 and None without one. cost: what it
    takes away in words, "" for nothing. points: the same on the scale of cost.py. warnings: what
    will be seen all the same. hold: of the subject, None without one; subject_gust: what that
    should read, gust being of what is behind it. reason: why it passes or why it is not open, one
    or two short sentences.
    """

    kind: str
    passes: bool
    reason: str
    points: float
    gust: float | None = None
    peak: float | None = None
    start_s: float | None = None
    end_s: float | None = None
    rate: float = 1.0
    step: float = 1.0
    plays_s: float | None = None
    crop_pct: float = 0.0
    corner_hz: float | None = None
    cost: str = ""
    warnings: tuple[str, ...] = ()
    hold: Hold | None = None
    subject_gust: float | None = None


@dataclass(frozen=True)
class Decision:
    """remedies: as shot first, then from cheap to dear; remedy: the kind that is the verdict;
    text: why. None and no remedies where it is not settled what was measured."""

    remedies: tuple[Remedy, ...]
    remedy: str | None
    text: str

    def of(self, kind: str) -> Remedy:
        return next(one for one in self.remedies if one.kind == kind)


UNSETTLED = {
    "rivals": "Not settled: two motions are as likely to be the camera’s. Say whose it is.",
    "alone": "Not settled: what can be followed does not reach the edges of the picture, so it may "
    "move by itself. Say whose motion it is, or leave more of the background in the frame.",
    "noise": "Not settled: it shakes hardly more than the measurement errs. More light, or more "
    "texture behind the subject, would tell.",
}
"""What is said instead of a verdict, by the path's doubt."""


def unsettled(doubt: str) -> Decision:
    """No remedy can be drawn from a path that is in doubt."""
    return Decision((), None, UNSETTLED[doubt])


def verdict_text(chosen: Remedy, keep: Remedy, brief: Brief) -> str:
    """The verdict in one sentence or two."""
    target = f"the {brief.target:.1f} that {brief.feel} allows"
    slow = f"Slow to {100 * chosen.rate:.0f} %"
    begin = {
        "keep": "Keep it as shot",
        "lee": f"Keep the lee from {span_words(chosen.start_s or 0, chosen.end_s or 0)}",
        "slow": slow,
        "polish": "Polish it",
        "polish_lee": "Polish the lee",
        "slow_polish": f"{slow} and polish",
        "hold": "Hold the subject",
    }.get(chosen.kind)
    if begin is not None:
        return f"{begin}: gust {chosen.gust:.1f}, within {target}. {chosen.reason}"
    if keep.gust is None:
        return f"Do it again. {chosen.reason}"
    return f"Do it again: gust {keep.gust:.1f} where {brief.target:.1f} is allowed. {chosen.reason}"
